'use client';

import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import type { Doing } from './find-dialog.client';

// Fetched when it is first opened: most pages are left without it.
const FindDialog = dynamic(() => import('./find-dialog.client').then((m) => m.FindDialog), { ssr: false });

/** "Find or do …" in the bar, and Ctrl/⌘ K everywhere. */
export function Find({ doings }: { doings: readonly Doing[] }) {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.shiftKey || e.altKey || e.key.toLowerCase() !== 'k') return;
      e.preventDefault();
      setOpen(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  return (
    <>
      <button
        type="button"
        className="chip text-muted"
        aria-keyshortcuts="Control+K Meta+K"
        title="Ctrl K or ⌘ K"
        onClick={() => setOpen(true)}
      >
        Find or do …
      </button>
      {open && <FindDialog doings={doings} onClose={() => setOpen(false)} />}
    </>
  );
}
