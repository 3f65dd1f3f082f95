'use client';

import { useEffect, useState } from 'react';

/** Moving quickly through rows asks only for where one stays. */
const STAYS_MS = 120;

/** What an address answers; null while it loads or without an address, 'failed' when it could not be read. */
export function useRead<T>(url: string | null): T | null | 'failed' {
  const [state, setState] = useState<{ readonly url: string; readonly value: T | 'failed' } | null>(null);
  useEffect(() => {
    if (url === null) return;
    let stale = false;
    const timer = setTimeout(async () => {
      const response = await fetch(url).catch(() => null);
      const body = response?.ok ? ((await response.json()) as { value: T }) : null;
      if (!stale) setState({ url, value: body ? body.value : 'failed' });
    }, STAYS_MS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [url]);
  return state?.url === url ? state.value : null;
}
