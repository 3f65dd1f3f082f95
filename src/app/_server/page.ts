import { headers } from 'next/headers';
import { notFound } from 'next/navigation';
import { cache } from 'react';
import type { Actor } from '@/core/people';
import type { Result } from '@/core/result';
import type { Failure } from '@/services/failure';
import { readFrame } from '@/services/people/readFrame';
import { Format } from '@/ui/format';
import { deps } from './deps';
import { requireActor } from './session';

export type SearchParams = Promise<Record<string, string | string[] | undefined>>;

export const text = (value: string | string[] | undefined): string => (typeof value === 'string' ? value : '');

/** One of some words from the address; the first where there is none of them. */
export function choiceOf<T extends string>(choices: readonly [T, ...T[]], value: string | string[] | undefined): T {
  return choices.find((c) => c === value) ?? choices[0];
}

/** A positive whole number from the address; anything else is a page that does not exist. */
export function idOf(value: string): number {
  const id = Number(value);
  if (!/^\d{1,10}$/.test(value) || id < 1) notFound();
  return id;
}

/** The acting person and the frame, read once per request. */
export const frameOf = cache(async () => {
  const actor = await requireActor();
  return { actor, frame: await readFrame(deps(), actor) };
});

/** The place chosen in the bar (its code in the address), or null for all. */
export async function placeOf(params: Record<string, string | string[] | undefined>): Promise<number | null> {
  const { frame } = await frameOf();
  return frame.locations.find((l) => l.code === text(params.at))?.id ?? null;
}

/** What a page read, or its 404 or no-right state. */
export function shown<T>(result: Result<T, Failure>): { value: T; failure: null } | { value: null; failure: Failure } {
  if (result.ok) return { value: result.value, failure: null };
  if (result.error.kind === 'not_found') notFound();
  return { value: null, failure: result.error };
}

/** Figures and dates as the person likes them, else by the language of the browser; the texts are English. */
export async function requestFormat(): Promise<Format> {
  const { actor } = await frameOf();
  if (actor.locale) return new Format(actor.locale);
  return Format.fromAcceptLanguage((await headers()).get('accept-language'));
}

export type { Actor };
