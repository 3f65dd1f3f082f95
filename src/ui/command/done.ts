/** What was done last, in words, with the key that undoes it. */
export type Done = { readonly key: string; readonly words: string };
export type Strip = {
  readonly done: Done | null;
  /** What came of an undo: its sentence, said until the next thing is done. */
  readonly said: { readonly text: string; readonly fault: boolean } | null;
};

type Listener = () => void;
let strip: Strip = { done: null, said: null };
const listeners = new Set<Listener>();
const undone = new Set<(key: string) => void>();

const show = (next: Strip): void => {
  strip = next;
  for (const l of listeners) l();
};

/** The strip at the foot of the page: something was done that can be undone. */
export const noteDone = (done: Done): void => show({ done, said: null });
export const noteUndone = (key: string, text: string): void => {
  show({ done: null, said: { text, fault: false } });
  for (const l of undone) l(key);
};
export const noteUndoRefused = (text: string): void => show({ done: null, said: { text, fault: true } });
export const clearStrip = (): void => show({ done: null, said: null });

export const stripSnapshot = (): Strip => strip;
export const onStrip = (listener: Listener): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
/** Lists put an entry back to what it was when its command was undone. */
export const onUndone = (listener: (key: string) => void): (() => void) => {
  undone.add(listener);
  return () => undone.delete(listener);
};
