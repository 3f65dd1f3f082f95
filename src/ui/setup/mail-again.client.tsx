'use client';

import type { OutboxRow } from '@/data/repositories/outbox';
import { useCommand } from '../command/use-command.client';
import { useMay } from '../may-context.client';

/** Tries a mail again that could not be sent, or stops one that waits. */
export function MailAgain({ mail }: { mail: Pick<OutboxRow, 'id' | 'state' | 'subject'> }) {
  const { busy, sentence, run } = useCommand();
  const maySend = useMay('orders.send');
  if (!maySend || mail.state === 'sent') return null;
  const what = mail.state === 'waiting' ? ('stop' as const) : ('retry' as const);
  return (
    <>
      <button
        type="button"
        className="chip"
        disabled={busy}
        aria-label={`${what === 'stop' ? 'Stop' : 'Try again'}: ${mail.subject}`}
        onClick={() => run('retry-mail', { mailId: mail.id, what })}
      >
        {what === 'stop' ? 'Stop it' : 'Try again'}
      </button>
      {sentence && (
        <span className="fault block" role="alert">
          {sentence}
        </span>
      )}
    </>
  );
}
