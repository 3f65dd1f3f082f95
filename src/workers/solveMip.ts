import { parentPort, workerData } from 'node:worker_threads';
import loadHighs from 'highs';
import type { Program, Solved } from '@/core/split';

/** What the thread is given. */
export type MipTask = { readonly program: Program; readonly seconds: number; readonly gap: number };

/** Solves one mixed-integer program in a thread of its own and answers with what was found: only messages, the program is core's. */
async function answer({ program: p, seconds, gap }: MipTask): Promise<Solved> {
  const highs = await loadHighs();
  const { optimal, infeasible, unboundedOrInfeasible, timeLimit } = highs.constants.modelStatus;
  return highs.withModel((model): Solved => {
    model.options.set({ output_flag: false, time_limit: seconds, mip_rel_gap: gap });
    const wide = (x: number) => (x === Number.POSITIVE_INFINITY ? highs.infinity : x);
    for (const [i, cost] of p.cost.entries()) {
      model.addVar(0, wide(p.upper[i] as number));
      model.changeColCost(i, cost);
      if (p.whole[i]) model.changeColIntegrality(i, highs.constants.variableType.integer);
    }
    for (const { at, by, least, most } of p.rows)
      model.addRow(least === Number.NEGATIVE_INFINITY ? -highs.infinity : least, wide(most), {
        indices: Int32Array.from(at),
        values: Float64Array.from(by),
      });
    model.run();
    const status = model.getModelStatus();
    if (status === infeasible || status === unboundedOrInfeasible) return { kind: 'infeasible' };
    const values = [...model.getSolution().colValue];
    const proved = Number(model.info.get('mip_gap'));
    const found = Number(model.info.get('primal_solution_status')) === 2;
    if (!found) return { kind: 'nothing_in_time' };
    if (status !== optimal && status !== timeLimit) throw new Error(`the solver ended with status ${status}`);
    return {
      kind: 'solved',
      values,
      gap: Number.isFinite(proved) ? Math.max(0, proved) : 1,
      inTime: status === optimal,
    };
  });
}

answer(workerData as MipTask).then((solved) => parentPort?.postMessage(solved));
