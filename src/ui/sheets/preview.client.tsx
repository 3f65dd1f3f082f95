'use client';

import Link from 'next/link';
import type { ReactNode } from 'react';
import type { Value } from '@/core/sheets';
import type { ImportDetail, StagedView } from '@/services/sheets/readImports';
import { useFormat } from '../format-context.client';
import { ListAndPanel } from '../frame/states';
import { rowFaultSentence } from './fault-sentences';

export type RowState = StagedView['state'];

const tabs: readonly (readonly [RowState, string])[] = [
  ['wrong', 'wrong'],
  ['changed', 'changed'],
  ['new', 'new'],
  ['unchanged', 'unchanged'],
];

const places: Readonly<Record<string, readonly [string, string]>> = {
  items: ['/items', 'See the items'],
  policies: ['/policies', 'See the policies'],
  orders: ['/orders', 'See the orders'],
  'customer-orders': ['/promises', 'See who waits'],
  'opening-stock': ['/items', 'See the items with their stock'],
};

const words = (v: Value): string =>
  v === null || v === '' ? 'empty' : v === true ? 'yes' : v === false ? 'no' : String(v);

/** What a file would do, row by row, before anything is changed; afterwards what it has done. */
export function Preview(props: {
  detail: ImportDetail;
  head: ReactNode;
  fault: string;
  busy: boolean;
  onShow: (state: RowState) => void;
  onApply: () => void;
  onCancel: () => void;
  onRemap: () => void;
}) {
  const { detail, head, busy } = props;
  const { import: i, shown, rows } = detail;
  const counts: Readonly<Record<RowState, number>> = {
    wrong: i.wrongRows,
    changed: i.changedRows,
    new: i.newRows,
    unchanged: i.unchangedRows,
  };
  return (
    <ListAndPanel label="What to do" panel={<Doing {...props} />}>
      {head}
      <fieldset className="flex flex-wrap gap-2 px-4 py-2">
        <legend className="sr-only">Rows to show</legend>
        {tabs.map(([state, name]) => (
          <button
            key={state}
            type="button"
            className="chip"
            aria-pressed={shown === state}
            disabled={busy}
            onClick={() => props.onShow(state)}
          >
            {counts[state]} {name}
          </button>
        ))}
      </fieldset>
      {counts[shown] === 0 ? (
        <p className="second px-4 py-6">No row is {shown}.</p>
      ) : (
        <table className="sheet">
          <thead>
            <tr>
              <th className="figure w-16">Row</th>
              <th className="w-1/4">{detail.columns[0]?.title}</th>
              <th>{shown === 'wrong' ? 'What is wrong' : shown === 'changed' ? 'Before and after' : 'What it says'}</th>
            </tr>
          </thead>
          <tbody>
            {rows.map((r) => (
              <Row key={r.rowNo} row={r} detail={detail} />
            ))}
          </tbody>
        </table>
      )}
      {rows.length > 0 && counts[shown] > rows.length && (
        <p className="second px-4 py-3">The first {rows.length} are shown.</p>
      )}
    </ListAndPanel>
  );
}

