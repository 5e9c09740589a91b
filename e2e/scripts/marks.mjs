// How long a mark takes to appear and to be on the server: node e2e/scripts/marks.mjs URL (of a running demo)
// Writes to the demo job "Memory positions lost"; times are from the pedal's release to the next painted frame, and
// from its press to the server's answer.
import { chromium } from '@playwright/test';
import { v7 } from 'uuid';
import { launchOptions } from '../browser.mjs';

const [url = 'http://127.0.0.1:4870'] = process.argv.slice(2);
const browser = await chromium.launch(launchOptions);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 }, baseURL: url });
await page.goto('/jobs?q=Memory+positions');
const id = (await page.locator('a.row').first().getAttribute('href')).split('/').at(-1);
for (const body of [
  { type: 'power-gone', sourceId: 'harness', how: 'pulled' },
  { type: 'power-gone', sourceId: 'bulk', how: 'discharged', residual_V: 0 },
])
  await page.request.post(`/api/jobs/${id}/events`, {
    headers: { origin: new URL(url).origin },
    data: { id: v7(), body },
  });
await page.goto(`/run/${id}/remove`);
await page.getByText('Ready to take it off?').waitFor();
await page.keyboard.press(' ');
await page.getByText('step 1 of').waitFor();
const root = page.locator('[data-sent-ms]');
const [shown, sent] = [[], []];
for (let n = 0; n < 40; n++) {
  // back and forth over the first instruction
  await page.keyboard.press(n % 2 ? 'Backspace' : ' ');
  await page.waitForTimeout(400);
  if (n % 2) continue;
  shown.push(Number(await root.getAttribute('data-shown-ms')));
  sent.push(Number(await root.getAttribute('data-sent-ms')));
}
const line = (name, list) => {
  list.sort((a, b) => a - b);
  const at = (p) => list[Math.floor(p * (list.length - 1))].toFixed(0);
  process.stdout.write(`${name}: median ${at(0.5)} ms, p95 ${at(0.95)} ms, worst ${at(1)} ms of ${list.length}\n`);
};
line('mark on the screen', shown);
line('mark on the server', sent);
await browser.close();
