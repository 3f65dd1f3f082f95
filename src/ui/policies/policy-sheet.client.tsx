'use client';

import Link from 'next/link';
import { type KeyboardEvent, useRef, useState } from 'react';
import type { PolicyCell, PolicyItem } from '@/services/planning/readPolicies';
import type { ClientFailure } from '../command/send';
import { useCommand } from '../command/use-command.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar } from '../frame/list';
import { SearchForm } from '../frame/search-form';
import { ListAndPanel, Notice } from '../frame/states';
import { gaugeWords, LevelStrip } from '../marks/level-strip';
import { ReckoningSum } from '../reckoning/reckoning';
import { failureSentence } from '../sentences';

type Draft = { readonly min: string; readonly max: string };
type Place = { readonly item: PolicyItem; readonly row: PolicyCell };
const keyOf = (item: PolicyItem, row: PolicyCell) => `${item.itemId}/${row.locationId ?? 0}`;
const kindWords = { min_max: 'min/max', not_carried: 'not carried', none: 'no policy yet' } as const;

/** The field a refusal belongs to; a minimum above the maximum is the fault of the one that was typed. */
function wrongColumn(failure: ClientFailure | undefined, draft: Draft, row: PolicyCell): string | null {
  if (!failure) return null;
  if (failure.kind !== 'invalid_field') return 'min';
  return failure.fault.kind === 'min_above_max' && draft.max === row.max ? 'min' : failure.field;
}

/** Min and max of every item at every location, edited in place. Enter saves and goes down; grey values come from the
 *  item's own row; emptying a minimum goes back to them. */
