import { renderToStaticMarkup } from 'react-dom/server';
import { addDays } from '@/core/calendar';
import { units } from '@/core/quantity';
import type { Outlook } from '@/services/planning/readOutlook';
import { Format } from '../format';
import { FormatProvider } from '../format-context.client';
import { OutlookPage } from './outlook-page';

const TODAY = '2026-11-23';
const receipt = {
  ...{ date: '2026-12-10', quantity: units(30), ref: '2611-0002', kind: 'order' as const },
  ...{ href: '/orders/6', lateDays: 0 },
};
/** 12 there, 2 a day, 30 come on day 17. */
const outlook = (change: Partial<Outlook> = {}): Outlook => ({
  ...{ item: { id: 7, number: '10412-07', name: 'Fen merino', unit: 'ball' }, location: 'Harbour Street' },
  places: [
    { id: 1, name: 'Harbour Street' },
    { id: 2, name: 'Old Mill' },
  ],
  ...{ today: TODAY, stock: units(12), owed: units(3), perDay: units(2), receipts: [receipt], demands: [] },
  days: Array.from({ length: 63 }, (_, i) => ({
    date: addDays(TODAY, i),
    receipts: i === 17 ? units(30) : 0,
    demand: units(2),
    closing: units(12 - 2 * (i + 1) + (i >= 17 ? 30 : 0)),
  })),
  ...{ min: units(28), max: units(76), safety: units(5), runOut: '2026-11-29', belowSafety: '2026-11-26' },
  ...{ orderBySafety: null, orderByZero: null, tooLate: true, arrives: '2026-12-01', supplier: 'Hollinmere' },
  advice: [
    { kind: 'sooner', ref: '2611-0002', day: 17, wanted: 6, out: true, date: '2026-12-10', wantedOn: '2026-11-29' },
  ],
  ...change,
});
const format = new Format('en-GB');
const html = (o: Outlook) =>
  renderToStaticMarkup(
    <FormatProvider locale="en-GB">
      <OutlookPage outlook={o} format={format} />
    </FormatProvider>,
  );
const text = (page: string) =>
  page
    .replace(/<[^>]+>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
const days = (page: string) => (page.match(/<tbody>.*<\/tbody>/s)?.[0].match(/<tr/g) ?? []).length;

test('the table has two weeks day by day, then weeks and every day on which something happens', () => {
  const page = html(outlook());
  // 14 days, days 14, 21, … 56 (7 of them), and day 17 with its receipt.
  expect(days(page)).toBe(14 + 7 + 1);
  expect(page).toContain('href="/orders/6"');
  expect(text(page)).toContain('Thu 10 Dec +30 2 6 2611-0002');
  expect(days(html(outlook({ receipts: [] })))).toBe(14 + 7);
});

test('dates, advice and what it is made of are said in words', () => {
  const said = text(html(outlook()));
  expect(said).toContain('Runs out Sun 29 Nov');
  expect(said).toContain('Order by, to stay above zero too late for it');
  expect(said).toContain('2611-0002 is due Thu 10 Dec and wanted Sun 29 Nov: stock runs out before it comes.');
  expect(said).toContain('12 balls here, 3 of them promised; 2 a day');
  const calm = text(html(outlook({ runOut: null, belowSafety: null, tooLate: false, advice: [], receipts: [] })));
  expect(calm).toContain('Runs out not in this time');
  expect(calm).toContain('Nothing is on the way.');
  expect(text(html(outlook({ perDay: 0 })))).toContain('nothing was sold in the last 91 days');
});

test('each place is one press away, the one shown is marked', () => {
  const page = html(outlook());
  expect(page).toMatch(/aria-current="true"[^>]*href="\/items\/7\/outlook\?location=1"/);
  expect(page).toContain('href="/items/7/outlook?location=2"');
});
