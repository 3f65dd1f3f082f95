import { deps } from '@/app/_server/deps';
import { read } from '@/app/_server/read';
import { err } from '@/core/result';
import { findInList, isListKind } from '@/services/lists/findInList';

/** Where in an open list a scanned code stands. */
export const GET = (request: Request, { params }: { params: Promise<{ kind: string }> }) =>
  read(request, async (actor, query) => {
    const { kind } = await params;
    if (!isListKind(kind)) return err({ kind: 'malformed', field: 'kind' });
    const asked = { list: query.get('list') ?? '', code: (query.get('code') ?? '').slice(0, 100) };
    return findInList(deps(), actor, kind, asked);
  });
