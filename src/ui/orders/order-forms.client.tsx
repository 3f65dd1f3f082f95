'use client';

import { type ReactNode, useState } from 'react';
import { type SentHow, sentHows } from '@/core/purchase';
import type { OrderView } from '@/services/purchase/readOrder';
import { useCommand } from '../command/use-command.client';
import { useFormat } from '../format-context.client';
import { sentWords } from './words';

type Submit = () => Promise<boolean>;

/** A few fields below the buttons; Escape leaves them. */
function Asked(props: { label: string; submit: Submit; onDone: () => void; sentence?: string; children: ReactNode }) {
  return (
    <form
      className="grid gap-2 border-l-2 border-rule-strong pl-3"
      onSubmit={async (e) => {
        e.preventDefault();
        if (await props.submit()) props.onDone();
      }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') props.onDone();
      }}
    >
      {props.children}
      <span className="flex flex-wrap gap-2">
        <button type="submit" className="btn btn-primary">
          {props.label}
        </button>
        <button type="button" className="btn" onClick={props.onDone}>
          Leave it
        </button>
      </span>
      {props.sentence && (
        <p className="fault" role="alert">
          {props.sentence}
        </p>
      )}
    </form>
  );
}

function Text(props: {
  label: string;
  value: string;
  onChange: (text: string) => void;
  most: number;
  width?: string;
  first?: boolean;
  placeholder?: string;
}) {
  return (
    <label className={`grid gap-0.5 ${props.width ? '' : 'grow'}`}>
      <span className="second">{props.label}</span>
      <input
        className={`entry ${props.width ?? 'w-full'}`}
        value={props.value}
        maxLength={props.most}
        placeholder={props.placeholder ?? ''}
        // biome-ignore lint/a11y/noAutofocus: it was asked for a moment ago.
        autoFocus={props.first ?? false}
        onChange={(e) => props.onChange(e.target.value)}
      />
    </label>
  );
}

/** A reason in one field. */
export function Why(props: {
  label: string;
  onDone: () => void;
  run: (reason: string) => Promise<boolean>;
  /** What else is asked. */
  beside?: ReactNode;
}) {
  const [reason, setReason] = useState('');
  return (
    <Asked label={props.label} submit={() => props.run(reason)} onDone={props.onDone}>
      {props.beside}
      <Text label="Why" value={reason} onChange={setReason} most={400} first />
    </Asked>
  );
}

type Props = { order: OrderView; onDone: () => void };

/** How the order goes to its supplier; without a mail address the other ways are offered. */
export function Send({ order, onDone }: Props) {
  const { head } = order;
  const { sentence, run } = useCommand();
  const hows = head.supplierEmail === '' ? sentHows.filter((h) => h !== 'email') : sentHows;
  const [how, setHow] = useState<SentHow>(hows[0] ?? 'phone');
  const [to, setTo] = useState('');
  const submit = async () => (await run('send-order', { orderId: head.id, version: head.version, how, to })).ok;
  const label = how === 'email' ? `Send to ${head.supplierEmail}, final` : 'Mark as sent, final';
  return (
    <Asked label={label} submit={submit} onDone={onDone} sentence={sentence}>
      {head.supplierEmail === '' && (
        <p className="note">{head.supplierName} has no mail address on file; say how it goes instead.</p>
      )}
      <div className="flex flex-wrap items-end gap-2">
        <label className="grid gap-0.5">
          <span className="second">How it goes</span>
          <select
            className="entry"
            aria-label="How it goes"
            value={how}
            onChange={(e) => setHow(e.target.value as SentHow)}
          >
            {hows.map((h) => (
              <option key={h} value={h}>
                {sentWords[h]}
              </option>
            ))}
          </select>
        </label>
        {how !== 'email' && <Text label="Told to" value={to} onChange={setTo} most={120} width="w-40" />}
      </div>
    </Asked>
  );
}

