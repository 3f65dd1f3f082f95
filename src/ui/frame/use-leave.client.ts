'use client';

import { useState } from 'react';

/** Leaving a form: with something typed it is said first, and the second time it is left. `close` is what its button says. */
export function useLeave(dirty: boolean, onClose: () => void) {
  const [asked, setAsked] = useState(false);
  const warned = asked && dirty;
  return {
    leave: () => (dirty && !asked ? setAsked(true) : onClose()),
    close: warned ? 'Leave without saving' : 'Close',
    said: warned ? 'What you typed is not saved yet.' : '',
  };
}
