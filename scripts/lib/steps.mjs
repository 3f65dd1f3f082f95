import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root, run, say } from './say.mjs';

const bin = (name) => join(root, 'node_modules', '.bin', name);

/** Counts what passed and failed over all steps of a command. */
export class Tally {
  passed = 0;
  failed = 0;

  add(passed, failed) {
    this.passed += passed;
    this.failed += failed;
  }

  line() {
    return `${this.passed} passed, ${this.failed} failed`;
  }
}

/** One step that passes or fails as a whole; its output shows when it fails. */
export async function step(tally, name, command, args, options = {}) {
  const started = Date.now();
  const { code, out } = await run(command, args, { quiet: true, ...options });
  tally.add(code === 0 ? 1 : 0, code === 0 ? 0 : 1);
  say(`${code === 0 ? 'ok    ' : 'FAILED'} ${name} (${((Date.now() - started) / 1000).toFixed(1)} s)`);
  if (code !== 0) say(out.slice(-12_000));
  return code === 0;
}

/** Jest projects; every test counts. */
export async function jest(tally, project, { env = {}, args = [] } = {}) {
  const started = Date.now();
  const folder = mkdtempSync(join(tmpdir(), 'vorrat-jest-'));
  const file = join(folder, 'result.json');
  const options = ['--selectProjects', project, '--json', `--outputFile=${file}`, '--silent', ...args];
  const { code, out } = await run(bin('jest'), options, { quiet: true, env });
  const result = readJson(file);
  rmSync(folder, { recursive: true, force: true });
  const passed = result?.numPassedTests ?? 0;
  // A suite that did not even load counts as a failure of its own.
  const failed = (result?.numFailedTests ?? 0) + (result?.numRuntimeErrorTestSuites ?? 0);
  tally.add(passed, failed === 0 && (code !== 0 || passed === 0) ? 1 : failed);
  say(
    `${code === 0 ? 'ok    ' : 'FAILED'} ${project}: ${passed} passed, ${failed} failed (${((Date.now() - started) / 1000).toFixed(1)} s)`,
  );
  if (code !== 0) say(out.replace(/\{"numFailedTestSuites".*/s, '').slice(-12_000));
  return code === 0;
}

/** Playwright; every test counts. */
export async function playwright(tally, project, env = {}) {
  const started = Date.now();
  const folder = mkdtempSync(join(tmpdir(), 'vorrat-browser-'));
  const file = join(folder, 'result.json');
  const { code, out } = await run(bin('playwright'), ['test', '--project', project], {
    quiet: true,
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_FILE: file },
  });
  const stats = readJson(file)?.stats;
  rmSync(folder, { recursive: true, force: true });
  const passed = stats?.expected ?? 0;
  const failed = (stats?.unexpected ?? 0) + (stats?.flaky ?? 0) + (stats?.skipped ?? 0);
  tally.add(passed, failed === 0 && (code !== 0 || passed === 0) ? 1 : failed);
  say(
    `${code === 0 ? 'ok    ' : 'FAILED'} browser, ${project}: ${passed} passed, ${failed} failed (${((Date.now() - started) / 1000).toFixed(1)} s)`,
  );
  if (code !== 0) say(out.slice(-15_000));
  return code === 0;
}

function readJson(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}

export async function checkSteps(tally) {
  await step(tally, 'format', bin('biome'), ['format', '.']);
  await step(tally, 'lint', bin('biome'), ['lint', '--error-on-warnings', '.']);
  await step(tally, 'types', bin('tsc'), ['--noEmit']);
  await step(tally, 'layers', process.execPath, [join(root, 'scripts', 'layers.mjs')]);
  await jest(tally, 'core');
}
