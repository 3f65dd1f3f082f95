export { type Addressed, deliveryAddress, invoiceAddress } from './addresses';
export { checkLineQuantity, type LineQuantityFault, MAX_PACKS_PER_LINE } from './checkLineQuantity';
export {
  type CostShare,
  type CostShareFault,
  costByShare,
  costSharesText,
  parseCostShares,
} from './costShares';
export { type Counted, countGoods, openOf } from './countGoods';
export { type Delivery, type SplitFault, splitDelivery, spreadOverWeeks } from './deliveries';
export { differences, type LineDifference, type SaidLine, type SaidPart } from './differences';
export {
  type Finding,
  type FindingLine,
  type FindingOrder,
  findings,
  type LineKind,
  type Matching,
  matchings,
} from './findings';
export { concernsOf, type Followed, type OrderConcern, orderConcerns } from './followUp';
export { draftsThatFit, draftToJoin, type OpenDraft, type TrayChoice } from './joinDraft';
export { type CostLine, type CostOfLine, type OrderCost, type OrderCostInput, orderCost } from './orderCost';
export { type MailText, orderMail, type Reminded, reminderMail } from './orderMail';
export {
  isOfPattern,
  type NumberPattern,
  type NumberPatternFault,
  numberOf,
  numberSeries,
  parseNumberPattern,
  USUAL_PATTERN,
} from './orderNumbers';
export {
  letterheadOf,
  type OrderPaper,
  type PaperColumn,
  type PaperLanguage,
  type PaperLine,
  type PaperPart,
  type PaperSetup,
  paperColumns,
  paperLanguageOf,
  paperLanguages,
  unprintable,
} from './orderPaper';
export {
  actionRights,
  actionsOf,
  isDrafted,
  isEditable,
  isOrdered,
  nextState,
  type OrderAction,
  type OrderFacts,
  type OrderState,
  type OrderStateFault,
  orderActions,
  orderStates,
  type PriceReason,
  type Progress,
  progress,
  type SentHow,
  sentHows,
  stageOf,
} from './orderState';
export { PaperText } from './paperText';
export { paperWords } from './paperWords';
export { deliveryWords, type FreightPayer, paymentWords } from './terms';
export { netOfLine, orderTotals, receiptValue, type TotalLine } from './totals';
