'use client';

import { Command } from 'cmdk';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { Found } from '@/services/people/readFind';
import { useFormat } from '../format-context.client';
import { find } from '../items/find';

/** Something that can be done from Find: go somewhere, or act. */
export type Doing = { readonly name: string; readonly href?: string; readonly act?: () => void };

const NOTHING: Found = { items: [], exact: 0, orders: [] };
/** Typing quickly asks only for where one stops. */
const PAUSE_MS = 90;

function useFound(text: string): { found: Found; failed: boolean } {
  const [answer, setAnswer] = useState<{ text: string; found: Found; failed: boolean }>({
    text: '',
    found: NOTHING,
    failed: false,
  });
  useEffect(() => {
    if (text.trim() === '') return;
    let stale = false;
    const timer = setTimeout(async () => {
      const now = await find(text);
      if (!stale) setAnswer({ text, found: now ?? NOTHING, failed: now === null });
    }, PAUSE_MS);
    return () => {
      stale = true;
      clearTimeout(timer);
    };
  }, [text]);
  return text.trim() === '' ? { found: NOTHING, failed: false } : answer;
}

/** Items, orders, pages and commands in one field; Enter takes the first, arrows the next. */
export function FindDialog(props: {
  doings: readonly Doing[];
  text: string;
  onClose: () => void;
  /** Makes an item of what was typed or scanned; null for whoever may not. */
  onMake: ((text: string) => void) | null;
}) {
  const { doings, onClose } = props;
  const router = useRouter();
  const format = useFormat();
  const dialog = useRef<HTMLDialogElement>(null);
  const [text, setText] = useState(props.text);
  const { found, failed } = useFound(text);
  useEffect(() => dialog.current?.showModal(), []);

  const words = text.trim().toLowerCase();
  const fitting = doings.filter((d) => d.name.toLowerCase().includes(words));
  // Enter takes the first, also of what has only just been found.
  const first = found.items[0] ? `item ${found.items[0].id}` : found.orders[0] ? `order ${found.orders[0].id}` : null;
  const top = first ?? (fitting[0] ? `do ${fitting[0].name}` : '');
  const [chosen, setChosen] = useState(top);
  useEffect(() => setChosen(top), [top]);
  const go = (href: string) => {
    onClose();
    router.push(href);
  };
  const row = 'find-row';
  return (
    <dialog
      ref={dialog}
      className="mx-auto mt-[12vh] w-[min(560px,calc(100vw-24px))] rounded-sm border border-ink bg-sheet p-0 text-ink"
      aria-label="Find or do"
      onClose={onClose}
    >
      <Command shouldFilter={false} label="Find or do" loop value={chosen} onValueChange={setChosen}>
        <Command.Input
          className="w-full border-b border-rule-strong bg-transparent px-4 py-3 text-[15px] outline-none"
          placeholder="item, order, supplier’s orders, page or command"
          value={text}
          onValueChange={setText}
        />
        <Command.List className="max-h-[50vh] overflow-y-auto py-2">
          {found.items.length > 0 && (
            <Command.Group heading="Items">
              {found.items.map((i) => (
                <Command.Item key={i.id} value={`item ${i.id}`} className={row} onSelect={() => go(`/items/${i.id}`)}>
                  <span className="name">{i.name}</span>
                  <span className="code ml-auto">{i.number}</span>
                </Command.Item>
              ))}
            </Command.Group>
          )}
          {found.orders.length > 0 && (
            <Command.Group heading="Orders">
              {found.orders.map((o) => (
                <Command.Item key={o.id} value={`order ${o.id}`} className={row} onSelect={() => go(`/orders/${o.id}`)}>
                  <span className="name">{o.number ?? 'draft'}</span>
                  <span>{o.supplier}</span>
                  <span className="second ml-auto">{format.date(o.orderDate)}</span>
                </Command.Item>
              ))}
            </Command.Group>
          )}
          {fitting.length > 0 && (
            <Command.Group heading="Go to or do">
              {fitting.map((d) => (
                <Command.Item
                  key={d.name}
                  value={`do ${d.name}`}
                  className={row}
                  onSelect={() => {
                    if (d.href) go(d.href);
                    else {
                      onClose();
                      d.act?.();
                    }
                  }}
                >
                  {d.name}
                </Command.Item>
              ))}
            </Command.Group>
          )}
          {words !== '' && props.onMake && (
            <Command.Group>
              <Command.Item value="make" className={row} onSelect={() => props.onMake?.(text.trim())}>
                Make a new item {/^\d{6,}$/.test(text.trim()) ? 'with the barcode' : 'called'} “{text.trim()}”
              </Command.Item>
            </Command.Group>
          )}
          {words !== '' && (
            <Command.Empty className="second px-4 py-3">
              {failed ? 'Vorrat can’t be reached; try again in a moment.' : `Nothing is called “${text.trim()}”.`}
            </Command.Empty>
          )}
        </Command.List>
      </Command>
    </dialog>
  );
}
