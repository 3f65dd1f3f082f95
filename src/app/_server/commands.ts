import Joi from 'joi';
import { type Actor, alertMatters } from '@/core/people';
import { paperColumns, paperLanguages, sentHows } from '@/core/purchase';
import type { Result } from '@/core/result';
import { seeAlerts, setAlerts } from '@/services/alerts/setAlerts';
import { makeFamily } from '@/services/catalogue/makeFamily';
import { makeItem } from '@/services/catalogue/makeItem';
import { setComplete } from '@/services/catalogue/setComplete';
import { setSource } from '@/services/catalogue/setSource';
import { setSupplierTerms } from '@/services/catalogue/setSupplierTerms';
import type { Request } from '@/services/command';
import { closeBooks } from '@/services/cost/closeBooks';
import type { Deps } from '@/services/deps';
import type { Failure } from '@/services/failure';
import { changePerson } from '@/services/people/changePerson';
import { invitePerson } from '@/services/people/invitePerson';
import { removeRole } from '@/services/people/removeRole';
import { resetPassword } from '@/services/people/resetPassword';
import { saveRole } from '@/services/people/saveRole';
import { setLocale } from '@/services/people/setLocale';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { acceptNeeds } from '@/services/planning/acceptNeeds';
import { acceptShown } from '@/services/planning/acceptShown';
import { askByHand } from '@/services/planning/askByHand';
import { bringBack } from '@/services/planning/bringBack';
import { savePolicies } from '@/services/planning/savePolicies';
import { setAside } from '@/services/planning/setAside';
import { setPlanningRules } from '@/services/planning/setPlanningRules';
import { startSplit } from '@/services/planning/startSplit';
import { takeBack } from '@/services/planning/takeBack';
import { takeSplit } from '@/services/planning/takeSplit';
import { cancelCustomerLines } from '@/services/promise/cancelCustomerLines';
import { changeCustomerOrder } from '@/services/promise/changeCustomerOrder';
import { addCustomerLines, enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { handOver } from '@/services/promise/handOver';
import { holdForCustomer } from '@/services/promise/holdForCustomer';
import { setLineWay } from '@/services/promise/setLineWay';
import { tellCustomer } from '@/services/promise/tellCustomer';
import { addOrderLine } from '@/services/purchase/addOrderLine';
import { addOtherLine } from '@/services/purchase/addOtherLine';
import { amendOrder, dropAmendment } from '@/services/purchase/amendOrder';
import { approveOrder } from '@/services/purchase/approveOrder';
import { askApproval, refuseOrder, withdrawOrder } from '@/services/purchase/askApproval';
import { buyOneToOne } from '@/services/purchase/buyOneToOne';
import { buyOverCounter } from '@/services/purchase/buyOverCounter';
import { confirmOrder } from '@/services/purchase/confirmOrder';
import { copyOrder } from '@/services/purchase/copyOrder';
import { editHead, headFields } from '@/services/purchase/editHead';
import { editOrder } from '@/services/purchase/editOrder';
import { cancelOrder, closeOrder, cutSupply, openOrderAgain } from '@/services/purchase/endOrder';
import { fillFromNeeds } from '@/services/purchase/fillFromNeeds';
import { followUpOrder } from '@/services/purchase/followUp';
import { makeOrders } from '@/services/purchase/makeOrders';
import { newOrder } from '@/services/purchase/newOrder';
import { bookingFields } from '@/services/purchase/orderCell';
import { pasteLines } from '@/services/purchase/pasteLines';
import { putBackOrder } from '@/services/purchase/putBackOrder';
import { remindSupplier } from '@/services/purchase/remindSupplier';
import { reopenOrder } from '@/services/purchase/reopenOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { setOrderCharge } from '@/services/purchase/setOrderCharge';
import { setTray } from '@/services/purchase/setTray';
import { splitPart, spreadPart } from '@/services/purchase/splitDeliveries';
import { takeMaterials } from '@/services/purchase/takeMaterials';
import { tellColleague } from '@/services/purchase/tellColleague';
import { topUpTray } from '@/services/purchase/topUpTray';
import { setCompany } from '@/services/setup/setCompany';
import { setLimits } from '@/services/setup/setLimits';
import { setPapers } from '@/services/setup/setPapers';
import { applySheet } from '@/services/sheets/applySheet';
import { cancelSheet } from '@/services/sheets/cancelSheet';
import { changeMany } from '@/services/sheets/changeMany';
import { mapSheet } from '@/services/sheets/mapSheet';
import { removeRecords } from '@/services/sheets/removeRecords';
import { saveRecords } from '@/services/sheets/saveRecords';
import { allocateStock, releaseAllocation } from '@/services/stock/allocateStock';
import { approveTransfer } from '@/services/stock/approveTransfer';
import { beginCount } from '@/services/stock/beginCount';
import { cancelTransfer } from '@/services/stock/cancelTransfer';
import { confirmDispatch } from '@/services/stock/confirmDispatch';
import { correctStock } from '@/services/stock/correctStock';
import { countStock } from '@/services/stock/countStock';
import { dropCount } from '@/services/stock/dropCount';
import { enterCount, setReasonOfCount } from '@/services/stock/enterCount';
import { enterCountRows } from '@/services/stock/enterCountRows';
import { planCount } from '@/services/stock/planCount';
import { postCount } from '@/services/stock/postCount';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { refuseTransfer } from '@/services/stock/refuseTransfer';
import { removeCountPlan } from '@/services/stock/removeCountPlan';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipApproved } from '@/services/stock/shipApproved';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { setToday } from '@/services/today/setToday';
import { undoCommand } from '@/services/undo/undoCommand';
import { removeView } from '@/services/views/removeView';
import { saveView } from '@/services/views/saveView';
import { cancelJob } from '@/services/work/cancelJob';
import { retryMail } from '@/services/work/retryMail';
import { startJob } from '@/services/work/startJob';
import { takeTillSales } from '@/services/work/takeTillSales';

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
/** Lots or serial numbers as typed or pasted. */
const lots = Joi.string().allow('').max(20_000);
const note = (most: number) => Joi.string().allow('').max(most).required();
const lines = (fields: object) => Joi.array().items(Joi.object(fields)).min(1).max(500).required();
const order = Joi.object({ orderId: id, version: id });
const receipt = {
  orderId: id,
  locationId: id,
  deliveryNote: Joi.string().allow('').max(60).required(),
  businessDate: day,
  counted: Joi.array()
    .items(Joi.object({ partId: id, quantity: typed, unit: Joi.valid('pack', 'base').required(), lots }))
    .unique('partId')
    .max(2000)
    .required(),
};
const customerWay = Joi.valid('from_stock', 'collect', 'straight').required();
const customerLine = {
  ...{ itemId: id, packId: id.allow(null), quantity: typed, locationId: id },
  way: customerWay,
  ...{ wantedDate: typed, shipBy: typed, holdUntil: typed },
};
const seenNeed = { needId: id, fingerprint: Joi.string().max(160).required() };
const way = Joi.alternatives(Joi.object({ sourceId: id }), Joi.object({ locationId: id }));
const sheet = Joi.object({ importId: id, version: id });
const transfer = Joi.object({ transferId: id, version: id });
const cells = Joi.object()
  .pattern(/^[a-z0-9_]{1,40}$/, Joi.string().allow('').max(2000))
  .min(1)
  .max(80)
  .required();
