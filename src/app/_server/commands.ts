import Joi from 'joi';
import type { Actor } from '@/core/people';
import type { Result } from '@/core/result';
import { setSource } from '@/services/catalogue/setSource';
import { setSupplierTerms } from '@/services/catalogue/setSupplierTerms';
import type { Request } from '@/services/command';
import { closeBooks } from '@/services/cost/closeBooks';
import type { Deps } from '@/services/deps';
import type { Failure } from '@/services/failure';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { setMinMax } from '@/services/planning/setMinMax';
import { setPlanningRules } from '@/services/planning/setPlanningRules';
import { takeBack } from '@/services/planning/takeBack';
import { approveOrder } from '@/services/purchase/approveOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { putBackOrder } from '@/services/purchase/putBackOrder';
import { reopenOrder } from '@/services/purchase/reopenOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { allocateStock, releaseAllocation } from '@/services/stock/allocateStock';
import { countStock } from '@/services/stock/countStock';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { undoCommand } from '@/services/undo/undoCommand';
import { cancelJob } from '@/services/work/cancelJob';
import { startJob } from '@/services/work/startJob';

const id = Joi.number()
  .integer()
  .min(1)
  .max(2 ** 53 - 1)
  .required();
const typed = Joi.string().allow('').max(40).required();
const rules = Joi.object({
  trigger: Joi.valid('at_or_below', 'strictly_below').required(),
  refill: Joi.valid('up_to_max', 'up_to_min').required(),
});
const key = Joi.string()
  .pattern(/^[A-Za-z0-9_-]{16,64}$/)
  .required();
const day = Joi.string().allow('').max(10).required();
const note = (most: number) => Joi.string().allow('').max(most).required();
const lines = (fields: object) => Joi.array().items(Joi.object(fields)).min(1).max(500).required();
const order = Joi.object({ orderId: id, version: id });

type Run = (deps: Deps, actor: Actor, request: Request<never>) => Promise<Result<unknown, Failure>>;
const entry = (shape: Joi.Schema, run: unknown) => ({ shape, run: run as Run });

/** Every command a client may send: its shape (Joi checks shape only; core checks meaning) and its use case. */
export const commands: Readonly<Record<string, { shape: Joi.Schema; run: Run }>> = {
  'accept-need': entry(
    Joi.object({ needId: id, fingerprint: Joi.string().max(160).required(), packs: typed }),
    acceptNeed,
  ),
  'take-back': entry(Joi.object({ trayLineId: id }), takeBack),
  'make-orders': entry(Joi.object({ supplierIds: Joi.array().items(id).min(1).max(300).required() }), makeOrders),
  'put-back-order': entry(order, putBackOrder),
  'approve-order': entry(order, approveOrder),
  'reopen-order': entry(order, reopenOrder),
  'send-order': entry(order.append({ how: Joi.valid('printed', 'phone', 'email').required() }), sendOrder),
  'edit-order': entry(
    Joi.alternatives(
      Joi.object({
        orderId: id,
        field: Joi.valid('packs', 'wantedDate').required(),
        partId: id,
        was: typed,
        now: typed,
      }),
      Joi.object({
        orderId: id,
        field: Joi.valid('price', 'freeOfCharge').required(),
        lineId: id,
        was: typed,
        now: typed,
      }),
      Joi.object({ orderId: id, field: Joi.valid('remove').required(), lineId: id, was: typed }),
    ),
    editOrder,
  ),
  'receive-goods': entry(
    Joi.object({
      orderId: id,
      locationId: id,
      deliveryNote: Joi.string().allow('').max(60).required(),
      businessDate: day,
      counted: Joi.array()
        .items(Joi.object({ partId: id, quantity: typed, unit: Joi.valid('pack', 'base').required() }))
        .unique('partId')
        .max(2000)
        .required(),
    }),
    receiveGoods,
  ),
  'set-min-max': entry(
    Joi.object({
      itemId: id,
      locationId: id.allow(null),
      min: typed,
      max: typed,
      was: Joi.object({ min: typed, max: typed }).allow(null).required(),
    }),
    setMinMax,
  ),
  'set-planning-rules': entry(rules.append({ was: rules.required() }), setPlanningRules),
  'set-supplier-terms': entry(
    Joi.object({
      supplierId: id,
      version: id,
      leadTimeDays: Joi.number().integer().min(0).max(365).required(),
      leadTimeKind: Joi.valid('working', 'calendar').required(),
      status: Joi.valid('active', 'blocked').required(),
    }),
    setSupplierTerms,
  ),
  'set-source': entry(
    Joi.object({
      sourceId: id,
      version: id,
      preference: Joi.number().integer().min(1).max(99).required(),
      minimum: typed,
      multiplePacks: Joi.number().integer().min(1).max(9999).required(),
      rounding: Joi.valid('up', 'nearest', 'none').required(),
    }),
    setSource,
  ),
  'sell-goods': entry(
    Joi.object({
      locationId: id,
      businessDate: day,
      lines: lines({ itemId: id, quantity: typed, allocationId: id.allow(null) }),
    }),
    sellGoods,
  ),
  'allocate-stock': entry(
    Joi.object({ itemId: id, locationId: id, quantity: typed, promisedTo: Joi.string().max(120).required() }),
    allocateStock,
  ),
  'release-allocation': entry(Joi.object({ allocationId: id }), releaseAllocation),
  'ship-transfer': entry(
    Joi.object({
      fromLocationId: id,
      toLocationId: id,
      lines: lines({ itemId: id, quantity: typed }).unique('itemId'),
    }),
    shipTransfer,
  ),
  'receive-transfer': entry(
    Joi.object({
      transferId: id,
      lines: lines({ lineNo: id, received: typed, lost: typed, reason: note(120) }).unique('lineNo'),
    }),
    receiveTransfer,
  ),
  'count-stock': entry(
    Joi.object({ locationId: id, note: note(200), lines: lines({ itemId: id, quantity: typed }).unique('itemId') }),
    countStock,
  ),
  'reverse-receipt': entry(Joi.object({ receiptId: id, reason: note(200) }), reverseReceipt),
  undo: entry(Joi.object({ undoKey: key }), undoCommand),
  'start-job': entry(Joi.object({ kind: Joi.valid('check-needs').required() }), startJob),
  'cancel-job': entry(Joi.object({ jobId: id }), cancelJob),
  'close-books': entry(Joi.object({ to: day, was: day }), closeBooks),
};

export const envelope = Joi.object({
  key,
  input: Joi.object().required(),
});
