import type { CellFault, CodeKind, Reference } from '@/core/sheets';
import type { FileFault } from '@/formats/fault';
import { Format } from '../format';
import { cellSentence, fileSentence, rowFaultSentence } from './fault-sentences';

const format = new Format('en-GB');
const title = (key: string) => ({ min: 'Minimum', max: 'Maximum' })[key] ?? key;
const say = (fault: CellFault, text = 'x7') => cellSentence({ ...fault, text }, title, format);

describe('what is wrong with a cell, and what would be right', () => {
  // Every kind of fault stands here once: one that is added is missed by the types.
  const sentences: { readonly [K in CellFault['kind']]: readonly [Extract<CellFault, { kind: K }>, string] } = {
    missing: [{ kind: 'missing' }, 'This is needed.'],
    too_long: [{ kind: 'too_long', most: 40 }, 'Longer than 40 characters.'],
    unprintable: [{ kind: 'unprintable' }, 'Holds characters that can’t be printed; type it again.'],
    formula: [{ kind: 'formula' }, '“x7” is a formula; put its value there.'],
    not_a_number: [{ kind: 'not_a_number', mark: ',' }, '“x7” is not a number with a decimal comma.'],
    too_many_decimals: [{ kind: 'too_many_decimals', most: 2 }, '“x7” has more than 2 decimals.'],
    out_of_range: [{ kind: 'out_of_range', least: '0', most: '100' }, '“x7” is not between 0 and 100.'],
    not_a_date: [{ kind: 'not_a_date', order: 'dmy' }, '“x7” is not a date; write it like 3.12.2026 or 2026-12-03.'],
    not_one_of: [{ kind: 'not_one_of', choices: ['yes', 'no'] }, '“x7” is not one of: yes, no.'],
    no_such_code: [
      { kind: 'no_such_code', what: 'currency' },
      '“x7” is no currency; use its ISO 4217 code, such as EUR.',
    ],
    check_digit: [
      { kind: 'check_digit', right: '1' },
      '“x7” has a wrong check digit; the last digit would be 1. If it is a code of your own, say “internal”.',
    ],
    not_on_file: [{ kind: 'not_on_file', what: 'item' }, 'There is no item “x7”.'],
    twice_in_file: [{ kind: 'twice_in_file', row: 12 }, 'The same as row 12, which counts.'],
    differs_from_row: [
      { kind: 'differs_from_row', row: 3 },
      'Row 3 says something else here, and it must be the same.',
    ],
    taken: [{ kind: 'taken', by: '10412-07, bag' }, 'This code is on 10412-07, bag already; take it off there first.'],
    on_file_already: [{ kind: 'on_file_already' }, '“x7” is on file already; change it there.'],
    not_changeable: [
      { kind: 'not_changeable', why: 'stock_there' },
      'Stock has already moved here; a count puts it right.',
    ],
    own_number: [{ kind: 'own_number' }, '“x7” looks like a number that Vorrat gives itself; put something before it.'],
    order_of_another: [{ kind: 'order_of_another' }, '“x7” is the number of an order to another supplier.'],
    reserved: [{ kind: 'reserved' }, 'Vorrat uses “x7” itself; choose another code.'],
    own_currency: [{ kind: 'own_currency' }, 'This is the company’s own currency; it needs no rate.'],
    other_dimension: [{ kind: 'other_dimension', unit: 'm' }, '“x7” can’t be counted in m, the unit of the item.'],
    not_exact: [
      { kind: 'not_exact', unit: 'kg' },
      'Not a whole number of millionths of kg; keep the item in a finer unit (g, not kg).',
    ],
    loop: [{ kind: 'loop', through: ['a', 'b', 'a'] }, 'This leads back to itself: a → b → a.'],
    above_other: [{ kind: 'above_other', other: 'max' }, '“x7” is above “Maximum”.'],
    needs_other: [{ kind: 'needs_other', other: 'min' }, 'Needed because “Minimum” is filled in.'],
    books_closed: [{ kind: 'books_closed', to: '2026-10-31' }, 'The books are closed to Sat 31 Oct.'],
    in_the_future: [{ kind: 'in_the_future' }, '“x7” is not over yet.'],
    stands_in_the_way: [
      {
        kind: 'stands_in_the_way',
        what: [
          { what: 'stock', n: 3, named: '10412-07, …' },
          { what: 'orders', n: 1, named: '2611-0003' },
        ],
      },
      'It can’t be closed yet: 3 items have stock there (10412-07, …); 1 order is open for it (2611-0003).',
    ],
    in_use: [
      { kind: 'in_use' },
      'It is used elsewhere (by orders, decisions, prices or other packs), so it stays on file.',
    ],
    too_much_in_all: [{ kind: 'too_much_in_all', most: 100 }, 'Together with the others that is more than 100 %.'],
  };
  test.each(Object.entries(sentences))('%s', (_, [fault, sentence]) => expect(say(fault)).toBe(sentence));

  test('a whole number is asked for as such; an example of a date follows the file', () => {
    expect(say({ kind: 'too_many_decimals', most: 0 }, '2.5')).toBe('“2.5”: a whole number is needed.');
    expect(say({ kind: 'not_a_date', order: 'mdy' })).toContain('12/3/2026');
    expect(say({ kind: 'not_a_number', mark: '.' })).toContain('decimal point');
  });

  test('each list of codes and each thing on file is named', () => {
    const codes: Record<CodeKind, RegExp> = {
      ...{ unit: /UN\/ECE/, currency: /ISO 4217/, country: /two letters/, hs: /HS code/, hs_prefix: /2 to 10 digits/ },
      ...{ un_number: /four digits/, incoterm: /Incoterms 2020/, gtin: /label/, mail: /mail address/ },
    };
    for (const [what, words] of Object.entries(codes))
      expect(say({ kind: 'no_such_code', what: what as CodeKind })).toMatch(words);
    const things: Record<Reference, string> = {
      ...{ item: 'There is no item “x7”.', supplier: 'There is no supplier “x7”.' },
      ...{ location: 'There is no location “x7”.', pack: 'The item has no pack “x7”.' },
      source: 'There is no source: this supplier doesn’t sell the item yet, so bring Sources first.',
      ...{ category: 'There is no category “x7”.', family: 'There is no family “x7”.' },
      ...{ currency: 'There is no currency “x7”.', rate: 'There is no rate “x7”.' },
      ...{ user: 'There is no person with the sign-in name “x7”.', shipping_way: 'There is no shipping way “x7”.' },
      charge: 'There is no earlier charge of this supplier called “x7”.',
    };
    for (const [what, sentence] of Object.entries(things))
      expect(say({ kind: 'not_on_file', what: what as Reference })).toBe(sentence);
  });

  test('what stands there is shown, but not all of an essay', () => {
    expect(say({ kind: 'formula' }, 'y'.repeat(500))).toBe(`“${'y'.repeat(60)}” is a formula; put its value there.`);
    expect(rowFaultSentence({ kind: 'missing', column: 'max', text: '' }, title, format)).toBe(
      'Maximum: This is needed.',
    );
  });
});

