import { chargeSentence } from '@/core/landed';
import { type DeliveryRecord, deliveryRecord } from '@/core/leadtime';
import { type Minor, pricePerBaseUnit } from '@/core/money';
import { type Actor, may } from '@/core/people';
import type { OrderState } from '@/core/purchase';
import { fromDecimal, type Quantity, toDecimal } from '@/core/quantity';
import { err, ok, type Result } from '@/core/result';
import { readCompany } from '@/data/repositories/company';
import {
  readClosures,
  readDeliveriesOf,
  readOpenOrdersOf,
  readSoldBy,
  readSupplierLines,
  readSupplierTerms,
  type SupplierLine,
  type SupplierTerms,
} from '@/data/repositories/suppliers';
import { readSnapshot } from '@/data/transaction';
import { type Deps, todayOf } from '../deps';
import type { Failure } from '../failure';
import { sheetKinds } from '../sheets/kinds';
import { recordsIn } from '../sheets/readRecords';
import { readBuying } from './buying';

export type { SupplierLine };

const MOST_ITEMS = 500;

/** All suppliers. Errors: forbidden. */
export async function readSuppliersPage(
  deps: Deps,
  actor: Actor,
): Promise<Result<{ suppliers: readonly SupplierLine[] }, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return ok({ suppliers: await readSnapshot(deps.pool, readSupplierLines) });
}

/** An item as a supplier sells it, with its prices in force today. */
export type SoldItem = {
  readonly itemId: number;
  readonly number: string;
  readonly name: string;
  readonly unitName: string;
  readonly theirNumber: string;
  readonly packName: string | null;
  /** From so many packs on, what one costs and what that is per base unit; empty without a price. */
  readonly steps: readonly {
    readonly from: Quantity;
    readonly amount: string;
    readonly per: string;
    readonly each: string;
  }[];
  /** The next price and the day it begins, when there is one. */
  readonly next: { readonly amount: string; readonly from: string } | null;
};

export type SupplierView = {
  readonly terms: SupplierTerms;
  readonly sold: readonly SoldItem[];
  readonly orders: readonly {
    readonly id: number;
    readonly number: string | null;
    readonly state: OrderState;
    readonly orderDate: string;
    readonly wanted: string | null;
    readonly open: number;
  }[];
  readonly record: DeliveryRecord;
  readonly today: string;
  readonly minimum: Minor;
  readonly closures: readonly { readonly from: string; readonly to: string; readonly name: string }[];
  /** Its usual charges, one sentence each. */
  readonly charges: readonly string[];
};

/** One supplier: its terms, its price list, what is open there, how it has delivered.
 *  Errors: forbidden, not_found. */
export async function readSupplier(
  deps: Deps,
  actor: Actor,
  supplierId: number,
): Promise<Result<SupplierView, Failure>> {
  const allowed = may(actor, 'orders.read');
  if (!allowed.ok) return allowed;
  return readSnapshot<Result<SupplierView, Failure>>(deps.pool, async (tx) => {
    const terms = await readSupplierTerms(tx, supplierId);
    if (!terms) return err({ kind: 'not_found', what: 'supplier' });
    const today = todayOf(deps, await readCompany(tx));
    const items = await readSoldBy(tx, supplierId, MOST_ITEMS);
    const book = await readBuying(
      tx,
      items.map((i) => i.itemId),
    );
    const buying = new Map(
      [...book.bySource.values()].filter((b) => b.source.supplierId === supplierId).map((b) => [b.source.itemId, b]),
    );
    return ok({
      terms,
      sold: items.flatMap((i): SoldItem[] => {
        const b = buying.get(i.itemId);
        if (!b) return [];
        const inForce = b.prices.filter((p) => p.validFrom <= today && (p.validTo === null || p.validTo >= today));
        const froms = [...new Set(inForce.map((p) => p.fromPacks))].sort((x, y) => x - y);
        const [next] = b.prices.filter((p) => p.validFrom > today).sort((x, y) => (x.validFrom < y.validFrom ? -1 : 1));
        return [
          {
            ...i,
            theirNumber: b.source.supplierItemNumber,
            packName: b.packName,
            steps: froms.flatMap((from) => {
              const price = b.priceAt(from, today);
              if (!price) return [];
              const plain = (text: string) => toDecimal(fromDecimal(text));
              const each = pricePerBaseUnit(price, 4);
              return [{ from, amount: plain(price.amount), per: plain(price.perQuantity), each }];
            }),
            next: next ? { amount: toDecimal(fromDecimal(next.amount)), from: next.validFrom } : null,
          },
        ];
      }),
      orders: (await readOpenOrdersOf(tx, supplierId)).map((o) => ({ ...o, open: Number(o.open) })),
      record: deliveryRecord(await readDeliveriesOf(tx, supplierId)),
      today,
      minimum: terms.orderMinimum,
      closures: await readClosures(tx, supplierId, today),
      charges: (await recordsIn(tx, sheetKinds.charges, { of: 'supplier', is: terms.code }, '.')).records.map((r) =>
        chargeSentence(r.cells),
      ),
    });
  });
}
