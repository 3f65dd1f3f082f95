'use client';

import Link from 'next/link';
import { useState } from 'react';
import { entryText } from '@/core/quantity';
import type { CrossedLevel } from '@/services/stock/crossings';
import type { TransferLine, TransferView } from '@/services/stock/readTransfers';
import { useCommand } from '../command/use-command.client';
import { plural } from '../format';
import { useFormat } from '../format-context.client';
import { ListBar, WholeList } from '../frame/list';
import { Said } from '../frame/said';
import { crossedWords, transferWords } from './words';

type Entry = { readonly quantity: string; readonly lost: string; readonly reason: string };
type Step = 'approve' | 'ship' | 'receive' | null;

/** What a transfer waits for, and what each line then starts with. */
const stepOf = (view: TransferView): Step =>
  view.may.approve ? 'approve' : view.may.ship ? 'ship' : view.may.receive ? 'receive' : null;
const startOf = (l: TransferLine, step: Step): string => {
  const q =
    step === 'approve' ? (l.fairShare ?? Math.min(l.asked, l.freeThere)) : step === 'ship' ? l.approved : l.inTransit;
  return q > 0 ? entryText(q) : '';
};
const heads: Readonly<Record<Exclude<Step, null>, string>> = { approve: 'Send', ship: 'Goes now', receive: 'Came' };

