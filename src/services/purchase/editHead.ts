import { parseDate, parseDay } from '@/core/calendar';
import { type Actor, may } from '@/core/people';
import { isOfPattern } from '@/core/purchase';
import { err, ok, type Result } from '@/core/result';
import { readChanges, recordChanges } from '@/data/repositories/bookkeeping';
import { readCompany } from '@/data/repositories/company';
import { markDirty } from '@/data/repositories/marks';
import { isNumberTaken, updateOrderHead } from '@/data/repositories/orderHead';
import { type OrderRow, updatePart } from '@/data/repositories/orders';
import { readNumbering } from '@/data/repositories/papers';
import type { Tx } from '@/data/sql';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, type FieldFault, invalidField } from '../failure';
import { loadOrder, pairsOf } from './loadOrder';
import { wantedDay } from './wantedDay';

export const headFields = [
  'number',
  'orderDate',
  'datedBecause',
  'wantedDate',
  'contact',
  'paymentTerms',
  'deliveryTerms',
  'supplierAddress',
  'invoiceAddress',
  'orderText',
  'internalNote',
] as const;
export type HeadField = (typeof headFields)[number];

/** One field of the head of a draft; `was` is what the person saw. */
export type EditHead = {
  readonly orderId: number;
  readonly field: HeadField;
  readonly was: string;
  readonly now: string;
};

/** Deliveries that moved with the head's date, and the day as typed where nothing is taken in on it. */
export type EditedHead = { readonly moved: number; readonly insteadOf: string | null };

const words: Readonly<Record<HeadField, string>> = {
  number: 'number',
  orderDate: 'order date',
  datedBecause: 'why it is dated so',
  wantedDate: 'wanted date',
  contact: 'contact',
  paymentTerms: 'payment terms',
  deliveryTerms: 'delivery terms',
  supplierAddress: 'supplier’s address',
  invoiceAddress: 'invoice address',
  orderText: 'text',
  internalNote: 'note for us',
};
/** How much of a text fits; other fields of the head take 120 letters. */
const most: Partial<Record<HeadField, number>> = {
  ...{ supplierAddress: 400, invoiceAddress: 400, orderText: 400, internalNote: 2000, datedBecause: 200 },
};

const cellText = (order: OrderRow, field: HeadField): string => order[field] ?? '';

/** Changes one field of the head of a draft. The wanted date moves the deliveries that still follow it, and no others. A number of
 *  one's own has to be new, and not of the pattern that numbers are drawn in.
 *  Errors: forbidden, not_found, not_in_this_state, changed_meanwhile, invalid_field by name. */
export async function editHead(
  deps: Deps,
  actor: Actor,
  request: Request<EditHead>,
): Promise<Result<EditedHead, Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  const { orderId, field, was } = request.input;
  return command(deps, actor, 'edit-order-head', request, async (tx, at) => {
    const loaded = await loadOrder(tx, orderId, 'edit');
    if (!loaded.ok) return loaded;
    const { order, lines, parts } = loaded.value;
    if (cellText(order, field) !== was) {
      const last = (await readChanges(tx, 'order', orderId)).at(-1);
      const now = cellText(order, field);
      return err({ kind: 'changed_meanwhile', what: 'value', who: last?.who ?? null, now });
    }
    const today = todayOf(deps, await readCompany(tx));
    const read = await readField(tx, order, request.input, today);
    if (!read.ok) return err(invalidField(field, read.error));
    await updateOrderHead(tx, { ...order, ...read.value });
    const following =
      field === 'wantedDate' ? parts.filter((p) => p.wantedDate === (was || null) || p.wantedDate === null) : [];
    for (const p of following) await updatePart(tx, { ...p, wantedDate: read.value.wantedDate ?? null });
    if (following.length > 0) markDirty(tx, pairsOf(lines, following));
    await recordChanges(tx, actor.userId, at, [
      {
        ...{ entity: 'order', entityId: orderId, action: words[field], before: was },
        after: cellText({ ...order, ...read.value }, field),
      },
    ]);
    const typed = field === 'wantedDate' ? parseDay(request.input.now, today) : null;
    const insteadOf = typed?.ok && typed.value !== read.value.wantedDate ? typed.value : null;
    return ok({ moved: following.length, insteadOf });
  });
}

type Cells = Partial<Pick<OrderRow, HeadField | 'ownNumber'>>;

async function readField(
  tx: Tx,
  order: OrderRow,
  { field, now }: EditHead,
  today: string,
): Promise<Result<Cells, FieldFault>> {
  const text = now.trim();
  const fits = most[field] ?? 120;
  if (text.length > fits) return err({ kind: 'text_too_long', most: fits, has: text.length });
  switch (field) {
    case 'wantedDate': {
      if (text === '') return ok({ wantedDate: null });
      const asked = await wantedDay(tx, text, today, order);
      return asked.ok ? ok({ wantedDate: asked.value.day }) : asked;
    }
    case 'orderDate': {
      const day = parseDate(text, today);
      if (!day.ok) return day;
      // Dated otherwise than today wants a reason; it is said beside it.
      return ok({
        orderDate: day.value,
        datedBecause: day.value === today ? '' : order.datedBecause || 'dated by hand',
      });
    }
    case 'number': {
      // What it was approved under it keeps.
      if (order.approvedAt !== null) return err({ kind: 'number_is_kept', text: order.number ?? '' });
      if (text === '') return ok({ number: null, ownNumber: 0 });
      if (text.length > 40 || isOfPattern((await readNumbering(tx)).pattern, text))
        return err({ kind: 'number_is_drawn', text });
      if (await isNumberTaken(tx, text, order.id)) return err({ kind: 'number_taken', text });
      return ok({ number: text, ownNumber: 1 });
    }
    default:
      return ok({ [field]: text });
  }
}
