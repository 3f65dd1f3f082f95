export { type BreakLine, type BreakScope, breakQuantity } from './breakQuantity';
export { chooseSource, type SourceAtPlace, type SourceRule } from './chooseSource';
export { discounted, type PriceStep, preferredSource, priceAt, type RankedSource } from './priceAt';
export { type CostOrder, type CostOrigin, proposedCost } from './proposedCost';
