/** What hands said is not lost: no server, a killed one, a killed browser, two windows, two servers. */
import { chromium, expect, type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { freePort } from '../../scripts/common.mjs';
import { startApp, stopApp } from '../../scripts/server.mjs';
import { launchOptions } from '../browser.mjs';
import {
  choose,
  killAllOf,
  type Logged,
  logOf,
  newJob,
  openRun,
  patient,
  record,
  saved,
  say,
  suspect,
  tap,
  TERN,
  TERN_GONE,
  test,
  uuid7,
  watchErrors,
} from './helpers.ts';

const marksOf = (log: Logged[]) => log.filter((e) => e.body.type === 'mark').map((e) => e.body.instruction);
/** The service worker has the page: from now on it opens without the server. */
const pageKept = (page: Page) => expect(page.locator('[data-kept=true]')).toBeVisible({ timeout: 60_000 });

// a run's page is kept for a bench without a server
test.use({ serviceWorkers: 'allow' });

let errors: string[];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => {
  expect(errors).toEqual([]);
});

test('ten minutes without a server and thirteen marks: each is kept, shown, and stored exactly once', async ({
  page,
}) => {
  // a server of its own that is really gone: the browser's offline switch lets a request through now and then
  const port = await freePort();
  const start = () => startApp({ port, databaseUrl: process.env.ORTHOS_DATABASE_URL ?? '', env: { ORTHOS_DEMO: '1' } });
  let app = await start();
  try {
    const origin = app.url;
    const jobId = await newJob(page, { board: TERN, complaint: 'offline', origin });
    await record(page, jobId, suspect('c7'), ...TERN_GONE);
    // the absence lies in the past, so that the server's own clock is not behind
    await page.clock.install({ time: Date.now() - 20 * 60_000 });
    await page.goto(`${origin}/run/${jobId}/remove`);
    await expect(say(page)).toContainText('Ready');
    await tap(page);
    await expect(say(page)).toHaveText('Flux every joint of C7.');
    await pageKept(page);
    app.child.kill('SIGKILL');
    await app.ended;
    for (let n = 0; n < 8; n++) {
      await tap(page);
      await page.clock.runFor(40_000);
    }
    await expect(say(page)).toHaveText('Remove: finished.');
    await expect(page.getByRole('status')).toContainText('server away');
    // the page itself comes from this browser while the server is away
    await page.reload();
    await expect(say(page)).toHaveText('Remove: finished.');
    await expect(page.getByRole('status')).toContainText('10 marks kept here');
    // five more in the same absence: once more from the beginning
    await page.keyboard.press('n');
    await expect(say(page)).toContainText('Ready');
    await tap(page);
    await expect(say(page)).toHaveText('Flux every joint of C7.');
    for (let n = 0; n < 5; n++) {
      await tap(page);
      await page.clock.runFor(65_000);
    }
    await expect(say(page)).toContainText('Heat off');
    expect(marksOf(await logOf(jobId))).toEqual([]);
    app = await start();
    await page.clock.runFor(6_000);
    await saved(page);
    const log = await logOf(jobId);
    const marks = log.filter((e) => e.body.type === 'mark');
    expect(marks).toHaveLength(13);
    expect(new Set(marks.map((e) => e.id)).size).toBe(13);
    const first = marks[0].at.getTime();
    expect((marks[6].at.getTime() - first) / 1000).toBeGreaterThan(200);
    expect((marks[11].at.getTime() - first) / 1000).toBeGreaterThan(500);
    expect(log.filter((e) => e.body.type === 'run-begun').map((e) => e.body.offline)).toEqual([false, true]);
    // the same event sent again changes nothing
    const again = await page.request.post(`${origin}/api/jobs/${jobId}/events`, {
      headers: { origin },
      data: { id: marks[0].id, body: marks[0].body },
    });
    expect(again.status()).toBe(201);
    expect(await logOf(jobId)).toHaveLength(log.length);
  } finally {
    await stopApp({ pid: app.child.pid });
  }
});

