import { kindWords, type PolicyField, type PolicyKind } from '@/core/policy';

/** Columns of the sheet that can be worked in, from left to right. */
export const policyColumns = ['kind', 'min', 'max'] as const;
export type PolicyColumn = (typeof policyColumns)[number];

export const shownKinds: Readonly<Record<PolicyKind | 'none', string>> = { ...kindWords, none: 'no policy yet' };

/** What a kind is, in a sentence. */
export const kindSentences: Readonly<Record<PolicyKind | 'none', string>> = {
  min_max: 'At the minimum, refill to the maximum; without a maximum, to the minimum.',
  fixed_quantity: 'At the minimum, order so many times one fixed quantity that stock is above it again.',
  periodic: 'On every order day of the supplier, order up to one level; it is reckoned from demand unless it is set.',
  days_of_cover: 'Minimum and maximum follow demand: enough for the lead time, and so many days more.',
  lot_for_lot:
    'Look ahead day by day; where stock would fall below its safety stock, order a window of demand at once.',
  per_demand:
    'Nothing is kept: each line that another place asks for is bought by itself, exactly, and promised to it when it comes.',
  phase_out: 'Nothing is bought any more; what is left is sold.',
  not_carried: 'Not carried here: no need is ever raised.',
  none: 'No policy yet: choose one, or enter a minimum, and a maximum to refill to.',
};

/** The value that a column holds under a kind of policy; null where it holds none. Under a fixed quantity the right-hand column
 *  is that quantity, under days of cover the days. */
export function fieldOf(column: PolicyColumn, kind: PolicyKind | 'none' | ''): PolicyField | null {
  if (column === 'kind') return 'kind';
  if (column === 'min')
    return kind === 'min_max' || kind === 'fixed_quantity' || kind === 'none' || kind === '' ? 'min' : null;
  switch (kind) {
    case 'fixed_quantity':
      return 'fixed';
    case 'days_of_cover':
      return 'coverDays';
    case 'min_max':
    case 'periodic':
    case 'none':
    case '':
      return 'max';
    default:
      return null;
  }
}

/** What a cell of a spreadsheet says for a kind: its word or its short name; '' for nothing; null for what it is not. */
export function kindFromText(text: string): PolicyKind | '' | null {
  const plain = text
    .trim()
    .toLowerCase()
    .replace(/[\s_-]+/g, ' ');
  if (plain === '' || plain === 'no policy yet' || plain === '–') return '';
  const found = Object.entries(kindWords).find(
    ([kind, words]) => plain === kind.replace(/_/g, ' ') || plain === words.replace(/[\s_-]+/g, ' '),
  );
  return found ? (found[0] as PolicyKind) : null;
}

/** Cells of a spreadsheet as it puts them on the clipboard: lines and tabs; a last line end makes no line. */
export const cellsOfText = (text: string): string[][] =>
  text
    .replace(/\r\n?/g, '\n')
    .replace(/\n$/, '')
    .split('\n')
    .map((line) => line.split('\t').map((cell) => cell.trim()));

/** A rectangle of cells, by rows and columns, in order. */
export type Range = { readonly top: number; readonly bottom: number; readonly left: number; readonly right: number };
export type Corner = { readonly row: number; readonly col: number };
export const rangeOf = (a: Corner, b: Corner): Range => ({
  top: Math.min(a.row, b.row),
  bottom: Math.max(a.row, b.row),
  left: Math.min(a.col, b.col),
  right: Math.max(a.col, b.col),
});
export const inRange = (r: Range | null, row: number, col: number): boolean =>
  r !== null && row >= r.top && row <= r.bottom && col >= r.left && col <= r.right;

/** Figures a pasted cell may be dressed in: "+10" of a fixed quantity, "14 days". */
export const undressed = (text: string): string =>
  text
    .replace(/^\+\s*/, '')
    .replace(/\s*days?$/i, '')
    .replace(/^–$/, '');
