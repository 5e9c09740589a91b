/** Protect to release, with busy hands: keyboard only, gates, slips, second attempts. */
import { expect } from '@playwright/test';
import {
  choose,
  gone,
  goOn,
  hold,
  logOf,
  newJob,
  openRun,
  ownReading,
  planReady,
  pressUntil,
  record,
  saved,
  say,
  suspect,
  tabTo,
  tap,
  TERN,
  TERN_GONE,
  test,
  watchErrors,
  usePlan,
} from './helpers.ts';

const QUILLON = 'Quillon, 4 layers';

let errors: string[];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => {
  expect(errors).toEqual([]);
});

test('all nine steps by keyboard only, a hidden bench playing the board', async ({ page }) => {
  test.setTimeout(180_000);
  const type = async (label: string | RegExp, text: string) => {
    await tabTo(page, page.getByLabel(label, { exact: true }).first());
    await page.keyboard.press('Control+a');
    await page.keyboard.type(text);
  };
  const press = async (name: string) => {
    await tabTo(page, page.getByRole('button', { name, exact: true }).first());
    await page.keyboard.press('Enter');
  };
  // 1 intake
  await page.goto('/jobs');
  await pressUntil(page, 'n', '**/jobs/new');
  await page.waitForLoadState('networkidle');
  await type('Customer', 'Marla Quay');
  await type('Device', 'Tern T2 display');
  await type("Complaint, in the owner's words", 'dark since Sunday');
  await tabTo(page, page.getByLabel('Board', { exact: true }));
  await page.keyboard.type('Tern');
  await press('Take it in');
  await page.waitForURL('**/intake');
  const jobId = page.url().split('/')[4];
  await page.waitForLoadState('networkidle');
  // a row of tabs is one stop; arrows go along it
  await tabTo(page, page.getByRole('tab', { name: 'Ticket' }));
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('tab', { name: 'Tried' })).toBeFocused();
  await type('Function', 'buttons');
  await page.keyboard.press('Enter');
  const before = page.getByRole('list', { name: 'Functions before the work' });
  await tabTo(page, before.getByRole('button', { name: 'works' }));
  await page.keyboard.press('Enter');
  await expect(before.getByRole('button', { name: 'works' })).toHaveAttribute('aria-pressed', 'true');
  // 2 diagnose
  await page.keyboard.press(']');
  await page.waitForURL('**/diagnose');
  await tabTo(page, page.getByText('Another reading'));
  await page.keyboard.press('Enter');
  await type('Measured at', 'C7.1');
  await type('Reads, Ω', '1.4');
  await type('Good board, Ω', '2k4');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /C7\.1/ })).toContainText('too low');
  await tabTo(page, page.getByRole('form', { name: 'Reading', exact: true }).getByRole('button', { name: 'Enter' }));
  await page.keyboard.press('/');
  await page.keyboard.type('C7');
  await expect(page.getByRole('dialog').getByRole('option', { name: /^C7/ }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await type('Why C7', 'lowest of the rail');
  await page.keyboard.press('Enter');
  // 3 plan
  await page.waitForURL('**/plan');
  // the best is enough, while others are still computed
  await planReady(page, 'best');
  await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();
  // 4 protect
  await page.keyboard.press(']');
  await page.waitForURL('**/protect');
  await expect(page.getByRole('button', { name: 'Gone', exact: true })).toHaveCount(2);
  await page.keyboard.press('g');
  await expect(page.getByRole('button', { name: 'Gone', exact: true })).toHaveCount(1);
  await page.keyboard.press('g');
  await expect(page.getByText('every source shown gone').first()).toBeVisible();
  for (const name of [/from hole by the cell/, /from hole by J2/]) {
    await tabTo(page, page.getByRole('checkbox', { name }));
    await page.keyboard.press(' ');
  }
  await page.keyboard.press('t');
  await expect(page.getByText('found from 2 landmarks').first()).toBeVisible();
  // one tick for everything at its planned value
  await press('All as planned');
  await expect(page.getByText('as planned').first()).toBeVisible();
  // 5 remove
  await tabTo(page, page.getByRole('button', { name: 'Laid out as ticked' }));
  await page.keyboard.press('b');
  await page.waitForURL('**/remove');
  await page.keyboard.press('b');
  await page.waitForURL('**/run/**/remove');
  await tabTo(page, page.getByLabel('a hidden bench plays the board'));
  await page.keyboard.press(' ');
  await expect(page.getByLabel('a hidden bench plays the board')).toBeChecked();
  await tap(page);
  await expect(say(page)).toHaveText('Flux every joint of C7.');
  // the method was the plan's choice: go on until the heat is on
  for (let n = 0; n < 5 && !(await page.getByTestId('clock').isVisible()); n++) {
    await goOn(page);
  }
  await expect(page.getByText(/Bench: \d of 2 joints shiny/)).toBeVisible();
  await expect(say(page)).not.toContainText(/lift/i);
  await expect(page.getByText('all wet.', { exact: false })).toBeVisible({ timeout: 60_000 });
  await expect(say(page)).not.toContainText(/lift/i);
  await page.keyboard.press('a');
  await expect(say(page)).toContainText(/Lift/);
  await saved(page);
  const shown = await page.locator('[data-shown-ms]').getAttribute('data-shown-ms');
  const sent = await page.locator('[data-sent-ms]').getAttribute('data-sent-ms');
  test.info().annotations.push({
    type: 'measured',
    description: `mark on the screen after ${shown} ms, on the server after ${sent} ms`,
  });
  for (let n = 0; n < 4; n++) await tap(page);
  await expect(say(page)).toHaveText('Remove: finished.');
  await saved(page);
  await tap(page);
  // 6 prepare
  await page.waitForURL('**/prepare');
  await page.keyboard.press('b');
  await page.waitForURL('**/run/**/prepare');
  await expect(say(page)).toContainText('Ready');
  await tap(page);
  await expect(say(page)).toContainText('Scan the surroundings');
  for (let n = 0; n < 16 && !(await page.getByText('Prepare: finished.').isVisible()); n++) {
    await goOn(page);
  }
  await expect(say(page)).toHaveText('Prepare: finished.');
  await saved(page);
  await tap(page);
  // 7 fit
  await page.waitForURL('**/fit');
  await press('bad');
  await type('New part, measured', '98 nF');
  await press('Good');
  await expect(page.getByText('✓ good')).toBeVisible();
  await page.keyboard.press('b');
  await page.waitForURL('**/run/**/fit');
  await expect(say(page)).toContainText('Ready');
  await tap(page);
  await expect(page.getByText('step 1 of')).toBeVisible();
  for (let n = 0; n < 14 && !(await page.getByText('Fit: finished.').isVisible()); n++) {
    await goOn(page);
  }
  await expect(say(page)).toHaveText('Fit: finished.');
  await saved(page);
  await tap(page);
  // 8 verify
  await page.waitForURL('**/verify');
  await expect(page.getByTestId('land-sheet')).toBeVisible();
  await page.keyboard.press('g');
  await page.keyboard.press('g');
  await expect(page.getByText('2 good')).toBeVisible();
  await tabTo(page, page.getByRole('tab', { name: /^Look/ }));
  await page.keyboard.press('ArrowRight');
  await press('All others beep');
  await expect(page.getByText(/All \d measured/)).toBeVisible();
  const rest = page.getByRole('button', { name: /the rest as before$/ });
  await tabTo(
    page,
    (await rest.count()) > 0 ? rest : page.getByRole('button', { name: 'As before', exact: true }).first(),
  );
  await page.keyboard.press('Enter');
  for (const [label, ohm] of [
    ['3.3 V board alone, ohms', '2k3'],
    ['3.3 V with display glass, ohms', '2k1'],
    ['5 V board alone, ohms', '1k8'],
  ])
    await type(label, `${ohm}\n`);
  await expect(page.getByText('no rail is short')).toBeVisible();
  await press('Connect');
  await type('C7.1 now', '2k35\n');
  await expect(page.getByText('all as a good board')).toBeVisible();
  const after = page.getByRole('list', { name: 'Functions after the work' });
  for (const button of [
    after.getByRole('button', { name: 'gone', exact: true }),
    after.getByRole('button', { name: 'works' }),
  ]) {
    await tabTo(page, button);
    await page.keyboard.press('Enter');
    await expect(button).toHaveAttribute('aria-pressed', 'true');
  }
  await expect(page.getByText('complaint gone, functions as before')).toBeVisible();
  // 9 release
  await page.keyboard.press(']');
  await page.waitForURL('**/release');
  await type('Worth remembering', 'one ceramic of eleven');
  await tabTo(page, page.getByRole('button', { name: 'Release', exact: true }));
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Released: repaired' })).toBeVisible();
  await tabTo(page, page.getByRole('link', { name: 'The record' }));
  await page.keyboard.press('Enter');
  await page.waitForURL('**/record/**');
  await expect(page.getByText('Repaired: one ceramic of eleven')).toBeVisible();
  await expect(page.getByRole('row', { name: /all wet/ }).first()).toContainText(/\d+ s.*\d+ s.*[+−]\d+ s/);
  await expect(page.getByText('Gates overridden')).toHaveCount(0);
  await expect(page.getByText('Not done')).toHaveCount(0);
  const log = await logOf(jobId);
  expect(new Set(log.map((e) => e.id)).size).toBe(log.length);
  expect(log.at(-1)?.body.type).toBe('released');
});

