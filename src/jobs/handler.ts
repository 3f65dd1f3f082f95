import type { Deps } from '@/services/deps';

/** What a job is given: its input, where an earlier attempt came to, and a way to say how far it is. `step` throws when the
 *  job was cancelled or taken over. */
export type Run = {
  readonly input: unknown;
  readonly resumeAt: unknown;
  readonly step: (progress: {
    readonly done: number;
    readonly total: number | null;
    readonly resumeAt: unknown;
  }) => Promise<void>;
};
export type Handler = (deps: Deps, run: Run) => Promise<void>;
