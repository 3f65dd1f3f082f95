export { gamma, normal } from './continuous';
export { negativeBinomial, poisson } from './counts';
export { type Distribution, quantile, shortageQuantile } from './distribution';
export { mixture } from './mixture';
export { inverseLoss, normalCdf, normalDensity, normalQuantile, normalTail, unitLoss } from './normal';
