export {
  type OrderTax,
  orderTax,
  type Purpose,
  type TaxedLine,
  type TaxRate,
  type TaxRegime,
  type TaxSum,
  taxRateOn,
  taxRegimes,
} from './orderTax';
