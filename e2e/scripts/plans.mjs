// Seconds of plans and of a search for settings in the page, each a part of a demo board that nobody has planned for yet; several applications by turns:
//   node e2e/scripts/plans.mjs URL [URL …]
import { chromium } from '@playwright/test';
import { randomUUID } from 'node:crypto';
import { launchOptions } from '../browser.mjs';

const CASES = [
  ['Quillon', 'u4'],
  ['Gantry', 'u3'],
];
const seconds = (ms) => (ms / 1000).toFixed(1).padStart(5);

/** A key of version 7, made of the time and chance. */
const v7 = () =>
  `${Date.now()
    .toString(16)
    .padStart(12, '0')
    .replace(/^(.{8})/, '$1-')}-7${randomUUID().slice(15)}`;

/** A new job on a board, with its suspect; its address. */
async function takeIn(page, url, board, partId) {
  await page.goto(`${url}/boards`, { waitUntil: 'networkidle' });
  await page.getByRole('link', { name: new RegExp(board) }).click();
  await page.getByRole('link', { name: 'New job with this board' }).click();
  await page.waitForLoadState('networkidle');
  await page.getByLabel('Customer').fill('Marla Quay');
  await page.getByLabel('Device').fill(board);
  await page.getByLabel("Complaint, in the owner's words").fill('timed');
  await page.getByRole('button', { name: 'Take it in' }).click();
  await page.waitForURL('**/intake');
  const id = page.url().split('/').at(-2);
  const body = { type: 'suspect', partId, why: 'timed' };
  await page.request.post(`${url}/api/jobs/${id}/events`, { headers: { origin: url }, data: { id: v7(), body } });
  return `${url}/jobs/${id}/plan`;
}

const browser = await chromium.launch(launchOptions);
process.stdout.write('s until:                 every way | usable | best four | better settings | settings found\n');
for (const [board, partId] of CASES)
  for (const url of process.argv.slice(2)) {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
    page.setDefaultTimeout(300_000);
    const plan = await takeIn(page, url, board, partId);
    const begun = Date.now();
    await page.goto(plan);
    await page.locator('button:enabled', { hasText: 'Use this plan' }).waitFor();
    const usable = Date.now() - begun;
    await page.locator('[data-all-ms]').waitFor({ state: 'attached' });
    const { quickMs, allMs } = await page.locator('[data-all-ms]').evaluate((el) => ({ ...el.dataset }));
    await page.getByRole('radiogroup', { name: 'Methods' }).getByText('Air, slow', { exact: true }).click();
    await page.locator('[data-shown="Air, slow"]').waitFor();
    await page.getByRole('button', { name: 'Find settings' }).click();
    const asked = Date.now();
    await page.getByRole('region', { name: 'Find settings' }).getByRole('button', { name: 'Search' }).click();
    const found = page.getByRole('table', { name: 'Settings found' });
    await found.waitFor();
    const better = Date.now() - asked;
    await found.getByRole('rowheader', { name: 'found' }).waitFor();
    const times = [quickMs, usable, allMs, better, Date.now() - asked].map(seconds).join(' | ');
    process.stdout.write(`${url}, ${board} ${partId}: ${times}\n`);
    await page.close();
  }
await browser.close();
