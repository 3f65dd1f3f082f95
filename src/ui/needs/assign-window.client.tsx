'use client';

import { useEffect, useState } from 'react';
import type { SplitView } from '@/services/planning/readSplit';
import { useCommand } from '../command/use-command.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';

const LOOK_AGAIN_MS = 700;

/** What a split ended with, in a sentence. */
export function splitWords(v: Pick<SplitView, 'state' | 'gap' | 'inTime' | 'seconds' | 'lines'>): string {
  switch (v.state) {
    case 'running':
      return `Being worked out, ${countOf(v.seconds, 'second')} at most.`;
    case 'stopped':
      return 'This was stopped, or failed; the needs are as they were.';
    case 'infeasible':
      return 'No assignment reaches every supplier’s minimum. Mark more needs, or accept them as suggested with an order below it.';
    case 'nothing_in_time':
      return 'Nothing was found in the time there is; with fewer needs it is quicker.';
    default:
      return v.inTime && v.gap <= 0.0001
        ? 'The cheapest there is.'
        : `${v.inTime ? '' : 'The time was over. '}At most ${(v.gap * 100).toFixed(1)} % above the cheapest there is.`;
  }
}

/** Needs assigned to suppliers together, beside the first choice for all: worked out by the worker, taken over in one step. */
export function AssignWindow(props: {
  needIds: readonly number[];
  onTaken: (key: string, needIds: readonly number[]) => void;
  onLeave: () => void;
}) {
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const [id, setId] = useState<number | null>(null);
  const [view, setView] = useState<SplitView | null>(null);
  // The needs it was opened for; whoever draws it again hands in another array of the same.
  const [needIds] = useState(props.needIds);
  // Asked once, when the window opens.
  // biome-ignore lint/correctness/useExhaustiveDependencies: run is another function at each rendering.
  useEffect(() => {
    const start = async () => {
      const outcome = await run<{ splitId: number }>('start-split', { needIds }, { refresh: false });
      if (outcome.ok) setId(outcome.value.splitId);
    };
    start();
  }, [needIds]);
  useEffect(() => {
    if (id === null) return;
    let gone = false;
    let timer: ReturnType<typeof setTimeout>;
    const look = async () => {
      const response = await fetch(`/api/reads/split?id=${id}`).catch(() => null);
      if (gone) return;
      const read = response?.ok ? ((await response.json()) as { value: SplitView }).value : null;
      if (read) setView(read);
      if (!read || read.state === 'running') timer = setTimeout(look, LOOK_AGAIN_MS);
    };
    look();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [id]);
  const take = async () => {
    const words = ({ taken }: { taken: readonly number[] }) =>
      `${countOf(taken.length, 'need')} went into trays as assigned`;
    const outcome = await run<{ taken: readonly number[] }>('take-split', { splitId: id }, { refresh: false, words });
    if (outcome.ok) props.onTaken(outcome.key, outcome.value.taken);
  };
  const money = (minor: number) => format.amount(minor, view?.currency ?? 'EUR');
  const { first, best } = view ?? { first: null, best: null };
  const head = 'second text-left font-normal';
  return (
    <Modal title="Split across suppliers" width="w-[860px]" onLeave={props.onLeave}>
      <div className="grid gap-3 p-5">
        <h2 className="text-[15px] font-semibold">
          Split across suppliers <span className="font-normal text-muted">{countOf(needIds.length, 'need')}</span>
        </h2>
        <p role="status">{view ? splitWords(view) : 'Asked for.'}</p>
        {first && (
          <table className="w-full" aria-label="What it costs">
            <thead>
              <tr>
                <th className={head} />
                <th className="second figure font-normal">Goods</th>
                <th className="second figure font-normal">Charges</th>
                <th className="second figure font-normal">Freight</th>
                <th className="second figure font-normal">Orders</th>
                <th className="second figure font-normal">Together, {view?.currency}</th>
              </tr>
            </thead>
            <tbody>
              {(
                [
                  ['First choice for all', first],
                  ['As assigned', best],
                ] as const
              ).map(
                ([name, c]) =>
                  c && (
                    <tr key={name} className="border-rule border-t">
                      <td className="py-1">
                        {name}
                        {c === first &&
                          view?.below.map((b) => (
                            <span key={b.supplier} className="block text-[11.5px] text-attention">
                              {b.supplier}: {money(b.missing)} below its minimum
                            </span>
                          ))}
                      </td>
                      <td className="figure">{money(c.goods)}</td>
                      <td className="figure">{money(c.more)}</td>
                      <td className="figure">{money(c.freight)}</td>
                      <td className="figure">{money(c.orders)}</td>
                      <td className="figure font-semibold">{money(c.total)}</td>
                    </tr>
                  ),
              )}
            </tbody>
          </table>
        )}
        {best && view && (
          <div className="max-h-[46vh] overflow-y-auto">
            <table className="w-full" aria-label="How needs are assigned">
              <thead>
                <tr>
                  <th className={head}>Need</th>
                  <th className={head}>First choice</th>
                  <th className={head}>As assigned</th>
                  <th className={head}>Here on</th>
                </tr>
              </thead>
              <tbody>
                {view.lines.map((l) => (
                  <tr key={l.needId} className={`border-rule border-t ${l.changed ? 'text-muted' : ''}`}>
                    <td className="py-1">
                      {l.item} <span className="second">{l.location}</span>
                      {l.changed && <span className="second block">has changed since and stays as it is</span>}
                    </td>
                    <td>
                      {l.first.supplier}, {format.quantity(l.first.packs)} {plural(l.first.packName, l.first.packs)}
                    </td>
                    <td className={l.moved ? 'font-semibold' : ''}>
                      {l.best
                        ? `${l.best.supplier}, ${format.quantity(l.best.packs)} ${plural(l.best.packName, l.best.packs)}`
                        : '–'}
                    </td>
                    <td>{l.best ? format.date(l.best.arrives) : '–'}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </div>
        )}
        {view && view.left > 0 && (
          <p className="second">{countOf(view.left, 'need')} can be covered by no supplier with a price; they stay.</p>
        )}
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        <div className="flex items-center gap-3">
          <button
            type="button"
            className="btn btn-primary"
            disabled={busy || view?.state !== 'found' || view.taken}
            onClick={take}
          >
            Take it over
          </button>
          <button type="button" className="btn" onClick={props.onLeave}>
            Leave it
          </button>
        </div>
      </div>
    </Modal>
  );
}
