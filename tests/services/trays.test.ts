import { acceptShown } from '@/services/planning/acceptShown';
import { askByHand } from '@/services/planning/askByHand';
import { openNeeds } from '@/services/planning/readNeeds';
import { markChanged } from '@/services/planning/recompute';
import { approveOrder } from '@/services/purchase/approveOrder';
import { cutSupply } from '@/services/purchase/endOrder';
import { makeOrders } from '@/services/purchase/makeOrders';
import { readOrder } from '@/services/purchase/readOrder';
import { readTopUp } from '@/services/purchase/readTopUp';
import { openTrays, readTrayRows, type TrayView } from '@/services/purchase/readTrays';
import { sendOrder } from '@/services/purchase/sendOrder';
import { setTray } from '@/services/purchase/setTray';
import { topUpTray } from '@/services/purchase/topUpTray';
import { undoCommand } from '@/services/undo/undoCommand';
import { type Books, edda, freshBooks, mira, must, needsOf, req, violations } from './support';

// Trays: what each becomes, what is on the way to its minimum. Source: calculations 6 and 10.
let books: Books;
beforeEach(async () => {
  books = await freshBooks();
});
afterEach(async () => {
  expect(await violations(books)).toEqual([]);
  expect((await markChanged(books.deps)).changed).toBe(0);
  await books.close();
});

/** Accepts these needs of a supplier; all of them without an order. */
async function accept(supplierId: number, which: (n: { itemId: number }, i: number) => boolean = () => true) {
  const head = must(await openNeeds(books.deps, mira, { locationId: null }));
  const own = (await needsOf(books, mira)).needs.filter((n) => n.supplierId === supplierId && n.warnings.length === 0);
  const needIds = own.filter(which).map((n) => n.id);
  return must(await acceptShown(books.deps, mira, req({ list: head.list, needIds })));
}
const trays = async () => must(await openTrays(books.deps, mira));
const trayOf = async (supplierId: number) => (await trays()).trays.find((t) => t.supplierId === supplierId) as TrayView;
/** The supplier that most open needs are bought from. */
const busiest = async () =>
  (
    await books.one<{ id: number }>(
      `SELECT s.supplier_id AS id FROM need n JOIN source s ON s.id = n.source_id WHERE n.state = 'open'
        GROUP BY s.supplier_id ORDER BY COUNT(*) DESC, s.supplier_id LIMIT 1`,
    )
  ).id;
const draftOf = async (orderId: number) => {
  const order = must(await readOrder(books.deps, mira, orderId));
  return order.lines.map((l) => ({ item: l.itemId, packs: l.parts.map((p) => p.packs), trays: l.parts.length }));
};

test('a tray counts its open needs towards minimum and free freight, and says when it goes out', async () => {
  const id = await busiest();
  await accept(id, (_, i) => i === 0);
  const tray = await trayOf(id);
  const open = (await needsOf(books, mira)).needs.filter((n) => n.supplierId === id);
  expect(tray.needs).toBe(open.length);
  expect(tray.withNeeds).toBe(tray.net + open.reduce((a, n) => a + (n.net ?? 0), 0));
  expect(tray.slot >= '2026-11-23').toBe(true);
  expect(tray.arrives > tray.slot).toBe(true);
  expect(tray.orders.reduce((a, o) => a + o.net, 0)).toBe(tray.net);
});

