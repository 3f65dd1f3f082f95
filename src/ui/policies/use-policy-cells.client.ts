'use client';

import { type ClipboardEvent, type KeyboardEvent, useState } from 'react';
import type { PolicyLine } from '@/services/planning/readPolicies';
import type { GridHandle } from '../grid/grid.client';
import {
  type Corner,
  cellsOfText,
  fieldOf,
  inRange,
  kindFromText,
  type PolicyColumn,
  policyColumns,
  type Range,
  rangeOf,
  shownKinds,
  undressed,
} from './cells';
import { type CellChange, keyOf, type usePolicyDrafts } from './use-policy-drafts.client';

/** Several cells of the policy sheet at once, as in a spreadsheet: chosen with Shift, a click or a drag, filled down, emptied,
 *  copied and pasted. What they become are drafts like those typed. */
export function usePolicyCells(props: {
  count: number;
  current: number;
  mayEdit: boolean;
  rowAt: (index: number) => PolicyLine | undefined;
  grid: React.RefObject<GridHandle | null>;
  sheet: ReturnType<typeof usePolicyDrafts>;
  onSave: () => void;
}) {
  const { count, current, mayEdit, rowAt, grid, sheet } = props;
  const { drafts } = sheet;
  const [corners, setCorners] = useState<{ readonly a: Corner; readonly b: Corner } | null>(null);
  const range = corners && rangeOf(corners.a, corners.b);
  const many = range !== null && (range.bottom > range.top || range.right > range.left);

  const kindOf = (line: PolicyLine) => {
    const draft = drafts.get(keyOf(line))?.now.kind;
    return draft === undefined ? line.kind : draft === '' ? 'none' : (draft as PolicyLine['kind']);
  };
  const textAt = (line: PolicyLine, col: number): string => {
    const column = policyColumns[col] as PolicyColumn;
    const kind = kindOf(line);
    if (column === 'kind') return kind === 'none' ? '' : shownKinds[kind];
    const field = fieldOf(column, kind);
    if (field === null || field === 'kind') return '';
    return drafts.get(keyOf(line))?.now[field] ?? (line.values as Record<string, string>)[field] ?? '';
  };
  /** The change that a text makes of a cell; null where the cell holds nothing or the text is no policy. */
  const changeAt = (index: number, col: number, text: string): CellChange | null => {
    const line = rowAt(index);
    if (!line) return null;
    const column = policyColumns[col] as PolicyColumn;
    const field = fieldOf(column, kindOf(line));
    if (field === null) return null;
    const value = field === 'kind' ? kindFromText(text) : undressed(text);
    return value === null ? null : { index, line, field, text: value };
  };
  const changeAll = (changes: readonly (CellChange | null)[]) => {
    const real = changes.filter((c): c is CellChange => c !== null);
    if (real.length > 0) sheet.change(real);
  };
  const eachOf = (r: Range, of: (row: number, col: number) => CellChange | null) => {
    const changes: (CellChange | null)[] = [];
    for (let row = r.top; row <= r.bottom; row += 1)
      for (let col = r.left; col <= r.right; col += 1) changes.push(of(row, col));
    return changes;
  };

  const onKeyDown = (event: KeyboardEvent) => {
    const control = event.ctrlKey || event.metaKey;
    const column = (event.target as HTMLElement).dataset?.column as PolicyColumn | undefined;
    const take = () => {
      event.preventDefault();
      event.stopPropagation();
    };
    if (control && event.key.toLowerCase() === 'z' && !event.shiftKey && sheet.canGoBack) {
      take();
      sheet.back();
      return;
    }
    if (control && event.key.toLowerCase() === 's' && drafts.size > 0) {
      take();
      props.onSave();
      return;
    }
    if (!mayEdit || column === undefined) return;
    if (event.shiftKey && (event.key === 'ArrowDown' || event.key === 'ArrowUp')) {
      take();
      const at = corners ?? {
        a: { row: current, col: policyColumns.indexOf(column) },
        b: { row: current, col: policyColumns.indexOf(column) },
      };
      const row = Math.max(0, Math.min(count - 1, at.b.row + (event.key === 'ArrowDown' ? 1 : -1)));
      setCorners({ a: at.a, b: { ...at.b, row } });
      grid.current?.focus(row, column);
      setCorners({ a: at.a, b: { ...at.b, row } });
    } else if (control && event.key.toLowerCase() === 'd' && range && range.bottom > range.top) {
      take();
      changeAll(
        eachOf({ ...range, top: range.top + 1 }, (row, col) => {
          const source = rowAt(range.top);
          return source ? changeAt(row, col, textAt(source, col)) : null;
        }),
      );
    } else if (event.key === 'Delete' && many && range) {
      take();
      changeAll(eachOf(range, (row, col) => changeAt(row, col, '')));
    } else if (event.key === 'Escape' && many) {
      take();
      setCorners(null);
    }
  };
  const onCopy = (event: ClipboardEvent) => {
    if (!many || !range) return;
    event.preventDefault();
    const lines: string[] = [];
    for (let row = range.top; row <= range.bottom; row += 1) {
      const line = rowAt(row);
      const cells: string[] = [];
      for (let col = range.left; col <= range.right; col += 1) cells.push(line ? textAt(line, col) : '');
      lines.push(cells.join('\t'));
    }
    event.clipboardData.setData('text/plain', lines.join('\n'));
  };
  const onPaste = (event: ClipboardEvent) => {
    const column = (event.target as HTMLElement).dataset?.column as PolicyColumn | undefined;
    if (!mayEdit || column === undefined) return;
    const cells = cellsOfText(event.clipboardData.getData('text/plain'));
    const single = cells.length === 1 && cells[0]?.length === 1;
    if (single && !many) return;
    event.preventDefault();
    const at =
      range ??
      rangeOf(
        { row: current, col: policyColumns.indexOf(column) },
        { row: current, col: policyColumns.indexOf(column) },
      );
    if (single) return changeAll(eachOf(at, (row, col) => changeAt(row, col, cells[0]?.[0] ?? '')));
    changeAll(
      cells.flatMap((line, i) =>
        line.map((text, j) =>
          at.top + i < count && at.left + j < policyColumns.length ? changeAt(at.top + i, at.left + j, text) : null,
        ),
      ),
    );
    const bottom = Math.min(count - 1, at.top + cells.length - 1);
    const right = Math.min(policyColumns.length - 1, at.left + (cells[0]?.length ?? 1) - 1);
    setCorners({ a: { row: at.top, col: at.left }, b: { row: bottom, col: right } });
  };

  return {
    kindOf,
    /** The rows that are chosen, the last one not included; null for a single cell. */
    rows: many ? { from: range.top, end: range.bottom + 1 } : null,
    chosen: (row: number, col: number) => many && inRange(range, row, col),
    point: (at: Corner, extend: boolean) => setCorners((c) => (extend && c ? { a: c.a, b: at } : keepOrMove(c, at))),
    drag: (at: Corner) => setCorners((c) => (c ? { a: c.a, b: at } : c)),
    hands: { onKeyDownCapture: onKeyDown, onCopy, onPaste },
  };
}

/** Going to a cell by keyboard or click lets go of what was chosen, unless it is the far corner of it. */
const keepOrMove = (c: { readonly a: Corner; readonly b: Corner } | null, at: Corner) =>
  c && c.b.row === at.row && c.b.col === at.col ? c : { a: at, b: at };
