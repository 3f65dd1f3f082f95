'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useState } from 'react';
import type { OrderAction } from '@/core/purchase';
import type { Ended } from '@/services/purchase/endOrder';
import type { OrderView } from '@/services/purchase/readOrder';
import { useCommand } from '../command/use-command.client';
import { useFormat } from '../format-context.client';
import { useMay } from '../may-context.client';
import { ConfirmWindow } from './confirm-window.client';
import { Ask, Counter, FollowUp, Send, Tell, Why } from './order-forms.client';

type Asked = 'ask' | 'refuse' | 'send' | 'cancel' | 'close' | 'follow' | 'cut' | 'counter' | 'tell';

/** What can be done with an order now: what its state allows and the person may, nothing else. */
export function OrderActions({ order }: { order: OrderView }) {
  const router = useRouter();
  const format = useFormat();
  const { busy, sentence, failure, run, clear } = useCommand();
  const [asked, setAsked] = useState<Asked | 'confirm' | null>(null);
  const [said, setSaid] = useState('');
  const [cutLine, setCutLine] = useState<number | null>(null);
  const mayEdit = useMay('orders.edit');
  const mayReceive = useMay('goods.receive');
  const { head, findings } = order;
  const { id: orderId, version, state } = head;
  // What was refused for another version no longer holds, except that a press came to nothing because of that version.
  // biome-ignore lint/correctness/useExhaustiveDependencies: with each version.
  useEffect(() => {
    if (failure?.kind !== 'changed_meanwhile') clear();
  }, [clear, version]);
  const can = (action: OrderAction) => order.can.includes(action);
  const blocked = findings.some((f) => f.blocks);
  const mine = order.aboveLimit === null && !order.fourEyes;
  const at = { orderId, version };
  const change = state === 'amending' || state === 'amendment_awaiting';
  const open = order.lines.some((l) => l.parts.some((p) => p.base > p.received + p.cancelled));
  const receivable =
    can('receive') && order.came !== 'all' && order.lines.some((l) => l.parts.some((p) => !p.straight));
  const ordered = can('receive') || can('send') || can('confirm');
  const told = ({ promised }: Ended) =>
    setSaid(promised.length > 0 ? `It was bought for ${promised.join(', ')}: that is a need again.` : '');
  const copy = async () => {
    const outcome = await run<{ orderId: number }>('copy-order', { orderId }, { refresh: false });
    if (outcome.ok) router.push(`/orders/${outcome.value.orderId}`);
  };
  const putBack = async () => {
    const words = `The order to ${head.supplierName} went back into its trays`;
    const outcome = await run('put-back-order', at, { words });
    if (outcome.ok) router.push('/trays');
  };
  const button = (label: string, act: () => void, primary = false, disabled = false, title?: string) => (
    <button
      type="button"
      className={`btn ${primary ? 'btn-primary' : 'btn-outline'}`}
      disabled={busy || disabled}
      title={title}
      onClick={act}
    >
      {label}
    </button>
  );
  return (
    <section className="grid gap-2.5" aria-label="What can be done">
      {order.word && (
        <p className={`border-l-2 pl-2.5 ${order.word.kind === 'refused' ? 'border-stop' : 'border-action'}`}>
          <span className="second block">
            {order.word.kind === 'refused' ? `${order.word.who} did not approve it` : `${order.word.who} asks`}
          </span>
          <span className="whitespace-pre-line break-words">{order.word.text}</span>
        </p>
      )}
      <div className="flex flex-wrap items-center gap-2">
        {can('approve') &&
          button(
            change ? `Approve change ${head.amendmentNo + 1}` : 'Approve',
            () => run('approve-order', at, change ? {} : { words: 'The order was approved' }),
            mine,
            blocked || !mine,
            blocked ? 'What blocks is listed above' : mine ? undefined : 'Somebody else approves this',
          )}
        {can('refuse') && button('Refuse', () => setAsked('refuse'))}
        {can('ask') && button('Ask for approval', () => setAsked('ask'), !mine, blocked)}
        {state === 'draft' &&
          can('approve') &&
          mayReceive &&
          button('Bought already', () => setAsked('counter'), false, blocked || !mine)}
        {can('withdraw') && button('Take it back from approval', () => run('withdraw-order', at))}
        {can('send') && button('Send', () => setAsked('send'), true)}
        {can('confirm') &&
          button(state === 'confirmed' ? 'Confirmed again' : 'Confirmed', () => setAsked('confirm'), state === 'sent')}
        {receivable && (
          <Link
            className={`btn ${state === 'confirmed' ? 'btn-primary' : 'btn-outline'}`}
            href={`/arrivals?order=${orderId}`}
          >
            Book in
          </Link>
        )}
        {ordered && (
          <>
            <Link className="btn btn-outline" href={`/orders/${orderId}/print`}>
              Print
            </Link>
            <a className="btn btn-outline" href={`/orders/${orderId}/pdf`} target="_blank" rel="noreferrer">
              PDF
            </a>
          </>
        )}
        {can('reopen') && button('Edit again', () => run('reopen-order', at))}
        {can('amend') && button('Change it', () => run('amend-order', at))}
        {can('drop_amendment') && button('Drop the change', () => run('drop-amendment', at))}
        {(can('confirm') || can('amend')) && button('Ask after it', () => setAsked('follow'))}
        {can('cut') && open && button('Rest does not come', () => setAsked('cut'))}
        {can('close') &&
          button('Close', () =>
            open ? setAsked('close') : run('close-order', { ...at, reason: '' }, { words: 'The order was closed' }),
          )}
        {can('cancel') && button('Cancel order', () => setAsked('cancel'))}
        {can('open_again') && button('Open again', () => run('open-order-again', at))}
        {mayEdit && order.colleagues.length > 0 && button('Tell a colleague', () => setAsked('tell'))}
        {mayEdit && order.lines.length > 0 && button('Copy', copy)}
        {can('put_back') &&
          button(
            head.number === null
              ? order.lines.some((l) => l.fromTray)
                ? 'Put back into trays'
                : 'Drop the draft'
              : order.lines.some((l) => l.fromTray)
                ? 'Cancel, lines to trays'
                : 'Cancel order',
            putBack,
          )}
      </div>
      {head.sending === 'waiting' && (
        <p>
          Goes out by mail to {head.supplierEmail}.{' '}
          <button
            type="button"
            className="link"
            onClick={() => run('retry-mail', { mailId: head.sendingMailId, what: 'stop' })}
          >
            Stop the mail
          </button>
          {head.sendingFault && <span className="fault block">{head.sendingFault}</span>}
        </p>
      )}
      {(head.sending === 'failed' || head.sending === 'stopped') && state === 'approved' && (
        <p>
          <span className="fault">
            The mail {head.sending === 'failed' ? 'could not be sent' : 'was stopped'}: the order is approved, not sent.
          </span>{' '}
          <button
            type="button"
            className="link"
            onClick={() => run('retry-mail', { mailId: head.sendingMailId, what: 'retry' })}
          >
            Try the mail again
          </button>
        </p>
      )}
      {asked === 'send' && <Send order={order} onDone={() => setAsked(null)} />}
      {asked === 'ask' && <Ask order={order} onDone={() => setAsked(null)} />}
      {asked === 'confirm' && <ConfirmWindow order={order} onLeave={() => setAsked(null)} />}
      {asked === 'refuse' && (
        <Why
          label="Refuse"
          onDone={() => setAsked(null)}
          run={async (reason) => (await run('refuse-order', { ...at, reason })).ok}
        />
      )}
      {asked === 'tell' && <Tell order={order} onDone={() => setAsked(null)} />}
      {(asked === 'cancel' || asked === 'close' || asked === 'cut') && (
        <Why
          beside={
            asked === 'cut' && (
              <label className="grid gap-0.5">
                <span className="second">Of what</span>
                <select
                  className="entry max-w-72"
                  aria-label="Of what"
                  value={cutLine ?? ''}
                  onChange={(e) => setCutLine(e.target.value === '' ? null : Number(e.target.value))}
                >
                  <option value="">everything that is still to come</option>
                  {order.lines
                    .filter((l) => l.parts.some((p) => p.locationId !== null && p.base > p.received + p.cancelled))
                    .map((l) => (
                      <option key={l.id} value={l.id}>
                        line {l.lineNo}, {l.description}
                      </option>
                    ))}
                </select>
              </label>
            )
          }
          label={{ cancel: 'Cancel the order', close: 'Close the order', cut: 'Cancel what is still to come' }[asked]}
          onDone={() => setAsked(null)}
          run={async (reason) => {
            const outcome =
              asked === 'cut'
                ? await run<Ended>(
                    'cut-supply',
                    { ...at, reason, lineId: cutLine, partId: null },
                    { words: 'The rest does not come' },
                  )
                : await run<Ended>(
                    `${asked}-order`,
                    { ...at, reason },
                    { words: asked === 'close' ? 'The order was closed' : 'The order was cancelled' },
                  );
            if (outcome.ok) told(outcome.value);
            return outcome.ok;
          }}
        />
      )}
      {asked === 'counter' && <Counter order={order} onDone={() => setAsked(null)} />}
      {asked === 'follow' && <FollowUp order={order} onDone={() => setAsked(null)} />}
      {said && <p role="status">{said}</p>}
      {head.nextContact && <p className="second">Ask the supplier again on {format.date(head.nextContact)}.</p>}
      {sentence && (
        <p className="fault" role="alert">
          {sentence}{' '}
          {failure?.kind === 'changed_meanwhile' && (
            <button type="button" className="underline" onClick={() => router.refresh()}>
              Show it as it is now
            </button>
          )}
        </p>
      )}
    </section>
  );
}
