import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root, run, say } from './say.mjs';

const bin = (name) => join(root, 'node_modules', '.bin', name);
const seconds = (since) => (Date.now() - since) / 1000;

/** Counts what passed and failed over all steps of a command, and keeps how long each step and each test took. */
export class Tally {
  passed = 0;
  failed = 0;
  steps = [];
  tests = [];

  add(passed, failed) {
    this.passed += passed;
    this.failed += failed;
  }

  /** Counts a step and says how it went; what it printed shows when it failed. */
  step(name, since, { passed, failed, ok, out, tests = [] }) {
    this.add(passed, failed);
    const took = seconds(since);
    this.steps.push({ name, took });
    this.tests.push(...tests.map((t) => ({ ...t, step: name })));
    say(`${ok ? 'ok    ' : 'FAILED'} ${name}: ${passed} passed, ${failed} failed (${took.toFixed(1)} s)`);
    if (!ok) say(out);
    return ok;
  }

  line() {
    return `${this.passed} passed, ${this.failed} failed`;
  }

  /** The slowest tests, and the share of each step. Steps run beside each other, so their shares are of their sum. */
  slowest(count = 30) {
    const all = this.steps.reduce((sum, s) => sum + s.took, 0);
    const lines = [...this.tests]
      .sort((a, b) => b.took - a.took)
      .slice(0, count)
      .map((t) => `${t.took.toFixed(1).padStart(7)} s  ${t.step}  ${t.file}: ${t.name}`);
    const shares = [...this.steps]
      .sort((a, b) => b.took - a.took)
      .map((s) => `${s.took.toFixed(1).padStart(7)} s  ${((100 * s.took) / all).toFixed(0).padStart(3)} %  ${s.name}`);
    return [`The ${lines.length} slowest tests:`, ...lines, 'Steps:', ...shares].join('\n');
  }
}

/** One step that passes or fails as a whole. */
export async function step(tally, name, command, args, options = {}) {
  const since = Date.now();
  const { code, out } = await run(command, args, { quiet: true, ...options });
  const ok = code === 0;
  return tally.step(name, since, { ok, passed: ok ? 1 : 0, failed: ok ? 0 : 1, out: out.slice(-12_000) });
}

/** A step of our own, which throws when it fails. */
export async function ownStep(tally, name, body) {
  const since = Date.now();
  try {
    await body();
    return tally.step(name, since, { ok: true, passed: 1, failed: 0 });
  } catch (e) {
    return tally.step(name, since, { ok: false, passed: 0, failed: 1, out: e.message });
  }
}

/** Jest projects; every test counts. `only`: patterns of files. */
export async function jest(tally, project, { env = {}, args = [], only = [] } = {}) {
  const since = Date.now();
  const folder = mkdtempSync(join(tmpdir(), 'vorrat-jest-'));
  const file = join(folder, 'result.json');
  const options = ['--selectProjects', project, '--json', `--outputFile=${file}`, '--silent', ...args, ...only];
  const { code, out } = await run(bin('jest'), options, { quiet: true, env });
  const result = readJson(file);
  rmSync(folder, { recursive: true, force: true });
  const passed = result?.numPassedTests ?? 0;
  // A suite that did not even load counts as a failure of its own.
  const failed = (result?.numFailedTests ?? 0) + (result?.numRuntimeErrorTestSuites ?? 0);
  const tests = (result?.testResults ?? []).flatMap((suite) =>
    suite.assertionResults.map((t) => ({
      file: suite.name.slice(root.length + 1),
      name: t.fullName,
      took: (t.duration ?? 0) / 1000,
    })),
  );
  return tally.step(project, since, {
    ok: code === 0 && passed > 0,
    passed,
    failed: failed === 0 && (code !== 0 || passed === 0) ? 1 : failed,
    out: out.replace(/\{"numFailedTestSuites".*/s, '').slice(-12_000),
    tests,
  });
}

/** Playwright; every test counts. `only`: patterns of files. */
export async function playwright(tally, project, { env = {}, args = [], only = [] } = {}) {
  const since = Date.now();
  const folder = mkdtempSync(join(tmpdir(), 'vorrat-browser-'));
  const file = join(folder, 'result.json');
  const { code, out } = await run(bin('playwright'), ['test', `--project=${project}`, ...args, ...only], {
    quiet: true,
    env: { ...env, PLAYWRIGHT_JSON_OUTPUT_FILE: file },
  });
  const result = readJson(file);
  rmSync(folder, { recursive: true, force: true });
  const passed = result?.stats?.expected ?? 0;
  const failed = (result?.stats?.unexpected ?? 0) + (result?.stats?.flaky ?? 0) + (result?.stats?.skipped ?? 0);
  const specsOf = (suite) => [...suite.specs, ...(suite.suites ?? []).flatMap(specsOf)];
  const tests = (result?.suites ?? []).flatMap(specsOf).map((spec) => ({
    file: `tests/browser/${spec.file}`,
    name: spec.title,
    took: spec.tests.flatMap((t) => t.results).reduce((sum, r) => sum + r.duration, 0) / 1000,
  }));
  return tally.step(`browser, ${project}`, since, {
    ok: code === 0 && passed > 0,
    passed,
    failed: failed === 0 && (code !== 0 || passed === 0) ? 1 : failed,
    out: out.slice(-15_000),
    tests,
  });
}

function readJson(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
}
