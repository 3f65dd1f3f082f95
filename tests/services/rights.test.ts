import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { Actor, Role } from '@/core/people';
import type { Result } from '@/core/result';
import { makeFamily } from '@/services/catalogue/makeFamily';
import { makeItem } from '@/services/catalogue/makeItem';
import { readItemExport } from '@/services/catalogue/readItemExport';
import { readItemFile } from '@/services/catalogue/readItemFile';
import { readItemForm } from '@/services/catalogue/readItemForm';
import { readItemHistory } from '@/services/catalogue/readItemHistory';
import { openItems, readItem, readItemRows } from '@/services/catalogue/readItems';
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
import { readLastBought } from '@/services/planning/readLastBought';
import { openNeeds, readNeedChanges, readNeedRows } from '@/services/planning/readNeeds';
import { openPolicies, readPolicyLines } from '@/services/planning/readPolicies';
import { readStockCourse } from '@/services/planning/readStockCourse';
import { setMinMax } from '@/services/planning/setMinMax';
import { setPlanningRules } from '@/services/planning/setPlanningRules';
import { takeBack } from '@/services/planning/takeBack';
import { addOrderLine } from '@/services/purchase/addOrderLine';
import { approveOrder } from '@/services/purchase/approveOrder';
import { editOrder } from '@/services/purchase/editOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { putBackOrder } from '@/services/purchase/putBackOrder';
import { openOrders, readOrder, readOrderRows } from '@/services/purchase/readOrders';
import { openTrays, readTrayRows } from '@/services/purchase/readTrays';
import { reopenOrder } from '@/services/purchase/reopenOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { readCompanyTerms, readSetupList } from '@/services/setup/readSetup';
import { setCompany } from '@/services/setup/setCompany';
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
import { countStock } from '@/services/stock/countStock';
import { readArrivalExport } from '@/services/stock/readArrivalExport';
import { readArrival, readArrivals } from '@/services/stock/readArrivals';
import { receiveGoods } from '@/services/stock/receiveGoods';
import { receiveTransfer } from '@/services/stock/receiveTransfer';
import { reverseReceipt } from '@/services/stock/reverseReceipt';
import { sellGoods } from '@/services/stock/sellGoods';
import { shipTransfer } from '@/services/stock/shipTransfer';
import { undoCommand } from '@/services/undo/undoCommand';
import { readViews } from '@/services/views/readViews';
import { removeView } from '@/services/views/removeView';
import { saveView } from '@/services/views/saveView';
import { cancelJob } from '@/services/work/cancelJob';
import { readJobExport } from '@/services/work/readJobExport';
import { readJobs } from '@/services/work/readJobs';
import { readMail } from '@/services/work/readMail';
import { readMailExport } from '@/services/work/readMailExport';
import { startJob } from '@/services/work/startJob';
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
const sheet = { importId: 999, version: 1 };
const nothing = async function* (): AsyncGenerator<Uint8Array> {};
const buying: Role[] = ['buyer', 'owner'];
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
      (a) => openPolicies(books.deps, a, { search: '', locationId: null, sort: 'name' }),
      (a) => readPolicyLines(books.deps, a, none),
      (a) => findInList(books.deps, a, 'policies', { list: 'none', what: { code: '10412-07' } }),
    ],
  },
  'planning/readStockCourse': {
    who: all,
    tries: [(a) => readStockCourse(books.deps, a, { itemId: 1, locationId: 3 })],
  },
  'planning/setMinMax': {
    who: buying,
    tries: [(a) => setMinMax(books.deps, a, req({ itemId: 999, locationId: 1, min: '1', max: '2', was: null }))],
  },
  'planning/takeBack': { who: buying, tries: [(a) => takeBack(books.deps, a, req({ trayLineId: 999 }))] },
  'purchase/approveOrder': { who: buying, tries: [(a) => approveOrder(books.deps, a, req(order))] },
  'purchase/editOrder': {
    who: buying,
    tries: [(a) => editOrder(books.deps, a, req({ orderId: 999, field: 'remove' as const, lineId: 1, was: '' }))],
  },
  'purchase/makeOrders': { who: buying, tries: [(a) => makeOrders(books.deps, a, req({ supplierIds: [1] }))] },
  'purchase/putBackOrder': { who: buying, tries: [(a) => putBackOrder(books.deps, a, req(order))] },
  'purchase/readOrders': {
    who: ['buyer', 'owner', 'bookkeeper', 'read_only'],
    tries: [
      (a) => openOrders(books.deps, a, { all: true, sort: 'newest' }),
      (a) => readOrderRows(books.deps, a, none),
      (a) => readOrder(books.deps, a, 999),
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
  'stock/shipTransfer': {
    who: ['buyer', 'owner', 'shop'],
    tries: [(a) => shipTransfer(books.deps, a, req({ fromLocationId: 3, toLocationId: 1, lines: [] }))],
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
  'work/startJob': { who: buying, tries: [(a) => startJob(books.deps, a, req({ kind: 'check-needs' as const }))] },
};

/** Files of the services folder that are no use cases: shared steps that take an open transaction, shapes, sign-in, the founding of a company before
 *  anybody is there. */
const shared = new Set([
  'catalogue/buying',
  'catalogue/findItems',
  'catalogue/itemIndex',
  'catalogue/sourceRules',
  'cost/estimateLanded',
  'cost/exchange',
  // Whoever has the link, or the old password.
  'people/acceptInvitation',
  'people/changePassword',
  'people/person',
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
  'planning/reckonPair',
  'planning/trayTotals',
  'purchase/bought',
  'purchase/enterOrder',
  'purchase/loadOrder',
  'purchase/orderFindings',
  'purchase/orderNumber',
  'purchase/pricing',
  'stock/businessDay',
  'stock/enterLines',
  'stock/gauge',
  'stock/postMovements',
  'stock/reserve',
  'purchase/orderMail',
  'planning/withdraw',
  'planning/writeMinMax',
  'purchase/orderCell',
  'purchase/orderSteps',
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
