import { type Actor, may } from '@/core/people';
import type { Result } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { type Reversed, reversal } from './reversal';

export type ReverseReceipt = { readonly receiptId: number; readonly reason: string };

/** Takes a whole receipt back: its goods leave again at the value they came in with, and are expected again on their order.
 *  The receipt stays, marked. What was sold meanwhile leaves stock below zero; promises that can't be kept are released,
 *  newest first, and named. Errors: forbidden, not_found, already_reversed, books_closed. */
export async function reverseReceipt(
  deps: Deps,
  actor: Actor,
  request: Request<ReverseReceipt>,
): Promise<Result<Reversed, Failure>> {
  const allowed = may(actor, 'goods.receive');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'reverse-receipt', request, async (tx, now) => {
    return reversal(tx, actor, now, todayOf(deps, await readCompany(tx)), request.input);
  });
}
