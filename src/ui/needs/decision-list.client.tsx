'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import type { KeyboardEvent } from 'react';
import type { DecisionShow, DecisionsHead, DecisionView } from '@/services/planning/readDecisions';
import { useCommand } from '../command/use-command.client';
import { countOf, type Format, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar } from '../frame/list';
import { LiveSearch } from '../frame/live-search.client';
import { ListAndPanel, Notice } from '../frame/states';
import { Cell, Grid, type Line, ScanSaid } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { twoLines, useGridView } from '../grid/use-grid-view.client';
import { useMay } from '../may-context.client';
import { neededOf, ReckoningSum } from '../reckoning/reckoning';

type Query = { readonly q: string; readonly at: string; readonly show: DecisionShow; readonly item: string };

const hrefOf = (query: Query, change: Partial<Query> = {}): string => {
  const { show, ...rest } = { ...query, ...change };
  const given = Object.entries({ ...rest, show: show === 'put_off' ? '' : show }).filter(([, v]) => v !== '');
  return given.length === 0 ? '/needs/decisions' : `/needs/decisions?${new URLSearchParams(given)}`;
};

const kindWords: Readonly<Record<DecisionView['kind'], string>> = {
  accept: 'accepted',
  take_back: 'taken back',
  put_off: 'put off',
  leave_out: 'left out',
};

/** What was decided, in a few words: so much from whom, until when, why. */
export function decisionWords(d: DecisionView, format: Format): string {
  if (d.kind === 'accept')
    return `${format.quantity(d.packs)} ${plural(d.packName, d.packs)}${d.from ? ` from ${d.from}` : ''}`;
  if (d.kind === 'take_back') return 'open again';
  return [d.until ? `until ${format.date(d.until)}` : 'for good', d.reason].filter(Boolean).join(': ');
}

