/** Where a key moves to from a row: the row to look at first, and the direction in which to look on when it can't have the
 *  focus. Null when the key moves nothing. In a field only the arrows up and down move. */
export function moveOf(
  key: string,
  from: number,
  list: { readonly count: number; readonly page: number; readonly inField: boolean },
): { readonly to: number; readonly by: 1 | -1 } | null {
  const last = list.count - 1;
  if (key === 'ArrowDown') return { to: from + 1, by: 1 };
  if (key === 'ArrowUp') return { to: from - 1, by: -1 };
  if (list.inField) return null;
  if (key === 'PageDown') return { to: Math.min(from + list.page, last), by: -1 };
  if (key === 'PageUp') return { to: Math.max(from - list.page, 0), by: 1 };
  if (key === 'Home') return { to: 0, by: 1 };
  if (key === 'End') return { to: last, by: -1 };
  return null;
}
