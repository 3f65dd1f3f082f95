import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Actor, Role } from '@/core/people';
import type { Result } from '@/core/result';
import { readAlertSettings, readAlerts } from '@/services/alerts/readAlerts';
import { seeAlerts, setAlerts } from '@/services/alerts/setAlerts';
import { makeFamily } from '@/services/catalogue/makeFamily';
import { makeItem } from '@/services/catalogue/makeItem';
import { readCategories } from '@/services/catalogue/readCategories';
import { readItemExport } from '@/services/catalogue/readItemExport';
import { readItemFile } from '@/services/catalogue/readItemFile';
import { readItemForm } from '@/services/catalogue/readItemForm';
import { readItemHistory } from '@/services/catalogue/readItemHistory';
import { openItems, readItem, readItemRows } from '@/services/catalogue/readItems';
import { readItemsNamed } from '@/services/catalogue/readItemsNamed';
import { readSupplierFile } from '@/services/catalogue/readSupplierFile';
import { readSupplier, readSuppliersPage } from '@/services/catalogue/readSuppliers';
import { setComplete } from '@/services/catalogue/setComplete';
import { setSource } from '@/services/catalogue/setSource';
import { setSupplierTerms } from '@/services/catalogue/setSupplierTerms';
import { closeBooks } from '@/services/cost/closeBooks';
import { readBooks } from '@/services/cost/readBooks';
import type { Failure } from '@/services/failure';
import { findInList } from '@/services/lists/findInList';
import { readListExport } from '@/services/lists/readListExport';
import { changePerson } from '@/services/people/changePerson';
import { invitePerson } from '@/services/people/invitePerson';
import { readChangeExport } from '@/services/people/readChangeExport';
import { readChanges } from '@/services/people/readChanges';
import { readFind } from '@/services/people/readFind';
import { readFrame } from '@/services/people/readFrame';
import { readPeople } from '@/services/people/readPeople';
import { readPeopleExport } from '@/services/people/readPeopleExport';
import { removeRole } from '@/services/people/removeRole';
import { resetPassword } from '@/services/people/resetPassword';
import { saveRole } from '@/services/people/saveRole';
import { setLocale } from '@/services/people/setLocale';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { acceptNeeds } from '@/services/planning/acceptNeeds';
import { acceptShown } from '@/services/planning/acceptShown';
import { askByHand } from '@/services/planning/askByHand';
import { bringBack } from '@/services/planning/bringBack';
import { previewPolicies } from '@/services/planning/previewPolicies';
import { openDecisions, readDecisionRows } from '@/services/planning/readDecisions';
import { readLastBought } from '@/services/planning/readLastBought';
import { openNeeds, readNeedChanges, readNeedRows } from '@/services/planning/readNeeds';
import { readOutlook } from '@/services/planning/readOutlook';
import { allPolicies, openPolicies, readPolicyLines } from '@/services/planning/readPolicies';
import { readPolicyChoices } from '@/services/planning/readPolicyChoices';
import { readPolicyDetail } from '@/services/planning/readPolicyDetail';
import { readReckonings } from '@/services/planning/readReckonings';
import { readRuleValues } from '@/services/planning/readRuleValues';
import { readSplit } from '@/services/planning/readSplit';
import { readStockCourse } from '@/services/planning/readStockCourse';
import { readWays } from '@/services/planning/readWays';
import { savePolicies } from '@/services/planning/savePolicies';
import { setAside } from '@/services/planning/setAside';
import { setPlanningRules } from '@/services/planning/setPlanningRules';
import { startSplit } from '@/services/planning/startSplit';
import { takeBack } from '@/services/planning/takeBack';
import { takeSplit } from '@/services/planning/takeSplit';
import { cancelCustomerLines } from '@/services/promise/cancelCustomerLines';
import { changeCustomerOrder } from '@/services/promise/changeCustomerOrder';
import { addCustomerLines, enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { findCustomers } from '@/services/promise/findCustomers';
import { handOver } from '@/services/promise/handOver';
import { holdForCustomer } from '@/services/promise/holdForCustomer';
import { readCustomerOrder } from '@/services/promise/readCustomerOrder';
import { readEntry } from '@/services/promise/readEntry';
import { openPromises, readPromiseRows } from '@/services/promise/readPromises';
import { readShort } from '@/services/promise/readShort';
import { readWebShopOffer } from '@/services/promise/readWebShopOffer';
import { setLineWay } from '@/services/promise/setLineWay';
import { tellCustomer } from '@/services/promise/tellCustomer';
import { addOrderLine } from '@/services/purchase/addOrderLine';
import { addOtherLine } from '@/services/purchase/addOtherLine';
import { amendOrder, dropAmendment } from '@/services/purchase/amendOrder';
import { approveOrder } from '@/services/purchase/approveOrder';
import { askApproval, refuseOrder, withdrawOrder } from '@/services/purchase/askApproval';
import { readAskedFor } from '@/services/purchase/askedFor';
import { buyOneToOne } from '@/services/purchase/buyOneToOne';
import { buyOverCounter } from '@/services/purchase/buyOverCounter';
import { confirmOrder } from '@/services/purchase/confirmOrder';
import { copyOrder } from '@/services/purchase/copyOrder';
import { readEarlier } from '@/services/purchase/earlier';
import { editHead } from '@/services/purchase/editHead';
import { editOrder } from '@/services/purchase/editOrder';
import { cancelOrder, closeOrder, cutSupply, openOrderAgain } from '@/services/purchase/endOrder';
import { readFamilyGrid } from '@/services/purchase/familyGrid';
import { fillFromNeeds } from '@/services/purchase/fillFromNeeds';
import { followUpOrder } from '@/services/purchase/followUp';
import { makeOrders } from '@/services/purchase/makeOrders';
import { newOrder, readOrderFrom } from '@/services/purchase/newOrder';
import { readOrderPaper } from '@/services/purchase/orderPaper';
import { pasteLines } from '@/services/purchase/pasteLines';
import { putBackOrder } from '@/services/purchase/putBackOrder';
import { readOrder } from '@/services/purchase/readOrder';
import { readOrderEntry } from '@/services/purchase/readOrderEntry';
import { openOrders, readOrderRows } from '@/services/purchase/readOrders';
import { readTopUp } from '@/services/purchase/readTopUp';
import { openTrays, readTrayRows } from '@/services/purchase/readTrays';
import { remindSupplier } from '@/services/purchase/remindSupplier';
import { reopenOrder } from '@/services/purchase/reopenOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { setOrderCharge } from '@/services/purchase/setOrderCharge';
import { setTray } from '@/services/purchase/setTray';
import { splitPart, spreadPart } from '@/services/purchase/splitDeliveries';
import { takeMaterials } from '@/services/purchase/takeMaterials';
import { tellColleague } from '@/services/purchase/tellColleague';
import { topUpTray } from '@/services/purchase/topUpTray';
import { readCompanyTerms, readSetupList } from '@/services/setup/readSetup';
import { setCompany } from '@/services/setup/setCompany';
import { setLimits } from '@/services/setup/setLimits';
import { setPapers } from '@/services/setup/setPapers';
import { applySheet } from '@/services/sheets/applySheet';
import { cancelSheet } from '@/services/sheets/cancelSheet';
import { changeMany } from '@/services/sheets/changeMany';
import { mapSheet } from '@/services/sheets/mapSheet';
import { readFaultyRows, readImport, readImports } from '@/services/sheets/readImports';
import { readRecordsOf } from '@/services/sheets/readRecords';
import { readExport, readTemplate } from '@/services/sheets/readTemplate';
import { removeRecords } from '@/services/sheets/removeRecords';
import { saveRecords } from '@/services/sheets/saveRecords';
import { uploadSheet } from '@/services/sheets/uploadSheet';
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
import { readArrivalExport } from '@/services/stock/readArrivalExport';
import { readArrival, readArrivals } from '@/services/stock/readArrivals';
import { readCountDifferences } from '@/services/stock/readCountDifferences';
import { readCountExport, readDifferenceExport } from '@/services/stock/readCountExport';
import { readCount, readCounts } from '@/services/stock/readCounts';
import { readLot, readLots } from '@/services/stock/readLots';
import { readMovementExport } from '@/services/stock/readMovementExport';
import { readMovements } from '@/services/stock/readMovements';
import { readMoverExport } from '@/services/stock/readMoverExport';
import { readMovers } from '@/services/stock/readMovers';
import { openStock, readStockRows } from '@/services/stock/readStock';
import { readStockReasons } from '@/services/stock/readStockReasons';
import { readStockValue } from '@/services/stock/readStockValue';
import { readStockValueExport } from '@/services/stock/readStockValueExport';
import { readTillAssortment } from '@/services/stock/readTillAssortment';
import { readTransfer, readTransfers } from '@/services/stock/readTransfers';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { refuseTransfer } from '@/services/stock/refuseTransfer';
import { removeCountPlan } from '@/services/stock/removeCountPlan';
import { requestTransfer } from '@/services/stock/requestTransfer';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipApproved } from '@/services/stock/shipApproved';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { takeTillDay } from '@/services/stock/takeTillDay';
import { readToday } from '@/services/today/readToday';
import { setToday } from '@/services/today/setToday';
import { undoCommand } from '@/services/undo/undoCommand';
import { readViews } from '@/services/views/readViews';
import { removeView } from '@/services/views/removeView';
import { saveView } from '@/services/views/saveView';
import { cancelJob } from '@/services/work/cancelJob';
import { readJobExport } from '@/services/work/readJobExport';
import { readJobs } from '@/services/work/readJobs';
import { readMail } from '@/services/work/readMail';
import { readMailExport } from '@/services/work/readMailExport';
import { retryMail } from '@/services/work/retryMail';
import { startJob } from '@/services/work/startJob';
import { takeTillSales } from '@/services/work/takeTillSales';
import { type Books, edda, freshBooks, jun, mira, must, needsOf, otto, req } from './support';

