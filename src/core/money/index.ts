export {
  decimalsOf,
  lineNet,
  type Minor,
  minorToDecimal,
  type Price,
  type PriceFault,
  parsePrice,
  pricePerBaseUnit,
} from './money';
