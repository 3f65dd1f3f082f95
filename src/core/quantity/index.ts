export { checked, fromDecimal, isQuantity, MAX_QUANTITY, MICRO, type Quantity, toDecimal, units } from './quantity';
export { parseQuantity, type QuantityFault } from './parseQuantity';
