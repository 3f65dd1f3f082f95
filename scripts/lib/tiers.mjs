import { join } from 'node:path';
import { build } from './application.mjs';
import { root } from './say.mjs';
import { jest, ownStep, playwright, step } from './steps.mjs';
import { seededFolder, testServer } from './testData.mjs';

const bin = (name) => join(root, 'node_modules', '.bin', name);
// TypeScript 7 under a name of its own checks types only; everything else still needs the interface of 6.
const types = join(root, 'node_modules', 'typescript-native', 'bin', 'tsc');

/** Format, lint, types, layers, and the core's tests in the meantime; `after`: what can be done while they still run. */
export async function check(tally, { after = async () => undefined } = {}) {
  const rules = async () => {
    await step(tally, 'format', bin('biome'), ['format', '.']);
    await step(tally, 'lint', bin('biome'), ['lint', '--error-on-warnings', '.']);
    await step(tally, 'types', process.execPath, [types, '--noEmit', '--incremental', 'false']);
    await step(tally, 'layers', process.execPath, [join(root, 'scripts', 'layers.mjs')]);
    await after();
  };
  await Promise.all([rules(), core(tally)]);
}

export const core = (tally, only) => jest(tally, 'core', { args: ['--runInBand'], only });

/** Jest projects on a database server of their own. */
async function onServer(tally, projects, options) {
  const database = await testServer(projects[0]);
  try {
    for (const project of projects) await jest(tally, project, { env: database.env(), ...options });
  } finally {
    await database.stop('SIGKILL');
    database.remove();
  }
}

export const services = (tally, only) => onServer(tally, ['services'], { args: ['--maxWorkers=2'], only });
export const events = (tally, only) => onServer(tally, ['events'], { args: ['--runInBand'], only });
export const files = (tally, only) => onServer(tally, ['files'], { args: ['--runInBand'], only });
export const start = (tally, only) => jest(tally, 'start', { args: ['--runInBand'], only });
export const production = (tally) => ownStep(tally, 'build', build);
export const browser = (project) => async (tally, only) => {
  await build();
  await seededFolder();
  await playwright(tally, project, { only });
};
