'use client';

import { useState } from 'react';
import { useCommand } from '../command/use-command.client';
import { useMay } from '../may-context.client';

/** Takes a whole receipt back, with the reason why; its goods are expected again. */
export function ReverseReceipt({ receiptId, number }: { receiptId: number; number: string }) {
  const [open, setOpen] = useState(false);
  const [reason, setReason] = useState('');
  const { busy, sentence, run } = useCommand();
  const mayReverse = useMay('goods.receive');
  if (!mayReverse) return null;
  if (!open) {
    return (
      <button type="button" className="chip" aria-label={`Reverse receipt ${number}`} onClick={() => setOpen(true)}>
        Reverse
      </button>
    );
  }
  return (
    <form
      className="flex flex-wrap items-center justify-end gap-2"
      onSubmit={async (e) => {
        e.preventDefault();
        await run('reverse-receipt', { receiptId, reason: reason.trim() });
      }}
      onKeyDown={(e) => {
        if (e.key === 'Escape') setOpen(false);
      }}
    >
      <label className="flex items-center gap-1.5">
        <span className="second">Why</span>
        <input
          className="entry w-60"
          value={reason}
          maxLength={200}
          onChange={(e) => setReason(e.target.value)}
          ref={(field) => field?.focus()}
        />
      </label>
      <button type="submit" className="btn btn-outline" disabled={busy}>
        Reverse {number}
      </button>
      <button type="button" className="chip" onClick={() => setOpen(false)}>
        Leave it
      </button>
      {sentence && (
        <p className="fault w-full" role="alert">
          {sentence}
        </p>
      )}
    </form>
  );
}
