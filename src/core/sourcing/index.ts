export { type PriceStep, preferredSource, priceAt, type RankedSource } from './priceAt';
