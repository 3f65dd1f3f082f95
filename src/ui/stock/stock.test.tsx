import { renderToStaticMarkup } from 'react-dom/server';
import { units } from '@/core/quantity';
import type { MovementsView } from '@/services/stock/readMovements';
import type { TransferView } from '@/services/stock/readTransfers';
import { Format } from '../format';
import { MovementsPage } from './movements-page';
import { PrintedTransfer } from './printed-transfer';
import { StockPanel } from './stock-panel.client';
import { TransferPage } from './transfer-page.client';
import { crossedWords } from './words';

jest.mock('next/navigation', () => ({ useRouter: () => ({ refresh: () => {} }) }));

const format = new Format('en-GB');
const text = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

test('a level that is crossed is said with item, place and figures', () => {
  const at = { itemId: 1, locationId: 1, item: 'Satin ribbon', location: 'Old Mill' };
  const said = (crossing: Parameters<typeof crossedWords>[0]['crossing'], now: number, level: number | null) =>
    crossedWords({ ...at, crossing, now: units(now), level: level === null ? null : units(level) }, format);
  expect(said('below_min', 24, 24)).toBe('Satin ribbon at Old Mill has come to its minimum: 24 of 24.');
  expect(said('above_max', 61, 60)).toBe('Satin ribbon at Old Mill is above its maximum now: 61, at most 60.');
  expect(said('out_of_stock', 0, 24)).toBe('Satin ribbon at Old Mill is sold out now.');
  expect(said('below_zero', -2, null)).toBe(
    'Satin ribbon at Old Mill is below zero now (−2): more went out than was booked in.',
  );
});

const line = (lineNo: number, change: Partial<TransferView['lines'][number]> = {}) => ({
  ...{ lineNo, itemId: lineNo, number: `1000-0${lineNo}`, name: `Item ${lineNo}`, unit: 'ball', lostReason: '' },
  ...{
    asked: units(9),
    approved: units(6),
    shipped: 0,
    received: 0,
    lost: 0,
    inTransit: 0,
    freeThere: units(20),
    liesReady: 0,
    boughtFor: 0,
    fairShare: null,
  },
  wantedThere: units(9),
  ...change,
});
const transfer = (change: Partial<TransferView>): TransferView =>
  ({
    ...{ id: 7, number: 'T2611-0007', state: 'approved', businessDate: '2026-11-23', wantedDate: '2026-11-27' },
    ...{ from: 'Wendel Yard', fromAddress: 'Wendel Yard 1\n2100 Tarn', to: 'Market Hall', toAddress: 'Hall 4' },
    ...{ company: 'Quillon Yarn & Cloth', note: 'for the Saturday market', lines: [line(1), line(2, { approved: 0 })] },
    ...change,
  }) as TransferView;

describe('the paper that goes with a transfer', () => {
  const printed = (view: TransferView) => text(renderToStaticMarkup(<PrintedTransfer view={view} format={format} />));

  test('before it is sent: what was approved, where from and where to, wanted when and what for', () => {
    const said = printed(transfer({}));
    expect(said).toContain('Transfer T2611-0007');
    expect(said).toContain('Quillon Yarn &amp; Cloth');
    expect(said).toContain('From Wendel Yard Wendel Yard 1 2100 Tarn To Market Hall Hall 4');
    expect(said).toContain('for the Saturday market');
    expect(said).toContain('To be sent');
    expect(said).toContain('Item 1 1000-01 6 balls');
    // What nothing was approved of does not travel.
    expect(said).not.toContain('Item 2');
  });

  test('once it is sent: what really went', () => {
    const lines = [line(1, { shipped: units(4) }), line(2, { approved: 0, shipped: units(1) })];
    const said = printed(transfer({ state: 'shipped', lines }));
    expect(said).toContain('Item 1 1000-01 4 balls');
    expect(said).toContain('Item 2 1000-02 1 ball');
    expect(said).not.toContain('To be sent');
  });
});

describe('a request', () => {
  const asked = (change: Partial<TransferView['lines'][number]>, state: TransferView['state'] = 'requested') => {
    const may = { approve: state === 'requested', refuse: true, cancel: true, ship: false, receive: false };
    const view = transfer({ state, may: may as never, version: 1, today: '2026-11-23', lines: [line(1, change)] });
    const html = renderToStaticMarkup(<TransferPage view={view} />);
    return { said: text(html), starts: /name="[^"]*"[^>]*value="([^"]*)"|value="([^"]*)"/.exec(html)?.slice(1) ?? [] };
  };

  test('what came in for a line and what was bought for it stand under what is free there', () => {
    const { said, starts } = asked({ liesReady: units(4), boughtFor: units(5), freeThere: units(7) });
    expect(said).toContain('Free there');
    expect(said).toContain('7 4 came in for it, 5 bought for it, on the way');
    // What is there of it may go at once.
    expect(starts.join('')).toBe('7');
    expect(asked({}).said).not.toContain('came in for it');
  });

  test('where more is wanted than is there, the fair share is said and taken to begin with', () => {
    const { said, starts } = asked({ freeThere: units(10), fairShare: units(6), wantedThere: units(15) });
    expect(said).toContain('15 wanted by all, fair share 6');
    expect(starts.join('')).toBe('6');
  });
});

