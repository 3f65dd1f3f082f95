import { deliveryWords, paymentWords } from '.';

const agreed = { words: '', days: 30, discountPercent: '2.000', discountDays: 14 };
const none = { words: '', days: null, discountPercent: null, discountDays: null };

test.each([
  [agreed, '14 days 2 %, 30 days net'],
  [{ ...agreed, words: 'in advance' }, 'in advance'],
  [{ ...agreed, discountPercent: '2.5', discountDays: 1 }, '1 day 2.5 %, 30 days net'],
  [{ ...none, days: 60 }, '60 days net'],
  [{ ...none, days: 0 }, 'at once'],
  [{ ...none, discountPercent: '0', discountDays: 8 }, ''],
  [none, ''],
])('payment %j: %s', (terms, words) => expect(paymentWords(terms)).toBe(words));

const fca = { words: '', incoterm: 'FCA', place: 'Torvaig', payer: 'collect' as const };

test.each([
  [fca, 'FCA Torvaig, freight collect'],
  [{ ...fca, words: 'to the back door' }, 'to the back door'],
  [{ ...fca, place: '', payer: null }, 'FCA'],
  [{ ...fca, incoterm: '', place: '', payer: 'prepaid' as const }, 'freight prepaid'],
  [{ ...fca, payer: 'third_party' as const }, 'FCA Torvaig, freight paid by a third party'],
  [{ words: ' ', incoterm: '', place: '', payer: null }, ''],
])('delivery %j: %s', (terms, words) => expect(deliveryWords(terms)).toBe(words));
