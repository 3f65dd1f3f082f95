'use client';

import { useCallback, useState } from 'react';
import { useFormat } from '../format-context.client';
import { failureSentence } from '../sentences';
import { clearStrip, noteDone } from './done';
import { type ClientFailure, type Settled, sendCommand } from './send';
import { useRefresh } from './use-refresh.client';

type Options<T> = { readonly refresh?: boolean; readonly words?: string | ((done: T) => string) };

/** Sends commands one at a time, keeps the sentence of the last failure, reads the page again after success, and offers to
 *  undo it when it is given `words` for what was done. */
export function useCommand() {
  const format = useFormat();
  const readAgain = useRefresh();
  const [busy, setBusy] = useState(false);
  const [failure, setFailure] = useState<ClientFailure | null>(null);
  const run = async <T>(
    name: string,
    input: unknown,
    { refresh = true, words }: Options<T> = {},
  ): Promise<Settled<T>> => {
    setBusy(true);
    const outcome = await sendCommand<T>(name, input);
    setBusy(false);
    setFailure(outcome.ok ? null : outcome.failure);
    // What was done before this can't be undone past it.
    const said = outcome.ok && typeof words === 'function' ? words(outcome.value) : words;
    if (outcome.ok) typeof said === 'string' ? noteDone({ key: outcome.key, words: said }) : clearStrip();
    if (outcome.ok && refresh) await readAgain();
    return outcome;
  };
  const clear = useCallback(() => setFailure(null), []);
  return {
    busy,
    failure,
    sentence: failure ? failureSentence(failure, format) : '',
    run,
    clear,
  };
}
