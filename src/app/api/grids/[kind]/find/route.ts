import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { findInList, isListKind } from '@/services/lists/findInList';

/** Where in an open list a scanned code, or a row by its id, stands. */
export const GET = (request: Request, { params }: { params: Promise<{ kind: string }> }) =>
  read(request, async (actor, query) => {
    const { kind } = await params;
    if (!isListKind(kind)) return err({ kind: 'malformed', field: 'kind' });
    const id = numberOf(query, 'id');
    const what = id === null ? { code: (query.get('code') ?? '').slice(0, 100) } : { id };
    return findInList(deps(), actor, kind, { list: query.get('list') ?? '', what });
  });
