import { defineConfig } from '@playwright/test';
import { paceHere } from '../scripts/pace.mjs';
import { launchOptions } from './support/browser.ts';

/** Limits follow the machine, as busy as it was when the run began; processes of the run are told. */
const pace = Number((process.env.WICK_PACE ??= String(paceHere())));

export default defineConfig({
  testDir: '.',
  timeout: 120_000 * pace,
  expect: { timeout: 30_000 * pace },
  globalSetup: './support/prepare.ts',
  workers: 2,
  fullyParallel: true,
  outputDir: '../test-results',
  // What is kept for offline is fetched at every first visit: only journeys that are about it wait for that.
  use: { viewport: { width: 1280, height: 800 }, launchOptions, serviceWorkers: 'block' },
});