test('hard gates: refused, then met, then lapsed by a powered reading; overridden with a reason', async ({ page }) => {
  const jobId = await newJob(page, { board: TERN, complaint: 'gates' });
  await record(page, jobId, suspect('c7'));
  const begin = () => ({
    type: 'run-begun',
    runId: '019ac000-0000-4000-8000-0000000000a1',
    op: 'remove',
    method: 'Air, slow',
    guide: null,
    offline: false,
    bench: false,
  });
  expect(await record(page, jobId, begin())).toBe(409);
  await openRun(page, jobId, 'remove');
  await expect(say(page)).toHaveText('Not yet.');
  await tap(page);
  await expect(say(page)).toHaveText('Not yet.');
  await expect(page.getByText('▲ power not shown gone')).toBeVisible();
  await record(page, jobId, ...TERN_GONE);
  await page.reload();
  await expect(say(page)).toHaveText('Ready to take it off?');

  await page.goto(`/jobs/${jobId}/diagnose`);
  const form = await ownReading(page);
  await page.getByLabel('Measured at').fill('U3.5');
  await choose(page.getByLabel('What', { exact: true }), 'dcv');
  await page.getByLabel('Reads, V').fill('3.3');
  await form.getByRole('button', { name: 'Enter' }).click();
  await expect(page.getByRole('row', { name: /U3\.5/ })).toBeVisible();
  await openRun(page, jobId, 'remove');
  await expect(page.getByText('a reading was taken under power')).toBeVisible();
  expect(await record(page, jobId, begin())).toBe(409);

  await page.goto(`/jobs/${jobId}/remove`);
  await page.getByRole('button', { name: 'Override “Power gone” with a reason' }).click();
  await page.getByRole('button', { name: 'Override', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Say why');
  await page.getByLabel('Reason').fill('bench supply is unplugged at the wall');
  await page.getByRole('button', { name: 'Override', exact: true }).click();
  await expect(page.getByText('Overridden: Power gone.')).toBeVisible();
  expect(await record(page, jobId, begin())).toBe(201);
  // after work, power only behind the short check
  expect(await record(page, jobId, { type: 'power-connected', sourceId: 'battery' })).toBe(409);
  await page.goto(`/record/${jobId}`);
  await expect(page.getByText('Power gone: bench supply is unplugged at the wall')).toBeVisible();
});

test('a reload in mid run goes on where it was; marks can be taken back and corrected', async ({ page }) => {
  const jobId = await newJob(page, { board: TERN, complaint: 'reload' });
  await record(page, jobId, suspect('c7'), ...TERN_GONE);
  await openRun(page, jobId, 'remove');
  await tap(page);
  await expect(say(page)).toHaveText('Flux every joint of C7.');
  await tap(page);
  await expect(say(page)).toContainText('Start wide');
  await tap(page);
  await expect(page.getByTestId('clock')).toHaveText(/0:0\d/);
  await page.reload();
  await expect(page.getByTestId('clock')).toBeVisible();
  await expect(say(page)).toContainText('Circle the body');
  await tap(page);
  await tap(page);
  await expect(say(page)).toContainText('Lift');
  await page.keyboard.press('Backspace');
  await expect(say(page)).toContainText('Circle the body');
  await tap(page);
  for (let n = 0; n < 4; n++) await tap(page);
  await expect(say(page)).toHaveText('Remove: finished.');
  await page.keyboard.press('Backspace');
  await expect(say(page)).toContainText('Count lands and legs');
  await tap(page);
  await expect(say(page)).toHaveText('Remove: finished.');
  await saved(page);

  await page.goto(`/jobs/${jobId}/remove`);
  const field = page.getByLabel('Seconds of all wet');
  await field.fill('abc');
  await field.blur();
  await expect(page.getByRole('alert')).toContainText('Seconds after the heat came on');
  await field.fill('41,5');
  await field.blur();
  await expect(field).toHaveValue('41.5');
  await page.reload();
  await expect(page.getByLabel('Seconds of all wet')).toHaveValue('41.5');
});

test('something is wrong: a slip, its own check, followed up at Verify', async ({ page }) => {
  const jobId = await newJob(page, { board: TERN, complaint: 'slips' });
  await record(page, jobId, suspect('c7'), ...TERN_GONE);
  await openRun(page, jobId, 'remove');
  await tap(page);
  await expect(say(page)).toHaveText('Flux every joint of C7.');
  const sheet = page.getByRole('list', { name: 'What is wrong?' });
  await hold(page, sheet);
  // one pedal is enough: a tap goes to the next choice, a hold takes it
  await tap(page);
  await expect(sheet.locator('[aria-current=true]')).toContainText('Slipped');
  await hold(page, page.getByRole('list', { name: 'Slipped' }));
  await expect(say(page)).toContainText('Look where the tool went');
  await page.keyboard.press('1');
  await expect(say(page)).toHaveText('Flux every joint of C7.');
  // the other way: a key of its own, damage found at once
  await page.keyboard.press('x');
  await page.keyboard.press('1');
  await expect(say(page)).toContainText('Unplug everything');
  await page.keyboard.press('3');
  await saved(page);
  await page.keyboard.press('x');
  await page.keyboard.press('g');
  await expect(say(page)).toHaveText('Given up here.');
  await saved(page);

  await page.goto(`/jobs/${jobId}/verify`);
  await expect(page.getByText('1 not looked at').first()).toBeVisible();
  await page.getByLabel('Found after: Slipped').fill('scratch in the mask only');
  await page.getByRole('button', { name: 'All right' }).click();
  await expect(page.getByText('scratch in the mask only')).toBeVisible();
  await expect(page.getByText('none open')).toBeVisible();
  await page.goto(`/jobs/${jobId}/protect`);
  await expect(page.getByText('the board was found powered while hot').first()).toBeVisible();
  await page.goto(`/record/${jobId}`);
  await expect(page.getByText('Slipped: scratch in the mask only')).toBeVisible();
  await expect(page.getByText('Powered while hot: damage found')).toBeVisible();
});

test('a fit-only job starts at Fit; power and orientation guard it; an iron goes joint by joint', async ({ page }) => {
  const jobId = await newJob(page, { board: QUILLON, complaint: 'fit the chip in the bag', kind: 'fit-only' });
  await record(page, jobId, suspect('u7'));
  await page.goto(`/jobs/${jobId}/protect`);
  await page.getByRole('button', { name: 'Gone', exact: true }).first().click();
  await expect(page.getByRole('button', { name: 'Gone', exact: true })).toHaveCount(1);
  // a capacitor is gone only when its voltage was measured again
  await page.getByRole('button', { name: 'Gone', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('measure again after a minute');
  await page.getByLabel(/Volts left at can C3/).fill('11');
  await page.getByRole('button', { name: 'Gone', exact: true }).click();
  await expect(page.getByText('still 11 V').first()).toBeVisible();
  await page.getByRole('button', { name: 'Connect again' }).last().click();
  await page.getByLabel(/Volts left at can C3/).fill('0,1');
  await page.getByRole('button', { name: 'Gone', exact: true }).click();
  await expect(page.getByText('every source shown gone').first()).toBeVisible();
  await page.getByRole('link', { name: 'Fit', exact: true }).last().click();
  await page.waitForURL('**/fit');
  await openRun(page, jobId, 'fit');
  await expect(say(page)).toHaveText('Not yet.');
  await expect(page.getByText('Polarity and orientation: not checked')).toBeVisible();
  await page.goto(`/jobs/${jobId}/fit`);
  for (const of of ['Mark of the part', 'Mark of the board'])
    await page.getByRole('radiogroup', { name: of }).getByRole('radio', { name: 'by 1' }).click();
  await page.getByRole('button', { name: 'Checked' }).click();
  await expect(page.getByText('✓ mark at 1, as the board’s mark').first()).toBeVisible();
  await openRun(page, jobId, 'fit');
  await choose(page.getByLabel('How'), 'Iron, joint by joint');
  await tap(page);
  await expect(say(page)).toContainText('Place U7.');
  for (let n = 0; n < 3; n++) await tap(page);
  await expect(say(page)).toHaveText('Solder joint by joint, 8 in all.');
  await tap(page);
  await page.keyboard.press('2');
  await page.keyboard.press('3');
  await expect(page.getByText('4 of 8')).toBeVisible();
  await page.keyboard.press('Backspace');
  await expect(page.getByText('3 of 8')).toBeVisible();
  for (let n = 0; n < 6; n++) await tap(page);
  await expect(say(page)).toHaveText('Iron into its stand.');
  for (let n = 0; n < 3; n++) await tap(page);
  await expect(say(page)).toHaveText('Fit: finished.');
  await saved(page);
  await page.goto(`/jobs/${jobId}/fit`);
  await expect(page.getByText('7 done, stuck: 2')).toBeVisible();
});

test('a second attempt after a wrong suspect keeps the first', async ({ page }) => {
  const jobId = await newJob(page, { board: QUILLON, complaint: 'bus dead' });
  const begun = (runId: string, op: string) => ({
    type: 'run-begun',
    runId,
    op,
    method: 'Air, slow',
    guide: null,
    offline: false,
    bench: false,
  });
  const RUN = '019ac000-0000-4000-8000-0000000000b1';
  await record(page, jobId, suspect('u7'), gone('harness'), gone('bulk', 0), begun(RUN, 'remove'), {
    type: 'run-ended',
    runId: RUN,
    outcome: 'finished',
  });
  // a land in doubt is told apart; seen again and found good, it is good
  await page.goto(`/jobs/${jobId}/prepare`);
  await expect(page.getByText('Land 1: what do you see?')).toBeVisible();
  await page.keyboard.press('g');
  await page.keyboard.press('t');
  await expect(page.getByText('2 torn')).toBeVisible();
  await page.getByRole('button', { name: 'land 2: torn' }).first().click();
  await page.keyboard.press('g');
  await expect(page.getByText('2 torn')).toHaveCount(0);
  await page.goto(`/jobs/${jobId}/fit`);
  await page.getByRole('button', { name: 'good', exact: true }).click();
  await page.getByRole('button', { name: 'still wrong' }).click();
  await expect(page.getByText('Good, and the line is still wrong.')).toBeVisible();
  const bad = page.getByRole('button', { name: 'bad', exact: true });
  await bad.click();
  await expect(bad).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'came back' }).click();
  await expect(page.getByText('Culprit found.')).toBeVisible();
  await page.goto(`/jobs/${jobId}/diagnose`);
  await page.getByRole('application').focus();
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('D3');
  await page.keyboard.press('Enter');
  await page.getByLabel('Why D3').fill('lower the nearer to D3');
  await page.getByRole('button', { name: 'D3 it is', exact: true }).click();
  await page.waitForURL('**/plan');
  await page.goto(`/record/${jobId}`);
  await expect(page.getByText('Attempt 1: U7')).toBeVisible();
  await expect(page.getByText('Attempt 2: D3')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Taking off, Air, slow' })).toHaveCount(1);
  await page.goto(`/jobs/${jobId}/remove`);
  await expect(page.getByRole('link', { name: 'Begin', exact: true })).toBeVisible();
});

test('release: photos, record on paper and as PDF, reopened later with links both ways', async ({ page }) => {
  const jobId = await newJob(page, { board: TERN, complaint: 'photos and paper' });
  await page.goto(`/jobs/${jobId}/release`);
  const upload = page.getByLabel('Add photos, after');
  await upload.setInputFiles({ name: 'notes.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') });
  await expect(page.getByRole('alert')).toContainText('not a picture');
  await upload.setInputFiles({ name: 'after.png', mimeType: 'image/png', buffer: await page.screenshot() });
  const photo = page.getByRole('img', { name: 'after, 1' });
  await expect(photo).toBeVisible();
  const src = (await photo.getAttribute('src')) ?? '';
  const small = await page.request.get(src);
  expect(small.headers()['content-type']).toBe('image/jpeg');
  const full = await page.request.get(src.replace('?small', ''));
  expect((await full.body()).length).toBeGreaterThan((await small.body()).length);

  await page.getByLabel('Bench minutes').fill('many');
  await page.getByRole('button', { name: 'Release', exact: true }).click();
  await expect(page.getByRole('alert')).toContainText('Minutes at the bench');
  await page.getByLabel('Bench minutes').fill('25');
  await page.getByLabel('not repaired').check();
  await page.getByRole('button', { name: 'Release', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Released: not repaired' })).toBeVisible();
  await page.goto(`/jobs?q=photos`);
  await expect(page.getByText('No open job matches')).toBeVisible();

  await page.goto(`/record/${jobId}`);
  await expect(page.getByText('25 min')).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Not done' })).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('navigation', { name: 'Places' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible();
  await page.emulateMedia({ media: 'screen' });
  const pdf = await page.request.get(`/record/${jobId}/pdf`);
  expect(pdf.headers()['content-type']).toBe('application/pdf');
  expect((await pdf.body()).subarray(0, 5).toString()).toBe('%PDF-');

  await page.goto(`/jobs/${jobId}/release`);
  await page.getByRole('button', { name: 'It came back: reopen' }).click();
  await page.waitForURL('**/intake');
  const again = page.url().split('/')[4];
  expect(again).not.toBe(jobId);
  await expect(page.getByRole('heading', { name: 'Came back: photos and paper' })).toBeVisible();
  await page.getByRole('link', { name: /^No\. \d+$/ }).click();
  await page.waitForURL(`**/jobs/${jobId}/release`);
  await expect(page.getByText('Taken up again by')).toBeVisible();
});

test('an express job to its release: no model, no plan, nothing that can feed it, not a single mark', async ({
  page,
}) => {
  await page.goto('/jobs/express');
  await page.getByLabel('Part to take off').fill('SOIC-8');
  await page.getByLabel('Its distance, mm').fill('6');
  await page.getByRole('button', { name: 'Plan it' }).click();
  await page.waitForURL('**/plan');
  const jobId = page.url().split('/')[4];
  await page.goto(`/run/${jobId}/remove`);
  await expect(page.getByText('what can feed this board is not listed')).toBeVisible();
  await page.getByRole('link', { name: 'Protect' }).click();
  await page.waitForURL('**/protect');
  const add = page.getByRole('form', { name: 'Another source' });
  await add.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('alert')).toContainText('Name what can feed the board');
  await choose(add.getByLabel('Kind of source'), 'none');
  await add.getByRole('button', { name: 'Add' }).click();
  await expect(page.getByText('nothing can feed it').first()).toBeVisible();
  await expect(page.getByText('Fewer than two landmarks')).toBeVisible();
  await openRun(page, jobId, 'remove');
  await tap(page);
  await expect(page.getByText('step 1 of')).toBeVisible();
  await page.keyboard.press('x');
  await page.getByRole('button', { name: /Finished, no more marks/ }).click();
  await expect(say(page)).toHaveText('Remove: finished.');
  await saved(page);
  await page.goto(`/jobs/${jobId}/remove`);
  await expect(page.getByText('No marks. That is all right.')).toBeVisible();
  await expect(page.getByText('taken off without "all wet"')).toBeVisible();
  await page.goto(`/jobs/${jobId}/verify`);
  // rails that the model does not list are typed; without a reference a low one is not called short
  const rail = page.getByRole('form', { name: 'Another rail' });
  await rail.getByLabel('Rail', { exact: true }).fill('motor supply');
  await rail.getByLabel('Rail, ohms').fill('3');
  await rail.getByRole('button', { name: 'Enter' }).click();
  await expect(page.getByText(/may be a short or its nature/).first()).toBeVisible();
  await rail.getByLabel('Rail', { exact: true }).fill('motor supply');
  await rail.getByLabel('Rail, ohms').fill('3');
  await rail.getByLabel('Good board, ohms').fill('3.2');
  await rail.getByRole('button', { name: 'Enter' }).click();
  await expect(page.getByText('no rail is short')).toBeVisible();
  await page.goto(`/jobs/${jobId}/release`);
  await page.getByRole('button', { name: 'Release', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Released: repaired' })).toBeVisible();
  // a released job takes no more entries, only what the hands did before and could not send
  expect(await record(page, jobId, { type: 'observation', text: 'one more thing' })).toBe(409);
  expect(await record(page, jobId, { type: 'slip', kind: 'bumped' })).toBe(201);
  await page.goto(`/record/${jobId}`);
  await expect(page.getByText('Bumped a neighbour: not looked at')).toBeVisible();
});

test('lay-out, covers and photos: what is off is said, what is wrong can be mended', async ({ page }) => {
  const jobId = await newJob(page, { board: TERN, complaint: 'lay-out' });
  await record(page, jobId, suspect('u1'));
  await page.goto(`/jobs/${jobId}/plan?method=air-slow`);
  await usePlan(page, 'Air, slow');
  await page.goto(`/jobs/${jobId}/protect`);
  await expect(page.getByText('neither covered nor accepted')).toBeVisible();
  await page.getByRole('button', { name: 'Accept', exact: true }).first().click();
  await expect(page.getByRole('alert')).toContainText('get that hot');
  await choose(page.getByLabel('Cover for BT1'), 'taken out');
  await page
    .locator('div', { has: page.getByLabel('Cover for BT1') })
    .filter({ has: page.getByRole('button', { name: 'It is out' }) })
    .last()
    .getByRole('button', { name: 'It is out' })
    .click();
  await expect(page.getByText('covered: taken out')).toBeVisible();
  await page
    .getByLabel(/^Why .* may get that hot/)
    .first()
    .fill('it is scrap anyway');
  await page.getByRole('button', { name: 'Accept', exact: true }).first().click();
  await expect(page.getByText('accepted: it is scrap anyway')).toBeVisible();

  await page.getByRole('button', { name: 'All as planned' }).click();
  await expect(page.getByText('as planned').first()).toBeVisible();
  await page.getByLabel(/^air temperature/).fill('hot');
  await page.getByRole('button', { name: 'Laid out as ticked' }).click();
  await expect(page.getByRole('alert')).toContainText('a number as the tool shows it');
  await page.getByLabel(/^air temperature/).fill('420');
  await page.getByLabel(/^air flow/).fill('45');
  await page.getByRole('button', { name: 'Laid out as ticked' }).click();
  await expect(page.getByText('air temperature at 420, planned 390 °C')).toBeVisible();
  await page.getByLabel(/^air temperature/).fill('392');
  await page.getByRole('button', { name: 'Laid out as ticked' }).click();
  await expect(page.getByText('as planned').first()).toBeVisible();
  // what was laid out is still there after a reload
  await page.reload();
  await expect(page.getByLabel(/^air temperature/)).toHaveValue('392');
  await expect(page.getByRole('checkbox', { name: 'braid' })).toBeChecked();

  await page.goto(`/jobs/${jobId}/intake`);
  const shot = await page.screenshot();
  await page.getByLabel('Add photos, before').setInputFiles([
    { name: 'a.png', mimeType: 'image/png', buffer: shot },
    { name: 'b.png', mimeType: 'image/png', buffer: shot },
  ]);
  await expect(page.getByRole('img', { name: 'before, 2' })).toBeVisible();
  // the first press only asks
  await page.getByRole('button', { name: 'Take out photo 1, before' }).click();
  await expect(page.getByText('for good?')).toBeVisible();
  await expect(page.getByRole('img', { name: /^before/ })).toHaveCount(2);
  await page.getByRole('button', { name: 'Take out photo 1, before' }).click();
  await expect(page.getByRole('img', { name: /^before/ })).toHaveCount(1);
});
