import { splitWords } from './assign-window.client';

const view = { state: 'found' as const, gap: 0, inTime: true, seconds: 10, lines: [] };

test('each end of a split has its sentence, with the gap where it is not proved to be the best', () => {
  expect(splitWords({ ...view, state: 'running' })).toBe('Being worked out, 10 seconds at most.');
  expect(splitWords(view)).toBe('The cheapest there is.');
  expect(splitWords({ ...view, gap: 0.0061 })).toBe('At most 0.6 % above the cheapest there is.');
  expect(splitWords({ ...view, gap: 0.2, inTime: false })).toBe(
    'The time was over. At most 20.0 % above the cheapest there is.',
  );
  expect(splitWords({ ...view, state: 'infeasible' })).toContain('No assignment reaches every supplier’s minimum');
  expect(splitWords({ ...view, state: 'nothing_in_time' })).toContain('Nothing was found');
  expect(splitWords({ ...view, state: 'stopped' })).toContain('as they were');
});
