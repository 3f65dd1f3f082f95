'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type KeyboardEvent, useState } from 'react';
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
import { FillGauge } from '../marks/fill-gauge';
import { useMay } from '../may-context.client';
import { SumLine } from '../reckoning/reckoning';

type Made = { readonly orderId: number; readonly supplier: string; readonly lines: number };

/** One tray per supplier, with what is in it and what it comes to; from here it becomes a draft order. */
export function TraysView({ head, first }: { head: TraysHead; first: readonly TrayEntry[] }) {
  const { trays, currency } = head;
  const format = useFormat();
  const router = useRouter();
  const mayDecide = useMay('needs.decide');
  const mayOrder = useMay('orders.edit');
  const { busy, sentence, run } = useCommand();
  const view = useGridView('trays', head, first, { start: 1, idOf: (r) => (r.kind === 'tray' ? null : r.id) });
  const [made, setMade] = useState<readonly Made[]>([]);
  // What has no rate on file is left out of the sum, and said.
  const total = trays.reduce((sum, t) => sum + (t.netInBase ?? 0), 0);
  const noRate = trays.filter((t) => t.netInBase === null).length;
  const lines = trays.reduce((sum, t) => sum + t.lines, 0);

  const order = async (supplierIds: readonly number[]) => {
    const names = trays.filter((t) => supplierIds.includes(t.supplierId)).map((t) => t.supplier);
    const words = `${names.length === 1 ? 'A draft was' : `${names.length} drafts were`} made from ${names.join(', ')}`;
    const outcome = await run<Made[]>('make-orders', { supplierIds }, { words });
    if (!outcome.ok) return;
    const [only] = outcome.value;
    if (outcome.value.length === 1 && only) router.push(`/orders/${only.orderId}`);
    else setMade(outcome.value);
  };
  const takeBack = (l: TrayEntry) =>
    mayDecide &&
    l.kind === 'line' &&
    !busy &&
    run('take-back', { trayLineId: l.id }, { words: `${l.itemName} went back to Needs` });
  const trayAt = (index: number) => trays.findLast((t) => t.start <= index);

  const onKey = (event: KeyboardEvent, row: TrayEntry) => {
    if (event.key !== 'Enter' || row.kind !== 'line' || event.target !== event.currentTarget) return;
    event.preventDefault();
    router.push(`/items/${row.itemId}`);
  };

  const line = (row: TrayEntry): Line => {
    if (row.kind === 'tray') {
      const head = (
        <TrayHead tray={row.tray} only={trays.length === 1} busy={busy} onOrder={() => order([row.tray.supplierId])} />
      );
      return { group: true, cells: head };
    }
    if (row.kind === 'gone') {
      return {
        className: 'struck',
        cells: <Cell className="col-span-full text-muted">ordered or taken back since</Cell>,
      };
    }
    const label = `${row.itemName}, ${row.location}, ${format.quantity(row.packs)} ${plural(row.packName, row.packs)}`;
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
          <div>
            <h2 className="head">
              All trays <span className="font-normal text-muted">net</span>
            </h2>
            {trays.map((t) => (
              <SumLine
                key={t.supplierId}
                label={t.supplier}
                origin={
                  t.orderMinimum === 0
                    ? 'no minimum'
                    : t.net >= t.orderMinimum
                      ? `minimum of ${format.amount(t.orderMinimum, t.currency)} reached`
                      : `${format.amount(t.orderMinimum - t.net, t.currency)} short of the minimum`
                }
                figure={format.money(t.net, t.currency)}
              />
            ))}
            {trays.length > 0 && <SumLine label="Together" figure={format.money(total, currency)} result />}
          </div>
          {trays.length > 1 && mayOrder && (
            <button
              type="button"
              className="btn btn-primary justify-self-start"
              disabled={busy}
              onClick={() => order(trays.map((t) => t.supplierId))}
            >
              Make {trays.length} orders
            </button>
          )}
          {made.length > 0 && (
            <div role="status">
              <h2 className="head">Drafts made</h2>
              {made.map((m) => (
                <p key={m.orderId} className="py-[3px]">
                  <Link className="link" href={`/orders/${m.orderId}`}>
                    {m.supplier}
                  </Link>
                  , {countOf(m.lines, 'line')}
                </p>
              ))}
            </div>
          )}
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
              if (tray && mayOrder && !busy) order([tray.supplierId]);
            },
          }}
        />
      )}
    </ListAndPanel>
  );
}

function TrayHead(props: { tray: TrayView; only: boolean; busy: boolean; onOrder: () => void }) {
  const { tray: t } = props;
  const format = useFormat();
  const mayOrder = useMay('orders.edit');
  return (
    <Cell className="flex min-w-0 flex-1 items-center gap-3">
      <span className="flex min-w-0 flex-1 flex-wrap items-baseline gap-x-3 leading-tight">
        <h2 className="font-semibold">{t.supplier}</h2>
        <span className="second max-sm:hidden">
          arrives {format.date(t.arrives)} if ordered today{t.paymentTerms && ` · ${t.paymentTerms}`}
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
          disabled={props.busy}
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
      </Cell>
      <Cell className="min-w-0 max-sm:hidden">{l.location}</Cell>
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
