/** Intake and what else weighs in a diagnosis, driven as a technician would. */
import { expect, type Locator, type Page } from '@playwright/test';
import { choose, newJob, openJob, patient, record, test, watchErrors } from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

const tab = (page: Page, panel: 'Intake' | 'Diagnose', name: string) =>
  page.getByRole('tablist', { name: panel, exact: true }).getByRole('tab', { name, exact: true }).click();
const item = (page: Page, list: string, text: string | RegExp): Locator =>
  page.getByRole('list', { name: list }).getByRole('listitem').filter({ hasText: text });
const suspects = (page: Page) => page.getByRole('region', { name: 'Suspects', exact: true });

/** A new job on the Tern, its intake open. */
async function fresh(page: Page, complaint: string, kind?: 'fit-only'): Promise<string> {
  const id = await newJob(page, { board: 'Tern T2, 2 layers', complaint, ...(kind ? { kind } : {}) });
  await page.goto(`/jobs/${id}/intake`);
  return id;
}

test('the ticket: kind of job changed, two hands at once, onset, sources, extras, and a label that finds it again', async ({
  page,
  context,
  baseURL,
}) => {
  const id = await fresh(page, 'Goes dark in the cold');
  await page.getByRole('button', { name: 'Change the ticket' }).click();
  const form = page.getByRole('form', { name: 'Ticket' });
  await choose(form.getByRole('combobox'), 'conversion');
  await form.locator('textarea').fill('Goes dark in the cold. Wants the brighter backlight.');
  // somebody else saves first: nothing typed is lost
  const other = patient(await context.newPage());
  await other.goto(`/jobs/${id}/intake`);
  await other.getByRole('button', { name: 'Change the ticket' }).click();
  const theirs = other.getByRole('form', { name: 'Ticket' });
  await theirs.locator('input').nth(2).fill('a coil');
  await theirs.getByRole('button', { name: 'Save' }).click();
  await expect(theirs).toBeHidden();
  await other.close();
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByRole('alert')).toContainText('save again to keep it');
  await expect(form.locator('textarea')).toHaveValue(/brighter backlight/);
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('conversion: a part is changed')).toBeVisible();

  const began = page.getByRole('group', { name: 'How it began' });
  for (const name of ['creeping', 'after a drop']) {
    await began.getByRole('button', { name }).click();
    await expect(began.getByRole('button', { name })).toHaveAttribute('aria-pressed', 'true');
  }
  await choose(page.getByLabel('Kind of source'), 'large capacitor');
  await page.getByLabel('Name of the source').fill('can C14');
  await page.getByRole('form', { name: 'Another source' }).getByRole('button', { name: 'Add' }).click();
  await expect(page.getByRole('button', { name: 'Take back: can C14' })).toBeVisible();
  await page.getByRole('textbox', { name: 'Extra' }).fill('new coin cell');
  await page.keyboard.press('Enter');
  await expect(item(page, 'While it is open', 'new coin cell')).toBeVisible();

  // the source stands at the power gate, the extra at Verify
  await page.goto(`/jobs/${id}/protect`);
  await expect(page.getByText(/can C14: not shown gone/).first()).toBeVisible();
  await page.goto(`/jobs/${id}/verify`);
  await item(page, 'While it is open', 'new coin cell').getByRole('button', { name: 'done' }).click();
  await expect(item(page, 'While it is open', 'new coin cell').getByRole('button', { name: 'done' })).toHaveAttribute(
    'aria-pressed',
    'true',
  );

  await page.goto(`/label/${id}`);
  const label = page.getByRole('article', { name: 'Label' });
  await expect(label).toContainText('conversion');
  await expect(label.getByRole('img', { name: /Opens job \d+/ })).toBeVisible();
  const mm = await label.evaluate((el) => (el.getBoundingClientRect().width * 25.4) / 96);
  expect(mm).toBeCloseTo(90, 0);
  // a scanner types what the code says into the search
  await page.goto('/jobs');
  await page.getByRole('searchbox', { name: 'Search jobs' }).fill(`${baseURL}/jobs/${id}`);
  await page.keyboard.press('Enter');
  await page.waitForURL(`**/jobs/${id}/*`);
});

