import { drawNumber } from '@/data/repositories/bookkeeping';
import type { Tx } from '@/data/sql';
import { numberText, periodOf } from '../purchase/orderNumber';

/** The next number of a transfer. */
export async function nextTransferNumber(tx: Tx, today: string): Promise<string> {
  const period = periodOf(today);
  return numberText('T', period, await drawNumber(tx, 'TR', period));
}
