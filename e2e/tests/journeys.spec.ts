import { expect, type Page } from '@playwright/test';
import {
  callOff,
  choose,
  newJob,
  openJob,
  openTool,
  ownReading,
  pick,
  planReady,
  pressUntil,
  record,
  test,
  uuid7,
  watchErrors,
} from './helpers.ts';

let errors: string[];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => {
  expect(errors).toEqual([]);
});

test('demo ticket to plan: reading, suspect, computed plan, in use', async ({ page }) => {
  const href = await openJob(page, 'dark after a wet ride', 'diagnose');
  await expect(page.getByRole('cell', { name: 'C7.1', exact: true })).toBeVisible();

  await ownReading(page);
  await page.getByLabel('Measured at').fill('U3.5');
  await page.getByLabel('Reads, Ω').fill('1k4x');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('A number such as');
  await page.getByLabel('Reads, Ω').fill('1,6');
  await page.getByLabel('Good board, Ω').fill('2k4');
  await page.keyboard.press('Enter');
  const row = page.getByRole('row', { name: /U3\.5/ });
  await expect(row).toContainText('1.6 Ω');
  await expect(row).toContainText('too low');

  await row.getByRole('button').click();
  await expect(row).toHaveCount(0);

  // the part is chosen through the palette, as a keyboard would
  await page.getByRole('application').focus();
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('C7');
  await page.keyboard.press('Enter');
  await page.getByLabel('Why C7').fill('1.4 Ω across it, lowest of the rail');
  await page.getByRole('button', { name: 'C7 it is' }).click();
  await page.waitForURL(`**${href}/plan`);

  await planReady(page, 'best');
  await callOff(page);
  await expect(page.getByRole('heading', { level: 2 })).toContainText(/look from \d+ s/);
  await expect(page.getByText('uncalibrated', { exact: false }).first()).toBeVisible();
  await expect(page.getByText('What matters most')).toBeVisible();
  await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();

  // a reload shows the stored plan without computing it again
  await page.reload();
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();
  await expect(page.getByLabel('Time since the heat came on, seconds')).toBeAttached();
});

/** As if nobody had computed it before. */
const unknown = (page: Page) => page.route('**/plans/known', (route) => route.fulfill({ status: 204 }));

test('a plan goes on when its page is left, is there on coming back, and at once in the next such job', async ({
  page,
}) => {
  await unknown(page);
  const id = await newJob(page, { board: 'Tern T2, 2 layers', complaint: 'left in a hurry' });
  await record(page, id, { type: 'suspect', partId: 'u3', why: 'silent' });
  await page.goto(`/jobs/${id}/plan`);
  const strip = page.getByRole('navigation', { name: 'Steps' });
  await expect(page.getByRole('button', { name: 'Cancel' })).toBeVisible();
  await strip.getByRole('link', { name: /^Intake/ }).click();
  await page.waitForURL('**/intake');
  await expect(strip.getByRole('link', { name: 'Plan choose one' })).toBeVisible({ timeout: 60_000 });
  await strip.getByRole('link', { name: /^Plan/ }).click();
  await planReady(page);
  const headline = page.getByRole('heading', { level: 2 }).first();
  const told = await headline.innerText();
  await page.unroute('**/plans/known');
  const next = await newJob(page, { board: 'Tern T2, 2 layers', complaint: 'the same once more' });
  await record(page, next, { type: 'suspect', partId: 'u3', why: 'silent too' });
  const taken = page.waitForResponse('**/plans/known');
  await page.goto(`/jobs/${next}/plan`);
  expect((await taken).status()).toBe(201);
  await planReady(page);
  await expect(headline).toHaveText(told);
  // the others were not kept with it: they are looked at when somebody asks
  await page.getByRole('button', { name: 'Look at these too' }).click();
  await expect(page.getByText('not looked at yet')).toHaveCount(0, { timeout: 60_000 });
});

test('a part is found from the list of jobs, and Enter goes to it on its own board', async ({ page }) => {
  await page.goto('/jobs');
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('zz99');
  await expect(page.getByRole('option')).toHaveCount(0);
  await page.getByPlaceholder('Go to a place').fill('LG1');
  const first = page.getByRole('option', { name: /^LG1/ }).first();
  await expect(first).toContainText(/No\. \d+ Tern T2/);
  await page.keyboard.press('Enter');
  await page.waitForURL('**/jobs/**?part=lg1');
  await expect(page.getByText(/^LG1, /).first()).toBeVisible();
});

test('express job to plan, with bad input refused first', async ({ page }) => {
  await page.goto('/jobs');
  await pressUntil(page, 'e', '**/jobs/express');
  await page.getByLabel('Part to take off').fill('SOIC-9');
  await page.getByRole('button', { name: 'Plan it' }).click();
  await expect(page.getByText('There is no package "SOIC-9". Near: ', { exact: false })).toBeVisible();
  await page.getByLabel('Part to take off').fill('SOIC-8');
  await page.getByLabel('Its distance, mm').fill('4,5');
  const start = Date.now();
  await page.getByRole('button', { name: 'Plan it' }).click();
  await planReady(page, 'best');
  test.info().annotations.push({ type: 'measured', description: `express plan after ${Date.now() - start} ms` });
  await expect(page.getByText('joint', { exact: false }).first()).toBeVisible();
  const panel = page.locator('[data-first-picture-ms]');
  test.info().annotations.push({
    type: 'measured',
    description: `first picture after ${await panel.getAttribute('data-first-picture-ms')} ms`,
  });
});

