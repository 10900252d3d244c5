import { availableParallelism } from 'node:os';
import { defineConfig } from '@playwright/test';
import { launchOptions } from './src/chromium.ts';

/** Whole journeys, each file on a server and a copy of the demo business of its own. */
export default defineConfig({
  testDir: 'src',
  testMatch: '*.test.ts',
  outputDir: '../test-results/e2e',
  globalSetup: './src/before.ts',
  workers: availableParallelism(),
  // How fast the machine is must decide nothing; what hangs is ended all the same.
  timeout: 240_000,
  // What needs a second try is a fault, of the test or of the page.
  retries: 0,
  // As long as one waits for anything else on a page: a busy machine is no fault of the page.
  expect: { timeout: 30_000 },
  reporter: [['list'], ['json', { outputFile: '../test-results/e2e.json' }]],
  use: { launchOptions, trace: 'retain-on-failure', screenshot: 'only-on-failure' },
});
