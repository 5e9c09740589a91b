// Pictures of the main views of a running demo: node e2e/scripts/shoot.mjs [URL] [FOLDER] [NAME …]
import { mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { chromium } from '@playwright/test';
import { v7 } from 'uuid';
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
  await page.locator('[data-whole]').waitFor({ timeout: 120_000 });
  await page.locator('[role=slider]').waitFor();
  await page.waitForTimeout(400);
}
async function scope(on) {
  await context.addCookies([{ name: 'theme', value: on ? 'scope' : 'day', url }]);
}

/** The job of the run's pictures; each picture begins where the one before it ended. */
async function jobId() {
  await page.goto('/jobs?q=moves+backwards');
  return (await page.locator('a.row').first().getAttribute('href')).split('/').at(-1);
}
async function record(id, ...bodies) {
  for (const body of bodies) {
    const answer = await page.request.post(`/api/jobs/${id}/events`, {
      headers: { origin: new URL(url).origin },
      data: { id: v7(), body },
    });
    if (!answer.ok()) console.error(body.type, await answer.text());
  }
}
const tap = async (times = 1) => {
  for (let n = 0; n < times; n++) {
    await page.keyboard.press(' ');
    await page.waitForTimeout(350);
  }
};
async function openRun(id, op) {
  await page.goto(`/run/${id}/${op}`);
  await page.getByRole('heading', { level: 1 }).waitFor();
}
/** Begins a run that a hidden bench plays and waits until all joints are wet. */
async function playedRun(id, op) {
  await openRun(id, op);
  await page.waitForTimeout(2500);
  await page.getByLabel('a hidden bench plays the board').check();
  await tap();
  await page.getByText('step 1 of').waitFor();
  while (!(await page.getByTestId('clock').isVisible())) await tap();
  await page.getByText(', all wet.').waitFor({ timeout: 120_000 });
}

