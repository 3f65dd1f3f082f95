'use client';

import Link from 'next/link';
import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { PolicyLine, PolicySheetHead, PolicySort } from '@/services/planning/readPolicies';
import { noteDone, onUndone } from '../command/done';
import { type ClientFailure, sendCommand } from '../command/send';
import { countOf, type Format, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar } from '../frame/list';
import { SearchForm } from '../frame/search-form';
import { ListAndPanel, Notice } from '../frame/states';
import { Cell, Grid, type Line, ScanSaid } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { useEdits } from '../grid/use-edits.client';
import { sortedBy, useGridView } from '../grid/use-grid-view.client';
import { CourseOfStock } from '../marks/course-of-stock.client';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { useMay } from '../may-context.client';
import { ReckoningSum } from '../reckoning/reckoning';
import { failureSentence } from '../sentences';

type Draft = { readonly min: string; readonly max: string };
const ROW = 37;
const keyOf = (l: PolicyLine) => `${l.itemId}/${l.locationId ?? 0}`;
const kindWords = { min_max: 'min/max', not_carried: 'not carried', none: 'no policy yet' } as const;
const without = <V,>(all: ReadonlyMap<string, V>, key: string) => new Map([...all].filter(([k]) => k !== key));

/** The field a refusal belongs to; a minimum above the maximum is the fault of the one that was typed. */
function wrongColumn(failure: ClientFailure | undefined, draft: Draft, row: PolicyLine): string | null {
  if (!failure) return null;
  if (failure.kind !== 'invalid_field') return 'min';
  return failure.fault.kind === 'min_above_max' && draft.max === row.max ? 'min' : failure.field;
}

/** Min and max of every item at every location, edited in place. Leaving a row saves it, Enter goes down; grey values come
 *  from the item's own line; emptying a minimum goes back to them. */
export function PolicySheet(props: {
  head: PolicySheetHead;
  first: readonly PolicyLine[];
  search: string;
  at: string;
  sort: PolicySort;
}) {
  const { head } = props;
  const format = useFormat();
  const mayEdit = useMay('policies.edit');
  const width = 1 + head.locations;
  // The first line of an item is its line for every location; one comes in, and scans go, beside the first place.
  const firstPlace = Math.min(1, head.locations);
  const view = useGridView('policies', head, props.first, {
    start: firstPlace,
    idOf: (r) => r.itemId,
    rowOf: (item) => item * width + firstPlace,
  });
  const { again, rowAt, grid } = view;
  const drafts = useEdits<string, Draft>();
  const [faults, setFaults] = useState<ReadonlyMap<string, ClientFailure>>(new Map());
  const chosen = rowAt(view.current);
  const ofItem = (index: number) => index - (index % width);

  const saved = useRef(new Map<string, number>());
  useEffect(
    () =>
      onUndone((key) => {
        const index = saved.current.get(key);
        if (index !== undefined) again(index - (index % width), index + 1);
      }),
    [again, width],
  );

  const save = async (index: number) => {
    const row = rowAt(index);
    const draft = row && drafts.get(keyOf(row));
    if (!row || !draft) return;
    const key = keyOf(row);
    if (draft.min === row.min && draft.max === row.max) return drafts.drop(key);
    const input = { itemId: row.itemId, locationId: row.locationId, ...draft, was: row.own };
    const outcome = await sendCommand('set-min-max', input, 'until_sent');
    if (!outcome.ok) return setFaults((all) => new Map(all).set(key, outcome.failure));
    saved.current.set(outcome.key, index);
    const words = `${row.name}, ${row.location}: min ${draft.min || 'inherited'}${draft.max ? `, max ${draft.max}` : ''}`;
    noteDone({ key: outcome.key, words });
    // What holds everywhere shows in the lines of the places.
    await again(ofItem(index), row.locationId === null ? ofItem(index) + width : index + 1);
    setFaults((all) => without(all, key));
    // Unless something else was typed meanwhile.
    drafts.drop(key, (typed) => typed === draft);
  };

  const onKey = (event: KeyboardEvent, row: PolicyLine, index: number) => {
    const key = keyOf(row);
    const column = event.target instanceof HTMLInputElement ? event.target.dataset.column : undefined;
    if (event.key === 'Escape') {
      drafts.drop(key);
      setFaults((all) => without(all, key));
      grid.current?.focus(index);
    } else if (event.key === 'Enter' && !(event.target instanceof HTMLAnchorElement)) {
      event.preventDefault();
      if (column === undefined) grid.current?.focus(index, 'min');
      else if (index + 1 < head.count) grid.current?.focus(index + 1, column);
      else save(index);
    } else if (mayEdit && column === undefined && /^\d$/.test(event.key)) {
      event.preventDefault();
      flushSync(() => drafts.put(key, { min: event.key, max: drafts.get(key)?.max ?? row.max }));
      grid.current?.focus(index, 'min', 'end');
    }
  };

  const line = (row: PolicyLine): Line => ({
    className: row.locationId === null ? 'bg-paper' : '',
    cells: (
      <PolicyCells
        row={row}
        format={format}
        draft={drafts.get(keyOf(row))}
        failure={faults.get(keyOf(row))}
        onType={(draft) => drafts.put(keyOf(row), draft)}
      />
    ),
  });

  return (
    <ListAndPanel label="Reckoning" panel={chosen ? <PolicyPanel row={chosen} /> : null} fixed>
      <ListBar
        title="Policies"
        about={`${countOf(head.items, 'item')} × ${countOf(head.locations, 'location')} · ${head.without} without a policy`}
      >
        <ScanSaid text={view.said} code={view.unknown} />
        <SearchForm action="/policies" search={props.search} at={props.at} />
        <ExportLinks of="Policies" path={`/api/exports/policies?list=${head.list}`} />
        <KeysHelp
          keys={[
            ['↑ ↓', 'move'],
            ['Page ↑ ↓', 'move by a page'],
            ['Home, End', 'first, last'],
            ['0 … 9', 'start a minimum'],
            ['Enter', 'into the minimum; in a field: save and go down'],
            ['Esc', 'back to what was there'],
            ['a scan', 'to the lines of that item'],
          ]}
        />
      </ListBar>
      {head.count === 0 ? (
        <Notice title={`No item has “${props.search}” in its name or number`}>
          <Link className="link" href="/policies">
            Show all items
          </Link>
        </Notice>
      ) : (
        <Grid
          {...view.props}
          label="Policies"
          rowHeight={ROW}
          columns="policy-columns"
          sorted={{ by: props.sort, href: sortedBy('/policies', { q: props.search, at: props.at }) }}
          heads={[
            { text: 'Item', sort: 'name' },
            { text: 'Location', className: 'max-sm:hidden' },
            { text: 'Policy', className: 'max-sm:hidden' },
            { text: 'Min', className: 'figure pr-2' },
            { text: 'Max', className: 'figure pr-2' },
            { text: 'Need now', className: 'figure max-sm:hidden' },
          ]}
          line={line}
          onKey={onKey}
          onLeaveRow={save}
        />
      )}
    </ListAndPanel>
  );
}

