import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readTopUp } from '@/services/purchase/readTopUp';

/** What to bring forward so that a supplier's tray comes to its minimum or to free freight. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const supplierId = numberOf(query, 'supplier');
    if (supplierId === null) return err({ kind: 'malformed', field: 'supplier' });
    const target = query.get('target') === 'minimum' ? 'minimum' : 'free_freight';
    return readTopUp(deps(), actor, { supplierId, target });
  });
