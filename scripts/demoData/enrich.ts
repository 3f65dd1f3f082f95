import type { BusinessDate } from '@/core/calendar';
import type { Tx } from '@/data/sql';
import type { Placed } from './catalogue';
import { type ItemRow, sayOfItems, writeBarcodes, writeFamilies, writeShelves } from './itemFacts';
import { oddities, writeKits } from './kitsAndOddities';
import { writePolicies } from './policies';
import { seeded } from './random';
import { writeBudgets, writeCalendars, writeDeliveries, writeRates, writeSuppliers } from './supplierFacts';

/** Everything on file beyond names, packs, prices and policies: measures, codes, families, kits, terms, charges, duty, rates,
 *  calendars, shelves, past deliveries. Through plain INSERTs, as a company that has worked with this for a year would have it. */
export async function enrich(tx: Tx, placed: readonly Placed[], today: BusinessDate): Promise<void> {
  const random = seeded(20261125);
  const items = await tx.rows<ItemRow>('SELECT id, number, name FROM item ORDER BY id');
  const suppliers = new Map(
    (await tx.rows<{ id: number; code: string }>('SELECT id, code FROM supplier')).map((s) => [s.code, s.id]),
  );
  const cost = new Map(placed.map((p) => [p.itemId, p.cost]));
  await sayOfItems(tx, items, cost);
  await writeBarcodes(tx, items);
  await writeFamilies(tx, items);
  await writeSuppliers(tx, suppliers, today);
  await writeRates(tx, today);
  await writeBudgets(tx, today);
  await writeCalendars(tx, suppliers, today);
  await writeShelves(tx, items, random);
  await writeDeliveries(tx, today, random);
  await writeKits(tx, items, suppliers);
  await oddities(tx, today);
  await writePolicies(tx, today);
}
