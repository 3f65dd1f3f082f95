import { deps } from '@/app/_server/deps';
import { numberOf, read } from '@/app/_server/read';
import { err } from '@/core/result';
import { readImport } from '@/services/sheets/readImports';

const states = ['wrong', 'changed', 'new', 'unchanged'] as const;

/** An import with rows of one state behind a row. */
export const GET = (request: Request) =>
  read(request, async (actor, query) => {
    const importId = numberOf(query, 'id');
    if (importId === null) return err({ kind: 'malformed', field: 'id' });
    const state = states.find((s) => s === query.get('state')) ?? null;
    return readImport(deps(), actor, { importId, state, after: numberOf(query, 'after') ?? 0 });
  });