let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(() => books.close());

type Try = (actor: Actor) => Promise<Result<unknown, Failure>>;
const otherRules = { trigger: 'strictly_below' as const, refill: 'up_to_min' as const };
const order = { orderId: 999, version: 1 };
const none = { list: 'none', from: 0 };
const everyMovement = {
  ...{ search: '', itemId: null, locationId: null, userId: null, kind: null, reasonId: null },
  ...{ document: '', from: '', to: '', before: 0 },
};
const transfer = { transferId: 999, version: 1 };
const paperText = { opening: '', closing: '' };
const papers = {
  ...{ pattern: 'YYMM-####', start: '1', next: '3' },
  setup: { letterhead: '', foot: '', hides: [], texts: { en: paperText, de: paperText, fr: paperText } },
};
const limits = {
  ...{ a: '80', b: '95', x: '0.5', y: '1', least: '5', empirical: '20', recountShare: '25', recountAmount: '50' },
  leadTimeRule: 'measured' as const,
  ...{ carrying: '20', orderCost: '0', transport: '0', fourEyes: '', confirmDays: '3' },
  ...{ promiseDays: '14', promiseRule: 'on_the_way' as const },
};
const customerLine = {
  ...{ itemId: 999, packId: null, quantity: '1', locationId: 3, way: 'collect' as const },
  ...{ wantedDate: '', shipBy: '', holdUntil: '' },
};
const movers = { order: 'sold' as const, days: 91, locationId: null, category: '' };
const nothingToCount = {
  ...{ locationId: 3, what: 'marked' as const, category: '', shelf: '', itemIds: [], name: 'Nothing', blind: false },
};
const edit = { itemId: 999, locationId: 1, was: { min: '' }, now: { min: '1' } };
const sheet = { importId: 999, version: 1 };
const nothing = async function* (): AsyncGenerator<Uint8Array> {};
const buying: Role[] = ['buyer', 'owner'];
const readers: Role[] = ['buyer', 'owner', 'read_only'];
const all: Role[] = ['buyer', 'owner', 'shop', 'bookkeeper', 'read_only'];
const noTerms = { name: '', invoiceAddress: '', costOrder: 'standard_first' as const, itemPrefix: '', mailFrom: '' };
/** Sees and changes nothing. */
const rex: Actor = { ...edda, name: 'Rex Reed', role: 'read_only' };

