import { reckoningOfPlan, type SlotPlan } from '@/core/netting';
import { ok } from '@/core/result';
import { Asking } from '@/data/asking';
import { anyDirty, markDirty, markSet } from '@/data/repositories/marks';
import { askKeptStates } from '@/data/repositories/movedStates';
import { readSnapshot, write } from '@/data/transaction';
import { acceptNeed } from '@/services/planning/acceptNeed';
import { partsOf } from '@/services/planning/pairPlans';
import { readReckonings } from '@/services/planning/readReckonings';
import { markChanged, recomputeDirty } from '@/services/planning/recompute';
import { sellGoods } from '@/services/stock/sellGoods';
import { type Books, freshBooks, mira, must, req, violations } from './support';

/* A sale moves only stock: the pair is run again on the plan that is kept with its state. */
let books: Books;
beforeAll(async () => {
  books = await freshBooks();
});
afterAll(async () => {
  expect(await violations(books)).toEqual([]);
  await books.close();
});

/** The warehouse. */
const WY = 4;
type Pair = { itemId: number; locationId: number };
type State = Pair & { level: string; plan: string | null; suggested: string; need: string; planned: string };
const columns = `s.item_id AS itemId, s.location_id AS locationId, s.level_quantity AS level, s.plan, s.suggested,
  s.need_state AS need, s.planned`;
const stateOf = ({ itemId, locationId }: Pair) =>
  books.one<State>(`SELECT ${columns} FROM item_location_state s WHERE s.item_id = ? AND s.location_id = ?`, [
    itemId,
    locationId,
  ]);
/** Pairs in stock above their minimum. */
const quiet = () =>
  books.rows<State & { onHand: string }>(
    `SELECT ${columns}, s.on_hand AS onHand FROM item_location_state s
       JOIN item i ON i.id = s.item_id AND i.tracking = 'none' AND i.sale_decimals = 0
      WHERE s.need_state = 'none' AND s.plan IS NOT NULL AND s.level_quantity > 2 AND s.on_hand > s.level_quantity + 3
        AND s.owed = 0 AND s.location_id <> ${WY} AND s.supply_location_id IS NULL ORDER BY s.item_id, s.location_id LIMIT 4`,
  );
const sell = ({ itemId, locationId }: Pair, quantity: number) =>
  sellGoods(
    books.deps,
    mira,
    req({ locationId, businessDate: '', lines: [{ itemId, quantity: String(quantity), allocationId: null }] }),
  );
const untilTheMinimum = (s: { onHand: string; level: string }) => Math.ceil(Number(s.onHand) - Number(s.level)) + 1;
const mark = (pair: Pair, what: 'stock' | 'all') =>
  write<void, never>(books.deps.pool, async (tx) => ok(markDirty(tx, [pair], what)));
const marked = async (pair: Pair) =>
  (
    await books.one<{ what: string }>('SELECT what FROM dirty_pair WHERE item_id = ? AND location_id = ?', [
      pair.itemId,
      pair.locationId,
    ])
  ).what;

test('a sale to the minimum raises the need that a full run raises', async () => {
  const [pair] = await quiet();
  if (!pair) throw new Error('no pair');
  must(await sell(pair, untilTheMinimum(pair)));
  const after = await stateOf(pair);
  expect(after.need).toBe('open');
  expect(after.plan).toBe(pair.plan);
  const need = await books.one(
    "SELECT state, cause, suggested FROM need WHERE item_id = ? AND location_id = ? AND peg_of = 'pair'",
    [pair.itemId, pair.locationId],
  );
  expect(need).toMatchObject({ state: 'open', suggested: after.suggested, cause: 'below_min' });
  expect((await markChanged(books.deps)).changed).toBe(0);
});

test('what a sale makes a place ask for is planned demand where it is sent from', async () => {
  const [pair] = await quiet();
  if (!pair) throw new Error('no pair');
  await books.owner.query(
    "UPDATE policy SET supply = 'place', supply_location_id = ? WHERE item_id = ? AND location_id = ?",
    [WY, pair.itemId, pair.locationId],
  );
  await mark(pair, 'all');
  await recomputeDirty(books.deps, [pair]);
  expect((await markChanged(books.deps)).changed).toBe(0);
  const sender = { itemId: pair.itemId, locationId: WY };
  const before = await stateOf(sender);
  must(await sell(pair, untilTheMinimum(pair)));
  const asked = await stateOf(pair);
  expect(Number(asked.suggested)).toBeGreaterThan(0);
  expect(Number((await stateOf(sender)).planned) - Number(before.planned)).toBe(Number(asked.suggested));
  expect((await markChanged(books.deps)).changed).toBe(0);
});

test('moved stock is run on the kept plan, anything else on what is so now', async () => {
  const [, pair] = await quiet();
  if (!pair) throw new Error('no pair');
  // A plan that nothing else says: what a sale finds by it is read from it.
  const other = JSON.parse(pair.plan ?? '') as { figures: number[] };
  other.figures[5] = 1_000_000;
  await books.owner.query('UPDATE item_location_state SET plan = ? WHERE item_id = ? AND location_id = ?', [
    JSON.stringify(other),
    pair.itemId,
    pair.locationId,
  ]);
  must(await sell(pair, 1));
  expect(Number((await stateOf(pair)).level)).toBe(1);
  // It is not what a full run finds, which is noticed and put right.
  expect((await markChanged(books.deps)).changed).toBe(1);
  await recomputeDirty(books.deps, 10);
  expect(await stateOf(pair)).toMatchObject({ level: pair.level, plan: pair.plan });

  // Without a plan everything is read.
  await books.owner.query('UPDATE item_location_state SET plan = NULL WHERE item_id = ? AND location_id = ?', [
    pair.itemId,
    pair.locationId,
  ]);
  must(await sell(pair, 1));
  expect(await stateOf(pair)).toMatchObject({ level: pair.level, plan: pair.plan });
  expect((await markChanged(books.deps)).changed).toBe(0);
});

