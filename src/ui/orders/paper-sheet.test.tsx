import { renderToStaticMarkup } from 'react-dom/server';
import type { OrderPaper, PaperLine } from '@/core/purchase';
import { units } from '@/core/quantity';
import { orderPdf } from '@/formats/orderPdf';
import { pdfText } from '../../../tests/files/pdf';
import { PaperSheet } from './paper-sheet';

const texts = { opening: '', closing: '' };
const line = (lineNo: number, more: Partial<PaperLine> = {}): PaperLine => ({
  ...{ lineNo, description: `Fen merino, shade ${lineNo}`, edition: '3', theirNumber: `HOL-${lineNo}` },
  ...{ ourNumber: `10412-${lineNo}`, makersNumber: `FM-${lineNo}`, packName: 'bag', unit: 'ball' },
  parts: [{ packs: units(6), base: units(60), date: '2026-12-04', place: 'Harbour Street', address: '' }],
  ...{ price: '32.8', per: '1', freeOfCharge: false, discount: '0', net: 19_680, note: '', references: [] },
  ...more,
});
const paper = (language: string, more: Partial<OrderPaper> = {}): OrderPaper => ({
  ...{ number: '2611-0047', amendment: 0, changes: [], orderDate: '2026-11-23', language, currency: 'EUR' },
  buyer: { name: 'Quillon Yarn & Cloth', address: 'Harbour Street 12\n24103 Torvaig' },
  supplier: 'Hollinmere Spinners\nFellside 4, 10220 Hollinmere',
  deliverTo: [{ name: 'Harbour Street', address: 'Harbour Street 12\n24103 Torvaig' }],
  ...{ invoiceTo: 'Quillon Yarn & Cloth\nPier 1', payment: '30 days net', delivery: 'DAP', shippingWay: 'parcel' },
  ...{ contact: 'Mira Rook', approvedBy: 'Otto Quillon', text: 'Ring before you come.' },
  lines: [
    line(1, { references: ['CO2611-0004'], note: 'One dye lot, please.', discount: '7.5', per: '10' }),
    line(2, {
      freeOfCharge: true,
      net: 0,
      parts: [
        { packs: units(2.5), base: units(25), date: null, place: 'Old Mill', address: 'Mill Lane 3\n24110 Torvaig' },
        { packs: units(1200), base: units(12_000), date: '2027-01-05', place: 'Harbour Street', address: '' },
      ],
    }),
  ],
  net: 19_680,
  setup: { letterhead: '', foot: 'HRB 4711', hides: [], texts: { en: texts, de: texts, fr: texts } },
  charges: [{ name: 'Freight', minor: 950 }],
  taxes: [{ percent: '19', taxable: 20_630, tax: 3_920 }] as never,
  total: 24_550,
  ...more,
});
const plain = (html: string) =>
  html
    .replace(/<[^>]+>/g, ' ')
    .replaceAll('&amp;', '&')
    .replaceAll('&#x27;', '’');
const sheetOf = (p: OrderPaper) => plain(renderToStaticMarkup(<PaperSheet paper={p} />));
const words = (text: string) => text.split(/[\s,]+/).filter(Boolean);

test.each(['en', 'de', 'fr'])('the printed page says nothing that the PDF does not say, in %s', async (language) => {
  const p = paper(language);
  const pdf = new Set(words((await pdfText(await orderPdf(p))).flat().join(' ')));
  const missing = words(sheetOf(p)).filter((w) => !pdf.has(w));
  // The PDF writes numbers of lines and headings of its own; what is on the page has to be there.
  expect(missing).toEqual([]);
});

test('thousands in French are parted by a space, not by a letter that the typeface lacks', async () => {
  const text = (await pdfText(await orderPdf(paper('fr')))).flat().join(' ');
  expect(text).toMatch(/1\s200 × bag/);
  expect(text).not.toContain('¤');
});

test('a date, a price and a quantity as they are written where the supplier is', () => {
  const german = sheetOf(paper('de'));
  for (const said of ['32,80', '2,5 × bag', '1.200 × bag', '7,5 %', '245,50']) expect(german).toContain(said);
  const english = sheetOf(paper('en'));
  for (const said of ['32.80', '2.5 × bag', '1,200 × bag', '7.5 %', '245.50', '4 Dec 2026'])
    expect(english).toContain(said);
});

test('what is set up to be left out is not on it; without charges the net is the sum', () => {
  const hides = ['their_number', 'our_number', 'makers_number', 'references', 'base_quantity'] as const;
  const bare = sheetOf(paper('en', { setup: { ...paper('en').setup, hides }, charges: [], taxes: [], total: 19_680 }));
  for (const gone of ['HOL-1', '10412-1', 'FM-1', 'CO2611-0004', '= 60', 'Freight']) expect(bare).not.toContain(gone);
  expect(bare).toContain('196.80 EUR');
});
