import { textColumn, yesNoColumn } from '@/core/sheets';
import { readReasonRecords, upsertReasons } from '@/data/repositories/sheets/terms';
import { type SheetKind, text } from '../sheetKind';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  textColumn('name', 60, { title: 'Reason', explain: 'Why stock differs.', example: 'Moth', required: true }),
  yesNoColumn('own_use', {
    title: 'Own use',
    explain: 'yes = what leaves for it was used here, not lost.',
    example: 'no',
    otherwise: false,
  }),
  textColumn('note', 200, { title: 'Note', explain: 'When to take it.', example: 'Eaten, thrown away' }),
];

/** Why stock is put right or a count differs. */
export const reasons: SheetKind = {
  name: 'reasons',
  title: 'Reasons of corrections and counts',
  about: 'Why stock is put right or a count differs.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: {},
  keyOf: keyed('name'),
  ...foundBy(readReasonRecords, columns, 'name'),
  write: (tx, rows) =>
    upsertReasons(tx, rows.map(({ values: v }) => [v.name ?? '', v.own_use ? 1 : 0, text(v, 'note')]) as never),
  remove: removeByIds('stock_reason'),
  replan: false,
};
