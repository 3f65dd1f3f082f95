import { err, ok, type Result } from '@/core/result';
import type { CellFault, DecimalMark } from './faults';

const groupedBy = (mark: string, group: string) =>
  new RegExp(`^(-?)(\\d+|\\d{1,3}(?:[ \u00a0\u202f'’]\\d{3})+|\\d{1,3}(?:${group}\\d{3})+)(?:\\${mark}(\\d*))?$`);
const grouped: Readonly<Record<DecimalMark, RegExp>> = { '.': groupedBy('.', ','), ',': groupedBy(',', '\\.') };
const bare: Readonly<Record<DecimalMark, RegExp>> = { '.': /^(-?)()\.(\d+)$/, ',': /^(-?)(),(\d+)$/ };

/** A number as it stands in a cell, as a plain decimal without surplus zeros. Thousands may be grouped by the other mark,
 *  a space or an apostrophe, in threes only; a sign may lead.
 *  Errors: not_a_number (with the decimal mark that the file is read with), too_many_decimals.
 *  @example cellNumber('1.234,50', ',', 2)  // '1234.5' */
export function cellNumber(text: string, mark: DecimalMark, mostDecimals: number): Result<string, CellFault> {
  // What most cells are.
  if (/^(?:0|[1-9]\d{0,14})$/.test(text)) return ok(text);
  const compact = text.replace(/\u2212/, '-');
  const m = grouped[mark].exec(compact) ?? bare[mark].exec(compact);
  if (!m) return err({ kind: 'not_a_number', mark });
  const whole = ((m[2] as string).replace(/\D/g, '') || '0').replace(/^0+(?=\d)/, '');
  const decimals = (m[3] ?? '').replace(/0+$/, '');
  if (decimals.length > mostDecimals) return err({ kind: 'too_many_decimals', most: mostDecimals });
  const value = decimals === '' ? whole : `${whole}.${decimals}`;
  return ok(m[1] && /[1-9]/.test(value) ? `-${value}` : value);
}

/** What the cells of the number columns tell about the decimal mark. `sure` when some cell can only be read one way;
 *  `torn` when cells contradict each other, with the mark that
 *  more of them have and an example of the others; `open` when there are cells like 1.234 that either mark could be read from and
 *  none that decides. */
export type MarkEvidence = {
  readonly mark: DecimalMark;
  readonly certainty: 'sure' | 'torn' | 'open' | 'nothing_to_tell';
  readonly example: string | null;
};

/** Looks for the decimal mark of a file.
 *  @example decimalEvidence(['12', '3,5'])   // mark ',', sure
 *  @example decimalEvidence(['1.234'])       // open: 1234 or 1.234 */
export function decimalEvidence(cells: Iterable<string>): MarkEvidence {
  const seen: Record<DecimalMark, string[]> = { '.': [], ',': [] };
  let open: string | null = null;
  for (const cell of cells) {
    const text = cell.trim().replace(/^[-\u2212]/, '');
    if (!/^[\d.,' \u00a0\u202f’]+$/.test(text)) continue;
    const last = Math.max(text.lastIndexOf('.'), text.lastIndexOf(','));
    if (last < 0) continue;
    const mark = text[last] as DecimalMark;
    const other = mark === '.' ? ',' : '.';
    const behind = text.length - last - 1;
    const several = text.split(mark).length > 2;
    if (several) seen[other].push(cell);
    else if (text.includes(other) || behind !== 3 || /^0?[.,]/.test(text) || last > 3) seen[mark].push(cell);
    else open ??= cell;
  }
  const [mark, other]: readonly DecimalMark[] = seen[','].length > seen['.'].length ? [',', '.'] : ['.', ','];
  const [told, against] = [seen[mark as DecimalMark], seen[other as DecimalMark]];
  if (against.length > 0) return { mark: mark as DecimalMark, certainty: 'torn', example: against[0] as string };
  if (told.length > 0) return { mark: mark as DecimalMark, certainty: 'sure', example: told[0] as string };
  return { mark: '.', certainty: open === null ? 'nothing_to_tell' : 'open', example: open };
}
