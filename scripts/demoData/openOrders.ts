import type { Actor } from '@/core/people';
import { unwrap } from '@/core/result';
import type { Deps } from '@/services/deps';
import { addOrderLine } from '@/services/purchase/addOrderLine';
import { addOtherLine } from '@/services/purchase/addOtherLine';
import { amendOrder } from '@/services/purchase/amendOrder';
import { approveOrder } from '@/services/purchase/approveOrder';
import { askApproval } from '@/services/purchase/askApproval';
import { confirmOrder } from '@/services/purchase/confirmOrder';
import { editHead } from '@/services/purchase/editHead';
import { editOrder } from '@/services/purchase/editOrder';
import { cancelOrder, closeOrder } from '@/services/purchase/endOrder';
import { followUpOrder } from '@/services/purchase/followUp';
import { newOrder } from '@/services/purchase/newOrder';
import { readOrder } from '@/services/purchase/readOrder';
import { sendOrder } from '@/services/purchase/sendOrder';
import { receiveGoods } from '@/services/stock/receiveGoods';

const OWNER = 2;

/** Orders in the states that the past ones are not in: one that waits for the owner, one that its supplier has not confirmed, one
 *  confirmed with another date and price, one that is being changed, one closed short, one cancelled. They go through the
 *  application's own use cases, at the times it happened. */
export async function openOrders(depsAt: (daysAgo: number) => Deps, buyer: Actor): Promise<void> {
  const desk = new Desk(depsAt, buyer);

  const waiting = await desk.begin('HEK', 3);
  await desk.other(waiting, 'Display stand for machines, oak', '12', '240', 3);
  await desk.other(waiting, 'Delivery and setting up', '1', '180', 3, 'service');
  const [stand] = (await desk.view(waiting)).lines;
  for (const [field, was, now] of [
    ['discount', '0', '5'],
    ['costTo', '', '6815 Old Mill 70, 6815 Harbour Street 30'],
  ] as const)
    unwrap(
      await editOrder(
        ...([desk.deps(3), buyer] as const),
        desk.of('edit', { orderId: waiting, lineId: stand?.id ?? 0, field, was, now }),
      ),
    );
  unwrap(
    await askApproval(
      desk.deps(0),
      buyer,
      desk.of('ask', { ...(await desk.at(waiting)), userId: OWNER, note: 'for the new window at Old Mill' }),
    ),
  );

  const silent = await desk.begin('NAR', 27);
  await desk.wanted(silent, 27, 4);
  await desk.item(silent, '10530-02', 1, '1', 27);
  await desk.send(silent, 27);
  unwrap(
    await followUpOrder(
      desk.deps(20),
      buyer,
      desk.of('follow', {
        ...(await desk.at(silent)),
        next: plusDays(desk.deps(0).clock(), 0),
        note: 'on the machine, they say',
      }),
    ),
  );

  const moved = await desk.begin('QUE', 26);
  await desk.wanted(moved, 26, 2);
  await desk.item(moved, '29000-03', 2, '1', 26);
  await desk.item(moved, '29000-04', 1, '1', 26);
  await desk.send(moved, 26);
  const order = await desk.view(moved);
  const [first, second] = order.lines;
  const date = plusDays(desk.deps(0).clock(), 9);
  unwrap(
    await confirmOrder(
      desk.deps(21),
      buyer,
      desk.of('confirm', {
        ...{ ...(await desk.at(moved)), reference: 'QT-20871' },
        parts: [{ partId: first?.parts[0]?.id ?? 0, packs: '', date, rest: 'open' as const }],
        prices: [{ lineId: second?.id ?? 0, price: times(second?.price ?? '1', 1.04), toList: false }],
      }),
    ),
  );

  const changing = await desk.begin('BRI', 25);
  await desk.wanted(changing, 25, 8);
  await desk.item(changing, '25100-03', 1, '2', 25);
  await desk.send(changing, 25);
  unwrap(await amendOrder(desk.deps(1), buyer, desk.of('amend', await desk.at(changing))));
  const part = (await desk.view(changing)).lines[0]?.parts[0];
  const edit = { orderId: changing, field: 'packs' as const, partId: part?.id ?? 0, was: '2', now: '3' };
  unwrap(await editOrder(desk.deps(1), buyer, desk.of('edit', edit)));

  const short = await desk.begin('HEK', 31);
  await desk.other(short, 'Display hook, brass', '10', '6.40', 31);
  await desk.send(short, 31);
  const hook = (await desk.view(short)).lines[0]?.parts[0];
  const counted = [{ partId: hook?.id ?? 0, quantity: '8', unit: 'pack' as const }];
  const came = { orderId: short, locationId: 1, deliveryNote: 'SD 31', businessDate: '', counted };
  unwrap(await receiveGoods(desk.deps(26), buyer, desk.of('receive', came)));
  const reason = 'the last two are not made any more';
  unwrap(await closeOrder(desk.deps(24), buyer, desk.of('close', { ...(await desk.at(short)), reason })));

  const gone = await desk.begin('HEK', 28);
  await desk.other(gone, 'Shop sign, enamel', '1', '145', 28);
  await desk.send(gone, 28);
  unwrap(
    await cancelOrder(
      desk.deps(24),
      buyer,
      desk.of('cancel', { ...(await desk.at(gone)), reason: 'a sign was found in the cellar' }),
    ),
  );
}

