import Link from 'next/link';
import { useState } from 'react';
import { kindWords, policyKinds } from '@/core/policy';
import type { PolicyLine } from '@/services/planning/readPolicies';
import { type Format, plural } from '../format';
import { Cell } from '../grid/grid.client';
import { fieldOf, type PolicyColumn, policyColumns, shownKinds } from './cells';
import type { Draft } from './use-policy-drafts.client';

export type RowProps = {
  readonly line: PolicyLine;
  readonly index: number;
  readonly draft: Draft | undefined;
  /** What is wrong with a cell, by its field. */
  readonly faults: ReadonlyMap<string, string>;
  readonly selected: (col: number) => boolean;
  readonly format: Format;
  readonly mayEdit: boolean;
  readonly onType: (column: PolicyColumn, text: string) => void;
  readonly onPoint: (col: number, extend: boolean) => void;
  readonly onDrag: (col: number) => void;
};

const origins: Readonly<Record<string, string>> = {
  item: 'from every location',
  category: 'from its category',
  company: 'from the company',
};

/** One line of the sheet. What is inherited is grey; what is changed and not saved stands on a tinted ground. */
export function PolicyRow(props: RowProps) {
  const { line, draft, format, faults } = props;
  const kind =
    draft?.now.kind === undefined ? line.kind : draft.now.kind === '' ? 'none' : (draft.now.kind as PolicyLine['kind']);
  const everywhere = line.locationId === null;
  const figure = (column: 'min' | 'max') => <FigureCell {...props} column={column} kind={kind} />;
  return (
    <>
      <Cell className="min-w-0 leading-tight">
        {everywhere ? (
          <>
            <Link className="name" href={`/items/${line.itemId}`} tabIndex={-1} prefetch={false}>
              {line.name}
            </Link>{' '}
            <span className="code whitespace-nowrap">{line.number}</span>
          </>
        ) : (
          <span className="sm:hidden">{line.location}</span>
        )}
        {[...new Set(faults.values())].map((text) => (
          <span key={text} className="fault block" role="alert">
            {text}
          </span>
        ))}
      </Cell>
      <Cell className={`max-sm:hidden ${everywhere || line.origin === 'location' ? '' : 'text-muted'}`}>
        {line.location}
        {line.sentFrom && <span className="second block">from {line.sentFrom}</span>}
      </Cell>
      <Cell className="leading-tight max-sm:hidden">
        <KindCell {...props} kind={kind} />
      </Cell>
      <Cell className="figure">{figure('min')}</Cell>
      <Cell className="figure">{figure('max')}</Cell>
      <Cell className="figure text-muted max-sm:hidden">
        {line.perDay === 0 ? (everywhere ? '' : '–') : format.quantity(Math.round(line.perDay / 1e5) * 1e5)}
      </Cell>
      <Cell className="figure text-muted max-sm:hidden">
        {everywhere ? '' : line.coverDays === null ? '–' : Math.floor(line.coverDays)}
      </Cell>
      <Cell className="text-muted max-sm:hidden">
        <span className="tracking-[0.12em]">{line.classes}</span>
      </Cell>
      <Cell className="figure max-sm:hidden">
        {everywhere ? (
          ''
        ) : line.needState === 'decided' ? (
          <span className="second">decided</span>
        ) : line.need > 0 ? (
          format.quantity(line.need)
        ) : line.excess > 0 ? (
          <span className="second text-attention" title={`${format.quantity(line.excess)} beyond the maximum`}>
            {format.quantity(line.excess)} over
          </span>
        ) : (
          '–'
        )}
      </Cell>
    </>
  );
}

/** What is worth a word about the figures of a line. */
export function hintWords(line: PolicyLine, format: Format): string {
  const units = plural(line.unit, 2_000_000);
  return line.hints
    .map((h) =>
      h.kind === 'less_than_a_pack'
        ? `less than one ${line.packName ?? line.unit} of ${format.quantity(h.pack)} between them`
        : h.kind === 'below_lead_time_demand'
          ? `${format.quantity(Math.round(h.demand / 1e5) * 1e5)} ${units} are sold before goods arrive`
          : 'the maximum lies below the minimum',
    )
    .join('; ');
}

