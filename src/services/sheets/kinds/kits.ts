import {
  deleteComponents,
  readKitContents,
  readKitPage,
  readKitRecords,
  upsertKits,
} from '@/data/repositories/sheets/parts';
import { findLoop } from '../findLoop';
import { itemId } from '../references';
import { faultAt, type SheetKind, text } from '../sheetKind';
import { itemColumn, quantityColumn } from './common';
import { foundBy, keyed, pageOf } from './pages';

const columns = [
  { ...itemColumn('kit', 'Kit'), explain: 'Item number of the kit.', example: '60010', aliases: ['kit number'] },
  { ...itemColumn('component', 'Component'), explain: 'Item number of what is in it.', aliases: ['component number'] },
  quantityColumn('quantity', 'Quantity', 'In base units of the component.', '6', { required: true, least: 0.000001 }),
];

/** What kits are made of. */
export const kits: SheetKind = {
  name: 'kits',
  title: 'Kits',
  about: 'What a kit is made of: one row per component.',
  right: 'catalogue.edit',
  columns,
  byHand: true,
  refers: { kit: { what: 'item' }, component: { what: 'item' } },
  keyOf: keyed('kit', 'component'),
  ...foundBy(readKitRecords, columns, 'kit', 'component'),
  page: async (tx, after, limit) => pageOf(columns, await readKitPage(tx, after, limit)),
  check: ({ values }) =>
    text(values, 'kit') === text(values, 'component') && text(values, 'kit') !== ''
      ? [faultAt('component', values, { kind: 'loop', through: [text(values, 'kit'), text(values, 'kit')] })]
      : [],
  write: (tx, rows, refs) =>
    upsertKits(
      tx,
      rows.map(({ values: v }) => [itemId(refs, v, 'kit'), itemId(refs, v, 'component'), text(v, 'quantity')]),
    ),
  verify: async (tx) => {
    const leads = new Map<string, string[]>();
    for (const { kit, component } of await readKitContents(tx)) leads.set(kit, [...(leads.get(kit) ?? []), component]);
    const loop = findLoop(leads);
    return loop && { kind: 'loop', through: loop, column: 'component', text: loop[0] as string };
  },
  remove: async (tx, records, refs) => {
    await deleteComponents(
      tx,
      records.map((r) => [itemId(refs, r.values, 'kit'), itemId(refs, r.values, 'component')]),
    );
  },
  replan: false,
};
