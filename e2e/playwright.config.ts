import { defineConfig } from '@playwright/test';
import { launchOptions } from './browser.mjs';

/**
 * Runs against applications that are there already: one a worker, so that no test meets what another writes at the same
 * time. `./orthos test` starts them and names them in ORTHOS_URL, their databases in ORTHOS_DATABASE_URL, in one order.
 */
const urls = (process.env.ORTHOS_URL ?? 'http://127.0.0.1:4870').split(' ');
const databases = process.env.ORTHOS_DATABASE_URL?.split(' ');
const worker = process.env.TEST_PARALLEL_INDEX;
if (worker && databases) process.env.ORTHOS_DATABASE_URL = databases[Number(worker)];

export default defineConfig({
  testDir: 'tests',
  workers: urls.length,
  timeout: 150_000,
  // a browser on a loaded machine: a journey may be walked once more, and the closing line tells that it was
  retries: 1,
  expect: { timeout: 20_000 },
  outputDir: process.env.ORTHOS_E2E_OUT ?? 'test-results',
  use: {
    baseURL: urls[Number(worker ?? 0)],
    viewport: { width: 1280, height: 800 },
    // keeping all pages for a bench without a server doubles what a first visit costs; who tests that allows it
    serviceWorkers: 'block',
    // what is not there after this long is not there: a test should say so, not wait for its own end
    actionTimeout: 40_000,
    navigationTimeout: 60_000,
    // a journey is too short for the last of the compilers to pay; WebAssembly is compiled as ever
    launchOptions: { ...launchOptions, args: [...launchOptions.args, '--js-flags=--no-turbofan'] },
  },
});