test('opened step by step and closed in reverse; the screws are counted; the next one opens by the list', async ({
  page,
}) => {
  const id = await fresh(page, 'Rattles');
  await tab(page, 'Intake', 'Opening');
  const form = page.getByRole('form', { name: 'What came off' });
  const add = async (kind: string, count: string, what: string) => {
    await choose(form.getByLabel('What it is'), kind);
    await form.getByLabel('How many').fill(count);
    await form.getByLabel('Which, where').fill(what);
    await form.getByRole('button', { name: 'Add' }).click();
  };
  await add('screws', 'some', 'under the feet');
  await expect(page.getByRole('alert')).toContainText('a whole number from 1');
  await form.getByLabel('How many').fill('4');
  await form.getByRole('button', { name: 'Add' }).click();
  await expect(item(page, 'Opened', 'under the feet')).toContainText('4 × screws');
  await add('clips', '2', 'left edge');
  await add('cable, plug', '1', 'J3');
  await add('shield', '1', 'by mistake');
  await page.getByRole('button', { name: 'Take back: shield by mistake' }).click();
  await expect(item(page, 'Opened', 'by mistake')).toHaveCount(0);
  await expect(page.getByText('4 screws are out')).toBeVisible();

  await page.goto(`/jobs/${id}/release`);
  const closing = page.getByRole('list', { name: 'Closing' }).getByRole('listitem');
  await expect(closing).toHaveText([/plug in J3/, /snap in 2 × left edge/, /drive in 4 × under the feet/]);
  for (const back of ['plug in J3', 'snap in 2 × left edge'])
    await page.getByRole('button', { name: `${back}: it is back` }).click();
  await expect(page.getByText('4 screws still out')).toBeVisible();
  await page.goto(`/record/${id}`);
  await expect(page.getByText('4 not back in')).toBeVisible();
  await page.goto(`/jobs/${id}/release`);
  await page.getByRole('button', { name: 'drive in 4 × under the feet: it is back' }).click();
  await expect(page.getByText('no screw left over')).toBeVisible();

  // the same model again: as it was opened last
  await fresh(page, 'Rattles too');
  await tab(page, 'Intake', 'Opening');
  await expect(page.getByText(/As in No\. \d+/)).toBeVisible();
  await page.getByRole('button', { name: 'screws under the feet: it is off' }).click();
  await expect(item(page, 'Opened', 'under the feet')).toContainText('4 ×');
  await expect(page.getByRole('button', { name: 'screws under the feet: it is off' })).toHaveCount(0);
});

