// Seconds from choosing a board file to its preview on the screen, and the longest that the page stood still:
//   node e2e/scripts/import.mjs URL FILE     (FILE: npx tsx formats/bench/import.bench.ts FILE writes one of 10 MB)
import { statSync } from 'node:fs';
import { chromium } from '@playwright/test';
import { launchOptions } from '../browser.mjs';

const [url, file] = process.argv.slice(2);
const browser = await chromium.launch(launchOptions);
for (let run = 0; run < 3; run++) {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
  await page.goto(`${url}/boards/import`, { waitUntil: 'networkidle' });
  await page.evaluate(() => {
    globalThis.still = 0;
    let last = performance.now();
    const watch = () => {
      const now = performance.now();
      globalThis.still = Math.max(globalThis.still, now - last);
      last = now;
      requestAnimationFrame(watch);
    };
    watch();
    addEventListener('change', () => (globalThis.began = performance.now()), { capture: true });
  });
  await page.locator('input[type=file]').setInputFiles(file);
  await page.getByRole('heading', { name: 'What was read' }).waitFor({ timeout: 60_000 });
  const [took, still] = await page.evaluate(() => [performance.now() - globalThis.began, globalThis.still]);
  process.stdout.write(
    `${(statSync(file).size / 1e6).toFixed(1)} MB: ${(took / 1000).toFixed(2)} s, longest standstill of the page ${Math.round(still)} ms\n`,
  );
  await page.close();
}
await browser.close();
