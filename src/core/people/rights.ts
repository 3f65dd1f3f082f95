import type { Minor } from '@/core/money';
import { err, ok, type Result } from '@/core/result';

/** Everything that can be allowed, by name; in the order in which roles show it. */
export const rights = [
  'needs.read',
  'needs.decide',
  'orders.read',
  'orders.edit',
  'orders.approve',
  'orders.send',
  'goods.receive',
  'stock.read',
  'stock.sell',
  'stock.allocate',
  'stock.transfer',
  'stock.count',
  'promises.read',
  'promises.edit',
  'policies.edit',
  'catalogue.edit',
  'changes.read',
  'books.close',
  'setup.edit',
  'people.edit',
  'undo',
] as const;
export type Right = (typeof rights)[number];
export const isRight = (name: string): name is Right => (rights as readonly string[]).includes(name);

/** The roles every company has; others are its own. */
export const roles = ['owner', 'buyer', 'shop', 'bookkeeper', 'read_only'] as const;
export type Role = (typeof roles)[number];
export const isRole = (name: string): name is Role => (roles as readonly string[]).includes(name);

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
  'promises.read',
  'promises.edit',
  'changes.read',
  'undo',
];

/** What each built-in role may do; what is not listed is denied. */
export const rightsOf: Readonly<Record<Role, readonly Right[]>> = {
  buyer: buying,
  owner: [...buying, 'books.close', 'setup.edit', 'people.edit'],
  shop: [
    'goods.receive',
    'stock.read',
    'stock.sell',
    'stock.allocate',
    'stock.transfer',
    'stock.count',
    'promises.read',
    'promises.edit',
    'undo',
  ],
  bookkeeper: ['orders.read', 'stock.read', 'books.close', 'changes.read', 'undo'],
  read_only: ['needs.read', 'orders.read', 'stock.read', 'promises.read'],
};

/** The acting person. `locations` limits what happens at a place; null means everywhere. */
export type Actor = {
  readonly userId: number;
  readonly name: string;
  readonly initials: string;
  /** A built-in role, or the name of one of the company's own. */
  readonly role: string;
  /** What a role of the company's own allows; a built-in one is looked up. */
  readonly rights?: readonly Right[];
  readonly locations: readonly number[] | null;
  /** Largest order net this person approves, in minor units of the base currency; null means without limit. */
  readonly approvalLimit: Minor | null;
  /** Language region for figures and dates; '' or nothing = the browser's. */
  readonly locale?: string;
};

export type Forbidden =
  | { readonly kind: 'forbidden'; readonly right: Right; readonly because: 'role' | 'location' }
  | { readonly kind: 'above_limit'; readonly limit: Minor; readonly currency: string };

type Amount = { readonly net: Minor; readonly currency: string };

/** What a person's role allows, built in or of the company's own. */
export const rightsOfActor = (actor: Pick<Actor, 'role' | 'rights'>): readonly Right[] =>
  actor.rights ?? (isRole(actor.role) ? rightsOf[actor.role] : []);

/** The one place that decides whether a person may do something; deny is the default.
 *  Errors: forbidden (by role or place), above_limit for an approval beyond the person's amount. */
export function may(
  actor: Actor,
  right: Right,
  scope: { readonly locationIds?: readonly number[]; readonly amount?: Amount } = {},
): Result<void, Forbidden> {
  if (!rightsOfActor(actor).includes(right)) return err({ kind: 'forbidden', right, because: 'role' });
  const { locations } = actor;
  if (locations && scope.locationIds?.some((id) => !locations.includes(id))) {
    return err({ kind: 'forbidden', right, because: 'location' });
  }
  if (actor.approvalLimit !== null && scope.amount && scope.amount.net > actor.approvalLimit) {
    return err({ kind: 'above_limit', limit: actor.approvalLimit, currency: scope.amount.currency });
  }
  return ok(undefined);
}
