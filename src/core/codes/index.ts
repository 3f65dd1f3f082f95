export { type Barcode, type BarcodeFault, barcodeText, parseBarcode } from './barcode';
export { countryCode, hsCode, unNumber } from './classification';
export { checkDigit, type GtinFault, gtinLengths, parseGtin, parseKey, printedGtin } from './gtin';
