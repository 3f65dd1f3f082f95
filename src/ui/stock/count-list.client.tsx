'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { NamedItem } from '@/services/catalogue/readItemsNamed';
import type { CountsView } from '@/services/stock/readCounts';
import { useCommand } from '../command/use-command.client';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeList } from '../frame/list';
import { Notice } from '../frame/states';
import { BeginCount } from './begin-count.client';
import { countWords } from './words';

/** Counts: what is due by its rhythm, what is being counted, what ended. */
export function CountList(props: { view: CountsView; categories: readonly string[]; first: readonly NamedItem[] }) {
  const { view, first } = props;
  const [beginning, setBeginning] = useState(first.length > 0);
  const due = view.plans.filter((p) => p.nextOn <= view.today).length;
  return (
    <WholeList>
      <ListBar
        title={`${countOf(view.open.length, 'count')} under way`}
        about={due > 0 ? `${countOf(due, 'count')} due` : 'none due'}
      >
        <Link className="link ml-auto" href="/stock/counts/differences" prefetch={false}>
          What counts found
        </Link>
        {view.mayCount && view.places.length > 0 && (
          <button type="button" className="btn btn-primary" onClick={() => setBeginning(true)}>
            Count stock
          </button>
        )}
      </ListBar>
      {view.open.length + view.plans.length === 0 && (
        <Notice title="Nothing is being counted">
          Count a shelf, a category or a few items: once, or again and again in a rhythm of its own.
        </Notice>
      )}
      {view.open.length > 0 && <Counts rows={view.open} />}
      {view.plans.length > 0 && (
        <>
          <h2 className="px-4 pt-6 pb-2 text-[15px] font-semibold">In a rhythm</h2>
          <Plans view={view} />
        </>
      )}
      {view.ended.length > 0 && (
        <>
          <h2 className="px-4 pt-6 pb-2 text-[15px] font-semibold">Ended</h2>
          <Counts rows={view.ended} />
        </>
      )}
      {beginning && <BeginCount {...props} onLeave={() => setBeginning(false)} />}
    </WholeList>
  );
}

function Counts({ rows }: { rows: CountsView['open'] }) {
  const format = useFormat();
  return (
    <table className="sheet">
      <thead>
        <tr>
          <th>Count</th>
          <th>At</th>
          <th>State</th>
          <th className="figure">Counted</th>
          <th className="max-sm:hidden">Begun</th>
        </tr>
      </thead>
      <tbody>
        {rows.map((c) => (
          <tr key={c.id} className="two">
            <td>
              <Link className="name" href={`/stock/counts/${c.id}`} prefetch={false}>
                {c.name}
              </Link>
              <span className="code block">{c.number}</span>
            </td>
            <td>{c.location}</td>
            <td>
              {countWords[c.state]}
              {c.endedBy && <span className="second block">by {c.endedBy}</span>}
            </td>
            <td className="figure">
              {format.quantity(c.counted * 1e6)} <span className="second">of {format.quantity(c.lines * 1e6)}</span>
            </td>
            <td className="max-sm:hidden">
              {format.date(c.businessDate)}
              <span className="second block">by {c.begunBy}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Plans({ view }: { view: CountsView }) {
  const format = useFormat();
  const router = useRouter();
  const { busy, sentence, run } = useCommand();
  const begin = async (planId: number) => {
    const begun = await run<{ countId: number }>('begin-count', { planId });
    if (begun.ok) router.push(`/stock/counts/${begun.value.countId}`);
  };
  return (
    <>
      {sentence && (
        <p className="fault px-4 pb-2" role="alert">
          {sentence}
        </p>
      )}
      <table className="sheet">
        <thead>
          <tr>
            <th>What</th>
            <th>At</th>
            <th>Every</th>
            <th>Next</th>
            <th />
          </tr>
        </thead>
        <tbody>
          {view.plans.map((p) => {
            const due = format.due(p.nextOn, view.today);
            return (
              <tr key={p.id} className="two">
                <td>
                  <span className="name">{p.name}</span>
                  <span className="second block">
                    {p.what === 'category' ? p.category : p.what === 'shelf' ? `shelf ${p.shelf}` : countScopes[p.what]}
                    {p.blind === 1 && ' · blind'}
                  </span>
                </td>
                <td>{p.location}</td>
                <td>{countOf(p.everyDays, 'day')}</td>
                <td className={due.late > 0 ? 'text-stop' : ''}>{due.text}</td>
                <td className="text-right">
                  {view.mayCount && (
                    <span className="flex justify-end gap-2">
                      <button
                        type="button"
                        className="chip"
                        disabled={busy}
                        aria-label={`End the rhythm of ${p.name}`}
                        onClick={() => run('remove-count-plan', { planId: p.id })}
                      >
                        end
                      </button>
                      <button
                        type="button"
                        className="chip font-semibold"
                        disabled={busy}
                        aria-label={`Begin ${p.name}`}
                        onClick={() => begin(p.id)}
                      >
                        begin
                      </button>
                    </span>
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}

const countScopes = { all: 'everything there', marked: 'chosen items', category: '', shelf: '' } as const;
