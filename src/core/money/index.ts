export { allocate } from './allocate';
export { currencies, decimalsOf, isCurrency } from './currencies';
export {
  eachText,
  lineNet,
  type Minor,
  minorToDecimal,
  moneyText,
  type Price,
  type PriceFault,
  parsePrice,
  pricePerBaseUnit,
} from './money';
export { basePerForeign, convert, type Rate, type RateDirection, rateOn } from './rates';
export { withCents } from './withCents';