test('a tray weighs and takes up what its lines do, and counts those that say nothing; its total in both currencies', async () => {
  const id = await busiest();
  await accept(id);
  await books.rows('UPDATE item SET weight_kg = NULL, volume_l = NULL');
  const lines = await books.rows<{ itemId: number; base: number }>(
    "SELECT item_id AS itemId, CAST(base_quantity AS DOUBLE) AS base FROM tray_line WHERE supplier_id = ? AND state = 'in_tray'",
    [id],
  );
  expect(new Set(lines.map((l) => l.itemId)).size).toBeGreaterThan(1);
  expect(await trayOf(id)).toMatchObject({ weightKg: 0, volumeL: 0, unweighed: lines.length });
  const itemId = lines[0]?.itemId;
  await books.rows('UPDATE item SET weight_kg = 0.25, volume_l = 1.5 WHERE id = ?', [itemId]);
  const own = lines.filter((l) => l.itemId === itemId);
  const units = own.reduce((a, l) => a + l.base, 0);
  expect(await trayOf(id)).toMatchObject({
    ...{ weightKg: 0.25 * units, volumeL: 1.5 * units, unweighed: lines.length - own.length },
  });
  // 1 euro = 1.25 dollars: a tray of dollars is worth four fifths in euros.
  const { net } = await trayOf(id);
  await books.rows("UPDATE supplier SET currency = 'USD' WHERE id = ?", [id]);
  await books.rows("DELETE FROM currency_rate WHERE currency = 'USD'");
  expect(await trayOf(id)).toMatchObject({ currency: 'USD', net, netInBase: null });
  await books.rows(
    "INSERT INTO currency_rate (currency, direction, rate, valid_from) VALUES ('USD', 'foreign_per_base', 1.25, '2026-01-01')",
  );
  expect(await trayOf(id)).toMatchObject({ currency: 'USD', net, netInBase: Math.round(net * 0.8) });
});

test('freight of a tray: a fixed sum and so much per kilogram, free from a value on where it costs something', async () => {
  const id = await busiest();
  await accept(id, (_, i) => i === 0);
  await books.rows('UPDATE item SET weight_kg = 0.25');
  const { weightKg } = await trayOf(id);
  expect(weightKg).toBeGreaterThan(0);
  const say = (fixed: string | null, perKg: string | null) =>
    books.rows(
      "UPDATE supplier SET freight_fixed = ?, freight_per_kg = ?, freight_free_from = 300, cut_off = '11:00' WHERE id = ?",
      [fixed, perKg, id],
    );
  await say('5', '2');
  expect(await trayOf(id)).toMatchObject({
    ...{ freight: 500 + Math.round(200 * weightKg), freeFreight: 30_000, cutOff: '11:00', blocked: false },
  });
  await say('5', null);
  expect(await trayOf(id)).toMatchObject({ freight: 500, freeFreight: 30_000 });
  await say(null, null);
  expect(await trayOf(id)).toMatchObject({ freight: 0, freeFreight: null });
  await books.rows("UPDATE supplier SET status = 'blocked' WHERE id = ?", [id]);
  expect((await trayOf(id)).blocked).toBe(true);
  await books.rows("UPDATE supplier SET status = 'active' WHERE id = ?", [id]);
});

test('a tray joins the draft that fits; its lines get parts, undo takes them off again', async () => {
  const id = await busiest();
  await accept(id, (_, i) => i === 0);
  const [first] = must(await makeOrders(books.deps, mira, req({ supplierIds: [id] })));
  expect(first).toMatchObject({ joined: false, lines: 1 });
  const orderId = first?.orderId as number;
  const before = await draftOf(orderId);

  await accept(id);
  const tray = await trayOf(id);
  expect(tray.orders.map((o) => o.joins?.id)).toEqual([orderId]);
  expect(tray.drafts.map((d) => d.id)).toEqual([orderId]);
  const request = req({ supplierIds: [id] });
  const [second] = must(await makeOrders(books.deps, mira, request));
  expect(second).toMatchObject({ orderId, joined: true });
  const after = await draftOf(orderId);
  expect(after.length).toBeGreaterThan(before.length);
  expect(await books.rows("SELECT id FROM tray_line WHERE state = 'in_tray'")).toEqual([]);

  must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
  expect(await draftOf(orderId)).toEqual(before);
  expect((await trayOf(id)).lines).toBe(tray.lines);
});

