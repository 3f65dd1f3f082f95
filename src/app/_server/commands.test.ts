import { commands, envelope } from './commands';

const key = 'a-key-of-this-test-000001';
const limits = {
  ...{ a: '80', b: '95', x: '0.5', y: '1', least: '5', empirical: '20', recountShare: '25', recountAmount: '50' },
  leadTimeRule: 'measured',
  ...{ carrying: '20', orderCost: '0', transport: '0' },
  ...{ promiseDays: '14', promiseRule: 'on_the_way' },
  ...{ fourEyes: '', confirmDays: '3' },
};
const customerLine = {
  ...{ itemId: 1, packId: null, quantity: '2', locationId: 1, way: 'collect' },
  ...{ wantedDate: '', shipBy: '+3', holdUntil: 'fri 18:00' },
};
const customerOrder = {
  ...{
    customerId: null,
    customer: { name: 'Ada', mail: '', phone: '', address: '' },
    channel: 'counter',
    reference: '',
  },
  ...{ delivers: null, priority: null, note: '', lines: [customerLine] },
};
const paperText = { opening: '', closing: 'with thanks' };
const papers = {
  ...{ pattern: 'YYMM-####', start: '1', next: '3' },
  setup: { letterhead: '', foot: '', hides: ['barcode'], texts: { en: paperText, de: paperText, fr: paperText } },
};
const chargeEntry = {
  ...{ sign: 'charge', amountKind: 'fixed', amount: '90', currency: 'USD', onCharges: '', onlyLines: '1, 3' },
  ...{ spread: 'volume', into: 'stock', account: '', billed: true },
};
const samples: Record<string, { good: object[]; bad: object[] }> = {
  'accept-need': {
    good: [
      { needId: 1, fingerprint: 'x', packs: '6' },
      { needId: 1, fingerprint: 'x', packs: '6', way: { sourceId: 2 } },
      { needId: 1, fingerprint: 'x', packs: '6', way: { locationId: 2 } },
      { needId: 1, fingerprint: 'x', packs: '6', also: [{ packs: '2', way: { sourceId: 3 } }] },
      { needId: 1, fingerprint: 'x', packs: '' },
    ],
    bad: [
      { needId: '1', fingerprint: 'x', packs: '6' },
      { needId: 0, fingerprint: 'x', packs: '6' },
      { needId: 1, fingerprint: 'x', packs: 6 },
      { needId: 1, packs: '6' },
    ],
  },
  'accept-needs': {
    good: [{ needs: [{ needId: 1, fingerprint: 'x', packs: '2' }] }],
    bad: [{}, { needs: [] }, { needs: [{ needId: 1, packs: '2' }] }],
  },
  'accept-shown': {
    good: [{ list: 'abc' }, { list: 'abc', needIds: [1, 2] }],
    bad: [{}, { list: 'abc', needIds: [] }, { list: 'abc', needIds: [1, 1] }, { list: 'x'.repeat(17) }],
  },
  'set-aside': {
    good: [
      { needs: [{ needId: 1, fingerprint: 'x' }], kind: 'put_off', until: 'fri', reason: '' },
      { needs: [{ needId: 1, fingerprint: 'x' }], kind: 'leave_out', until: '', reason: 'sold off' },
    ],
    bad: [
      { needs: [], kind: 'put_off', until: 'fri', reason: '' },
      { needs: [{ needId: 1 }], kind: 'put_off', until: 'fri', reason: '' },
      { needs: [{ needId: 1, fingerprint: 'x' }], kind: 'forget', until: '', reason: '' },
    ],
  },
  'start-split': { good: [{ needIds: [1, 2] }], bad: [{ needIds: [] }, { needIds: [1, 1] }, {}] },
  'take-split': { good: [{ splitId: 1 }], bad: [{ splitId: 0 }, {}] },
  'bring-back': { good: [{ needIds: [1] }], bad: [{ needIds: [] }, { needIds: ['1'] }, {}] },
  'ask-by-hand': {
    good: [
      { itemId: 1, locationId: 1, quantity: '6', packId: null, note: '' },
      { itemId: 1, locationId: 1, quantity: '', packId: 2, note: 'window' },
    ],
    bad: [
      { itemId: 1, locationId: 1, quantity: 6, packId: null, note: '' },
      { itemId: 1, quantity: '6', packId: null, note: '' },
    ],
  },
  'set-today': {
    good: [{ hidden: [] }, { hidden: ['alerts'] }],
    bad: [{}, { hidden: 'alerts' }, { hidden: ['a', 'a'] }],
  },
  'set-tray': {
    good: [
      { supplierId: 1, held: true, becomes: 'by_rule', orderId: null },
      { supplierId: 1, held: false, becomes: 'joins', orderId: 4 },
    ],
    bad: [
      { supplierId: 1, held: 'yes', becomes: 'new', orderId: null },
      { supplierId: 1, held: true, becomes: 'later', orderId: null },
    ],
  },
  'top-up-tray': {
    good: [{ supplierId: 1, target: 'minimum', amount: 12_000 }],
    bad: [
      { supplierId: 1, target: 'all', amount: 12_000 },
      { supplierId: 1, target: 'minimum', amount: 0 },
    ],
  },
  'take-back': {
    good: [{ trayLineId: 5 }],
    bad: [{}, { trayLineId: -5 }, { trayLineId: 1.5 }, { trayLineId: 1, more: 1 }],
  },
  'make-orders': {
    good: [{ supplierIds: [1, 2] }],
    bad: [{ supplierIds: [] }, { supplierIds: ['1'] }, { supplierIds: 1 }],
  },
  'set-papers': {
    good: [{ ...papers, was: papers }],
    bad: [papers, { ...papers, setup: { ...papers.setup, hides: ['price'] }, was: papers }],
  },
  'set-limits': {
    good: [{ ...limits, was: limits }],
    bad: [limits, { ...limits, leadTimeRule: 'guessed', was: limits }, { ...limits, a: 80, was: limits }],
  },
  'take-till-sales': { good: [{ from: '2026-11-20', to: '' }], bad: [{ from: '2026-11-20' }] },
  'set-alerts': {
    good: [
      { mail: '', rules: [] },
      { mail: 'm@q.example', rules: [{ matter: 'below_min', how: 'daily', byMail: true }] },
    ],
    bad: [
      { mail: '', rules: [{ matter: 'rain', how: 'daily', byMail: true }] },
      { rules: [] },
      { mail: '', rules: [{ matter: 'below_min', how: 'weekly', byMail: false }] },
    ],
  },
  'see-alerts': { good: [{ ids: [1, 2] }, { ids: [] }], bad: [{}, { ids: ['1'] }] },
  'begin-count': {
    good: [
      { planId: 1 },
      { locationId: 1, what: 'shelf', category: '', shelf: 'A1', itemIds: [], name: 'Shelf A1', blind: true },
    ],
    bad: [
      { planId: 0 },
      { locationId: 1, what: 'drawer', category: '', shelf: '', itemIds: [], name: 'x', blind: true },
      { locationId: 1, what: 'marked', category: '', shelf: '', itemIds: [1, 1], name: 'x', blind: true },
    ],
  },
  'plan-count': {
    good: [
      {
        ...{ locationId: 1, what: 'all', category: '', shelf: '', itemIds: [], name: 'Everything', blind: false },
        ...{ everyDays: 7, firstOn: 'fri' },
      },
    ],
    bad: [
      {
        ...{ locationId: 1, what: 'all', category: '', shelf: '', itemIds: [], name: 'Everything', blind: false },
        ...{ everyDays: 0, firstOn: '' },
      },
    ],
  },
  'remove-count-plan': { good: [{ planId: 3 }], bad: [{}] },
  'enter-count': {
    good: [{ countId: 1, countedAt: '', lines: [{ itemId: 4, round: 'again', quantity: '' }] }],
    bad: [
      { countId: 1, countedAt: '', lines: [] },
      { countId: 1, countedAt: '', lines: [{ itemId: 4, round: 'third', quantity: '1' }] },
    ],
  },
  'enter-count-rows': {
    good: [{ countId: 1, countedAt: '9:40', rows: [{ row: 2, code: '10412-07', quantity: '3' }] }],
    bad: [{ countId: 1, countedAt: '9:40', rows: [{ row: 2, code: '', quantity: '3' }] }],
  },
  'reason-of-count': {
    good: [{ countId: 1, itemId: 2, reasonId: null, note: '' }],
    bad: [{ countId: 1, itemId: 2, reasonId: 0, note: '' }],
  },
  'post-count': { good: [{ countId: 1, asCounted: false }], bad: [{ countId: 1 }] },
  'drop-count': { good: [{ countId: 1 }], bad: [{ countId: '1' }] },
  'put-back-order': { good: [{ orderId: 1, version: 1 }], bad: [{ orderId: 1 }, { orderId: 1, version: 0 }] },
  'approve-order': { good: [{ orderId: 1, version: 1 }], bad: [{ version: 1 }] },
  'buy-over-counter': {
    good: [{ orderId: 1, version: 1, deliveryNote: 'slip 14', businessDate: '' }],
    bad: [{ orderId: 1, version: 1 }],
  },
  'reopen-order': { good: [{ orderId: 1, version: 1 }], bad: [{ orderId: null, version: 1 }] },
  'send-order': {
    good: [
      { orderId: 1, version: 1, how: 'phone' },
      { orderId: 1, version: 1, how: 'in_person', to: 'Ms Ferrow' },
    ],
    bad: [
      { orderId: 1, version: 1 },
      { orderId: 1, version: 1, how: 'pigeon' },
    ],
  },
  'ask-approval': {
    good: [
      { orderId: 1, version: 1, userId: null, note: '' },
      { orderId: 1, version: 1, userId: 2, note: 'before noon, please' },
    ],
    bad: [
      { orderId: 1, version: 1, note: '' },
      { orderId: 1, version: 1, userId: 2, note: 'n'.repeat(401) },
    ],
  },
  'withdraw-order': { good: [{ orderId: 1, version: 1 }], bad: [{ orderId: 1 }] },
  'refuse-order': {
    good: [{ orderId: 1, version: 1, reason: 'too much of it' }],
    bad: [{ orderId: 1, version: 1 }],
  },
  'amend-order': { good: [{ orderId: 1, version: 1 }], bad: [{ orderId: 1 }] },
  'drop-amendment': { good: [{ orderId: 1, version: 1 }], bad: [{ orderId: 1, version: 0 }] },
  'cancel-order': { good: [{ orderId: 1, version: 1, reason: '' }], bad: [{ orderId: 1, version: 1 }] },
  'close-order': { good: [{ orderId: 1, version: 1, reason: 'enough' }], bad: [{ orderId: 1, reason: 'enough' }] },
  'open-order-again': { good: [{ orderId: 1, version: 1 }], bad: [{ version: 1 }] },
  'cut-supply': {
    good: [
      { orderId: 1, version: 1, reason: 'not made any more', lineId: 3, partId: null },
      { orderId: 1, version: 1, reason: 'late', lineId: null, partId: null },
    ],
    bad: [{ orderId: 1, version: 1, reason: 'late', lineId: 3 }],
  },
  'split-part': {
    good: [{ orderId: 1, partId: 2, packs: '300', date: '+7', locationId: 1, broken: false }],
    bad: [
      { orderId: 1, partId: 2, packs: '300', date: '+7', locationId: 1, broken: 'no' },
      { orderId: 1, partId: 2, packs: 300, date: '+7', locationId: 1, broken: false },
    ],
  },
  'spread-part': {
    good: [{ orderId: 1, partId: 2, weeks: 4 }],
    bad: [
      { orderId: 1, partId: 2, weeks: 1 },
      { orderId: 1, partId: 2, weeks: 53 },
    ],
  },
  'confirm-order': {
    good: [
      { orderId: 1, version: 1, reference: '', parts: [], prices: [] },
      {
        ...{ orderId: 1, version: 1, reference: 'AB 77' },
        parts: [{ partId: 1, packs: '4', date: 'fri', rest: 'cancelled' }],
        prices: [{ lineId: 1, price: '30', toList: true }],
      },
    ],
    bad: [
      { orderId: 1, version: 1, reference: '', parts: [] },
      {
        ...{ orderId: 1, version: 1, reference: '', prices: [] },
        parts: [{ partId: 1, packs: '4', date: 'fri', rest: 'later' }],
      },
    ],
  },
  'follow-up-order': {
    good: [{ orderId: 1, version: 1, next: '+3', note: 'will call back' }],
    bad: [{ orderId: 1, version: 1, next: '+3' }],
  },
  'remind-supplier': { good: [{ orderId: 1 }], bad: [{ orderId: 0 }] },
  'retry-mail': {
    good: [
      { mailId: 1, what: 'retry' },
      { mailId: 1, what: 'stop' },
    ],
    bad: [{ mailId: 1, what: 'send' }],
  },
  'edit-order': {
    good: [
      { orderId: 1, field: 'printedNote', lineId: 1, was: '', now: 'x'.repeat(400) },
      { orderId: 1, field: 'priceReason', lineId: 1, was: '', now: 'offer' },
      { orderId: 1, field: 'packs', partId: 1, was: '5', now: '6' },
      { orderId: 1, field: 'price', lineId: 1, was: '', now: '32.80' },
      { orderId: 1, field: 'remove', lineId: 1, was: '' },
    ],
    bad: [
      { orderId: 1, field: 'packs', lineId: 1, was: '5', now: '6' },
      { orderId: 1, field: 'remove', lineId: 1, was: '', now: 'x' },
      { orderId: 1, field: 'supplier', lineId: 1, was: '', now: 'x' },
      { orderId: 1, field: 'price', lineId: 1, was: '', now: 'x'.repeat(41) },
    ],
  },
  'confirm-dispatch': {
    good: [
      {
        ...{ orderId: 1, locationId: 1, deliveryNote: 'DN 7', businessDate: 'yesterday' },
        counted: [{ partId: 1, quantity: '12', unit: 'base' }],
      },
    ],
    bad: [
      { orderId: 1, locationId: 1, deliveryNote: '', businessDate: '' },
      { orderId: 1, locationId: 1, deliveryNote: '', businessDate: '', counted: [], unordered: [] },
    ],
  },
  'receive-goods': {
    good: [
      {
        orderId: 1,
        locationId: 1,
        deliveryNote: '',
        businessDate: '',
        counted: [{ partId: 1, quantity: '', unit: 'base' }],
      },
    ],
    bad: [
      {
        orderId: 1,
        locationId: 1,
        deliveryNote: '',
        businessDate: '',
        counted: [{ partId: 1, quantity: '1', unit: 'dozen' }],
      },
      { orderId: 1, locationId: 1, deliveryNote: 'n'.repeat(61), businessDate: '', counted: [] },
      { orderId: 1, locationId: 1, counted: [] },
      {
        orderId: 1,
        locationId: 1,
        deliveryNote: '',
        businessDate: '',
        counted: [
          { partId: 1, quantity: '1', unit: 'pack' },
          { partId: 1, quantity: '2', unit: 'pack' },
        ],
      },
    ],
  },
  'set-planning-rules': {
    good: [{ trigger: 'at_or_below', refill: 'up_to_min', was: { trigger: 'at_or_below', refill: 'up_to_max' } }],
    bad: [
      { trigger: 'at_or_below', refill: 'up_to_min' },
      { trigger: 'below', refill: 'up_to_min', was: {} },
    ],
  },
  'set-supplier-terms': {
    good: [{ supplierId: 1, version: 1, leadTimeDays: 6, leadTimeKind: 'working', status: 'active' }],
    bad: [{ supplierId: 1, version: 1, leadTimeDays: -1, leadTimeKind: 'working', status: 'active' }],
  },
  'set-source': {
    good: [{ sourceId: 1, version: 1, preference: 1, minimum: '', multiplePacks: 1, rounding: 'up' }],
    bad: [{ sourceId: 1, version: 1, preference: 1, minimum: '', multiplePacks: 0, rounding: 'up' }],
  },
  'sell-goods': {
    good: [{ locationId: 1, businessDate: '', lines: [{ itemId: 1, quantity: '2.5', allocationId: null }] }],
    bad: [
      { locationId: 1, businessDate: '', lines: [] },
      { locationId: 1, businessDate: '2026-11-23x', lines: [{ itemId: 1, quantity: '1', allocationId: null }] },
      { locationId: 1, businessDate: '', lines: [{ itemId: 1, quantity: 1, allocationId: null }] },
    ],
  },
  'allocate-stock': {
    good: [{ itemId: 1, locationId: 1, quantity: '1', promisedTo: 'Tamsin Oor' }],
    bad: [{ itemId: 1, locationId: 1, quantity: '1', promisedTo: '' }],
  },
  'release-allocation': { good: [{ allocationId: 1 }], bad: [{ allocationId: 0 }] },
  'enter-customer-order': {
    good: [customerOrder, { ...customerOrder, customerId: 3, delivers: 'complete', priority: 1 }],
    bad: [
      { ...customerOrder, lines: [] },
      { ...customerOrder, priority: 10 },
      { ...customerOrder, channel: 'telex' },
      { ...customerOrder, lines: [{ ...customerLine, way: 'by_balloon' }] },
    ],
  },
  'add-customer-lines': {
    good: [{ orderId: 1, version: 1, lines: [customerLine] }],
    bad: [{ orderId: 1, lines: [customerLine] }],
  },
  'change-customer-order': {
    good: [{ orderId: 1, version: 1, delivers: 'in_part', priority: 5, note: '' }],
    bad: [{ orderId: 1, version: 1, delivers: 'some', priority: 5, note: '' }],
  },
  'cancel-customer-lines': {
    good: [
      { orderId: 1, version: 1, lines: 'all' },
      { orderId: 1, version: 1, lines: [1, 2] },
    ],
    bad: [
      { orderId: 1, version: 1, lines: [] },
      { orderId: 1, version: 1, lines: 'some' },
    ],
  },
  'set-line-way': {
    good: [{ orderId: 1, version: 1, lineNo: 1, way: 'straight' }],
    bad: [{ orderId: 1, version: 1, lineNo: 1, way: 'by pigeon' }],
  },
  'hold-for-customer': {
    good: [
      { orderId: 1, version: 1, lineNo: 1, quantity: null, until: '' },
      { orderId: 1, version: 1, lineNo: 1, quantity: '2', until: 'fri 18:00' },
    ],
    bad: [{ orderId: 1, version: 1, lineNo: 1, until: '' }],
  },
  'hand-over': {
    good: [
      { orderId: 1, version: 1, locationId: 1, lines: [] },
      { orderId: 1, version: 1, locationId: 1, lines: [{ lineNo: 1, quantity: '2', lots: 'A1' }], mixLots: true },
    ],
    bad: [
      { orderId: 1, version: 1, lines: [] },
      { orderId: 1, version: 1, locationId: 1, lines: [{ lineNo: 1, quantity: 2 }] },
    ],
  },
  'tell-customer': {
    good: [{ orderId: 1, version: 1, how: 'phone', subject: '', body: '' }],
    bad: [{ orderId: 1, version: 1, how: 'pigeon', subject: '', body: '' }],
  },
  'ship-transfer': {
    good: [{ fromLocationId: 1, toLocationId: 2, lines: [{ itemId: 1, quantity: '1' }] }],
    bad: [
      { fromLocationId: 1, toLocationId: 2, lines: [] },
      {
        fromLocationId: 1,
        toLocationId: 2,
        lines: [
          { itemId: 1, quantity: '1' },
          { itemId: 1, quantity: '2' },
        ],
      },
    ],
  },
  'receive-transfer': {
    good: [{ transferId: 1, lines: [{ lineNo: 1, received: '1', lost: '', reason: '' }] }],
    bad: [{ transferId: 1, lines: [{ lineNo: 1, received: '1' }] }],
  },
  'count-stock': {
    good: [{ locationId: 1, note: '', lines: [{ itemId: 1, quantity: '0' }] }],
    bad: [{ locationId: 1, lines: [{ itemId: 1, quantity: '0' }] }],
  },
  'reverse-receipt': { good: [{ receiptId: 1, reason: '' }], bad: [{ receiptId: 1 }] },
  undo: { good: [{ undoKey: key }], bad: [{ undoKey: 'short' }, {}] },
  'start-job': {
    good: [{ kind: 'check-needs' }, { kind: 'fetch-rates' }, { kind: 'take-web-orders' }],
    bad: [{ kind: 'begin-day' }, {}],
  },
  'cancel-job': { good: [{ jobId: 1 }], bad: [{ jobId: 'x' }] },
  'map-sheet': {
    good: [{ importId: 1, version: 1, mapping: ['number', null], decimal: ',', dates: 'dmy' }],
    bad: [
      { importId: 1, version: 1, mapping: ['number'], decimal: ';', dates: 'dmy' },
      { importId: 1, version: 1, mapping: 'number', decimal: ',', dates: 'dmy' },
    ],
  },
  'apply-sheet': { good: [{ importId: 1, version: 1 }], bad: [{ importId: 1 }] },
  'cancel-sheet': { good: [{ importId: 1, version: 1 }], bad: [{ version: 1 }] },
  'save-records': {
    good: [{ sheet: 'items', records: [{ cells: { number: '1', name: '' }, seen: '' }], decimal: ',' }],
    bad: [
      { sheet: 'items', records: [], decimal: '.' },
      { sheet: 'items', records: [{ cells: {}, seen: '' }], decimal: '.' },
      { sheet: 'items', records: [{ cells: { 'no;column': 'x' }, seen: '' }], decimal: '.' },
      { sheet: 'items', records: [{ cells: { number: 1 }, seen: '' }], decimal: '.' },
      { sheet: 'items', records: [{ cells: { number: '1' }, seen: 'x'.repeat(17) }], decimal: '.' },
    ],
  },
  'remove-records': {
    good: [{ sheet: 'packs', records: [{ cells: { item: '1', pack: 'bag' }, seen: 'abc' }] }],
    bad: [{ sheet: 'packs', records: [{ cells: { item: '1' } }] }],
  },
  'change-many': {
    good: [
      { list: 'a', ids: null, decimal: '.', change: { kind: 'field', column: 'maker', text: '' } },
      { list: 'a', ids: [1, 2], decimal: ',', change: { kind: 'pattern', pattern: 'Bags' } },
    ],
    bad: [
      { list: 'a', ids: [], decimal: '.', change: { kind: 'field', column: 'maker', text: '' } },
      { list: 'a', ids: null, decimal: '.', change: { kind: 'price', column: 'maker', text: '' } },
    ],
  },
  'make-item': {
    good: [{ name: 'x', unit: 'piece', price: '', number: '', code: '' }],
    bad: [{ name: '', unit: 'piece', price: '', number: '', code: '' }],
  },
  'make-family': {
    good: [
      {
        ...{ family: 'Fen', stem: '1', option1: 'colour', values1: ['moss'], option2: '', values2: [], priceGroup: '' },
        ...{ category: '', unit: 'H87', unitName: '', price: '', pattern: '' },
      },
    ],
    bad: [
      {
        ...{ family: 'Fen', stem: '1', option1: 'colour', values1: [], option2: '', values2: [], priceGroup: '' },
        ...{ category: '', unit: 'H87', unitName: '', price: '', pattern: '' },
      },
    ],
  },
  'set-complete': { good: [{ itemId: 1, complete: true }], bad: [{ itemId: 1, complete: 'yes' }] },
  'save-view': {
    good: [{ page: 'items', name: 'Wool', query: 'q=wool', shared: true }],
    bad: [{ page: 'elsewhere', name: 'Wool', query: '', shared: true }],
  },
  'remove-view': { good: [{ viewId: 1 }], bad: [{ viewId: '1' }] },
  'invite-person': {
    good: [{ login: 'pia', name: 'Pia', role: 'buyer', locationIds: [], limit: '' }],
    bad: [
      { login: 'pia', name: 'Pia', role: 'buyer', locationIds: [1, 1], limit: '' },
      { name: 'Pia', role: 'buyer', locationIds: [], limit: '' },
    ],
  },
  'change-person': {
    good: [{ userId: 1, version: 1, name: 'Pia', role: 'own-1', locationIds: [1], limit: '5', active: false }],
    bad: [{ userId: 1, version: 1, name: 'Pia', role: 'own-1', locationIds: [1], limit: 5, active: false }],
  },
  'reset-password': { good: [{ userId: 1 }], bad: [{}] },
  'save-role': {
    good: [{ roleId: null, version: null, name: 'x', rights: ['stock.read'] }],
    bad: [{ roleId: null, version: null, name: 'x', rights: 'stock.read' }],
  },
  'remove-role': { good: [{ roleId: 1 }], bad: [{ roleId: null }] },
  'set-locale': { good: [{ locale: '' }], bad: [{ locale: 'x'.repeat(21) }] },
  'set-company': {
    good: [{ name: 'x', invoiceAddress: '', costOrder: 'last_first', itemPrefix: 'N', mailFrom: '', was: {} }],
    bad: [{ name: 'x', invoiceAddress: '', costOrder: 'cheapest', itemPrefix: 'N', mailFrom: '', was: {} }],
  },
  'new-order': {
    good: [
      { supplierId: 1, locationId: 1, addressId: null },
      { supplierId: 1, locationId: 1, addressId: 3 },
    ],
    bad: [{ supplierId: 1, locationId: 1 }],
  },
  'add-other-line': {
    good: [
      {
        ...{ orderId: 1, kind: 'charge', description: 'Freight', quantity: '1', unit: '', price: '12.50' },
        locationId: null,
      },
    ],
    bad: [
      {
        ...{ orderId: 1, kind: 'stock', description: 'Freight', quantity: '1', unit: '', price: '12.50' },
        locationId: null,
      },
      {
        ...{ orderId: 1, kind: 'service', description: 'x'.repeat(201), quantity: '1', unit: '', price: '' },
        locationId: null,
      },
    ],
  },
  'edit-order-head': {
    good: [{ orderId: 1, field: 'wantedDate', was: '', now: '+7' }],
    bad: [
      { orderId: 1, field: 'state', was: '', now: 'sent' },
      { orderId: 1, field: 'orderText', was: '', now: 'x'.repeat(20_001) },
    ],
  },
  'tell-colleague': {
    good: [{ orderId: 1, userId: 2, note: 'for the window' }],
    bad: [
      { orderId: 1, note: '' },
      { orderId: 1, userId: 2, note: 'x'.repeat(401) },
    ],
  },
  'buy-one-to-one': {
    good: [{ orderId: 1, lines: [{ of: 'customer_demand', id: 3 }] }],
    bad: [
      { orderId: 1, lines: [] },
      { orderId: 1, lines: [{ of: 'pair', id: 3 }] },
    ],
  },
  'take-materials': {
    good: [{ orderId: 1, materialIds: [1, 2] }],
    bad: [{ orderId: 1, materialIds: [] }, { materialIds: [1] }],
  },
  'set-order-charge': {
    good: [{ orderId: 1, name: 'Sea freight', was: '', as: 'given', entry: chargeEntry }],
    bad: [
      { orderId: 1, name: 'Sea freight', was: '', as: 'forgotten', entry: chargeEntry },
      { orderId: 1, name: 'Sea freight', was: '', as: 'given', entry: { ...chargeEntry, spread: 'duty' } },
      { orderId: 1, name: 'x'.repeat(61), was: '', as: 'given', entry: chargeEntry },
    ],
  },
  'copy-order': { good: [{ orderId: 1 }], bad: [{}] },
  'paste-lines': {
    good: [{ orderId: 1, locationId: 1, rows: ['10412-07\t6'] }],
    bad: [
      { orderId: 1, locationId: 1, rows: [] },
      { orderId: 1, rows: ['10412-07\t6'] },
    ],
  },
  'fill-from-needs': {
    good: [{ orderId: 1, locationId: null, warned: false }],
    bad: [{ orderId: 1, locationId: null, warned: 'no' }],
  },
  'add-order-line': {
    good: [{ orderId: 1, itemId: 1, locationId: 1, packs: '2', price: '' }],
    bad: [{ orderId: 1, itemId: 1, locationId: 1, packs: 2, price: '' }],
  },
  'close-books': { good: [{ to: '2026-10-31', was: '' }], bad: [{ to: '2026-10-31' }] },
  'save-policies': {
    good: [
      { edits: [{ itemId: 1, locationId: null, was: { min: '' }, now: { min: '5' } }] },
      { edits: [{ itemId: 1, locationId: 2, was: { kind: 'min_max' }, now: { kind: '' } }] },
    ],
    bad: [
      { edits: [] },
      { edits: [{ itemId: 1, locationId: 2, now: { min: '5' } }] },
      { edits: [{ itemId: 1, locationId: 2, was: { min: 4 }, now: { min: '5' } }] },
      { edits: [{ itemId: 1, was: { min: '' }, now: { min: '5' } }] },
    ],
  },
  'correct-stock': {
    good: [{ locationId: 1, reasonId: 1, note: '', lines: [{ itemId: 1, how: 'by', quantity: '-2' }] }],
    bad: [{ locationId: 1, reasonId: 1, note: '', lines: [{ itemId: 1, how: 'at', quantity: '2' }] }],
  },
  'request-transfer': {
    good: [{ fromLocationId: 4, toLocationId: 1, wantedDate: 'fri', note: '', lines: [{ itemId: 1, quantity: '2' }] }],
    bad: [{ fromLocationId: 4, toLocationId: 1, wantedDate: '', note: '', lines: [] }],
  },
  'approve-transfer': {
    good: [{ transferId: 1, version: 1, lines: [{ lineNo: 1, approved: '' }] }],
    bad: [{ transferId: 1, lines: [{ lineNo: 1, approved: '2' }] }],
  },
  'refuse-transfer': {
    good: [{ transferId: 1, version: 1, reason: 'none to spare' }],
    bad: [{ transferId: 1, version: 1 }],
  },
  'cancel-transfer': { good: [{ transferId: 1, version: 1 }], bad: [{ transferId: 1 }] },
  'ship-approved': {
    good: [{ transferId: 1, version: 2, lines: [{ lineNo: 1, quantity: '2' }] }],
    bad: [{ transferId: 1, version: 2, lines: [{ lineNo: 1, quantity: 2 }] }],
  },
};

test('every command has samples here', () => {
  expect(Object.keys(samples).sort()).toEqual(Object.keys(commands).sort());
});

describe.each(Object.entries(samples))('%s', (name, { good, bad }) => {
  const shape = commands[name]?.shape;
  test.each(good)('takes %j', (input) => expect(shape?.validate(input, { convert: false }).error).toBeUndefined());
  test.each(bad)('refuses %j', (input) => expect(shape?.validate(input, { convert: false }).error).toBeDefined());
});

test.each([
  [{ key, input: {} }, true],
  [{ key: 'short', input: {} }, false],
  [{ key: `${key} with spaces`, input: {} }, false],
  [{ key: 'k'.repeat(65), input: {} }, false],
  [{ key }, false],
  [{ key, input: [] }, false],
  [null, false],
])('the envelope %j: %s', (body, fits) => {
  expect(envelope.validate(body ?? undefined, { presence: 'required' }).error === undefined).toBe(fits);
});
