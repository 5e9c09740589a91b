/** Hands do otherwise than planned: late, with another alloy, another way in the middle, on the wrong part. */
import { expect, type Page } from '@playwright/test';
import { choose, goOn, newJob, openRun, record, tap, test, watchErrors, usePlan } from './helpers.ts';

const GONE = [
  { type: 'power-gone', sourceId: 'harness', how: 'pulled' },
  { type: 'power-gone', sourceId: 'bulk', how: 'discharged', residual_V: 0 },
];
const say = (page: Page) => page.getByRole('heading', { level: 1 });

interface Logged {
  type: string;
  late_s?: number;
  why?: string;
  guide?: object | null;
  phases?: { id: string; settings: { alloy?: object } }[];
}
async function logged(page: Page, jobId: string, type: string): Promise<Logged[]> {
  const log = (await (await page.request.get(`/api/jobs/${jobId}/events`)).json()) as { events: { body: Logged }[] };
  return log.events.map((e) => e.body).filter((b) => b.type === type);
}

/** A job with a plan in use, at a run that goes another way: its times are computed. */
async function readyFor(page: Page, method: string): Promise<string> {
  const id = await newJob(page, { board: 'Quillon, 4 layers', complaint: 'no talk on the bus' });
  await record(page, id, { type: 'suspect', partId: 'u7', why: 'reads low' }, ...GONE);
  await page.goto(`/jobs/${id}/plan?method=air-slow`);
  await usePlan(page, 'Air, slow');
  await openRun(page, id, 'remove');
  await choose(page.getByLabel('How'), method);
  await expect(page.getByText('computing the times')).toBeVisible();
  await expect(page.getByText('computing the times')).toHaveCount(0, { timeout: 120_000 });
  return id;
}

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

test('another alloy and a late start: the plan’s times are void, then for what is done; given up, it goes on from there', async ({
  page,
}) => {
  test.setTimeout(300_000);
  await page.clock.install();
  const id = await readyFor(page, 'Low-melt, then mild air');
  await goOn(page);
  await expect(say(page)).toHaveText('Flux every joint of U7.');
  await goOn(page);
  await expect(say(page)).toContainText('Row 1 of 2');
  await expect(page.getByLabel('Hands')).toContainText('wire, onto joint and tip');

  // one pedal is enough to say that it is another alloy
  await page.keyboard.press('x');
  await page.getByRole('button', { name: /Another alloy than planned/ }).click();
  await page.getByRole('list', { name: 'Which alloy is it?' }).getByRole('button', { name: 'Sn63Pb37' }).click();
  const otherwise = page.getByText(/instead of the alloy planned/);
  await expect(otherwise).toBeVisible();
  await expect(otherwise).toContainText('times are for that', { timeout: 60_000 });
  await goOn(page);
  await goOn(page);
  await expect(say(page)).toContainText('Air on at');

  // the air comes two minutes late
  await page.clock.fastForward(120_000);
  await tap(page);
  await expect(page.getByTestId('clock')).toBeVisible();
  const late = page.getByText(/its last tool came \d+ s later than planned/);
  await expect(late).toContainText('the plan’s times do not count');
  await expect(late).toContainText('times are for that', { timeout: 60_000 });
  // mild air melts no leaded joint soon: the plan's own times would have said so of none
  await expect(page.getByText(/all wet expected|not expected to melt/)).toBeVisible();
  const asked = async () => (await logged(page, id, 'run-changed')).map((c) => c.guide === null);
  await expect.poll(asked).toEqual([true, false, true, false]);
  const changes = await logged(page, id, 'run-changed');
  expect(changes[2].late_s).toBeGreaterThan(60);
  expect(changes[0].phases?.[0].settings.alloy).toBeDefined();

  // another way in the middle: what was done counts
  await page.clock.fastForward(20_000);
  await page.keyboard.press('x');
  await page.keyboard.press('g');
  await expect(say(page)).toHaveText('Given up here.');
  await page.keyboard.press('n');
  await expect(page.getByText(/what was done to it before counts/)).toBeVisible();
  await choose(page.getByLabel('How'), 'Air, slow');
  await expect(page.getByText('computing the times')).toHaveCount(0, { timeout: 120_000 });
  await goOn(page);
  await expect(say(page)).toHaveText('Flux every joint of U7.');
  const [, second] = await logged(page, id, 'run-begun');
  expect(second.guide).not.toBeNull();
  await page.goto(`/jobs/${id}/remove`);
  await expect(page.getByText(/later than planned/).first()).toBeVisible();
});

test('the wrong part unsoldered: no power until it is back and checked', async ({ page }) => {
  const id = await newJob(page, { board: 'Quillon, 4 layers', complaint: 'one row too far' });
  await record(page, id, { type: 'suspect', partId: 'u7', why: 'reads low' }, ...GONE);
  await openRun(page, id, 'remove');
  await tap(page);
  await expect(say(page)).toHaveText('Flux every joint of U7.');
  await page.keyboard.press('x');
  await page.getByRole('button', { name: /Unsoldered the wrong part/ }).click();
  await page.getByRole('list', { name: 'Which part came off?' }).getByRole('button').first().click();
  await expect(say(page)).toHaveText('Heat away. Set it down beside its place, marked.');
  await page.keyboard.press('1');
  await page.keyboard.press('x');
  await page.keyboard.press('f');
  await expect(say(page)).toHaveText('Remove: finished.');
  const connect = { type: 'power-connected', sourceId: 'harness' };
  await expect.poll(() => logged(page, id, 'run-ended')).toHaveLength(1);

  await page.goto(`/jobs/${id}/verify`);
  await expect(page.getByRole('heading', { name: /Left off by mistake/ })).toBeVisible();
  await expect(page.getByText(/to put back and check/).first()).toBeVisible();
  expect(await record(page, id, connect)).toBe(409);
  const slips = page.getByRole('region', { name: 'Slips' });
  await slips.getByPlaceholder('what you found').fill('back on, both ends wet, 10 kΩ');
  await slips.getByRole('button', { name: 'All right' }).click();
  await expect(page.getByRole('heading', { name: /Left off by mistake/ })).toHaveCount(0);
  await expect(slips).toContainText('✓ back on, both ends wet');
});