test('what stands on the draft already gets a further part, and the price of the larger quantity', async () => {
  const id = await busiest();
  await accept(id, (_, i) => i === 0);
  const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [id] })));
  const orderId = made?.orderId as number;
  const { itemId } = await books.one<{ itemId: number }>(
    'SELECT item_id AS itemId FROM order_line WHERE order_id = ?',
    [orderId],
  );
  // The same item is wanted at another place.
  must(await askByHand(books.deps, mira, req({ itemId, locationId: 1, quantity: '40', packId: null, note: '' })));
  must(await askByHand(books.deps, mira, req({ itemId, locationId: 2, quantity: '40', packId: null, note: '' })));
  await accept(id, (n) => n.itemId === itemId);
  must(await setTray(books.deps, mira, req({ supplierId: id, held: false, becomes: 'joins' as const, orderId })));
  const request = req({ supplierIds: [id] });
  must(await makeOrders(books.deps, mira, request));
  const order = must(await readOrder(books.deps, mira, orderId));
  expect(order.lines).toHaveLength(1);
  expect(order.lines[0]?.parts.length).toBeGreaterThan(1);
  const [sums] = await books.rows<{ line: string; parts: string }>(
    `SELECT l.base_quantity AS line, (SELECT SUM(base_quantity) FROM delivery_part WHERE order_line_id = l.id) AS parts
       FROM order_line l WHERE l.order_id = ?`,
    [orderId],
  );
  expect(sums?.line).toBe(sums?.parts);
  must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
  expect((await draftOf(orderId))[0]?.trays).toBe(1);
});

test('a new order when it is said so; a draft of another supplier can’t be joined', async () => {
  const id = await busiest();
  await accept(id, (_, i) => i === 0);
  const [first] = must(await makeOrders(books.deps, mira, req({ supplierIds: [id] })));
  await accept(id);
  const other = (await books.one<{ id: number }>('SELECT id FROM supplier WHERE id <> ? LIMIT 1', [id])).id;
  const wrong = { supplierId: other, held: false, becomes: 'joins' as const, orderId: first?.orderId ?? 0 };
  expect(await setTray(books.deps, mira, req(wrong))).toMatchObject({ error: { kind: 'not_found', what: 'order' } });
  must(await setTray(books.deps, mira, req({ supplierId: id, held: false, becomes: 'new' as const, orderId: null })));
  expect((await trayOf(id)).orders.map((o) => o.joins)).toEqual([null]);
  const [second] = must(await makeOrders(books.deps, mira, req({ supplierIds: [id] })));
  expect(second).toMatchObject({ joined: false });
  expect(second?.orderId).not.toBe(first?.orderId);
  expect(await books.rows('SELECT * FROM tray')).toEqual([]);
});

test('a held tray stays when orders are made', async () => {
  const id = await busiest();
  await accept(id);
  must(
    await setTray(books.deps, mira, req({ supplierId: id, held: true, becomes: 'by_rule' as const, orderId: null })),
  );
  expect((await trayOf(id)).held).toBe(true);
  expect(await makeOrders(books.deps, mira, req({ supplierIds: [id] }))).toMatchObject({
    error: { kind: 'not_found' },
  });
  must(
    await setTray(books.deps, mira, req({ supplierId: id, held: false, becomes: 'by_rule' as const, orderId: null })),
  );
  expect(must(await makeOrders(books.deps, mira, req({ supplierIds: [id] })))).toHaveLength(1);
});

test('who acts next follows the limits of approval', async () => {
  const id = await busiest();
  await accept(id);
  await books.owner.query('UPDATE app_user SET approval_limit_minor = 1 WHERE id = ?', [mira.userId]);
  const [made] = must(await makeOrders(books.deps, { ...mira, approvalLimit: 1 }, req({ supplierIds: [id] })));
  expect(made?.next).toContain('Otto Quillon');
  expect(made?.next).not.toContain('Mira Rook');
});

test('where two pairs of eyes are wanted somebody else acts next than who made the order', async () => {
  const id = await busiest();
  await accept(id, (_, i) => i === 0);
  const request = req({ supplierIds: [id] });
  const [made] = must(await makeOrders(books.deps, mira, request));
  expect(made?.next).toBe('you');
  must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
  await books.owner.query('UPDATE company SET four_eyes_from_minor = 1');
  const [again] = must(await makeOrders(books.deps, mira, req({ supplierIds: [id] })));
  expect(again?.next).toEqual(['Otto Quillon']);
});

