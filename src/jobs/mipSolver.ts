import { join } from 'node:path';
import { Worker } from 'node:worker_threads';
import type { Solved, Solver } from '@/core/split';

/** A solver of mixed-integer programs (HiGHS) in a thread beside this process, so that its lease and its other work go on. It stops at
 *  its limit by itself; a thread that does not answer long after is ended. Errors: throws when the thread fails. */
export const mipSolver: Solver = (program, { seconds, gap }) =>
  new Promise<Solved>((resolve, reject) => {
    const workers = join(process.cwd(), 'src', 'workers');
    const thread = new Worker(join(workers, 'thread.mjs'), {
      workerData: { file: join(workers, 'solveMip.ts'), program, seconds, gap },
    });
    const late = setTimeout(
      () => {
        thread.terminate();
        reject(new Error('the solver did not end at its limit'));
      },
      (seconds + 30) * 1000,
    );
    thread.once('message', (solved: Solved) => {
      clearTimeout(late);
      resolve(solved);
      thread.terminate();
    });
    thread.once('error', (e) => {
      clearTimeout(late);
      reject(e);
    });
  });
