export { type Addressed, deliveryAddress, invoiceAddress } from './addresses';
export { checkLineQuantity, type LineQuantityFault, MAX_PACKS_PER_LINE } from './checkLineQuantity';
export { type Counted, countGoods, openOf } from './countGoods';
export { type Finding, type FindingLine, type FindingOrder, findings, type LineKind } from './findings';
export { draftsThatFit, draftToJoin, type OpenDraft, type TrayChoice } from './joinDraft';
export {
  nextState,
  type OrderAction,
  type OrderState,
  type OrderStateFault,
  type Progress,
  progress,
} from './orderState';
export { deliveryWords, type FreightPayer, paymentWords, termsLine } from './terms';
export { orderTotals, receiptValue, type TotalLine } from './totals';