describe('topping up', () => {
  test('to the minimum: it is reached, nothing goes beyond its maximum, and one undo takes it all back', async () => {
    const id = await busiest();
    await accept(id, (_, i) => i === 0);
    const before = await trayOf(id);
    // That freight costs something is not saved by reaching the minimum.
    await books.owner.query('UPDATE supplier SET order_minimum_minor = ?, freight_fixed = 25 WHERE id = ?', [
      ...[before.net + 3000, id],
    ]);
    const beyondMax = () =>
      books.rows(
        'SELECT item_id, location_id FROM item_location_state WHERE max_quantity IS NOT NULL AND position_quantity > max_quantity ORDER BY 1, 2',
      );
    // What packs have rounded up may be beyond it already.
    const over = await beyondMax();
    const found = must(await readTopUp(books.deps, mira, { supplierId: id, target: 'minimum' }));
    if (!found) throw new Error('nothing to bring forward');
    expect([found.missing, found.saving, found.worthIt]).toEqual([3000, 0, false]);
    expect(found.amount).toBeGreaterThanOrEqual(3000);
    expect(found.buys.reduce((a, b) => a + b.amount, 0)).toBe(found.amount);
    const seen = { supplierId: id, target: 'minimum' as const };
    expect(await topUpTray(books.deps, mira, req({ ...seen, amount: found.amount + 1 }))).toMatchObject({
      error: { kind: 'changed_meanwhile' },
    });
    const request = req({ ...seen, amount: found.amount });
    expect(must(await topUpTray(books.deps, mira, request))).toEqual({ lines: found.buys.length });
    const after = await trayOf(id);
    expect(after.net).toBeGreaterThanOrEqual(before.net + 3000);
    expect(await beyondMax()).toEqual(over);
    const { rows } = must(await readTrayRows(books.deps, mira, { list: (await trays()).list, from: 0 }));
    const forward = rows.filter((r) => r.kind === 'line' && r.causes.length === 0);
    expect(forward).toHaveLength(found.buys.length);
    must(await undoCommand(books.deps, mira, req({ undoKey: request.key })));
    expect((await trayOf(id)).net).toBe(before.net);
  });

  test('to free freight: what holding costs stands against the freight that is saved', async () => {
    const id = await busiest();
    await accept(id, (_, i) => i === 0);
    const { net } = await trayOf(id);
    const say = (fixed: string) =>
      books.owner.query(
        'UPDATE supplier SET freight_fixed = ?, freight_per_kg = NULL, freight_free_from = ? WHERE id = ?',
        [...[fixed, String((net + 2000) / 100), id]],
      );
    await say('25');
    const worth = must(await readTopUp(books.deps, mira, { supplierId: id, target: 'free_freight' }));
    expect(worth).toMatchObject({ saving: 2500, missing: 2000, worthIt: true });
    expect(worth?.gain).toBeCloseTo(2500 - (worth?.holding ?? 0), 6);
    await say('0.01');
    expect(must(await readTopUp(books.deps, mira, { supplierId: id, target: 'free_freight' }))).toMatchObject({
      worthIt: false,
    });
  });

  test('nothing for a place that is full, for another place where each has its order, of a blocked supplier', async () => {
    const id = await busiest();
    await accept(id, (_, i) => i === 0);
    const [lies] = await books.rows<{ locationId: number }>(
      "SELECT DISTINCT location_id AS locationId FROM tray_line WHERE state = 'in_tray'",
    );
    await books.rows('UPDATE supplier SET order_minimum_minor = ? WHERE id = ?', [(await trayOf(id)).net + 500, id]);
    const buys = async () =>
      must(await readTopUp(books.deps, mira, { supplierId: id, target: 'minimum' }))?.buys.map(
        (b) => [b.itemId, b.locationId] as const,
      );
    const [full] = (await buys()) ?? [];
    const max = (to: string) =>
      books.rows(`UPDATE item_location_state SET max_quantity = ${to} WHERE item_id = ? AND location_id = ?`, [
        ...(full as readonly [number, number]),
      ]);
    const { was } = await books.one<{ was: string }>(
      'SELECT max_quantity AS was FROM item_location_state WHERE item_id = ? AND location_id = ?',
      [...(full as readonly [number, number])],
    );
    await max('position_quantity');
    expect(await buys()).not.toContainEqual(full);
    await max(was);
    expect(await buys()).toContainEqual(full);
    await books.rows("UPDATE supplier SET tray_rule = 'per_location' WHERE id = ?", [id]);
    for (const [, locationId] of (await buys()) ?? []) expect(locationId).toBe(lies?.locationId);
    await books.rows("UPDATE supplier SET tray_rule = 'one_order', status = 'blocked' WHERE id = ?", [id]);
    expect(await buys()).toBeUndefined();
    await books.rows("UPDATE supplier SET status = 'active' WHERE id = ?", [id]);
  });

  test('nothing when the sum is reached already, or can’t be', async () => {
    const id = await busiest();
    await accept(id, (_, i) => i === 0);
    const of = (target: 'minimum') => readTopUp(books.deps, mira, { supplierId: id, target });
    await books.owner.query('UPDATE supplier SET order_minimum_minor = 1 WHERE id = ?', [id]);
    expect(must(await of('minimum'))).toBeNull();
    await books.owner.query('UPDATE supplier SET order_minimum_minor = 900000000 WHERE id = ?', [id]);
    expect(must(await of('minimum'))).toBeNull();
  });
});

