'use client';

import { useState } from 'react';
import type { CustomerOrderView } from '@/services/promise/readCustomerOrder';
import { useCommand } from '../command/use-command.client';
import { Modal } from '../frame/modal.client';

/** What a customer is told, as a text that can be changed before it goes; a mail can't be taken back. */
export function TellWindow({ order, onLeave }: { order: CustomerOrderView; onLeave: () => void }) {
  const { busy, sentence, run } = useCommand();
  const [text, setText] = useState(order.text);
  const tell = async (how: 'email' | 'phone') => {
    const outcome = await run('tell-customer', { orderId: order.id, version: order.version, how, ...text });
    if (outcome.ok) onLeave();
  };
  return (
    <Modal title={`Tell ${order.customer}`} width="w-[560px]" onLeave={onLeave}>
      <form
        className="grid gap-3 p-5"
        onSubmit={(e) => {
          e.preventDefault();
          tell('email');
        }}
      >
        <h2 className="text-[15px] font-semibold">Tell {order.customer}</h2>
        <label className="grid gap-0.5">
          <span className="second">Subject</span>
          <input
            className="entry w-full"
            value={text.subject}
            maxLength={200}
            onChange={(e) => setText({ ...text, subject: e.target.value })}
          />
        </label>
        <label className="grid gap-0.5">
          <span className="second">Text</span>
          <textarea
            className="entry h-60 w-full py-1.5"
            value={text.body}
            onChange={(e) => setText({ ...text, body: e.target.value })}
          />
        </label>
        {sentence && (
          <p className="fault" role="alert">
            {sentence}
          </p>
        )}
        <div className="flex flex-wrap items-center gap-3">
          <button type="submit" className="btn btn-primary" disabled={busy || order.mail === ''}>
            Send to {order.mail || 'no address'}: can’t be taken back
          </button>
          <button type="button" className="btn btn-outline" disabled={busy} onClick={() => tell('phone')}>
            Told by phone
          </button>
          <button type="button" className="btn" onClick={onLeave}>
            Leave it
          </button>
        </div>
      </form>
    </Modal>
  );
}