/** Use case file → what calling it does and who may. A file that is not here fails the test below. */
const table: Record<string, { who: Role[]; tries: Try[] }> = {
  'catalogue/readItems': {
    who: all,
    tries: [
      (a) => openItems(books.deps, a, { search: '', locationId: null, sort: 'name' }),
      (a) => readItemRows(books.deps, a, none),
      (a) => readItem(books.deps, a, 1),
    ],
  },
  'catalogue/readCategories': { who: all, tries: [(a) => readCategories(books.deps, a)] },
  'catalogue/readItemsNamed': { who: all, tries: [(a) => readItemsNamed(books.deps, a, [1])] },
  'catalogue/readSuppliers': {
    who: ['buyer', 'owner', 'bookkeeper', 'read_only'],
    tries: [(a) => readSuppliersPage(books.deps, a), (a) => readSupplier(books.deps, a, 1)],
  },
  'catalogue/setSource': {
    who: buying,
    tries: [
      (a) =>
        setSource(
          books.deps,
          a,
          req({ sourceId: 999, version: 1, preference: 1, minimum: '', multiplePacks: 1, rounding: 'up' as const }),
        ),
    ],
  },
  'catalogue/setSupplierTerms': {
    who: buying,
    tries: [
      (a) =>
        setSupplierTerms(
          books.deps,
          a,
          req({
            supplierId: 999,
            version: 1,
            leadTimeDays: 1,
            leadTimeKind: 'working' as const,
            status: 'active' as const,
          }),
        ),
    ],
  },
  'planning/setPlanningRules': {
    who: buying,
    tries: [(a) => setPlanningRules(books.deps, a, req({ ...otherRules, was: otherRules }))],
  },
  'cost/closeBooks': {
    who: ['owner', 'bookkeeper'],
    tries: [(a) => closeBooks(books.deps, a, req({ to: 'x', was: '' }))],
  },
  'cost/readBooks': { who: all, tries: [(a) => readBooks(books.deps, a)] },
  'planning/acceptNeed': {
    who: buying,
    tries: [(a) => acceptNeed(books.deps, a, req({ needId: 999, fingerprint: 'x', packs: '1' }))],
  },
  'planning/readReckonings': { who: readers, tries: [(a) => readReckonings(books.deps, a, [])] },
  'planning/readWays': { who: readers, tries: [(a) => readWays(books.deps, a, 999)] },
  'planning/readLastBought': {
    who: ['buyer', 'owner', 'bookkeeper', 'read_only'],
    tries: [(a) => readLastBought(books.deps, a, 1)],
  },
  'people/readFind': { who: all, tries: [(a) => readFind(books.deps, a, 'fen')] },
  'lists/readListExport': {
    who: [...buying, 'read_only'],
    tries: [
      (a) => readListExport(books.deps, a, { name: 'needs', list: 'none' }),
      (a) => readListExport(books.deps, a, { name: 'policies', list: 'none' }),
    ],
  },
  'lists/findInList': {
    who: all,
    tries: [(a) => findInList(books.deps, a, 'items', { list: 'none', what: { code: '10412-07' } })],
  },
  'planning/acceptNeeds': {
    who: buying,
    tries: [(a) => acceptNeeds(books.deps, a, req({ needs: [{ needId: 999, fingerprint: 'x', packs: '1' }] }))],
  },
  'planning/acceptShown': { who: buying, tries: [(a) => acceptShown(books.deps, a, req({ list: 'none' }))] },
  'planning/setAside': {
    who: buying,
    tries: [
      (a) =>
        setAside(
          books.deps,
          a,
          req({ needs: [{ needId: 999, fingerprint: 'x' }], kind: 'put_off' as const, until: '+7', reason: '' }),
        ),
    ],
  },
  'planning/startSplit': { who: buying, tries: [(a) => startSplit(books.deps, a, req({ needIds: [999] }))] },
  'planning/takeSplit': { who: buying, tries: [(a) => takeSplit(books.deps, a, req({ splitId: 999 }))] },
  'planning/readSplit': { who: buying, tries: [(a) => readSplit(books.deps, a, 999)] },
  'planning/bringBack': { who: buying, tries: [(a) => bringBack(books.deps, a, req({ needIds: [999] }))] },
  'planning/askByHand': {
    who: buying,
    tries: [
      (a) => askByHand(books.deps, a, req({ itemId: 999, locationId: 1, quantity: '1', packId: null, note: '' })),
    ],
  },
  'planning/readDecisions': {
    who: [...buying, 'read_only'],
    tries: [
      (a) => openDecisions(books.deps, a, { show: 'all', search: '', locationId: null, itemId: null }),
      (a) => readDecisionRows(books.deps, a, none),
      (a) => findInList(books.deps, a, 'decisions', { list: 'none', what: { code: '10412-07' } }),
    ],
  },
  'planning/readNeeds': {
    who: [...buying, 'read_only'],
    tries: [
      (a) => openNeeds(books.deps, a, { locationId: null }),
      (a) => readNeedRows(books.deps, a, none),
      (a) => readNeedChanges(books.deps, a, 'none'),
      (a) => findInList(books.deps, a, 'needs', { list: 'none', what: { code: '10412-07' } }),
    ],
  },
  'planning/readPolicies': {
    who: [...buying, 'read_only'],
    tries: [
      (a) => openPolicies(books.deps, a, allPolicies),
      (a) => readPolicyLines(books.deps, a, none),
      (a) => findInList(books.deps, a, 'policies', { list: 'none', what: { code: '10412-07' } }),
    ],
  },
  'planning/readStockCourse': {
    who: all,
    tries: [(a) => readStockCourse(books.deps, a, { itemId: 1, locationId: 3 })],
  },
  'planning/readOutlook': {
    who: all,
    tries: [(a) => readOutlook(books.deps, a, { itemId: 1, locationId: 3 })],
  },
  'planning/savePolicies': { who: buying, tries: [(a) => savePolicies(books.deps, a, req({ edits: [edit] }))] },
  'planning/previewPolicies': { who: readers, tries: [(a) => previewPolicies(books.deps, a, [edit])] },
  'planning/readPolicyDetail': {
    who: readers,
    tries: [(a) => readPolicyDetail(books.deps, a, { itemId: 1, locationId: 1 })],
  },
  'planning/readPolicyChoices': { who: readers, tries: [(a) => readPolicyChoices(books.deps, a)] },
  'planning/readRuleValues': {
    who: buying,
    tries: [
      (a) =>
        readRuleValues(books.deps, a, {
          ...{ list: 'none', from: 0, end: 5 },
          rule: { column: 'min', basis: 'advised', amount: 0, round: 'packs' },
        }),
    ],
  },
  'planning/takeBack': { who: buying, tries: [(a) => takeBack(books.deps, a, req({ trayLineId: 999 }))] },
  'purchase/approveOrder': { who: buying, tries: [(a) => approveOrder(books.deps, a, req(order))] },
  'purchase/newOrder': {
    who: buying,
    tries: [
      (a) => newOrder(books.deps, a, req({ supplierId: 999, locationId: 3, addressId: null })),
      (a) => readOrderFrom(books.deps, a),
    ],
  },
  'purchase/addOtherLine': {
    who: buying,
    tries: [
      (a) =>
        addOtherLine(
          books.deps,
          a,
          req({
            ...{ orderId: 999, kind: 'charge' as const, description: 'Freight', quantity: '1', unit: '' },
            ...{ price: '', locationId: null },
          }),
        ),
    ],
  },
  'purchase/tellColleague': {
    who: buying,
    tries: [(a) => tellColleague(books.deps, a, req({ orderId: 999, userId: 2, note: '' }))],
  },
  'purchase/buyOneToOne': {
    who: buying,
    tries: [
      (a) => buyOneToOne(books.deps, a, req({ orderId: 999, lines: [{ of: 'customer_demand' as const, id: 1 }] })),
    ],
  },
  'purchase/takeMaterials': {
    who: buying,
    tries: [(a) => takeMaterials(books.deps, a, req({ orderId: 999, materialIds: [1] }))],
  },
  'purchase/askedFor': { who: buying, tries: [(a) => readAskedFor(books.deps, a, 999)] },
  'purchase/setOrderCharge': {
    who: buying,
    tries: [
      (a) =>
        setOrderCharge(
          books.deps,
          a,
          req({
            ...{ orderId: 999, name: 'Freight', was: '', as: 'given' as const },
            entry: {
              ...{ sign: 'charge' as const, amountKind: 'fixed' as const, amount: '9', currency: 'EUR', onCharges: '' },
              ...{ spread: 'value' as const, into: 'stock' as const, account: '', billed: true, onlyLines: '' },
            },
          }),
        ),
    ],
  },
  'purchase/editHead': {
    who: buying,
    tries: [(a) => editHead(books.deps, a, req({ orderId: 999, field: 'contact' as const, was: '', now: 'x' }))],
  },
  'purchase/copyOrder': { who: buying, tries: [(a) => copyOrder(books.deps, a, req({ orderId: 999 }))] },
  'purchase/pasteLines': {
    who: buying,
    tries: [(a) => pasteLines(books.deps, a, req({ orderId: 999, locationId: 3, rows: ['x'] }))],
  },
  'purchase/fillFromNeeds': {
    who: buying,
    tries: [(a) => fillFromNeeds(books.deps, a, req({ orderId: 999, locationId: null, warned: false }))],
  },
  'purchase/earlier': {
    who: buying,
    tries: [(a) => readEarlier(books.deps, a, { orderId: 999, itemId: null })],
  },
  'purchase/orderPaper': {
    who: [...buying, 'bookkeeper', 'read_only'],
    tries: [(a) => readOrderPaper(books.deps, a, 999)],
  },
  'purchase/familyGrid': {
    who: buying,
    tries: [(a) => readFamilyGrid(books.deps, a, { orderId: 999, itemId: 1, locationId: 3 })],
  },
  'purchase/readOrderEntry': {
    who: buying,
    tries: [(a) => readOrderEntry(books.deps, a, { text: 'x', orderId: 999, locationId: 3 })],
  },
  'purchase/amendOrder': {
    who: buying,
    tries: [(a) => amendOrder(books.deps, a, req(order)), (a) => dropAmendment(books.deps, a, req(order))],
  },
  'purchase/askApproval': {
    who: buying,
    tries: [
      (a) => askApproval(books.deps, a, req({ ...order, userId: null, note: '' })),
      (a) => withdrawOrder(books.deps, a, req(order)),
      (a) => refuseOrder(books.deps, a, req({ ...order, reason: 'no' })),
    ],
  },
  'purchase/buyOverCounter': {
    who: buying,
    tries: [(a) => buyOverCounter(books.deps, a, req({ ...order, deliveryNote: '', businessDate: '' }))],
  },
  'purchase/confirmOrder': {
    who: buying,
    tries: [(a) => confirmOrder(books.deps, a, req({ ...order, reference: '', parts: [], prices: [] }))],
  },
  'purchase/endOrder': {
    who: buying,
    tries: [
      (a) => cancelOrder(books.deps, a, req({ ...order, reason: 'no' })),
      (a) => closeOrder(books.deps, a, req({ ...order, reason: 'no' })),
      (a) => openOrderAgain(books.deps, a, req(order)),
      (a) => cutSupply(books.deps, a, req({ ...order, reason: 'no', lineId: null, partId: null })),
    ],
  },
  'purchase/followUp': {
    who: buying,
    tries: [(a) => followUpOrder(books.deps, a, req({ ...order, next: '', note: '' }))],
  },
  'purchase/remindSupplier': { who: buying, tries: [(a) => remindSupplier(books.deps, a, req({ orderId: 999 }))] },
  'purchase/splitDeliveries': {
    who: buying,
    tries: [
      (a) =>
        splitPart(books.deps, a, req({ orderId: 999, partId: 1, packs: '1', date: '', locationId: 1, broken: false })),
      (a) => spreadPart(books.deps, a, req({ orderId: 999, partId: 1, weeks: 2 })),
    ],
  },
  'work/retryMail': {
    who: buying,
    tries: [(a) => retryMail(books.deps, a, req({ mailId: 999, what: 'retry' as const }))],
  },
  'purchase/editOrder': {
    who: buying,
    tries: [(a) => editOrder(books.deps, a, req({ orderId: 999, field: 'remove' as const, lineId: 1, was: '' }))],
  },
  'purchase/makeOrders': { who: buying, tries: [(a) => makeOrders(books.deps, a, req({ supplierIds: [1] }))] },
  'today/readToday': { who: all, tries: [(a) => readToday(books.deps, a, { locationId: null })] },
  'today/setToday': { who: all, tries: [(a) => setToday(books.deps, a, req({ hidden: [] }))] },
  'purchase/setTray': {
    who: buying,
    tries: [
      (a) => setTray(books.deps, a, req({ supplierId: 999, held: true, becomes: 'new' as const, orderId: null })),
    ],
  },
  'purchase/topUpTray': {
    who: buying,
    tries: [(a) => topUpTray(books.deps, a, req({ supplierId: 1, target: 'minimum' as const, amount: 1 }))],
  },
  'purchase/readTopUp': {
    who: ['buyer', 'owner', 'bookkeeper', 'read_only'],
    tries: [(a) => readTopUp(books.deps, a, { supplierId: 1, target: 'minimum' })],
  },
  'purchase/putBackOrder': { who: buying, tries: [(a) => putBackOrder(books.deps, a, req(order))] },
  'purchase/readOrder': {
    who: ['buyer', 'owner', 'bookkeeper', 'read_only'],
    tries: [(a) => readOrder(books.deps, a, 999)],
  },
  'purchase/readOrders': {
    who: ['buyer', 'owner', 'bookkeeper', 'read_only'],
    tries: [
      (a) => openOrders(books.deps, a, { show: 'all', search: '', sort: 'newest' }),
      (a) => readOrderRows(books.deps, a, none),
      (a) => findInList(books.deps, a, 'orders', { list: 'none', what: { code: '2611-0001' } }),
    ],
  },
  'purchase/readTrays': {
    who: ['buyer', 'owner', 'bookkeeper', 'read_only'],
    tries: [
      (a) => openTrays(books.deps, a),
      (a) => readTrayRows(books.deps, a, none),
      (a) => findInList(books.deps, a, 'trays', { list: 'none', what: { code: '10412-07' } }),
    ],
  },
  'purchase/reopenOrder': { who: buying, tries: [(a) => reopenOrder(books.deps, a, req(order))] },
  'purchase/sendOrder': {
    who: buying,
    tries: [(a) => sendOrder(books.deps, a, req({ ...order, how: 'email' as const }))],
  },
  'sheets/applySheet': { who: buying, tries: [(a) => applySheet(books.deps, a, req(sheet))] },
  'sheets/cancelSheet': { who: buying, tries: [(a) => cancelSheet(books.deps, a, req(sheet))] },
  'sheets/mapSheet': {
    who: buying,
    tries: [
      (a) => mapSheet(books.deps, a, req({ ...sheet, mapping: [], decimal: '.' as const, dates: 'ymd' as const })),
    ],
  },
  'sheets/readImports': {
    who: buying,
    tries: [
      (a) => readImports(books.deps, a),
      (a) => readImport(books.deps, a, { importId: 999, state: null, after: 0 }),
      (a) => readFaultyRows(books.deps, a, 999),
    ],
  },
  'sheets/readTemplate': {
    who: buying,
    tries: [async (a) => readTemplate(a, 'items'), (a) => readExport(books.deps, a, 'items')],
  },
  'sheets/uploadSheet': {
    who: buying,
    tries: [(a) => uploadSheet(books.deps, a, { kind: 'items', name: 'x.csv', mostMegabytes: 1 }, nothing())],
  },
  'promise/enterCustomerOrder': {
    who: ['buyer', 'owner', 'shop'],
    tries: [
      (a) =>
        enterCustomerOrder(
          books.deps,
          a,
          req({
            ...{ customerId: 999, customer: { name: '', mail: '', phone: '', address: '' }, delivers: null },
            ...{ channel: 'counter' as const, reference: '', priority: null, note: '', lines: [customerLine] },
          }),
        ),
      (a) => addCustomerLines(books.deps, a, req({ ...order, lines: [customerLine] })),
    ],
  },
  'promise/cancelCustomerLines': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => cancelCustomerLines(books.deps, a, req({ ...order, lines: 'all' as const }))],
  },
  'promise/changeCustomerOrder': {
    who: ['buyer', 'owner', 'shop'],
    tries: [
      (a) => changeCustomerOrder(books.deps, a, req({ ...order, delivers: 'in_part' as const, priority: 5, note: '' })),
    ],
  },
  'promise/holdForCustomer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => holdForCustomer(books.deps, a, req({ ...order, lineNo: 1, quantity: '1', until: '' }))],
  },
  'promise/setLineWay': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => setLineWay(books.deps, a, req({ ...order, lineNo: 1, way: 'straight' as const }))],
  },
  'promise/handOver': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => handOver(books.deps, a, req({ ...order, locationId: 3, lines: [] }))],
  },
  'promise/tellCustomer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => tellCustomer(books.deps, a, req({ ...order, how: 'phone' as const, subject: '', body: '' }))],
  },
  'promise/readPromises': {
    who: ['buyer', 'owner', 'shop', 'read_only'],
    tries: [
      (a) => openPromises(books.deps, a, { show: 'open', sort: 'ship_by', search: '', locationId: null, itemId: null }),
      (a) => readPromiseRows(books.deps, a, none),
      (a) => findInList(books.deps, a, 'promises', { list: 'none', what: { code: 'CO2611-0001' } }),
    ],
  },
  'promise/readShort': { who: buying, tries: [(a) => readShort(books.deps, a, { list: 'none' })] },
  'promise/readCustomerOrder': {
    who: ['buyer', 'owner', 'shop', 'read_only'],
    tries: [(a) => readCustomerOrder(books.deps, a, 999)],
  },
  'promise/findCustomers': {
    who: ['buyer', 'owner', 'shop', 'read_only'],
    tries: [(a) => findCustomers(books.deps, a, 'ada')],
  },
  'promise/readWebShopOffer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => readWebShopOffer(books.deps, a)],
  },
  'promise/readEntry': { who: all, tries: [(a) => readEntry(books.deps, a, { text: '6 fen', locationId: 3 })] },
  'stock/allocateStock': {
    who: ['buyer', 'owner', 'shop'],
    tries: [
      (a) => allocateStock(books.deps, a, req({ itemId: 999, locationId: 3, quantity: '1', promisedTo: 'x' })),
      (a) => releaseAllocation(books.deps, a, req({ allocationId: 999 })),
    ],
  },
  'stock/countStock': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => countStock(books.deps, a, req({ locationId: 3, note: '', lines: [] }))],
  },
  'stock/receiveTransfer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => receiveTransfer(books.deps, a, req({ transferId: 999, lines: [] }))],
  },
  'stock/reverseReceipt': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => reverseReceipt(books.deps, a, req({ receiptId: 999, reason: '' }))],
  },
  'stock/sellGoods': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => sellGoods(books.deps, a, req({ locationId: 3, businessDate: '', lines: [] }))],
  },
  'stock/requestTransfer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [
      (a) =>
        requestTransfer(
          books.deps,
          a,
          req({
            fromLocationId: 4,
            toLocationId: 3,
            wantedDate: '',
            note: '',
            lines: [{ itemId: 999, quantity: '1' }],
          }),
        ),
    ],
  },
  'stock/approveTransfer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => approveTransfer(books.deps, a, req({ ...transfer, lines: [{ lineNo: 1, approved: '1' }] }))],
  },
  'stock/refuseTransfer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => refuseTransfer(books.deps, a, req({ ...transfer, reason: '' }))],
  },
  'stock/cancelTransfer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => cancelTransfer(books.deps, a, req(transfer))],
  },
  'stock/shipApproved': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => shipApproved(books.deps, a, req({ ...transfer, lines: [{ lineNo: 1, quantity: '1' }] }))],
  },
  'stock/shipTransfer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => shipTransfer(books.deps, a, req({ fromLocationId: 3, toLocationId: 1, lines: [] }))],
  },
  'setup/setPapers': {
    who: ['owner'],
    tries: [(a) => setPapers(books.deps, a, req({ ...papers, was: papers }))],
  },
  'setup/setLimits': {
    who: ['owner'],
    tries: [(a) => setLimits(books.deps, a, req({ ...limits, was: limits }))],
  },
  'stock/readMovers': { who: all, tries: [(a) => readMovers(books.deps, a, movers)] },
  'stock/readMoverExport': { who: all, tries: [(a) => readMoverExport(books.deps, a, movers)] },
  'stock/takeTillDay': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => takeTillDay(books.deps, a, req({ place: 'MH', day: '2026-11-20', rows: [] }))],
  },
  'stock/readTillAssortment': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => readTillAssortment(books.deps, a)],
  },
  'alerts/readAlerts': {
    who: all,
    tries: [(a) => readAlerts(books.deps, a), (a) => readAlertSettings(books.deps, a)],
  },
  'alerts/setAlerts': {
    who: all,
    tries: [
      (a) => setAlerts(books.deps, a, req({ mail: '', rules: [] })),
      (a) => seeAlerts(books.deps, a, req({ ids: [] })),
    ],
  },
  'stock/readLots': {
    who: all,
    tries: [
      (a) => readLots(books.deps, a, { search: '', itemId: null, locationId: null }),
      (a) => readLot(books.deps, a, 999),
    ],
  },
  'stock/beginCount': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => beginCount(books.deps, a, req({ planId: 999 }))],
  },
  'stock/planCount': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => planCount(books.deps, a, req({ ...nothingToCount, everyDays: 7, firstOn: '' }))],
  },
  'stock/removeCountPlan': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => removeCountPlan(books.deps, a, req({ planId: 999 }))],
  },
  'stock/enterCount': {
    who: ['buyer', 'owner', 'shop'],
    tries: [
      (a) => enterCount(books.deps, a, req({ countId: 999, countedAt: '', lines: [] })),
      (a) => setReasonOfCount(books.deps, a, req({ countId: 999, itemId: 1, reasonId: null, note: '' })),
    ],
  },
  'stock/enterCountRows': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => enterCountRows(books.deps, a, req({ countId: 999, countedAt: '', rows: [] }))],
  },
  'stock/postCount': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => postCount(books.deps, a, req({ countId: 999, asCounted: false }))],
  },
  'stock/dropCount': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => dropCount(books.deps, a, req({ countId: 999 }))],
  },
  'stock/readCounts': {
    who: all,
    tries: [(a) => readCounts(books.deps, a, { locationId: null }), (a) => readCount(books.deps, a, 999)],
  },
  'stock/readCountDifferences': {
    who: all,
    tries: [(a) => readCountDifferences(books.deps, a, { by: 'item', from: '', to: '', locationId: null })],
  },
  'stock/readCountExport': {
    who: all,
    tries: [
      (a) => readCountExport(books.deps, a, 999),
      (a) => readDifferenceExport(books.deps, a, { by: 'item', from: '', to: '', locationId: null }),
    ],
  },
  'stock/readTransfers': {
    who: all,
    tries: [(a) => readTransfers(books.deps, a), (a) => readTransfer(books.deps, a, 999)],
  },
  'stock/readStock': {
    who: all,
    tries: [
      (a) => openStock(books.deps, a, { search: '', locationId: null, sort: 'name', category: '', show: '', days: 0 }),
      (a) => readStockRows(books.deps, a, none),
    ],
  },
  'stock/readMovements': { who: all, tries: [(a) => readMovements(books.deps, a, everyMovement)] },
  'stock/readMovementExport': { who: all, tries: [(a) => readMovementExport(books.deps, a, everyMovement)] },
  'stock/readStockValue': { who: all, tries: [(a) => readStockValue(books.deps, a, { on: '' })] },
  'stock/readStockValueExport': { who: all, tries: [(a) => readStockValueExport(books.deps, a, { on: '' })] },
  'stock/readStockReasons': { who: all, tries: [(a) => readStockReasons(books.deps, a)] },
  'stock/correctStock': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => correctStock(books.deps, a, req({ locationId: 3, reasonId: 1, note: '', lines: [] }))],
  },
  'stock/readArrivalExport': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => readArrivalExport(books.deps, a, { locationId: null })],
  },
  'stock/readArrivals': {
    who: ['buyer', 'owner', 'shop'],
    tries: [
      (a) => readArrivals(books.deps, a, { locationId: null }),
      (a) => readArrival(books.deps, a, { orderId: 999, locationId: 3 }),
    ],
  },
  'stock/confirmDispatch': {
    who: ['buyer', 'owner'],
    tries: [
      (a) =>
        confirmDispatch(
          books.deps,
          a,
          req({ orderId: 999, locationId: 3, deliveryNote: '', businessDate: '', counted: [] }),
        ),
    ],
  },
  'stock/receiveGoods': {
    who: ['buyer', 'owner', 'shop'],
    tries: [
      (a) =>
        receiveGoods(
          books.deps,
          a,
          req({ orderId: 999, locationId: 3, deliveryNote: '', businessDate: '', counted: [] }),
        ),
    ],
  },
  'undo/undoCommand': {
    who: ['buyer', 'owner', 'shop', 'bookkeeper'],
    tries: [(a) => undoCommand(books.deps, a, req({ undoKey: 'a-key-that-nobody-used' }))],
  },
  'catalogue/makeFamily': {
    who: buying,
    tries: [
      (a) =>
        makeFamily(
          books.deps,
          a,
          req({
            ...{ family: 'x', stem: 'x', option1: 'x', values1: ['x'], option2: '', values2: [], priceGroup: '' },
            ...{ category: '', unit: 'none', unitName: '', price: '', pattern: '' },
          }),
        ),
    ],
  },
  'catalogue/makeItem': {
    who: buying,
    tries: [(a) => makeItem(books.deps, a, req({ name: 'x', unit: 'none', price: '', number: '', code: '' }))],
  },
  'catalogue/readItemExport': {
    who: all,
    tries: [(a) => readItemExport(books.deps, a, { list: 'none', columns: [] })],
  },
  'catalogue/readItemFile': { who: all, tries: [(a) => readItemFile(books.deps, a, 1, '.')] },
  'catalogue/readItemForm': { who: all, tries: [(a) => readItemForm(books.deps, a, '.')] },
  'catalogue/readItemHistory': { who: all, tries: [(a) => readItemHistory(books.deps, a, 1)] },
  'catalogue/readSupplierFile': {
    who: ['buyer', 'owner', 'bookkeeper', 'read_only'],
    tries: [(a) => readSupplierFile(books.deps, a, 1, '.')],
  },
  'catalogue/setComplete': {
    who: buying,
    tries: [(a) => setComplete(books.deps, a, req({ itemId: 999_999, complete: true }))],
  },
  'people/changePerson': {
    who: ['owner'],
    tries: [
      (a) =>
        changePerson(
          books.deps,
          a,
          req({ userId: 999, version: 1, name: 'x', role: 'buyer', locationIds: [], limit: '', active: true }),
        ),
    ],
  },
  'people/invitePerson': {
    who: ['owner'],
    tries: [
      (a) => invitePerson(books.deps, a, req({ login: '!', name: 'x', role: 'buyer', locationIds: [], limit: '' })),
    ],
  },
  'people/readChangeExport': {
    who: ['buyer', 'owner', 'bookkeeper'],
    tries: [(a) => readChangeExport(books.deps, a, { area: null, userId: null, from: '', to: '' })],
  },
  'people/readChanges': {
    who: ['buyer', 'owner', 'bookkeeper'],
    tries: [(a) => readChanges(books.deps, a, { area: null, userId: null, from: '', to: '', before: 0 })],
  },
  'people/readPeopleExport': { who: ['owner'], tries: [(a) => readPeopleExport(books.deps, a)] },
  'people/readPeople': { who: ['owner'], tries: [(a) => readPeople(books.deps, a)] },
  'people/removeRole': { who: ['owner'], tries: [(a) => removeRole(books.deps, a, req({ roleId: 999 }))] },
  'people/resetPassword': { who: ['owner'], tries: [(a) => resetPassword(books.deps, a, req({ userId: 999 }))] },
  'people/saveRole': {
    who: ['owner'],
    tries: [(a) => saveRole(books.deps, a, req({ roleId: null, version: null, name: '', rights: [] }))],
  },
  'people/setLocale': { who: all, tries: [(a) => setLocale(books.deps, a, req({ locale: 'none' }))] },
  'purchase/addOrderLine': {
    who: buying,
    tries: [(a) => addOrderLine(books.deps, a, req({ orderId: 999, itemId: 1, locationId: 3, packs: '1', price: '' }))],
  },
  'setup/readSetup': {
    who: all,
    tries: [(a) => readSetupList(books.deps, a, 'rates', '.'), (a) => readCompanyTerms(books.deps, a)],
  },
  'setup/setCompany': {
    who: ['owner'],
    tries: [(a) => setCompany(books.deps, a, req({ ...noTerms, was: noTerms }))],
  },
  'sheets/changeMany': {
    who: buying,
    tries: [
      (a) =>
        changeMany(
          books.deps,
          a,
          req({
            list: 'none',
            ids: null,
            decimal: '.' as const,
            change: { kind: 'field' as const, column: 'maker', text: 'x' },
          }),
        ),
    ],
  },
  'sheets/readRecords': {
    who: buying,
    tries: [(a) => readRecordsOf(books.deps, a, { sheet: 'items', which: 'none', decimal: '.' })],
  },
  'sheets/removeRecords': {
    who: buying,
    tries: [
      (a) =>
        removeRecords(
          books.deps,
          a,
          req({ sheet: 'packs', records: [{ cells: { item: 'x', pack: 'x' }, seen: 'x' }] }),
        ),
    ],
  },
  'sheets/saveRecords': {
    who: buying,
    tries: [
      (a) =>
        saveRecords(
          books.deps,
          a,
          req({ sheet: 'packs', records: [{ cells: { item: 'x', pack: 'x' }, seen: 'x' }], decimal: '.' as const }),
        ),
    ],
  },
  'views/readViews': { who: all, tries: [(a) => readViews(books.deps, a, 'items')] },
  'views/removeView': { who: all, tries: [(a) => removeView(books.deps, a, req({ viewId: 999 }))] },
  'views/saveView': {
    who: all,
    tries: [(a) => saveView(books.deps, a, req({ page: 'items' as const, name: '', query: '', shared: false }))],
  },
  'work/cancelJob': { who: buying, tries: [(a) => cancelJob(books.deps, a, req({ jobId: 999 }))] },
  'work/readJobExport': { who: [...buying, 'read_only'], tries: [(a) => readJobExport(books.deps, a)] },
  'work/readJobs': { who: [...buying, 'read_only'], tries: [(a) => readJobs(books.deps, a)] },
  'work/readMailExport': {
    who: ['buyer', 'owner', 'bookkeeper', 'read_only'],
    tries: [(a) => readMailExport(books.deps, a)],
  },
  'work/readMail': { who: ['buyer', 'owner', 'bookkeeper', 'read_only'], tries: [(a) => readMail(books.deps, a)] },
  'work/takeTillSales': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => takeTillSales(books.deps, a, req({ from: '', to: '' }))],
  },
  'work/startJob': { who: buying, tries: [(a) => startJob(books.deps, a, req({ kind: 'check-needs' as const }))] },
};