test('of two marks the one that says more stays, in one transaction and in several', async () => {
  const [pair] = await quiet();
  if (!pair) throw new Error('no pair');
  await mark(pair, 'stock');
  expect(await marked(pair)).toBe('stock');
  await mark(pair, 'all');
  expect(await marked(pair)).toBe('all');
  await mark(pair, 'stock');
  expect(await marked(pair)).toBe('all');
  await recomputeDirty(books.deps, [pair]);
  expect(await readDirty()).toBe(false);

  await write<void, never>(books.deps.pool, async (tx) => {
    markDirty(tx, [pair], 'all');
    markDirty(tx, [pair], 'stock');
    return ok(undefined);
  });
  expect(await marked(pair)).toBe('all');
  await recomputeDirty(books.deps, [pair]);

  await mark(pair, 'stock');
  await write<void, never>(books.deps.pool, async (tx) => ok(markSet(tx, 'everything')));
  expect(await marked(pair)).toBe('all');
  while ((await recomputeDirty(books.deps, 2000)) > 0);
  expect((await markChanged(books.deps)).changed).toBe(0);
});

const readDirty = async () => {
  const found = await write<boolean, never>(books.deps.pool, async (tx) => ok(await anyDirty(tx)));
  return found.ok && found.value;
};

type Need = Pair & { id: number; fingerprint: string; suggested: string };
/** Ordinary open needs whose state can be run by itself and that are bought. */
const keptNeeds = () =>
  books.rows<Need>(
    `SELECT n.id, n.item_id AS itemId, n.location_id AS locationId, n.fingerprint, n.suggested FROM need n
       JOIN item_location_state s ON s.item_id = n.item_id AND s.location_id = n.location_id AND s.plan IS NOT NULL
      WHERE n.state = 'open' AND n.peg_of = 'pair' AND n.source_id IS NOT NULL AND n.supply_location_id IS NULL ORDER BY n.id`,
  );
const accept = ({ id, fingerprint }: Need, packs: string) =>
  acceptNeed(books.deps, mira, req({ needId: id, fingerprint, packs }));
const keptReckoning = async (needId: number) =>
  JSON.parse(
    (
      await books.one<{ reckoning: string }>(
        'SELECT reckoning FROM decision WHERE need_id = ? ORDER BY id DESC LIMIT 1',
        [needId],
      )
    ).reckoning,
  ) as unknown;

test('the sum of every need is the same from its kept plan as from all that it depends on', async () => {
  const needs = await keptNeeds();
  expect(needs.length).toBeGreaterThan(10);
  const whole = must(
    await readReckonings(
      books.deps,
      mira,
      needs.map((n) => n.id),
    ),
  );
  const byNeed = new Map(whole.map((w) => [w.needId, w.reckoning]));
  const states = await readSnapshot(books.deps.pool, (tx) =>
    askKeptStates(
      new Asking(tx, 'together'),
      needs.map((n) => n.id),
      '2026-11-25 09:00:00',
    )(),
  );
  expect(states).toHaveLength(needs.length);
  for (const n of needs) {
    const state = states.find((s) => s.itemId === n.itemId && s.locationId === n.locationId);
    if (!state) throw new Error('no state');
    expect(reckoningOfPlan(JSON.parse(state.plan) as SlotPlan, partsOf(state))).toEqual(byNeed.get(n.id));
  }
});

test('a decision is worked out on the kept plan: nothing is left marked, and a run over everything finds nothing else', async () => {
  const [all, some, twice] = await keptNeeds();
  if (!all || !some || !twice) throw new Error('no needs');
  const whole = must(await readReckonings(books.deps, mira, [all.id]))[0]?.reckoning;
  must(await accept(all, '50'));
  expect(await keptReckoning(all.id)).toEqual(whole);
  expect(await stateOf(all)).toMatchObject({ need: 'none' });
  // Less than is missing.
  must(await accept(some, '0.5'));
  // In two parts, each a decision of its own: what is still open of the last counts.
  const also = [{ packs: '2' }];
  const { id: needId, fingerprint } = twice;
  must(await acceptNeed(books.deps, mira, req({ needId, fingerprint, packs: '1', also })));
  expect(await readDirty()).toBe(false);
  expect((await markChanged(books.deps)).changed).toBe(0);
});

test('what is marked when it is decided is read whole', async () => {
  const [need] = await keptNeeds();
  if (!need) throw new Error('no need');
  // Its plan is no longer so, and somebody has said it.
  await books.owner.query(
    'UPDATE policy SET min_quantity = min_quantity + 1, max_quantity = max_quantity + 1 WHERE item_id = ?',
    [need.itemId],
  );
  await mark(need, 'all');
  must(await accept(need, '1'));
  const decided = (await keptReckoning(need.id)) as { level: number };
  expect(decided.level).toBe(Math.round(Number((await stateOf(need)).level) * 1_000_000));
  await recomputeDirty(books.deps, 2000);
  await write<void, never>(books.deps.pool, async (tx) => ok(markSet(tx, 'everything')));
  while ((await recomputeDirty(books.deps, 2000)) > 0);
});
