import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readItemRows } from '@/services/catalogue/readItems';
import { readDecisionRows } from '@/services/planning/readDecisions';
import { readNeedRows } from '@/services/planning/readNeeds';
import { readPolicyLines } from '@/services/planning/readPolicies';
import { readPromiseRows } from '@/services/promise/readPromises';
import { readOrderRows } from '@/services/purchase/readOrders';
import { readTrayRows } from '@/services/purchase/readTrays';
import { readStockRows } from '@/services/stock/readStock';

const rowsOf = {
  decisions: readDecisionRows,
  items: readItemRows,
  needs: readNeedRows,
  orders: readOrderRows,
  policies: readPolicyLines,
  promises: readPromiseRows,
  stock: readStockRows,
  trays: readTrayRows,
} as const;

/** A page of rows of an open list: `list` is its name, `from` its first row. */
export const GET = (request: Request, { params }: { params: Promise<{ kind: string }> }) =>
  read(request, async (actor, query) => {
    const { kind } = await params;
    if (!Object.hasOwn(rowsOf, kind)) return err({ kind: 'malformed', field: 'kind' });
    const from = numberOf(query, 'from');
    if (from === null) return err({ kind: 'malformed', field: 'from' });
    const asked = { list: query.get('list') ?? '', from };
    return rowsOf[kind as keyof typeof rowsOf](deps(), actor, asked);
  });
