import { test as base, expect, type Locator, type Page } from '@playwright/test';
import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import pg from 'pg';
import { freePort } from '../../scripts/common.mjs';
import { startApp, stopApp } from '../../scripts/server.mjs';

/** Makes a page wait after going somewhere until it listens: before, clicks and keys are lost. */
export function patient(page: Page): Page {
  const { goto, reload } = page;
  const listens = () => page.locator('html[data-listens]').waitFor({ state: 'attached', timeout: 60_000 });
  page.goto = async (url, options) => {
    const response = await goto.call(page, url, options);
    if (url !== 'about:blank') await listens();
    return response;
  };
  page.reload = async (options) => {
    const response = await reload.call(page, options);
    await listens();
    return response;
  };
  return page;
}

export const test = base.extend({ page: ({ page }, use) => use(patient(page)) });

/** Opens a demo job by a piece of its complaint; gives its address without the step. */
export async function openJob(page: Page, text: string, step: string): Promise<string> {
  const found = await page.request.get(`${shopOf(page)}/api/find?q=${encodeURIComponent(text)}`);
  const { jobs } = (await found.json()) as { jobs: { id: string }[] };
  if (jobs.length === 0) throw new Error(`no job "${text}"`);
  const href = `/jobs/${jobs[0].id}`;
  await page.goto(`${href}/${step}`);
  await expect(page.getByRole('application')).toBeVisible();
  // the stage has taken its size: the page is alive and listens to keys
  await page.waitForFunction(
    () => (document.querySelector<HTMLCanvasElement>('[data-testid=stage-parts]')?.width ?? 0) > 301,
  );
  return href;
}

/** Opens the form for a reading of one's own beside the advised ones; on boards with a circuit it is folded. */
export async function ownReading(page: Page): Promise<Locator> {
  const form = page.getByRole('form', { name: 'Reading', exact: true });
  if (!(await form.isVisible())) await page.getByText('Another reading').click();
  await expect(form).toBeVisible();
  return form;
}

/** Waits until the best way of working can be used, or until all that is computed unasked is there and stored. */
export async function planReady(page: Page, what: 'best' | 'whole' = 'whole'): Promise<void> {
  if (what === 'whole') await expect(page.locator('[data-whole]')).toBeVisible({ timeout: 90_000 });
  await expect(page.getByRole('button', { name: 'Use this plan' })).toBeEnabled({ timeout: 90_000 });
}

/** Calls off what is still computed beside the way that is shown, and waits until what is through is stored. */
export async function callOff(page: Page): Promise<void> {
  const cancel = page.getByRole('button', { name: 'Cancel', exact: true });
  // through meanwhile, there is nothing to call off
  if (await cancel.isVisible()) await cancel.click({ timeout: 2000 }).catch(() => {});
  await expect(page.locator('[data-whole]')).toBeVisible();
}

/** Picks a way of working where a plan is computed, and has the hands follow it as soon as it is through. */
export async function usePlan(page: Page, name: string): Promise<void> {
  await pick(page, name);
  await page.getByRole('button', { name: 'Use this plan' }).click();
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();
}

/** Picks a way of working by its name, and waits until it is computed in full and shown. */
export async function pick(page: Page, name: string): Promise<void> {
  await page.getByRole('radiogroup', { name: 'Methods' }).getByText(name, { exact: true }).click();
  await expect(page.locator(`[data-shown="${name}"]`)).toBeVisible({ timeout: 90_000 });
}

/** Opens a tool of the kit, where that is the page; its form. */
export async function openTool(page: Page, name: string): Promise<Locator> {
  const form = page.getByRole('form', { name });
  if (!(await form.isVisible())) await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  await expect(form).toBeVisible();
  return form;
}

/** What the browser reports as an error, from now on. */
export function watchErrors(page: Page): string[] {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  page.on('console', (m) => {
    // refused requests are answered with a sentence on the page; the browser logs them all the same
    if (m.type() === 'error' && !m.text().startsWith('Failed to load resource')) errors.push(m.text());
  });
  return errors;
}

/** Presses a key until it leads somewhere: a page just loaded may not listen yet. */
export async function pressUntil(page: Page, key: string, url: string): Promise<void> {
  await expect(async () => {
    await page.keyboard.press(key);
    await page.waitForURL(url, { timeout: 1500 });
  }).toPass();
}

