'use client';

import Link from 'next/link';
import { type KeyboardEvent, useEffect, useMemo, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import type { SetRule } from '@/core/policy';
import type { PolicyLine, PolicySheetHead } from '@/services/planning/readPolicies';
import type { RuleValues } from '@/services/planning/readRuleValues';
import type { ViewLink } from '@/services/views/readViews';
import { noteDone, onUndone } from '../command/done';
import { sendCommand } from '../command/send';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar } from '../frame/list';
import { ListAndPanel, Notice } from '../frame/states';
import { Grid, type Line, ScanSaid } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { sortedBy, useGridView } from '../grid/use-grid-view.client';
import { useMay } from '../may-context.client';
import { failureSentence, faultSentence } from '../sentences';
import { SavedViews } from '../views/saved-views.client';
import { fieldOf } from './cells';
import { PolicyBar, useEffectOf } from './policy-bar.client';
import { PolicyFilters, type PolicyQuery, policiesHref } from './policy-filters.client';
import { PolicyPanel } from './policy-panel.client';
import { PolicyRow } from './policy-row';
import { SetByRule } from './set-by-rule.client';
import { usePolicyCells } from './use-policy-cells.client';
import { type CellChange, type Drafts, editsOf, keyOf, usePolicyDrafts } from './use-policy-drafts.client';

const ROW = 37;
const heads = [
  { text: 'Item', sort: 'name' },
  { text: 'Location', className: 'max-sm:hidden' },
  { text: 'Policy', className: 'max-sm:hidden' },
  { text: 'Min', className: 'figure pr-2' },
  { text: 'Max', className: 'figure pr-2' },
  { text: 'Sold a day', className: 'figure wrap max-sm:hidden' },
  { text: 'Days covered', className: 'figure wrap max-sm:hidden' },
  { text: 'Class', className: 'max-sm:hidden' },
  { text: 'Need now', className: 'figure wrap max-sm:hidden' },
];

/** The policy of every item at every location, worked in like a spreadsheet: cells are changed, filled, pasted and set by rule,
 *  seen with what they would do, and saved together. */
