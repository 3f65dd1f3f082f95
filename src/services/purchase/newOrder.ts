import { type Actor, may } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { recordChanges } from '@/data/repositories/bookkeeping';
import { readSuppliers } from '@/data/repositories/catalogue';
import { readCompany, readLocations } from '@/data/repositories/company';
import { readSupplierContacts } from '@/data/repositories/suppliers';
import { readSnapshot } from '@/data/transaction';
import { command, type Request } from '../command';
import { type Deps, todayOf } from '../deps';
import { type Failure, invalidField } from '../failure';
import { enterOrder } from './enterOrder';

/** Who can be ordered from, with what an order of theirs is filled in with. */
export type OrderFrom = {
  readonly id: number;
  readonly code: string;
  readonly name: string;
  readonly currency: string;
  readonly blocked: boolean;
  readonly payment: string;
  readonly delivery: string;
  readonly shippingWay: string;
  readonly minimum: number;
  readonly address: string;
  /** Addresses that orders go to, and people to ask. */
  readonly addresses: readonly { readonly id: number; readonly name: string; readonly address: string }[];
  readonly contacts: readonly { readonly id: number; readonly name: string; readonly phone: string }[];
};

/** Suppliers for a new order. Errors: forbidden. */
export async function readOrderFrom(deps: Deps, actor: Actor): Promise<Result<readonly OrderFrom[], Failure>> {
  const allowed = may(actor, 'orders.edit');
  if (!allowed.ok) return allowed;
  return readSnapshot(deps.pool, async (tx) => {
    const contacts = await readSupplierContacts(tx);
    return ok(
      (await readSuppliers(tx)).map((s): OrderFrom => {
        const own = contacts.filter((c) => c.supplierId === s.id);
        return {
          ...{ id: s.id, code: s.code, name: s.name, currency: s.currency, blocked: s.status === 'blocked' },
          ...{ payment: s.paymentTerms, delivery: s.deliveryTerms, shippingWay: s.shippingWay },
          ...{ minimum: s.orderMinimum, address: s.address },
          addresses: own.filter((c) => c.kind === 'order_address'),
          contacts: own.filter((c) => c.kind === 'contact'),
        };
      }),
    );
  });
}

export type NewOrder = {
  readonly supplierId: number;
  /** The place it is for, unless a line says another. */
  readonly locationId: number;
  /** Which of the supplier's order addresses; null = its only one, or its own. */
  readonly addressId: number | null;
};

/** Begins an empty draft with the supplier's terms, address and contact. A single order address is taken by itself; of several
 *  one has to be chosen. Errors: forbidden (for the place), not_found, invalid_field addressId. */
export async function newOrder(
  deps: Deps,
  actor: Actor,
  request: Request<NewOrder>,
): Promise<Result<{ readonly orderId: number }, Failure>> {
  const { supplierId, locationId, addressId } = request.input;
  const allowed = may(actor, 'orders.edit', { locationIds: [locationId] });
  if (!allowed.ok) return allowed;
  return command(deps, actor, 'new-order', request, async (tx, now) => {
    const supplier = (await readSuppliers(tx)).find((s) => s.id === supplierId);
    if (!supplier) return err({ kind: 'not_found', what: 'supplier' });
    const place = (await readLocations(tx)).find((l) => l.id === locationId && l.closed === 0);
    if (!place) return err({ kind: 'not_found', what: 'location' });
    const own = (await readSupplierContacts(tx)).filter((c) => c.supplierId === supplierId);
    const addresses = own.filter((c) => c.kind === 'order_address');
    const chosen = addressId === null ? undefined : addresses.find((a) => a.id === addressId);
    if (!chosen && addresses.length > 1)
      return err(invalidField('addressId', { kind: 'choose_address', text: supplier.name }));
    const address = (chosen ?? addresses[0])?.address ?? '';
    const [contact] = own.filter((c) => c.kind === 'contact');
    const today = todayOf(deps, await readCompany(tx));
    const orderId = await enterOrder(tx, supplier, {
      ...{ orderDate: today, userId: actor.userId, at: now, locationId, address },
      contact: contact ? [contact.name, contact.phone].filter(Boolean).join(', ') : '',
    });
    await recordChanges(tx, actor.userId, now, [{ entity: 'order', entityId: orderId, action: 'begun' }]);
    return ok({ orderId });
  });
}
