import { decimalsOf } from '@/core/money';
import { fromDecimal } from '@/core/quantity';
import { dateColumn, moneyColumn, type RowFault, type Values } from '@/core/sheets';
import { decimalFraction, divideHalfUp } from '@/core/units';
import { plainDecimal, type SheetRecord } from '@/data/repositories/sheets/record';
import { readMovedPairs, readOpeningRecords } from '@/data/repositories/sheets/stock';
import { postMovements } from '../../stock/postMovements';
import { itemId } from '../references';
import { faultAt, type SheetKind, SheetRefusal, text } from '../sheetKind';
import { itemColumn, locationColumn, quantityColumn } from './common';

const columns = [
  itemColumn(),
  locationColumn(true),
  quantityColumn('quantity', 'Quantity', 'On hand at the end of the day, in base units.', '24', {
    required: true,
    least: 0.000001,
    aliases: ['stock', 'on hand'],
  }),
  moneyColumn(
    'value',
    { most: 999_999_999_999, decimals: 4 },
    {
      title: 'Value',
      explain: 'Cost of the whole quantity, in our currency; or fill in the cost of one.',
      example: '68.40',
    },
  ),
  moneyColumn(
    'cost',
    { most: 999_999_999 },
    {
      title: 'Cost',
      explain: 'Of one base unit; taken where no value is given.',
      example: '2.85',
      aliases: ['unit cost'],
    },
  ),
  dateColumn('day', {
    title: 'Day',
    explain: 'Counted on this day; empty = yesterday’s close.',
    example: '2026-11-22',
    aliases: ['date'],
  }),
];

/** Quantity × cost, or the value given, in minor units of the base currency. */
function worth(v: Values, currency: string): number {
  const scale = 10n ** BigInt(decimalsOf(currency));
  if (text(v, 'value') !== '') {
    const given = decimalFraction(text(v, 'value'));
    return Number(divideHalfUp(given.num * scale, given.den));
  }
  const cost = decimalFraction(text(v, 'cost'));
  return Number(divideHalfUp(BigInt(fromDecimal(text(v, 'quantity'))) * cost.num * scale, cost.den * 1_000_000n));
}

/** Stock on hand on the first day, with its value. Posted once: afterwards a count puts stock right. */
export const openingStock: SheetKind = {
  name: 'opening-stock',
  title: 'Opening stock',
  about: 'Stock on hand on the first day, with its value.',
  right: 'stock.count',
  columns,
  refers: { item: { what: 'item' }, location: { what: 'location' } },
  keyOf: (v) => `${text(v, 'item')}\u001f${text(v, 'location')}`,
  find: async (tx, rows, refs, lock) => {
    const pairs = rows.map((r) => [text(r, 'item'), text(r, 'location')]);
    const posted = await readOpeningRecords(tx, columns, { pairs }, lock);
    const moved = await readMovedPairs(
      tx,
      [...refs.items.values()].map((i) => i.id),
    );
    const known = new Set(posted.map((r) => `${text(r.values, 'item')}\u001f${text(r.values, 'location')}`));
    const [numbers, codes] = [
      new Map([...refs.items.values()].map((i) => [i.id, i.number])),
      new Map([...refs.locations.values()].map((l) => [l.id, l.code])),
    ];
    // Stock that came in some other way stands in the way of opening stock just as well.
    const other = moved.flatMap((m): SheetRecord[] => {
      const [item, location] = [numbers.get(m.itemId), codes.get(m.locationId)];
      if (!item || !location || known.has(`${item}\u001f${location}`)) return [];
      return [{ id: 0, values: { item, location, quantity: null, value: null, cost: null, day: null } }];
    });
    return [...posted, ...other];
  },
  page: (tx, after, limit) => readOpeningRecords(tx, columns, { after, limit }, false),
  against: (record, values, setting) => {
    if (record.id === 0) return record.values;
    const money = Number(text(record.values, 'value')) / 10 ** decimalsOf(setting.currency);
    const kept: Values = { ...record.values, value: plainDecimal(money.toFixed(decimalsOf(setting.currency))) };
    // The file may say it by the cost of one; that is the same when it comes to the same sum, and the day may be left open.
    const same = text(values, 'quantity') !== '' && (text(values, 'value') !== '' || text(values, 'cost') !== '');
    const sum = same ? worth(values, setting.currency) === Number(text(record.values, 'value')) : false;
    return {
      ...kept,
      ...(sum ? { value: values.value ?? kept.value ?? null, cost: values.cost ?? null } : {}),
      ...(text(values, 'day') === '' ? { day: values.day ?? null } : {}),
    };
  },
  check: ({ values, kept, changed }, refs, setting) => {
    const faults: RowFault[] = [];
    const item = refs.items.get(text(values, 'item'));
    if (item && item.stockKept !== 1)
      faults.push(faultAt('item', values, { kind: 'not_changeable', why: 'stock_not_kept' }));
    if (kept && changed)
      faults.push(
        faultAt('quantity', values, { kind: 'not_changeable', why: kept.id === 0 ? 'stock_there' : 'stock_posted' }),
      );
    if (!kept && text(values, 'value') === '' && text(values, 'cost') === '')
      faults.push(faultAt('cost', values, { kind: 'missing' }));
    const day = text(values, 'day');
    if (day > setting.today) faults.push(faultAt('day', values, { kind: 'in_the_future' }));
    if (!kept && setting.booksClosedTo && day !== '' && day <= setting.booksClosedTo)
      faults.push(faultAt('day', values, { kind: 'books_closed', to: setting.booksClosedTo }));
    return faults;
  },
  write: async (tx, rows, refs, setting) => {
    const changes = rows.map(({ values: v }) => ({
      itemId: itemId(refs, v) as number,
      locationId: refs.locations.get(text(v, 'location'))?.id as number,
      kind: 'opening' as const,
      businessDate: text(v, 'day') || setting.yesterday,
      quantity: fromDecimal(text(v, 'quantity')),
      value: worth(v, setting.currency),
      document: { kind: 'opening' as const, id: null, line: null },
    }));
    // Days before the first movement are no back-dating: nothing has gone out since.
    const posted = await postMovements(tx, setting.userId, setting.now, setting.today, changes);
    if (!posted.ok) throw new SheetRefusal({ ...posted.error, column: 'day', text: '' });
  },
  replan: true,
};
