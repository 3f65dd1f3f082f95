import { openPool, settingsFromEnvironment } from '@/data/pool';
import type { Deps } from './deps';

/** A clock that starts at VORRAT_CLOCK and ticks on (tests pin the day), or the real one. */
export function clockFrom(start: string | undefined): () => Date {
  if (!start) return () => new Date();
  const offset = Date.parse(start) - Date.now();
  return () => new Date(Date.now() + offset);
}

/** Pool and clock of a process, from the environment that the start command sets. */
export const depsFromEnvironment = (env: Record<string, string | undefined>, connections: number): Deps => ({
  pool: openPool(settingsFromEnvironment(env), connections),
  clock: clockFrom(env.VORRAT_CLOCK),
});
