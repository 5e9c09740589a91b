/** Mistakes planted before Verify: each is found where it should be, answered with the next try, and told on the record. */
import { expect, type Locator, type Page } from '@playwright/test';
import { choose, gone, hideFault, newJob, record, suspect, test, watchErrors, usePlan } from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

const QUILLON = 'Quillon, 4 layers';
const RUN = (n: number) => `019ac000-0000-4000-8000-0000000007${String(n).padStart(2, '0')}`;

/** A part taken off and put on, as far as Verify. */
async function fitted(page: Page, partId: string, complaint: string): Promise<string> {
  const id = await newJob(page, { board: QUILLON, complaint });
  const plain = { guide: null, offline: false, bench: false };
  const status = await record(
    page,
    id,
    { type: 'function', name: 'fan', when: 'before', state: 'dead' },
    { type: 'function', name: 'memory keys', when: 'before', state: 'works' },
    ...[suspect(partId), gone('harness', 0), gone('bulk', 0)],
    { type: 'run-begun', runId: RUN(1), op: 'remove', methodId: 'air-slow', ...plain },
    { type: 'mark', runId: RUN(1), instruction: 'lift', what: 'lifted' },
    { type: 'run-ended', runId: RUN(1), outcome: 'finished' },
    { type: 'orientation-checked', against: ['the photo before'] },
    { type: 'run-begun', runId: RUN(2), op: 'fit', methodId: 'fit-air', ...plain },
    { type: 'run-ended', runId: RUN(2), outcome: 'finished' },
  );
  expect(status).toBe(201);
  return id;
}
/** Rails that are not short. */
const rails = ['12 V', '5 V', 'motor output'].map((rail) => ({
  ...{ type: 'short-check', rail, load: null, ohm: 5000, good_ohm: 5000, nature: null },
}));
const joints = (page: Page) => page.getByRole('region', { name: 'Joints' });
const nextTry = (page: Page) => page.getByRole('region', { name: 'Next try' });
const firstTry = (page: Page): Locator =>
  nextTry(page).getByRole('list', { name: 'To try' }).getByRole('listitem').first();

test('a bridge and an open pin are seen, pushed and measured, by keys alone; a second attempt carries on', async ({
  page,
}) => {
  const id = await fitted(page, 'u7', 'no answer on the bus');
  await page.goto(`/jobs/${id}/verify`);
  await expect(page.getByTestId('land-sheet')).toBeVisible();
  await expect(joints(page)).toContainText('Joint 1: what do you see?');
  for (const key of [' ', ' ', 'b', 'd']) await page.keyboard.press(key);
  await page.keyboard.press('r');
  await expect(joints(page)).toContainText('Look 8/8');
  await expect(joints(page)).toContainText('3 bridge');
  await expect(joints(page).getByRole('button', { name: 'joint 3: bridge' })).toBeVisible();
  await expect(joints(page)).toContainText('leave it: wetted to the edge is enough');
  await expect(page.getByRole('group', { name: /U7, its joints/ })).toBeVisible();

  await page.getByRole('tab', { name: /^Push/ }).click();
  await expect(joints(page)).toContainText('Joint 1: does it give under a needle?');
  await page.keyboard.press('g');
  await page.keyboard.press('o');
  await page.getByRole('button', { name: 'Rest are firm' }).click();
  await expect(joints(page)).toContainText('All 8 pushed.');

  await page.getByRole('tab', { name: /^Measure/ }).click();
  await expect(joints(page)).toContainText(/Apart: 1 and 2/);
  await page.keyboard.press('g');
  await page.getByLabel('Ohms between them').fill('nonsense');
  await page.getByLabel('Ohms between them').press('Enter');
  await expect(page.getByRole('alert')).toContainText('Ohms such as');
  await page.getByLabel('Ohms between them').fill('OL');
  await page.getByLabel('Ohms between them').press('Enter');
  await expect(joints(page)).toContainText(/Apart: 3 and 4/);
  await page.getByLabel('Ohms between them').fill('.4');
  await page.getByLabel('Ohms between them').press('Enter');
  await page.getByRole('button', { name: 'All others are silent' }).click();
  await expect(joints(page)).toContainText(/Through: /);
  await page.getByRole('button', { name: 'All others beep' }).click();
  await expect(joints(page).getByRole('button', { name: /3 and 4.*bridged/ })).toBeVisible();

  // what shows decides what is tried: a bridge that was measured, then an open leg
  await choose(page.getByLabel('What shows'), 'a rail is short');
  await expect(firstTry(page)).toContainText('look between the pins');
  await expect(firstTry(page)).toContainText(/a bridge was found/);
  await choose(page.getByLabel('What shows'), 'no output, nothing happens');
  await expect(firstTry(page)).toContainText(/flux and heat on what gives/);
  await expect(firstTry(page)).toContainText('2');

  // the same part once more, with what is known of it
  await page.getByRole('button', { name: 'Second attempt at U7' }).click();
  await page.waitForURL('**/plan');
  await expect(page.getByRole('link', { name: /Diagnose/ })).toContainText('U7');
  await page.goto(`/record/${id}`);
  await expect(page.getByText('Attempt 2: U7')).toBeVisible();
  await expect(page.getByText('3 bridge, 4 dull')).toBeVisible();
});

