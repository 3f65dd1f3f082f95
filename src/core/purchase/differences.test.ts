import { units } from '@/core/quantity';
import { differences, type SaidLine, type SaidPart } from '.';

const part = (packs: number, date: string | null = '2026-12-04', placeId = 1, partId = 1): SaidPart => ({
  ...{ partId, packs: units(packs), date, placeId },
});
const line = (change: Partial<SaidLine> = {}): SaidLine => ({
  ...{
    lineId: 1,
    lineNo: 1,
    description: 'Fen Moss',
    packName: 'bag',
    price: '28.5',
    freeOfCharge: false,
    discount: '0',
  },
  parts: [part(6)],
  ...change,
});
const head = { lineNo: 1, description: 'Fen Moss', packName: 'bag' };

describe('what an order says otherwise than its supplier was told', () => {
  test('nothing, where nothing differs, also with the parts in another order', () => {
    const two = [part(4, '2026-12-04', 1, 1), part(2, '2026-12-11', 2, 2)];
    expect(differences([line({ parts: two })], [line({ parts: [...two].reverse() })])).toEqual([]);
  });

  test('quantity, price and date, each by itself', () => {
    expect(differences([line()], [line({ parts: [part(8)] })])).toEqual([
      { ...head, kind: 'quantity', was: units(6), now: units(8) },
    ]);
    expect(differences([line()], [line({ discount: '5' })])).toEqual([
      { ...head, kind: 'discount', was: '0', now: '5' },
    ]);
    expect(differences([line()], [line({ price: '29' })])).toEqual([
      { ...head, kind: 'price', was: '28.5', now: '29' },
    ]);
    expect(differences([line()], [line({ freeOfCharge: true })])).toEqual([
      { ...head, kind: 'price', was: '28.5', now: 'free of charge' },
    ]);
    expect(differences([line()], [line({ parts: [part(6, '2026-12-18')] })])).toEqual([
      { ...head, kind: 'date', was: ['2026-12-04'], now: ['2026-12-18'] },
    ]);
  });

  test('a line split in two dates differs in its dates, not in its quantity', () => {
    const split = line({ parts: [part(4), part(2, '2026-12-11', 1, 2)] });
    expect(differences([line()], [split])).toEqual([
      { ...head, kind: 'date', was: ['2026-12-04'], now: ['2026-12-04', '2026-12-11'] },
    ]);
  });

  test('the same quantity for another place', () => {
    expect(differences([line()], [line({ parts: [part(6, '2026-12-04', 2)] })])).toEqual([{ ...head, kind: 'place' }]);
  });

  test('lines added and taken off, also those that count nothing any more', () => {
    const other = line({ lineId: 2, lineNo: 2, description: 'Thread' });
    const said = { lineNo: 2, description: 'Thread', packName: 'bag' };
    expect(differences([line()], [line(), other])).toEqual([{ ...said, kind: 'added', now: units(6) }]);
    expect(differences([line(), other], [line()])).toEqual([{ ...said, kind: 'taken_off', was: units(6) }]);
    expect(differences([line(), other], [line(), { ...other, parts: [part(0)] }])).toEqual([
      { ...said, kind: 'taken_off', was: units(6) },
    ]);
  });
});
