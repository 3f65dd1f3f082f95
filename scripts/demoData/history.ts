import type { Pool } from 'mysql2/promise';
import { addDays, workingDayFrom } from '@/core/calendar';
import type { Actor } from '@/core/people';
import { fromDecimal, toDecimal, units } from '@/core/quantity';
import { ok, unwrap } from '@/core/result';
import { readSuppliers } from '@/data/repositories/catalogue';
import { readCompany } from '@/data/repositories/company';
import { write } from '@/data/transaction';
import { readBuying } from '@/services/catalogue/buying';
import { type Deps, stamp, todayOf } from '@/services/deps';
import { approveOrder } from '@/services/purchase/approveOrder';
import { enterOrder, enterStockLine } from '@/services/purchase/enterOrder';
import { readOrder } from '@/services/purchase/readOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { receiveGoods } from '@/services/stock/receiveGoods';
import type { Placed } from './catalogue';

type PlanLine = {
  readonly pair: string;
  readonly itemId: number;
  readonly locationId: number;
  readonly packs: number;
  readonly receivedBase: number;
};
export type PlannedOrder = {
  readonly supplier: string;
  readonly daysAgo: number;
  /** Days from order to receipt; null = still to come. */
  readonly receivedAfter: number | null;
  /** Share of each line that came, when it came in part. */
  readonly share: number;
  readonly wantedIn: number;
  readonly state: 'draft' | 'approved' | 'sent';
  readonly lines: readonly PlanLine[];
};

const contents: Readonly<Record<string, number>> = {
  '10412': 10,
  '10530': 10,
  '10688': 5,
  '22155': 13.716,
  '25100': 25,
  '29000': 12,
};

/** Orders of the last weeks: some long done (last bought), one sent and late, one part received, one approved. */
export function pastOrders(placed: readonly Placed[]): PlannedOrder[] {
  const line = (number: string, code: string, packs: number, came: number): PlanLine => {
    const p = placed.find((x) => x.number === number && x.code === code);
    if (!p) throw new Error(`no ${number} at ${code}`);
    const content = contents[number.slice(0, 5)] ?? 1;
    return {
      pair: `${number}/${code}`,
      itemId: p.itemId,
      locationId: p.locationId,
      packs,
      receivedBase: units(Math.round(content * came * 1000) / 1000),
    };
  };
  const done = { share: 1, state: 'sent' as const };
  return [
    {
      supplier: 'HOL',
      daysAgo: 82,
      receivedAfter: 8,
      wantedIn: 8,
      ...done,
      lines: [line('10412-07', 'HS', 4, 4), line('10412-11', 'HS', 3, 3), line('10412-01', 'OM', 4, 4)],
    },
    {
      supplier: 'QUE',
      daysAgo: 68,
      receivedAfter: 6,
      wantedIn: 7,
      ...done,
      lines: [line('29000-01', 'HS', 3, 3), line('29000-02', 'OM', 2, 2)],
    },
    {
      supplier: 'HOL',
      daysAgo: 42,
      receivedAfter: 9,
      wantedIn: 8,
      ...done,
      lines: [line('10412-07', 'HS', 8, 8), line('10688-02', 'HS', 3, 3)],
    },
    {
      supplier: 'NAR',
      daysAgo: 40,
      receivedAfter: 5,
      wantedIn: 6,
      ...done,
      lines: [line('10530-03', 'MH', 1, 1), line('10530-01', 'OM', 2, 2)],
    },
    {
      supplier: 'BRI',
      daysAgo: 20,
      receivedAfter: 10,
      wantedIn: 11,
      share: 0.5,
      state: 'sent',
      lines: [line('25100-01', 'OM', 4, 2), line('25100-02', 'HS', 2, 1)],
    },
    {
      supplier: 'TES',
      daysAgo: 26,
      receivedAfter: null,
      wantedIn: 22,
      share: 0,
      state: 'sent',
      lines: [line('22155-01', 'OM', 1, 0), line('22155-02', 'WY', 4, 0)],
    },
    {
      supplier: 'HOL',
      daysAgo: 3,
      receivedAfter: null,
      wantedIn: 10,
      share: 0,
      state: 'approved',
      lines: [line('10412-07', 'HS', 1, 0), line('10412-04', 'WY', 6, 0), line('10412-04', 'MH', 1, 0)],
    },
  ];
}

/** Enters one order and takes it as far as planned through the application's own use cases, at the times it happened. */
export async function placeOrder(
  pool: Pool,
  depsAt: (daysAgo: number) => Deps,
  buyer: Actor,
  plan: PlannedOrder,
): Promise<void> {
  const deps = depsAt(plan.daysAgo);
  const request = <I>(step: string, input: I) => ({ key: `seed-${plan.supplier}-${plan.daysAgo}-${step}`, input });
  const orderId = unwrap(
    await write<number, never>(pool, async (tx) => {
      const today = todayOf(deps, await readCompany(tx));
      const supplier = (await readSuppliers(tx)).find((s) => s.code === plan.supplier);
      if (!supplier) throw new Error(`no supplier ${plan.supplier}`);
      const entered = { orderDate: today, userId: buyer.userId, at: stamp(deps.clock()) };
      const id = await enterOrder(tx, supplier, entered);
      const wantedDate = workingDayFrom(addDays(today, plan.wantedIn));
      for (const [i, itemId] of [...new Set(plan.lines.map((l) => l.itemId))].entries()) {
        const buying = [...(await readBuying(tx, [itemId])).bySource.values()].find(
          (b) => b.source.supplierId === supplier.id,
        );
        if (!buying) throw new Error(`item ${itemId} is not sold by ${plan.supplier}`);
        const parts = plan.lines
          .filter((l) => l.itemId === itemId)
          .map((l) => ({ locationId: l.locationId, packQuantity: String(l.packs), trayLineId: null }));
        await enterStockLine(tx, { orderId: id, lineNo: i + 1, today, wantedDate }, buying, parts);
      }
      return ok(id);
    }),
  );
  if (plan.state === 'draft') return;
  const version = async () => unwrap(await readOrder(deps, buyer, orderId)).head.version;
  unwrap(await approveOrder(deps, buyer, request('approve', { orderId, version: await version() })));
  if (plan.state === 'approved') return;
  unwrap(await sendOrder(deps, buyer, request('send', { orderId, version: await version(), how: 'printed' as const })));
  if (plan.receivedAfter === null) return;
  const order = unwrap(await readOrder(deps, buyer, orderId));
  const places = [...new Set(plan.lines.map((l) => l.locationId))];
  for (const locationId of places) {
    const own = plan.lines.filter((l) => l.locationId === locationId);
    const counted = own.map((l) => {
      const view = order.lines.find((x) => x.itemId === l.itemId);
      const part = view?.parts[plan.lines.filter((x) => x.itemId === l.itemId).indexOf(l)];
      if (!part) throw new Error('a planned line without its part');
      return { partId: part.id, quantity: toDecimal(fromDecimal(String(l.packs)) * plan.share), unit: 'pack' as const };
    });
    const input = { orderId, locationId, deliveryNote: `DN ${4100 + plan.daysAgo}`, businessDate: '', counted };
    unwrap(
      await receiveGoods(depsAt(plan.daysAgo - plan.receivedAfter), buyer, request(`receive-${locationId}`, input)),
    );
  }
}
