import type { Actor } from '@/core/people';
import { err, ok, type Result } from '@/core/result';
import { deletePieces, insertImport, insertPiece, updateImport } from '@/data/repositories/imports';
import { insertJob } from '@/data/repositories/jobs';
import { write } from '@/data/transaction';
import { type Deps, stamp } from '../deps';
import type { Failure } from '../failure';
import { sheetKindOf } from './kinds';
import { maySheet } from './lockOwn';

const MEGABYTE = 1024 * 1024;
/** Small pieces, so that whoever reads the file holds little of it. */
const PIECE = MEGABYTE / 4;

/** Takes a file in, piece by piece, and leaves it to the worker to be looked at. Nothing in the books changes.
 *  Errors: forbidden, not_found for an unknown kind of spreadsheet, file_too_large. */
export async function uploadSheet(
  deps: Deps,
  actor: Actor,
  file: { readonly kind: string; readonly name: string; readonly mostMegabytes: number },
  chunks: AsyncIterable<Uint8Array>,
): Promise<Result<{ importId: number }, Failure>> {
  const kind = sheetKindOf(file.kind);
  const allowed = maySheet(actor, kind);
  if (!allowed.ok) return allowed;
  if (!kind) return err({ kind: 'not_found', what: 'template' });
  const at = stamp(deps.clock());
  const fileName = file.name.replace(/[\r\n\t]/g, ' ').slice(0, 200);
  const begun = await write<number, Failure>(deps.pool, async (tx) =>
    ok(await insertImport(tx, { kind: kind.name, fileName, userId: actor.userId, at })),
  );
  if (!begun.ok) return begun;
  const importId = begun.value;
  let bytes = 0;
  let pieceNo = 0;
  const keep = async (content: Buffer) => {
    await write<void, never>(deps.pool, async (tx) => {
      await insertPiece(tx, { importId, pieceNo, content });
      return ok(undefined);
    });
    pieceNo += 1;
  };
  let waiting: Uint8Array[] = [];
  let length = 0;
  for await (const chunk of chunks) {
    bytes += chunk.length;
    if (bytes > file.mostMegabytes * MEGABYTE) {
      await write<void, never>(deps.pool, async (tx) => {
        await deletePieces(tx, importId);
        await updateImport(tx, importId, { state: 'cancelled' });
        return ok(undefined);
      });
      return err({ kind: 'file_too_large', mostMegabytes: file.mostMegabytes });
    }
    waiting.push(chunk);
    length += chunk.length;
    if (length >= PIECE) {
      const all = Buffer.concat(waiting);
      for (let from = 0; from < all.length; from += PIECE) await keep(all.subarray(from, from + PIECE));
      [waiting, length] = [[], 0];
    }
  }
  if (length > 0) await keep(Buffer.concat(waiting));
  return write<{ importId: number }, Failure>(deps.pool, async (tx) => {
    const input = JSON.stringify({ importId });
    const jobId = await insertJob(tx, { kind: 'read-sheet', input, notBefore: at, userId: actor.userId, at });
    await updateImport(tx, importId, { state: 'reading', bytes, jobId });
    return ok({ importId });
  });
}