/** Who is asked to approve it, and what to say. */
export function Ask({ order, onDone }: Props) {
  const { head, approvers } = order;
  const { sentence, run } = useCommand();
  const [userId, setUserId] = useState<number | null>(approvers[0]?.id ?? null);
  const [note, setNote] = useState('');
  const submit = async () => (await run('ask-approval', { orderId: head.id, version: head.version, userId, note })).ok;
  return (
    <Asked label="Ask for approval" submit={submit} onDone={onDone} sentence={sentence}>
      <div className="flex flex-wrap items-end gap-2">
        <label className="grid gap-0.5">
          <span className="second">Who is asked</span>
          <select
            className="entry"
            aria-label="Who is asked"
            value={userId ?? ''}
            onChange={(e) => setUserId(e.target.value === '' ? null : Number(e.target.value))}
          >
            {approvers.map((u) => (
              <option key={u.id} value={u.id}>
                {u.name}, {u.byMail ? 'by mail' : 'on Today'}
              </option>
            ))}
            <option value="">whoever may</option>
          </select>
        </label>
        <Text label="What to say" value={note} onChange={setNote} most={400} />
      </div>
    </Asked>
  );
}

/** A colleague who is told of it. */
export function Tell({ order, onDone }: Props) {
  const { head, colleagues } = order;
  const { sentence, run } = useCommand();
  const [userId, setUserId] = useState<number>(colleagues[0]?.id ?? 0);
  const [note, setNote] = useState('');
  const submit = async () => (await run('tell-colleague', { orderId: head.id, userId, note })).ok;
  return (
    <Asked label="Tell by mail" submit={submit} onDone={onDone} sentence={sentence}>
      <div className="flex flex-wrap items-end gap-2">
        <label className="grid gap-0.5">
          <span className="second">Who is told</span>
          <select
            className="entry"
            aria-label="Who is told"
            value={userId}
            onChange={(e) => setUserId(Number(e.target.value))}
          >
            {colleagues.map((u) => (
              <option key={u.id} value={u.id}>
                {u.name}
              </option>
            ))}
          </select>
        </label>
        <Text label="What to say" value={note} onChange={setNote} most={400} />
      </div>
    </Asked>
  );
}

/** What was said about it, and when to ask again. */
export function FollowUp({ order, onDone }: Props) {
  const { head } = order;
  const format = useFormat();
  const { sentence, run } = useCommand();
  const [next, setNext] = useState(head.nextContact ? format.date(head.nextContact) : '+3');
  const [note, setNote] = useState('');
  const submit = async () => (await run('follow-up-order', { orderId: head.id, version: head.version, next, note })).ok;
  return (
    <Asked label="Note it" submit={submit} onDone={onDone} sentence={sentence}>
      <div className="flex flex-wrap items-end gap-2">
        <Text label="What was said" value={note} onChange={setNote} most={400} first />
        <Text label="Ask again on" value={next} onChange={setNext} most={40} width="w-28" placeholder="not again" />
      </div>
    </Asked>
  );
}

/** Bought over the counter and brought along: order and receipt in one step. */
export function Counter({ order, onDone }: Props) {
  const { head } = order;
  const { sentence, run } = useCommand();
  const [deliveryNote, setDeliveryNote] = useState('');
  const [businessDate, setBusinessDate] = useState('');
  const submit = async () => {
    const input = { orderId: head.id, version: head.version, deliveryNote, businessDate };
    return (await run('buy-over-counter', input, { words: 'Bought over the counter, and booked in' })).ok;
  };
  return (
    <Asked label="Approve and book in" submit={submit} onDone={onDone} sentence={sentence}>
      <p className="second">Everything on it was bought over the counter and is here.</p>
      <div className="flex flex-wrap items-end gap-2">
        <Text label="Slip or delivery note" value={deliveryNote} onChange={setDeliveryNote} most={60} first />
        <Text
          label="Bought on"
          value={businessDate}
          onChange={setBusinessDate}
          most={10}
          width="w-28"
          placeholder="today"
        />
      </div>
    </Asked>
  );
}
