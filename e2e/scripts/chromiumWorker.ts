/** A script run as a worker of Chromium, for timing. */
import { fileURLToPath } from 'node:url';
import { build, type Rollup } from 'vite';
import { chromium } from '@playwright/test';
import { launchOptions } from '../browser.mjs';

/** Starts the worker of core/bench/NAME.ts; `ask` sends it a message and waits for its answer. */
export async function chromiumWorker<Answer>(name: string) {
  const entry = fileURLToPath(new URL(`../../core/bench/${name}.ts`, import.meta.url));
  const made = (await build({
    configFile: false,
    logLevel: 'error',
    build: { write: false, minify: true, lib: { entry, formats: ['iife'], name: 'bench', fileName: 'bench' } },
  })) as Rollup.RollupOutput | Rollup.RollupOutput[];
  const { code } = (Array.isArray(made) ? made : [made])[0].output[0];
  const browser = await chromium.launch(launchOptions);
  const page = await browser.newPage();
  const worker = await page.evaluateHandle(
    (source) => new Worker(URL.createObjectURL(new Blob([source], { type: 'text/javascript' }))),
    code,
  );
  return {
    ask: () =>
      worker.evaluate(
        (w) =>
          new Promise<Answer>((done) => {
            w.onmessage = (e) => done(e.data as Answer);
            w.postMessage(null);
          }),
      ),
    end: () => browser.close(),
  };
}
