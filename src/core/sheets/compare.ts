import type { Column, Value, Values } from './column';

/** What a row would change: column, before, after. */
export type FieldChange = { readonly column: string; readonly before: Value; readonly after: Value };

/** Fields of the file that differ from what is kept. */
export const changesOf = (kept: Values, read: Values): FieldChange[] =>
  Object.entries(read).flatMap(([column, after]) => {
    const before = kept[column] ?? null;
    return (before ?? '') === (after ?? '') ? [] : [{ column, before, after }];
  });

const known = new WeakMap<readonly Column[], Values>();

/** What a new record gets where nothing is said. */
export function defaultsOf(columns: readonly Column[]): Values {
  const had = known.get(columns);
  if (had) return had;
  const made = Object.fromEntries(columns.map((c) => [c.key, c.otherwise]));
  known.set(columns, made);
  return made;
}

/** A whole record from what is kept (or what a new one gets) and what the file says. */
export const merged = (columns: readonly Column[], kept: Values | null, read: Values): Values => ({
  ...defaultsOf(columns),
  ...kept,
  ...read,
});