/** Files of the services folder that are no use cases: shared steps that take an open transaction, shapes, sign-in, the founding of a company before
 *  anybody is there. */
const shared = new Set([
  'catalogue/buying',
  'catalogue/entryReading',
  'catalogue/findItems',
  'catalogue/itemIndex',
  'catalogue/sourceRules',
  'cost/estimateLanded',
  'cost/exchange',
  // Whoever has the link, or the old password.
  'people/acceptInvitation',
  'people/changePassword',
  'people/person',
  'promise/covering',
  'promise/openAgain',
  'promise/openCustomerOrder',
  'promise/postLines',
  // What the worker does as time goes on.
  'promise/promiseByTime',
  'promise/promiseText',
  'promise/shareOut',
  'purchase/proposedPrice',
  'sheets/recordSteps',
  'sheets/renameSaid',
  'sheets/subject',
  'people/readFrame',
  'people/session',
  'people/foundCompany',
  'people/readFounded',
  'sheets/categories',
  'sheets/checkRows',
  'sheets/findLoop',
  'sheets/importFile',
  'sheets/lockOwn',
  'sheets/lookedUp',
  'sheets/reading',
  'sheets/references',
  'sheets/sheetKind',
  'sheets/steps',
  'sheets/writeStaged',
  'lists/fileColumns',
  'lists/keptList',
  'demand/measureDemand',
  'planning/recompute',
  'planning/pairPlans',
  'planning/needList',
  'planning/splitProblem',
  'planning/splitRun',
  'planning/needViews',
  'planning/postDecisions',
  'planning/decidedNeed',
  'planning/trayTotals',
  'planning/urgency',
  'planning/whenItComes',
  'purchase/orderCosts',
  'purchase/orderParts',
  'purchase/postOntoOrder',
  'purchase/wantedDay',
  'purchase/orderSums',
  'purchase/postJoin',
  'purchase/spending',
  'purchase/topUps',
  'purchase/trayOrders',
  'purchase/bought',
  'purchase/enterOrder',
  'purchase/loadOrder',
  'purchase/orderFindings',
  'purchase/orderNumber',
  'purchase/approvalWord',
  'purchase/beyond',
  'purchase/breakPrices',
  'purchase/pricing',
  'stock/businessDay',
  'stock/enterLines',
  'stock/gauge',
  'stock/kitContents',
  'stock/postAtPlace',
  'stock/postMovements',
  'stock/reserve',
  'planning/withdraw',
  'planning/writePolicies',
  'planning/policyEdits',
  'planning/freshNeeds',
  'planning/freshStates',
  'planning/reopenNeed',
  'stock/fillPegs',
  'stock/postReceipt',
  'promise/shortNeeds',
  'stock/postHandedOver',
  'planning/unitWorth',
  'demand/classifyDemand',
  'demand/measureLeadTimes',
  'stock/crossings',
  'stock/valueOfFound',
  'stock/moveOut',
  'stock/codeRows',
  'stock/postCounted',
  'stock/countFigures',
  'stock/countScope',
  'stock/openCount',
  'alerts/raiseAlerts',
  'stock/moveLots',
  'stock/openTransfer',
  'stock/postSale',
  'stock/stockChange',
  'stock/transferNumber',
  'stock/withdrawSent',
  'purchase/orderCell',
  'purchase/orderSteps',
  'purchase/perTrayLine',
  'purchase/postApproved',
  'purchase/postMailed',
  'purchase/said',
  'stock/reversal',
  'stock/unordered',
  'undo/recordUndo',
  'work/jobNames',
  'work/leaveToWorker',
]);