/** What was put off and left out, and every decision on a need with its reckoning as it was. */
export function DecisionList(props: { head: DecisionsHead; first: readonly DecisionView[]; query: Query }) {
  const { head, query } = props;
  const format = useFormat();
  const router = useRouter();
  const mayDecide = useMay('needs.decide');
  const { busy, sentence, run } = useCommand();
  const view = useGridView('decisions', head, props.first, { idOf: (d) => d.id });
  const chosen = view.rowAt(view.current);
  const back = (d: DecisionView) =>
    mayDecide && !busy && d.stands
      ? run('bring-back', { needIds: [d.needId] }, { words: `${d.itemName} for ${d.location} is back in Needs` })
      : undefined;
  const onKey = (event: KeyboardEvent, d: DecisionView) => {
    if (event.key !== 'Enter' || event.target !== event.currentTarget) return;
    event.preventDefault();
    router.push(`/items/${d.itemId}`);
  };
  const line = (d: DecisionView): Line => ({
    label: `${d.itemName}, ${d.location}, ${kindWords[d.kind]} ${decisionWords(d, format)}, by ${d.who}`,
    cells: (
      <>
        <Cell className="min-w-0 leading-[1.12]">
          <Link href={`/items/${d.itemId}`} className="name block" tabIndex={-1} prefetch={false}>
            {d.itemName}
          </Link>
          <span className="second">
            <span className="code">{d.itemNumber}</span> · {d.location}
          </span>
        </Cell>
        <Cell className="min-w-0 leading-tight">
          <span className="font-semibold">{kindWords[d.kind]}</span>
          <span className="block">{decisionWords(d, format)}</span>
        </Cell>
        <Cell className="leading-tight max-sm:hidden">
          {d.who}
          <span className="second block">{format.moment(d.at, head.timeZone)}</span>
        </Cell>
        <Cell className="figure leading-tight max-md:hidden">
          {format.quantity(d.shortage)}
          <span className="second block">now {format.quantity(d.shortNow)}</span>
        </Cell>
        <Cell className="text-right">
          {d.stands && mayDecide ? (
            <button
              type="button"
              className="chip"
              tabIndex={-1}
              disabled={busy}
              aria-label={`Bring ${d.itemName} at ${d.location} back`}
              onClick={() => back(d)}
            >
              Bring back
            </button>
          ) : d.order ? (
            <Link href={`/orders/${d.order.id}`} className="link" tabIndex={-1} prefetch={false}>
              {d.order.number ?? 'draft'}
            </Link>
          ) : d.transfer ? (
            <Link href={`/stock/transfers/${d.transfer.id}`} className="link" tabIndex={-1} prefetch={false}>
              {d.transfer.number}
            </Link>
          ) : (
            ''
          )}
        </Cell>
      </>
    ),
  });
  const shows: readonly (readonly [DecisionShow, string])[] = [
    ['put_off', `Put off (${head.putOff})`],
    ['left_out', `Left out (${head.leftOut})`],
    ['all', 'All decisions'],
  ];
  return (
    <ListAndPanel
      label="Reckoning as it was"
      fixed
      panel={chosen ? <AsItWas decision={chosen} /> : <p className="second">No decision is chosen.</p>}
    >
      <ListBar
        title={countOf(head.count, 'decision')}
        about={
          <Link className="link" href="/needs">
            back to Needs
          </Link>
        }
      >
        <ScanSaid text={view.said} code={view.unknown} />
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        {query.item !== '' && (
          <Link className="chip" href={hrefOf(query, { item: '' })}>
            one item only ×
          </Link>
        )}
        <select
          className="entry ml-auto max-w-44 max-sm:ml-0"
          aria-label="Which decisions"
          value={query.show}
          onChange={(e) => router.push(hrefOf(query, { show: e.target.value as DecisionShow }))}
        >
          {shows.map(([key, name]) => (
            <option key={key} value={key}>
              {name}
            </option>
          ))}
        </select>
        <LiveSearch
          value={query.q}
          placeholder="item or number"
          label="Search decisions"
          hrefOf={(q) => hrefOf(query, { q })}
        />
        <ExportLinks of="Decisions" path={`/api/exports/decisions?list=${head.list}`} />
        <KeysHelp
          keys={[
            ['↑ ↓', 'move'],
            ['Enter', 'open the item'],
            ['a scan', 'to the last decision on that item'],
          ]}
          letters={mayDecide ? [['B', 'bring back']] : []}
        />
      </ListBar>
      {head.count === 0 ? (
        <Notice
          title={
            query.show === 'put_off'
              ? 'Nothing is put off'
              : query.show === 'left_out'
                ? 'Nothing is left out'
                : 'Nothing was decided yet'
          }
        >
          What is put off (P) or left out (L) in{' '}
          <Link className="link" href="/needs">
            Needs
          </Link>{' '}
          stands here until it comes back.{' '}
          {query.show !== 'all' && (
            <Link className="link" href={hrefOf(query, { show: 'all' })}>
              Show all decisions
            </Link>
          )}
        </Notice>
      ) : (
        <Grid
          {...view.props}
          label="Decisions"
          rowHeight={twoLines}
          columns="decision-columns"
          heads={[
            { text: 'Item' },
            { text: 'Decided' },
            { text: 'By', className: 'max-sm:hidden' },
            { text: 'Short then', className: 'figure max-md:hidden' },
            { text: '' },
          ]}
          line={line}
          onKey={onKey}
          letters={{ b: back }}
        />
      )}
    </ListAndPanel>
  );
}

/** A decision as it was made: the sum at that moment. */
function AsItWas({ decision: d }: { decision: DecisionView }) {
  const format = useFormat();
  return (
    <div className="grid gap-4">
      <div className="flex items-baseline justify-between gap-3">
        <h2 className="text-[16px] font-semibold">
          <Link prefetch={false} href={`/items/${d.itemId}`} className="name">
            {d.itemName}
          </Link>
        </h2>
        <span className="second whitespace-nowrap">{d.location}</span>
      </div>
      <p>
        {kindWords[d.kind]}: {decisionWords(d, format)}, by {d.who}
      </p>
      {d.reckoning ? (
        <div>
          <h3 className="head">
            Why {format.quantity(neededOf(d.reckoning))} <span className="font-normal text-muted">as it was then</span>
          </h3>
          <ReckoningSum
            sum={d.reckoning}
            format={format}
            unit={d.unit}
            packName={d.packName}
            sent={d.transfer !== null}
            worth={() => null}
            origins={{}}
          />
        </div>
      ) : (
        <p className="second">No sum was kept with it.</p>
      )}
      <p className="second">
        Now{' '}
        {d.shortNow === 0
          ? 'nothing is short'
          : `${format.quantity(d.shortNow)} ${plural(d.unit, d.shortNow)} are short`}
        {d.causes.length > 0 && d.shortNow > 0 ? '' : '.'}
      </p>
    </div>
  );
}
