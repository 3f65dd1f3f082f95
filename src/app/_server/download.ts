import { NextResponse } from 'next/server';
import type { Actor } from '@/core/people';
import { handled, refuse } from './respond';
import { currentSession } from './session';

const types = {
  csv: 'text/csv; charset=utf-8',
  xlsx: 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet',
} as const;
export type FileType = keyof typeof types;

export const typeOf = (request: Request): FileType =>
  new URL(request.url).searchParams.get('as') === 'xlsx' ? 'xlsx' : 'csv';

/** A file to be saved. Text that comes in pieces is sent as it comes. */
export function fileAnswer(
  name: string,
  type: FileType,
  content: Buffer | string | AsyncGenerator<string>,
): NextResponse {
  const headers = {
    'content-type': types[type],
    'content-disposition': `attachment; filename="${name.replace(/[^\w.-]+/g, '-')}.${type}"`,
    'cache-control': 'no-store',
  };
  if (typeof content === 'string' || Buffer.isBuffer(content))
    return new NextResponse(typeof content === 'string' ? content : new Uint8Array(content), { headers });
  const encoder = new TextEncoder();
  const body = new ReadableStream<Uint8Array>({
    async pull(controller) {
      const { value, done } = await content.next();
      if (done) controller.close();
      else controller.enqueue(encoder.encode(value));
    },
    cancel: () => void content.return(undefined),
  });
  return new NextResponse(body, { headers });
}

/** Answers a GET with a file for the signed-in person. */
export const download = (body: (actor: Actor) => Promise<NextResponse>): Promise<NextResponse> =>
  handled(async () => {
    const session = await currentSession();
    return session ? body(session.actor) : refuse({ kind: 'not_signed_in' });
  });
