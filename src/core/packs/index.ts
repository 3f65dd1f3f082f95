export { baseQuantity, isWholePacks, nextPartQuantity, packsIn, partQuantities } from './baseQuantity';
export { contentMicro, type Pack, type PackFault, packContent } from './content';
export { cascade, type Rounding, roundToStep } from './roundToPacks';
