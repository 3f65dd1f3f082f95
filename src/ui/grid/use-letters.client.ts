'use client';

import { useSyncExternalStore } from 'react';

const STORE = 'letter-keys';
const listeners = new Set<() => void>();

const read = (): boolean => window.localStorage.getItem(STORE) !== 'off';
const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};

/** Whether letters are commands in lists; each person decides it on each machine. */
export function useLetters(): readonly [boolean, (on: boolean) => void] {
  const on = useSyncExternalStore(subscribe, read, () => true);
  return [
    on,
    (next) => {
      window.localStorage.setItem(STORE, next ? 'on' : 'off');
      for (const l of listeners) l();
    },
  ];
}
