'use client';

import { Search } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useEffect, useState } from 'react';
import { takeScans } from '../grid/scans';
import { useMay } from '../may-context.client';
import type { Doing } from './find-dialog.client';

// Fetched when it is first opened: most pages are left without it.
const NewItemDialog = dynamic(() => import('../items/new-item.client').then((m) => m.NewItemDialog), { ssr: false });
const FindDialog = dynamic(() => import('./find-dialog.client').then((m) => m.FindDialog), { ssr: false });

/** "Find or do …" in the bar, and Ctrl/⌘ K everywhere; a scan that no list takes is looked for here. */
export function Find({ doings }: { doings: readonly Doing[] }) {
  const mayMake = useMay('catalogue.edit');
  const [open, setOpen] = useState<{ readonly text: string } | null>(null);
  const [making, setMaking] = useState<{ readonly name: string; readonly code: string } | null>(null);
  useEffect(() => takeScans({ take: (text) => setOpen({ text }) }), []);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.shiftKey || e.altKey || e.key.toLowerCase() !== 'k') return;
      e.preventDefault();
      setOpen({ text: '' });
    };
    const onFind = (e: Event) => setOpen({ text: String((e as CustomEvent).detail) });
    window.addEventListener('keydown', onKey);
    window.addEventListener('vorrat-find', onFind);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('vorrat-find', onFind);
    };
  }, []);
  return (
    <>
      <button
        type="button"
        className="chip text-muted"
        aria-keyshortcuts="Control+K Meta+K"
        title="Ctrl K or ⌘ K"
        onClick={() => setOpen({ text: '' })}
      >
        <Search className="size-3.5 md:hidden" aria-hidden="true" />
        <span className="max-md:sr-only">Find or do …</span>
      </button>
      {open && (
        <FindDialog
          doings={doings}
          text={open.text}
          onClose={() => setOpen(null)}
          onMake={
            mayMake
              ? (text) => {
                  setOpen(null);
                  // What looks like a code on a label is one; anything else is a name.
                  setMaking(/^\d{6,}$/.test(text) ? { name: '', code: text } : { name: text, code: '' });
                }
              : null
          }
        />
      )}
      {making && <NewItemDialog {...making} onClose={() => setMaking(null)} />}
    </>
  );
}
