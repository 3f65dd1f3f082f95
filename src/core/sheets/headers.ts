import { isOneSlipAway } from '@/core/search';
import type { Column } from './column';
import type { Mapping } from './readRow';

/** A heading without what does not matter: capitals, accents, word breaks, signs, a remark in brackets. */
export const plainHeading = (heading: string): string =>
  heading
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .toLowerCase()
    .replace(/\([^)]*\)/g, ' ')
    .replace(/[^a-z0-9]+/g, '');

/** Finds the template's column for each heading of a file: by its name, title or another known heading, word breaks and
 *  capitals aside; then, for what is left, by a heading that is one typing slip away. No column is given twice: the first
 *  heading has it. What is not found stays null, to be chosen by hand. */
export function matchHeadings(columns: readonly Column[], headings: readonly string[]): Mapping {
  const names = new Map<string, string>();
  for (const c of columns) for (const n of [c.key, c.title, ...c.aliases]) names.set(plainHeading(n), c.key);
  const taken = new Set<string>();
  const mapping: (string | null)[] = headings.map(() => null);
  const give = (i: number, key: string | undefined) => {
    if (key === undefined || taken.has(key)) return;
    taken.add(key);
    mapping[i] = key;
  };
  const plain = headings.map(plainHeading);
  for (const [i, h] of plain.entries()) give(i, names.get(h));
  for (const [i, h] of plain.entries()) {
    if (mapping[i] !== null || h.length < 5) continue;
    const near = [...names].filter(([name, key]) => !taken.has(key) && isOneSlipAway(h, name));
    if (new Set(near.map(([, key]) => key)).size === 1) give(i, near[0]?.[1]);
  }
  return mapping;
}
