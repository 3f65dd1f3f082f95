'use client';

import Link from 'next/link';
import { useState } from 'react';
import { useCommand } from '../command/use-command.client';

/** Has the worker take what was ordered in the web shop; orders that were taken before stay as they are. */
export function TakeWebOrders({ there }: { there: boolean }) {
  const { busy, sentence, run } = useCommand();
  const [begun, setBegun] = useState(false);
  const take = async () => {
    const outcome = await run('start-job', { kind: 'take-web-orders' }, { refresh: false });
    setBegun(outcome.ok);
  };
  return (
    <>
      {begun && (
        <span role="status">
          Orders are being taken:{' '}
          <Link className="link" href="/work">
            how far
          </Link>
        </span>
      )}
      {sentence && (
        <span className="fault" role="alert">
          {sentence}
        </span>
      )}
      <button
        type="button"
        className="btn btn-outline"
        disabled={busy || !there}
        title={there ? undefined : 'No web shop is named (VORRAT_WEB_SHOP_URL)'}
        onClick={take}
      >
        Take orders from the web shop
      </button>
    </>
  );
}
