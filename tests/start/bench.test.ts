import { spawnSync } from 'node:child_process';
import { join } from 'node:path';

const bench = (name: string) =>
  spawnSync('npm', ['run', '--silent', 'bench', '--', name], { cwd: join(__dirname, '..', '..'), encoding: 'utf8' });

// What is measured is a figure, never a reason to fail; that it is measured and printed as agreed is tested.
test('a bench prints one JSON line per figure: value and baseline of the same run, their ratio, the goal', () => {
  const { status, stdout } = bench('need-run');
  expect(status).toBe(0);
  const lines = stdout.trim().split('\n');
  expect(lines).toHaveLength(1);
  const figure = JSON.parse(lines[0] as string) as Record<string, unknown>;
  expect(Object.keys(figure)).toEqual(['name', 'value', 'unit', 'baseline', 'ratio', 'goal']);
  expect(figure.name).toMatch(/^need-run: 100000 pairs, 9\d\d changed and written; baseline: reading its inputs$/);
  expect(figure.ratio).toBeCloseTo(Number(figure.value) / Number(figure.baseline), 1);
  expect(figure.goal).toBe(2);
});

test('an unknown bench is said, with those there are', () => {
  const { status, stderr } = bench('nothing');
  expect(status).toBe(2);
  expect(stderr).toContain('No bench is called nothing; there are: need-run.');
});
