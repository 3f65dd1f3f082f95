'use client';

import { useRouter } from 'next/navigation';
import { useCallback } from 'react';

/** Reads the page again, but only once the server says that it can: a page read while the database is away would take the
 *  place of this one, with everything typed on it. */
export function useRefresh(): () => Promise<void> {
  const router = useRouter();
  return useCallback(async () => {
    const answers = await fetch('/api/reads/frame').catch(() => null);
    if (answers?.ok) router.refresh();
  }, [router]);
}
