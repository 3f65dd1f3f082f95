import { type RowFault, textColumn } from '@/core/sheets';
import { readPolicyRecords, upsertPolicies } from '@/data/repositories/sheets/policies';
import { itemId, locationId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, locationColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';
import { checkPolicy, kindColumn, kindValue, maxColumn, minColumn, moreColumns, moreValues } from './policyColumns';

const columns = [
  itemColumn(),
  locationColumn(false),
  kindColumn('min_max'),
  minColumn,
  maxColumn,
  ...moreColumns,
  textColumn('sent_from', 20, {
    title: 'Sent from',
    explain: 'Code of the place that sends it here, where that is not the usual one.',
    example: 'WY',
  }),
];

/** The policy of each item, everywhere or at one place. */
export const policies: SheetKind = {
  name: 'policies',
  title: 'Policies',
  about: 'How each item is refilled, everywhere or at one place. Empty cells follow what is said more widely.',
  right: 'policies.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, location: { what: 'location' }, sent_from: { what: 'location' } },
  keyOf: keyed('item', 'location'),
  ...foundBy(readPolicyRecords, columns, 'item', 'location'),
  check: ({ values, whole, changed, kept }, refs) => {
    const faults: RowFault[] = [];
    if (!changed && kept) return faults;
    if (refs.items.get(text(values, 'item'))?.stockKept === 0)
      faults.push(faultAt('item', values, { kind: 'not_changeable', why: 'stock_not_kept' }));
    const [here, from] = [text(whole, 'location'), text(whole, 'sent_from')];
    if (from !== '' && here === '') faults.push(faultAt('sent_from', values, { kind: 'missing' }));
    if (from !== '' && from === here)
      faults.push(faultAt('sent_from', values, { kind: 'loop', through: [here, here] }));
    return [...faults, ...checkPolicy(values, whole)];
  },
  write: (tx, rows, refs) =>
    upsertPolicies(
      tx,
      rows.map(({ values: v }) => [
        ...[itemId(refs, v), locationId(refs, v), kindValue(v), v.min ?? null, v.max ?? null],
        ...[...moreValues(v), locationId(refs, v, 'sent_from')],
      ]) as never,
    ),
  remove: removeByIds('policy'),
  replan: true,
};
