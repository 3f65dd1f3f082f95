'use client';

import { useEffect, useRef } from 'react';
import { queue } from './send';

const PAUSE_MS = 150;

/** Calls back once all commands of this page are through, a moment after the last of them. */
export function useSettled(callback: () => void): void {
  const latest = useRef(callback);
  latest.current = callback;
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let busy = false;
    const stop = queue.subscribe(() => {
      const { waiting } = queue.snapshot();
      clearTimeout(timer);
      if (busy && waiting === 0) timer = setTimeout(() => latest.current(), PAUSE_MS);
      busy = waiting > 0;
    });
    return () => {
      stop();
      clearTimeout(timer);
    };
  }, []);
}
