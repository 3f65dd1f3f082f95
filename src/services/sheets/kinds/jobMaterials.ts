import { dateColumn, decimalColumn, textColumn, yesNoColumn } from '@/core/sheets';
import { readJobMaterialRecords, upsertJobMaterials } from '@/data/repositories/sheets/terms';
import { itemId, locationId } from '../references';
import { type SheetKind, text } from '../sheetKind';
import { itemColumn, locationColumn } from './common';
import { foundBy, keyed, removeByIds } from './pages';

const columns = [
  textColumn('job', 40, { title: 'Job', explain: 'Its number.', example: 'W-12', required: true }),
  itemColumn(),
  locationColumn(true),
  decimalColumn(
    'quantity',
    { most: 1_000_000, decimals: 6 },
    { title: 'Quantity', explain: 'In the item’s base unit.', example: '3.5', required: true },
  ),
  dateColumn('needed_on', {
    title: 'Needed on',
    explain: 'When it has to be there.',
    example: '2026-12-18',
    required: true,
  }),
  textColumn('name', 120, { title: 'What it is', explain: 'Of the job.', example: 'Curtains for the Old Mill' }),
  yesNoColumn('done', {
    title: 'Done',
    explain: 'yes = nothing more is needed.',
    example: 'no',
    otherwise: false,
  }),
];

/** What our own jobs need: a workshop's, an alteration's. */
export const jobMaterials: SheetKind = {
  name: 'job-materials',
  title: 'Jobs',
  about: 'What our own jobs need, by when; an order takes it over.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { item: { what: 'item' }, location: { what: 'location' } },
  keyOf: keyed('job', 'item', 'location'),
  ...foundBy(readJobMaterialRecords, columns, 'job', 'item', 'location'),
  check: () => [],
  write: (tx, rows, refs) =>
    upsertJobMaterials(
      tx,
      rows.map(({ values: v }) => [
        ...[text(v, 'job'), itemId(refs, v), locationId(refs, v), v.quantity, v.needed_on, text(v, 'name')],
        v.done ? 1 : 0,
      ]) as never,
    ),
  remove: removeByIds('job_material'),
  replan: false,
};
