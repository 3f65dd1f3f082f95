'use client';

import { useEffect, useState } from 'react';
import type { JobView } from '@/services/work/readJobs';
import { useCommand } from '../command/use-command.client';
import { countOf, type Format } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar, WholeList } from '../frame/list';
import { ProgressBar } from '../frame/progress-bar';
import { Notice } from '../frame/states';
import { useMay } from '../may-context.client';

type Jobs = { readonly jobs: readonly JobView[]; readonly marked: number };
const states: Readonly<Record<JobView['state'], string>> = {
  waiting: 'waits',
  running: 'under way',
  done: 'done',
  failed: 'failed',
  cancelled: 'cancelled',
};

/** Reads again while something is under way; what is shown survives a reload, because the work does not live here. */
function useJobs(first: Jobs): [Jobs, () => Promise<void>] {
  const [jobs, setJobs] = useState(first);
  const read = async () => {
    const response = await fetch('/api/reads/jobs').catch(() => null);
    if (response?.ok) setJobs(((await response.json()) as { value: Jobs }).value);
  };
  const busy = jobs.marked > 0 || jobs.jobs.some((j) => j.state === 'waiting' || j.state === 'running');
  // biome-ignore lint/correctness/useExhaustiveDependencies: read only uses setState.
  useEffect(() => {
    const timer = setInterval(read, busy ? 700 : 5000);
    return () => clearInterval(timer);
  }, [busy]);
  return [jobs, read];
}

/** Work in the background: how far it is, who asked for it, what went wrong; it can be cancelled where that is harmless. */
export function JobsPage({ first }: { first: Jobs }) {
  const format = useFormat();
  const [{ jobs, marked }, read] = useJobs(first);
  const { busy, sentence, run } = useCommand();
  const act = async (name: string, input: unknown) => {
    await run(name, input, { refresh: false });
    await read();
  };
  const active = jobs.filter((j) => j.state === 'waiting' || j.state === 'running').length;
  return (
    <WholeList>
      <ListBar
        title="In the background"
        about={`${active === 0 ? 'nothing under way' : `${countOf(active, 'job')} under way or waiting`} · ${
          marked === 0 ? 'all needs are up to date' : `${format.quantity(marked * 1e6)} needs still to reckon`
        }`}
      >
        <span className="ml-auto">
          <ExportLinks of="Work in the background" path="/api/exports/work" />
        </span>
        <button
          type="button"
          className="btn btn-outline"
          disabled={busy}
          onClick={() => act('start-job', { kind: 'check-needs' })}
        >
          Reckon all needs afresh
        </button>
      </ListBar>
      {sentence && (
        <p className="fault px-4 py-2" role="alert">
          {sentence}
        </p>
      )}
      {jobs.length === 0 ? (
        <Notice title="Nothing has been done in the background yet">
          Large changes are reckoned here, so that nobody has to wait for them.
        </Notice>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th style={{ width: '34%' }}>What</th>
              <th>State</th>
              <th style={{ width: '28%' }}>How far</th>
              <th className="max-sm:hidden">Asked for by</th>
              <th className="w-24" aria-label="Actions" />
            </tr>
          </thead>
          <tbody>
            {jobs.map((j) => (
              <JobRow key={j.id} job={j} format={format} onCancel={() => act('cancel-job', { jobId: j.id })} />
            ))}
          </tbody>
        </table>
      )}
    </WholeList>
  );
}

function JobRow({ job, format, onCancel }: { job: JobView; format: Format; onCancel: () => void }) {
  const { name, steps, done, total, state } = job;
  const mayCancel = useMay('needs.decide');
  const share = total ? Math.min(1, done / total) : state === 'done' ? 1 : 0;
  return (
    <tr className="two">
      <td>
        <span className="name block">{name}</span>
        {job.fault && <span className="fault">{job.fault}</span>}
        {job.attempts > 1 && <span className="second"> · attempt {job.attempts}</span>}
      </td>
      <td className={state === 'failed' ? 'font-semibold text-stop' : ''}>
        {job.cancelWanted && state === 'running' ? 'stops at its next step' : states[state]}
      </td>
      <td>
        <span className="flex items-center gap-2">
          <ProgressBar name={name} share={share} className="inline-block h-[5px] w-28" />
          <span className="second">
            {total === null ? '' : `${format.quantity(done * 1e6)} of ${format.quantity(total * 1e6)} ${steps}`}
          </span>
        </span>
      </td>
      <td className="second max-sm:hidden">{job.who ?? 'Vorrat'}</td>
      <td className="figure">
        {job.canCancel && mayCancel && (
          <button type="button" className="chip" aria-label={`Cancel: ${name}`} onClick={onCancel}>
            Cancel
          </button>
        )}
      </td>
    </tr>
  );
}
