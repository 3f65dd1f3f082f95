import { coverHorizon, dayHorizonReaches, type LeadTime, startOfDay } from '@/core/calendar';
import { emptyNeedRunInput, type NeedRunInput, refillLevel, roundings } from '@/core/netting';
import { contentMicro, type Pack, packContent } from '@/core/packs';
import { effectivePolicy, type PolicySetting } from '@/core/policy';
import { MICRO } from '@/core/quantity';
import { chooseSource, type SourceAtPlace } from '@/core/sourcing';
import { fraction } from '@/core/units';
import type { Tx } from '../sql';
import { readCompany } from './company';
import { readSourcePlaces, sourceAt } from './sourcePlaces';

/** Inputs of a need run with what each slot stands for: slot = index of item × number of locations + index of location. */
export type NeedInputs = {
  readonly itemIds: readonly number[];
  readonly locationIds: readonly number[];
  readonly arrays: NeedRunInput;
  /** Preferred source per slot; 0 = none. */
  readonly sourceIds: Uint32Array;
  /** When time alone changes a slot, in milliseconds since 1970; 0 = never. */
  readonly nextDue: Float64Array;
};

const micro = (column: string) => `CAST((${column}) * 1000000 AS SIGNED)`;
type PolicyCells = [
  number,
  number | null,
  PolicySetting['kind'],
  number | null,
  number | null,
  PolicySetting['trigger'],
  PolicySetting['refill'],
];
type SourceCells = [
  number,
  number,
  number,
  number | null,
  number,
  number,
  (typeof roundings)[number],
  number,
  'working' | 'calendar',
  number,
  number | null,
];

/** Reads everything a need run depends on, into typed arrays. With item ids, only for those items (all their locations);
 *  with null, for the whole catalogue. One set of SELECTs serves both, so the two can't disagree.
 *  Errors: throws when a usual pack is no whole number of millionths (refused when packs are entered). */
