export { marginPercent, type SalePrice, type SetPrice, salePriceOf, withoutTax } from './salePrice';