test('a neighbour that moved is found where the plan said it could suffer, and is the first thing to look at', async ({
  page,
}) => {
  test.setTimeout(180_000);
  const id = await newJob(page, { board: QUILLON, complaint: 'moves on its own' });
  await record(page, id, suspect('q1'), gone('harness', 0), gone('bulk', 0));
  await page.goto(`/jobs/${id}/plan?method=air-slow`);
  await usePlan(page, 'Air, slow');
  const begun = { type: 'run-begun', runId: RUN(4), op: 'remove', methodId: 'air-slow', guide: null };
  await record(
    page,
    id,
    { ...begun, offline: true, bench: false },
    { type: 'run-ended', runId: RUN(4), outcome: 'finished' },
  );
  await page.goto(`/jobs/${id}/verify`);
  const rows = page.getByRole('group', { name: /: not looked at$/ });
  await expect(rows.first()).toBeVisible();
  const due = await rows.count();
  const name = (await rows.first().getAttribute('aria-label'))?.split(':')[0] ?? '';
  await choose(page.getByLabel(`${name}, what is amiss`), 'moved');
  await expect(page.getByRole('heading', { name: /Surroundings/ })).toContainText(`${name} moved`);
  for (let n = due - 1; n > 0; n--) await rows.first().getByRole('button', { name: 'As before' }).click();
  await expect(rows).toHaveCount(0);
  await expect(page.getByRole('heading', { name: /Surroundings/ })).toContainText(`${name} moved`);
  await choose(page.getByLabel('What shows'), 'worked before, dead now');
  await expect(firstTry(page)).toContainText(`${name} moved`);
  await page.goto(`/record/${id}`);
  await expect(page.getByText(`seen after the work: ${name} moved`)).toBeVisible();
});

test('a part that floated, a function that was dead before, one that died since: told apart, and on the record', async ({
  page,
}) => {
  const id = await fitted(page, 'u7', 'no answer, cold mornings');
  await record(page, id, { type: 'slip', kind: 'tilted', runId: RUN(2), partId: 'u7' }, ...rails);
  await page.goto(`/jobs/${id}/verify`);
  await choose(page.getByLabel('What shows'), 'no output, nothing happens');
  await expect(firstTry(page)).toContainText('look flat across the part');
  await expect(firstTry(page)).toContainText('it was marked as tilted');
  const after = page.getByRole('list', { name: 'Functions after the work' });
  const say = (fn: string, state: string) =>
    after.getByRole('listitem', { name: fn }).getByRole('button', { name: state, exact: true }).click();
  await say('the complaint', 'gone');
  await say('fan', 'dead');
  // dead before, dead after: not this bench's
  await expect(page.getByRole('heading', { name: /Complaint and functions/ })).toContainText(
    'not tried again: memory keys',
  );
  await say('memory keys', 'dead');
  await expect(page.getByRole('heading', { name: /Complaint and functions/ })).toContainText(
    'memory keys worked before and is dead now',
  );
  await choose(page.getByLabel('What shows'), 'from the log: worked before, dead now');
  await expect(firstTry(page)).toContainText('look at and measure what stands round it');
  await page.goto(`/record/${id}`);
  const watch = page.getByRole('heading', { name: 'What to watch' }).locator('..');
  await expect(watch).toContainText('did not work before either: fan');
  await expect(watch).toContainText('does not work now: memory keys');
  await expect(page.getByRole('heading', { name: 'Slips' }).locator('..')).toContainText(/tilted.*: not looked at/i);
});

test('wrong way round is caught before any power: neither iron nor supply go on', async ({ page }) => {
  const id = await newJob(page, { board: QUILLON, complaint: 'fit what is in the bag', kind: 'fit-only' });
  const differs = { lies: '1', belongs: [{ by: 'silkscreen', at: '5' }] };
  await record(page, id, suspect('u7'), gone('harness', 0), gone('bulk', 0), {
    ...{ type: 'orientation-checked', against: ['the board’s mark'], seen: differs },
  });
  const begin = { type: 'run-begun', runId: RUN(3), op: 'fit', methodId: 'fit-air', guide: null, offline: false };
  expect(await record(page, id, { ...begin, bench: false })).toBe(409);
  await page.goto(`/jobs/${id}/verify`);
  await choose(page.getByLabel('What shows'), 'it pops again');
  await expect(firstTry(page)).toContainText('check its mark against the board');
  await expect(firstTry(page)).toContainText('marks do not agree');
  await page.goto(`/record/${id}`);
  await expect(page.getByText(/Way round/).locator('xpath=following-sibling::dd[1]')).toContainText(/1.*5|5.*1/);
});

