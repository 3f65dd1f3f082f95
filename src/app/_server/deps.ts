import { openPool, settingsFromEnvironment } from '@/data/pool';
import type { Deps } from '@/services/deps';

const kept = globalThis as unknown as { vorratDeps?: Deps };

/** A clock that starts at VORRAT_CLOCK and ticks on (tests pin the day), or the real one. */
function clockFrom(start: string | undefined): () => Date {
  if (!start) return () => new Date();
  const offset = Date.parse(start) - Date.now();
  return () => new Date(Date.now() + offset);
}

/** One pool and one clock per server process. */
export function deps(): Deps {
  kept.vorratDeps ??= {
    pool: openPool(settingsFromEnvironment(process.env), 20),
    clock: clockFrom(process.env.VORRAT_CLOCK),
  };
  return kept.vorratDeps;
}
