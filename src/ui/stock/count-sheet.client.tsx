'use client';

import Link from 'next/link';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { entryText, parseQuantity } from '@/core/quantity';
import type { EnteredLine } from '@/services/stock/countFigures';
import type { PostedCount } from '@/services/stock/postCount';
import type { CountedLine, CountView } from '@/services/stock/readCounts';
import { sendCommand } from '../command/send';
import { useCommand } from '../command/use-command.client';
import { countOf, type Format, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar, WholeList } from '../frame/list';
import { takeScans } from '../grid/scans';
import { type FieldItem, ItemField, itemOfCode } from '../items/item-field.client';
import { failureSentence } from '../sentences';
import { CountFile } from './count-file.client';
import { countWords, crossedWords } from './words';

type Round = 'first' | 'again';
/** What a field holds beside what is saved, and what came of saving it. */
type Draft = { readonly text: string; readonly fault: string };
const keyOf = (itemId: number, round: Round) => `${itemId}/${round}`;

/** A count: each line with what was found, again where it is far off; posted as one document. */
export function CountSheet({ view }: { view: CountView }) {
  const format = useFormat();
  const { busy, sentence, failure, run } = useCommand();
  const [rows, setRows] = useState<readonly CountedLine[]>(view.rows);
  useEffect(() => setRows(view.rows), [view.rows]);
  const [drafts, setDrafts] = useState<ReadonlyMap<string, Draft>>(new Map());
  const [only, setOnly] = useState<'all' | 'open' | 'off'>('all');
  const [countedAt, setCountedAt] = useState('');
  const [said, setSaid] = useState<readonly string[]>([]);
  const [field, setField] = useState(1);
  const body = useRef<HTMLDivElement>(null);
  const [go, setGo] = useState<number | null>(null);
  /** The hand came by a scan or a name: after the figure it goes back to where the next one is taken. */
  const byScan = useRef(false);
  const hidden = view.blind === 1 && view.state === 'open';
  const counted = rows.filter((r) => r.counted !== null).length;
  const second = rows.filter((r) => r.step === 'second').length;
  const worth = rows.reduce((a, r) => a + r.worth, 0);
  const shown = rows.filter((r) =>
    only === 'all' ? true : only === 'open' ? r.step !== 'done' : r.step === 'second' || (r.difference ?? 0) !== 0,
  );

  const put = (itemId: number, round: Round, draft: Draft | null) =>
    setDrafts((all) => {
      const next = new Map(all);
      if (draft) next.set(keyOf(itemId, round), draft);
      else next.delete(keyOf(itemId, round));
      return next;
    });
  const save = async (row: CountedLine, round: Round) => {
    const draft = drafts.get(keyOf(row.itemId, round));
    if (!draft) return;
    const was = round === 'first' ? row.counted : row.again;
    const typed = parseQuantity(draft.text);
    if (draft.text.trim() === (was === null ? '' : entryText(was)) || (typed.ok && typed.value === was))
      return put(row.itemId, round, null);
    const outcome = await sendCommand<{ lines: readonly EnteredLine[] }>('enter-count', {
      ...{ countId: view.id, countedAt },
      lines: [{ itemId: row.itemId, round, quantity: draft.text }],
    });
    if (!outcome.ok) return put(row.itemId, round, { ...draft, fault: failureSentence(outcome.failure, format) });
    const came = outcome.value.lines[0];
    const found = typed.ok ? typed.value : null;
    setRows((all) =>
      all.map((r) =>
        r.itemId !== row.itemId
          ? r
          : {
              ...{ ...r, ...(round === 'first' ? { counted: found, again: null } : { again: found }) },
              ...(came
                ? { step: came.step, expected: came.expected, difference: came.difference, worth: came.worth }
                : {}),
            },
      ),
    );
    put(row.itemId, round, null);
  };

  const goTo = (item: Pick<FieldItem, 'id' | 'name' | 'number' | 'unit'>) => {
    byScan.current = true;
    setOnly('all');
    setRows((all) => (all.some((r) => r.itemId === item.id) ? all : [...all, unlisted(item, all.length + 1)]));
    setGo(item.id);
  };
  useEffect(() => {
    if (go === null) return;
    const fields = body.current?.querySelectorAll<HTMLInputElement>(`input[data-item="${go}"]`);
    const last = fields?.[fields.length - 1];
    last?.focus();
    last?.select();
    last?.scrollIntoView({ block: 'center' });
    setGo(null);
  }, [go]);
  const scanned = useRef((_: string) => {});
  scanned.current = async (code: string) => {
    const item = await itemOfCode(code);
    if (item === null) setSaid([`The code ${code} could not be looked up.`]);
    else if (item === 'unknown') setSaid([`Nothing has the code ${code}.`]);
    else goTo(item);
  };
  useEffect(() => {
    if (view.mayCount) return takeScans({ take: (code) => scanned.current(code) });
  }, [view.mayCount]);
  /** Enter saves and goes to the next figure, or back to the field for the next item. */
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    if (event.key !== 'Enter') return;
    event.preventDefault();
    const all = [...(body.current?.querySelectorAll<HTMLInputElement>('input[data-count]') ?? [])];
    const next = byScan.current
      ? body.current?.querySelector<HTMLInputElement>('[data-find] input')
      : all[all.indexOf(event.currentTarget) + 1];
    byScan.current = false;
    if (next) next.focus();
    else event.currentTarget.blur();
  };

  const post = async (asCounted: boolean) => {
    const outcome = await run<PostedCount>('post-count', { countId: view.id, asCounted });
    if (!outcome.ok) return;
    const { crossed, released } = outcome.value;
    setSaid([
      ...crossed.map((c) => crossedWords(c, format)),
      ...released.map((r) => `${format.quantity(r.quantity)} promised to ${r.promisedTo} could not be kept.`),
    ]);
  };
  const entry = (row: CountedLine, round: Round) => {
    const draft = drafts.get(keyOf(row.itemId, round));
    const value = round === 'first' ? row.counted : row.again;
    const label = round === 'first' ? `Counted ${row.name}` : `Counted again ${row.name}`;
    if (!view.mayCount) return value === null ? '–' : format.quantity(value);
    return (
      <>
        <input
          data-count
          data-item={row.itemId}
          className="entry figure w-20 max-sm:h-10"
          inputMode="decimal"
          aria-label={label}
          aria-invalid={draft !== undefined && draft.fault !== ''}
          value={draft?.text ?? (value === null ? '' : entryText(value))}
          onChange={(e) => put(row.itemId, round, { text: e.target.value, fault: '' })}
          onKeyDown={onKey}
          onBlur={() => save(row, round)}
        />
        {draft?.fault && (
          <span className="fault block" role="alert">
            {draft.fault}
          </span>
        )}
      </>
    );
  };
  const anyAgain = rows.some((r) => r.again !== null || (view.mayCount && r.step === 'second'));
  return (
    <WholeList>
      <ListBar title={view.name} about={`${view.location} · ${countWords[view.state]}`}>
        <span className="second">
          {countOf(counted, 'line')} of {format.quantity(rows.length * 1e6)} counted
          {!hidden && worth !== 0 && ` · differences ${signed(worth, view.currency, format)}`}
        </span>
        <span className="ml-auto flex flex-wrap items-center gap-3">
          <Link className="link" href={`/counts/${view.id}/print`} prefetch={false}>
            Paper
          </Link>
          <ExportLinks of="Count" path={`/api/exports/count?id=${view.id}`} />
          {view.mayCount && (
            <>
              <button
                type="button"
                className="btn btn-outline"
                disabled={busy}
                onClick={() => run('drop-count', { countId: view.id })}
              >
                Drop it
              </button>
              <button
                type="button"
                className="btn btn-primary"
                disabled={busy || counted === 0}
                title={counted === 0 ? 'Nothing is counted yet' : 'Posted at once; another count puts it right'}
                onClick={() => post(false)}
              >
                Post {countOf(counted, 'line')}
              </button>
            </>
          )}
        </span>
      </ListBar>
      <div ref={body}>
        {view.mayCount && (
          <div className="flex flex-wrap items-start gap-x-4 gap-y-2 border-b border-rule px-4 py-2">
            <div data-find className="min-w-64 flex-1">
              <ItemField
                key={field}
                label="Item that is counted"
                placeholder="scan, or type a name or number"
                taken={null}
                onTake={(item) => {
                  if (item) goTo(item);
                  setField(field + 1);
                }}
              />
            </div>
            <label className="flex items-center gap-1.5">
              <span className="second">counted at</span>
              <input
                className="entry w-20"
                placeholder="now"
                title="When the figures were taken, like 9:40; what has moved since then is left out of the difference"
                value={countedAt}
                onChange={(e) => setCountedAt(e.target.value)}
              />
            </label>
            <label className="flex items-center gap-1.5">
              <span className="second">show</span>
              <select className="entry" value={only} onChange={(e) => setOnly(e.target.value as typeof only)}>
                <option value="all">all lines</option>
                <option value="open">not counted yet</option>
                <option value="off">{hidden ? 'to count again' : 'different'}</option>
              </select>
            </label>
            <CountFile countId={view.id} countedAt={countedAt} />
          </div>
        )}
        {(sentence || said.length > 0) && (
          <div className="px-4 py-2">
            {sentence && (
              <p className="fault" role="alert">
                {sentence}{' '}
                {failure?.kind === 'count_again' && (
                  <button type="button" className="chip ml-2" disabled={busy} onClick={() => post(true)}>
                    Post as counted
                  </button>
                )}
              </p>
            )}
            {said.map((s) => (
              <p key={s} role="status">
                {s}
              </p>
            ))}
          </div>
        )}
        {second > 0 && view.mayCount && (
          <p className="px-4 pt-2 text-attention">{countOf(second, 'line')} far off: count again.</p>
        )}
        <table className="sheet">
          <thead>
            <tr>
              <th className="min-w-20 max-sm:hidden">Shelf</th>
              <th className="sm:min-w-80">Item</th>
              {!hidden && <th className="figure min-w-24 max-sm:hidden">Expected</th>}
              <th className="figure min-w-24">Counted</th>
              {anyAgain && <th className="figure min-w-24">Again</th>}
              {!hidden && <th className="figure min-w-28">Difference</th>}
              {!hidden && <th className="min-w-40 max-md:hidden">Why</th>}
              <th className="w-full max-sm:hidden" />
            </tr>
          </thead>
          <tbody>
            {shown.map((r) => (
              <tr key={r.itemId} className="two">
                <td className="code max-sm:hidden">{r.shelf || '–'}</td>
                <td>
                  <Link className="name" href={`/items/${r.itemId}`} prefetch={false} tabIndex={-1}>
                    {r.name}
                  </Link>
                  <span className="second block">
                    <span className="code">{r.number}</span> · {plural(r.unit, 2e6)}
                    {r.shelf && <span className="sm:hidden"> · {r.shelf}</span>}
                  </span>
                </td>
                {!hidden && (
                  <td className="figure max-sm:hidden">{r.expected === null ? '–' : format.quantity(r.expected)}</td>
                )}
                <td className="figure">{entry(r, 'first')}</td>
                {anyAgain && (
                  <td className="figure">
                    {r.again !== null || (view.mayCount && r.step === 'second') ? entry(r, 'again') : ''}
                  </td>
                )}
                {!hidden && (
                  <td className="figure">
                    <Difference row={r} currency={view.currency} format={format} />
                  </td>
                )}
                {!hidden && (
                  <td className="max-md:hidden">
                    {r.use && (r.difference ?? 0) !== 0 ? (
                      <span className="second">use that nobody recorded</span>
                    ) : (
                      <Why row={r} view={view} />
                    )}
                  </td>
                )}
                <td className="max-sm:hidden" />
              </tr>
            ))}
          </tbody>
        </table>
        {shown.length === 0 && <p className="second px-4 py-6">No such line.</p>}
      </div>
    </WholeList>
  );
}

