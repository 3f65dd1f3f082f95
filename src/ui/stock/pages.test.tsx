import { renderToStaticMarkup } from 'react-dom/server';
import { units } from '@/core/quantity';
import type { DifferencesView } from '@/services/stock/readCountDifferences';
import type { CountedLine, CountView } from '@/services/stock/readCounts';
import type { LotsView } from '@/services/stock/readLots';
import type { MoversView } from '@/services/stock/readMovers';
import { Format } from '../format';
import { DifferencesPage } from './differences-page';
import { LotPage, LotsPage } from './lots-page';
import { MoversPage } from './movers-page';
import { PrintedCount } from './printed-count';

const format = new Format('en-GB');
const text = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

describe('the sheet to count by', () => {
  const line = (lineNo: number, change: Partial<CountedLine> = {}): CountedLine => ({
    ...{
      lineNo,
      itemId: lineNo,
      number: `31080-0${lineNo}`,
      name: `Needle ${lineNo}`,
      unit: 'piece',
      shelf: `A-0${lineNo}`,
    },
    ...{ counted: null, countedBy: null, again: null, againBy: null, expected: null, difference: null, worth: 0 },
    ...{ step: 'first' as const, reasonId: null, note: '', use: false },
    ...change,
  });
  const view = (change: Partial<CountView>): CountView => ({
    ...{ id: 18, number: 'C2611-0006', name: 'Bay A', locationId: 1, planId: null, state: 'open', blind: 1 },
    ...{ businessDate: '2026-11-23', version: 1, begunBy: 'Mira Rook', begunAt: '', endedBy: null, endedAt: null },
    ...{ documentId: null, lines: 1, counted: 0, location: 'Harbour Street', company: 'Quillon', currency: 'EUR' },
    ...{ today: '2026-11-23', rows: [], reasons: [], mayCount: true },
    ...change,
  });
  const said = (v: CountView) => text(renderToStaticMarkup(<PrintedCount view={v} format={format} />));

  test('a blind one says nothing of what is expected; posted it says what was found', () => {
    const blind = said(view({ rows: [line(1)] }));
    expect(blind).toContain('A-01 Needle 1 (pieces) 31080-01');
    expect(blind).not.toContain('Expected');
    expect(said(view({ blind: 0, rows: [line(1, { expected: units(41) })] }))).toContain('Expected');
    const rows = [line(1, { counted: units(7), again: units(8), expected: units(10), difference: units(-2) })];
    expect(said(view({ state: 'posted', rows }))).toContain('31080-01 10 8 −2');
  });
});

describe('what counts found', () => {
  const view: DifferencesView = {
    rows: [
      {
        ...{ id: 7, name: 'Circular needle', number: '31080-06', unit: 'piece', counted: 3, differing: 2 },
        ...{ more: units(1), less: units(4), used: 0, moreValue: 250, lessValue: 1000, usedValue: 0 },
      },
    ],
    sum: { moreValue: 250, lessValue: 1000, usedValue: 0 },
    ...{ currency: 'EUR', today: '2026-11-23' },
  };
  const html = (v: DifferencesView, by: 'item' | 'reason') =>
    renderToStaticMarkup(
      <DifferencesPage view={v} asked={{ by, from: '', to: '', locationId: null }} at="" format={format} />,
    );

  test('by item in quantity and money with a way to its movements; by reason also where none was given', () => {
    const page = html(view, 'item');
    expect(text(page)).toContain('3 2 €10.00 4 pieces €2.50 1 piece −€7.50');
    expect(page).toContain('/stock/movements?item=7&amp;kind=count');
    const [row] = view.rows;
    const unnamed = { ...row, id: null, name: null, number: null, unit: null, more: null, less: null, used: null };
    expect(text(html({ ...view, rows: [unnamed as never] }, 'reason'))).toContain('no reason given');
    expect(text(html({ ...view, rows: [] }, 'item'))).toContain('Nothing was counted in that time');
  });
});

