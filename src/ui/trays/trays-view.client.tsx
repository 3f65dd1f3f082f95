'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useState } from 'react';
import type { MadeOrder } from '@/services/purchase/makeOrders';
import type { TrayEntry, TrayLineView, TraysHead, TrayView } from '@/services/purchase/readTrays';
import { useCommand } from '../command/use-command.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ExportLinks } from '../frame/export-links';
import { ListBar } from '../frame/list';
import { ListAndPanel, Notice } from '../frame/states';
import { Cell, Grid, type Line } from '../grid/grid.client';
import { KeysHelp } from '../grid/keys-help.client';
import { twoLines, useGridView } from '../grid/use-grid-view.client';
import { causeWords, spokenCauses } from '../marks/cause';
import { FillGauge } from '../marks/fill-gauge';
import { useMay } from '../may-context.client';
import { SumLine } from '../reckoning/reckoning';
import { MakeWindow } from './make-window.client';
import { Budgets, TrayPanel } from './tray-panel.client';
import { hintWords, slotWords, trayBecomes } from './words';

/** One tray per supplier, with what is in it and what it comes to; from here it becomes a draft order. */
export function TraysView({ head, first }: { head: TraysHead; first: readonly TrayEntry[] }) {
  const { trays, currency } = head;
  const format = useFormat();
  const router = useRouter();
  const mayDecide = useMay('needs.decide');
  const mayOrder = useMay('orders.edit');
  const { busy, sentence, run } = useCommand();
  const view = useGridView('trays', head, first, { start: 1, idOf: (r) => (r.kind === 'tray' ? null : r.id) });
  /** The window over all trays: what will be made, then what was. */
  const [making, setMaking] = useState<{
    readonly trays: readonly TrayView[];
    readonly made: readonly MadeOrder[] | null;
  } | null>(null);
  // What has no rate on file is left out of the sum, and said.
  const total = trays.reduce((sum, t) => sum + (t.netInBase ?? 0), 0);
  const noRate = trays.filter((t) => t.netInBase === null).length;
  const lines = trays.reduce((sum, t) => sum + t.lines, 0);

  const order = async (supplierIds: readonly number[]) => {
    const names = trays.filter((t) => supplierIds.includes(t.supplierId)).map((t) => t.supplier);
    const words = (done: readonly MadeOrder[]) => {
      const joined = done.filter((d) => d.joined).length;
      if (joined > 0) return `${names.join(', ')}: ${done.length - joined} made, ${countOf(joined, 'draft')} added to`;
      return `${names.length === 1 ? 'A draft was' : `${done.length} drafts were`} made from ${names.join(', ')}`;
    };
    const outcome = await run<MadeOrder[]>('make-orders', { supplierIds }, { words });
    if (!outcome.ok) return;
    const [only] = outcome.value;
    if (outcome.value.length === 1 && only && !making) router.push(`/orders/${only.orderId}`);
    else setMaking({ trays: making?.trays ?? [], made: outcome.value });
  };
  const takeBack = (l: TrayEntry) =>
    mayDecide &&
    l.kind === 'line' &&
    !busy &&
    run('take-back', { trayLineId: l.id }, { words: `${l.itemName} went back to Needs` });
  const current = trays.findLast((t) => t.start <= view.current);
  const going = trays.filter((t) => !t.held);
  const trayAt = (index: number) => trays.findLast((t) => t.start <= index);

  const onKey = (event: KeyboardEvent, row: TrayEntry) => {
    if (event.key !== 'Enter' || row.kind !== 'line' || event.target !== event.currentTarget) return;
    event.preventDefault();
    router.push(`/items/${row.itemId}`);
  };

  const line = (row: TrayEntry): Line => {
    if (row.kind === 'tray') {
      const cells = (
        <TrayHead
          tray={row.tray}
          only={trays.length === 1}
          today={head.today}
          busy={busy}
          onOrder={() => order([row.tray.supplierId])}
        />
      );
      return { group: true, cells };
    }
    if (row.kind === 'gone') {
      return {
        className: 'struck',
        cells: <Cell className="col-span-full text-muted">ordered or taken back since</Cell>,
      };
    }
    const label = [
      ...[row.itemName, row.location, `${format.quantity(row.packs)} ${plural(row.packName, row.packs)}`],
      ...row.causes.map((c) => spokenCauses[c]),
    ].join(', ');
    return {
      label,
      cells: <TrayLineCells line={row} busy={busy} onTakeBack={() => takeBack(row)} />,
    };
  };

  return (
    <ListAndPanel
      label="Sums"
      fixed
      panel={
        <div className="grid gap-6">
          {current && <TrayPanel key={current.supplierId} tray={current} today={head.today} />}
          <div>
            <h2 className="head">
              All trays <span className="font-normal text-muted">net</span>
            </h2>
            {trays.map((t) => (
              <SumLine
                key={t.supplierId}
                label={t.supplier}
                origin={trayBecomes(t, format)}
                figure={format.money(t.net, t.currency)}
              />
            ))}
            {trays.length > 0 && <SumLine label="Together" figure={format.money(total, currency)} result />}
          </div>
          <Budgets spending={head.spending} currency={currency} />
        </div>
      }
    >
      <ListBar
        title={countOf(trays.length, 'tray')}
        about={`${countOf(lines, 'line')} · ${format.money(total, currency)}${noRate > 0 ? `, ${countOf(noRate, 'tray')} without a rate` : ''}`}
      >
        <div className="ml-auto flex items-center gap-2">
          <p className="fault" role="alert">
            {sentence || view.said}
          </p>
          {going.length > 1 && mayOrder && (
            <button
              type="button"
              className="btn btn-primary"
              disabled={busy}
              onClick={() => setMaking({ trays, made: null })}
            >
              Make {going.reduce((n, t) => n + t.orders.length, 0)} orders
            </button>
          )}
          <ExportLinks of="Trays" path={`/api/exports/trays?list=${head.list}`} />
          <KeysHelp
            keys={[
              ['↑ ↓', 'move'],
              ['Home, End', 'first, last'],
              ['Enter', 'open the item'],
              ['a scan', 'to the line of that item'],
            ]}
            letters={[
              ...(mayDecide ? ([['B', 'back to Needs']] as const) : []),
              ...(mayOrder ? ([['O', 'make an order of this tray']] as const) : []),
            ]}
          />
        </div>
      </ListBar>
      {making && (
        <MakeWindow
          {...making}
          currency={currency}
          spending={head.spending}
          busy={busy}
          sentence={sentence}
          onMake={() => order(making.trays.filter((t) => !t.held).map((t) => t.supplierId))}
          onLeave={() => setMaking(null)}
        />
      )}
      {trays.length === 0 ? (
        <Notice title="All trays are empty">
          What you accept in{' '}
          <Link className="link" href="/needs">
            Needs
          </Link>{' '}
          collects here, supplier by supplier, until it becomes an order.
        </Notice>
      ) : (
        <Grid
          {...view.props}
          label="Trays"
          rowHeight={twoLines}
          columns="tray-columns"
          heads={[
            { text: 'Item' },
            { text: 'For', className: 'max-sm:hidden' },
            { text: 'Quantity', className: 'figure' },
            { text: '' },
            { text: 'Total net', className: 'figure' },
            { text: '' },
          ]}
          line={line}
          onKey={onKey}
          letters={{
            b: takeBack,
            o: (_, index) => {
              const tray = trayAt(index);
              if (tray && mayOrder && !busy && !tray.held) order([tray.supplierId]);
            },
          }}
        />
      )}
    </ListAndPanel>
  );
}

