import type { OrderPaper } from '@/core/purchase';
import { units } from '@/core/quantity';
import { line, paper } from '../../tests/files/paper';
import { pdfText } from '../../tests/files/pdf';
import { orderPdf } from './orderPdf';

const pagesOf = async (p: OrderPaper) => pdfText(await orderPdf(p));
const all = (pages: string[][]) => pages.flat().join(' ');

describe('the order on paper', () => {
  test('says everything of an order, with its numbers, packs and base units, and the sum', async () => {
    const pages = await pagesOf(paper([line(1, { references: ['CO2611-0004'], note: 'One dye lot, please.' })]));
    expect(pages).toHaveLength(1);
    const text = all(pages);
    for (const said of [
      ...[
        'Purchase order 2611-0047',
        'Quillon Yarn & Cloth',
        'Hollinmere Spinners',
        'Pier 1',
        '23 Nov 2026',
        '30 days net',
      ],
      ...[
        'DAP, by parcel',
        'Mira Rook',
        'Your number HOL-1',
        'Our number 10412-1',
        '6 × bag',
        '= 60 ball',
        '4 Dec 2026',
        '32.80',
      ],
      ...['196.80', 'For CO2611-0004', 'One dye lot, please.', 'Approved by Otto Quillon', 'page 1 of 1', '196.80 EUR'],
    ])
      expect(text).toContain(said);
  });

  test('over several pages the head of the lines is repeated and every page says which of how many it is', async () => {
    const pages = await pagesOf(paper(Array.from({ length: 60 }, (_, i) => line(i + 1))));
    expect(pages.length).toBeGreaterThan(2);
    for (const [i, page] of pages.entries()) {
      const text = page.join(' ');
      expect(text).toContain(`page ${i + 1} of ${pages.length}`);
      expect(text).toContain('Purchase order 2611-0047');
    }
    for (const page of pages.slice(0, -1)) expect(page).toContain('Item');
    // Each line once, in order.
    const numbers = pages.flat().flatMap((s) => /^Fen merino 4-ply, shade (\d+)$/.exec(s)?.[1] ?? []);
    expect(numbers).toEqual(Array.from({ length: 60 }, (_, i) => String(i + 1)));
  });

  test('Greek and Cyrillic are set, other scripts are printed as a visible substitute', async () => {
    const pages = await pagesOf(
      paper([line(1, { description: 'Βαμβάκι, Пряжа «мох», Łódź' })], { supplier: '株式会社 Ishimura\nΟδός 4' }),
    );
    const text = all(pages);
    expect(text).toContain('Βαμβάκι, Пряжа «мох», Łódź');
    expect(text).toContain('¤¤¤¤ Ishimura');
    expect(text).toContain('Οδός 4');
  });

  test('in the language of the supplier, with its figures and dates', async () => {
    const text = all(await pagesOf(paper([line(1, { net: 123_456_78 })], { language: 'de' })));
    expect(text).toContain('Bestellung 2611-0047');
    expect(text).toContain('123.456,78');
    expect(text).toContain('Seite 1 von 1');
    expect(all(await pagesOf(paper([line(1)], { language: 'fr' })))).toContain('Commande 2611-0047');
    expect(all(await pagesOf(paper([line(1)], { language: 'xx' })))).toContain('Purchase order');
  });

  test('discount, charges, tax and total; what is set up to be left out is not there', async () => {
    const bill = {
      charges: [
        { name: 'Freight', minor: 950 },
        { name: 'Trade discount', minor: -984 },
      ],
      ...{ taxes: [{ percent: '19', taxable: 18_662, tax: 3_546 }], total: 22_208 },
    };
    const lines = [line(1, { discount: '5', net: 18_696 })];
    const whole = all(await pagesOf(paper(lines, bill)));
    for (const said of ['less 5 %', 'Goods', 'Freight', '9.50', '-9.84', 'Tax 19 % of 186.62', '35.46'])
      expect(whole).toContain(said);
    expect(whole).toContain('Total, with tax');
    expect(whole).toContain('222.08 EUR');
    const { setup } = paper(lines);
    const german = { ...setup.texts, de: { opening: 'Wir bestellen:', closing: 'Mit Dank' } };
    const set = { ...setup, letterhead: 'Wolle am Hafen\nKai 2', foot: 'HRB 4711\nBank', texts: german };
    const hides = ['their_number', 'our_number', 'makers_number', 'base_quantity', 'references', 'barcode'] as const;
    const more = { ...bill, language: 'de', setup: { ...set, hides } };
    const least = all(await pagesOf(paper([line(1, { discount: '5', references: ['W-13'] })], more)));
    for (const said of ['abzüglich 5 %', 'Steuer 19 % auf 186,62', 'Wolle am Hafen', 'HRB 4711 · Bank', 'Mit Dank'])
      expect(least).toContain(said);
    for (const left of ['Ihre Nummer', 'Unsere Nummer', 'Herstellernummer', '= 60', 'W-13'])
      expect(least).not.toContain(left);
  });

  test('several deliveries, each with its place and address where it is not that of the head', async () => {
    const parts = [
      { packs: units(4), base: units(40), date: '2026-12-04', place: 'Harbour Street', address: '' },
      { packs: units(2), base: units(20), date: null, place: 'Tamsin Oor', address: 'Quay 7\n24103 Torvaig' },
    ];
    const text = all(await pagesOf(paper([line(1, { parts })])));
    for (const said of ['4 × bag', '2 × bag', 'Tamsin Oor', 'Quay 7, 24103 Torvaig']) expect(text).toContain(said);
  });

  test('a change says its number and what differs; yen has no decimals; free of charge is said', async () => {
    const text = all(
      await pagesOf(
        paper([line(1, { freeOfCharge: true, net: 0 }), line(2, { net: 1234, price: '1234' })], {
          ...{ amendment: 2, currency: 'JPY', net: 1234 },
          changes: [
            { lineNo: 1, description: 'Fen', packName: 'bag', kind: 'quantity', was: units(6), now: units(8) },
            { lineNo: 3, description: 'Thread', packName: 'box', kind: 'taken_off', was: units(1) },
          ],
        }),
      ),
    );
    for (const said of ['Change 2', '8 × bag instead of 6 × bag', 'taken off (1 × box)', 'free of charge', '1,234 JPY'])
      expect(text).toContain(said);
  });

  test('a line with very many deliveries goes on over the page', async () => {
    const parts = Array.from({ length: 90 }, (_, i) => ({
      ...{ packs: units(1), base: units(10), date: '2026-12-04', place: `Place ${i + 1}`, address: '' },
    }));
    const pages = await pagesOf(paper([line(1, { parts, net: 1 })]));
    expect(pages.length).toBeGreaterThan(1);
    const places = pages.flat().filter((s) => /^Place \d+$/.test(s));
    expect(places).toEqual(Array.from({ length: 90 }, (_, i) => `Place ${i + 1}`));
  });
});
