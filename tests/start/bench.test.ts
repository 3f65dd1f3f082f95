import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

const bench = (name: string) =>
  spawnSync('npm', ['run', '--silent', 'bench', '--', name], {
    cwd: join(__dirname, '..', '..'),
    encoding: 'utf8',
    env: { ...process.env, VORRAT_BENCH_ITEMS: '2000' },
  });

// What is measured is a figure, never a reason to fail; that it is measured and printed as agreed is tested.
test('a bench prints one JSON line per figure: value and baseline of the same run, their ratio, the goal', () => {
  const { status, stdout } = bench('need-run');
  expect(status).toBe(0);
  const lines = stdout.trim().split('\n');
  expect(lines).toHaveLength(2);
  const figure = JSON.parse(lines[0] as string) as Record<string, unknown>;
  expect(Object.keys(figure)).toEqual(['name', 'value', 'unit', 'baseline', 'ratio', 'goal']);
  expect(figure.name).toMatch(/^need-run: 30000 pairs, \d+ changed and written; baseline: reading its inputs$/);
  expect(figure.ratio).toBeCloseTo(Number(figure.value) / Number(figure.baseline), 1);
  expect(figure.goal).toBe(1.5);
  expect(JSON.parse(lines[1] as string)).toMatchObject({ unit: 'MB', name: expect.stringContaining('peak memory') });
});

test('an unknown bench is said, with those there are', () => {
  const { status, stderr } = bench('nothing');
  expect(status).toBe(2);
  expect(stderr).toContain(
    'No bench is called nothing; there are: need-run, grid, hand, sheets, search, stock, needs, orders, entry.',
  );
});
