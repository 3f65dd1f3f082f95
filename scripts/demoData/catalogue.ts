import { units } from '@/core/quantity';
import type { SqlValue, Tx } from '@/data/sql';
import { hashPassword } from '@/services/people/session';
import { company, DEMO_PASSWORD, locations, people, suppliers } from './company';
import { families, variantsFor } from './families';
import { moreSuppliers, type SupplierPlan } from './moreSuppliers';
import type { Family } from './plan';
import { range } from './range';

export type Placed = {
  readonly itemId: number;
  readonly locationId: number;
  readonly code: string;
  readonly number: string;
  readonly family: Family;
  readonly min: number;
  readonly max: number;
  /** Cost of one base unit in minor units, for opening values. */
  readonly cost: number;
};

/** More locations than the demo has, for benchmarks. */
const placesFor = (count: number) =>
  Array.from({ length: count }, (_, i) => {
    const base = locations[i % locations.length] as (typeof locations)[number];
    return i < locations.length ? base : { ...base, code: `${base.code}${i}`, name: `${base.name} ${i}` };
  });

/** Company, places, people, suppliers, items with packs, sources, prices and policies. Returns every item at every place. */
export async function writeCatalogue(
  tx: Tx,
  today: string,
  size: number | null,
  placeCount = 4,
  whole = false,
): Promise<Placed[]> {
  const sellers: readonly SupplierPlan[] = whole ? [...suppliers, ...moreSuppliers] : suppliers;
  await tx.run(
    `INSERT INTO company (id, name, currency, time_zone, trigger_rule, refill_rule, invoice_address, mail_from)
     VALUES (1, :name, :currency, :timeZone, 'at_or_below', 'up_to_max', :invoiceAddress, :mailFrom)`,
    company,
  );
  const places = placesFor(placeCount).map((p, i) => ({ ...p, id: i + 1 }));
  await tx.insertMany('INSERT INTO location (id, code, name, kind, address, sort_order)', [
    ...places.map((p) => [p.id, p.code, p.name, p.kind, p.address, p.id]),
    [places.length + 1, 'TRANSIT', 'In transit', 'transit', '', 32_000],
  ]);
  const hash = await hashPassword(DEMO_PASSWORD);
  await tx.insertMany(
    'INSERT INTO app_user (id, login, name, initials, role, approval_limit_minor, password_hash, mail)',
    people.map((p, i) => [i + 1, p.login, p.name, p.initials, p.role, p.limit, hash, `${p.login}@quillon.example`]),
  );
  await tx.insertMany(
    'INSERT INTO app_user_location (user_id, location_id)',
    people.flatMap((p, i) => (p.at ? [[i + 1, places.find((l) => l.code === p.at)?.id ?? 1]] : [])),
  );
  await tx.insertMany(
    `INSERT INTO supplier (id, code, name, address, email, currency, payment_terms, delivery_terms, order_minimum_minor,
                           lead_time_days, lead_time_kind)`,
    sellers.map((s, i) => [
      i + 1,
      s.code,
      s.name,
      `${s.name}\n${s.town}`,
      `orders@${s.code.toLowerCase()}.example`,
      s.currency ?? 'EUR',
      s.payment,
      s.delivery,
      s.minimum,
      s.days,
      s.kind,
    ]),
  );
  const categories = [...new Set([...families, ...(whole ? range : [])].map((f) => f.category))];
  await tx.insertMany(
    'INSERT INTO category (id, name)',
    categories.map((c, i) => [i + 1, c]),
  );
  return writeItems(tx, today, size, places, categories, sellers, whole);
}

async function writeItems(
  tx: Tx,
  today: string,
  size: number | null,
  places: readonly { id: number; code: string; weight: number }[],
  categories: readonly string[],
  sellers: readonly SupplierPlan[],
  whole: boolean,
): Promise<Placed[]> {
  const rows: Record<'item' | 'pack' | 'source' | 'price' | 'policy', SqlValue[][]> = {
    item: [],
    pack: [],
    source: [],
    price: [],
    policy: [],
  };
  const placed: Placed[] = [];
  let packId = 0;
  let sourceId = 0;
  for (const [index, { family, variant, number }] of variantsFor(size, whole).entries()) {
    const itemId = index + 1;
    const [code, name] = family.unit;
    rows.item.push([itemId, number, `${family.name}, ${variant}`, categories.indexOf(family.category) + 1, code, name]);
    const packIds = new Map<string, number>();
    const contents = new Map<string | null, number>([[null, 1]]);
    for (const p of family.packs) {
      packId += 1;
      packIds.set(p.name, packId);
      contents.set(p.name, ((contents.get(p.of) ?? 1) * p.num) / p.den);
      rows.pack.push([packId, itemId, p.name, p.num, p.den, p.of === null ? null : (packIds.get(p.of) ?? null)]);
    }
    let cost = 250;
    for (const [rank, s] of family.sources.entries()) {
      sourceId += 1;
      const pack = s.pack === null ? null : (packIds.get(s.pack) ?? null);
      const supplier = sellers.findIndex((x) => x.code === s.supplier) + 1;
      const perEuro = { GBP: 0.857, USD: 1.084, JPY: 161.3, CHF: 0.942 }[sellers[supplier - 1]?.currency ?? ''] ?? 1;
      rows.source.push([sourceId, itemId, supplier, rank + 1, `${s.supplier}-${number}`, pack, s.minimum ?? 0]);
      for (const [from, amount] of s.prices) {
        rows.price.push([sourceId, from, `${Number(today.slice(0, 4)) - 1}-01-01`, amount, s.per ?? 1, pack]);
      }
      const first = s.prices[0];
      if (rank === 0 && first)
        cost = Math.round((Number(first[1]) * 100) / perEuro / (s.per ?? 1) / (contents.get(s.pack) ?? 1));
    }
    // Every seventh item has its policy for every location; Market Hall then overrides it.
    const everywhere = index % 7 === 3 && family.min > 3;
    const noPolicy = number === '22290-02';
    if (everywhere) rows.policy.push([itemId, null, 'min_max', family.min, family.max]);
    for (const place of places) {
      const weight = Math.max(0.2, place.weight);
      const carried = !family.notAt?.includes(place.code);
      const own = !everywhere || place.code.startsWith('MH');
      const min = own ? Math.max(1, Math.round(family.min * weight)) : family.min;
      const max = own ? Math.max(min + 1, Math.round(family.max * weight)) : family.max;
      if (noPolicy) continue;
      if (!carried) rows.policy.push([itemId, place.id, 'not_carried', null, null]);
      else if (own) rows.policy.push([itemId, place.id, 'min_max', min, max]);
      if (carried)
        placed.push({
          itemId,
          locationId: place.id,
          code: place.code,
          number,
          family,
          min: units(min),
          max: units(max),
          cost,
        });
    }
  }
  await tx.insertMany('INSERT INTO item (id, number, name, category_id, base_unit, unit_name)', rows.item);
  await tx.insertMany('INSERT INTO pack (id, item_id, name, count_num, count_den, of_pack_id)', rows.pack);
  await tx.insertMany(
    'INSERT INTO source (id, item_id, supplier_id, preference, supplier_item_number, pack_id, minimum_quantity)',
    rows.source,
  );
  await tx.insertMany(
    'INSERT INTO price (source_id, from_packs, valid_from, amount, per_quantity, pack_id)',
    rows.price,
  );
  await tx.insertMany('INSERT INTO policy (item_id, location_id, kind, min_quantity, max_quantity)', rows.policy);
  return placed;
}