test('flip and select by keyboard; landmarks stay', async ({ page }) => {
  await openJob(page, 'moves backwards', 'intake');
  await page.getByRole('application').focus();
  await expect(page.getByRole('button', { name: 'Top', exact: true })).toBeVisible();
  const before = await page.getByText('hole by C3').boundingBox();
  await page.keyboard.press('.');
  const live = page.locator('p[aria-live="polite"]').first();
  const first = await live.textContent();
  await page.keyboard.press('.');
  await expect(live).not.toHaveText(first ?? '');
  await page.keyboard.press('f');
  await expect(page.getByRole('button', { name: 'Bottom, mirrored' })).toBeVisible();
  const after = await page.getByText('hole by C3').boundingBox();
  // left of the middle before, right of it after
  const stage = await page.getByRole('application').boundingBox();
  const middle = (stage?.x ?? 0) + (stage?.width ?? 0) / 2;
  expect((before?.x ?? 0) < middle && (after?.x ?? 0) > middle).toBe(true);
  await page.keyboard.press(',');
  await expect(live).toContainText(/C3|R2|U6|Q3/);
  await page.keyboard.press('Escape');
  await expect(live).toContainText('bottom side');
});

test('a changed setting makes the plan visibly stale, computing again makes it fresh', async ({ page }) => {
  await openJob(page, 'Memory positions lost', 'plan?method=air-fast');
  await pick(page, 'Air, fast');
  await callOff(page);
  await page.getByRole('button', { name: 'Change settings' }).click();
  await page.getByLabel('Set-point, °C', { exact: true }).fill('9000');
  await page.getByRole('button', { name: 'Keep these' }).click();
  await expect(page.getByText('100 to 550 °C')).toBeVisible();
  await page.getByLabel('Set-point, °C', { exact: true }).fill('430');
  await page.getByRole('button', { name: 'Keep these' }).click();
  await expect(page.getByRole('status')).toContainText('Stale');
  await expect(page.getByRole('button', { name: 'Use this plan' })).toBeDisabled();
  await page.reload();
  await expect(page.getByRole('status')).toContainText('Stale');
  await page.getByRole('button', { name: 'Compute again' }).click();
  await planReady(page, 'best');
  await callOff(page);
  await expect(page.getByText('Stale')).toHaveCount(0);
});

test('cancel stops the computation, nothing is stored, and it can be started again', async ({ page }) => {
  await unknown(page);
  await openJob(page, 'Segments missing', 'plan');
  await page.getByRole('button', { name: 'Cancel' }).click();
  await expect(page.getByRole('heading', { name: 'Cancelled' })).toBeVisible();
  await page.reload();
  // nothing stored: it starts anew
  await expect(page.getByRole('button', { name: 'Cancel' })).toBeVisible();
  await planReady(page, 'best');
  // every way has its row
  expect(await page.getByRole('radio').count()).toBeGreaterThanOrEqual(4);
  const chosen = await page.getByRole('heading', { level: 2 }).textContent();
  await page.getByRole('application').focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('heading', { level: 2 })).not.toHaveText(chosen ?? '');
});

test('a new job: what is missing is named, then it is taken in', async ({ page }) => {
  await page.goto('/jobs');
  await pressUntil(page, 'n', '**/jobs/new');
  await page.getByLabel('Customer').fill('Marla Quay');
  await page.getByLabel('Device').fill('Tern T2 display');
  await page.getByLabel("Complaint, in the owner's words").fill('flickers');
  await choose(page.getByLabel('Board', { exact: true }), 'Tern T2, 2 layers');
  await page.getByRole('button', { name: 'Take it in' }).click();
  await page.waitForURL('**/intake');
  await expect(page.getByRole('heading', { name: 'flickers' })).toBeVisible();
  await page.goto('/jobs?q=Marla');
  await expect(page.getByText('flickers')).toBeVisible();
});

test('kit, settings and calculator keep what is typed and name what is wrong', async ({ page }) => {
  await page.goto('/kit');
  await page.getByRole('link', { name: 'bare bench' }).click();
  const station = await openTool(page, 'Air station, unmarked dials');
  await station.getByLabel('Reaches, %').fill('200');
  await station.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('30 to 100 %')).toBeVisible();
  await station.getByLabel('Reaches, %').fill('78');
  await station.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('uncalibrated, saved')).toBeVisible();

  await page.goto('/settings');
  await choose(page.getByLabel('Temperatures'), 'F');
  await page.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('saved')).toBeVisible();
  await choose(page.getByLabel('Temperatures'), 'C');
  await page.getByRole('button', { name: 'Save' }).click();

  await page.goto('/calculate?kind=paste&alloy=Sn63Pb37&a=2&b=1&stencil=0.1&transfer=0.9&metal=0.5');
  await expect(page.getByTestId('volume')).toContainText('0.0900');
  await page.getByLabel('Stencil, mm').fill('x');
  await expect(page.getByRole('alert')).toContainText('stencil_mm');
  await page.getByLabel('Stencil, mm').fill('0,2');
  await expect(page.getByTestId('volume')).toContainText('0.180');
  await expect(page).toHaveURL(/stencil=0%2C2/);
});

test('what another browser writes to a job is shown here without being asked for', async ({
  page,
  request,
  baseURL,
}) => {
  await openJob(page, 'moves backwards', 'diagnose');
  const id = page.url().split('/')[4];
  const told = `seen from afar ${Date.now()}`;
  const answer = await request.post(`/api/jobs/${id}/events`, {
    headers: { origin: baseURL ?? '' },
    data: { id: uuid7(), body: { type: 'observation', text: told } },
  });
  expect(answer.status()).toBe(201);
  await expect(page.getByText(told)).toBeVisible();
});
