/** Times the fault dictionary in a worker of Chromium: node e2e/scripts/dictionary.mjs [RUNS] */
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { build } from 'vite';

const runs = Number(process.argv[2] ?? 3);
const entry = fileURLToPath(new URL('../../core/bench/dictionaryWorker.ts', import.meta.url));
const made = await build({
  configFile: false,
  logLevel: 'error',
  build: { write: false, minify: true, lib: { entry, formats: ['iife'], name: 'bench', fileName: 'bench' } },
});
const code = (Array.isArray(made) ? made : [made])[0].output[0].code;
const browser = await chromium.launch({ executablePath: '/usr/bin/chromium', args: ['--no-sandbox'] });
const page = await browser.newPage();
for (let i = 0; i < runs; i++) {
  const t = await page.evaluate(
    (source) =>
      new Promise((done) => {
        const worker = new Worker(URL.createObjectURL(new Blob([source], { type: 'text/javascript' })));
        worker.onmessage = (e) => {
          worker.terminate();
          done(e.data);
        };
      }),
    code,
  );
  const ms = (v) => `${v.toFixed(1)} ms`;
  console.error(
    `${t.faults} faults × ${t.tests} readings: first ${ms(t.first_ms)}, then ${ms(t.best_ms)}; ranking ${ms(t.update_ms)}, worst ${ms(t.worstUpdate_ms)}`,
  );
}
await browser.close();