test('damage marked with the pen on the board and on a photo: found and ours stay apart', async ({ page }) => {
  const id = await fresh(page, 'Was wet');
  const photo = await page.screenshot();
  await page.getByLabel('Add photos, before').setInputFiles({ name: 'a.png', mimeType: 'image/png', buffer: photo });
  await expect(page.getByRole('img', { name: 'before, 1' })).toBeVisible();
  await tab(page, 'Intake', 'Damage');
  const form = page.getByRole('form', { name: 'Damage to mark' });
  await form.getByRole('button', { name: 'Mark it' }).click();
  await expect(page.getByRole('alert')).toContainText('Click the place on the board');

  const stroke = async (on: Locator, from: [number, number], to: [number, number]) => {
    const box = await on.boundingBox();
    if (!box) throw new Error('nothing to draw on');
    await page.mouse.move(box.x + from[0] * box.width, box.y + from[1] * box.height);
    await page.mouse.down();
    await page.mouse.move(box.x + to[0] * box.width, box.y + to[1] * box.height, { steps: 8 });
    await page.mouse.up();
  };
  await choose(form.getByLabel('Kind of damage'), 'corrosion');
  await form.getByLabel('Note').fill('green edge');
  await form.getByRole('button', { name: 'Pen' }).click();
  await stroke(page.getByRole('application'), [0.4, 0.4], [0.5, 0.45]);
  await stroke(page.getByRole('application'), [0.5, 0.45], [0.45, 0.55]);
  await form.getByRole('button', { name: 'Last stroke off' }).click();
  await form.getByRole('button', { name: 'Mark it' }).click();
  await expect(item(page, 'Damage', 'green edge')).toContainText('◇ found');
  await expect(page.locator('svg polyline')).toHaveCount(1);
  await expect(page.getByText('1 corrosion')).toBeVisible();

  await choose(form.getByLabel('Kind of damage'), 'molten plastic');
  await form.getByRole('button', { name: '▲ ours' }).click();
  await choose(form.getByLabel('Photo'), 'photo 1, before');
  await stroke(page.getByRole('img', { name: 'Draw round the damage' }), [0.2, 0.2], [0.6, 0.5]);
  await form.getByRole('button', { name: 'Mark it' }).click();
  await expect(item(page, 'Damage', 'molten plastic on a photo')).toContainText('▲ ours');

  await page.goto(`/record/${id}`);
  await expect(page.getByText(/found: corrosion at .*: green edge/)).toBeVisible();
  await expect(page.getByText('ours: molten plastic on a photo')).toBeVisible();
  await page.goto(`/jobs/${id}/intake`);
  await tab(page, 'Intake', 'Damage');
  await page.getByRole('button', { name: /^Take back: corrosion/ }).click();
  await expect(item(page, 'Damage', 'green edge')).toHaveCount(0);
});

test('tried before the work: complaint, functions by kind of device, a start-up against a good unit, proof', async ({
  page,
}) => {
  const id = await fresh(page, 'Grey, then dark');
  await record(page, id, { type: 'power-gone', sourceId: 'battery', how: 'pulled' });
  await record(page, id, { type: 'power-gone', sourceId: 'cell', how: 'out' });
  await page.reload();
  await tab(page, 'Intake', 'Tried');
  await page.getByLabel('What was seen').fill('only below 10 °C');
  await page
    .getByRole('group', { name: 'The complaint, tried here' })
    .getByRole('button', { name: 'seen otherwise' })
    .click();
  await choose(page.getByLabel('Kind of device'), 'display or instrument');
  await page.getByRole('button', { name: 'List them' }).click();
  const before = page.getByRole('list', { name: 'Functions before the work' });
  await expect(before.getByRole('listitem')).toHaveCount(7);
  await before.getByRole('listitem', { name: 'buttons' }).getByRole('button', { name: 'works' }).click();
  await before.getByRole('listitem', { name: 'backlight' }).getByRole('button', { name: 'dead' }).click();

  const log = page.getByRole('form', { name: 'Stage of the start-up' });
  const stage = async (s: string, volts: string, limit: string, current: string) => {
    for (const [n, value] of [s, volts, limit, current].entries())
      await log
        .locator('input')
        .nth(n + 1)
        .fill(value);
    await log.getByRole('button', { name: 'Log' }).click();
  };
  await stage('0', '36', 'none', '4m');
  await expect(page.getByRole('alert')).toContainText('Current limit: a number');
  await stage('0', '36', '.25', '4m');
  await expect(item(page, 'Stages', 'connected')).toContainText('as a good unit');
  await stage('3', '36', '.25', '180m');
  await expect(item(page, 'Stages', 'switched on')).toContainText('too much');
  await expect(page.getByRole('status').filter({ hasText: 'Too much at “switched on”' })).toContainText(
    '3 × a good unit',
  );
  await expect(page.getByRole('img', { name: /Current over .* a good unit: connected/ })).toBeVisible();
  await page.getByRole('button', { name: 'it can only be measured' }).click();
  await expect(page.getByText('At Verify the readings decide')).toBeVisible();

  // a start-up is power on the board
  await page.goto(`/jobs/${id}/protect`);
  await expect(page.getByText(/started on the bench supply/).first()).toBeVisible();
  await page.goto(`/jobs/${id}/verify`);
  await expect(page.getByText('can only be measured: the readings decide')).toBeVisible();
  const after = page.getByRole('list', { name: 'Functions after the work' });
  await expect(after.getByRole('listitem', { name: 'buttons' })).toContainText('before: works');

  // what this unit draws becomes a good unit's, for the next one
  await page.goto(`/jobs/${id}/intake`);
  await tab(page, 'Intake', 'Tried');
  await page.getByLabel('Which good unit').fill('the new one');
  await page.getByRole('button', { name: 'This was a good unit' }).click();
  await expect(item(page, 'Stages', 'switched on')).toContainText('as a good unit');
});

