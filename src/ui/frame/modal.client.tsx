'use client';

import { type ReactNode, useEffect, useRef } from 'react';

/** A form over the page. Escape asks `onLeave`, which may want to keep what was typed. */
export function Modal(props: { title: string; width: string; onLeave: () => void; children: ReactNode }) {
  const dialog = useRef<HTMLDialogElement>(null);
  useEffect(() => {
    const before = document.activeElement;
    if (!dialog.current?.open) dialog.current?.showModal();
    // The hand goes back to where it was, unless it has gone on meanwhile.
    return () => {
      const lost = document.activeElement === null || document.activeElement === document.body;
      if (lost && before instanceof HTMLElement && before.isConnected) before.focus();
    };
  }, []);
  return (
    <dialog
      ref={dialog}
      aria-label={props.title}
      className={`m-auto max-h-[92dvh] max-w-[96vw] rounded-sm border border-rule-strong bg-sheet text-ink ${props.width}`}
      onCancel={(e) => {
        e.preventDefault();
        props.onLeave();
      }}
      // A browser may close it all the same, when Escape comes twice: then it is asked again, and shown if it is to stay.
      onClose={() => {
        props.onLeave();
        requestAnimationFrame(() => {
          if (dialog.current?.isConnected && !dialog.current.open) dialog.current.showModal();
        });
      }}
    >
      {props.children}
    </dialog>
  );
}
