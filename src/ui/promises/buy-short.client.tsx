'use client';

import { type FormEvent, useState } from 'react';
import { entryText } from '@/core/quantity';
import type { ShortNeed } from '@/services/promise/shortNeeds';
import { useCommand } from '../command/use-command.client';
import { plural } from '../format';

/** What is short, decided from the order: the need of its item and place with its quantity filled in, to be raised or taken. */
export function BuyShort({ need, name }: { need: ShortNeed; name: string }) {
  const { busy, sentence, run } = useCommand();
  const [packs, setPacks] = useState(entryText(need.packs));
  if (need.from === null)
    return (
      <span className="second block">
        <a className="link" href={`/needs?row=${need.needId}`}>
          Its need
        </a>{' '}
        has no supplier yet
      </span>
    );
  const accept = async (event: FormEvent) => {
    event.preventDefault();
    const input = { needId: need.needId, fingerprint: need.fingerprint, packs };
    await run('accept-need', input, {
      words: `${name}: ${packs} ${need.packName} ${need.sent ? 'to be sent' : 'in the tray'}`,
    });
  };
  return (
    <form className="flex flex-wrap items-center gap-1.5 pt-1" onSubmit={accept} aria-label={`Decide ${name}`}>
      <input
        className="entry figure w-16"
        inputMode="decimal"
        aria-label={`To decide: ${name}`}
        value={packs}
        onChange={(e) => setPacks(e.target.value)}
      />
      <span className="second">
        {plural(need.packName, need.packs)} from {need.from}
      </span>
      <button type="submit" className="btn btn-outline btn-sm" disabled={busy}>
        {need.sent ? 'Have it sent' : 'Into the tray'}
      </button>
      {sentence && (
        <span className="fault" role="alert">
          {sentence}
        </span>
      )}
    </form>
  );
}