test('all terms of stock at a place: what is bought for requests is part of what comes, and said apart', () => {
  const at = {
    ...{
      locationId: 4,
      location: 'Wendel Yard',
      onHand: units(9),
      allocated: units(2),
      inspection: 0,
      blocked: units(1),
    },
    ...{
      free: units(6),
      onOrder: units(40),
      inDrafts: 0,
      inTransit: 0,
      toBeSent: 0,
      planned: units(3),
      pegged: units(30),
    },
    ...{ value: 12_300, coverDays: 4, belowMin: false, excess: 0, surplus: 0 },
    gauge: { onHand: units(9), free: units(6), coming: units(40), inTrays: 0, owed: units(2), min: null, max: null },
  };
  const all = { itemId: 7, number: '10412-07', name: 'Fen merino', unit: 'ball', places: [at], sentArrives: [] };
  const said = text(renderToStaticMarkup(<StockPanel line={all} currency="EUR" reasons={[]} />));
  expect(said).toContain('On hand 9 − allocated 2 − blocked 1 Free 6');
  expect(said).toContain('on order 40 of it bought for requests, one to one 30 for places sent to from here 3');
});

describe('movements', () => {
  type Movement = MovementsView['movements'][number];
  const movement = (id: number, change: Partial<Movement> = {}): Movement => ({
    ...{ id, itemId: 7, itemNumber: '10412-07', itemName: 'Fen merino', unit: 'ball', locationId: 1 },
    ...{ kind: 'sale', businessDate: '2026-11-20', onHandChange: '-3.000000', valueChange: -984, variance: 0 },
    ...{ documentKind: 'sale', documentId: 4, documentNumber: 'S2611-0004', orderId: null, reason: null, note: null },
    ...{ who: 'Jun Abara', postedAt: '2026-11-20 09:00:00', runningQuantity: null, runningValue: null, lots: null },
    location: 'Harbour Street',
    ...change,
  });
  const asked = {
    ...{ search: '', itemId: null, locationId: null, userId: null, kind: null, reasonId: null },
    ...{ document: '', from: '', to: '', before: 0 },
  };
  const view = (change: Partial<MovementsView>): MovementsView => ({
    till: false,
    ...{ movements: [], more: false, currency: 'EUR', today: '2026-11-23', item: null, balance: [] },
    ...{ people: [{ id: 3, name: 'Jun Abara' }], reasons: [{ id: 1, name: 'Damaged' }] },
    ...change,
  });
  const html = (v: MovementsView, a: Parameters<typeof MovementsPage>[0]['asked'] = asked) =>
    renderToStaticMarkup(<MovementsPage view={v} asked={a} at="HS" format={format} />);

  test('each with its sign, its document, its reason, and a way to the order or transfer', () => {
    const rows = [
      movement(3, { kind: 'correction', reason: 'Damaged', documentNumber: 'K2611-0001', note: 'wet' }),
      movement(2, {
        kind: 'receipt',
        onHandChange: '10.000000',
        valueChange: 3280,
        orderId: 5,
        documentNumber: 'R2611-0001',
      }),
      movement(1, {
        kind: 'transfer',
        documentKind: 'transfer',
        documentId: 9,
        documentNumber: 'T2611-0001',
        variance: 12,
      }),
    ];
    const page = html(view({ movements: rows }));
    const said = text(page);
    expect(said).toContain('correction, damaged K2611-0001 wet');
    expect(said).toContain('+10 32.80');
    expect(said).toContain('−3 −9.84');
    expect(said).toContain('variance 0.12');
    expect(page).toContain('href="/orders/5"');
    expect(page).toContain('href="/stock/transfers/9"');
    expect(said).not.toContain('On hand after');
  });

  test('of one item at one place also what was there after each, and the balance of the day', () => {
    const one = { ...asked, itemId: 7, locationId: 1, to: '2026-11-20' };
    const v = view({
      movements: [movement(1, { runningQuantity: '12.000000', runningValue: 3936 })],
      item: { id: 7, number: '10412-07', name: 'Fen merino', unit: 'ball' },
      balance: [{ location: 'Harbour Street', quantity: '12.000000', value: 3936 }],
      more: true,
    });
    const page = html(v, one);
    expect(text(page)).toContain('On hand after');
    expect(text(page)).toMatch(/12 balls/);
    // What was asked stays asked on the way to older ones, and in the file.
    expect(page).toContain('item=7&amp;at=HS&amp;to=2026-11-20&amp;before=1');
    expect(page).toContain('/api/exports/movements?item=7&amp;at=HS&amp;to=2026-11-20');
  });

  test('nothing found leads back to everything', () => {
    expect(text(html(view({})))).toContain('Nothing moved like this Show all movements');
  });
});
