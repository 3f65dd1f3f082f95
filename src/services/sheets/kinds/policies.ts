import { choiceColumn, type RowFault } from '@/core/sheets';
import { readPolicyRecords, upsertPolicies } from '@/data/repositories/sheets/stock';
import { itemId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, locationColumn, quantityColumn } from './common';
import { foundBy, keyed } from './pages';

const columns = [
  itemColumn(),
  locationColumn(false),
  choiceColumn(
    'policy',
    { min_max: 'min/max', not_carried: 'not carried' },
    { title: 'Policy', explain: 'min/max, or not carried here.', example: 'min/max', otherwise: 'min_max' },
  ),
  quantityColumn('min', 'Minimum', 'In base units; a need arises there.', '20', { aliases: ['min', 'reorder point'] }),
  quantityColumn('max', 'Maximum', 'Filled up to it; empty = up to the minimum.', '60', {
    aliases: ['max', 'order up to'],
  }),
];

/** Minimum and maximum per item, everywhere or at one place. */
export const policies: SheetKind = {
  name: 'policies',
  title: 'Policies',
  about: 'Minimum and maximum per item, everywhere or at one place.',
  right: 'policies.edit',
  columns,
  refers: { item: { what: 'item' }, location: { what: 'location' } },
  keyOf: keyed('item', 'location'),
  ...foundBy(readPolicyRecords, columns, 'item', 'location'),
  check: ({ values, whole, changed, kept }, refs) => {
    const faults: RowFault[] = [];
    if (refs.items.get(text(values, 'item'))?.stockKept === 0 && (changed || !kept))
      faults.push(faultAt('item', values, { kind: 'not_changeable', why: 'stock_not_kept' }));
    const [min, max] = [text(whole, 'min'), text(whole, 'max')];
    if (whole.policy === 'not_carried') {
      for (const c of ['min', 'max'])
        if (text(whole, c) !== '')
          faults.push(faultAt(c, values, { kind: 'not_one_of', choices: ['empty for “not carried”'] }));
      return faults;
    }
    if (min === '') faults.push(faultAt('min', values, { kind: 'missing' }));
    else if (max !== '' && Number(min) > Number(max))
      faults.push(faultAt('min', values, { kind: 'above_other', other: 'max' }));
    return faults;
  },
  write: (tx, rows, refs) =>
    upsertPolicies(
      tx,
      rows.map(({ values: v }) => [
        ...[itemId(refs, v), refs.locations.get(text(v, 'location'))?.id ?? null, v.policy],
        ...[v.min ?? null, v.max ?? null],
      ]) as never,
    ),
  replan: true,
};
