'use client';

import { type FormEvent, useEffect, useRef, useState } from 'react';
import { useFormat } from '../format-context.client';
import { failureSentence } from '../sentences';
import { onSessionEnd, signIn } from './send';

/** A hand that has not pressed a key for so long is not in the middle of an entry. */
const HAND_RESTS_MS = 1200;

/** Resolves once no key was pressed for a while; what is typed until then goes where it was meant. */
function handRests(): Promise<void> {
  return new Promise((done) => {
    const rested = () => {
      window.removeEventListener('keydown', again, { capture: true });
      done();
    };
    let timer = setTimeout(rested, HAND_RESTS_MS);
    const again = () => {
      clearTimeout(timer);
      timer = setTimeout(rested, HAND_RESTS_MS);
    };
    window.addEventListener('keydown', again, { capture: true });
  });
}

/** Asks for the password when a session ended in the middle of work; the page and what was typed stay as they are. It comes
 *  when the hand rests: until then the strip at the foot says that entries wait. */
export function SessionDialog() {
  const dialog = useRef<HTMLDialogElement>(null);
  const resolver = useRef<((signedIn: boolean) => void) | null>(null);
  const [fault, setFault] = useState('');
  const format = useFormat();

  useEffect(() => {
    onSessionEnd(
      () =>
        new Promise((resolve) => {
          resolver.current = resolve;
          setFault('');
          handRests().then(() => dialog.current?.showModal());
        }),
    );
    return () => onSessionEnd(null);
  }, []);

  const submit = async (event: FormEvent<HTMLFormElement>) => {
    event.preventDefault();
    const data = new FormData(event.currentTarget);
    const outcome = await signIn(String(data.get('login')), String(data.get('password')));
    if (!outcome.ok) return setFault(failureSentence(outcome.failure, format));
    dialog.current?.close();
    resolver.current?.(true);
    resolver.current = null;
  };

  return (
    <dialog
      ref={dialog}
      className="m-auto w-80 rounded-sm border border-rule-strong bg-sheet p-5 text-ink"
      aria-labelledby="again-title"
      onClose={() => {
        resolver.current?.(false);
        resolver.current = null;
      }}
    >
      <h2 id="again-title" className="mb-1 text-base font-semibold">
        Sign in again
      </h2>
      <p className="second mb-3">Your session has ended. What you typed is still here and goes on after this.</p>
      <form onSubmit={submit} className="grid gap-2">
        <label className="grid gap-1">
          Name <input name="login" className="entry" autoComplete="username" required />
        </label>
        <label className="grid gap-1">
          Password <input name="password" type="password" className="entry" autoComplete="current-password" required />
        </label>
        <p className="fault" role="alert">
          {fault}
        </p>
        <button type="submit" className="btn btn-primary">
          Sign in and go on
        </button>
      </form>
    </dialog>
  );
}
