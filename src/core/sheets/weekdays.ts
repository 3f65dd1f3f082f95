import { err, ok, type Result } from '@/core/result';
import { type Column, textColumn } from './column';
import type { CellFault } from './faults';

const names = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const;

/** Days of the week as bits, Monday the lowest, from "Mon-Fri", "Mon Wed Fri", "daily" or "none".
 *  @example weekBits('Mon-Wed Fri')  // 0b0010111 */
export function weekBits(text: string): Result<number, CellFault> {
  const plain = text.trim().toLowerCase();
  if (plain === 'none' || plain === '') return ok(0);
  if (plain === 'daily' || plain === 'every day') return ok(127);
  let bits = 0;
  for (const part of plain.replace(/\s*[-–]\s*/g, '-').split(/[\s,;+/]+/)) {
    const ends = part
      .split('-')
      .map((d) => names.findIndex((n) => /^[a-z]{3,9}$/.test(d) && d.startsWith(n.toLowerCase())));
    if (ends.length > 2 || ends.some((e) => e < 0))
      return err({ kind: 'not_one_of', choices: [...names, 'daily', 'none'] });
    const [from, to] = [ends[0] as number, ends.at(-1) as number];
    for (let d = from; ; d = (d + 1) % 7) {
      bits |= 1 << d;
      if (d === to) break;
    }
  }
  return ok(bits);
}

/** The bits as words that read back as the same; runs of three days and more as a span.
 *  @example weekText(31)  // 'Mon-Fri' */
export function weekText(bits: number): string {
  if (bits === 0) return 'none';
  if (bits === 127) return 'daily';
  const parts: string[] = [];
  for (let d = 0; d < 7; d += 1) {
    if (!(bits & (1 << d))) continue;
    let end = d;
    while (end < 6 && bits & (1 << (end + 1))) end += 1;
    if (end - d >= 2) {
      parts.push(`${names[d]}-${names[end]}`);
      d = end;
    } else parts.push(names[d] as string);
  }
  return parts.join(' ');
}

/** A column of weekdays; kept as bits. */
export const weekColumn = (key: string, about: Parameters<typeof textColumn>[2]): Column => ({
  ...textColumn(key, 80, about),
  kind: 'choice',
  otherwise: about.otherwise ?? 31,
  read: (text) => weekBits(text),
  write: (value) => weekText(Number(value)),
});