test('the server is killed in mid run and comes back: nothing is lost, nothing doubled', async ({ page }) => {
  const port = await freePort();
  const start = () =>
    startApp({
      port,
      databaseUrl: process.env.ORTHOS_DATABASE_URL ?? '',
      env: { ORTHOS_DEMO: '1' },
    });
  let app = await start();
  try {
    const origin = app.url;
    await page.goto(`${origin}/jobs/new`);
    await page.getByLabel('Customer').fill('Marla Quay');
    await page.getByLabel('Device').fill('Tern T2');
    await page.getByLabel("Complaint, in the owner's words").fill('killed');
    await choose(page.getByLabel('Board', { exact: true }), TERN);
    await page.getByRole('button', { name: 'Take it in' }).click();
    await page.waitForURL('**/intake');
    const jobId = page.url().split('/')[4];
    await record(page, jobId, suspect('c7'), ...TERN_GONE);
    await page.goto(`${origin}/run/${jobId}/remove`);
    await expect(say(page)).toContainText('Ready');
    await tap(page);
    await expect(say(page)).toHaveText('Flux every joint of C7.');
    await tap(page);
    await saved(page);
    await pageKept(page);
    app.child.kill('SIGKILL');
    await app.ended;
    await tap(page);
    await tap(page);
    await expect(say(page)).toContainText('Circle the body');
    await expect(page.getByRole('status')).toContainText('server away');
    // closed and opened again while nobody answers
    await page.goto('about:blank');
    await page.goto(`${origin}/run/${jobId}/remove`);
    await expect(page.getByTestId('clock')).toBeVisible();
    await tap(page);
    await expect(say(page)).toContainText('Lift');
    app = await start();
    await saved(page);
    expect(marksOf(await logOf(jobId))).toEqual(['flux', 'heat-on', 'first-wet', 'all-wet']);
  } finally {
    await stopApp({ pid: app.child.pid });
  }
});

test('a mark that the server refuses is shown, not lost', async ({ page }) => {
  const jobId = await newJob(page, { board: TERN, complaint: 'refused' });
  await record(page, jobId, suspect('c7'), ...TERN_GONE);
  await openRun(page, jobId, 'remove');
  await page.evaluate(
    ([id, ticketId]) => {
      const body = { type: 'mark', runId: '019ac000-0000-4000-8000-0000000000ff', instruction: 'flux', what: 'done' };
      localStorage.setItem(`orthos.outbox.${id}`, JSON.stringify({ id, ticketId, at: Date.now(), body }));
    },
    [uuid7(), jobId],
  );
  await page.reload();
  await expect(page.getByRole('alert')).toContainText('is not a run of this job');
  await page.getByRole('button', { name: 'Understood' }).click();
  await expect(page.getByRole('alert')).toHaveCount(0);
  await page.reload();
  await expect(say(page)).toContainText('Ready');
  await expect(page.getByRole('alert')).toHaveCount(0);
});

test('two windows on one run: one leads, the other follows, takes over, and nothing is marked twice', async ({
  page,
  context,
}) => {
  const jobId = await newJob(page, { board: TERN, complaint: 'two windows' });
  await record(page, jobId, suspect('c7'), ...TERN_GONE);
  await openRun(page, jobId, 'remove');
  await expect(say(page)).toContainText('Ready');
  const second = patient(await context.newPage());
  await openRun(second, jobId, 'remove');
  const follows = (p: Page) => p.getByRole('alert').filter({ hasText: 'Another window leads this run' });
  await expect(follows(second)).toBeVisible();
  await tap(page);
  // what one begins the other shows
  for (const p of [page, second]) await expect(say(p)).toHaveText('Flux every joint of C7.');
  await tap(second);
  await page.waitForTimeout(400);
  await expect(say(second)).toHaveText('Flux every joint of C7.');
  await second.keyboard.press('t');
  await expect(follows(page)).toBeVisible();
  await expect(follows(second)).toHaveCount(0);
  await tap(second);
  for (const p of [page, second]) await expect(say(p)).not.toHaveText('Flux every joint of C7.');
  const now = await say(second).textContent();
  await expect(say(page)).toHaveText(now ?? '');
  await saved(second);
  expect(marksOf(await logOf(jobId))).toHaveLength(1);
  // the window that leads is closed: the other leads again
  await second.close();
  await expect(follows(page)).toHaveCount(0);
  await tap(page);
  await expect(say(page)).not.toHaveText(now ?? '');
  await saved(page);
  expect(marksOf(await logOf(jobId))).toHaveLength(2);
});

