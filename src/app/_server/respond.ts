import { randomBytes } from 'node:crypto';
import { NextResponse } from 'next/server';
import type { Result } from '@/core/result';
import { DatabaseBusy, DatabaseUnavailable } from '@/data/errors';
import type { HandlerFailure } from '@/services/failure';

const statuses: Partial<Record<HandlerFailure['kind'], number>> = {
  not_signed_in: 401,
  wrong_password: 401,
  wrong_code: 403,
  already_founded: 409,
  link_void: 410,
  file_too_large: 413,
  not_now: 409,
  forbidden: 403,
  above_limit: 403,
  foreign_origin: 403,
  not_found: 404,
  unknown_command: 404,
  changed_meanwhile: 409,
  already_decided: 409,
  not_in_this_state: 409,
  list_gone: 410,
  malformed: 400,
  too_many_attempts: 429,
  database_unavailable: 503,
  busy: 503,
  defect: 500,
};

export const refuse = (failure: HandlerFailure): NextResponse =>
  NextResponse.json({ ok: false, failure }, { status: statuses[failure.kind] ?? 422 });

export const answer = (result: Result<unknown, HandlerFailure>): NextResponse =>
  result.ok ? NextResponse.json({ ok: true, value: result.value }) : refuse(result.error);

/** Runs a handler; a database that is down is 503, a defect is logged with an id that the person sees. Never a stack trace. */
export async function handled(body: () => Promise<NextResponse>): Promise<NextResponse> {
  try {
    return await body();
  } catch (e) {
    if (e instanceof DatabaseUnavailable) return refuse({ kind: 'database_unavailable' });
    if (e instanceof DatabaseBusy) return refuse({ kind: 'busy' });
    const id = randomBytes(4).toString('hex');
    console.error(`defect ${id}`, e);
    return refuse({ kind: 'defect', id });
  }
}

/** A command must come from our own pages. */
export function sameOrigin(request: Request): boolean {
  const origin = request.headers.get('origin');
  const host = request.headers.get('host');
  if (request.headers.get('sec-fetch-site') === 'cross-site') return false;
  // A sandboxed page sends the word "null".
  return origin === null || (URL.canParse(origin) && new URL(origin).host === host);
}

/** The body as JSON, null when it is none. */
export const jsonOf = async (request: Request): Promise<unknown> => request.json().catch(() => null);