function TrayHead(props: { tray: TrayView; only: boolean; today: string; busy: boolean; onOrder: () => void }) {
  const { tray: t } = props;
  const format = useFormat();
  const mayOrder = useMay('orders.edit');
  return (
    <Cell className="flex min-w-0 flex-1 items-center gap-3">
      <span className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-3 leading-tight">
        <h2 className="font-semibold">{t.supplier}</h2>
        <span className="second max-sm:hidden">
          {slotWords(t, props.today, format)}, here {format.date(t.arrives)} ·{' '}
          <span className={t.held ? 'font-semibold text-attention' : ''}>{trayBecomes(t, format)}</span>
        </span>
        <span className="second ml-auto flex items-center gap-2 max-sm:ml-0">
          {t.orderMinimum > 0 && (
            <FillGauge value={t.net} target={t.orderMinimum} label="Tray against the supplier’s minimum" />
          )}
          {t.orderMinimum > 0 ? `minimum ${format.amount(t.orderMinimum, t.currency)}` : 'no minimum'}
        </span>
      </span>
      <strong className="figure w-[100px] font-semibold">{format.money(t.net, t.currency)}</strong>
      {mayOrder && (
        <button
          type="button"
          className={`btn w-[112px] ${props.only ? 'btn-primary' : 'btn-outline'}`}
          disabled={props.busy || t.held}
          title={t.held ? 'Held back' : undefined}
          aria-label={`Make order for ${t.supplier}`}
          onClick={props.onOrder}
        >
          Make order
        </button>
      )}
    </Cell>
  );
}

function TrayLineCells(props: { line: TrayLineView; busy: boolean; onTakeBack: () => void }) {
  const { line: l } = props;
  const format = useFormat();
  const mayDecide = useMay('needs.decide');
  return (
    <>
      <Cell className="min-w-0 leading-[1.12]">
        <Link className="name block" href={`/items/${l.itemId}`} tabIndex={-1} prefetch={false}>
          {l.itemName}
        </Link>
        <span className="code">{l.itemNumber}</span>
        <span className="second sm:hidden"> · {l.location}</span>
        {l.hint && <span className="second block text-action">{hintWords(l, format)}</span>}
      </Cell>
      <Cell className="min-w-0 leading-tight max-sm:hidden">
        {l.location}
        <span className="second block">{l.causes.map((c) => causeWords[c]).join(', ') || 'brought forward'}</span>
      </Cell>
      <Cell className="figure font-semibold">{format.quantity(l.packs)}</Cell>
      <Cell className="leading-tight">
        {plural(l.packName, l.packs)}
        <span className="second block">
          {format.quantity(l.base)} {plural(l.unit, l.base)}
        </span>
      </Cell>
      <Cell className="figure leading-tight">
        {l.net === null ? <span className="marker">no price</span> : format.amount(l.net, l.currency)}
        {l.each && <span className="second block">{l.each} each</span>}
      </Cell>
      <Cell className="figure">
        {mayDecide && (
          <button
            type="button"
            className="chip"
            tabIndex={-1}
            disabled={props.busy}
            aria-label={`Back to Needs: ${l.itemName} at ${l.location}`}
            onClick={props.onTakeBack}
          >
            <span className="max-sm:hidden">Back to Needs</span>
            <span className="sm:hidden">Back</span>
          </button>
        )}
      </Cell>
    </>
  );
}
