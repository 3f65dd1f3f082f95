'use client';

import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import type { GridHandle } from './grid.client';
import { usePages } from './use-pages.client';
import { useRowInAddress } from './use-row-in-address.client';
import { useScanToRow } from './use-scan-to-row.client';

type Options<R> = {
  /** The id of a row's entry in the list, for the address; null for what is no entry of its own. */
  readonly idOf: (row: R) => number | null;
  /** The row that has the focus first. */
  readonly start?: number;
  /** The row of an entry of the kept list, where an entry has several. */
  readonly rowOf?: (entry: number) => number;
  /** Opens the list again when the server does not know it any more; by default the page is read again. */
  readonly reopen?: () => void;
};

/** Rows of two lines are 44 pixels high; on a phone their names wrap more. */
export const twoLines = (width: number): number => (width < 640 ? 62 : 44);

/** An open list and the grid that shows it: its rows, where the hand is, scans. `props` are for the Grid. */
export function useGridView<R>(
  kind: string,
  head: { readonly list: string; readonly count: number },
  first: readonly R[],
  { idOf, start = 0, rowOf = (entry) => entry, reopen }: Options<R>,
) {
  const router = useRouter();
  const grid = useRef<GridHandle>(null);
  const pages = usePages<R>(kind, head, first);
  const [index, setCurrent] = useState(start);
  const go = (entry: number) => {
    const row = rowOf(entry);
    grid.current?.focus(row);
    return row;
  };
  const { gone } = pages;
  useEffect(() => {
    if (!gone) return;
    if (reopen) reopen();
    else router.refresh();
  }, [gone, reopen, router]);
  // After a refresh the list may be shorter than it was.
  const current = Math.min(index, Math.max(0, head.count - 1));
  const scan = useScanToRow(kind, head.list, index, go);
  const row = pages.rowAt(current);
  useRowInAddress(kind, head.list, row === undefined ? null : idOf(row), go);
  return {
    grid,
    current,
    rowAt: pages.rowAt,
    again: pages.again,
    /** What is the matter, if anything: rows that could not be read, or a scan that found nothing. */
    said: pages.failed && !gone ? 'Some rows can’t be read just now; they are tried again.' : scan.said,
    unknown: scan.unknown,
    props: {
      ref: grid,
      listKey: head.list,
      count: head.count,
      rowAt: pages.rowAt,
      onShow: pages.show,
      current,
      onCurrent: setCurrent,
      onScan: scan.take,
    },
  };
}

/** The address of a list in another order, with what else stands in it; empty values are left out. */
export const sortedBy =
  (path: string, others: Readonly<Record<string, string>>) =>
  (sort: string): string => {
    const given = Object.entries(others).filter(([, value]) => value !== '');
    return `${path}?${new URLSearchParams([['sort', sort], ...given])}`;
  };