function Row({ row, detail }: { row: StagedView; detail: ImportDetail }) {
  const format = useFormat();
  const title = (key: string) => detail.columns.find((c) => c.key === key)?.title ?? key;
  const [first, ...others] = detail.columns.filter((c) => c.required).map((c) => c.key);
  const says = (key: string | undefined) => (key === undefined ? '' : words(row.values[key] ?? null));
  const told = Object.entries(row.values).filter(([k, v]) => v !== null && v !== '' && k !== first);
  return (
    <tr className="one align-top">
      <td className="figure second">{row.rowNo}</td>
      <td>
        <span className="name block break-words">{says(first)}</span>
        {(row.state === 'wrong' || row.state === 'changed') && (
          <span className="second">
            {others
              .slice(0, 2)
              .map((k) => says(k))
              .filter((t) => t !== 'empty')
              .join(' · ')}
          </span>
        )}
      </td>
      <td>
        {row.state === 'wrong' && (
          <ul>
            {row.faults.map((f) => (
              <li key={f.column} className="fault">
                {rowFaultSentence(f, title, format)}
              </li>
            ))}
          </ul>
        )}
        {row.state === 'changed' && (
          <ul>
            {row.changes.map((c) => (
              <li key={c.column}>
                <span className="second">{title(c.column)}:</span> <s className="second">{words(c.before)}</s>{' '}
                <span aria-hidden="true">→</span> <span className="font-semibold">{words(c.after)}</span>
              </li>
            ))}
          </ul>
        )}
        {(row.state === 'new' || row.state === 'unchanged') && (
          <span className="second">{told.map(([k, v]) => `${title(k)} ${words(v)}`).join(' · ')}</span>
        )}
      </td>
    </tr>
  );
}

function Doing({ detail, fault, busy, onApply, onCancel, onRemap }: Parameters<typeof Preview>[0]) {
  const { import: i } = detail;
  const writes = i.newRows + i.changedRows;
  const place = places[i.kind];
  if (i.state === 'applied') {
    return (
      <section className="grid gap-3">
        <h2 className="head">Brought in</h2>
        <p role="status">
          {i.newRows} new, {i.changedRows} changed
          {i.unchangedRows > 0 ? `; ${i.unchangedRows} were as they are on file` : ''}
          {i.wrongRows > 0 ? `; ${i.wrongRows} wrong rows stayed out` : ''}.
        </p>
        <Faulty detail={detail} />
        <div className="flex flex-wrap gap-4">
          {place && (
            <Link className="link" href={place[0]}>
              {place[1]}
            </Link>
          )}
          <Link className="link" href="/sheets">
            Bring the next file
          </Link>
        </div>
      </section>
    );
  }
  return (
    <section className="grid gap-3">
      <h2 className="head">Before anything changes</h2>
      <dl className="grid grid-cols-[auto_1fr] gap-x-3 gap-y-1">
        <dt className="figure font-semibold">{i.newRows}</dt>
        <dd>new</dd>
        <dt className="figure font-semibold">{i.changedRows}</dt>
        <dd>change what is on file</dd>
        <dt className="figure font-semibold">{i.unchangedRows}</dt>
        <dd>are on file just so</dd>
        <dt className="figure font-semibold">{i.wrongRows}</dt>
        <dd>are wrong and stay out</dd>
      </dl>
      <Faulty detail={detail} />
      {fault && (
        <p className="fault" role="alert">
          {fault}
        </p>
      )}
      <div className="flex flex-wrap gap-3">
        {i.state === 'checked' && writes > 0 && (
          <button type="button" className="btn btn-primary" disabled={busy} onClick={onApply}>
            Bring in {writes} {writes === 1 ? 'row' : 'rows'}
          </button>
        )}
        <button type="button" className="btn btn-outline" disabled={busy} onClick={onRemap}>
          {i.state === 'refused' ? 'Check again' : 'Read it differently'}
        </button>
        <button type="button" className="btn btn-outline" disabled={busy} onClick={onCancel}>
          Let it go
        </button>
      </div>
      <p className="second">
        {writes === 0 && i.state === 'checked'
          ? 'No row is new or changed: there is nothing to bring in.'
          : 'All of it is written at once or, if something has changed meanwhile, nothing.'}
      </p>
    </section>
  );
}

const Faulty = ({ detail: { import: i } }: { detail: ImportDetail }) =>
  i.wrongRows > 0 ? (
    <p>
      <a className="link" href={`/api/imports/${i.id}/faulty`} download>
        The {i.wrongRows} wrong {i.wrongRows === 1 ? 'row' : 'rows'} as a file
      </a>{' '}
      <span className="second">to mend and bring again</span>
    </p>
  ) : null;