/** Opens a list and takes what is called so, or what stands for that value. */
export async function choose(field: Locator, what: string): Promise<void> {
  const page = field.page();
  // its list carries the same name while it closes
  field = field.first();
  const option = page
    .getByRole('option', { name: what, exact: true })
    .or(page.locator(`[role=option][data-value=${JSON.stringify(what)}]`))
    .first();
  await expect(field).toBeEnabled();
  // a page that has just come may not listen yet
  await expect(async () => {
    if ((await field.getAttribute('aria-expanded')) !== 'true') await field.click({ timeout: 3000 });
    await option.click({ timeout: 3000 });
  }).toPass({ timeout: 60_000 });
}

const shops = new WeakMap<Page, string>();
/** Origin of the shop that a page is in, or goes to first. */
export function shopOf(page: Page): string {
  if (page.url().startsWith('http')) return new URL(page.url()).origin;
  return shops.get(page) ?? test.info().project.use.baseURL ?? '';
}

/** Takes in a new job as its form sends it, without looking at it; gives its id. */
export async function newJob(
  page: Page,
  {
    board,
    complaint,
    kind = 'repair',
    origin = shopOf(page),
  }: { board: string; complaint: string; kind?: 'repair' | 'fit-only'; origin?: string },
): Promise<string> {
  shops.set(page, origin);
  const name = board.replace(/, \d+ layers$/, '');
  const found = await page.request.get(`${origin}/api/find?q=${encodeURIComponent(name)}`);
  const { boards } = (await found.json()) as { boards: { id: string; name: string }[] };
  const model = boards.find((b) => b.name === name);
  if (!model) throw new Error(`no board "${name}"`);
  const said = { customer: 'Marla Quay', device: `${board} module`, complaint, kind, modelId: model.id };
  const answer = await page.request.post(`${origin}/jobs/new`, {
    headers: { origin, accept: 'application/json', 'x-sveltekit-action': 'true' },
    form: { contact: '', serial: '', inBox: '', promisedOn: '', ...said },
  });
  const { location } = (await answer.json()) as { location?: string };
  if (!location) throw new Error(`the job is not taken in: ${await answer.text()}`);
  return location.split('/')[2];
}

/** Types a day as somebody at the keyboard would, from 2026-03-04: day, month, year. */
export async function typeDay(field: Locator, iso: string): Promise<void> {
  const [year, month, day] = iso.split('-');
  await field.getByRole('spinbutton').first().click();
  for (const digit of day + month + year) await field.page().keyboard.press(digit);
}

let count = 0;
/** An id of version 7 that no other test makes. */
export const uuid7 = (): string =>
  `${Date.now()
    .toString(16)
    .padStart(12, '0')
    .replace(/^(.{8})(.{4})$/, '$1-$2')}-7${String(++count).padStart(3, '0')}-8000-${Math.floor(Math.random() * 2 ** 47)
    .toString(16)
    .padStart(12, '0')}`;

/** Writes events to a job's log as another page of the application would; gives the last answer's status. */
export async function record(page: Page, jobId: string, ...bodies: object[]): Promise<number> {
  let status = 0;
  for (const body of bodies) {
    const origin = shopOf(page);
    const answer = await page.request.post(`${origin}/api/jobs/${jobId}/events`, {
      headers: { origin },
      data: { id: uuid7(), body },
    });
    status = answer.status();
  }
  return status;
}

/** Opens a run and waits until it listens. */
export async function openRun(page: Page, jobId: string, op: 'remove' | 'prepare' | 'fit'): Promise<void> {
  await page.goto(`/run/${jobId}/${op}`);
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
}

/** One short press of the pedal. */
export async function tap(page: Page): Promise<void> {
  await page.keyboard.press(' ');
}

/** Taps, and waits until the run says something else. */
export async function goOn(page: Page): Promise<void> {
  const says = async () => (await page.locator('.hands h1, .hands h1 + p').allInnerTexts()).join(' ');
  const before = await says();
  await tap(page);
  await expect.poll(says).not.toBe(before);
}

/** A long press, until `then` shows that it was taken for one. */
export async function hold(page: Page, then: Locator): Promise<void> {
  await page.keyboard.down(' ');
  await expect(then).toBeVisible();
  await page.keyboard.up(' ');
}

/** A page whose clock can run ahead, begun so early that it never overtakes the server's: before the page of the run is opened. */
export const hurried = (page: Page): Promise<void> => page.clock.install({ time: Date.now() - 15 * 60_000 });

/** Seconds of the run go by until something shows, in a hurried page. */
export async function untilShown(page: Page, what: Locator): Promise<void> {
  for (let n = 0; n < 300 && !(await what.first().isVisible()); n++) await page.clock.runFor(500);
  await expect(what.first()).toBeVisible();
}