test('every use case is in the table', () => {
  const folder = join(__dirname, '..', '..', 'src', 'services');
  const files = readdirSync(folder, { withFileTypes: true })
    .filter((e) => e.isDirectory())
    .flatMap((d) =>
      readdirSync(join(folder, d.name))
        .filter((f) => f.endsWith('.ts'))
        .map((f) => `${d.name}/${f.replace(/\.ts$/, '')}`),
    );
  expect(files.filter((f) => !shared.has(f)).sort()).toEqual(Object.keys(table).sort());
});

const actors: [Role, Actor][] = [
  ['buyer', mira],
  ['owner', otto],
  ['shop', jun],
  ['bookkeeper', edda],
  ['read_only', rex],
];
test.each(
  Object.entries(table).flatMap(([name, { who }]) => actors.map(([role]) => [name, role, who.includes(role)] as const)),
)('%s, %s: %s', async (name, role, allowed) => {
  const actor = actors.find(([r]) => r === role)?.[1] as Actor;
  for (const attempt of table[name]?.tries ?? []) {
    const result = await attempt(actor);
    const refused = !result.ok && result.error.kind === 'forbidden';
    expect(refused).toBe(!allowed);
  }
});

test('Find gives items to everybody, orders to those who may read them', async () => {
  const found = async (actor: Actor, text: string) => must(await readFind(books.deps, actor, text));
  const byName = await found(mira, 'moss');
  expect(byName.items.map((i) => i.name)).toContain('Fen merino 4-ply, moss');
  expect((await found(mira, '10412-07')).items[0]).toMatchObject({ number: '10412-07' });
  expect((await found(mira, 'hollinmere')).orders.map((o) => o.supplier)).toContain('Hollinmere Spinners');
  expect((await found(jun, 'hollinmere')).orders).toEqual([]);
  expect(await found(mira, '  ')).toEqual({ items: [], exact: 0, orders: [] });
  expect(await found(mira, '%')).toEqual({ items: [], exact: 0, orders: [] });
});