function PolicyCells({
  row,
  format,
  draft,
  failure,
  onType,
}: {
  row: PolicyLine;
  format: Format;
  draft: Draft | undefined;
  failure: ClientFailure | undefined;
  onType: (draft: Draft) => void;
}) {
  const shown = draft ?? row;
  const inherited = row.origin === 'item';
  const quiet = inherited ? 'text-muted' : '';
  const wrong = wrongColumn(failure, shown, row);
  const mayEdit = useMay('policies.edit');
  const field = (column: 'min' | 'max') => (
    <input
      data-column={column}
      inputMode="decimal"
      placeholder="–"
      className={`entry cell figure w-full max-w-20 ${inherited && !draft ? 'font-normal text-muted' : ''}`}
      aria-label={`${column === 'min' ? 'Minimum' : 'Maximum'} of ${row.name}, ${row.location}`}
      aria-invalid={wrong === column}
      value={shown[column]}
      readOnly={!mayEdit}
      onChange={(e) => onType({ min: shown.min, max: shown.max, [column]: e.target.value })}
    />
  );
  return (
    <>
      <Cell className="flex items-center justify-between gap-2 leading-tight">
        <span className="min-w-0">
          {row.locationId === null ? (
            <>
              <Link className="name" href={`/items/${row.itemId}`} tabIndex={-1} prefetch={false}>
                {row.name}
              </Link>{' '}
              <span className="code whitespace-nowrap">{row.number}</span>
            </>
          ) : (
            <span className={`sm:hidden ${quiet}`}>{row.location}</span>
          )}
        </span>
        {failure && (
          <span className="fault text-right" role="alert">
            {failureSentence(failure, format)}
          </span>
        )}
      </Cell>
      <Cell className={`max-sm:hidden ${quiet}`}>{row.location}</Cell>
      <Cell className={`leading-tight max-sm:hidden ${quiet}`}>
        {row.locationId === null && row.kind === 'none' ? '–' : kindWords[row.kind]}
        {inherited && <span className="second"> from every location</span>}
      </Cell>
      <Cell className="figure">{field('min')}</Cell>
      <Cell className="figure">{field('max')}</Cell>
      <Cell className="figure max-sm:hidden">
        {row.locationId === null ? '' : row.need === 0 ? '–' : format.quantity(row.need)}
      </Cell>
    </>
  );
}

function PolicyPanel({ row }: { row: PolicyLine }) {
  const format = useFormat();
  return (
    <div className="grid gap-6">
      <div>
        <div className="mb-4 flex items-baseline justify-between gap-3">
          <h2 className="name text-[16px]">{row.name}</h2>
          <span className="second whitespace-nowrap">{row.location}</span>
        </div>
        <h3 className="head">
          {row.reckoning && row.reckoning.toBuy > 0 ? `Why ${format.quantity(row.reckoning.toBuy)}` : 'Need'}
        </h3>
        {row.reckoning ? (
          <ReckoningSum
            sum={row.reckoning}
            format={format}
            unit={row.unit}
            packName={row.packName ?? row.unit}
            origins={{}}
          />
        ) : (
          <p className="second">
            {row.locationId === null
              ? 'What is set here holds at every location that has nothing of its own.'
              : row.kind === 'not_carried'
                ? 'Not carried here: no need is ever raised.'
                : 'No policy yet: enter a minimum, and a maximum to refill to.'}
          </p>
        )}
      </div>
      {row.gauge && (
        <div>
          <h3 className="head">Here now</h3>
          <LevelStrip gauge={row.gauge} format={format} id="panel" />
          <p className="second mt-1">
            in {plural(row.unit, 2_000_000)}: {gaugeWords(row.gauge, format)}
            {row.gauge.min !== null && ` · min ${format.quantity(row.gauge.min)}`}
            {row.gauge.max !== null && ` · max ${format.quantity(row.gauge.max)}`}
          </p>
        </div>
      )}
      {row.locationId !== null && <CourseOfStock itemId={row.itemId} locationId={row.locationId} unit={row.unit} />}
    </div>
  );
}