test('marks that nobody could send yet outlive a browser that is killed', async () => {
  const port = await freePort();
  const start = () => startApp({ port, databaseUrl: process.env.ORTHOS_DATABASE_URL ?? '', env: { ORTHOS_DEMO: '1' } });
  const profile = mkdtempSync(join(tmpdir(), 'orthos-killed-'));
  const open = async () => {
    const browser = await chromium.launchPersistentContext(profile, { ...launchOptions, serviceWorkers: 'allow' });
    return { browser, page: patient(browser.pages()[0] ?? (await browser.newPage())) };
  };
  let app = await start();
  try {
    const first = await open();
    const jobId = await newJob(first.page, { board: TERN, complaint: 'killed browser', origin: app.url });
    await record(first.page, jobId, suspect('c7'), ...TERN_GONE);
    await first.page.goto(`${app.url}/run/${jobId}/remove`);
    await expect(say(first.page)).toContainText('Ready');
    await tap(first.page);
    await expect(say(first.page)).toHaveText('Flux every joint of C7.');
    await pageKept(first.page);
    app.child.kill('SIGKILL');
    await app.ended;
    for (const n of [1, 2, 3]) {
      await tap(first.page);
      await expect(first.page.getByRole('status')).toContainText(`${n} mark`);
      await expect(first.page.getByRole('status')).toContainText('kept here, server away');
    }
    killAllOf(profile);
    await first.browser.close().catch(() => undefined);
    expect(marksOf(await logOf(jobId))).toEqual([]);
    app = await start();
    const { browser, page } = await open();
    await page.goto(`${app.url}/jobs`);
    await expect.poll(async () => marksOf(await logOf(jobId)).length, { timeout: 30_000 }).toBe(3);
    await browser.close();
  } finally {
    await stopApp({ pid: app.child.pid });
    rmSync(profile, { recursive: true, force: true });
  }
});

test('fifty clients on two servers: each event once, one order, and no run begins on a board under power', async ({
  page,
}) => {
  const start = async () =>
    startApp({ port: await freePort(), databaseUrl: process.env.ORTHOS_DATABASE_URL ?? '', env: { ORTHOS_DEMO: '1' } });
  const apps = await Promise.all([start(), start()]);
  try {
    const jobId = await newJob(page, { board: TERN, complaint: 'two servers', origin: apps[0].url });
    await record(page, jobId, suspect('c7'), ...TERN_GONE);
    const before = (await logOf(jobId)).length;
    const post = async (n: number, id: string, body: object) => {
      const origin = apps[n % 2].url;
      const answer = await fetch(`${origin}/api/jobs/${jobId}/events`, {
        method: 'POST',
        headers: { origin, 'content-type': 'application/json' },
        body: JSON.stringify({ id, body }),
      });
      return answer.status;
    };
    const begun = (n: number) => ({
      type: 'run-begun',
      runId: `019ac000-0000-4000-8000-0000000001${String(n).padStart(2, '0')}`,
      op: 'remove',
      method: 'Air, slow',
      guide: null,
      offline: false,
      bench: false,
    });
    const ids = Array.from({ length: 50 }, () => uuid7());
    const answers = await Promise.all([
      // every client sends twice, to either server
      ...ids.flatMap((id, n) => [n, n + 1].map((to) => post(to, id, { type: 'observation', text: `client ${n}` }))),
      ...Array.from({ length: 10 }, (_, n) => post(n, uuid7(), begun(n))),
      ...Array.from({ length: 10 }, (_, n) => post(n + 1, uuid7(), { type: 'power-connected', sourceId: 'battery' })),
    ]);
    expect(answers.slice(0, 100).every((status) => status === 201)).toBe(true);
    const log = (await logOf(jobId)).slice(before);
    const seen = log.filter((e) => e.body.type === 'observation').map((e) => e.id);
    expect([...seen].sort()).toEqual([...ids].sort());
    const kinds = log.map((e) => e.body.type).filter((t) => t !== 'observation');
    // one run at most, and none after the power came back
    expect(kinds.filter((t) => t === 'run-begun').length).toBeLessThanOrEqual(1);
    if (kinds.includes('run-begun') && kinds.includes('power-connected'))
      expect(kinds.indexOf('run-begun')).toBeLessThan(kinds.indexOf('power-connected'));
    // both servers tell the same log
    const told = await Promise.all(
      apps.map(async ({ url }) => {
        const { events } = (await (await fetch(`${url}/api/jobs/${jobId}/events`)).json()) as { events: Logged[] };
        return events.map((e) => e.id);
      }),
    );
    expect(told[0]).toEqual(told[1]);
    expect(told[0].slice(before)).toEqual(log.map((e) => e.id));
  } finally {
    for (const app of apps) await stopApp({ pid: app.child.pid });
  }
});