test('offered in tiers, taken, promised; what does not pay is declined with its reason', async ({ page }) => {
  const id = await fresh(page, 'Cracked and dark');
  await record(page, id, { type: 'onset', events: ['liquid'] });
  await page.reload();
  await tab(page, 'Intake', 'Offer');
  const form = page.getByRole('form', { name: 'Offer' });
  const [minutes, parts, attempts] = [1, 2, 3].map((n) =>
    form.getByRole('group', { name: 'Tier 1' }).locator('input').nth(n),
  );
  await minutes.fill('60');
  await parts.fill('4,50');
  await attempts.fill('0');
  await form.getByRole('button', { name: 'Offer it' }).click();
  await expect(page.getByRole('alert')).toContainText('1 to 20 attempts');
  await attempts.fill('1.5');
  // 54 an hour, 60 min and 0.6 of that for half an attempt more: 78 min, 70.20 and parts
  await expect(form.getByRole('group', { name: 'Tier 1' })).toContainText('€75.00');
  await form.locator('input').last().fill('100');
  await expect(form.getByRole('group', { name: 'Tier 1' })).toContainText('does not pay, 75 %');
  await form.getByRole('button', { name: 'Offer it' }).click();
  await expect(page.getByText('Waits for an answer.')).toBeVisible();
  await form.getByRole('group', { name: 'Tier 1' }).getByRole('button', { name: 'take it' }).click();
  await expect(page.getByText('Taken: the one part.')).toBeVisible();
  const warranty = page.getByRole('form', { name: 'Warranty' });
  await expect(warranty.locator('textarea')).toHaveValue(/corrosion that shows later/);
  await warranty.getByRole('button', { name: 'Promise' }).click();
  await expect(page.getByText('Promised, and on the record.')).toBeVisible();

  const decline = page.getByRole('form', { name: 'Decline' });
  await decline.getByRole('button', { name: 'Decline' }).click();
  await expect(page.getByRole('alert')).toContainText('Choose why');
  await choose(decline.getByLabel('Why it is declined'), 'too much damage');
  await decline.getByLabel('Reason in words').fill('glass is gone');
  await decline.getByRole('button', { name: 'Decline' }).click();
  await page.waitForURL('**/release');
  await expect(page.getByRole('heading', { name: 'Released: declined' })).toBeVisible();
  await page.goto(`/record/${id}`);
  await expect(page.getByText('declined, too much damage: glass is gone', { exact: false })).toBeVisible();
  await expect(page.getByText('the one part €75.00')).toBeVisible();
  await expect(page.getByText(/^1 months on the parts renewed/)).toBeVisible();
});

test('a bare board that can only be measured: readings, a verdict, no hands', async ({ page }) => {
  const href = await openJob(page, 'Drive trips at once', 'diagnose');
  const own = page.getByRole('form', { name: 'Reading', exact: true });
  await own.getByLabel('Measured at').fill('C4.2');
  await own.getByLabel('Reads, Ω').fill('70M');
  await page.keyboard.press('Enter');
  await expect(page.getByText('More than 60 MΩ shows as OL')).toBeVisible();
  await own.getByLabel('Reads, Ω').fill('3k5');
  await own.getByLabel('Good board, Ω').fill('3k6');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /C4\.2/ })).toContainText('as good');
  // nothing in between asks for anything
  await page.goto(href);
  await page.waitForURL('**/release');
  await page.getByLabel('measured').check();
  await page.getByRole('button', { name: 'Release', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Released: measured' })).toBeVisible();
});

