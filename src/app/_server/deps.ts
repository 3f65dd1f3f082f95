import type { Deps } from '@/services/deps';
import { depsFromEnvironment } from '@/services/depsFromEnvironment';

const kept = globalThis as unknown as { vorratDeps?: Deps };

/** One pool and one clock per server process. */
export function deps(): Deps {
  kept.vorratDeps ??= depsFromEnvironment(process.env, 20);
  return kept.vorratDeps;
}
