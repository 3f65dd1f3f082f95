import { Format } from '../format';
import { adviceSentence } from './words';

test('advice on open orders is said in sentences', () => {
  const format = new Format('en-GB');
  const base = { ref: '2611-0007', day: 8, date: '2026-12-01', wantedOn: '2026-11-26' };
  expect(adviceSentence({ ...base, kind: 'sooner', wanted: 3, out: true }, format)).toBe(
    '2611-0007 is due Tue 1 Dec and wanted Thu 26 Nov: stock runs out before it comes. Ask for it sooner.',
  );
  expect(adviceSentence({ ...base, kind: 'sooner', wanted: 3, out: false }, format)).toContain(
    'below its safety stock',
  );
  expect(adviceSentence({ ...base, kind: 'later', wanted: 30, wantedOn: '2026-12-23' }, format)).toBe(
    '2611-0007 is due Tue 1 Dec but not missed before Wed 23 Dec: it may come later.',
  );
  expect(adviceSentence({ ...base, kind: 'not_needed', until: 90, wantedOn: null }, format)).toBe(
    '2611-0007, due Tue 1 Dec, is not needed in the time looked at.',
  );
});
