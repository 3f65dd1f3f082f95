'use client';

import { type FormEvent, useState } from 'react';
import type { SeenNeeds } from '@/services/planning/setAside';
import { useCommand } from '../command/use-command.client';
import { countOf } from '../format';
import { useFormat } from '../format-context.client';
import { Modal } from '../frame/modal.client';

export type AsideKind = 'put_off' | 'leave_out';

/** Puts needs off until a day, or leaves them out with a reason. */
export function AsideWindow(props: {
  kind: AsideKind;
  needs: SeenNeeds;
  /** What they are: the item of one, or how many. */
  name: string;
  onDone: (key: string, words: string) => void;
  onLeave: () => void;
}) {
  const { kind, needs, name } = props;
  const format = useFormat();
  const { busy, failure, sentence, run } = useCommand();
  const [until, setUntil] = useState('');
  const [reason, setReason] = useState('');
  const off = kind === 'put_off';
  const title = `${off ? 'Put off' : 'Leave out'} ${name}`;
  const put = async (event: FormEvent) => {
    event.preventDefault();
    const said = (date: string | null) =>
      `${off ? 'put off' : 'left out'}${date === null ? '' : ` until ${format.date(date)}`}`;
    const outcome = await run<{ until: string | null }>(
      'set-aside',
      { needs, kind, until, reason },
      { refresh: false, words: ({ until: date }) => `${name} ${needs.length === 1 ? 'was' : 'were'} ${said(date)}` },
    );
    if (outcome.ok) props.onDone(outcome.key, said(outcome.value.until));
  };
  const faultAt = (field: string) => failure?.kind === 'invalid_field' && failure.field === field;
  return (
    <Modal title={title} width="w-[440px]" onLeave={props.onLeave}>
      <form className="grid gap-3 p-5" onSubmit={put}>
        <h2 className="text-[15px] font-semibold">{title}</h2>
        <p className="second">
          {off ? 'It comes back by itself on its day' : 'It stays away'}, and comes back earlier when it gets worse: the
          shortage has grown by a pack, or more customers wait.
        </p>
        {!off && (
          <label className="grid gap-0.5">
            <span className="second">Why (others see it)</span>
            <input
              className="entry w-full"
              value={reason}
              maxLength={200}
              aria-invalid={faultAt('reason')}
              onChange={(e) => setReason(e.target.value)}
            />
          </label>
        )}
        <label className="grid gap-0.5">
          <span className="second">{off ? 'Until (“fri”, “+7”, a date)' : 'Until (empty: for good)'}</span>
          <input
            className="entry w-40"
            value={until}
            maxLength={40}
            aria-invalid={faultAt('until')}
            onChange={(e) => setUntil(e.target.value)}
          />
        </label>
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        <div className="flex items-center gap-3">
          <button type="submit" className="btn btn-primary" disabled={busy}>
            {off ? 'Put off' : 'Leave out'} {needs.length > 1 ? countOf(needs.length, 'need') : ''}
          </button>
          <button type="button" className="btn" onClick={props.onLeave}>
            Keep it
          </button>
        </div>
      </form>
    </Modal>
  );
}
