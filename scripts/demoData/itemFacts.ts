import { checkDigit } from '@/core/codes';
import type { SqlValue, Tx } from '@/data/sql';
import { moreFor } from './range';

export type ItemRow = { id: number; number: string; name: string };

export async function sayOfItems(tx: Tx, items: readonly ItemRow[], cost: ReadonlyMap<number, number>): Promise<void> {
  const categories = new Map<string, number>();
  for (const c of await tx.rows<{ id: number; name: string }>('SELECT id, name FROM category'))
    categories.set(c.name, c.id);
  const categoryOf = async (path: string): Promise<number> => {
    const had = categories.get(path);
    if (had) return had;
    const [top, below] = path.split(' > ') as [string, string?];
    if (below === undefined) {
      const { id } = await tx.run('INSERT INTO category (name) VALUES (:top)', { top });
      categories.set(path, id);
      return id;
    }
    const parent = await categoryOf(top);
    const { id } = await tx.run('INSERT INTO category (name, parent_id) VALUES (:below, :parent)', { below, parent });
    categories.set(path, id);
    return id;
  };
  for (const item of items) {
    const more = moreFor(item.number);
    if (!more) continue;
    const price = ((cost.get(item.id) ?? 250) / 100) * more.markup * 1.19;
    // Prices end in 5 or 0 cents; below one euro to the cent.
    const sale = more.markup === 0 ? null : (price < 1 ? price : Math.round(price * 20) / 20).toFixed(2);
    await tx.run(
      `UPDATE item SET category_id = :category, weight_kg = :weight, volume_l = :volume, hs_code = :hs, origin = :origin, maker = :maker,
              maker_number = :makerNumber, tracking = :tracking, purpose = :purpose, sale_decimals = :decimals, sale_price = :sale,
              sale_tax_rate = 19, tax_category = 'standard', account = :account WHERE id = :id`,
      {
        ...{
          id: item.id,
          category: await categoryOf(more.path),
          weight: more.weight,
          hs: more.hs,
          origin: more.origin,
        },
        ...{
          volume: (Number(more.weight) * 6).toFixed(3),
          maker: more.maker,
          makerNumber: `${more.maker.slice(0, 3).toUpperCase()}${item.number.slice(2)}`,
        },
        ...{ tracking: more.tracking ?? 'none', purpose: more.purpose ?? 'resale', decimals: more.decimals ?? 0, sale },
        account: more.purpose === 'own_use' ? '6815' : '3400',
      },
    );
  }
}

/** GTIN-13 with the prefix 2 that is kept for use inside a company (GS1: restricted circulation). */
export async function writeBarcodes(tx: Tx, items: readonly ItemRow[]): Promise<void> {
  const rows: SqlValue[][] = items
    .filter((_, i) => i % 5 !== 4)
    .map((i) => {
      const digits = `2${String(7_000_000_000 + i.id * 37).padStart(11, '0')}`.slice(0, 12);
      return ['gtin', `0${digits}${checkDigit(digits)}`, i.id, null];
    });
  await tx.insertMany('INSERT INTO barcode (kind, code, item_id, pack_id)', rows);
  const packs = await tx.rows<{ id: number; itemId: number }>(
    "SELECT id, item_id AS itemId FROM pack WHERE name IN ('bag', 'box', 'card') ORDER BY id LIMIT 120",
  );
  await tx.insertMany(
    'INSERT INTO barcode (kind, code, item_id, pack_id)',
    packs.map((p) => ['internal', `PK-${String(p.id).padStart(5, '0')}`, p.itemId, p.id]),
  );
  // The pack that is bought first is the usual one; yarn is sold by the bag as well.
  await tx.run(
    `UPDATE item i JOIN source s ON s.item_id = i.id AND s.preference = 1 SET i.usual_buy_pack_id = s.pack_id`,
  );
  await tx.run(
    `UPDATE item i JOIN pack p ON p.item_id = i.id AND p.name IN ('bag', 'card') SET i.usual_sell_pack_id = p.id`,
  );
}

export async function writeFamilies(tx: Tx, items: readonly ItemRow[]): Promise<void> {
  const groups = new Map<string, ItemRow[]>();
  for (const i of items) groups.set(i.number.slice(0, 5), [...(groups.get(i.number.slice(0, 5)) ?? []), i]);
  for (const [number, members] of groups) {
    if (members.length < 3) continue;
    const name = (members[0] as ItemRow).name.split(', ')[0] as string;
    const two = members.every((m) => m.name.split(', ').length === 3);
    const sized = /\d/.test(members[0]?.name.split(', ')[1] ?? '');
    const { id } = await tx.run(
      'INSERT INTO item_family (name, option_1, option_2, price_group) VALUES (:name, :one, :two, :group)',
      {
        name: `${name} (${number})`,
        one: sized ? 'size' : 'colour',
        two: two ? (sized ? 'colour' : 'size') : '',
        group: `G${number}`,
      },
    );
    for (const m of members) {
      const [, ...values] = m.name.split(', ');
      const [one, ...rest] = two ? values : [values.join(', ')];
      await tx.run('UPDATE item SET family_id = :family, option_1 = :one, option_2 = :two WHERE id = :id', {
        ...{ family: id, one: one ?? m.number, two: rest.join(', '), id: m.id },
      });
    }
  }
  // Breaks of yarn and thread count over all colours of a quality.
  await tx.run(
    "UPDATE source s JOIN item i ON i.id = s.item_id SET s.break_scope = 'price_group' WHERE i.number LIKE '110%' OR i.number LIKE '29330%'",
  );
}

export async function writeShelves(tx: Tx, items: readonly ItemRow[], random: () => number): Promise<void> {
  const rows: SqlValue[][] = [];
  for (const i of items)
    for (const place of [1, 2, 4]) {
      const bay = String.fromCharCode(65 + Math.floor(random() * 8));
      rows.push([i.id, place, `${bay}-${String(1 + Math.floor(random() * 24)).padStart(2, '0')}`]);
    }
  await tx.insertMany('INSERT INTO item_place (item_id, location_id, shelf)', rows);
}
