import { codeColumn, type RowFault, textColumn } from '@/core/sheets';
import { readPatternRecords, upsertPatterns } from '@/data/repositories/sheets/terms';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { contentColumn, usualColumns } from './packs';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  textColumn('pattern', 60, {
    title: 'Pattern',
    explain: 'Name of the pattern; one row per pack of it.',
    example: 'Yarn in bags',
    required: true,
  }),
  textColumn('pack', 60, { title: 'Pack', explain: 'What it is called.', example: 'bag', required: true }),
  contentColumn,
  textColumn('of_pack', 60, {
    title: 'Of pack',
    explain: 'Another pack of the pattern; empty = base unit.',
    example: '',
  }),
  codeColumn('unit', 'unit', { title: 'In unit', explain: 'If not the item’s own unit.', example: '' }),
  ...usualColumns,
];

/** Packs that many items have alike. */
export const packPatterns: SheetKind = {
  name: 'pack-patterns',
  title: 'Pack patterns',
  about: 'Packs that many items have alike; each item that takes one keeps its own copy.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: {},
  keyOf: keyed('pattern', 'pack'),
  ...foundBy(readPatternRecords, columns, 'pattern', 'pack'),
  check: ({ values, whole }): RowFault[] => {
    const own = text(whole, 'pack');
    if (own !== '' && text(whole, 'of_pack') === own)
      return [faultAt('of_pack', values, { kind: 'loop', through: [own, own] })];
    return [];
  },
  write: (tx, rows) =>
    upsertPatterns(
      tx,
      rows.map(({ values: v }) => [
        ...[v.pattern, v.pack, v.content, text(v, 'of_pack'), text(v, 'unit')],
        ...[v.buying, v.selling, v.sending].map((is) => (is === true ? 1 : 0)),
      ]) as never,
    ),
  remove: removeByIds('pack_pattern'),
  replan: false,
};
