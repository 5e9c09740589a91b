import { defineConfig } from '@playwright/test';
import { launchOptions } from './browser.mjs';

/** Runs against an application that is there already; `./orthos test` starts one and names it in ORTHOS_URL. */
export default defineConfig({
  testDir: 'tests',
  workers: 1,
  timeout: 90_000,
  // a browser on a loaded machine: a journey may be walked once more, and the closing line tells that it was
  retries: 1,
  expect: { timeout: 20_000 },
  outputDir: process.env.ORTHOS_E2E_OUT ?? 'test-results',
  use: {
    baseURL: process.env.ORTHOS_URL ?? 'http://127.0.0.1:4870',
    viewport: { width: 1280, height: 800 },
    // what is not there after this long is not there: a test should say so, not wait for its own end
    actionTimeout: 40_000,
    navigationTimeout: 60_000,
    launchOptions,
  },
});