const views = {
  jobs: () => page.goto('/jobs'),
  'express-job': () => page.goto('/jobs/express'),
  intake: async () => {
    await openJob('dark after a wet ride', 'intake');
    await page.getByRole('tablist', { name: 'Intake' }).getByRole('tab', { name: 'Damage' }).click();
    await page.getByRole('button', { name: 'Photo of damage 2' }).click();
    await page.waitForTimeout(800);
  },
  diagnose: async () => {
    await openJob('changed U7', 'diagnose');
    await page
      .getByRole('region', { name: 'Suspects', exact: true })
      .getByRole('button', { name: 'D3', exact: true })
      .click();
    await page.getByRole('button', { name: 'Convict D3' }).waitFor();
    await page.waitForTimeout(600);
  },
  circuit: async () => {
    await openJob('dark after a wet ride', 'diagnose');
    await page.getByRole('region', { name: 'Split the suspects' }).waitFor();
    await page.getByRole('group', { name: 'Lens' }).getByRole('button', { name: 'Circuit' }).click();
    await page.getByRole('group', { name: 'Circuit', exact: true }).waitFor();
    await page.getByRole('tablist', { name: 'Diagnose' }).getByRole('tab', { name: 'Circuit' }).click();
  },
  plan: () => plan('moves backwards'),
  protect: async () => {
    await plan('moves backwards');
    if (!(await page.getByRole('button', { name: 'In use' }).isVisible())) await page.keyboard.press('u');
    await page.getByRole('button', { name: 'In use' }).waitFor();
    const id = await jobId();
    await record(
      id,
      { type: 'power-gone', sourceId: 'harness', how: 'pulled and laid aside' },
      { type: 'target-confirmed', landmarks: ['hole-nw', 'hole-se'] },
    );
    await openJob('moves backwards', 'protect');
  },
  'run-scope': async () => {
    const id = await jobId();
    await record(id, {
      type: 'power-gone',
      sourceId: 'bulk',
      how: 'discharged through a resistor, waited a minute',
      residual_V: 0.02,
    });
    await scope(true);
    await playedRun(id, 'remove');
  },
  fit: async () => {
    await page.keyboard.press('a');
    await tap(3);
    await scope(false);
    const id = await jobId();
    await openRun(id, 'prepare');
    while (!(await page.getByText('Prepare: finished.').isVisible())) await tap();
    await record(
      id,
      { type: 'off-board-test', result: 'bad' },
      { type: 'new-part-measured', ok: true, note: 'body diode 0.52 V, TAB to OUT open' },
    );
    await openJob('moves backwards', 'fit');
    await page
      .getByText(/Every joint made/)
      .first()
      .waitFor({ timeout: 120_000 });
    await page.getByRole('button', { name: 'Cancel' }).waitFor({ state: 'detached', timeout: 120_000 });
  },
  set: async () => {
    await openJob('Fourteen cans', 'plan');
    await page.locator('button:enabled', { hasText: 'Use this order' }).waitFor({ timeout: 120_000 });
    await page.getByRole('grid', { name: 'Order' }).getByRole('row').nth(3).click();
  },
  two: async () => {
    await openJob('a probe slipped', 'diagnose');
    await page.getByTestId('way-bring').waitFor({ timeout: 60_000 });
  },
  verify: async () => {
    const id = await jobId();
    await record(id, { type: 'orientation-checked', against: ['photo before', 'silkscreen'] });
    await openRun(id, 'fit');
    while (!(await page.getByText('Fit: finished.').isVisible())) await tap();
    for (const terminal of ['1', '3', 'TAB']) await record(id, { type: 'joint', terminal, state: 'good' });
    const rail = (name, ohm, good_ohm, nature) => ({
      type: 'short-check',
      rail: name,
      load: null,
      ohm,
      good_ohm,
      nature,
    });
    await record(
      id,
      { type: 'surroundings-scanned', ok: true, after: 'fitting' },
      rail('12 V', 2900, 3100, null),
      rail('5 V', 1450, 1500, null),
    );
    await openJob('moves backwards', 'verify');
  },
  record: async () => {
    const id = await jobId();
    const again = (partId, terminal, value, good) => ({
      type: 'reading',
      place: { x_mm: 15, y_mm: 50.5, side: 'top', partId, terminal },
      quantity: 'ohm',
      value,
      good,
      goodFrom: 'good board',
      powered: false,
    });
    const tried = (name) => ({ type: 'function', name, when: 'after', state: 'works' });
    await record(
      id,
      {
        type: 'short-check',
        rail: 'motor output',
        load: null,
        ohm: 4600,
        good_ohm: null,
        nature: { why: 'a motor winding is low by nature', least_ohm: 4 },
      },
      again('q1', '3', 4650, 4700),
      again('q1', 'TAB', 3580, 3600),
      ...['the complaint', 'forwards', 'backwards', 'memory keys'].map(tried),
      { type: 'released', outcome: 'repaired', minutes: 28, lead: true, note: 'tab last, as predicted' },
    );
    await page.goto(`/record/${id}`);
  },
  board: async () => {
    await page.goto('/boards');
    await page.getByRole('link', { name: /^Gantry/ }).click();
    await page.getByRole('button', { name: 'Copper', exact: true }).click();
    await page.waitForTimeout(600);
    await page.getByRole('tablist', { name: 'Show' }).getByRole('tab', { name: 'Nets' }).click();
    await page
      .getByRole('row', { name: /^PHASE/ })
      .first()
      .click();
    await page.waitForTimeout(600);
  },
  trace: async () => {
    const at = (path) => fileURLToPath(new URL(`../../${path}`, import.meta.url));
    await page.goto('/boards/new', { waitUntil: 'networkidle' });
    await page.getByLabel('Name of the board').fill('Bramble, revision C');
    await page.getByLabel('Width, mm').fill('90');
    await page.getByRole('button', { name: 'Go on to the photo' }).click();
    await page.waitForURL('**/edit');
    await page.locator('input[type=file]').setInputFiles(at('web/static/practice/bramble-top.jpg'));
    await page.getByText('Tie it to the board by').waitFor();
    await page.waitForTimeout(800);
    // where a pixel of the photo is on the screen
    const screen = (u, v) =>
      page.evaluate(
        ([x, y]) => {
          const image = document.querySelector('[role=application] img');
          const box = image.closest('[role=application]').getBoundingClientRect();
          const p = new DOMMatrix(getComputedStyle(image).transform).transformPoint(new DOMPoint(x, y));
          return [box.left + p.x / p.w, box.top + p.y / p.w];
        },
        [u, v],
      );
    const click = async (u, v) => page.mouse.click(...(await screen(u, v)));
    for (const [u, v] of [
      [168, 96],
      [1628, 118],
      [1606, 1256],
      [190, 1238],
    ])
      await click(u, v);
    await page.waitForTimeout(400);
    await page.getByRole('tablist', { name: 'Panel' }).getByRole('tab', { name: 'Parts' }).click();
    for (const [typed, u, v] of [
      ['mod 24', 1117, 694],
      ['soic 8', 1321, 482],
      ['qfp 32', 1350, 938],
      ['sot 223', 944, 958],
    ]) {
      await page.keyboard.press('a');
      await page.keyboard.type(typed);
      await page.keyboard.press('Enter');
      await click(u, v);
      await page.waitForTimeout(700);
      await page.keyboard.press('Escape');
    }
    await page.keyboard.press('a');
    await page.keyboard.type('dip 4');
    await page.keyboard.press('Enter');
    await page.mouse.move(...(await screen(620, 975)));
    await page.waitForTimeout(500);
  },
  import: async () => {
    await page.goto('/boards/import');
    await page
      .locator('input[type=file]')
      .setInputFiles(fileURLToPath(new URL('../../web/src/lib/server/demo/gantry.kicad_pcb', import.meta.url)));
    await page.getByRole('heading', { name: 'What was read' }).waitFor();
    await page.waitForTimeout(800);
  },
  kit: () => page.goto('/kit'),
  calculate: async () => {
    await page.goto('/calculate/melt');
    await page.getByTestId('melt').waitFor({ timeout: 60_000 });
  },
  settings: () => page.goto('/settings'),
};
for (const [name, show] of Object.entries(views)) {
  if (only.length && !only.includes(name)) continue;
  await show();
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(folder, `${name}.png`) });
  console.error(name);
}
await browser.close();