function KindCell(props: RowProps & { kind: PolicyLine['kind'] }) {
  const { line, draft, mayEdit } = props;
  const own = draft?.now.kind === undefined ? line.own.kind !== undefined : draft.now.kind !== '';
  const changed = draft?.now.kind !== undefined;
  const value = draft?.now.kind ?? line.own.kind ?? '';
  const inherited = line.locationId !== null && !own ? shownKinds[changed ? 'none' : line.kind] : 'as inherited';
  // Choices are there once a hand or the focus comes to the cell: thirty rows of ten each would be most of a scroll.
  const [near, setNear] = useState(false);
  return (
    <>
      <select
        data-column="kind"
        className={`entry cell w-full ${own || changed ? '' : 'text-muted'} ${changed ? 'changed' : ''} ${props.selected(0) ? 'picked' : ''}`}
        aria-label={`Policy of ${line.name}, ${line.location}`}
        value={value}
        disabled={!mayEdit}
        title={!own ? origins[line.origin] : undefined}
        onPointerDown={(e) => props.onPoint(0, e.shiftKey)}
        onPointerEnter={(e) => {
          setNear(true);
          if (e.buttons === 1) props.onDrag(0);
        }}
        onFocus={() => {
          setNear(true);
          props.onPoint(0, false);
        }}
        onChange={(e) => props.onType('kind', e.target.value)}
      >
        {(near || value === '') && <option value="">{inherited}</option>}
        {policyKinds
          .filter((k) => near || k === value)
          .map((k) => (
            <option key={k} value={k}>
              {kindWords[k]}
            </option>
          ))}
      </select>
      {line.missing.length > 0 && !changed && (
        <span className="block pl-2 text-[11.5px] text-attention">
          {line.missing.map((m) => missingWords[m] ?? m).join(' and ')} missing
        </span>
      )}
    </>
  );
}

const missingWords: Readonly<Record<string, string>> = {
  min: 'minimum',
  fixed: 'order quantity',
  coverDays: 'days of cover',
};

function FigureCell(props: RowProps & { column: 'min' | 'max'; kind: PolicyLine['kind'] }) {
  const { line, draft, column, kind, faults } = props;
  const field = fieldOf(column, kind);
  const col = policyColumns.indexOf(column);
  const name =
    field === 'fixed'
      ? 'Order quantity'
      : field === 'coverDays'
        ? 'Days of cover'
        : column === 'min'
          ? 'Minimum'
          : 'Maximum';
  if (field === null || field === 'kind') {
    const reckoned = column === 'min' ? line.values.min : '';
    return (
      <span className="px-[7px] text-muted" title={reckoned && 'reckoned from demand'}>
        {reckoned || '–'}
      </span>
    );
  }
  const typed = draft?.now[field];
  const own = line.own[field] !== undefined;
  const value = typed ?? (field in line.values ? line.values[field as keyof typeof line.values] : '');
  const inherited = typed === undefined && !own && value !== '';
  const dress = field === 'fixed' ? '+' : '';
  return (
    <span className="relative flex items-center justify-end">
      {dress && value !== '' && (
        <span className={`pointer-events-none absolute left-1 ${inherited ? 'text-muted' : ''}`}>{dress}</span>
      )}
      <input
        data-column={column}
        inputMode="decimal"
        placeholder={typed === '' ? 'inherited' : '–'}
        className={`entry cell figure w-full max-w-20 ${inherited ? 'font-normal text-muted' : ''} ${typed !== undefined ? 'changed' : ''} ${props.selected(col) ? 'picked' : ''}`}
        aria-label={`${name} of ${line.name}, ${line.location}`}
        aria-invalid={faults.has(field)}
        value={value}
        readOnly={!props.mayEdit}
        onPointerDown={(e) => props.onPoint(col, e.shiftKey)}
        onPointerEnter={(e) => e.buttons === 1 && props.onDrag(col)}
        onFocus={(e) => {
          props.onPoint(col, false);
          e.target.select();
        }}
        onChange={(e) => props.onType(column, e.target.value)}
      />
      {column === 'min' && line.hints.length > 0 && typed === undefined && line.locationId !== null && (
        <span className="hint-mark" title={hintWords(line, props.format)}>
          <span className="sr-only">{hintWords(line, props.format)}</span>
        </span>
      )}
      {field === 'coverDays' && value !== '' && <span className="second pl-1">d</span>}
      {line.season && (field === 'min' || field === 'max') && (
        <span className="second pl-1" title="a season is in force">
          ◦
        </span>
      )}
    </span>
  );
}
