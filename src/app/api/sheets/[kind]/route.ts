import { deps } from '@/app/_server/deps';
import { answer, handled, refuse, sameOrigin } from '@/app/_server/respond';
import { currentSession, rotateIfDue } from '@/app/_server/session';
import { limits } from '@/formats/fault';
import { uploadSheet } from '@/services/sheets/uploadSheet';

/** Takes a spreadsheet in; its name is in the address, its content is the body. */
export const POST = (request: Request, { params }: { params: Promise<{ kind: string }> }) =>
  handled(async () => {
    if (!sameOrigin(request)) return refuse({ kind: 'foreign_origin' });
    const session = await currentSession();
    if (!session) return refuse({ kind: 'not_signed_in' });
    const mostMegabytes = limits.megabytes;
    if (Number(request.headers.get('content-length') ?? 0) > mostMegabytes * 1024 * 1024)
      return refuse({ kind: 'file_too_large', mostMegabytes });
    if (!request.body) return refuse({ kind: 'malformed', field: 'body' });
    const name = new URL(request.url).searchParams.get('name') ?? '';
    const file = { kind: (await params).kind, name, mostMegabytes };
    const taken = await uploadSheet(deps(), session.actor, file, chunksOf(request.body));
    await rotateIfDue(session);
    return answer(taken);
  });

async function* chunksOf(body: ReadableStream<Uint8Array>): AsyncGenerator<Uint8Array> {
  const reader = body.getReader();
  try {
    for (let part = await reader.read(); !part.done; part = await reader.read()) yield part.value;
  } finally {
    // What is not read any more (a file that is too large) is not sent on.
    await reader.cancel().catch(() => undefined);
  }
}