test('the same model before: counts at intake, and they weigh in the ranking', async ({ page }) => {
  await openJob(page, 'wet ride', 'intake');
  await tab(page, 'Intake', 'Before');
  await expect(item(page, 'Culprits before', 'C7')).toContainText(/[2-9] of \d/);
  await expect(item(page, 'Companions before', 'D2')).toContainText('with U4');
  await expect(item(page, 'Points that were off before', 'C10.1')).toContainText('mostly with C7');
  const latest = page.getByRole('list', { name: 'Latest jobs' }).getByRole('link');
  await expect(latest).toHaveCount(8);
  const [href] = await latest.evaluateAll((all) => all.map((a) => a.getAttribute('href')));
  await latest.first().click();
  await page.waitForURL(`**${href}/*`);

  await openJob(page, 'wet ride', 'diagnose');
  await expect(suspects(page)).toBeVisible({ timeout: 20_000 });
  // fourteen read alike: the one that it was before comes first
  await expect(suspects(page).locator('.text-base').first()).toHaveText('C7');
});

test('millivolts along the rail single out one of fourteen that read alike', async ({ page }) => {
  const id = await fresh(page, 'Dead, rail low');
  const c7 = { x_mm: 32.6, y_mm: 27.45, side: 'top', partId: 'c7', terminal: '1' };
  await record(page, id, { type: 'power-gone', sourceId: 'battery', how: 'pulled' });
  await record(page, id, { type: 'power-gone', sourceId: 'cell', how: 'out' });
  await record(page, id, { type: 'reading', place: c7, quantity: 'ohm', value: 1.4, good: 2400, powered: false });
  await page.goto(`/jobs/${id}/diagnose`);
  await expect(suspects(page)).toBeVisible({ timeout: 20_000 });
  await tab(page, 'Diagnose', 'Rail');
  const form = page.getByRole('form', { name: 'Millivolt profile' });
  await choose(form.getByRole('combobox').first(), '3V3');
  const mV = (pad: string) => page.getByLabel(`${pad}, millivolts`);
  await mV('C10.1').fill('0');
  await mV('C1.1').fill('12.2');
  await form.getByRole('button', { name: 'Compute the place' }).click();
  await expect(page.getByRole('alert')).toContainText('Three pads at least');
  // as a short in U5 leaves them: the drop ends there, what lies behind reads the same
  for (const [pad, value] of [
    ['C1.1', '4.6'],
    ['C7.1', '4.62'],
    ['C11.1', '4.6'],
    ['C6.1', '4.59'],
    ['U2.1', '4.6'],
    ['R1.1', '4.61'],
    ['U5.8', '4.58'],
  ])
    await mV(pad).fill(value);
  await form.getByRole('button', { name: 'Compute the place' }).click();
  const place = page.getByRole('region', { name: 'Place of the short' });
  await expect(place).toContainText('8 pads', { timeout: 20_000 });
  await expect(place.locator('p.text-xl')).toContainText(/U5.*by millivolts 7\d %/);
  // what the copper says speaks in the ranking too
  await tab(page, 'Diagnose', 'Find');
  await expect(suspects(page)).toContainText(/Suspects\s*U5\s*[34]\d %/, { timeout: 20_000 });
  await tab(page, 'Diagnose', 'Rail');
  await expect(page.getByRole('paragraph').filter({ hasText: 'By warmth:' })).toContainText(
    '0.67 W, about 23 K warmer',
  );
  // a current in the rail is power on the board
  await page.goto(`/jobs/${id}/protect`);
  await expect(page.getByText(/a current was injected/).first()).toBeVisible();
});

