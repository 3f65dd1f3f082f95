import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readAskedFor } from '@/services/purchase/askedFor';

/** What is asked for by name and the order's supplier sells. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const orderId = numberOf(query, 'order');
    return orderId === null ? err({ kind: 'malformed', field: 'order' }) : readAskedFor(deps(), actor, orderId);
  });
