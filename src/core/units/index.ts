export { conversionFactor, type UnitFault } from './convert';
export { decimalFraction, divideHalfUp, type Fraction, fraction, over, sameFraction, times } from './fraction';
export { type Dimension, type Unit, unitsByCode } from './units';
