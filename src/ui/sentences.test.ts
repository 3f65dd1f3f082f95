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
    [{ kind: 'max_without_min' }, 'A maximum needs a minimum.'],
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