const plusDays = (from: Date, days: number) => new Date(from.getTime() + days * 86_400_000).toISOString().slice(0, 10);
/** A price so many times as high, to two decimals. */
const times = (price: string, factor: number) => (Number(price) * factor).toFixed(2);

/** Enters orders day by day, each command under a key of its own. */
class Desk {
  private commands = 0;

  constructor(
    readonly deps: (daysAgo: number) => Deps,
    private readonly buyer: Actor,
  ) {}

  of<I>(step: string, input: I) {
    this.commands += 1;
    return { key: `seed-open-orders-${step}-${this.commands}`, input };
  }

  private async id(table: 'supplier' | 'item', column: 'code' | 'number', value: string): Promise<number> {
    const [rows] = await this.deps(0).pool.query(`SELECT id FROM ${table} WHERE ${column} = ?`, [value]);
    const [row] = rows as { id: number }[];
    if (!row) throw new Error(`no ${table} ${value}`);
    return row.id;
  }

  view = async (orderId: number) => unwrap(await readOrder(this.deps(0), this.buyer, orderId));
  at = async (orderId: number) => ({ orderId, version: (await this.view(orderId)).head.version });

  async begin(code: string, daysAgo: number): Promise<number> {
    const supplierId = await this.id('supplier', 'code', code);
    const input = { supplierId, locationId: 1, addressId: null };
    return unwrap(await newOrder(this.deps(daysAgo), this.buyer, this.of('new', input))).orderId;
  }

  /** Wanted so many days from now, whenever it is entered. */
  async wanted(orderId: number, daysAgo: number, inDays: number): Promise<void> {
    const now = plusDays(this.deps(0).clock(), inDays);
    const edit = { orderId, field: 'wantedDate' as const, was: '', now };
    unwrap(await editHead(this.deps(daysAgo), this.buyer, this.of('wanted', edit)));
  }

  async item(orderId: number, number: string, locationId: number, packs: string, daysAgo: number): Promise<void> {
    const itemId = await this.id('item', 'number', number);
    const line = { orderId, itemId, locationId, packs, price: '' };
    unwrap(await addOrderLine(this.deps(daysAgo), this.buyer, this.of('line', line)));
  }

  async other(
    orderId: number,
    description: string,
    quantity: string,
    price: string,
    daysAgo: number,
    kind: 'non_stock' | 'service' = 'non_stock',
  ): Promise<void> {
    const line = { orderId, kind, description, quantity, unit: '', price, locationId: 1 };
    unwrap(await addOtherLine(this.deps(daysAgo), this.buyer, this.of('other', line)));
  }

  async send(orderId: number, daysAgo: number): Promise<void> {
    const deps = this.deps(daysAgo);
    unwrap(await approveOrder(deps, this.buyer, this.of('approve', await this.at(orderId))));
    const how = { ...(await this.at(orderId)), how: 'printed' as const };
    unwrap(await sendOrder(deps, this.buyer, this.of('send', how)));
  }
}