export function PolicySheet(props: {
  head: PolicySheetHead;
  first: readonly PolicyLine[];
  query: PolicyQuery;
  categories: readonly string[];
  suppliers: readonly { readonly code: string; readonly name: string }[];
  makers: readonly string[];
  buyers: readonly { readonly id: number; readonly name: string }[];
  saved: readonly ViewLink[];
}) {
  const { head, query } = props;
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
  const sheet = usePolicyDrafts();
  const { drafts } = sheet;
  const effect = useEffectOf(drafts);
  const [busy, setBusy] = useState(false);
  const [sentence, setSentence] = useState<string | null>(null);
  const chosen = rowAt(view.current);

  const faults = useMemo(() => {
    const found = new Map<string, Map<string, string>>();
    const rows = [...drafts.values()];
    for (const f of effect?.faults ?? []) {
      const draft = rows[f.row];
      if (!draft) continue;
      const key = keyOf(draft);
      const own = found.get(key) ?? new Map<string, string>();
      own.set(f.column, faultSentence(f.fault, format));
      found.set(key, own);
    }
    return found;
  }, [effect, drafts, format]);

  const rowsOf = useRef(new Map<string, readonly number[]>());
  const readAgain = async (indexes: readonly number[]) => {
    // What holds everywhere shows in the lines of the places, and one place may send to another: whole items.
    for (const first of [...new Set(indexes.map((i) => i - (i % width)))]) await again(first, first + width);
  };
  const readAgainNow = useRef(readAgain);
  readAgainNow.current = readAgain;
  useEffect(
    () =>
      onUndone((key) => {
        const indexes = rowsOf.current.get(key);
        if (indexes) readAgainNow.current(indexes);
      }),
    [],
  );

  const save = async () => {
    const right: Drafts = new Map([...drafts].filter(([key]) => !faults.has(key)));
    if (right.size === 0) return;
    setBusy(true);
    setSentence(null);
    const outcome = await sendCommand<{ saved: number }>(
      'save-policies',
      { edits: editsOf(right.values()) },
      'until_sent',
    );
    setBusy(false);
    if (!outcome.ok) return setSentence(failureSentence(outcome.failure, format));
    const indexes = [...right.values()].map((d) => d.index);
    rowsOf.current.set(outcome.key, indexes);
    noteDone({ key: outcome.key, words: wordsOf(right) });
    await readAgain(indexes);
    sheet.settle(right);
  };

  const wordsOf = (saved: Drafts): string => {
    const [one] = [...saved.values()];
    const line = saved.size === 1 && one ? rowAt(one.index) : undefined;
    if (!line) return `${countOf(saved.size, 'policy line')} saved`;
    const said = Object.entries(one?.now ?? {}).map(([f, v]) => `${fieldNames[f] ?? f} ${v || 'inherited'}`);
    return `${line.name}, ${line.location}: ${said.join(', ')}`;
  };

  const cells = usePolicyCells({
    ...{ count: head.count, current: view.current, mayEdit, rowAt, grid, sheet },
    onSave: save,
  });
  const { kindOf } = cells;

  const onKey = (event: KeyboardEvent, row: PolicyLine, index: number) => {
    const column = event.target instanceof HTMLInputElement ? event.target.dataset.column : undefined;
    if (event.key === 'Escape') {
      const draft = drafts.get(keyOf(row));
      if (draft)
        sheet.change(
          Object.keys(draft.now).map((f) => ({
            index,
            line: row,
            field: f as CellChange['field'],
            text: draft.was[f as CellChange['field']] ?? '',
          })),
        );
      grid.current?.focus(index);
    } else if (
      event.key === 'Enter' &&
      !(event.target instanceof HTMLAnchorElement) &&
      !(event.target instanceof HTMLSelectElement)
    ) {
      event.preventDefault();
      if (column === undefined) grid.current?.focus(index, 'min');
      else if (index + 1 < head.count) grid.current?.focus(index + 1, column);
    } else if (mayEdit && column === undefined && /^\d$/.test(event.key) && fieldOf('min', kindOf(row))) {
      event.preventDefault();
      flushSync(() => sheet.change([{ index, line: row, field: 'min', text: event.key }], `${index}/min`));
      grid.current?.focus(index, 'min', 'end');
    }
  };

  const line = (row: PolicyLine, index: number): Line => ({
    className: row.locationId === null ? 'bg-paper' : '',
    cells: (
      <PolicyRow
        line={row}
        index={index}
        draft={drafts.get(keyOf(row))}
        faults={faults.get(keyOf(row)) ?? NO_FAULTS}
        selected={(col) => cells.chosen(index, col)}
        format={format}
        mayEdit={mayEdit}
        onType={(column, text) => {
          const field = fieldOf(column, kindOf(row));
          if (field) sheet.change([{ index, line: row, field, text }], `${index}/${column}`);
        }}
        onPoint={(col, extend) => cells.point({ row: index, col }, extend)}
        onDrag={(col) => cells.drag({ row: index, col })}
      />
    ),
  });

  const takeRule = (found: RuleValues, rule: SetRule) => {
    sheet.change(
      found.values.map((v) => ({
        index: v.index,
        line: { itemId: v.itemId, locationId: v.locationId, own: { [rule.column]: v.was } },
        field: rule.column,
        text: v.now,
      })),
    );
    const left = [
      found.left > 0 ? `${countOf(found.left, 'line')} left as they are` : '',
      found.beyond > 0 ? `${countOf(found.beyond, 'line')} further down not reached: save, then set those` : '',
    ].filter(Boolean);
    setSentence(left.length > 0 ? `${left.join('; ')}.` : null);
  };

  return (
    <ListAndPanel
      label="Reckoning"
      panel={
        chosen ? (
          <PolicyPanel
            key={keyOf(chosen)}
            line={chosen}
            index={view.current}
            draft={drafts.get(keyOf(chosen))}
            places={head.places}
            onChange={(field, text) =>
              sheet.change([{ index: view.current, line: chosen, field, text }], `${view.current}/${field}`)
            }
          />
        ) : null
      }
      fixed
    >
      <ListBar
        title="Policies"
        about={`${countOf(head.items, 'item')} × ${countOf(head.locations, 'location')} · ${head.without} without a policy`}
      >
        <span className="ml-auto" />
        <ScanSaid text={view.said} code={view.unknown} />
        <PolicyFilters
          {...{ query, categories: props.categories, suppliers: props.suppliers }}
          makers={props.makers}
          buyers={props.buyers}
        />
        {mayEdit && <SetByRule list={head.list} count={head.count} chosen={cells.rows} onValues={takeRule} />}
        <SavedViews
          page="policies"
          views={props.saved}
          query={policiesHref(query).split('?')[1] ?? ''}
          path="/policies"
        />
        <ExportLinks of="Policies" path={`/api/exports/policies?list=${head.list}`} />
        <KeysHelp
          keys={[
            ['↑ ↓', 'move'],
            ['Page ↑ ↓', 'move by a page'],
            ['0 … 9', 'start a minimum'],
            ['Enter', 'into the minimum; in a field: go down'],
            ['Shift ↑ ↓', 'choose several cells; also Shift and a click, or drag'],
            ['Ctrl D', 'fill down what stands in the first of them'],
            ['Ctrl C, Ctrl V', 'copy and paste, also from and to a spreadsheet'],
            ['Delete', 'back to what is inherited, in all that are chosen'],
            ['Ctrl S', 'save'],
            ['Ctrl Z', 'take the last change back'],
            ['Esc', 'the line as it was'],
            ['a scan', 'to the lines of that item'],
          ]}
        />
      </ListBar>
      {head.count === 0 ? (
        <Notice title={query.q ? `No item fits “${query.q}”` : 'No item is so'}>
          <Link className="link" href="/policies">
            Show all items
          </Link>
        </Notice>
      ) : (
        <div className="flex min-h-0 flex-1 flex-col" {...cells.hands}>
          <Grid
            {...view.props}
            label="Policies"
            rowHeight={ROW}
            beside={3}
            columns="policy-columns"
            sorted={{ by: query.sort, href: sortedBy('/policies', { ...query, sort: '' }) }}
            heads={heads}
            line={line}
            onKey={onKey}
          />
          {drafts.size > 0 ? (
            <PolicyBar
              drafts={drafts}
              effect={effect}
              currency={head.currency}
              busy={busy}
              sentence={sentence}
              canGoBack={sheet.canGoBack}
              onBack={sheet.back}
              onSave={save}
            />
          ) : (
            sentence && (
              <p className="fault border-t border-ink px-4 py-2" role="alert">
                {sentence}
              </p>
            )
          )}
        </div>
      )}
    </ListAndPanel>
  );
}

const NO_FAULTS: ReadonlyMap<string, string> = new Map();
const fieldNames: Readonly<Record<string, string>> = {
  kind: 'policy',
  min: 'min',
  max: 'max',
  fixed: 'order quantity',
  coverDays: 'days of cover',
};