const signed = (minor: number, currency: string, format: Format) =>
  `${minor > 0 ? '+' : ''}${format.money(minor, currency)}`;

function Difference({ row, currency, format }: { row: CountedLine; currency: string; format: Format }) {
  if (row.difference === null) return '–';
  if (row.difference === 0) return <span className="second">none</span>;
  return (
    <>
      <span className={row.difference < 0 && !row.use ? 'font-semibold text-stop' : 'font-semibold'}>
        {row.difference > 0 ? '+' : ''}
        {format.quantity(row.difference)}
      </span>
      <span className="second block">{signed(row.worth, currency, format)}</span>
    </>
  );
}

/** Why a line differs, saved as it is chosen. */
function Why({ row, view }: { row: CountedLine; view: CountView }) {
  const format = useFormat();
  const [reasonId, setReason] = useState(row.reasonId);
  const [fault, setFault] = useState('');
  if ((row.difference ?? 0) === 0) return null;
  const name = view.reasons.find((r) => r.id === reasonId)?.name ?? '–';
  if (!view.mayCount) return <span>{name}</span>;
  const save = async (id: number | null) => {
    setReason(id);
    const input = { countId: view.id, itemId: row.itemId, reasonId: id, note: row.note };
    const outcome = await sendCommand('reason-of-count', input);
    setFault(outcome.ok ? '' : failureSentence(outcome.failure, format));
  };
  return (
    <>
      <select
        className="entry"
        aria-label={`Why ${row.name} differs`}
        value={reasonId ?? ''}
        onChange={(e) => save(Number(e.target.value) || null)}
      >
        <option value="">why?</option>
        {view.reasons.map((r) => (
          <option key={r.id} value={r.id}>
            {r.name}
          </option>
        ))}
      </select>
      {fault && <span className="fault block">{fault}</span>}
    </>
  );
}

/** A line for an item that was not on the sheet. */
const unlisted = (item: Pick<FieldItem, 'id' | 'name' | 'number' | 'unit'>, lineNo: number): CountedLine => ({
  ...{ lineNo, itemId: item.id, number: item.number, name: item.name, unit: item.unit, shelf: '' },
  ...{ counted: null, countedBy: null, again: null, againBy: null, expected: null, difference: null, worth: 0 },
  ...{ step: 'first', reasonId: null, note: '', use: false },
});
