import { choiceColumn, decimalColumn, type InTheWay, textColumn, weekColumn, wholeColumn } from '@/core/sheets';
import {
  linkSuppliedBy,
  readLocationRecords,
  readSupplyLines,
  upsertLocations,
} from '@/data/repositories/sheets/locations';
import { renameRecord } from '@/data/repositories/sheets/record';
import { readInTheWay } from '@/data/repositories/sheets/terms';
import type { Tx } from '@/data/sql';
import { findLoop } from '../findLoop';
import { faultAt, type SheetKind, SheetRefusal, text } from '../sheetKind';

const columns = [
  textColumn('code', 20, {
    title: 'Code',
    explain: 'Short name of the place, as on lists.',
    example: 'HS',
    required: true,
  }),
  textColumn('name', 120, { title: 'Name', explain: 'Full name.', example: 'Harbour Street', required: true }),
  choiceColumn(
    'kind',
    { shop: 'shop', warehouse: 'warehouse' },
    {
      title: 'Kind',
      explain: 'shop or warehouse.',
      example: 'shop',
      required: true,
    },
  ),
  textColumn('address', 400, {
    title: 'Delivery address',
    explain: 'Where goods are brought; lines as in the cell.',
    example: 'Harbour Street 18, 00415 Quillon',
    aliases: ['address'],
  }),
  textColumn('invoice_address', 400, {
    title: 'Invoice address',
    explain: 'Empty = the company’s.',
    example: '',
  }),
  textColumn('supplied_by', 20, {
    title: 'Supplied by',
    explain: 'Code of the place that supplies it; empty = suppliers only.',
    example: 'WY',
  }),
  weekColumn('van_days', {
    title: 'Van days',
    explain: 'On which days goods go there from the place that supplies it.',
    example: 'Tue Fri',
    otherwise: 0,
  }),
  wholeColumn(
    'travel_days',
    { most: 60 },
    {
      title: 'Days on the road',
      explain: 'From the place that supplies it.',
      example: '1',
      otherwise: 1,
    },
  ),
  weekColumn('working_days', { title: 'Working days', explain: 'On which days it is open.', example: 'Mon-Sat' }),
  weekColumn('receiving_days', {
    title: 'Receiving days',
    explain: 'On which days goods can be booked in.',
    example: 'Mon-Fri',
  }),
  decimalColumn(
    'latitude',
    { least: -90, most: 90 },
    { title: 'Latitude', explain: 'Degrees, north above 0.', example: '54.1' },
  ),
  decimalColumn(
    'longitude',
    { least: -180, most: 180 },
    { title: 'Longitude', explain: 'Degrees, east above 0.', example: '9.8' },
  ),
  choiceColumn(
    'status',
    { active: 'open', closed: 'closed' },
    {
      title: 'Status',
      explain: 'open, or closed for good: only without stock and open documents.',
      example: 'open',
      otherwise: 'active',
    },
  ),
];

/** What is not over at these places, by id. */
async function inTheWay(tx: Tx, ids: readonly number[]): Promise<Map<number, readonly InTheWay[]>> {
  const found = new Map<number, InTheWay[]>();
  for (const { id, what, n, named } of await readInTheWay(tx, ids))
    found.set(id, [...(found.get(id) ?? []), { what, n: Number(n), named }]);
  return found;
}

/** Shops and warehouses. */
export const locations: SheetKind = {
  name: 'locations',
  title: 'Locations',
  about: 'Shops and warehouses with their addresses and days.',
  right: 'setup.edit',
  columns,
  byHand: true,
  rename: (tx, id, to) => renameRecord(tx, 'location', 'code', id, to),
  refers: { supplied_by: { what: 'location', own: true } },
  keyOf: (v) => text(v, 'code'),
  find: (tx, rows, _refs, lock) => readLocationRecords(tx, columns, { keys: rows.map((r) => text(r, 'code')) }, lock),
  page: (tx, after, limit) => readLocationRecords(tx, columns, { after, limit }, false),
  inTheWay,
  check: ({ values, kept, whole }, refs) => {
    const code = text(whole, 'code');
    const stops =
      kept && whole.status === 'closed' && kept.values.status !== 'closed' ? refs.inTheWay.get(kept.id) : null;
    if (stops) return [faultAt('status', values, { kind: 'stands_in_the_way', what: stops })];
    // The place of goods between two others, which nobody works at.
    if (code.toUpperCase() === 'TRANSIT') return [faultAt('code', values, { kind: 'reserved' })];
    return code !== '' && text(whole, 'supplied_by') === code
      ? [faultAt('supplied_by', values, { kind: 'loop', through: [code, code] })]
      : [];
  },
  write: async (tx, rows) => {
    // Its row is locked by now; what has come since it was checked is seen here.
    const closing = rows.filter((r) => r.kept && r.values.status === 'closed' && r.kept.values.status !== 'closed');
    const stops = await inTheWay(
      tx,
      closing.flatMap((r) => (r.kept ? [r.kept.id] : [])),
    );
    for (const [, what] of stops)
      throw new SheetRefusal(faultAt('status', { status: 'closed' }, { kind: 'stands_in_the_way', what }));
    await upsertLocations(
      tx,
      rows.map(({ values: v }, i) => [
        ...[
          v.code,
          v.name,
          v.kind,
          v.address ?? '',
          v.invoice_address ?? '',
          v.van_days,
          v.travel_days,
          v.working_days,
        ],
        ...[v.receiving_days, v.latitude, v.longitude, v.status, 100 + i],
      ]) as never,
    );
  },
  link: async (tx, rows) => {
    for (const { values } of rows) await linkSuppliedBy(tx, text(values, 'code'), text(values, 'supplied_by'));
  },
  verify: async (tx) => {
    const above = new Map((await readSupplyLines(tx)).map((l) => [l.code, l.by === null ? [] : [l.by]]));
    const loop = findLoop(above);
    return loop && { kind: 'loop', through: loop, column: 'supplied_by', text: loop[0] as string };
  },
  replan: true,
};
