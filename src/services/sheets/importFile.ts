import { readPiece } from '@/data/repositories/imports';
import { readSnapshot } from '@/data/transaction';
import type { Deps } from '../deps';

/** The file of an import, piece by piece, from its beginning each time it is called. */
export const fileOf = (deps: Deps, importId: number) =>
  async function* pieces(): AsyncGenerator<Uint8Array> {
    for (let n = 0; ; n += 1) {
      const piece = await readSnapshot(deps.pool, (tx) => readPiece(tx, importId, n));
      if (piece === null) return;
      yield piece;
    }
  };
