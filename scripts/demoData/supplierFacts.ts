import { addDays, type BusinessDate, isWorkingDay, workingDayFrom } from '@/core/calendar';
import type { SqlValue, Tx } from '@/data/sql';
import { rateFile } from '@/standins/rateFile';
import { charges, duties, moreSuppliers, shippingWays } from './moreSuppliers';

export async function writeSuppliers(tx: Tx, suppliers: ReadonlyMap<string, number>, today: string): Promise<void> {
  await tx.insertMany(
    'INSERT INTO shipping_way (name, note)',
    shippingWays.map((w) => [...w]),
  );
  const ways = new Map(
    (await tx.rows<{ id: number; name: string }>('SELECT id, name FROM shipping_way')).map((w) => [w.name, w.id]),
  );
  for (const s of moreSuppliers) {
    await tx.run(
      `UPDATE supplier SET order_days = :days, cut_off = :cutOff, freight_fixed = :fixed, freight_per_kg = :perKg,
              freight_free_from = :free, tax_regime = :regime, incoterm = :incoterm, incoterm_place = :place, shipping_way_id = :way,
              language = :language, contact = :contact, over_percent = 5, under_percent = 2, date_tolerance_days = 1 WHERE code = :code`,
      {
        ...{ code: s.code, days: s.orderDays ?? 31, cutOff: s.cutOff ?? null, regime: s.regime ?? 'domestic' },
        ...{ fixed: s.freight?.fixed ?? null, perKg: s.freight?.perKg ?? null, free: s.freight?.freeFrom ?? null },
        ...{ incoterm: s.incoterm?.[0] ?? '', place: s.incoterm?.[1] ?? '', way: ways.get(s.shipping ?? '') ?? null },
        ...{
          language: s.currency === undefined || s.currency === 'CHF' ? 'de' : 'en',
          contact: `Sales office ${s.name.split(' ')[0]}`,
        },
      },
    );
  }
  await tx.insertMany(
    `INSERT INTO charge_type (supplier_id, position, name, sign, amount_kind, amount, currency, on_charges, spread, into_cost)`,
    charges.map(([code, ...rest]) => [suppliers.get(code) ?? null, ...rest]),
  );
  await tx.insertMany(
    'INSERT INTO charge_type (supplier_id, position, name, sign, amount_kind, amount, currency, on_charges, spread, into_cost)',
    [
      [null, 1, 'Small order fee', 'charge', 'asked', null, '', '', 'value', 'expense'],
      [null, 2, 'Sea freight', 'charge', 'asked', null, '', '', 'weight', 'stock'],
    ],
  );
  await tx.insertMany(
    'INSERT INTO duty_rate (hs_prefix, origin, percent, valid_from)',
    duties.map(([hs, origin, percent]) => [hs, origin, percent, `${Number(today.slice(0, 4)) - 1}-01-01`]),
  );
  // Of what the shops use for other ends too half is recovered.
  await tx.insertMany('INSERT INTO tax_rate (category, percent, own_use_percent, usual, valid_from)', [
    ['standard', '19', '100', 1, `${Number(today.slice(0, 4)) - 1}-01-01`],
    ['reduced', '7', '100', 0, `${Number(today.slice(0, 4)) - 1}-01-01`],
    ['mixed use', '19', '50', 0, `${Number(today.slice(0, 4)) - 1}-01-01`],
  ]);
  // Two jobs of the workshop, with what they need and by when; machines are looked at before they are put away.
  for (const [job, name, number, quantity, days] of [
    ['W-12', 'Curtains for the Old Mill', '22155-01', '24', 18],
    ['W-12', 'Curtains for the Old Mill', '29000-03', '2', 18],
    ['W-13', 'Sample blankets', '11340-01', '30', 40],
  ] as const)
    await tx.run(
      `INSERT INTO job_material (job, name, location_id, item_id, quantity, needed_on)
       SELECT :job, :name, l.id, i.id, :quantity, :neededOn FROM item i JOIN location l ON l.code = 'WY' WHERE i.number = :number`,
      { job, name, number, quantity, neededOn: addDays(today, days) },
    );
  await tx.run("UPDATE item SET inspect = 1 WHERE tracking = 'serial'");
  await tx.insertMany('INSERT INTO supplier_contact (supplier_id, name, kind, address, email, phone, note)', [
    [suppliers.get('HOL') ?? 1, 'Dye house', 'contact', '', 'dyehouse@hol.example', '', 'asks for dye lots'],
    [
      suppliers.get('TES') ?? 1,
      'Export office',
      'order_address',
      'Tesselow Weaving, Export\nLoom Street 23\n20510 Tesselow',
      'export@tes.example',
      '',
      'orders above 20 bolts',
    ],
    [suppliers.get('TAM') ?? 1, 'Customs papers', 'contact', '', 'papers@tam.example', '', 'proof of origin'],
  ]);
  // A yarn that two suppliers sell in fixed shares; a shop that buys where it is near.
  await tx.run(
    "UPDATE source s JOIN item i ON i.id = s.item_id JOIN supplier p ON p.id = s.supplier_id SET s.share_percent = IF(p.code = 'TAL', 70, 30) WHERE i.number IN ('11340-01', '11340-02')",
  );
  await tx.run(
    `INSERT INTO source_place (source_id, location_id, preference)
     SELECT s.id, l.id, 1 FROM source s JOIN item i ON i.id = s.item_id JOIN supplier p ON p.id = s.supplier_id JOIN location l ON l.code = 'MH'
      WHERE p.code = 'BRI' AND i.number IN ('25310-01', '25310-02')`,
  );
}

