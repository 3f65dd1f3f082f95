import { randomBytes } from 'node:crypto';
import Joi from 'joi';
import { addDays } from '@/core/calendar';
import { actorOfUser } from '@/services/people/session';
import { enterCustomerOrder } from '@/services/promise/enterCustomerOrder';
import { readWebShopOffer } from '@/services/promise/readWebShopOffer';
import type { Handler } from './handler';

const PATIENCE_MS = 60_000;
/** Orders of so many days are asked for; those that came before are known by their number. */
const DAYS_BACK = 7;

type WebOrder = {
  readonly number: string;
  readonly name: string;
  readonly mail: string;
  readonly address: string;
  readonly lines: readonly { readonly item: string; readonly quantity: string }[];
};
const shape = Joi.array()
  .items(
    Joi.object({
      number: Joi.string().max(60).required(),
      name: Joi.string().max(120).required(),
      mail: Joi.string().allow('').max(200).required(),
      address: Joi.string().allow('').max(400).required(),
      lines: Joi.array()
        .items(Joi.object({ item: Joi.string().max(40).required(), quantity: Joi.string().max(40).required() }))
        .min(1)
        .max(500)
        .required(),
    }),
  )
  .max(10_000);

/** Fetches what was ordered in the web shop (VORRAT_WEB_SHOP_URL) in the last days and takes it; an order that was taken before
 *  is left as it is, so that a crash or a second time does no harm.
 *  Errors: throws when it can't be fetched, has another shape, or an order is refused; the job says so and is tried again. */
export const takeWebOrders: Handler = async (deps, { input, resumeAt, step }) => {
  const url = process.env.VORRAT_WEB_SHOP_URL ?? '';
  if (url === '') throw new Error('no web shop is named (VORRAT_WEB_SHOP_URL)');
  await step({ done: 0, total: null, resumeAt });
  const actor = await actorOfUser(deps, (input as { userId: number }).userId);
  if (!actor) throw new Error('whoever asked for it is not there any more');
  const offer = await readWebShopOffer(deps, actor);
  if (!offer.ok) throw new Error(`web shop orders may not be taken: ${offer.error.kind}`);
  const { today, locationId, items } = offer.value;
  const response = await fetch(url, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({
      ...{ from: addDays(today, -DAYS_BACK), to: today },
      offered: items.map(({ number, decimals }) => ({ item: number, decimals })),
    }),
    signal: AbortSignal.timeout(PATIENCE_MS),
  });
  if (!response.ok) throw new Error(`the web shop answers ${response.status}`);
  const { value, error } = shape.validate(await response.json());
  if (error) throw new Error(`the web shop says something else than orders: ${error.message}`);
  const ids = new Map(items.map((i) => [i.number, i.id]));
  const orders = value as WebOrder[];
  const refused: string[] = [];
  for (const [n, o] of orders.entries()) {
    await step({ done: n, total: orders.length, resumeAt: null });
    const taken = await enterCustomerOrder(deps, actor, {
      key: randomBytes(15).toString('base64url'),
      input: {
        ...{ customerId: null, customer: { name: o.name, mail: o.mail, phone: '', address: o.address } },
        ...{ channel: 'web_shop', reference: o.number, delivers: null, priority: null, note: '' },
        lines: o.lines.map((l) => ({
          ...{ itemId: ids.get(l.item) ?? 0, packId: null, quantity: l.quantity, locationId, way: 'from_stock' },
          ...{ wantedDate: '', shipBy: '', holdUntil: '' },
        })),
      },
    });
    // One that is refused does not keep others waiting.
    if (!taken.ok) refused.push(`${o.number} (${taken.error.kind})`);
  }
  await step({ done: orders.length, total: orders.length, resumeAt: null });
  if (refused.length > 0) throw new Error(`refused: ${refused.join(', ')}; all others were taken`);
};
