export { type AbcClass, type AbcRule, abcClasses } from './abc';
export { gini } from './gini';
export { type LimitFault, type Limits, readLimits, type TypedLimits, thousandthsOf } from './limits';
export { variation, type XyzClass, xyzClass } from './xyz';
