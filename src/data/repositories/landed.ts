import type { DutyRate, FreightTerms, UsualCharge } from '@/core/landed';
import type { TaxRate } from '@/core/tax';
import type { Tx } from '../sql';

export type GoodsRow = {
  readonly id: number;
  readonly weightKg: string | null;
  readonly volumeL: string | null;
  readonly hsCode: string;
  readonly origin: string;
};

const plain = (column: string) => `TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM ${column}))`;

/** What of items matters for freight and duty. */
export const readGoods = (tx: Tx, itemIds: readonly number[]) =>
  tx.rowsOf<GoodsRow>(
    `SELECT id, weight_kg AS weightKg, volume_l AS volumeL, hs_code AS hsCode, origin FROM item WHERE id IN (?)`,
    itemIds,
  );

export type TermsRow = FreightTerms & { readonly id: number };

export const readFreightTerms = (tx: Tx, supplierIds: readonly number[]) =>
  tx.rowsOf<TermsRow>(
    `SELECT id, freight_payer AS payer, freight_fixed AS fixed, freight_per_kg AS perKg, freight_free_from AS freeFrom
       FROM supplier WHERE id IN (?)`,
    supplierIds,
  );

type ChargeRow = Omit<UsualCharge, 'onCharges'> & {
  readonly supplierId: number;
  readonly onCharges: string;
  readonly account: string;
};

/** The usual charges of suppliers, in their order. */
export const readChargesOf = (tx: Tx, supplierIds: readonly number[]) =>
  tx.rowsOf<ChargeRow>(
    `SELECT supplier_id AS supplierId, name, position, sign, amount_kind AS amountKind, ${plain('amount')} AS amount, currency,
            on_charges AS onCharges, spread, into_cost AS \`into\`, account
       FROM charge_type WHERE supplier_id IN (?) ORDER BY supplier_id, position, id`,
    supplierIds,
  );

export const readTaxRates = async (tx: Tx): Promise<TaxRate[]> =>
  (
    await tx.rows<Omit<TaxRate, 'usual'> & { usual: number }>(
      `SELECT category, ${plain('percent')} AS percent, ${plain('own_use_percent')} AS ownUsePercent, usual, valid_from AS validFrom,
              valid_to AS validTo FROM tax_rate`,
    )
  ).map((r) => ({ ...r, usual: r.usual === 1 }));

export const readDutyRates = (tx: Tx) =>
  tx.rows<DutyRate>(
    `SELECT id, hs_prefix AS hsPrefix, NULLIF(origin, '') AS origin, ${plain('percent')} AS percent, valid_from AS validFrom,
            valid_to AS validTo FROM duty_rate`,
  );
