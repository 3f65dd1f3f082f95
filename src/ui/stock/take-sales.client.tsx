'use client';

import Link from 'next/link';
import { type FormEvent, useState } from 'react';
import { useCommand } from '../command/use-command.client';
import { Modal } from '../frame/modal.client';
import { useMay } from '../may-context.client';

/** Takes what the tills sold over a span of days; the worker does it. */
export function TakeSales({ there, today }: { there: boolean; today: string }) {
  const maySell = useMay('stock.sell');
  const { busy, sentence, run } = useCommand();
  const [open, setOpen] = useState(false);
  const [begun, setBegun] = useState(false);
  const [from, setFrom] = useState(today);
  const [to, setTo] = useState(today);
  if (!maySell) return null;
  const submit = async (event: FormEvent) => {
    event.preventDefault();
    const outcome = await run('take-till-sales', { from, to });
    if (outcome.ok) setBegun(true);
  };
  return (
    <>
      <button
        type="button"
        className="btn btn-outline"
        disabled={!there}
        title={there ? undefined : 'No till is named (VORRAT_TILL_URL)'}
        onClick={() => {
          setBegun(false);
          setOpen(true);
        }}
      >
        Take sales from the tills
      </button>
      {open && (
        <Modal title="Take sales from the tills" width="w-[420px]" onLeave={() => setOpen(false)}>
          <form className="grid gap-3 p-5" onSubmit={submit}>
            <h2 className="text-[16px] font-semibold">Take sales from the tills</h2>
            <p className="second">
              One sale for each day of a place; kits take their components. Days that were taken before stay as they
              are.
            </p>
            <div className="grid grid-cols-2 gap-3">
              <label className="grid gap-1">
                <span className="second">From</span>
                <input
                  type="date"
                  className="entry"
                  max={today}
                  value={from}
                  onChange={(e) => setFrom(e.target.value)}
                />
              </label>
              <label className="grid gap-1">
                <span className="second">To</span>
                <input type="date" className="entry" max={today} value={to} onChange={(e) => setTo(e.target.value)} />
              </label>
            </div>
            {sentence && (
              <p className="fault" role="alert">
                {sentence}
              </p>
            )}
            {begun && (
              <p role="status">
                The worker is taking them; see{' '}
                <Link className="link" href="/work">
                  work in the background
                </Link>
                .
              </p>
            )}
            <div className="flex justify-end gap-2">
              <button type="button" className="btn btn-outline" onClick={() => setOpen(false)}>
                {begun ? 'Close' : 'Leave it'}
              </button>
              {!begun && (
                <button type="submit" className="btn btn-primary" disabled={busy}>
                  Take them
                </button>
              )}
            </div>
          </form>
        </Modal>
      )}
    </>
  );
}
