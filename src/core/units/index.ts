export { conversionFactor, type UnitFault } from './convert';
export { decimalFraction, divideHalfUp, type Fraction, fraction, over, sameFraction, times } from './fraction';
export { commonUnits, type Dimension, type Unit, unitsByCode } from './units';