test('the shop’s routine is walked, says what is off, is written anew and offered to the whole family', async ({
  page,
}) => {
  await fresh(page, 'Slow to start');
  await page.goto(page.url().replace('/intake', '/diagnose'));
  await tab(page, 'Diagnose', 'Routine');
  const steps = page.getByRole('list', { name: 'Steps of the routine' });
  await page.getByRole('button', { name: 'As it should' }).click();
  await expect(page.getByText('1 of 6')).toBeVisible();
  await page.getByLabel('Reading of step 2').fill('lots');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('alert')).toContainText('A number such as');
  await page.getByLabel('Reading of step 2').fill('410k');
  await page.keyboard.press('Enter');
  await expect(page.getByText('2 of 6')).toBeVisible();
  await page.getByLabel('Reading of step 3').fill('12');
  await page.keyboard.press('Enter');
  await expect(steps.getByRole('listitem').nth(2)).toContainText('▲ off');
  await expect(page.getByRole('status').filter({ hasText: 'Off: 5 V rail' })).toBeVisible();
  // what was read there counts like any other reading
  await tab(page, 'Diagnose', 'Find');
  await expect(page.getByRole('row', { name: /12 Ω/ })).toBeVisible();

  await tab(page, 'Diagnose', 'Routine');
  await page.getByRole('button', { name: 'New', exact: true }).click();
  const form = page.getByRole('form', { name: 'Routine' });
  await form.getByLabel('Name of the routine').fill('Cold start');
  await form.getByRole('button', { name: 'Save the routine' }).click();
  await expect(form.getByRole('alert')).toContainText('one step at least');
  await form.getByLabel('What is done').fill('An hour in the cold box');
  await form.getByRole('button', { name: 'Add the step' }).click();
  await choose(form.getByLabel('Meter on'), 'ohms');
  await form.getByLabel('What is done').fill('3.3 V rail cold');
  await form.getByLabel('Red on').fill('3V3');
  await form.getByLabel('At least').fill('2k');
  await form.getByLabel('At most').fill('1k');
  await form.getByRole('button', { name: 'Add the step' }).click();
  await expect(form.getByRole('alert')).toContainText('The least is above the most');
  await form.getByLabel('At most').fill('4k');
  await form.getByRole('button', { name: 'Add the step' }).click();
  await form.getByLabel('Bramble', { exact: true }).check();
  await form.getByRole('button', { name: 'Save the routine' }).click();
  await expect(page.getByText('0 of 2')).toBeVisible();
  await openJob(page, 'Blank after the frost', 'diagnose');
  await tab(page, 'Diagnose', 'Routine');
  await expect(page.getByText('3.3 V rail cold')).toBeVisible();
  await page.getByRole('button', { name: 'Remove this routine' }).click();
  await expect(page.getByText('No routine for this family yet')).toBeVisible();
});

test('software ruled out, a swap with a good board, two faults weighed together', async ({ page }) => {
  const id = await fresh(page, 'Shows rubbish');
  await page.goto(`/jobs/${id}/diagnose`);
  await expect(suspects(page)).toBeVisible({ timeout: 20_000 });
  await page.getByText('What else speaks').click();
  await page.getByRole('button', { name: 'it can' }).click();
  await expect(suspects(page)).toContainText('software');
  await page.getByLabel('How software was ruled out').fill('its twin runs the same');
  await page.getByRole('button', { name: 'ruled out' }).click();
  await expect(suspects(page)).not.toContainText('software');

  await expect(page.getByRole('button', { name: 'fault went along' })).toBeDisabled();
  await page.getByRole('application').focus();
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('U4');
  await page.keyboard.press('Enter');
  await page.getByRole('button', { name: 'fault went along' }).click();
  await expect(page.getByText('the fault went along with it')).toBeVisible();
  await expect(suspects(page).locator('.text-base').first()).toHaveText('U4');
  await page.getByRole('button', { name: 'Take back: swap of U4' }).click();
  await expect(page.getByText('the fault went along with it')).toHaveCount(0);

  const pair = page.getByRole('form', { name: 'Two faults at once' });
  await pair.getByRole('button', { name: 'Weigh them' }).click();
  await expect(page.getByText('Choose two different parts.')).toBeVisible();
  await choose(pair.getByLabel('First part'), 'C7');
  await choose(pair.getByLabel('Second part'), 'U3');
  await pair.getByRole('button', { name: 'Weigh them' }).click();
  await expect(page.getByText(/C7 \w+ and U3 \w+ together: \d+ %/)).toBeVisible({ timeout: 20_000 });
});
