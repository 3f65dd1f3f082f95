export { entryText, parseQuantity, type QuantityFault } from './parseQuantity';
export { checked, fromDecimal, isQuantity, MAX_QUANTITY, MICRO, type Quantity, toDecimal, units } from './quantity';