test('first power goes in stages; a rail over its voltage stops it at once, and rails are measured again', async ({
  page,
}) => {
  const sound = await fitted(page, 'u7', 'no answer at all');
  await hideFault(sound);
  await page.goto(`/jobs/${sound}/verify`);
  const start = page.getByRole('button', { name: 'Leads on, hands off: start' });
  await expect(start).toBeDisabled();
  await record(page, sound, ...rails);
  await expect(start).toBeEnabled();
  await expect(page.getByText('Limits from what a good unit draws.')).toBeVisible();
  await page.getByLabel('Supply V').fill('12');
  await start.click();
  await expect(page.getByTestId('first-power')).toContainText(/soak: /);
  await expect(page.getByTestId('first-power')).toContainText('passed', { timeout: 40_000 });
  await expect(page.getByTestId('first-power')).toContainText(/run: .* 12\.0 V, 5 V 5\.00 V/);

  const over = await fitted(page, 'u7', 'no answer since the regulator was changed');
  await hideFault(over, { ref: 'U3', mode: 'short', pins: ['1', '5'], r: 0.5 });
  await record(page, over, ...rails);
  await page.goto(`/jobs/${over}/verify`);
  await page.getByLabel('Supply V').fill('12');
  await start.click();
  await expect(page.getByRole('status').filter({ hasText: 'Stopped: too much voltage on a rail' })).toContainText(
    'where 5 V is right',
  );
  await expect(page.getByText(/first power was stopped: .*find out why, then measure again/).first()).toBeVisible();
  await expect(start).toBeDisabled();
  await expect(firstTry(page)).toContainText('measure the divider and the sense pin');
  // nothing but a new short check lets power back
  expect(await record(page, over, { type: 'power-connected', sourceId: 'harness' })).toBe(409);
  await record(page, over, ...rails);
  expect(await record(page, over, { type: 'power-connected', sourceId: 'harness' })).toBe(201);
  await page.goto(`/record/${over}`);
  await expect(page.getByText(/too much voltage on a rail, 5 V, .* simulated/)).toBeVisible();
  await expect(page.getByText(/soak .* \(simulated\)/).first()).toBeVisible();
});

test('first power is called off by hand: its output goes off, and the log says so', async ({ page }) => {
  const id = await fitted(page, 'u7', 'no answer now and then');
  await hideFault(id);
  await record(page, id, ...rails);
  await page.goto(`/jobs/${id}/verify`);
  await page.getByLabel('Supply V').fill('12');
  await page.getByRole('button', { name: 'Leads on, hands off: start' }).click();
  await expect(page.getByTestId('first-power')).toContainText('soak');
  await page.getByRole('button', { name: 'Stop', exact: true }).click();
  await expect(page.getByRole('status').filter({ hasText: 'Stopped: called off by hand' })).toBeVisible();
  // nothing happened to the board: the next one may begin at once
  await expect(page.getByRole('button', { name: 'Leads on, hands off: start' })).toBeEnabled();
});

test('diode mode tells a short as well; closed in reverse, tried whole, and handed out as PDF', async ({ page }) => {
  const id = await fitted(page, 'u7', 'no answer after rain');
  await page.goto(`/jobs/${id}/verify`);
  await page.getByRole('radio', { name: 'diode mode' }).click();
  await page.getByLabel('5 V board alone, diode mode').fill('.003');
  await page.getByLabel('5 V board alone, diode mode').press('Enter');
  await expect(page.getByText(/in diode mode: short/).first()).toBeVisible();
  await page.getByLabel('5 V board alone, diode mode').fill('.42');
  await page.getByLabel('5 V board alone, diode mode').press('Enter');
  await expect(page.getByText(/a junction, not short/).first()).toBeVisible();

  await record(
    ...([page, id] as const),
    { type: 'opened', kind: 'screw', what: 'lid', count: 4 },
    { type: 'opened', kind: 'cable', what: 'harness plug', count: 1 },
  );
  await page.goto(`/jobs/${id}/release`);
  await expect(page.getByRole('heading', { name: /Closed: tested whole/ })).toContainText(
    '2 of its opening not undone',
  );
  const closing = page.getByRole('list', { name: 'Closing' });
  // what came out last goes in first
  await expect(closing.getByRole('listitem').first()).toContainText(/plug in harness plug/i);
  for (const what of ['harness plug', 'lid'])
    await closing.getByRole('button', { name: new RegExp(`${what}: it is back`) }).click();
  await expect(page.getByRole('heading', { name: /Closed: tested whole/ })).toContainText(
    'not tried since it was closed',
  );
  const whole = page.getByRole('list', { name: 'Functions, closed again' });
  await whole.getByRole('listitem', { name: 'the complaint' }).getByRole('button', { name: 'gone' }).click();
  await whole.getByRole('listitem', { name: 'memory keys' }).getByRole('button', { name: 'works' }).click();
  await expect(page.getByRole('heading', { name: /Closed: tested whole/ })).toContainText('works as it goes out');
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(`/record/${id}`);
  await expect(page.getByText('closed again and tested whole')).toBeVisible();
  // nothing runs out of a phone's page
  expect(await page.evaluate(() => document.querySelector('article')?.scrollWidth ?? 0)).toBeLessThanOrEqual(390);
  const pdf = await page.request.get(`/record/${id}/pdf`);
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).toString('latin1')).toMatch(/\/FontFile2/);
});