test('why a file can’t be read, each with what to do', () => {
  const sentences: { readonly [K in FileFault['kind']]: readonly [Extract<FileFault, { kind: K }>, RegExp] } = {
    empty: [{ kind: 'empty' }, /is empty/],
    too_large: [{ kind: 'too_large', mostMegabytes: 60 }, /larger than 60 MB/],
    unpacks_too_large: [{ kind: 'unpacks_too_large', mostMegabytes: 200 }, /more than 200 MB/],
    binary: [{ kind: 'binary' }, /no spreadsheet/],
    old_format: [{ kind: 'old_format' }, /save it as XLSX/],
    encrypted: [{ kind: 'encrypted' }, /save it without/],
    damaged: [{ kind: 'damaged' }, /save it again/],
    entities: [{ kind: 'entities' }, /save it again/],
    took_too_long: [{ kind: 'took_too_long' }, /as CSV/],
    too_many_columns: [{ kind: 'too_many_columns', columns: 1000, most: 200 }, /1000 columns; at most 200/],
    too_many_rows: [{ kind: 'too_many_rows', most: 500_000 }, /more than 500000 rows; split it/],
    row_too_long: [{ kind: 'row_too_long', row: 17 }, /^Row 17 never ends/],
    no_rows: [{ kind: 'no_rows' }, /no row under it/],
  };
  for (const [fault, words] of Object.values(sentences)) expect(fileSentence(fault)).toMatch(words);
});
