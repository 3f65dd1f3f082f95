'use client';

import { useState } from 'react';
import { useFormat } from '../format-context.client';
import { failureSentence } from '../sentences';
import { type ClientFailure, type Outcome, sendCommand } from './send';
import { useRefresh } from './use-refresh.client';

/** Sends commands one at a time, keeps the sentence of the last failure, and reads the page again after success. */
export function useCommand() {
  const format = useFormat();
  const readAgain = useRefresh();
  const [busy, setBusy] = useState(false);
  const [failure, setFailure] = useState<ClientFailure | null>(null);
  const run = async <T>(name: string, input: unknown, { refresh = true } = {}): Promise<Outcome<T>> => {
    setBusy(true);
    const outcome = await sendCommand<T>(name, input);
    setBusy(false);
    setFailure(outcome.ok ? null : outcome.failure);
    if (outcome.ok && refresh) await readAgain();
    return outcome;
  };
  return {
    busy,
    failure,
    sentence: failure ? failureSentence(failure, format) : '',
    run,
    clear: () => setFailure(null),
  };
}
