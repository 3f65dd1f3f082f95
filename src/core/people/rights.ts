import type { Minor } from '@/core/money';
import { err, ok, type Result } from '@/core/result';

export type Role = 'buyer' | 'owner' | 'shop' | 'bookkeeper';
export type Right =
  | 'needs.read'
  | 'needs.decide'
  | 'orders.read'
  | 'orders.edit'
  | 'orders.approve'
  | 'orders.send'
  | 'goods.receive'
  | 'stock.read'
  | 'policies.edit'
  | 'catalogue.edit'
  | 'stock.sell'
  | 'stock.allocate'
  | 'stock.transfer'
  | 'stock.count'
  | 'books.close'
  | 'undo';

const buying: readonly Right[] = [
  'needs.read',
  'needs.decide',
  'orders.read',
  'orders.edit',
  'orders.approve',
  'orders.send',
  'goods.receive',
  'stock.read',
  'policies.edit',
  'catalogue.edit',
  'stock.sell',
  'stock.allocate',
  'stock.transfer',
  'stock.count',
  'undo',
];

/** What each role may do; what is not listed is denied. */
const rightsOf: Readonly<Record<Role, readonly Right[]>> = {
  buyer: buying,
  owner: [...buying, 'books.close'],
  shop: ['goods.receive', 'stock.read', 'stock.sell', 'stock.allocate', 'stock.transfer', 'stock.count', 'undo'],
  bookkeeper: ['orders.read', 'stock.read', 'books.close', 'undo'],
};

/** The acting person. `locations` limits what happens at a place; null means everywhere. */
export type Actor = {
  readonly userId: number;
  readonly name: string;
  readonly initials: string;
  readonly role: Role;
  readonly locations: readonly number[] | null;
  /** Largest order net this person approves, in minor units of the base currency; null means without limit. */
  readonly approvalLimit: Minor | null;
};

export type Forbidden =
  | { readonly kind: 'forbidden'; readonly right: Right; readonly because: 'role' | 'location' }
  | { readonly kind: 'above_limit'; readonly limit: Minor; readonly currency: string };

type Amount = { readonly net: Minor; readonly currency: string };

/** The one place that decides whether a person may do something; deny is the default.
 *  Errors: forbidden (by role or place), above_limit for an approval beyond the person's amount. */
export function may(
  actor: Actor,
  right: Right,
  scope: { readonly locationIds?: readonly number[]; readonly amount?: Amount } = {},
): Result<void, Forbidden> {
  if (!rightsOf[actor.role].includes(right)) return err({ kind: 'forbidden', right, because: 'role' });
  const { locations } = actor;
  if (locations && scope.locationIds?.some((id) => !locations.includes(id))) {
    return err({ kind: 'forbidden', right, because: 'location' });
  }
  if (actor.approvalLimit !== null && scope.amount && scope.amount.net > actor.approvalLimit) {
    return err({ kind: 'above_limit', limit: actor.approvalLimit, currency: scope.amount.currency });
  }
  return ok(undefined);
}
