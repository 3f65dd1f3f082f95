import { type Actor, may } from '@/core/people';
import { backorderedOf, handOverNow, openOf, partQuantity } from '@/core/promise';
import { checked, fromDecimal, MICRO, parseQuantity, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { lockAllocations } from '@/data/repositories/allocations';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { insertHandOver, setLineFigures, touchCustomerOrder } from '@/data/repositories/customerOrders';
import { lockLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { postSale, type Sold } from '../stock/postSale';
import { endAllocation } from '../stock/reserve';
import { type OrderVersion, openCustomerOrder } from './openCustomerOrder';
import { figuresOf, readyOf } from './shareOut';

export type HandOver = OrderVersion & {
  /** Where it is handed over, or sent from. */
  readonly locationId: number;
  /** What goes, as typed; no line = everything that lies ready there. */
  readonly lines: readonly { readonly lineNo: number; readonly quantity: string; readonly lots?: string }[];
  /** A line may be served from several dye lots. */
  readonly mixLots?: boolean;
};

/** Hands over what lies ready of an order at a place, or sends it: a sale that takes it, in the same step. More than lies
 *  ready may go if somebody finds it. An order that goes out only complete goes with all that is open.
 *  Errors: forbidden (to sell there), not_found, changed_meanwhile, customer_order_not_in_this_state, invalid_field
 *  lines.<index>, nothing_counted, goes_straight, only_complete, lots_would_mix, books_closed. */
export async function handOver(
  deps: Deps,
  actor: Actor,
  request: Request<HandOver>,
): Promise<Result<Sold & { readonly done: boolean }, Failure>> {
  const { locationId } = request.input;
  const allowed = may(actor, 'stock.sell', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'hand-over', request, async (tx, now) => {
    const opened = await openCustomerOrder(tx, actor, request.input, 'hand_over');
    if (!opened.ok) return opened;
    const { order, lines, demandsOf } = opened.value;
    const straight = lines.filter((l) => l.way === 'straight');
    const typed = request.input.lines.filter((t) => t.quantity.trim() !== '').map((t) => t.lineNo);
    if (straight.some((l) => typed.includes(l.lineNo))) return err({ kind: 'goes_straight' });
    // What its supplier sends has no part in what goes out here.
    const figures = lines.map((l) =>
      l.way === 'straight' ? NOTHING : { ...figuresOf(l), ready: readyOf(l, demandsOf(l.id)) },
    );
    const going = goingOf(request.input, lines, figures.map(openOf), handOverNow(figures, order.delivers));
    if (!going.ok) return going;
    const rest = figures.map((f, i) => openOf(f) - (going.value.get(i)?.quantity ?? 0));
    const waits = figures.filter((f, i) => backorderedOf(f) > 0 && (rest[i] as number) > 0);
    const stays = lines.some((l, i) => l.locationId === locationId && (rest[i] as number) > 0);
    if (order.delivers === 'complete' && (waits.length > 0 || stays))
      return err({ kind: 'only_complete', waits: waits.length });
    if (going.value.size === 0) return err({ kind: 'nothing_counted' });
    const today = todayOf(deps, await readCompany(tx));
    const chosen = [...going.value].map(([i, g]) => ({ ...g, line: lines[i] as (typeof lines)[number] }));
    const pairs = chosen.flatMap(({ line }) => demandsOf(line.id).map((d) => ({ itemId: d.itemId, locationId })));
    await lockLevels(tx, pairs);
    for (const { line, quantity } of chosen)
      for (const d of demandsOf(line.id)) {
        const [own] = d.allocationId === null ? [] : await lockAllocations(tx, [d.allocationId]);
        if (own) await endAllocation(tx, own, partQuantity(quantity, fromDecimal(d.perSet)));
      }
    const sold = await postSale(
      tx,
      { userId: actor.userId, now, today },
      {
        ...{ locationId, day: today, note: order.number, mixLots: request.input.mixLots === true },
        lines: chosen.map(({ line, quantity, lots }) => ({
          ...{ itemId: line.itemId, quantity, allocationId: null, lots },
          ...(line.wholeSets === 1
            ? { parts: demandsOf(line.id).map((d) => ({ itemId: d.itemId, perSet: fromDecimal(d.perSet) })) }
            : {}),
        })),
      },
    );
    if (!sold.ok) return sold;
    for (const { line, quantity } of chosen)
      await setLineFigures(tx, {
        id: line.id,
        handedOver: toDecimal(checked(fromDecimal(line.handedOver) + quantity)),
        cancelled: line.cancelled,
      });
    await insertHandOver(
      tx,
      { documentId: sold.value.documentId },
      chosen.map(({ line, quantity }) => ({ lineId: line.id, quantity: toDecimal(quantity) })),
    );
    const done = [...rest, ...straight.map((l) => openOf(figuresOf(l)))].every((q) => q === 0);
    await touchCustomerOrder(tx, { ...order, state: done ? 'done' : 'open' });
    await recordChanges(tx, actor.userId, now, [
      {
        ...{ entity: 'customer_order', entityId: order.id, action: 'handed over' },
        after: { sale: sold.value.sale, lines: chosen.map(({ line }) => line.lineNo) },
      },
    ]);
    markDirty(tx, pairs);
    return ok({ ...sold.value, done });
  });
}

const NOTHING = { ordered: 0, handedOver: 0, cancelled: 0, ready: 0 };

type Going = { readonly quantity: Quantity; readonly lots: string };

/** What goes of each line, by its index. */
function goingOf(
  { lines: typed, locationId }: HandOver,
  lines: readonly { readonly lineNo: number; readonly locationId: number; readonly wholeSets: number }[],
  open: readonly Quantity[],
  ready: readonly Quantity[],
): Result<Map<number, Going>, Failure> {
  const going = new Map<number, Going>();
  if (typed.length === 0)
    for (const [i, l] of lines.entries())
      if (l.locationId === locationId && (ready[i] as number) > 0)
        going.set(i, { quantity: ready[i] as number, lots: '' });
  for (const [n, t] of typed.entries()) {
    const i = lines.findIndex((l) => l.lineNo === t.lineNo && l.locationId === locationId);
    if (i === -1) return err({ kind: 'not_found', what: 'line' });
    if (t.quantity.trim() === '') continue;
    const q = parseQuantity(t.quantity);
    if (!q.ok) return err(invalidField(`lines.${n}`, q.error));
    if (q.value === 0) continue;
    const most = open[i] as number;
    if (q.value > most) return err(invalidField(`lines.${n}`, { kind: 'more_than', most }));
    if (lines[i]?.wholeSets === 1 && q.value % MICRO !== 0)
      return err(invalidField(`lines.${n}`, { kind: 'not_a_number_of', text: t.quantity }));
    going.set(i, { quantity: q.value, lots: t.lots ?? '' });
  }
  return ok(going);
}