test('a budget counts what came, what is ordered, drafts and trays, by order date', async () => {
  const id = await busiest();
  await books.owner.query('DELETE FROM purchase_budget');
  await books.owner.query(
    "INSERT INTO purchase_budget (month, category_id, amount) VALUES ('2026-11-01', NULL, 1000), ('2026-12-01', NULL, 5)",
  );
  const spending = async () => {
    const [all, ...more] = (await trays()).spending;
    expect(more).toEqual([]);
    return all;
  };
  const start = await spending();
  await accept(id);
  const { netInBase } = await trayOf(id);
  expect(await spending()).toMatchObject({ ...start, trays: netInBase, left: (start?.left ?? 0) - (netInBase ?? 0) });
  const [made] = must(await makeOrders(books.deps, mira, req({ supplierIds: [id] })));
  expect(await spending()).toMatchObject({ trays: 0, drafts: (start?.drafts ?? 0) + (netInBase ?? 0) });
  const { version } = must(await readOrder(books.deps, mira, made?.orderId ?? 0)).head;
  must(await approveOrder(books.deps, { ...mira, approvalLimit: null }, req({ orderId: made?.orderId ?? 0, version })));
  expect(await spending()).toMatchObject({
    ...{ drafts: start?.drafts, committed: (start?.committed ?? 0) + (netInBase ?? 0) },
  });
  // What does not come after all is not spent.
  const at = async () => {
    const { id: orderId, version: now } = must(await readOrder(books.deps, mira, made?.orderId ?? 0)).head;
    return { orderId, version: now };
  };
  must(await sendOrder(books.deps, mira, req({ ...(await at()), how: 'phone' as const })));
  const cut = { ...(await at()), lineId: null, partId: null, reason: 'sold out' };
  must(await cutSupply(books.deps, mira, req(cut)));
  expect(await spending()).toMatchObject({ committed: start?.committed, spent: start?.spent, left: start?.left });
});

