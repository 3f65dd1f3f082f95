import { ScanWatch } from './scan';

/** What takes a scan: told when one may be starting, so that it can remember what the keys will change; told to put that
 *  back when it was one; and given its code. */
export type ScanTaker = {
  readonly begins?: () => void;
  readonly putBack?: () => void;
  readonly take?: (code: string) => void;
};

const takers: ScanTaker[] = [];
let stop: (() => void) | null = null;

const isField = (e: Element | null): e is HTMLInputElement | HTMLTextAreaElement =>
  e instanceof HTMLInputElement || e instanceof HTMLTextAreaElement;

/** Puts a field back to what it held, also one that a component controls. */
function putFieldBack(field: HTMLInputElement | HTMLTextAreaElement, value: string): void {
  if (field.value === value) return;
  const owner = field instanceof HTMLInputElement ? HTMLInputElement.prototype : HTMLTextAreaElement.prototype;
  Object.getOwnPropertyDescriptor(owner, 'value')?.set?.call(field, value);
  field.dispatchEvent(new Event('input', { bubbles: true }));
}

function listen(): () => void {
  const watch = new ScanWatch();
  let start: { element: Element | null; value: string } = { element: null, value: '' };
  const onKey = (e: KeyboardEvent) => {
    if (e.ctrlKey || e.metaKey || e.altKey) return;
    // A dialog takes scans as typed: Find looks for them.
    if (e.target instanceof Element && e.target.closest('dialog[open]')) return;
    if (watch.begins(e.timeStamp)) {
      const element = document.activeElement;
      start = { element, value: isField(element) ? element.value : '' };
      for (const t of takers) t.begins?.();
    }
    const scan = watch.key(e.key, e.timeStamp);
    if (!scan) return;
    e.preventDefault();
    e.stopImmediatePropagation();
    if (isField(start.element)) putFieldBack(start.element, start.value);
    for (const t of takers) t.putBack?.();
    if (start.element instanceof HTMLElement) start.element.focus({ preventScroll: true });
    takers.findLast((t) => t.take)?.take?.(scan.code);
  };
  window.addEventListener('keydown', onKey, { capture: true });
  return () => window.removeEventListener('keydown', onKey, { capture: true });
}

/** Takes scans wherever they land on the page, until the returned function is called. The last one that came gets them. */
export function takeScans(taker: ScanTaker): () => void {
  takers.push(taker);
  stop ??= listen();
  return () => {
    takers.splice(takers.indexOf(taker), 1);
    if (takers.length > 0) return;
    stop?.();
    stop = null;
  };
}