export async function readNeedInputs(tx: Tx, only: readonly number[] | null, today: string): Promise<NeedInputs> {
  const where = (column: string, and = 'WHERE') =>
    only === null ? '' : `${and} ${column} IN (${only.map(Number).join(',')})`;
  const company = await readCompany(tx);
  const places = (await tx.arrays(
    "SELECT id, status = 'closed' FROM location WHERE kind <> 'transit' ORDER BY sort_order, id",
  )) as [number, number][];
  const locationIds = places.map((r) => r[0]);
  const items = (await tx.arrays(
    `SELECT id, status = 'active' AND stock_kept = 1 FROM item ${where('id')} ORDER BY id`,
  )) as [number, number][];
  const itemIds = items.map((r) => r[0]);
  const itemIndex = new Map(itemIds.map((id, i) => [id, i]));
  const locationIndex = new Map(locationIds.map((id, i) => [id, i]));
  const width = locationIds.length;
  const arrays = emptyNeedRunInput(itemIds.length * width);
  const sourceIds = new Uint32Array(arrays.count);
  const nextDue = new Float64Array(arrays.count);
  const slot = (itemId: number, locationId: number): number => {
    const i = itemIndex.get(itemId);
    const l = locationIndex.get(locationId);
    if (i === undefined || l === undefined) throw new Error(`item ${itemId} or location ${locationId} is not known`);
    return i * width + l;
  };
  const add = (array: Float64Array, at: number, q: number) => {
    array[at] = (array[at] as number) + q;
  };

  const levels = (await tx.arrays(
    `SELECT item_id, location_id, ${micro('on_hand')}, ${micro('blocked')}, ${micro('allocated')} FROM level ${where('item_id')}`,
  )) as [number, number, number, number, number][];
  for (const [item, location, onHand, blocked, allocated] of levels) {
    if (!locationIndex.has(location)) continue;
    const at = slot(item, location);
    arrays.onHand[at] = onHand;
    arrays.blocked[at] = blocked;
    arrays.owed[at] = allocated;
  }

  const rates = (await tx.arrays(
    `SELECT item_id, location_id, ${micro('per_day')} FROM demand_rate ${where('item_id')}`,
  )) as [number, number, number][];
  for (const [item, location, perDay] of rates) {
    if (locationIndex.has(location)) arrays.perDay[slot(item, location)] = perDay;
  }

  const policies = (await tx.arrays(
    `SELECT item_id, location_id, kind, ${micro('min_quantity')}, ${micro('max_quantity')}, trigger_rule, refill_rule
       FROM policy ${where('item_id')} ORDER BY item_id, scope`,
  )) as PolicyCells[];
  const apply = (item: PolicySetting | null, own: PolicySetting | null, at: number) => {
    const policy = effectivePolicy(company, item, own);
    const active = policy.kind === 'min_max';
    arrays.planned[at] = active ? 1 : 0;
    if (!active) return;
    arrays.min[at] = policy.min;
    arrays.refillTo[at] = refillLevel(policy);
    arrays.atOrBelow[at] = policy.trigger === 'at_or_below' ? 1 : 0;
  };
  let every: PolicySetting | null = null;
  let everyOf = 0;
  for (const [item, location, kind, min, max, trigger, refill] of policies) {
    const setting: PolicySetting = { kind, min, max, trigger, refill };
    if (everyOf !== item) {
      every = null;
      everyOf = item;
    }
    if (location === null) {
      every = setting;
      for (const id of locationIds) apply(setting, null, slot(item, id));
    } else apply(every, setting, slot(item, location));
  }
  // A stopped or phased-out item is never bought again, and without stock there is nothing to refill.
  for (const [i, [, refilled]] of items.entries()) {
    if (refilled === 0) arrays.planned.fill(0, i * width, (i + 1) * width);
  }

  // Nothing is planned for a place that is closed.
  for (const [l, [, closed]] of places.entries())
    if (closed === 1) for (let i = 0; i < itemIds.length; i += 1) arrays.planned[i * width + l] = 0;

  const packs = new Map<number, Pack>();
  for (const [id, name, num, den, of] of (await tx.arrays(
    `SELECT id, name, count_num, count_den, of_pack_id FROM pack ${where('item_id')}`,
  )) as [number, string, number, number, number | null][]) {
    packs.set(id, { id, name, count: fraction(num, den), of });
  }
  const sources = (await tx.arrays(
    `SELECT s.item_id, s.id, s.preference, s.pack_id, ${micro('s.minimum_quantity')}, s.multiple_packs, s.rounding,
            COALESCE(s.lead_time_days, p.lead_time_days), p.lead_time_kind, p.status = 'active',
            CAST(s.share_percent AS DOUBLE)
       FROM source s JOIN supplier p ON p.id = s.supplier_id ${where('s.item_id')} ORDER BY s.item_id`,
  )) as SourceCells[];
  const horizons = new Map<string, string>();
  const slotHorizon: (string | null)[] = new Array(arrays.count).fill(null);
  const slotLead: (LeadTime | null)[] = new Array(arrays.count).fill(null);
  const { placed, bought } = await readSourcePlaces(tx, only);
  arrays.packMicro.fill(MICRO);
  arrays.multiplePacks.fill(1);
  for (let i = 0; i < sources.length; ) {
    const item = (sources[i] as SourceCells)[0];
    const ranked: (SourceAtPlace & { cells: SourceCells })[] = [];
    for (; i < sources.length && (sources[i] as SourceCells)[0] === item; i += 1) {
      const cells = sources[i] as SourceCells;
      const [, id, preference, , , , , , , active, share] = cells;
      ranked.push({ id, preference, supplierActive: active === 1, share, bought: 0, here: false, cells });
    }
    const from = (itemIndex.get(item) as number) * width;
    const use = (best: { cells: SourceCells }, first: number, end: number) => {
      const [, id, , packId, minimum, multiple, rounding, leadDays, leadKind] = best.cells;
      const content = packId === null ? { ok: true as const, value: MICRO } : packMicroOf(packs, packId);
      if (!content.ok) throw new Error(`pack ${packId}: ${JSON.stringify(content.error)}`);
      sourceIds.fill(id, first, end);
      arrays.orderMinimum.fill(minimum, first, end);
      arrays.packMicro.fill(content.value, first, end);
      arrays.multiplePacks.fill(multiple, first, end);
      arrays.rounding.fill(roundings.indexOf(rounding), first, end);
      const key = `${leadDays}${leadKind}`;
      const horizon = horizons.get(key) ?? (coverHorizon(today, { days: leadDays, kind: leadKind }) as string);
      horizons.set(key, horizon);
      slotHorizon.fill(horizon, first, end);
      slotLead.fill({ days: leadDays, kind: leadKind }, first, end);
    };
    // Where no place differs and nothing is shared, one choice serves all places of the item.
    if (ranked.every((s) => s.share === null && !placed.has(s.id))) {
      const best = chooseSource(ranked);
      if (best) use(best.source, from, from + width);
      continue;
    }
    for (const [l, locationId] of locationIds.entries()) {
      const here = ranked.map((s) =>
        sourceAt(s, placed.get(s.id)?.get(locationId), bought.get(`${s.id}/${locationId}`) ?? 0),
      );
      const best = chooseSource(here);
      if (best) use(best.source, from + l, from + l + 1);
    }
  }

  // Open supply: parts of approved and sent orders are on the way (unless wanted after the horizon), drafts and tray
  // lines are in trays. A decision's own supply is kept apart, to tell whether its need comes back.
  const supply = (await tx.arrays(
    `SELECT l.item_id, d.location_id, o.state = 'draft', d.wanted_date,
            ${micro('d.base_quantity - d.received_quantity - d.cancelled_quantity')}, t.decision_id
       FROM purchase_order o
       JOIN order_line l ON l.order_id = o.id AND l.kind = 'stock'
       JOIN delivery_part d ON d.order_line_id = l.id
       LEFT JOIN tray_line t ON t.id = d.tray_line_id
      WHERE o.state IN ('draft', 'approved', 'sent') AND d.location_id IS NOT NULL
        AND d.base_quantity > d.received_quantity + d.cancelled_quantity ${where('l.item_id', 'AND')}`,
  )) as [number, number, number, string | null, number, number | null][];
  const inTransit = (await tx.arrays(
    `SELECT l.item_id, t.to_location_id, ${micro('l.shipped - l.received - l.lost')}
       FROM transfer t JOIN transfer_line l ON l.transfer_id = t.id
      WHERE t.state = 'shipped' AND l.shipped > l.received + l.lost ${where('l.item_id', 'AND')}`,
  )) as [number, number, number][];
  for (const [item, location, q] of inTransit) add(arrays.onTheWay, slot(item, location), q);
  const trays = (await tx.arrays(
    `SELECT item_id, location_id, ${micro('base_quantity')}, decision_id FROM tray_line
      WHERE state = 'in_tray' ${where('item_id', 'AND')}`,
  )) as [number, number, number, number][];
  const decisions = (await tx.arrays(
    `SELECT d.id, ${micro('d.shortage')} FROM need n JOIN decision d ON d.id = n.last_decision_id
      WHERE n.peg = 0 AND d.kind = 'accept' ${where('n.item_id', 'AND')}`,
  )) as [number, number][];
  const lastDecisions = new Map(decisions);
  const countOwn = (decision: number | null, at: number, q: number) => {
    const shortage = decision === null ? undefined : lastDecisions.get(decision);
    if (shortage === undefined) return;
    arrays.decidedShortage[at] = shortage;
    add(arrays.decidedOpen, at, q);
  };
  const dues = new Map<string, number>();
  const dueAt = (wanted: string, lead: LeadTime | null): number => {
    const key = `${wanted}/${lead?.days}${lead?.kind}`;
    const known = dues.get(key);
    if (known !== undefined) return known;
    const day = dayHorizonReaches(today, wanted, lead);
    const due = day === null ? 0 : startOfDay(day, company.timeZone).getTime();
    dues.set(key, due);
    return due;
  };
  for (const [item, location, isDraft, wanted, open, decision] of supply) {
    const at = slot(item, location);
    const horizon = slotHorizon[at] ?? null;
    if (horizon !== null && wanted !== null && wanted > horizon) {
      const due = dueAt(wanted, slotLead[at] ?? null);
      if (nextDue[at] === 0 || due < (nextDue[at] as number)) nextDue[at] = due;
      continue;
    }
    add(isDraft === 1 ? arrays.inTrays : arrays.onTheWay, at, open);
    countOwn(decision, at, open);
  }
  for (const [item, location, q, decision] of trays) {
    const at = slot(item, location);
    add(arrays.inTrays, at, q);
    countOwn(decision, at, q);
  }
  return { itemIds, locationIds, arrays, sourceIds, nextDue };
}

function packMicroOf(packs: ReadonlyMap<number, Pack>, packId: number) {
  const content = packContent(packs, packId);
  return content.ok ? contentMicro(content.value, packs.get(packId)?.name) : content;
}
