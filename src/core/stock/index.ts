export {
  type Counted,
  type CountLine,
  type CountState,
  type CountStateFault,
  type CountStep,
  checkCountOpen,
  differenceOf,
  expectedThen,
  isLarge,
  nextCount,
  type RecountLimits,
  stepOf,
} from './counting';
export { type CountTableRow, countTable } from './countTable';
export { type Crossing, crossingOf } from './crossing';
export { type ComponentLine, explodeKits, type KitContent, type SoldLine } from './explodeKits';
export { movementKinds, type ShownMovementKind } from './movementKinds';
export { type MoverFigures, type MoverInput, moverFigures, worthOfPart } from './movers';
export {
  checkTransfer,
  type TransferAction,
  type TransferState,
  type TransferStateFault,
  transferAllows,
  transferStates,
} from './transferState';
