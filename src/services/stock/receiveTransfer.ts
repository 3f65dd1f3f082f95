import { type Actor, may } from '@/core/people';
import { checked, fromDecimal, parseQuantity, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { divideHalfUp } from '@/core/units';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany, readTransit } from '@/data/repositories/company';
import { lockLevels } from '@/data/repositories/levels';
import { markDirty } from '@/data/repositories/marks';
import { setTransferState, type TransferLineRow, updateTransferLine } from '@/data/repositories/transfers';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { giveToWaiting, lockWaiting } from '../promise/shareOut';
import { type CrossedLevel, crossingsOf } from './crossings';
import { type Came, fillPegs, lockPegs } from './fillPegs';
import { openTransfer } from './openTransfer';
import { postMovements, type StockChange } from './postMovements';

/** Received and lost quantities per line of the transfer, in base units as typed (empty = none). */
export type ReceiveTransfer = {
  readonly transferId: number;
  readonly lines: readonly {
    readonly lineNo: number;
    readonly received: string;
    readonly lost: string;
    readonly reason: string;
  }[];
};

/** Takes goods of a transfer out of transit: what came goes onto the level of the place with the value it was shipped with,
 *  what is lost leaves with a reason. Value of a part = round(value shipped × cumulative ÷ shipped) − moved so far.
 *  Errors: forbidden, not_found, transfer_not_in_this_state, invalid_field lines.<line>.received|lost (also for more than is in transit),
 *  nothing_counted, books_closed. */
export async function receiveTransfer(
  deps: Deps,
  actor: Actor,
  request: Request<ReceiveTransfer>,
): Promise<Result<{ open: Quantity; crossed: readonly CrossedLevel[] }, Failure>> {
  const allowed = may(actor, 'stock.transfer');
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'receive-transfer', request, async (tx, now) => {
    const { transferId } = request.input;
    const opened = await openTransfer(tx, actor, { transferId, version: null }, 'receive', (t) => t.toLocationId);
    if (!opened.ok) return opened;
    const { transfer, lines } = opened.value;
    const entries = movesOf(request.input.lines, lines);
    if (!entries.ok) return entries;
    const [today, transit] = [todayOf(deps, await readCompany(tx)), await readTransit(tx)];
    const { toLocationId } = transfer;
    const pairs = entries.value.flatMap(({ line: { itemId } }) => [
      { itemId, locationId: toLocationId },
      { itemId, locationId: transit },
    ]);
    const arrived = entries.value.map(
      ({ line: { itemId, decisionId }, received }): Came => ({
        ...{ itemId, locationId: toLocationId, trayLineId: null, decisionId, quantity: received },
      }),
    );
    const pegs = await lockPegs(tx, arrived);
    const waiting = await lockWaiting(tx, arrived, today);
    const before = await lockLevels(tx, pairs);
    const changes: StockChange[] = [];
    for (const { line, received, lost, reason } of entries.value) {
      const came = takeOut(line, received, 0);
      const gone = takeOut(line, lost, received);
      const document = { kind: 'transfer' as const, id: transferId, line: line.lineNo };
      const move = { itemId: line.itemId, kind: 'transfer' as const, businessDate: today, document };
      const away = checked(-received - lost);
      changes.push({ ...move, locationId: transit, quantity: away, value: -came - gone });
      if (received > 0) changes.push({ ...move, locationId: toLocationId, quantity: received, value: came });
      await updateTransferLine(tx, {
        id: line.id,
        received: toDecimal(checked(fromDecimal(line.received) + received)),
        receivedValue: line.receivedValue + came,
        lost: toDecimal(checked(fromDecimal(line.lost) + lost)),
        lostValue: line.lostValue + gone,
        lostReason: lost > 0 ? reason : '',
      });
    }
    const posted = await postMovements(tx, actor.userId, now, today, changes);
    if (!posted.ok) return posted;
    await fillPegs(tx, { userId: actor.userId, now }, pegs, arrived);
    await giveToWaiting(tx, { userId: actor.userId, now, today }, waiting);
    const open = lines.reduce((sum, l) => {
      const entry = entries.value.find((e) => e.line.id === l.id);
      return sum + inTransit(l) - (entry ? entry.received + entry.lost : 0);
    }, 0);
    if (open === 0) await setTransferState(tx, transferId, 'received', { userId: actor.userId, at: now });
    await recordChanges(tx, actor.userId, now, [
      { entity: 'transfer', entityId: transferId, action: 'received', after: { lines: request.input.lines, open } },
    ]);
    markDirty(
      tx,
      pairs.filter((p) => p.locationId === toLocationId),
    );
    const here = before.filter((l) => l.locationId === toLocationId);
    return ok({ open, crossed: await crossingsOf(tx, here, changes) });
  });
}

type Move = { line: TransferLineRow; received: Quantity; lost: Quantity; reason: string };

const inTransit = (l: TransferLineRow): Quantity =>
  checked(fromDecimal(l.shipped) - fromDecimal(l.received) - fromDecimal(l.lost));

/** Value of `q` more pieces out of transit, after `before` more; all of the value with the last piece. */
function takeOut(l: TransferLineRow, q: Quantity, before: Quantity): number {
  const gone = fromDecimal(l.received) + fromDecimal(l.lost) + before;
  const upTo = (pieces: Quantity) =>
    Number(divideHalfUp(BigInt(l.shippedValue) * BigInt(pieces), BigInt(fromDecimal(l.shipped))));
  return upTo(gone + q) - upTo(gone);
}

function movesOf(entries: ReceiveTransfer['lines'], lines: readonly TransferLineRow[]): Result<Move[], Failure> {
  const moves: Move[] = [];
  for (const e of entries) {
    const line = lines.find((l) => l.lineNo === e.lineNo);
    if (!line) return err({ kind: 'not_found', what: 'line' });
    const read = (field: 'received' | 'lost') => {
      if (e[field].trim() === '') return ok(0);
      const q = parseQuantity(e[field]);
      return q.ok ? q : err(invalidField(`lines.${e.lineNo}.${field}`, q.error));
    };
    const [received, lost] = [read('received'), read('lost')];
    if (!received.ok) return received;
    if (!lost.ok) return lost;
    if (received.value + lost.value > inTransit(line))
      return err(invalidField(`lines.${e.lineNo}.received`, { kind: 'more_than', most: inTransit(line) }));
    if (received.value + lost.value > 0)
      moves.push({ line, received: received.value, lost: lost.value, reason: e.reason });
  }
  return moves.length === 0 ? err({ kind: 'nothing_counted' }) : ok(moves);
}
