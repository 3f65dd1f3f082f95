import type { FieldFault, HandlerFailure } from '@/services/failure';
import { Format } from './format';
import { failureSentence, faultSentence, findingSentence } from './sentences';

const format = new Format('en-GB');

describe('faults of a field', () => {
  const sentences: [FieldFault, string][] = [
    [{ kind: 'not_a_number', text: 'six' }, '“six” is not a number.'],
    [{ kind: 'not_a_number', text: '' }, 'A quantity is needed here.'],
    [
      { kind: 'ambiguous', text: '1.250', readings: ['1250', '1.25'] },
      '1.250: is that 1,250 or 1.25? Type 1250 or 1.25.',
    ],
    [
      { kind: 'price_ambiguous', text: '2,000', readings: ['2000', '2.0'] },
      '2,000: is that 2,000 or 2.0? Type 2000 or 2.0.',
    ],
    [{ kind: 'too_many_decimals', text: '0.1234567' }, '“0.1234567” has more than 6 decimals.'],
    [{ kind: 'price_decimals', text: '0.1234567' }, '“0.1234567” has more than 6 decimals.'],
    [{ kind: 'negative', text: '-1' }, 'A quantity can’t be negative here.'],
    [{ kind: 'too_large', text: '99999999999' }, '“99999999999” is larger than the books take.'],
    [{ kind: 'zero_quantity' }, 'A quantity above 0 is needed; to leave it out, take the line away.'],
    [
      { kind: 'absurd_quantity', text: '400638', times: 99_999 },
      '“400638” can’t be right: at most 99,999 packs on a line.',
    ],
    [{ kind: 'not_a_price', text: 'cheap' }, '“cheap” is not a price.'],
    [{ kind: 'price_too_large', text: '1234567890' }, '“1234567890” is larger than a price can be.'],
    [{ kind: 'not_a_date', text: 'soon' }, '“soon” is not a date.'],
    [{ kind: 'min_above_max', min: 70_000_000, max: 45_000_000 }, 'Minimum 70 is above maximum 45.'],
    [{ kind: 'in_the_future', text: '2026-12-24' }, 'Thu 24 Dec is still to come.'],
    [{ kind: 'more_than', most: 40_000_000 }, 'At most 40 can be entered here.'],
    [{ kind: 'more_than', most: 0 }, 'Nothing can be entered here: there is no more of it.'],
    [{ kind: 'name_missing' }, 'A name is needed here.'],
    [{ kind: 'password_short', least: 10 }, 'A password needs at least 10 characters; a few words will do.'],
    [{ kind: 'password_is_name' }, 'The password is your name; choose another one.'],
    [{ kind: 'no_currency', text: 'EURO' }, '“EURO” is no currency.'],
    [{ kind: 'no_time_zone', text: 'Quillon' }, '“Quillon” is no time zone.'],
    [
      { kind: 'login_shape', text: 'M R' },
      'A name to sign in with has 2 to 60 small letters, digits, points, hyphens or underscores.',
    ],
    [{ kind: 'not_days', text: 'x' }, '“x” is no number of days (1 to 999).'],
  ];
  test.each(sentences)('%j', (fault, sentence) => expect(faultSentence(fault, format)).toBe(sentence));

  test('figures follow the reader’s language', () => {
    const fault = { kind: 'min_above_max', min: 1_234_500_000, max: 45_000_000 } as const;
    expect(faultSentence(fault, new Format('de-DE'))).toContain('1.234,5');
  });
});

