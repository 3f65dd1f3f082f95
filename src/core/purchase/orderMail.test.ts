import { units } from '@/core/quantity';
import { line, paper } from '../../../tests/files/paper';
import { orderMail, type Reminded, reminderMail } from '.';

describe('an order as the text of a mail', () => {
  test('says what its paper says: numbers, packs and base units, days, the bill, addresses, terms', () => {
    const { subject, body } = orderMail(
      paper([line(1, { note: 'One dye lot, please.', references: ['CO2611-0004'] })]),
    );
    expect(subject).toBe('Purchase order 2611-0047 from Quillon Yarn & Cloth');
    expect(body.split('\n')).toEqual([
      ...['Quillon Yarn & Cloth', 'Harbour Street 12', '24103 Torvaig', ''],
      ...['Purchase order 2611-0047', 'Date: 23 Nov 2026', 'Payment: 30 days net', 'Delivery: DAP, by parcel'],
      ...['Questions to: Mira Rook', ''],
      '1. Fen merino 4-ply, shade 1',
      ...['   Your number HOL-1', '   Our number 10412-1', '   For CO2611-0004', '   One dye lot, please.'],
      '   6 × bag, = 60 ball, Wanted 4 Dec 2026',
      ...['   32.80 per bag; Net 196.80', ''],
      ...['Total, without tax: 196.80 EUR', ''],
      ...['Deliver to:', '   Harbour Street, Harbour Street 12, 24103 Torvaig'],
      ...['Invoice to: Quillon Yarn & Cloth, Pier 1', ''],
      'Approved by Otto Quillon. Please quote the order number on delivery note and invoice.',
    ]);
  });

  test('what goes straight to a customer has the customer’s address, and no place of ours', () => {
    const parts = [
      { packs: units(2), base: units(20), date: null, place: 'Ida Falk', address: 'Sedge Lane 4\nOstrand' },
    ];
    const { body } = orderMail(paper([line(1, { parts })], { deliverTo: [] }));
    expect(body).toContain('   2 × bag, = 20 ball, Ida Falk, Sedge Lane 4, Ostrand, no date');
    expect(body).not.toContain('Harbour Street,');
    expect(body).toContain('Deliver to: as each line says\n');
  });

  test('the whole bill: price for several, discount, what is free, charges, tax', () => {
    const lines = [line(1, { per: '10', discount: '5' }), line(2, { freeOfCharge: true, net: 0 })];
    const { body } = orderMail(
      paper(lines, {
        charges: [{ name: 'Freight', minor: 1250 }],
        taxes: [{ percent: '19.000', taxable: 20930, tax: 3977 }],
        total: 24907,
      }),
    );
    for (const said of ['   32.80 per bag, for 10, less 5 %; Net 196.80', '   free of charge; Net 0.00'])
      expect(body).toContain(said);
    expect(body).toContain('Goods: 196.80\nFreight: 12.50\nTax 19 % of 209.30: 39.77\nTotal, with tax: 249.07 EUR');
  });

  test('of a change what differs stands first; in the supplier’s language', () => {
    const head = { lineNo: 1, description: 'Fen merino', packName: 'bag' };
    const { subject, body } = orderMail(
      paper([line(1)], {
        ...{ language: 'de-AT', amendment: 2 },
        changes: [
          { ...head, kind: 'quantity', was: units(6), now: units(8) },
          { ...head, kind: 'date', was: ['2026-12-04'], now: [] },
          { ...head, kind: 'price', was: '32.80', now: null },
          { ...head, kind: 'discount', was: '0', now: '5' },
          { ...head, kind: 'added', now: units(1) },
          { ...head, kind: 'taken_off', was: units(3) },
          { ...head, kind: 'place' },
        ],
      }),
    );
    expect(subject).toBe('Bestellung 2611-0047, Änderung 2 von Quillon Yarn & Cloth');
    const from = body.indexOf('Was von Ihrem Stand abweicht:');
    expect(body.slice(from, body.indexOf('\n\n', from)).split('\n')).toEqual([
      'Was von Ihrem Stand abweicht:',
      '   1  Fen merino: 8 × bag statt 6 × bag',
      '   1  Fen merino: Liefertermin ohne Termin statt 4. Dez. 2026',
      '   1  Fen merino: – statt 32.80',
      '   1  Fen merino: abzüglich 5 % statt abzüglich 0 %',
      '   1  Fen merino: neu, 1 × bag',
      '   1  Fen merino: entfällt (3 × bag)',
      '   1  Fen merino: für andere Orte',
    ]);
    expect(body).toContain('   32,80 je bag; Netto 196,80');
    expect(body).toContain('Summe, ohne Steuer: 196,80 EUR');
  });

  test('what papers leave out and the texts around the lines hold for the mail as well', () => {
    const { setup } = paper([]);
    const texts = { ...setup.texts, en: { opening: 'Please supply:', closing: 'Thank you.' } };
    const hides = ['their_number', 'base_quantity'] as const;
    const { body } = orderMail(paper([line(1)], { text: 'Call first.', setup: { ...setup, hides, texts } }));
    expect(body).toContain('Please supply:\n\nCall first.\n\n1. Fen');
    expect(body).toContain('Thank you.\n\nApproved by');
    expect(body).not.toContain('Your number');
    expect(body).toContain('   6 × bag, Wanted');
  });
});

describe('a reminder', () => {
  const about: Reminded = {
    ...{ about: 'confirm', number: '2611-0047', orderDate: '2026-11-23', language: '', currency: 'EUR' },
    lines: [{ lineNo: 1, description: 'Fen merino', packs: units(6), packName: 'bag', due: '2026-12-04' }],
    from: ['Mira Rook', 'Quillon Yarn & Cloth'],
  };

  test('asks to confirm, with what is expected when', () => {
    expect(reminderMail(about)).toEqual({
      subject: 'Please confirm order 2611-0047',
      body: [
        ...['We have no confirmation yet of our order 2611-0047 of 23 Nov 2026:', ''],
        ...['   1. Fen merino: 6 × bag, expected 4 Dec 2026', '', 'Please confirm its dates and prices.', ''],
        ...['Mira Rook', 'Quillon Yarn & Cloth'],
      ].join('\n'),
    });
  });

  test.each([
    ['', 'When will order 2611-0047 come?', 'expected 4 Dec 2026'],
    ['de', 'Wann kommt Bestellung 2611-0047?', 'erwartet 4. Dez. 2026'],
    ['fr', 'Quand arrivera la commande 2611-0047 ?', 'attendu le 4 déc. 2026'],
  ])('asks when it comes, in the language "%s"', (language, subject, expected) => {
    const mail = reminderMail({ ...about, about: 'overdue', language });
    expect(mail.subject).toBe(subject);
    expect(mail.body).toContain(`1. Fen merino: 6 × bag, ${expected}`);
  });
});
