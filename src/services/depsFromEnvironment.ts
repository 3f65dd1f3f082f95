import { openPool, settingsFromEnvironment } from '@/data/pool';
import type { Deps } from './deps';

/** A clock that showed `start` at `setAt` (milliseconds since 1970; now, if not said) and ticks on: tests pin the day, and
 *  several processes of a test show the same time. Without a start, the real one. */
export function clockFrom(start: string | undefined, setAt: string | undefined): () => Date {
  if (!start) return () => new Date();
  const offset = Date.parse(start) - (setAt ? Number(setAt) : Date.now());
  return () => new Date(Date.now() + offset);
}

/** Pool and clock of a process, from the environment that the start command sets. */
export const depsFromEnvironment = (env: Record<string, string | undefined>, connections: number): Deps => ({
  pool: openPool(settingsFromEnvironment(env), connections),
  clock: clockFrom(env.VORRAT_CLOCK, env.VORRAT_CLOCK_SET),
});
