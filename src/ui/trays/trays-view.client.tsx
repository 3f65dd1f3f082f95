'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { TrayView } from '@/services/purchase/readTrays';
import { useCommand } from '../command/use-command.client';
import { countOf, plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar } from '../frame/list';
import { ListAndPanel, Notice } from '../frame/states';
import { FillGauge } from '../marks/fill-gauge';
import { SumLine } from '../reckoning/reckoning';

type Made = { readonly orderId: number; readonly supplier: string; readonly lines: number };

/** One tray per supplier, with what is in it and what it comes to; from here it becomes a draft order. */
export function TraysView({ trays, currency }: { trays: readonly TrayView[]; currency: string }) {
  const format = useFormat();
  const router = useRouter();
  const { busy, sentence, run } = useCommand();
  const [made, setMade] = useState<readonly Made[]>([]);
  const total = trays.reduce((sum, t) => sum + t.net, 0);
  const lines = trays.reduce((sum, t) => sum + t.lines.length, 0);

  const order = async (supplierIds: readonly number[]) => {
    const names = trays.filter((t) => supplierIds.includes(t.supplierId)).map((t) => t.supplier);
    const words = `${names.length === 1 ? 'A draft was' : `${names.length} drafts were`} made from ${names.join(', ')}`;
    const outcome = await run<Made[]>('make-orders', { supplierIds }, { words });
    if (!outcome.ok) return;
    const [only] = outcome.value;
    if (outcome.value.length === 1 && only) router.push(`/orders/${only.orderId}`);
    else setMade(outcome.value);
  };

  return (
    <ListAndPanel
      label="Sums"
      panel={
        <div className="grid gap-6">
          <div>
            <h2 className="head">
              All trays <span className="font-normal text-muted">{currency} net</span>
            </h2>
            {trays.map((t) => (
              <SumLine
                key={t.supplierId}
                label={t.supplier}
                origin={
                  t.orderMinimum === 0
                    ? 'no minimum'
                    : t.net >= t.orderMinimum
                      ? `minimum of ${format.amount(t.orderMinimum, currency)} reached`
                      : `${format.amount(t.orderMinimum - t.net, currency)} short of the minimum`
                }
                figure={format.amount(t.net, currency)}
              />
            ))}
            {trays.length > 0 && <SumLine label="Together" figure={format.amount(total, currency)} result />}
          </div>
          {trays.length > 1 && (
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
        about={`${countOf(lines, 'line')} · ${format.money(total, currency)}`}
      >
        <p className="fault ml-auto" role="alert">
          {sentence}
        </p>
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
        <table className="sheet">
          <thead>
            <tr>
              <th style={{ width: '40%' }}>Item</th>
              <th>For</th>
              <th className="figure">Quantity</th>
              <th aria-label="Pack" />
              <th className="figure">
                Total
                <br />
                net
              </th>
              <th className="w-32" aria-label="Actions" />
            </tr>
          </thead>
          {trays.map((t) => (
            <tbody key={t.supplierId}>
              <tr className="group">
                <th colSpan={4} scope="rowgroup" className="align-middle">
                  <div className="flex flex-wrap items-baseline gap-x-3 gap-y-1">
                    <h2 className="font-semibold">{t.supplier}</h2>
                    <span className="second">
                      arrives {format.date(t.arrives)} if ordered today · {t.paymentTerms}
                    </span>
                    <span className="second ml-auto flex items-center gap-2">
                      {t.orderMinimum > 0 && (
                        <FillGauge value={t.net} target={t.orderMinimum} label="Tray against the supplier’s minimum" />
                      )}
                      {t.orderMinimum > 0 ? `minimum ${format.amount(t.orderMinimum, currency)}` : 'no minimum'}
                    </span>
                  </div>
                </th>
                <th className="figure align-middle">
                  <strong className="font-semibold">{format.amount(t.net, currency)}</strong>
                </th>
                <th className="figure align-middle">
                  <button
                    type="button"
                    className={`btn ${trays.length === 1 ? 'btn-primary' : 'btn-outline'}`}
                    disabled={busy}
                    aria-label={`Make order for ${t.supplier}`}
                    onClick={() => order([t.supplierId])}
                  >
                    Make order
                  </button>
                </th>
              </tr>
              {t.lines.map((l) => (
                <tr key={l.id} className="two">
                  <td>
                    <Link className="name block" href={`/items/${l.itemId}`}>
                      {l.itemName}
                    </Link>
                    <span className="code">{l.itemNumber}</span>
                  </td>
                  <td>{l.location}</td>
                  <td className="figure font-semibold">{format.quantity(l.packs)}</td>
                  <td>
                    {plural(l.packName, l.packs)}
                    <span className="second block">
                      {format.quantity(l.base)} {plural(l.unit, l.base)}
                    </span>
                  </td>
                  <td className="figure">
                    {l.net === null ? <span className="marker">no price</span> : format.amount(l.net, currency)}
                    {l.each && <span className="second block">{l.each} each</span>}
                  </td>
                  <td className="figure">
                    <button
                      type="button"
                      className="chip"
                      disabled={busy}
                      aria-label={`Back to Needs: ${l.itemName} at ${l.location}`}
                      onClick={() =>
                        run('take-back', { trayLineId: l.id }, { words: `${l.itemName} went back to Needs` })
                      }
                    >
                      Back to Needs
                    </button>
                  </td>
                </tr>
              ))}
            </tbody>
          ))}
        </table>
      )}
    </ListAndPanel>
  );
}
