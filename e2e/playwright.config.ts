import { defineConfig } from '@playwright/test';
import { launchOptions } from './support/browser.ts';

export default defineConfig({
  testDir: '.',
  timeout: 120_000,
  expect: { timeout: 30_000 },
  globalSetup: './support/server.ts',
  workers: 2,
  outputDir: '../test-results',
  use: { viewport: { width: 1280, height: 800 }, launchOptions },
});
