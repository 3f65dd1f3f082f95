import type { CellFault, CodeKind, Reference, RowFault } from '@/core/sheets';
import type { FileFault } from '@/formats/fault';
import type { Format } from '../format';

const codes: Readonly<Record<CodeKind, string>> = {
  unit: 'no unit; use its UN/ECE code, such as C62 (one), MTR (metre) or KGM (kilogram)',
  currency: 'no currency; use its ISO 4217 code, such as EUR',
  country: 'no country; use its two letters, such as GB',
  hs: 'no HS code; it has 4, 6, 8 or 10 digits',
  hs_prefix: 'no beginning of an HS code; it has 2 to 10 digits',
  un_number: 'no UN number; it has four digits',
  incoterm: 'not one of Incoterms 2020, such as DAP or FCA',
  gtin: 'no code that a label can carry',
  mail: 'no mail address',
};

const things: Readonly<Record<Reference, string>> = {
  item: 'item',
  supplier: 'supplier',
  location: 'location',
  pack: 'pack',
  source: 'source: this supplier doesn’t sell the item yet, so bring Sources first',
  category: 'category',
  family: 'family',
  currency: 'currency',
  rate: 'rate',
  user: 'person with the sign-in name',
  shipping_way: 'shipping way',
  charge: 'earlier charge of this supplier called',
};

const unchangeable = {
  stock_posted: 'Opening stock was posted differently; a count puts stock right now.',
  stock_there: 'Stock has already moved here; a count puts it right.',
  stock_not_kept: 'No stock is kept of this item.',
  stock_in_use: 'Stock can’t be left unkept while some is there, promised or on its way; count it to 0 first.',
  order_entered: 'This order is entered already with something else; change it on its page.',
  unit_in_use: 'The unit can’t be changed any more: stock, packs, policies or orders are kept in it.',
  currency_in_use: 'The currency of a supplier can’t be changed; its prices are in it.',
} as const;

/** What stands in the way of closing a place, when it is one and when it is more. */
const inTheWay = {
  stock: ['item has stock there', 'items have stock there'],
  orders: ['order is open for it', 'orders are open for it'],
  waiting: ['customer’s order waits for it', 'customers’ orders wait for it'],
  trays: ['line for it is in a tray', 'lines for it are in trays'],
  transfers: ['transfer is on its way', 'transfers are on their way'],
  promises: ['promise of its stock is held', 'promises of its stock are held'],
  supplies: ['place is supplied by it', 'places are supplied by it'],
} as const;

const orders = { ymd: '2026-12-03', dmy: '3.12.2026', mdy: '12/3/2026' } as const;

/** What is wrong with a cell and what would be right. `title` gives the heading of another column by its key. */
export function cellSentence(
  fault: CellFault & { readonly text?: string },
  title: (key: string) => string,
  format: Format,
): string {
  const said = `“${(fault.text ?? '').slice(0, 60)}”`;
  switch (fault.kind) {
    case 'missing':
      return 'This is needed.';
    case 'too_long':
      return `Longer than ${fault.most} characters.`;
    case 'unprintable':
      return 'Holds characters that can’t be printed; type it again.';
    case 'formula':
      return `${said} is a formula; put its value there.`;
    case 'not_a_number':
      return `${said} is not a number with a decimal ${fault.mark === '.' ? 'point' : 'comma'}.`;
    case 'too_many_decimals':
      return fault.most === 0 ? `${said}: a whole number is needed.` : `${said} has more than ${fault.most} decimals.`;
    case 'out_of_range':
      return `${said} is not between ${fault.least} and ${fault.most}.`;
    case 'not_a_date':
      return `${said} is not a date; write it like ${orders[fault.order]} or 2026-12-03.`;
    case 'not_one_of':
      return `${said} is not one of: ${fault.choices.join(', ')}.`;
    case 'no_such_code':
      return `${said} is ${codes[fault.what]}.`;
    case 'check_digit':
      return `${said} has a wrong check digit; the last digit would be ${fault.right}. If it is a code of your own, say “internal”.`;
    case 'not_on_file':
      if (fault.what === 'pack') return `The item has no pack ${said}.`;
      return `There is no ${things[fault.what]}${fault.what === 'source' ? '' : ` ${said}`}.`;
    case 'twice_in_file':
      return `The same as row ${fault.row}, which counts.`;
    case 'differs_from_row':
      return `Row ${fault.row} says something else here, and it must be the same.`;
    case 'taken':
      return `This code is on ${fault.by} already; take it off there first.`;
    case 'on_file_already':
      return `${said} is on file already; change it there.`;
    case 'not_changeable':
      return unchangeable[fault.why];
    case 'own_number':
      return `${said} looks like a number that Vorrat gives itself; put something before it.`;
    case 'order_of_another':
      return `${said} is the number of an order to another supplier.`;
    case 'reserved':
      return `Vorrat uses ${said} itself; choose another code.`;
    case 'own_currency':
      return 'This is the company’s own currency; it needs no rate.';
    case 'other_dimension':
      return `${said} can’t be counted in ${fault.unit}, the unit of the item.`;
    case 'not_exact':
      return `Not a whole number of millionths of ${fault.unit}; keep the item in a finer unit (g, not kg).`;
    case 'loop':
      return `This leads back to itself: ${fault.through.join(' → ')}.`;
    case 'above_other':
      return `${said} is above “${title(fault.other)}”.`;
    case 'needs_other':
      return `Needed because “${title(fault.other)}” is filled in.`;
    case 'books_closed':
      return `The books are closed to ${format.date(fault.to)}.`;
    case 'in_the_future':
      return `${said} is not over yet.`;
    case 'stands_in_the_way':
      return `It can’t be closed yet: ${fault.what.map((w) => `${w.n} ${inTheWay[w.what][w.n === 1 ? 0 : 1]} (${w.named})`).join('; ')}.`;
    case 'in_use':
      return 'It is used elsewhere (by orders, decisions, prices or other packs), so it stays on file.';
    case 'too_much_in_all':
      return `Together with the others that is more than ${fault.most} %.`;
  }
}

/** A fault of a row with its column and value. */
export const rowFaultSentence = (f: RowFault, title: (key: string) => string, format: Format): string =>
  `${title(f.column)}: ${cellSentence(f, title, format)}`;

/** Why a file can't be read at all. */
export function fileSentence(fault: FileFault): string {
  switch (fault.kind) {
    case 'empty':
      return 'The file is empty.';
    case 'too_large':
      return `The file is larger than ${fault.mostMegabytes} MB.`;
    case 'unpacks_too_large':
      return `The workbook unpacks to more than ${fault.mostMegabytes} MB.`;
    case 'binary':
      return 'This is no spreadsheet: it is not text and no XLSX workbook.';
    case 'old_format':
      return 'This is an old XLS workbook or one with a password; save it as XLSX without one, or as CSV.';
    case 'encrypted':
      return 'The workbook has a password; save it without.';
    case 'damaged':
      return 'The workbook is damaged and can’t be opened; save it again.';
    case 'entities':
      return 'The workbook holds definitions that a spreadsheet doesn’t need and that are not read; save it again from a spreadsheet program.';
    case 'took_too_long':
      return 'Reading the workbook took too long; save the sheet as CSV.';
    case 'too_many_columns':
      return `The file has ${fault.columns} columns; at most ${fault.most} are read. Take out those that aren’t needed.`;
    case 'too_many_rows':
      return `The file has more than ${fault.most} rows; split it.`;
    case 'row_too_long':
      return `Row ${fault.row} never ends: probably a quotation mark is not closed there.`;
    case 'no_rows':
      return 'There is a heading at most, and no row under it.';
  }
}
