import { defineConfig } from '@playwright/test';
import chromium from './scripts/lib/chromium.json';

// Chromium from the system's packages; nothing is downloaded. No retries: a flaky test is a failing test.
export default defineConfig({
  testDir: './tests/browser',
  timeout: 120_000,
  expect: { timeout: 10_000 },
  retries: 0,
  workers: 2,
  fullyParallel: true,
  forbidOnly: Boolean(process.env.CI),
  reporter: [['list'], ['json']],
  use: {
    viewport: { width: 1280, height: 800 },
    locale: 'en-GB',
    timezoneId: 'Europe/Berlin',
    trace: 'off',
    launchOptions: chromium,
  },
  projects: [
    { name: 'journeys', testMatch: 'journeys/*.spec.ts' },
    // Measures waits, so nothing runs beside it.
    { name: 'kills', testMatch: 'long/kills.spec.ts', workers: 1 },
    { name: 'long', testMatch: 'long/*.spec.ts', testIgnore: 'long/kills.spec.ts' },
  ],
});