/** A year of rates by week, from the same made-up source as the rate file. */
export async function writeRates(tx: Tx, today: string): Promise<void> {
  const rows = rateFile(today, 400)
    .split('\r\n')
    .slice(1)
    .filter((line) => line !== '')
    .map((line) => line.split(',') as [string, string, string, string, string])
    .filter(([, day]) => new Date(`${day}T00:00:00Z`).getUTCDay() === 1);
  await tx.insertMany(
    'INSERT INTO currency_rate (currency, valid_from, direction, rate, source)',
    rows.map(([currency, day, , rate]) => [currency, day, 'foreign_per_base', rate, 'rate file']),
  );
}

export async function writeCalendars(tx: Tx, suppliers: ReadonlyMap<string, number>, today: string): Promise<void> {
  const year = Number(today.slice(0, 4));
  const at = (code: string) => suppliers.get(code) ?? null;
  const rows: SqlValue[][] = [];
  for (const y of [year, year + 1]) {
    rows.push(
      [null, null, `${y}-12-25`, `${y}-12-26`, 'Christmas'],
      [null, null, `${y}-01-01`, `${y}-01-01`, 'New Year'],
    );
    rows.push(
      [null, null, `${y}-05-01`, `${y}-05-01`, 'May Day'],
      [at('TES'), null, `${y}-08-03`, `${y}-08-21`, 'Summer closure'],
    );
    rows.push(
      [at('ISH'), null, `${y}-08-10`, `${y}-08-16`, 'Summer closure'],
      [at('SIL'), null, `${y}-07-20`, `${y}-07-31`, 'Works holiday'],
    );
  }
  rows.push([null, 3, `${year + 1}-02-15`, `${year + 1}-02-16`, 'Market Hall closed, carnival']);
  await tx.insertMany('INSERT INTO closed_days (supplier_id, location_id, from_day, to_day, name)', rows);
  await tx.run(
    "UPDATE location SET supplied_by_id = (SELECT id FROM (SELECT id FROM location WHERE code = 'WY') w), van_days = 18 WHERE code IN ('HS', 'OM', 'MH')",
  );
  await tx.run("UPDATE location SET working_days = 63 WHERE code IN ('HS', 'OM', 'MH')");
  await tx.run("UPDATE location SET latitude = 54.1102, longitude = 9.8344 WHERE code = 'HS'");
}

/** A year of orders from before, about one a month from each supplier: near ones on time, far ones long and uneven, some short. */
export async function writeDeliveries(tx: Tx, today: BusinessDate, random: () => number): Promise<void> {
  const suppliers = await tx.rows<{ id: number; code: string; days: number; kind: string }>(
    'SELECT id, code, lead_time_days AS days, lead_time_kind AS kind FROM supplier ORDER BY id',
  );
  const rows: SqlValue[][] = [];
  for (const s of suppliers) {
    const sold = await tx.rows<{ itemId: number; minimum: string }>(
      'SELECT item_id AS itemId, minimum_quantity AS minimum FROM source WHERE supplier_id = :id ORDER BY item_id LIMIT 40',
      { id: s.id },
    );
    if (sold.length === 0) continue;
    const stated = s.kind === 'working' ? Math.round(s.days * 1.4) : s.days;
    const far = stated > 25;
    for (let n = 0; n < 12; n += 1) {
      const ordered = workingDayFrom(addDays(today, -380 + n * 29 + Math.floor(random() * 6)));
      const promised = workingDayFrom(addDays(ordered, stated));
      // Far ones: mostly a little late, now and then by weeks. Near ones: within a day or two.
      const late = far
        ? random() < 0.2
          ? 12 + Math.floor(random() * 14)
          : Math.floor(random() * 9) - 2
        : Math.floor(random() * 4) - 1;
      const came = workingDayFrom(addDays(promised, late));
      if (came >= today) continue;
      for (let l = 0; l < 3; l += 1) {
        const item = sold[Math.floor(random() * sold.length)] as (typeof sold)[number];
        const quantity = 10 * (1 + Math.floor(random() * 12));
        const short = random() < 0.06;
        rows.push([
          ...[s.id, `${s.code}-${String(n + 1).padStart(3, '0')}`, item.itemId, came, ordered, promised],
          ...[quantity, short ? Math.floor(quantity * 0.8) : quantity],
        ]);
      }
    }
  }
  await tx.insertMany(
    `INSERT IGNORE INTO past_delivery (supplier_id, order_number, item_id, received_on, ordered_on, promised_on, ordered_quantity,
                                       received_quantity)`,
    rows,
  );
  if (!rows.every((r) => isWorkingDay(r[3] as string))) throw new Error('a delivery on a day of rest');
}

/** What may be spent this month and the next: in all, and on two categories. */
export async function writeBudgets(tx: Tx, today: BusinessDate): Promise<void> {
  const categories = new Map(
    (
      await tx.rows<{ id: number; name: string }>('SELECT id, name FROM category WHERE parent_id IS NULL ORDER BY id')
    ).map((c) => [c.name, c.id]),
  );
  const month = `${today.slice(0, 7)}-01`;
  const next = `${addDays(month, 31).slice(0, 7)}-01`;
  const of = (name: string, amount: string) => {
    const id = categories.get(name);
    return id === undefined ? [] : [[id, amount] as const];
  };
  const said = [[null, '12000'] as const, ...of('Yarn', '4500'), ...of('Cloth', '2500')];
  await tx.insertMany(
    'INSERT INTO purchase_budget (month, category_id, amount)',
    [month, next].flatMap((m) => said.map(([category, amount]) => [m, category, amount])),
  );
}
