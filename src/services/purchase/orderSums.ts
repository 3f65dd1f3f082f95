import { type Actor, isRight, may } from '@/core/people';
import { orderTotals } from '@/core/purchase';
import { readOrderRules } from '@/data/repositories/orderLife';
import { readOrderLines } from '@/data/repositories/orders';
import { readUsers, type UserRow } from '@/data/repositories/people';
import type { Tx } from '@/data/sql';
import { readExchange } from '../cost/exchange';
import { totalLineOf } from './pricing';

/** Net of an order as it stands, in minor units of its currency. */
export const netOfOrder = async (tx: Tx, orderId: number, currency: string): Promise<number> =>
  orderTotals((await readOrderLines(tx, [orderId])).map(totalLineOf), currency).net;

/** Whether somebody else than who entered an order has to approve it: from the company's limit on. */
export const needsFourEyes = (from: number | null, netInBase: number): boolean => from !== null && netInBase >= from;

/** Who may approve an order of a sum that somebody entered. Nobody while its currency has no rate. */
export async function readApprovers(
  tx: Tx,
  base: string,
  today: string,
): Promise<
  (
    net: number,
    currency: string,
    enteredBy: number,
  ) => readonly { readonly id: number; readonly name: string; readonly byMail: boolean }[]
> {
  const people = (await readUsers(tx)).filter((u) => u.active === 1);
  const { fourEyes } = await readOrderRules(tx);
  const exchange = await readExchange(tx, base, today);
  return (net, currency, enteredBy) => {
    const inBase = exchange.toBase(net, currency);
    if (inBase === null) return [];
    const amount = { net: inBase, currency: base };
    return people
      .filter((u) => !(u.id === enteredBy && needsFourEyes(fourEyes, inBase)))
      .filter((u) => may(asActor(u), 'orders.approve', { amount }).ok)
      .map(({ id, name, mail }) => ({ id, name, byMail: mail !== '' }));
  };
}

/** Who can approve an order of a sum that the person entered: the person, or the names of those who may. */
export async function approversOf(
  tx: Tx,
  actor: Actor,
  base: string,
  today: string,
): Promise<(net: number, currency: string) => 'you' | readonly string[]> {
  const approvers = await readApprovers(tx, base, today);
  return (net, currency) => {
    const who = approvers(net, currency, actor.userId);
    return who.some((u) => u.id === actor.userId) ? 'you' : who.map((u) => u.name);
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
