import type { Rate } from '@/core/money';
import type { Tx } from '../sql';

/** The latest rate of each currency that is not after a day. */
export const readRatesUntil = (tx: Tx, on: string) =>
  tx.rows<Rate>(
    `SELECT r.currency, r.direction, TRIM(TRAILING '.' FROM TRIM(TRAILING '0' FROM r.rate)) AS rate, r.valid_from AS validFrom
       FROM currency_rate r
      WHERE r.valid_from = (SELECT MAX(x.valid_from) FROM currency_rate x WHERE x.currency = r.currency AND x.valid_from <= :on)`,
    { on },
  );
