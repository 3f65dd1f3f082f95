'use client';

import { useEffect, useRef, useState } from 'react';

/** What is typed into a cell that is saved on its own: shown until the page brings the value saved, kept with the sentence
 *  of a refusal. One entry is sent once, however often the cell is left or Enter pressed before the answer. */
export function useSavedEntry(value: string, save: (now: string) => Promise<string | null>) {
  const [typed, setTyped] = useState<string | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const sent = useRef<{ readonly text: string; stored: boolean } | null>(null);
  const latest = useRef(value);
  latest.current = value;

  const settle = () => {
    const text = sent.current?.text;
    sent.current = null;
    // What was typed on since then stays.
    setTyped((now) => (now === text ? null : now));
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: with each value the page brings.
  useEffect(() => {
    if (sent.current?.stored) settle();
  }, [value]);

  const commit = async () => {
    if (typed === null || typed === value) return setTyped(null);
    if (sent.current?.text === typed) return;
    const entry = { text: typed, stored: false };
    sent.current = entry;
    const refused = await save(typed);
    setFault(refused);
    if (sent.current !== entry) return;
    if (refused !== null) sent.current = null;
    else if (latest.current === value) entry.stored = true;
    else settle();
  };
  const leave = () => {
    sent.current = null;
    setTyped(null);
    setFault(null);
  };
  return { shown: typed ?? value, fault, type: setTyped, commit, leave };
}