export function PolicySheet(props: {
  items: readonly PolicyItem[];
  without: number;
  locations: number;
  search: string;
  at: string;
}) {
  const format = useFormat();
  const { items } = props;
  const [drafts, setDrafts] = useState<ReadonlyMap<string, Draft>>(new Map());
  const [faults, setFaults] = useState<ReadonlyMap<string, ClientFailure>>(new Map());
  const [current, setCurrent] = useState<string | null>(null);
  const { run } = useCommand();
  const sheet = useRef<HTMLTableElement>(null);
  const places: readonly Place[] = items.flatMap((item) => item.rows.map((row) => ({ item, row })));
  const chosen =
    places.find(({ item, row }) => keyOf(item, row) === current) ?? places.find((p) => p.row.gauge !== null);

  const without = <V,>(all: ReadonlyMap<string, V>, key: string) => new Map([...all].filter(([k]) => k !== key));
  const save = async ({ item, row }: Place) => {
    const key = keyOf(item, row);
    const draft = drafts.get(key);
    if (!draft || (draft.min === row.min && draft.max === row.max)) return setDrafts((all) => without(all, key));
    const { itemId } = item;
    const words = `${item.name}, ${row.location}: min ${draft.min || 'inherited'}${draft.max ? `, max ${draft.max}` : ''}`;
    const input = { itemId, locationId: row.locationId, ...draft, was: row.own };
    const outcome = await run('set-min-max', input, { words });
    if (!outcome.ok) return setFaults((all) => new Map(all).set(key, outcome.failure));
    setFaults((all) => without(all, key));
    setDrafts((all) => without(all, key));
  };

  const onKey = (event: KeyboardEvent<HTMLInputElement>, place: Place) => {
    const key = keyOf(place.item, place.row);
    if (event.key === 'Escape') {
      setDrafts((all) => without(all, key));
      setFaults((all) => without(all, key));
    }
    const down = event.key === 'Enter' || event.key === 'ArrowDown';
    if (!down && event.key !== 'ArrowUp') return;
    event.preventDefault();
    const column = event.currentTarget.dataset.column;
    const fields = [...(sheet.current?.querySelectorAll<HTMLInputElement>(`input[data-column="${column}"]`) ?? [])];
    const next = fields[fields.indexOf(event.currentTarget) + (down ? 1 : -1)];
    // Leaving the row saves it.
    if (next) next.focus();
    else if (event.key === 'Enter') save(place);
  };

  return (
    <ListAndPanel label="Reckoning" panel={chosen ? <PolicyPanel place={chosen} /> : null}>
      <ListBar
        title="Policies"
        about={`${countOf(items.length, 'item')} × ${countOf(props.locations, 'location')} · ${props.without} without a policy`}
      >
        <SearchForm action="/policies" search={props.search} at={props.at} />
      </ListBar>
      {items.length === 0 ? (
        <Notice title={`No item has “${props.search}” in its name or number`}>
          <Link className="link" href="/policies">
            Show all items
          </Link>
        </Notice>
      ) : (
        <table ref={sheet} className="sheet">
          <thead>
            <tr>
              <th style={{ width: '36%' }}>Item</th>
              <th>Location</th>
              <th>Policy</th>
              <th className="figure">Min</th>
              <th className="figure">Max</th>
              <th className="figure">Need now</th>
            </tr>
          </thead>
          {items.map((item) => (
            <tbody key={item.itemId}>
              {item.rows.map((row, i) => {
                const key = keyOf(item, row);
                const draft = drafts.get(key) ?? row;
                const failure = faults.get(key);
                const inherited = row.origin === 'item';
                const fault = failure ? failureSentence(failure, format) : null;
                const wrong = wrongColumn(failure, draft, row);
                const field = (column: 'min' | 'max') => (
                  <input
                    data-column={column}
                    inputMode="decimal"
                    placeholder="–"
                    className={`entry cell figure w-20 ${inherited && !drafts.has(key) ? 'font-normal text-muted' : ''}`}
                    aria-label={`${column === 'min' ? 'Minimum' : 'Maximum'} of ${item.name}, ${row.location}`}
                    aria-invalid={wrong === column}
                    value={draft[column]}
                    onFocus={() => setCurrent(key)}
                    onChange={(e) =>
                      setDrafts((all) =>
                        new Map(all).set(key, { min: draft.min, max: draft.max, [column]: e.target.value }),
                      )
                    }
                    onKeyDown={(e) => onKey(e, { item, row })}
                  />
                );
                return (
                  <tr
                    key={key}
                    className={`one ${row.locationId === null ? 'bg-paper' : ''}`}
                    data-current={key === current}
                    onBlur={(e) => {
                      if (!e.currentTarget.contains(e.relatedTarget)) save({ item, row });
                    }}
                  >
                    <td>
                      {i === 0 && (
                        <>
                          <Link className="name" href={`/items/${item.itemId}`} tabIndex={-1}>
                            {item.name}
                          </Link>{' '}
                          <span className="code">{item.number}</span>
                        </>
                      )}
                      {fault && (
                        <span className="fault block text-right" role="alert">
                          {fault}
                        </span>
                      )}
                    </td>
                    <td className={inherited ? 'text-muted' : ''}>{row.location}</td>
                    <td className={inherited ? 'text-muted' : ''}>
                      {row.locationId === null && row.kind === 'none' ? '–' : kindWords[row.kind]}
                      {inherited && <span className="second"> from every location</span>}
                    </td>
                    <td className="figure">{field('min')}</td>
                    <td className="figure">{field('max')}</td>
                    <td className="figure">
                      {row.locationId === null ? '' : row.need === 0 ? '–' : format.quantity(row.need)}
                    </td>
                  </tr>
                );
              })}
            </tbody>
          ))}
        </table>
      )}
    </ListAndPanel>
  );
}

function PolicyPanel({ place: { item, row } }: { place: Place }) {
  const format = useFormat();
  return (
    <div className="grid gap-6">
      <div>
        <div className="mb-4 flex items-baseline justify-between gap-3">
          <h2 className="name text-[16px]">{item.name}</h2>
          <span className="second whitespace-nowrap">{row.location}</span>
        </div>
        <h3 className="head">
          {row.reckoning && row.reckoning.toBuy > 0 ? `Why ${format.quantity(row.reckoning.toBuy)}` : 'Need'}
        </h3>
        {row.reckoning ? (
          <ReckoningSum
            sum={row.reckoning}
            format={format}
            unit={item.unit}
            packName={item.packName ?? item.unit}
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
            in {plural(item.unit, 2_000_000)}: {gaugeWords(row.gauge, format)}
            {row.gauge.min !== null && ` · min ${format.quantity(row.gauge.min)}`}
            {row.gauge.max !== null && ` · max ${format.quantity(row.gauge.max)}`}
          </p>
        </div>
      )}
    </div>
  );
}
