// Pictures of the main views of a running demo: node e2e/scripts/shoot.mjs [URL] [FOLDER] [NAME …]
import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { launchOptions } from '../browser.mjs';

const [
  url = 'http://127.0.0.1:4870',
  folder = join(dirname(fileURLToPath(import.meta.url)), '../../docs/screenshots'),
  ...only
] = process.argv.slice(2);
mkdirSync(folder, { recursive: true });
const browser = await chromium.launch(launchOptions);
const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, baseURL: url });
const page = await context.newPage();
page.on('console', (m) => ['error', 'warning'].includes(m.type()) && console.error('browser:', m.text()));
page.on('pageerror', (e) => console.error('page error:', e.message));

async function openJob(text, step) {
  await page.goto(`/jobs?q=${encodeURIComponent(text)}`);
  const href = await page.locator('a.row').first().getAttribute('href');
  await page.goto(`${href}/${step}`);
}
async function plan(text) {
  await openJob(text, 'plan');
  await page
    .getByRole('button', { name: 'Use this plan' })
    .or(page.getByRole('button', { name: 'In use' }))
    .waitFor({ timeout: 60_000 });
  await page.locator('input.scrub').waitFor();
  await page.waitForTimeout(400);
}
async function scope(on) {
  await context.addCookies([{ name: 'theme', value: on ? 'scope' : 'day', url }]);
}

const views = {
  jobs: () => page.goto('/jobs'),
  'new-job': () => page.goto('/jobs/new'),
  'express-job': () => page.goto('/jobs/express'),
  intake: () => openJob('Orrin', 'intake'),
  diagnose: () => openJob('dark after a wet ride', 'diagnose'),
  plan: () => plan('moves backwards'),
  'plan-scope': async () => {
    await scope(true);
    await plan('moves backwards');
    await scope(false);
  },
  'plan-lowmelt': () => plan('Segments missing'),
  'plan-express': async () => {
    await page.goto('/jobs/express');
    await page.getByLabel('Part to take off').fill('D2PAK');
    await page.getByLabel('Kind of board').selectOption('heavy');
    await page.getByLabel('Nearest plastic').selectOption('pbt');
    await page.getByRole('button', { name: 'Plan it' }).click();
    await page.getByRole('button', { name: 'Use this plan' }).waitFor({ timeout: 60_000 });
    await page.waitForTimeout(600);
  },
  protect: () => openJob('moves backwards', 'protect'),
  board: async () => {
    await page.goto('/boards');
    await page.getByText('Tern T2').click();
    await page.getByRole('button', { name: 'Top', exact: true }).waitFor();
    await page.keyboard.press('f');
    await page.waitForTimeout(200);
  },
  kit: () => page.goto('/kit'),
  calculate: () => page.goto('/calculate'),
  settings: () => page.goto('/settings'),
  keys: async () => {
    await openJob('moves backwards', 'diagnose');
    await page.waitForTimeout(500);
    await page.keyboard.press('?');
    await page.waitForTimeout(300);
  },
};
for (const [name, show] of Object.entries(views)) {
  if (only.length && !only.includes(name)) continue;
  await show();
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(folder, `${name}.png`) });
  console.error(name);
}
await browser.close();