/** One transfer: its lines from asked for to received, and the one step that comes next. */
export function TransferPage({ view }: { view: TransferView }) {
  const format = useFormat();
  const { busy, sentence, failure, run } = useCommand();
  const step = stepOf(view);
  const [entries, setEntries] = useState<ReadonlyMap<number, Entry>>(
    new Map(view.lines.map((l) => [l.lineNo, { quantity: startOf(l, step), lost: '', reason: '' }])),
  );
  const [reason, setReason] = useState('');
  const [said, setSaid] = useState<readonly string[]>([]);
  const entry = (l: TransferLine) => entries.get(l.lineNo) ?? { quantity: '', lost: '', reason: '' };
  const put = (l: TransferLine, change: Partial<Entry>) =>
    setEntries((all) => new Map(all).set(l.lineNo, { ...entry(l), ...change }));
  const wrong = (l: TransferLine) =>
    (failure?.kind === 'invalid_field' &&
      (failure.field === `lines.${l.lineNo}` || failure.field.startsWith(`lines.${l.lineNo}.`))) ||
    (failure?.kind === 'not_free' && failure.itemId === l.itemId);
  const at = { transferId: view.id, version: view.version };
  const post = async (name: string, input: unknown) => {
    const outcome = await run<{ crossed: readonly CrossedLevel[] }>(name, input);
    setSaid(outcome.ok ? outcome.value.crossed.map((c) => crossedWords(c, format)) : []);
  };
  const go = {
    approve: () =>
      run('approve-transfer', {
        ...at,
        lines: view.lines.map((l) => ({ lineNo: l.lineNo, approved: entry(l).quantity })),
      }),
    ship: () =>
      post('ship-approved', {
        ...at,
        lines: view.lines.map((l) => ({ lineNo: l.lineNo, quantity: entry(l).quantity })),
      }),
    receive: () =>
      post('receive-transfer', {
        transferId: view.id,
        lines: view.lines
          .filter((l) => l.inTransit > 0)
          .map((l) => ({
            lineNo: l.lineNo,
            received: entry(l).quantity,
            lost: entry(l).lost,
            reason: entry(l).reason,
          })),
      }),
  };
  const cell = (q: number) => (q === 0 ? '–' : format.quantity(q));
  const receiving = step === 'receive';
  const people = [
    view.requestedByName && `asked for by ${view.requestedByName}`,
    view.approvedByName && `approved by ${view.approvedByName}`,
    view.shippedByName && `sent by ${view.shippedByName}`,
  ].filter(Boolean);
  return (
    <WholeList>
      <ListBar title={`${view.number}, ${view.from} to ${view.to}`} about={transferWords[view.state]}>
        <span className="ml-auto flex items-center gap-3">
          {(view.state === 'approved' || view.state === 'shipped') && (
            <Link className="link" href={`/transfers/${view.id}/print`} prefetch={false}>
              Paper to go with it
            </Link>
          )}
          {view.may.cancel && (
            <button
              type="button"
              className="btn btn-outline"
              disabled={busy}
              onClick={() => run('cancel-transfer', at)}
            >
              {view.state === 'requested' ? 'Take it back' : 'Cancel it'}
            </button>
          )}
          {step && (
            <button type="button" className="btn btn-primary" disabled={busy} onClick={go[step]}>
              {step === 'approve' ? 'Approve' : step === 'ship' ? 'Send it' : 'Book in'}
            </button>
          )}
        </span>
      </ListBar>
      <p className="second px-4 pt-3">
        {[view.wantedDate && `wanted ${format.due(view.wantedDate, view.today).text}`, ...people]
          .filter(Boolean)
          .join(' · ')}
        {view.note && <span className="block">{view.note}</span>}
        {view.refusedBecause && <span className="block text-stop">{view.refusedBecause}</span>}
      </p>
      <Said lines={said} fault={sentence} />
      <table className="sheet mt-3">
        <thead>
          <tr>
            <th>Item</th>
            <th className="figure">Asked for</th>
            <th className="figure max-sm:hidden">{view.state === 'requested' ? 'Free there' : 'To be sent'}</th>
            <th className="figure max-sm:hidden">Sent</th>
            <th className="figure max-sm:hidden">Came</th>
            <th className="figure max-sm:hidden">Lost</th>
            {step && <th className="figure">{heads[step]}</th>}
            {receiving && <th className="figure max-sm:hidden">Lost now</th>}
            {receiving && <th className="max-sm:hidden">Why</th>}
          </tr>
        </thead>
        <tbody>
          {view.lines.map((l) => (
            <tr key={l.lineNo} className="two">
              <td>
                <Link className="name" href={`/items/${l.itemId}`} prefetch={false}>
                  {l.name}
                </Link>
                <span className="second block">
                  <span className="code">{l.number}</span> · {plural(l.unit, 2_000_000)}
                </span>
              </td>
              <td className="figure">{cell(l.asked)}</td>
              <td
                className={`figure max-sm:hidden ${view.state === 'requested' && l.freeThere < l.asked ? 'text-attention' : ''}`}
              >
                {view.state === 'requested' ? format.quantity(l.freeThere) : cell(l.approved)}
                {(l.liesReady > 0 || l.boughtFor > 0) && (
                  <span className="second block">
                    {[
                      l.liesReady > 0 && `${format.quantity(l.liesReady)} came in for it`,
                      l.boughtFor > 0 && `${format.quantity(l.boughtFor)} bought for it, on the way`,
                    ]
                      .filter(Boolean)
                      .join(', ')}
                  </span>
                )}
                {l.fairShare !== null && (
                  <span className="second block">
                    {format.quantity(l.wantedThere)} wanted by all, fair share {format.quantity(l.fairShare)}
                  </span>
                )}
              </td>
              <td className="figure max-sm:hidden">{cell(l.shipped)}</td>
              <td className="figure max-sm:hidden">{cell(l.received)}</td>
              <td className="figure max-sm:hidden">
                {cell(l.lost)}
                {l.lostReason && <span className="second block">{l.lostReason}</span>}
              </td>
              {step && (
                <td className="figure">
                  {receiving && l.inTransit === 0 ? (
                    '–'
                  ) : (
                    <input
                      className="entry figure w-20"
                      inputMode="decimal"
                      aria-label={`${heads[step]}: ${l.name}`}
                      aria-invalid={wrong(l)}
                      value={entry(l).quantity}
                      onChange={(e) => put(l, { quantity: e.target.value })}
                    />
                  )}
                </td>
              )}
              {receiving && (
                <td className="figure max-sm:hidden">
                  {l.inTransit > 0 && (
                    <input
                      className="entry figure w-16"
                      inputMode="decimal"
                      aria-label={`Lost: ${l.name}`}
                      value={entry(l).lost}
                      onChange={(e) => put(l, { lost: e.target.value })}
                    />
                  )}
                </td>
              )}
              {receiving && (
                <td className="max-sm:hidden">
                  {entry(l).lost.trim() !== '' && (
                    <input
                      className="entry w-full"
                      aria-label={`Why lost: ${l.name}`}
                      placeholder="broken, not in the box"
                      maxLength={120}
                      value={entry(l).reason}
                      onChange={(e) => put(l, { reason: e.target.value })}
                    />
                  )}
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {view.may.refuse && (
        <form
          className="flex flex-wrap items-center gap-2 px-4 py-4"
          onSubmit={(e) => {
            e.preventDefault();
            run('refuse-transfer', { ...at, reason });
          }}
        >
          <input
            className="entry w-72"
            aria-label="Reason"
            placeholder="why not"
            maxLength={200}
            value={reason}
            onChange={(e) => setReason(e.target.value)}
          />
          <button
            type="submit"
            className="btn btn-outline"
            disabled={busy || reason.trim() === ''}
            title={reason.trim() === '' ? 'Say why first' : undefined}
          >
            Refuse
          </button>
        </form>
      )}
    </WholeList>
  );
}