/** Moves the focus with Tab, as somebody without a mouse would, until `target` has it. */
export async function tabTo(page: Page, target: Locator): Promise<void> {
  await expect(target).toBeVisible();
  for (let n = 0; n < 250; n++) {
    if (await target.evaluate((el) => el === document.activeElement)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`Tab never reaches ${target.toString()}`);
}

/** A demo shop of its own, fresh: its address, and how to end it. */
export async function freshShop(): Promise<{ origin: string; close: () => Promise<void> }> {
  const server = process.env.ORTHOS_DATABASE_URL ?? '';
  const name = `fresh_${Date.now()}`;
  const admin = async (sql: string) => {
    const client = new pg.Client({ connectionString: server });
    await client.connect();
    try {
      await client.query(sql);
    } finally {
      await client.end();
    }
  };
  await admin(`create database ${name}`);
  const databaseUrl = new URL(server);
  databaseUrl.pathname = `/${name}`;
  const app = await startApp({ port: await freePort(), databaseUrl: databaseUrl.href, env: { ORTHOS_DEMO: '1' } });
  return {
    origin: app.url,
    close: async () => {
      await stopApp({ pid: app.child.pid });
      await app.ended;
      await admin(`drop database ${name} with (force)`);
    },
  };
}

/** Kills every process of the browser that lives in a profile, all at once, as when the power goes. */
export function killAllOf(profile: string): void {
  for (const pid of readdirSync('/proc').filter((p) => /^\d+$/.test(p)))
    try {
      if (readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(profile)) process.kill(Number(pid), 'SIGKILL');
    } catch {
      // gone meanwhile
    }
}

export const TERN = 'Tern T2, 2 layers';

export interface Logged {
  id: string;
  at: Date;
  body: { type: string; instruction?: string; what?: string; [key: string]: unknown };
}
/** The log as the database has it. */
export async function logOf(jobId: string): Promise<Logged[]> {
  const client = new pg.Client({ connectionString: process.env.ORTHOS_DATABASE_URL });
  await client.connect();
  try {
    const { rows } = await client.query<Logged>(
      'select id, at, body from job_events where ticket_id = $1 order by seq',
      [jobId],
    );
    return rows;
  } finally {
    await client.end();
  }
}

/** What is really wrong with a job's board: the simulated meter and supply know. */
export async function hideFault(jobId: string, ...faults: object[]): Promise<void> {
  const client = new pg.Client({ connectionString: process.env.ORTHOS_DATABASE_URL });
  await client.connect();
  try {
    await client.query('insert into settings (key, value) values ($1, $2)', [
      `hidden-fault:${jobId}`,
      JSON.stringify(faults),
    ]);
  } finally {
    await client.end();
  }
}

export const suspect = (partId: string) => ({ type: 'suspect', partId, why: 'reads low' });
export const gone = (sourceId: string, residual_V?: number) => ({
  type: 'power-gone',
  sourceId,
  how: 'pulled',
  ...(residual_V === undefined ? {} : { residual_V }),
});
export const TERN_GONE = [gone('battery'), gone('cell')];
export const saved = (page: Page) => expect(page.getByRole('status')).toContainText('marks saved');
export const say = (page: Page) => page.getByRole('heading', { level: 1 });

/** Holds a page against the rules of accessibility, by day and under the scope: nothing serious. */
export async function seemsFine(page: Page, name: string): Promise<void> {
  const source = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
  await page.evaluate(source);
  const found = await page.evaluate(async () => {
    const root = document.documentElement;
    const before = root.dataset.theme;
    const axe = (
      window as unknown as {
        axe: {
          run: (
            context?: Document,
            options?: object,
          ) => Promise<{ violations: { id: string; impact: string; nodes: { html: string }[] }[] }>;
        };
      }
    ).axe;
    const bad: string[] = [];
    // all rules by day; another theme can only break what goes by colour
    const byColour = { runOnly: ['color-contrast', 'link-in-text-block'] };
    for (const [theme, rules] of [
      ['day', {}],
      ['scope', byColour],
    ] as const) {
      root.dataset.theme = theme;
      // colours have faded over
      await Promise.allSettled(document.getAnimations().map((a) => a.finished));
      for (const v of (await axe.run(document, rules)).violations)
        if (['serious', 'critical'].includes(v.impact))
          bad.push(`${theme}, ${v.id}: ${v.nodes.map((n) => n.html.slice(0, 160)).join(' | ')}`);
    }
    root.dataset.theme = before;
    return bad;
  });
  expect(found, name).toEqual([]);
}