describe('limited to places', () => {
  test('a buyer of one place sees, and has counted, only what is needed there', async () => {
    const local: Actor = { ...mira, locations: [3] };
    const all = (await needsOf(books, mira)).head.status.needs;
    const there = await needsOf(books, mira, 3);
    const own = await needsOf(books, local);
    expect(own.needs).toEqual(there.needs);
    expect(own.head.status).toEqual(there.head.status);
    expect(own.needs.length).toBeGreaterThan(0);
    expect(own.needs.length).toBeLessThan(all);
    expect((await readFrame(books.deps, local)).counts.needs).toBe(own.needs.length);
    expect((await openNeeds(books.deps, local, { locationId: 1 })).ok).toBe(false);
    const item = must(await readItem(books.deps, local, 7));
    expect(item.places.map((p) => p.locationId)).toEqual([3]);
    expect(new Set(item.movements.map((m) => m.locationId))).toEqual(new Set([3]));
  });

  test('shop staff see and book in only what comes to their own place', async () => {
    const { arrivals } = must(await readArrivals(books.deps, jun, { locationId: null }));
    expect(arrivals.length).toBeGreaterThan(0);
    expect(new Set(arrivals.map((a) => a.location))).toEqual(new Set(['Market Hall']));
    expect(await readArrivals(books.deps, jun, { locationId: 1 })).toMatchObject({
      error: { kind: 'forbidden', because: 'location' },
    });
    const elsewhere = req({ orderId: 7, locationId: 1, deliveryNote: '', businessDate: '', counted: [] });
    expect(await receiveGoods(books.deps, jun, elsewhere)).toMatchObject({
      error: { kind: 'forbidden', because: 'location' },
    });
  });

  test('a part of another place can’t be booked in under one’s own', async () => {
    const part = await books.one<{ id: number }>(
      'SELECT d.id FROM delivery_part d JOIN order_line l ON l.id = d.order_line_id WHERE l.order_id = 7 AND d.location_id = 1',
    );
    const counted = [{ partId: part.id, quantity: '1', unit: 'pack' as const }];
    expect(
      await receiveGoods(
        books.deps,
        jun,
        req({ orderId: 7, locationId: 3, deliveryNote: '', businessDate: '', counted }),
      ),
    ).toMatchObject({
      error: { kind: 'not_found', what: 'line' },
    });
  });
});
