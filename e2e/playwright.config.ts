import { defineConfig } from '@playwright/test';
import { launchOptions } from './support/browser.ts';

export default defineConfig({
  testDir: '.',
  timeout: 120_000,
  expect: { timeout: 30_000 },
  globalSetup: './support/server.ts',
  workers: 2,
  outputDir: '../test-results',
  // What is kept for offline is fetched at every first visit: only journeys that are about it wait for that.
  use: { viewport: { width: 1280, height: 800 }, launchOptions, serviceWorkers: 'block' },
});
