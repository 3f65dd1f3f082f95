'use client';

import { type FormEvent, useState } from 'react';
import { entryText } from '@/core/quantity';
import type { PromiseLine } from '@/services/promise/readPromises';
import { useCommand } from '../command/use-command.client';

/** How much is put by for a line, and until when: by hand, or as the rule gives it. */
export function HoldForm(props: {
  order: { readonly orderId: number; readonly version: number };
  line: PromiseLine;
  onDone: () => void;
}) {
  const { line: l } = props;
  const { busy, failure, sentence, run } = useCommand();
  const [quantity, setQuantity] = useState(entryText(Math.min(l.ready, l.open)));
  const [until, setUntil] = useState('');
  const hold = async (by: string | null) => {
    const outcome = await run('hold-for-customer', { ...props.order, lineNo: l.lineNo, quantity: by, until });
    if (outcome.ok) props.onDone();
  };
  const wrong = failure?.kind === 'invalid_field' ? failure.field : '';
  return (
    <form
      className="flex flex-wrap items-start gap-2 border-t border-rule bg-paper px-4 py-3"
      aria-label={`Put by: ${l.name}`}
      onSubmit={(e: FormEvent) => {
        e.preventDefault();
        hold(quantity);
      }}
    >
      <span className="name pt-1.5">{l.name}:</span>
      <label className="grid">
        <input
          className="entry figure w-20"
          inputMode="decimal"
          value={quantity}
          aria-label="Put by"
          aria-invalid={wrong === 'quantity'}
          // biome-ignore lint/a11y/noAutofocus: it was asked for just now.
          autoFocus
          onFocus={(e) => e.target.select()}
          onChange={(e) => setQuantity(e.target.value)}
        />
        {wrong === 'quantity' && <span className="fault">{sentence}</span>}
      </label>
      <span className="pt-1.5">until</span>
      <label className="grid">
        <input
          className="entry w-44"
          value={until}
          placeholder="it is collected (fri 18:00)"
          aria-label="Until"
          aria-invalid={wrong === 'holdUntil'}
          onChange={(e) => setUntil(e.target.value)}
        />
        {wrong === 'holdUntil' && <span className="fault">{sentence}</span>}
      </label>
      <button type="submit" className="btn btn-outline" disabled={busy}>
        Put by
      </button>
      <button type="button" className="btn btn-outline" disabled={busy} onClick={() => hold(null)}>
        As the rule gives it
      </button>
      <button type="button" className="btn" onClick={props.onDone}>
        Leave it
      </button>
      {sentence && wrong === '' && (
        <p className="fault w-full" role="alert">
          {sentence}
        </p>
      )}
    </form>
  );
}
