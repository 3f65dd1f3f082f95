import { type Actor, isRight, may } from '@/core/people';
import { orderTotals } from '@/core/purchase';
import { readOrderLines } from '@/data/repositories/orders';
import { readUsers, type UserRow } from '@/data/repositories/people';
import type { Tx } from '@/data/sql';
import { readExchange } from '../cost/exchange';
import { totalLineOf } from './pricing';

/** Net of an order as it stands, in minor units of its currency. */
export const netOfOrder = async (tx: Tx, orderId: number, currency: string): Promise<number> =>
  orderTotals((await readOrderLines(tx, [orderId])).map(totalLineOf), currency).net;

/** Who can approve an order of a sum: the person, or the names of those who may. Nobody while its currency has no rate. */
export async function approversOf(
  tx: Tx,
  actor: Actor,
  base: string,
  today: string,
): Promise<(net: number, currency: string) => 'you' | readonly string[]> {
  const people = (await readUsers(tx)).filter((u) => u.active === 1 && u.id !== actor.userId);
  const exchange = await readExchange(tx, base, today);
  return (net, currency) => {
    const inBase = exchange.toBase(net, currency);
    if (inBase === null) return [];
    const amount = { net: inBase, currency: base };
    if (may(actor, 'orders.approve', { amount }).ok) return 'you';
    return people.filter((u) => may(asActor(u), 'orders.approve', { amount }).ok).map((u) => u.name);
  };
}

const asActor = (u: UserRow): Actor => ({
  ...{
    userId: u.id,
    name: u.name,
    initials: u.initials,
    role: u.role,
    locations: null,
    approvalLimit: u.approvalLimit,
  },
  ...(u.rights === null ? {} : { rights: (JSON.parse(u.rights) as string[]).filter(isRight) }),
});