describe('fast and slow', () => {
  const line = {
    ...{ itemId: 7, number: '22017-04', name: 'Half-linen', unit: 'm', location: 'Wendel Yard', sold: units(193.8) },
    ...{ lastSold: '2026-11-20', onHand: units(162.9), value: 100_674, coverDays: 76.3, abc: 'A', xyz: 'X' },
    ...{ costOfSales: 119_771, margin: -500, turns: 4.77, marginReturn: 5.7 },
  };
  const view: MoversView = {
    ...{ lines: [line], count: 3, value: 100_674, costOfSales: 119_771, margin: -500 },
    ...{ since: '2026-08-24', today: '2026-11-23', currency: 'EUR' },
  };
  const said = (order: 'sold' | 'idle', v: MoversView = view) =>
    renderToStaticMarkup(
      <MoversPage
        view={v}
        asked={{ order, days: 91, locationId: null, category: '' }}
        at=""
        categories={[]}
        format={format}
      />,
    );

  test('each line with what it sold, earned and turns, and a way to its policy; more than shown is said', () => {
    const page = said('sold');
    expect(text(page)).toContain('AX 193.8 m €1,197.71 −€5.00 162.9 lasts 76 days €1,006.74 4.8');
    expect(page).toContain('/policies?q=22017-04');
    expect(text(page)).toContain('The first 1 of 3; a file has them all.');
    expect(text(said('idle'))).toContain('20 Nov 2026');
    expect(text(said('idle', { ...view, lines: [], count: 0 }))).toContain('Everything that lies there has sold');
  });
});

describe('lots', () => {
  const lot = {
    ...{ lotId: 4, code: 'D415', bestBefore: '2026-10-01', cost: null, madeAt: '', itemId: 7, itemNumber: '10412-05' },
    ...{ itemName: 'Fen merino', unit: 'ball', tracking: 'lot' as const, left: units(12) },
    places: [
      { location: 'Harbour Street', quantity: units(4) },
      { location: 'Old Mill', quantity: units(8) },
    ],
  };
  const view: LotsView = { lots: [lot], more: false, today: '2026-11-23', item: null };

  test('what is left where, and what is past its date; a serial number says only where', () => {
    const asked = { search: '', itemId: null, locationId: null };
    const said = (v: LotsView) => text(renderToStaticMarkup(<LotsPage view={v} asked={asked} at="" format={format} />));
    expect(said(view)).toContain('1 Oct 2026, past 12 balls Harbour Street 4, Old Mill 8');
    const serial = { ...lot, tracking: 'serial' as const, bestBefore: null, left: units(1), places: [lot.places[1]] };
    expect(said({ ...view, lots: [serial as never] })).toContain('1 ball Old Mill');
    expect(said({ ...view, lots: [{ ...lot, left: 0, places: [] }] })).toContain('none gone');
    expect(said({ ...view, lots: [] })).toContain('Nothing is kept by lot here yet');
  });

  test('its story, newest first', () => {
    const moves = [
      {
        businessDate: '2026-11-20',
        kind: 'sale',
        location: 'Old Mill',
        quantity: '-2.000000',
        documentNumber: 'S2611-0001',
        who: null,
      },
      {
        businessDate: '2026-11-02',
        kind: 'receipt',
        location: 'Old Mill',
        quantity: '10.000000',
        documentNumber: 'R2611-0001',
        who: 'Jun',
      },
    ];
    const said = text(
      renderToStaticMarkup(<LotPage view={{ lot, moves, today: '2026-11-23', currency: 'EUR' }} format={format} />),
    );
    expect(said).toContain('20 Nov 2026 Old Mill sale S2611-0001 −2 –');
    expect(said).toContain('2 Nov 2026 Old Mill receipt R2611-0001 +10 Jun');
    expect(said).not.toContain('It cost');
    const serial = { ...lot, tracking: 'serial' as const, cost: 12_345 };
    const own = { lot: serial, moves, today: '2026-11-23', currency: 'EUR' };
    expect(text(renderToStaticMarkup(<LotPage view={own} format={format} />))).toContain(
      'It cost €123.45, and leaves at that.',
    );
  });
});
