export {
  allocateSets,
  byTurn,
  partQuantity,
  type SetPart,
  type Turn,
  type WaitingLine,
} from './allocateSets';
export { type Cover, type Covered, coverWaiting, type Expected, promiseOf, type Waiting } from './coverWaiting';
export { mayPromise, type PromiseRule, promiseRules } from './mayPromise';
export {
  type CustomerOrderAction,
  type CustomerOrderFault,
  type CustomerOrderState,
  checkCustomerOrder,
  customerOrderAllows,
  customerOrderStates,
} from './orderActions';
export {
  backorderedOf,
  handOverNow,
  type LineFigures,
  type LineState,
  lineStateOf,
  lineStates,
  openOf,
} from './orderLine';
