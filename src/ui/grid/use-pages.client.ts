'use client';

import { useCallback, useEffect, useRef, useState } from 'react';

/** Rows that come at once, as the server sends them. */
const PAGE = 200;
/** Rows that are fetched before they are seen. */
const AHEAD = 100;
const TRY_AGAIN_MS = 2000;
/** Pages kept; the others are fetched again when they are looked at. */
const MOST_PAGES = 40;

type Answer<R> = { readonly ok: boolean; readonly value?: { readonly from: number; readonly rows: readonly R[] } };

/** The rows of an open list, fetched page by page as they come into view. `first` is the first page, which came with the
 *  view. `gone` is true once the server does not know the list any more: it has to be opened again. */
export function usePages<R>(grid: string, { list, count }: { list: string; count: number }, first: readonly R[]) {
  const pages = useRef(new Map<number, readonly R[]>([[0, first]]));
  const asked = useRef(new Set<number>());
  const [state, setState] = useState({ version: 0, gone: false, failed: false });
  const opened = useRef(list);

  const fetchPage = useCallback(
    async (page: number, keep: (row: number) => boolean = () => false) => {
      asked.current.add(page);
      const query = `list=${encodeURIComponent(list)}&from=${page * PAGE}`;
      const response = await fetch(`/api/grids/${grid}?${query}`).catch(() => null);
      const answer = response ? ((await response.json().catch(() => null)) as Answer<R> | null) : null;
      // What was asked of a list that is no longer shown says nothing about this one.
      if (opened.current !== list) return;
      asked.current.delete(page);
      if (answer?.ok && answer.value) {
        const had = pages.current.get(page);
        const { rows } = answer.value;
        pages.current.delete(page);
        pages.current.set(page, had ? rows.map((r, i) => (keep(page * PAGE + i) ? (had[i] ?? r) : r)) : rows);
        while (pages.current.size > MOST_PAGES) pages.current.delete(pages.current.keys().next().value as number);
        setState((s) => ({ version: s.version + 1, gone: false, failed: false }));
      } else setState((s) => ({ ...s, gone: response?.status === 410, failed: true }));
    },
    [grid, list],
  );

  // Opened again: everything is fetched afresh, from the page that came with it.
  useEffect(() => {
    if (opened.current === list) return;
    opened.current = list;
    pages.current = new Map([[0, first]]);
    asked.current.clear();
    setState((s) => ({ version: s.version + 1, gone: false, failed: false }));
  }, [list, first]);

  /** Fetches what of these rows is not here yet, and then what is near to them. */
  const shown = useRef({ from: 0, end: 0 });
  const show = useCallback(
    async (from: number, end: number) => {
      shown.current = { from, end };
      const missing = (first: number, last: number) => {
        const wanted = [];
        for (let page = Math.floor(Math.max(0, first) / PAGE); page * PAGE < Math.min(last, count); page += 1)
          if (!pages.current.has(page) && !asked.current.has(page)) wanted.push(fetchPage(page));
        return Promise.all(wanted);
      };
      await missing(from, end);
      // Not where the list was only passed through.
      if (shown.current.from === from && shown.current.end === end) await missing(from - AHEAD, end + AHEAD);
    },
    [fetchPage, count],
  );
  // What could not be read is tried again by itself.
  useEffect(() => {
    if (!state.failed || state.gone) return;
    const timer = setInterval(() => show(shown.current.from, shown.current.end), TRY_AGAIN_MS);
    return () => clearInterval(timer);
  }, [state.failed, state.gone, show]);
  /** Fetches these rows again, as they are now; until then the old ones stay, and all others as they were. */
  const again = useCallback(
    async (from: number, end: number) => {
      const wanted = [];
      for (let page = Math.floor(from / PAGE); page * PAGE < end; page += 1)
        wanted.push(fetchPage(page, (row) => row < from || row >= end));
      await Promise.all(wanted);
    },
    [fetchPage],
  );
  const rowAt = (index: number): R | undefined => pages.current.get(Math.floor(index / PAGE))?.[index % PAGE];
  return { rowAt, show, again, ...state };
}
