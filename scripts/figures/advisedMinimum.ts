import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { minimumBy, type PlayedCase, playMinimum } from '@/core/simulation';

/** The table of docs/advised-minimum.md: what each method's minimum achieves in the cases of tests/reference/sS-simulation.json.
 *  Run: npx tsx scripts/figures/advisedMinimum.ts */
type Case = {
  kind: string;
  input: {
    policy: string;
    s: number;
    S?: number;
    Q?: number;
    demand: PlayedCase['demand'];
    lead_time: PlayedCase['leadTime'];
  };
};
const file = join(import.meta.dirname, '..', '..', 'tests', 'reference', 'sS-simulation.json');
const { cases } = JSON.parse(readFileSync(file, 'utf8')) as { cases: Case[] };
const seen = new Set<string>();
const percent = (x: number) => `${(100 * x).toFixed(1)} %`;
console.log(
  '| demand a day | lead time in days | lot | method | minimum | cycles without a shortage | handed over at once |',
);
console.log('|---|---|---|---|---|---|---|');
for (const { kind, input } of cases) {
  if (kind !== 'simulation' || input.policy === 'RS') continue;
  const lot = input.Q ?? (input.S as number) - input.s;
  const key = JSON.stringify([input.demand, input.lead_time, lot]);
  if (seen.has(key)) continue;
  seen.add(key);
  const played: PlayedCase = { demand: input.demand, leadTime: input.lead_time, target: 0.95, lot };
  const demand =
    input.demand.type === 'normal' ? `${input.demand.mean} ± ${input.demand.sd}` : `${input.demand.mean}, by the piece`;
  const lead = input.lead_time
    .map((l) => (l.probability === 1 ? `${l.days}` : `${l.days} (${100 * l.probability} %)`))
    .join(', ');
  for (const method of ['formula', 'undershoot', 'advised'] as const) {
    const s = minimumBy(played, method);
    const r = playMinimum(played, s, 300, 11);
    console.log(
      `| ${demand} | ${lead} | ${lot} | ${method} | ${s.toFixed(input.demand.type === 'poisson' ? 0 : 1)} | ${percent(r.cycleService.mean)} | ${percent(r.fillRate.mean)} |`,
    );
  }
}