test('a budget of a category counts what is in it and below it, and nothing else', async () => {
  const id = await busiest();
  await books.owner.query('DELETE FROM purchase_budget');
  await accept(id);
  const [line] = await books.rows<{ itemId: number; categoryId: number }>(
    "SELECT t.item_id AS itemId, i.category_id AS categoryId FROM tray_line t JOIN item i ON i.id = t.item_id WHERE t.state = 'in_tray' LIMIT 1",
  );
  const other = await books.owner.query("INSERT INTO category (name) VALUES ('Lamps')");
  const lamps = (other[0] as { insertId: number }).insertId;
  const below = await books.owner.query("INSERT INTO category (name, parent_id) VALUES ('Desk lamps', ?)", [lamps]);
  const desk = (below[0] as { insertId: number }).insertId;
  await books.owner.query(
    "INSERT INTO purchase_budget (month, category_id, amount) VALUES ('2026-11-01', ?, 100), ('2026-11-01', ?, 100)",
    [line?.categoryId, lamps],
  );
  const inTrays = async (category: string) =>
    (await trays()).spending.find((s) => s.category?.endsWith(category))?.trays;
  const { name } = await books.one<{ name: string }>('SELECT name FROM category WHERE id = ?', [line?.categoryId]);
  const all = await inTrays(name);
  expect(all).toBeGreaterThan(0);
  expect(await inTrays('Lamps')).toBe(0);
  // One of its items becomes a desk lamp: it counts with the lamps, and no longer where it was.
  await books.owner.query('UPDATE item SET category_id = ? WHERE id = ?', [desk, line?.itemId]);
  const moved = await inTrays('Lamps');
  expect(moved).toBeGreaterThan(0);
  expect((await inTrays(name)) ?? 0).toBe((all ?? 0) - (moved ?? 0));
});

test('whoever may not decide sees the trays and takes nothing', async () => {
  expect(await makeOrders(books.deps, edda, req({ supplierIds: [1] }))).toMatchObject({ error: { kind: 'forbidden' } });
});

test('the next break counts what is bought of an item for all places, and what it makes cheaper', async () => {
  const { id, source, supplier, places } = await books.one<{
    id: number;
    source: number;
    supplier: number;
    places: string;
  }>(
    `SELECT i.id, f.id AS source, f.supplier_id AS supplier, GROUP_CONCAT(r.location_id ORDER BY r.location_id) AS places
       FROM item i JOIN demand_rate r ON r.item_id = i.id AND r.per_day >= 0.2 JOIN source f ON f.item_id = i.id
       JOIN item_location_state s ON s.item_id = i.id AND s.location_id = r.location_id AND s.supply_location_id IS NULL
      WHERE i.tracking = 'none' AND i.status = 'active' AND NOT EXISTS (SELECT 1 FROM need n WHERE n.item_id = i.id AND n.state = 'open')
      GROUP BY i.id, f.id, f.supplier_id HAVING COUNT(*) >= 2 ORDER BY COUNT(*) DESC, i.id LIMIT 1`,
  );
  const two = places.split(',').map(Number).slice(0, 2) as [number, number];
  for (const locationId of two)
    must(await askByHand(books.deps, mira, req({ itemId: id, locationId, packId: null, quantity: '20', note: '' })));
  await accept(supplier, (n) => n.itemId === id);
  const lines = async () => {
    const { list } = await trays();
    const { rows } = must(await readTrayRows(books.deps, mira, { list, from: 0 }));
    return rows.flatMap((r) => (r.kind === 'line' && r.itemId === id ? [r] : []));
  };
  const bought = await lines();
  const packs = bought.map((l) => l.packs);
  const perPack = (bought[0]?.base ?? 0) / (packs[0] ?? 1);
  const total = packs.reduce((a, p) => a + p, 0) / 1e6;
  await books.rows('DELETE FROM price WHERE source_id = ?', [source]);
  for (const [from, amount] of [
    [0, 10],
    [total + 1, 8],
  ])
    await books.rows('INSERT INTO price (source_id, from_packs, valid_from, amount) VALUES (?, ?, "2026-01-01", ?)', [
      ...[source, from, amount],
    ]);
  const scope = async (counted: 'line' | 'item') => {
    await books.rows('UPDATE source SET break_scope = ? WHERE id = ?', [counted, source]);
    return (await lines()).map((l) => l.hint);
  };
  // One order line for both places: one pack more at either brings both to the break.
  for (const counted of ['line', 'item'] as const)
    for (const [i, hint] of (await scope(counted)).entries()) {
      expect(hint?.packs).toBe((packs[i] as number) + 1e6);
      // All of it at 10.00 against 8.00, whoever takes the pack more; one more pack costs less than the rest saves.
      expect(hint?.saving).toBe(Math.round((total + 1) * perPack * 200));
      expect(hint?.outlay).toBe(Math.round(((total + 1) * 800 - total * 1000) * perPack));
    }
});