const person = {
  name: Joi.string().allow('').max(120).required(),
  role: Joi.string().max(20).required(),
  locationIds: Joi.array().items(id.optional()).max(200).unique().required(),
  limit: typed,
};
const seen = Joi.string().allow('').max(16).required();

/** Cells of the policy sheet; what a column means is core's affair. */
const policyCells = Joi.object()
  .pattern(/^[A-Za-z]{1,20}$/, Joi.string().allow('').max(40))
  .max(20)
  .required();
export const policyEdits = Joi.array()
  .items(Joi.object({ itemId: id, locationId: id.allow(null), was: policyCells, now: policyCells }))
  .min(1)
  .max(5000)
  .required();

const whatToCount = {
  locationId: id,
  what: Joi.valid('all', 'category', 'shelf', 'marked').required(),
  category: note(250),
  shelf: note(40),
  itemIds: Joi.array().items(id.optional()).max(2000).unique().required(),
  name: note(120),
  blind: Joi.boolean().required(),
};

const paperText = Joi.object({ opening: note(1000), closing: note(1000) }).required();
const papers = {
  ...{ pattern: typed, start: typed, next: typed },
  setup: Joi.object({
    ...{ letterhead: note(400), foot: note(400) },
    hides: Joi.array()
      .items(Joi.valid(...paperColumns))
      .unique()
      .required(),
    texts: Joi.object(Object.fromEntries(paperLanguages.map((l) => [l, paperText]))).required(),
  }).required(),
};
const limits = {
  ...{
    a: typed,
    b: typed,
    x: typed,
    y: typed,
    least: typed,
    empirical: typed,
    recountShare: typed,
    recountAmount: typed,
    promiseDays: typed,
    ...{ fourEyes: typed, confirmDays: typed },
    ...{ carrying: typed, orderCost: typed, transport: typed },
  },
  promiseRule: Joi.valid('stock', 'on_the_way', 'without_limit').required(),
  leadTimeRule: Joi.valid('measured', 'stated').required(),
};

