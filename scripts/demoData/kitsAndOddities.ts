import { addDays } from '@/core/calendar';
import type { Tx } from '@/data/sql';
import type { ItemRow } from './itemFacts';

/** Knitting kits of yarn, needles and a pattern: they hold no stock of their own. */
export async function writeKits(
  tx: Tx,
  items: readonly ItemRow[],
  suppliers: ReadonlyMap<string, number>,
): Promise<void> {
  const byNumber = new Map(items.map((i) => [i.number, i.id]));
  const { id: category } = await tx.run("INSERT INTO category (name) VALUES ('Kits')");
  const kits: readonly (readonly [string, string, string, readonly (readonly [string, number])[]])[] = [
    [
      '60010-01',
      'Knitting kit, moss scarf',
      '39.90',
      [
        ['10412-07', 4],
        ['31080-04', 1],
        ['35010-14', 1],
      ],
    ],
    [
      '60010-02',
      'Knitting kit, fog hat',
      '24.90',
      [
        ['10412-12', 2],
        ['31300-03', 1],
      ],
    ],
    [
      '60010-03',
      'Knitting kit, pine socks',
      '34.50',
      [
        ['10530-07', 1],
        ['31300-01', 1],
      ],
    ],
    [
      '60020-01',
      'Quilting kit, nine patch',
      '59.00',
      [
        ['22520-01', 1],
        ['22520-07', 1],
        ['22520-14', 1],
        ['29220-03', 1],
      ],
    ],
    [
      '60020-02',
      'Felt kit, garland',
      '19.90',
      [
        ['22860-04', 2],
        ['22860-09', 2],
        ['29330-02', 2],
      ],
    ],
  ];
  for (const [number, name, price, parts] of kits) {
    const { id } = await tx.run(
      `INSERT INTO item (number, name, category_id, base_unit, unit_name, stock_kept, availability, sale_price, sale_tax_rate)
       VALUES (:number, :name, :category, 'H87', 'kit', 0, 'available', :price, 19)`,
      { number, name, category, price },
    );
    await tx.insertMany(
      'INSERT INTO kit_component (kit_id, component_id, quantity)',
      parts.map(([component, q]) => [id, byNumber.get(component) ?? 0, q]),
    );
  }
  // Large machines go straight from the supplier to the customer, in the small shop always.
  await tx.run("UPDATE item SET straight = 1, straight_supplier_id = :hek WHERE number LIKE '70220%'", {
    hek: suppliers.get('HEK') ?? null,
  });
  await tx.run(
    `INSERT INTO item_place (item_id, location_id, straight, straight_supplier_id)
     SELECT id, 3, 1, :pel FROM item WHERE number LIKE '70002%'`,
    { pel: suppliers.get('PEL') ?? null },
  );
}

/** What every catalogue has: something stopped with a successor, something phasing out, something dangerous, a note, something
 *  made in haste. */
export async function oddities(tx: Tx, today: string): Promise<void> {
  const year = Number(today.slice(0, 4));
  await tx.run(
    `UPDATE item i JOIN item s ON s.number = '28420-02' SET i.successor_id = s.id, i.status = 'phase_out' WHERE i.number = '28420-01'`,
  );
  await tx.run("UPDATE item SET edition = '2nd edition' WHERE number IN ('35010-01', '35010-07')");
  await tx.run(
    "UPDATE item SET buyer_note = 'Never mix dye lots on one order line; ask for the lot first.' WHERE number = '10412-11'",
  );
  await tx.run(
    "UPDATE item SET standard_cost = 3.6, buyer_note = 'Maker moved; price list expected.' WHERE number = '40760-01'",
  );
  const { id: sprays } = await tx.run("INSERT INTO category (name) VALUES ('Care')");
  await tx.run(
    `INSERT INTO item (number, name, category_id, base_unit, unit_name, un_number, hazard_class, hazard_name, sale_price, sale_tax_rate, weight_kg)
     VALUES ('45010-01', 'Basting spray 250 ml', :sprays, 'H87', 'can', '1950', '2.1', 'Aerosols, flammable', 12.9, 19, 0.31)`,
    { sprays },
  );
  await tx.run(
    `INSERT INTO item (number, name, category_id, base_unit, unit_name, to_complete, sale_price, sale_tax_rate)
     VALUES ('N00001', 'Darning mushroom, beech', :sprays, 'H87', 'piece', 1, 9.5, 19)`,
    { sprays },
  );
  await tx.insertMany('INSERT INTO pack_pattern (pattern, pack, content, of_pack, unit, buying, selling, sending)', [
    ['Yarn in bags', 'bag', '10', '', '', 1, 1, 1],
    ['Yarn in bags', 'carton', '6', 'bag', '', 0, 0, 0],
    ['Ribbon on reels', 'reel', '25', '', '', 1, 0, 1],
    ['Cloth on bolts', 'bolt', '15', '', 'YRD', 1, 0, 0],
  ]);
  await tx.run(
    "INSERT INTO saved_view (user_id, page, name, query, shared) VALUES (1, 'items', 'Yarn with shelf prices', 'category=Yarn&cols=on_hand%2Ccoming%2Csale_price%2Clast_cost%2Csupplier', 1)",
  );
  // A bag costs less than ten balls; the market stall has a price of its own.
  await tx.run(
    `INSERT INTO sale_price (item_id, pack_id, location_id, amount, with_tax, tax_rate)
     SELECT i.id, k.id, NULL, 89, 1, 19 FROM item i JOIN pack k ON k.item_id = i.id AND k.name = 'bag'
      WHERE i.number IN ('10412-11', '10412-12')
     UNION ALL
     SELECT i.id, NULL, l.id, 9.95, 1, 19 FROM item i JOIN location l ON l.code = 'MH' WHERE i.number = '10412-12'`,
  );
  await tx.run('UPDATE category SET buyer_id = 1 WHERE name IN (:a, :b)', { a: 'Yarn', b: 'Cloth' });
  // A price rise that is announced.
  await tx.run(
    `INSERT INTO price (source_id, from_packs, valid_from, amount, per_quantity, pack_id, reason, set_by, set_at)
     SELECT p.source_id, p.from_packs, :next, ROUND(p.amount * 1.04, 2), p.per_quantity, p.pack_id, :list, 1, :at
       FROM price p JOIN source s ON s.id = p.source_id JOIN supplier u ON u.id = s.supplier_id WHERE u.code = 'HOL'`,
    { next: `${year + 1}-01-01`, list: `List ${year + 1}`, at: `${addDays(today, -21)} 09:00:00` },
  );
}