describe('refusals', () => {
  const sentences: [HandlerFailure | { kind: 'unreachable' }, string][] = [
    [{ kind: 'forbidden', right: 'orders.edit', because: 'role' }, 'Your role may not do this.'],
    [{ kind: 'forbidden', right: 'goods.receive', because: 'location' }, 'You may not do this for that location.'],
    [
      { kind: 'above_limit', limit: 250_000, currency: 'EUR' },
      'This is above your limit of 2,500.00: the owner approves it.',
    ],
    [
      { kind: 'invalid_field', field: 'lines.0', fault: { kind: 'stock_not_kept', item: 'Gift wrapping' } },
      'No stock is kept of Gift wrapping.',
    ],
    [
      { kind: 'invalid_field', field: 'lines.0', fault: { kind: 'sold_to_decimals', item: 'Fen Wool', decimals: 0 } },
      'Fen Wool is sold in whole units only.',
    ],
    [
      { kind: 'invalid_field', field: 'lines.0', fault: { kind: 'sold_to_decimals', item: 'Linen', decimals: 2 } },
      'Linen is sold to 2 decimals only.',
    ],
    [{ kind: 'not_found', what: 'order' }, 'This order is not there any more.'],
    [
      { kind: 'changed_meanwhile', what: 'value', who: 'Mira Rook', now: '9' },
      'Mira Rook changed this meanwhile to “9”. Your entry is still here.',
    ],
    [
      { kind: 'changed_meanwhile', what: 'order', who: null, now: null },
      'Someone else changed this order meanwhile. Read it again before you go on.',
    ],
    [
      { kind: 'changed_meanwhile', what: 'policy', who: null, now: '20 / 80' },
      'Changed meanwhile to 20 / 80. Your entry is still here.',
    ],
    [
      { kind: 'already_decided', who: 'Otto Quillon', packs: '7.000000', supplier: 'Hollinmere Spinners' },
      'Otto Quillon has already decided this: 7 from Hollinmere Spinners.',
    ],
    [{ kind: 'not_in_this_state', state: 'sent', action: 'edit' }, 'This order is sent and can’t be edited.'],
    [
      { kind: 'not_in_this_state', state: 'approved', action: 'put_back', because: 'goods_received' },
      'Goods have been booked in on this order, so it can’t be taken back.',
    ],
    [
      { kind: 'not_ready', findings: [{ kind: 'price_missing', blocks: true, lineNo: 2 }], currency: 'EUR' },
      'Not ready to approve: line 2 has no price.',
    ],
    [{ kind: 'nothing_counted' }, 'Nothing is counted yet: enter what came on at least one line.'],
    [{ kind: 'not_signed_in' }, 'Your session has ended. Sign in again; what you typed is still here.'],
    [{ kind: 'too_many_attempts', minutes: 15 }, 'Too many attempts. Try again in 15 minutes.'],
    [{ kind: 'malformed', field: 'packs' }, '“packs” is missing or not of the right kind.'],
    [
      { kind: 'database_unavailable' },
      'The database can’t be reached. Nothing was saved; what you typed is still here. Try again in a moment.',
    ],
    [{ kind: 'defect', id: 'a1b2c3d4' }, 'Something went wrong on our side (a1b2c3d4). Nothing was saved.'],
    [
      { kind: 'changed_meanwhile', what: 'record', who: null, now: null },
      'Someone else has changed this meanwhile. What you typed is still here; read it again beside it before you go on.',
    ],
    [
      { kind: 'changed_meanwhile', what: 'need', who: null, now: null },
      'This has changed meanwhile. Refresh the list to see it as it is now.',
    ],
    [
      { kind: 'already_decided', who: 'Otto Quillon', packs: '0.000000', supplier: null },
      'Otto Quillon has already decided this: 0 from no supplier.',
    ],
    [{ kind: 'no_supplier' }, 'This item has no supplier yet, so nobody to order it from.'],
    [{ kind: 'list_gone' }, 'This list has to be opened again.'],
    [{ kind: 'not_free', itemId: 1, free: 2_500_000 }, 'Only 2.5 of this is free.'],
    [
      { kind: 'books_closed', to: '2026-10-31' },
      'The books are closed to Sat 31 Oct; nothing can be posted on or before that day.',
    ],
    [
      { kind: 'no_rate', currency: 'SEK', on: '2026-11-23' },
      'No exchange rate of SEK is on file for Mon 23 Nov; enter one under Setup, Exchange rates.',
    ],
    [
      { kind: 'touched_since', who: 'Otto Quillon', action: 'approved', at: '' },
      'Otto Quillon has worked on this since (approved); nothing was undone.',
    ],
    [{ kind: 'not_undoable', because: 'unknown' }, 'This can’t be undone.'],
    [{ kind: 'not_undoable', because: 'already_undone' }, 'This has been undone already.'],
    [{ kind: 'not_undoable', because: 'gone_on' }, 'Work has gone on from here, so this can’t be undone any more.'],
    [
      { kind: 'no_colleague_mail', name: 'Otto Quillon' },
      'There is no mail address of Otto Quillon: each person says their own under Alerts. Tell them by word.',
    ],
    [
      { kind: 'no_mail_address', supplier: 'Narrowick Wool' },
      'Narrowick Wool has no mail address on file; send the order another way.',
    ],
    [{ kind: 'already_reversed', receipt: 'R2611-0001' }, 'Receipt R2611-0001 has already been reversed.'],
    [
      { kind: 'file_too_large', mostMegabytes: 60 },
      'The file is larger than 60 MB. Split it, or leave out columns that aren’t needed.',
    ],
    [
      { kind: 'columns_missing', columns: ['Number'] },
      'Say which column of the file is “Number”: rows can’t be told apart without.',
    ],
    [
      { kind: 'columns_missing', columns: ['Item', 'Supplier', 'Pack'] },
      'Say which column of the file is “Item”, “Supplier” and “Pack”: rows can’t be told apart without.',
    ],
    [{ kind: 'column_twice', column: 'Price' }, 'Two columns of the file are both taken for “Price”; leave one out.'],
    [{ kind: 'not_now', state: 'unchanged' }, 'There is nothing to bring in: no row is new or changed.'],
    [{ kind: 'not_now', state: 'applied' }, 'This file has gone on meanwhile. Reload the page to see where it is.'],
    [{ kind: 'wrong_rows', faults: [[], [{ kind: 'missing', column: 'name', text: '' }]] }, 'This is needed.'],
    [{ kind: 'wrong_rows', faults: [[]] }, 'Something in it is wrong.'],
    [{ kind: 'login_taken', login: 'mira' }, '“mira” is somebody’s already; choose another name to sign in with.'],
    [{ kind: 'name_taken', name: 'Yarn' }, 'There is one called “Yarn” already.'],
    [{ kind: 'role_in_use', people: 1 }, '1 person has this role; give them another one first.'],
    [{ kind: 'role_in_use', people: 3 }, '3 people have this role; give them another one first.'],
    [{ kind: 'last_owner' }, 'This is the only owner who can sign in; make another one first.'],
    [{ kind: 'wrong_password' }, 'Name and password don’t belong together.'],
    [{ kind: 'malformed', field: '' }, 'This could not be read.'],
    [{ kind: 'busy' }, 'Too many people at the same place; nothing was changed. Try again.'],
    [{ kind: 'unreachable' }, 'Vorrat can’t be reached. What you typed is still here; try again.'],
  ];
  test.each(sentences)('%j', (failure, sentence) => expect(failureSentence(failure, format)).toBe(sentence));

  test('a fault of a field says the field’s sentence', () => {
    const failure = { kind: 'invalid_field', field: 'min', fault: { kind: 'negative', text: '-1' } } as const;
    expect(failureSentence(failure, format)).toBe('A quantity can’t be negative here.');
  });
});

test('what is missing and what is worth knowing', () => {
  const say = (f: Parameters<typeof findingSentence>[0]) => findingSentence(f, format, 'EUR');
  expect(say({ kind: 'below_minimum', blocks: false, minimum: 40_000, short: 1060 })).toBe(
    '10.60 short of the minimum of 400.00',
  );
  expect(say({ kind: 'wanted_in_the_past', blocks: false, lineNo: 3 })).toBe(
    'line 3 is wanted on a day that has passed',
  );
  expect(say({ kind: 'place_missing', blocks: true, lineNo: 1 })).toBe('line 1 has no place to deliver to');
});