type Run = (deps: Deps, actor: Actor, request: Request<never>) => Promise<Result<unknown, Failure>>;
const entry = (shape: Joi.Schema, run: unknown) => ({ shape, run: run as Run });

/** Every command a client may send: its shape (Joi checks shape only; core checks meaning) and its use case. */
export const commands: Readonly<Record<string, { shape: Joi.Schema; run: Run }>> = {
  'accept-need': entry(
    Joi.object({
      ...{ ...seenNeed, packs: typed, way },
      also: Joi.array()
        .items(Joi.object({ packs: typed, way }))
        .max(8),
    }),
    acceptNeed,
  ),
  'accept-needs': entry(Joi.object({ needs: lines({ ...seenNeed, packs: typed }) }), acceptNeeds),
  'accept-shown': entry(
    Joi.object({
      list: Joi.string().max(16).required(),
      needIds: Joi.array().items(id.optional()).min(1).max(500).unique(),
    }),
    acceptShown,
  ),
  'set-aside': entry(
    Joi.object({
      needs: Joi.array().items(Joi.object(seenNeed)).min(1).max(500).unique('needId').required(),
      kind: Joi.valid('put_off', 'leave_out').required(),
      until: typed,
      reason: note(200),
    }),
    setAside,
  ),
  'start-split': entry(
    Joi.object({ needIds: Joi.array().items(id.optional()).min(1).max(200).unique().required() }),
    startSplit,
  ),
  'take-split': entry(Joi.object({ splitId: id }), takeSplit),
  'bring-back': entry(
    Joi.object({ needIds: Joi.array().items(id.optional()).min(1).max(500).unique().required() }),
    bringBack,
  ),
  'ask-by-hand': entry(
    Joi.object({ itemId: id, locationId: id, quantity: typed, packId: id.allow(null), note: note(200) }),
    askByHand,
  ),
  'take-back': entry(Joi.object({ trayLineId: id }), takeBack),
  'make-orders': entry(Joi.object({ supplierIds: Joi.array().items(id).min(1).max(300).required() }), makeOrders),
  'set-today': entry(
    Joi.object({ hidden: Joi.array().items(Joi.string().max(30)).max(30).unique().required() }),
    setToday,
  ),
  'set-tray': entry(
    Joi.object({
      ...{ supplierId: id, held: Joi.boolean().required(), becomes: Joi.valid('by_rule', 'new', 'joins').required() },
      orderId: id.allow(null),
    }),
    setTray,
  ),
  'top-up-tray': entry(
    Joi.object({
      ...{ supplierId: id, target: Joi.valid('minimum', 'free_freight').required() },
      amount: Joi.number().integer().min(1).required(),
    }),
    topUpTray,
  ),
  'put-back-order': entry(order, putBackOrder),
  'approve-order': entry(order, approveOrder),
  'buy-over-counter': entry(order.append({ deliveryNote: note(60), businessDate: day }), buyOverCounter),
  'reopen-order': entry(order, reopenOrder),
  'send-order': entry(
    order.append({
      how: Joi.valid(...sentHows).required(),
      to: Joi.string().allow('').max(120),
    }),
    sendOrder,
  ),
  'ask-approval': entry(order.append({ userId: id.allow(null), note: note(400) }), askApproval),
  'withdraw-order': entry(order, withdrawOrder),
  'refuse-order': entry(order.append({ reason: note(400) }), refuseOrder),
  'amend-order': entry(order, amendOrder),
  'drop-amendment': entry(order, dropAmendment),
  'cancel-order': entry(order.append({ reason: note(400) }), cancelOrder),
  'close-order': entry(order.append({ reason: note(400) }), closeOrder),
  'open-order-again': entry(order, openOrderAgain),
  'cut-supply': entry(order.append({ reason: note(400), lineId: id.allow(null), partId: id.allow(null) }), cutSupply),
  'split-part': entry(
    Joi.object({
      ...{ orderId: id, partId: id, packs: typed, date: typed, locationId: id },
      broken: Joi.boolean().strict().required(),
    }),
    splitPart,
  ),
  'spread-part': entry(
    Joi.object({ orderId: id, partId: id, weeks: Joi.number().integer().min(2).max(52).strict().required() }),
    spreadPart,
  ),
  'confirm-order': entry(
    order.append({
      reference: note(60),
      parts: Joi.array()
        .items(
          Joi.object({
            ...{ partId: id, packs: typed, date: typed },
            rest: Joi.valid('open', 'cancelled').required(),
          }),
        )
        .max(2000)
        .required(),
      prices: Joi.array()
        .items(Joi.object({ lineId: id, price: typed, toList: Joi.boolean().strict().required() }))
        .max(1000)
        .required(),
    }),
    confirmOrder,
  ),
  'follow-up-order': entry(
    order.append({ next: typed, note: Joi.string().allow('').max(400).required() }),
    followUpOrder,
  ),
  'remind-supplier': entry(Joi.object({ orderId: id }), remindSupplier),
  'retry-mail': entry(Joi.object({ mailId: id, what: Joi.valid('retry', 'stop').required() }), retryMail),
  'edit-order': entry(
    Joi.alternatives(
      Joi.object({
        orderId: id,
        field: Joi.valid('packs', 'wantedDate', 'promisedDate', 'place').required(),
        partId: id,
        was: typed,
        now: typed,
      }),
      Joi.object({
        orderId: id,
        field: Joi.valid('price', 'discount', 'freeOfCharge', 'edition', 'priceReason').required(),
        lineId: id,
        was: typed,
        now: typed,
      }),
      Joi.object({
        ...{ orderId: id, lineId: id, was: note(400), now: note(20_000) },
        field: Joi.valid('printedNote', 'internalNote', ...bookingFields).required(),
      }),
      Joi.object({ orderId: id, field: Joi.valid('remove').required(), lineId: id, was: typed }),
    ),
    editOrder,
  ),
  'add-order-line': entry(
    Joi.object({
      orderId: id,
      itemId: id,
      locationId: id,
      packs: typed,
      price: typed,
      packId: id.allow(null).optional(),
    }),
    addOrderLine,
  ),
  'new-order': entry(Joi.object({ supplierId: id, locationId: id, addressId: id.allow(null) }), newOrder),
  'add-other-line': entry(
    Joi.object({
      ...{ orderId: id, quantity: typed, unit: typed, price: typed, locationId: id.allow(null) },
      kind: Joi.valid('non_stock', 'charge', 'service').required(),
      description: note(200),
    }),
    addOtherLine,
  ),
  'edit-order-head': entry(
    Joi.object({
      orderId: id,
      field: Joi.valid(...headFields).required(),
      was: note(2000),
      // What is too long is said by the service, with nothing lost.
      now: note(20_000),
    }),
    editHead,
  ),
  'set-order-charge': entry(
    Joi.object({
      ...{ orderId: id, name: note(60), was: note(2000), as: Joi.valid('given', 'left_out', 'usual').required() },
      entry: Joi.object({
        sign: Joi.valid('charge', 'allowance').required(),
        amountKind: Joi.valid('fixed', 'percent', 'duty').required(),
        ...{ amount: typed, currency: note(3), onCharges: note(400), onlyLines: note(400), account: note(20) },
        spread: Joi.valid('value', 'quantity', 'weight', 'volume', 'even').required(),
        into: Joi.valid('stock', 'expense', 'recoverable').required(),
        billed: Joi.boolean().required(),
      }).required(),
    }),
    setOrderCharge,
  ),
  'copy-order': entry(Joi.object({ orderId: id }), copyOrder),
  'paste-lines': entry(
    Joi.object({
      ...{ orderId: id, locationId: id },
      rows: Joi.array().items(Joi.string().max(400)).min(1).max(500).required(),
    }),
    pasteLines,
  ),
  'fill-from-needs': entry(
    Joi.object({
      ...{ orderId: id, locationId: id.allow(null), warned: Joi.boolean().strict().required() },
      words: Joi.string().allow('').max(100).optional(),
      needIds: Joi.array().items(id).min(1).max(500).optional(),
    }),
    fillFromNeeds,
  ),
  'tell-colleague': entry(Joi.object({ orderId: id, userId: id, note: note(400) }), tellColleague),
  'buy-one-to-one': entry(
    Joi.object({
      orderId: id,
      lines: lines({ of: Joi.valid('customer_demand', 'transfer_line').required(), id }),
    }),
    buyOneToOne,
  ),
  'take-materials': entry(
    Joi.object({ orderId: id, materialIds: Joi.array().items(id).min(1).max(500).required() }),
    takeMaterials,
  ),
  'make-family': entry(
    Joi.object({
      family: Joi.string().max(100).required(),
      stem: Joi.string().max(30).required(),
      option1: Joi.string().max(40).required(),
      values1: Joi.array().items(Joi.string().max(60)).min(1).max(200).required(),
      option2: note(40),
      values2: Joi.array().items(Joi.string().max(60)).max(200).required(),
      priceGroup: note(40),
      category: note(250),
      unit: Joi.string().max(30).required(),
      unitName: note(30),
      price: typed,
      pattern: note(60),
    }),
    makeFamily,
  ),
  'confirm-dispatch': entry(Joi.object(receipt), confirmDispatch),
  'receive-goods': entry(
    Joi.object({
      ...receipt,
      unordered: Joi.array()
        .items(Joi.object({ itemId: id, quantity: typed, price: typed, freeOfCharge: Joi.boolean().required(), lots }))
        .max(200),
    }),
    receiveGoods,
  ),
  'save-policies': entry(Joi.object({ edits: policyEdits }), savePolicies),
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
      lines: lines({ itemId: id, quantity: typed, allocationId: id.allow(null), lots }),
      mixLots: Joi.boolean(),
    }),
    sellGoods,
  ),
  'allocate-stock': entry(
    Joi.object({ itemId: id, locationId: id, quantity: typed, promisedTo: Joi.string().max(120).required() }),
    allocateStock,
  ),
  'release-allocation': entry(Joi.object({ allocationId: id }), releaseAllocation),
  'enter-customer-order': entry(
    Joi.object({
      customerId: id.allow(null),
      customer: Joi.object({ name: note(120), mail: note(200), phone: note(60), address: note(400) }).required(),
      channel: Joi.valid('counter', 'file', 'web_shop').required(),
      reference: note(60),
      delivers: Joi.valid('in_part', 'complete').allow(null).required(),
      priority: Joi.number().integer().min(1).max(9).allow(null).required(),
      note: note(200),
      lines: lines(customerLine),
    }),
    enterCustomerOrder,
  ),
  'add-customer-lines': entry(order.append({ lines: lines(customerLine) }), addCustomerLines),
  'change-customer-order': entry(
    order.append({
      delivers: Joi.valid('in_part', 'complete').required(),
      priority: Joi.number().integer().min(1).max(9).required(),
      note: note(200),
    }),
    changeCustomerOrder,
  ),
  'cancel-customer-lines': entry(
    order.append({ lines: Joi.alternatives(Joi.valid('all'), Joi.array().items(id).min(1).max(500)).required() }),
    cancelCustomerLines,
  ),
  'hold-for-customer': entry(order.append({ lineNo: id, quantity: typed.allow(null), until: typed }), holdForCustomer),
  'set-line-way': entry(order.append({ lineNo: id, way: customerWay }), setLineWay),
  'hand-over': entry(
    order.append({
      locationId: id,
      lines: Joi.array()
        .items(Joi.object({ lineNo: id, quantity: typed, lots }))
        .unique('lineNo')
        .max(500)
        .required(),
      mixLots: Joi.boolean(),
    }),
    handOver,
  ),
  'tell-customer': entry(
    order.append({
      how: Joi.valid('email', 'phone').required(),
      subject: note(200),
      body: note(20_000),
    }),
    tellCustomer,
  ),
  'ship-transfer': entry(
    Joi.object({
      fromLocationId: id,
      toLocationId: id,
      lines: lines({ itemId: id, quantity: typed }).unique('itemId'),
    }),
    shipTransfer,
  ),
  'request-transfer': entry(
    Joi.object({
      ...{ fromLocationId: id, toLocationId: id, wantedDate: typed, note: note(200) },
      lines: lines({ itemId: id, quantity: typed }).unique('itemId'),
    }),
    requestTransfer,
  ),
  'approve-transfer': entry(
    transfer.append({ lines: lines({ lineNo: id, approved: typed }).unique('lineNo') }),
    approveTransfer,
  ),
  'refuse-transfer': entry(transfer.append({ reason: note(200) }), refuseTransfer),
  'cancel-transfer': entry(transfer, cancelTransfer),
  'ship-approved': entry(
    transfer.append({ lines: lines({ lineNo: id, quantity: typed }).unique('lineNo') }),
    shipApproved,
  ),
  'receive-transfer': entry(
    Joi.object({
      transferId: id,
      lines: lines({ lineNo: id, received: typed, lost: typed, reason: note(120) }).unique('lineNo'),
    }),
    receiveTransfer,
  ),
  'correct-stock': entry(
    Joi.object({
      ...{ locationId: id, reasonId: id, note: note(200) },
      lines: lines({ itemId: id, how: Joi.valid('by', 'to').required(), quantity: typed }).unique('itemId'),
    }),
    correctStock,
  ),
  'count-stock': entry(
    Joi.object({ locationId: id, note: note(200), lines: lines({ itemId: id, quantity: typed }).unique('itemId') }),
    countStock,
  ),
  'begin-count': entry(Joi.alternatives(Joi.object({ planId: id }), Joi.object(whatToCount)), beginCount),
  'plan-count': entry(
    Joi.object({ ...whatToCount, everyDays: Joi.number().integer().min(1).max(999).required(), firstOn: typed }),
    planCount,
  ),
  'remove-count-plan': entry(Joi.object({ planId: id }), removeCountPlan),
  'enter-count': entry(
    Joi.object({
      ...{ countId: id, countedAt: typed },
      lines: lines({ itemId: id, round: Joi.valid('first', 'again').required(), quantity: typed }).unique('itemId'),
    }),
    enterCount,
  ),
  'enter-count-rows': entry(
    Joi.object({
      ...{ countId: id, countedAt: typed },
      rows: Joi.array()
        .items(
          Joi.object({ row: id, code: Joi.string().max(60).required(), quantity: Joi.string().max(40).required() }),
        )
        .max(5000)
        .required(),
    }),
    enterCountRows,
  ),
  'reason-of-count': entry(
    Joi.object({ countId: id, itemId: id, reasonId: id.allow(null), note: note(200) }),
    setReasonOfCount,
  ),
  'post-count': entry(Joi.object({ countId: id, asCounted: Joi.boolean().required() }), postCount),
  'drop-count': entry(Joi.object({ countId: id }), dropCount),
  'reverse-receipt': entry(Joi.object({ receiptId: id, reason: note(200) }), reverseReceipt),
  undo: entry(Joi.object({ undoKey: key }), undoCommand),
  'start-job': entry(
    Joi.object({ kind: Joi.valid('check-needs', 'fetch-rates', 'take-web-orders').required() }),
    startJob,
  ),
  'take-till-sales': entry(Joi.object({ from: day, to: day }), takeTillSales),
  'cancel-job': entry(Joi.object({ jobId: id }), cancelJob),
  'map-sheet': entry(
    sheet.append({
      mapping: Joi.array().items(Joi.string().max(40).allow(null)).max(200).required(),
      decimal: Joi.valid('.', ',').required(),
      dates: Joi.valid('ymd', 'dmy', 'mdy').required(),
    }),
    mapSheet,
  ),
  'save-records': entry(
    Joi.object({
      sheet: Joi.string().max(30).required(),
      records: Joi.array()
        .items(Joi.object({ cells, seen, from: Joi.string().max(60) }))
        .min(1)
        .max(500)
        .required(),
      decimal: Joi.valid('.', ',').required(),
    }),
    saveRecords,
  ),
  'remove-records': entry(
    Joi.object({
      sheet: Joi.string().max(30).required(),
      records: Joi.array().items(Joi.object({ cells, seen })).min(1).max(500).required(),
    }),
    removeRecords,
  ),
  'change-many': entry(
    Joi.object({
      list: Joi.string().max(40).required(),
      ids: Joi.array().items(id).min(1).max(100_000).allow(null).required(),
      decimal: Joi.valid('.', ',').required(),
      change: Joi.alternatives(
        Joi.object({ kind: Joi.valid('field').required(), column: Joi.string().max(40).required(), text: note(400) }),
        Joi.object({ kind: Joi.valid('pattern').required(), pattern: Joi.string().max(60).required() }),
      ).required(),
    }),
    changeMany,
  ),
  'make-item': entry(
    Joi.object({
      name: Joi.string().max(200).required(),
      unit: Joi.string().max(30).required(),
      price: typed,
      number: typed,
      code: typed,
    }),
    makeItem,
  ),
  'set-complete': entry(Joi.object({ itemId: id, complete: Joi.boolean().required() }), setComplete),
  'save-view': entry(
    Joi.object({
      page: Joi.valid('items', 'suppliers', 'policies', 'promises', 'needs', 'orders').required(),
      name: Joi.string().max(60).required(),
      query: note(1000),
      shared: Joi.boolean().required(),
    }),
    saveView,
  ),
  'remove-view': entry(Joi.object({ viewId: id }), removeView),
  'invite-person': entry(Joi.object({ ...person, login: Joi.string().max(60).required() }), invitePerson),
  'change-person': entry(
    Joi.object({ ...person, userId: id, version: id, active: Joi.boolean().required() }),
    changePerson,
  ),
  'reset-password': entry(Joi.object({ userId: id }), resetPassword),
  'save-role': entry(
    Joi.object({
      roleId: id.allow(null),
      version: id.allow(null),
      name: Joi.string().allow('').max(60).required(),
      rights: Joi.array().items(Joi.string().max(40)).max(60).required(),
    }),
    saveRole,
  ),
  'remove-role': entry(Joi.object({ roleId: id }), removeRole),
  'set-locale': entry(Joi.object({ locale: Joi.string().allow('').max(20).required() }), setLocale),
  'set-company': entry(
    Joi.object({
      name: Joi.string().allow('').max(120).required(),
      invoiceAddress: note(400),
      costOrder: Joi.valid('standard_first', 'last_first').required(),
      itemPrefix: Joi.string().allow('').max(10).required(),
      mailFrom: note(200),
      was: Joi.object().max(10).required(),
    }),
    setCompany,
  ),
  'set-alerts': entry(
    Joi.object({
      mail: note(200),
      rules: Joi.array()
        .items(
          Joi.object({
            matter: Joi.valid(...alertMatters).required(),
            how: Joi.valid('at_once', 'daily').required(),
            byMail: Joi.boolean().required(),
          }),
        )
        .unique('matter')
        .max(20)
        .required(),
    }),
    setAlerts,
  ),
  'see-alerts': entry(Joi.object({ ids: Joi.array().items(id.optional()).max(1000).required() }), seeAlerts),
  'set-papers': entry(Joi.object({ ...papers, was: Joi.object(papers).required() }), setPapers),
  'set-limits': entry(Joi.object({ ...limits, was: Joi.object(limits).required() }), setLimits),
  'apply-sheet': entry(sheet, applySheet),
  'cancel-sheet': entry(sheet, cancelSheet),
  'close-books': entry(Joi.object({ to: day, was: day }), closeBooks),
};

export const envelope = Joi.object({
  key,
  input: Joi.object().required(),
});
