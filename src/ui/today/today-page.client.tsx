'use client';

import Link from 'next/link';
import { useState } from 'react';
import type { TodayLine, TodayView } from '@/services/today/readToday';
import { useCommand } from '../command/use-command.client';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar } from '../frame/list';
import { Notice } from '../frame/states';
import { WeeksChart } from './weeks-chart.client';
import { lineWords, todayHref, todayWords, wrong } from './words';

/** What must be done now: one line for each list that concerns the person, and six weeks ahead. */
export function TodayPage({ view, at }: { view: TodayView; at: string }) {
  const format = useFormat();
  const { busy, sentence, run } = useCommand();
  const [choosing, setChoosing] = useState(false);
  const set = (line: TodayLine) => {
    const hidden = new Set(view.lines.filter((l) => l.hidden).map((l) => l.matter));
    if (!hidden.delete(line.matter)) hidden.add(line.matter);
    return run('set-today', { hidden: [...hidden] });
  };
  const shown = view.lines.filter((l) => choosing || !l.hidden);
  const quiet = shown.every((l) => l.count === 0);
  return (
    <section className="min-h-0 flex-1 overflow-y-auto bg-sheet">
      <ListBar title={format.date(view.today)} about={quiet ? 'nothing is waiting' : ''}>
        <div className="ml-auto flex items-center gap-3">
          {sentence && (
            <p className="fault" role="alert">
              {sentence}
            </p>
          )}
          <button type="button" className="chip" aria-pressed={choosing} onClick={() => setChoosing(!choosing)}>
            {choosing ? 'Done' : 'What I see'}
          </button>
        </div>
      </ListBar>
      <div className="mx-auto grid max-w-[1180px] grid-cols-[minmax(0,1fr)_minmax(0,420px)] gap-10 px-6 py-5 max-lg:grid-cols-1">
        {shown.length === 0 ? (
          <Notice title="Nothing is chosen">“What I see” brings lines back.</Notice>
        ) : (
          <table className="w-full self-start" aria-label="What waits">
            <thead>
              <tr className="second border-rule-strong border-b text-left">
                {choosing && <th className="w-8" />}
                <th className="figure w-14 pb-1.5 font-normal">How many</th>
                <th className="pb-1.5 pl-4 font-normal">What</th>
                <th className="figure pb-1.5 font-normal">{view.currency}</th>
                <th className="pb-1.5 pl-6 font-normal">When</th>
              </tr>
            </thead>
            <tbody>
              {shown.map((l) => (
                <Row key={l.matter} line={l} view={view} at={at} choosing={choosing} busy={busy} onSet={() => set(l)} />
              ))}
            </tbody>
          </table>
        )}
        {view.weeks && <Weeks weeks={view.weeks} currency={view.currency} />}
      </div>
    </section>
  );
}

function Row(props: {
  line: TodayLine;
  view: TodayView;
  at: string;
  choosing: boolean;
  busy: boolean;
  onSet: () => Promise<unknown>;
}) {
  const { line: l, view } = props;
  const format = useFormat();
  // What was just chosen shows at once.
  const [flipped, setFlipped] = useState(false);
  const words = todayWords[l.matter];
  const due = l.next === null ? null : format.due(l.next, view.today);
  const bad = l.count > 0 && wrong.includes(l.matter);
  const none = l.count === 0;
  return (
    <tr className="border-rule border-b">
      {props.choosing && (
        <td>
          <input
            type="checkbox"
            className="accent-action"
            aria-label={`Show ${words.name}`}
            checked={flipped ? l.hidden : !l.hidden}
            disabled={props.busy}
            onChange={async () => {
              setFlipped(true);
              await props.onSet();
              setFlipped(false);
            }}
          />
        </td>
      )}
      <td
        className={`figure py-2 text-[20px] ${bad ? 'text-stop' : none ? 'text-muted' : ''} ${none ? '' : 'font-semibold'}`}
      >
        {l.count}
      </td>
      <td className="py-2 pl-4">
        <Link
          prefetch={false}
          className={none ? 'text-muted hover:underline' : 'name'}
          href={todayHref(l.matter, props.at)}
          aria-label={lineWords(l, view.today, view.currency, format)}
        >
          {words.name}
        </Link>
        {!words.name.toLowerCase().startsWith(words.of) && (
          <span className="second block">{plural(words.of, l.count * 1_000_000)}</span>
        )}
      </td>
      <td className="figure py-2">
        {l.money === null || none ? '–' : format.amount(l.money, view.currency)}
        {l.money !== null && !none && <span className="second block">{words.money}</span>}
      </td>
      <td className="py-2 pl-6">
        {due ? <span className={due.late > 0 ? 'text-stop' : ''}>{due.text}</span> : '–'}
        {due && <span className="second block">{words.next}</span>}
      </td>
    </tr>
  );
}

/** Six weeks as a chart, and the same as a table. */
function Weeks({ weeks, currency }: { weeks: NonNullable<TodayView['weeks']>; currency: string }) {
  const format = useFormat();
  const cell = (minor: number) => (minor === 0 ? '–' : format.amount(minor, currency));
  return (
    <div>
      <h2 className="head">
        Six weeks <span className="font-normal text-muted">money out in {currency}, items that run short</span>
      </h2>
      <WeeksChart weeks={weeks} currency={currency} />
      <table className="mt-3 w-full" aria-label="Six weeks">
        <thead>
          <tr className="second border-rule border-b text-left">
            <th className="font-normal">From</th>
            <th className="figure font-normal">Ordered</th>
            <th className="figure font-normal">Drafts, trays</th>
            <th className="figure font-normal">Short, coming</th>
            <th className="figure font-normal">Short, nothing</th>
          </tr>
        </thead>
        <tbody>
          {weeks.map((w) => (
            <tr key={w.from} className="border-rule border-b">
              <td className="py-1">{format.date(w.from)}</td>
              <td className="figure">{cell(w.ordered)}</td>
              <td className="figure">{cell(w.planned)}</td>
              <td className="figure">{w.shortComing || '–'}</td>
              <td className={`figure ${w.shortNothing > 0 ? 'font-semibold' : ''}`}>{w.shortNothing || '–'}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="second mt-2">
        Goods without tax on the day they are to be paid; stock of items at a place at their use per day, with something
        on the way or nothing.
      </p>
    </div>
  );
}
