import type Joi from 'joi';
import type { NextResponse } from 'next/server';
import type { Actor } from '@/core/people';
import type { Result } from '@/core/result';
import type { HandlerFailure } from '@/services/failure';
import { answer, handled, jsonOf, refuse, sameOrigin } from './respond';
import { currentSession } from './session';

/** Answers a GET with what a service reads for the signed-in person and the query of the address. */
export const read = (
  request: Request,
  body: (actor: Actor, query: URLSearchParams) => Promise<Result<unknown, HandlerFailure>>,
): Promise<NextResponse> =>
  handled(async () => {
    const session = await currentSession();
    if (!session) return refuse({ kind: 'not_signed_in' });
    return answer(await body(session.actor, new URL(request.url).searchParams));
  });

/** Answers a POST that only asks, with more than fits into an address: it comes from our own pages, its shape is checked. */
export const ask = <T>(
  request: Request,
  shape: Joi.ObjectSchema,
  body: (actor: Actor, asked: T) => Promise<Result<unknown, HandlerFailure>>,
): Promise<NextResponse> =>
  handled(async () => {
    if (!sameOrigin(request)) return refuse({ kind: 'foreign_origin' });
    const session = await currentSession();
    if (!session) return refuse({ kind: 'not_signed_in' });
    const { value, error } = shape.validate(await jsonOf(request));
    if (error) return refuse({ kind: 'malformed', field: String(error.details[0]?.path[0] ?? '') });
    return answer(await body(session.actor, value as T));
  });

/** A whole number from the query of an address; null when it is none. */
export function numberOf(query: URLSearchParams, name: string): number | null {
  const text = query.get(name) ?? '';
  return /^\d{1,10}$/.test(text) ? Number(text) : null;
}
