/** Evidence that settles: from nets to a ranked fault, what the circuit lacks, circuits by hand, currents of a start-up, what was ruled out. */
import { expect, type Page } from '@playwright/test';
import { choose, newJob, openJob, test, watchErrors } from './helpers.ts';

const GANTRY = new URL('../../web/src/lib/server/demo/gantry.kicad_pcb', import.meta.url).pathname;

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

const card = (page: Page) => page.getByRole('form', { name: 'Next reading' });
const suspects = (page: Page) => page.getByRole('region', { name: 'Suspects', exact: true });
const tab = (page: Page, name: string) =>
  page.getByRole('tablist', { name: 'Diagnose' }).getByRole('tab', { name, exact: true }).click();

/** A board of its own out of the gantry's file, so that no other journey finds its circuits. */
async function importBoard(page: Page, name: string): Promise<void> {
  await page.goto('/boards/import');
  await page.locator('input[type=file]').setInputFiles(GANTRY);
  await page.getByLabel('Name of the board').fill(name);
  await page.getByRole('button', { name: 'Accept the board' }).click();
  await page.waitForURL(/boards\/[0-9a-f-]{36}$/);
}

test('from a board file with nets to a ranked rail fault: under a minute and thirty characters', async ({ page }) => {
  const begun = Date.now();
  let typed = 0;
  const type = async (field: ReturnType<Page['getByLabel']>, text: string) => {
    await field.fill(text);
    typed += text.length;
  };
  await importBoard(page, 'Gate B');
  typed += 'Gate B'.length;
  await page.goto('/jobs/new');
  await type(page.getByLabel('Customer'), 'Quay');
  await type(page.getByLabel('Device'), 'drive');
  await type(page.getByLabel("Complaint, in the owner's words"), 'dead');
  await choose(page.getByLabel('Board', { exact: true }), 'Gate B, 6 layers');
  await page.getByRole('button', { name: 'Take it in' }).click();
  await page.waitForURL('**/intake');
  await page.goto(page.url().replace('intake', 'diagnose'));
  await page.getByRole('button', { name: /^3V3/ }).click();
  await expect(card(page)).toBeVisible({ timeout: 20_000 });
  await tab(page, 'Sheet');
  await type(page.getByLabel('3V3 to ground', { exact: true }), '.4');
  await page.getByLabel('3V3 to ground', { exact: true }).press('Enter');
  await tab(page, 'Find');
  await expect(suspects(page)).toContainText('3V3 reads 0.4 Ω', { timeout: 20_000 });
  await expect(suspects(page)).toContainText('C10');
  await expect(suspects(page)).toContainText('find the short first');
  expect(typed).toBeLessThanOrEqual(30);
  expect(Date.now() - begun).toBeLessThan(60_000);

  // the tool for the place on it opens on the rail that reads low
  await tab(page, 'Rail');
  await expect(page.getByRole('combobox', { name: 'Rail', exact: true })).toHaveText('3V3');
  await expect(page.getByRole('list', { name: 'Pads of 3V3' })).toContainText('C10');
});

test('a part that the circuit lacks holds the verdict back until it is taken in', async ({ page }) => {
  await importBoard(page, 'Gate C');
  const jobId = await newJob(page, { board: 'Gate C, 6 layers', complaint: 'no control voltage' });
  await page.goto(`/jobs/${jobId}/diagnose`);
  await tab(page, 'Circuit');
  await page.getByText('Type parts').click();
  await page
    .getByLabel('Parts, one a line')
    .fill('C10 3V3 GND 100n\nU4 VIN=5V OUT=3V3 GND ldo 3.3\nfeed 5V 5 1\nR9 3V3');
  await page.getByRole('button', { name: /Begin with them|Add them/ }).click();
  await expect(page.getByRole('alert')).toContainText('Line 4: R9: 2 nets at least');
  await page.getByLabel('Parts, one a line').fill('C10 3V3 GND 100n\nU4 VIN=5V OUT=3V3 GND ldo 3.3\nfeed 5V 5 1');
  await page.getByRole('button', { name: /Begin with them|Add them/ }).click();
  const beside = page.getByRole('region', { name: 'Not in the circuit' });
  await expect(beside).toContainText('3V3');
  await tab(page, 'Find');
  await expect(card(page)).toBeVisible({ timeout: 20_000 });
  await tab(page, 'Sheet');
  await page.getByLabel('3V3 to ground', { exact: true }).fill('.4');
  await page.getByLabel('3V3 to ground', { exact: true }).press('Enter');
  await tab(page, 'Find');
  await expect(suspects(page)).toContainText('too and are not in this circuit', { timeout: 20_000 });
  await expect(page.getByRole('button', { name: /^Convict/ })).toHaveCount(0);
  await suspects(page)
    .getByRole('button', { name: /^Take in/ })
    .click();
  await expect(suspects(page)).not.toContainText('not in this circuit', { timeout: 20_000 });
  await expect(suspects(page)).toContainText('C11');
  // what it ruled out can be told
  await page.getByText('How it was narrowed down').click();
  await expect(suspects(page).getByRole('listitem').first()).toContainText('3V3 to ground ohms: 0.4 Ω');
});

test('without a circuit the sheet goes by rails and places, against a good board or the twin channel', async ({
  page,
}) => {
  await importBoard(page, 'Gate D');
  const jobId = await newJob(page, { board: 'Gate D, 6 layers', complaint: 'one channel dead' });
  await page.goto(`/jobs/${jobId}/diagnose`);
  await tab(page, 'Sheet');
  const row = (name: string) => page.getByLabel(`${name} to ground`, { exact: true });
  await page.getByLabel('a good board').check();
  await page.getByLabel('Which good board').fill('the hall’s');
  await row('3V3').fill('900');
  await row('3V3').press('Enter');
  await expect(page.getByRole('row', { name: /3V3 to ground/ })).toContainText('900 Ω (1)');
  await page.getByLabel('a good board').uncheck();
  await row('3V3').fill('.4');
  await row('3V3').press('Enter');
  await expect(page.getByRole('row', { name: /3V3 to ground/ })).toContainText('too low');
  // a place that is on no rail
  await page.getByLabel('Net or place').fill('nowhere');
  await page.getByRole('button', { name: 'Add a row' }).click();
  await expect(page.getByText('nowhere: no net and no part of this board')).toBeVisible();
  await page.getByLabel('Net or place').fill('C10.1');
  await page.getByRole('button', { name: 'Add a row' }).click();
  await expect(row('3V3')).toBeFocused();
  await tab(page, 'Find');
  await expect(suspects(page)).toContainText('3V3 reads 0.4 Ω, a good board 900 Ω');
  // the place is known from the good board; of another net the twin channel tells
  const own = page.getByRole('form', { name: 'Reading', exact: true });
  await own.getByLabel('Measured at').fill('C10.1');
  await expect(own).toContainText('Known good: 900 Ω, 1 board');
  const read = async (at: string, ohms: string) => {
    await own.getByLabel('Measured at').fill(at);
    await own.getByLabel('Reads, Ω').fill(ohms);
  };
  await choose(own.getByLabel('beside it stands'), 'twin');
  await read('R2.1', '24');
  await own.getByLabel('Twin, value or place, Ω').fill('R1.1');
  await page.keyboard.press('Enter');
  await expect(own.getByRole('alert')).toContainText('Nothing was read at R1.1 yet');
  await own.getByLabel('Twin, value or place, Ω').fill('');
  await read('R1.1', '1k2');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /R1\.1/ })).toBeVisible();
  await read('R2.1', '24');
  await own.getByLabel('Twin, value or place, Ω').fill('R1.1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('row', { name: /R2\.1/ })).toContainText('1.2 kΩ');
});

test('which board at all is asked before anything is measured; a missing part leads to fitting alone', async ({
  page,
}) => {
  const jobId = await newJob(page, { board: 'Weir, 2 layers', complaint: 'dead as a doornail' });
  await page.goto(`/jobs/${jobId}/diagnose`);
  // eyes before meters, once
  await page.getByRole('button', { name: 'Note it' }).click();
  await expect(page.getByLabel('What you see')).toBeFocused();
  await page.getByRole('button', { name: 'Nothing to see', exact: true }).click();
  await expect(page.getByText('Looked over, both sides: nothing to see.')).toBeVisible();
  await expect(page.getByRole('button', { name: 'Nothing to see', exact: true })).toHaveCount(0);
  const which = page.getByRole('region', { name: 'Which board at all' });
  await which.getByRole('button', { name: 'A good module in its place: fails the same' }).click();
  await expect(which.getByRole('status')).toContainText('Look beside this board');
  await expect(page.getByText('A good module in its place: fails the same. It is not this board alone.')).toBeVisible();
  await page.getByRole('application').focus();
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('C14');
  await page.keyboard.press('Enter');
  await choose(page.getByLabel('Sign'), 'missing');
  await page.getByRole('button', { name: 'Note', exact: true }).click();
  await page.getByLabel('Why C14').fill('it is not there');
  await page.getByRole('button', { name: 'C14 it is', exact: true }).click();
  await page.waitForURL('**/plan');
  await page.goto(`/jobs/${jobId}/diagnose`);
  await expect(page.getByText('nothing comes off')).toBeVisible();
  await expect(page.getByRole('link', { name: 'Make it a fit-only job' })).toBeVisible();
});

test('an IC becomes a regulator: its pins by name, its kind goes along with its class', async ({ page }) => {
  const jobId = await newJob(page, { board: 'Weir, 2 layers', complaint: 'no five volts' });
  await page.goto(`/jobs/${jobId}/diagnose`);
  await tab(page, 'Circuit');
  await page.getByText('Type parts').click();
  await page.getByLabel('Parts, one a line').fill('U9 1=12V 2=GND 3=5V\nC9 5V GND\nfeed 12V 12 1');
  await page.getByRole('button', { name: /Begin with them|Add them/ }).click();
  await page.getByRole('button', { name: /^U9/ }).click();
  const form = page.getByRole('form', { name: 'Part U9' });
  await choose(form.getByLabel('Works as'), 'linear regulator');
  await choose(form.getByLabel('VIN is pin'), '1');
  await choose(form.getByLabel('OUT is pin'), '3');
  await choose(form.getByLabel('GND is pin'), '2');
  await form.getByLabel('Holds, V').fill('5');
  // what is kept comes back with the page; a field filled before that would be lost
  const kept = page.waitForResponse((r) => r.url().includes('/__data.json') && r.request().method() === 'GET');
  await form.getByLabel('Holds, V').press('Enter');
  await kept;
  await form.getByLabel('One more pin').fill('EN');
  await form.getByLabel('on the net').fill('12V');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByLabel('Pin EN on')).toHaveValue('12V');
  await page.getByRole('button', { name: /^U9/ }).click();
  await page.getByRole('button', { name: /^C9/ }).click();
  await choose(page.getByRole('form', { name: 'Part C9' }).locator('#cp-class'), 'clamp diode');
  await expect(page.getByRole('form', { name: 'Part C9' }).getByText('clamp, both ways, as a')).toBeVisible();
});

test('a start-up on the supply of the kit, against a good unit, speaks in the ranking', async ({ page }) => {
  await openJob(page, 'leads crossed', 'diagnose');
  await expect(suspects(page)).toBeVisible({ timeout: 20_000 });
  await tab(page, 'Current');
  await page.getByRole('button', { name: 'Run it on the supply' }).click();
  await expect(page.getByRole('alert')).toContainText('Volts of the supply and its limit first');
  const form = page.getByRole('form', { name: 'Stage of the start-up' });
  await form.getByLabel('V', { exact: true }).fill('12');
  await form.getByLabel('limit A').fill('.5');
  await page.getByRole('button', { name: 'Run it on the supply' }).click();
  await expect(page.getByRole('list', { name: 'Stages' }).getByRole('listitem')).toHaveCount(2, { timeout: 20_000 });
  await expect(page.getByRole('status').filter({ hasText: 'At the limit' })).toContainText('on the supply side');
  await expect(page.getByRole('img', { name: /Current over/ })).toBeVisible();
  await tab(page, 'Find');
  await page.getByText('How it was narrowed down').click();
  await expect(suspects(page)).toContainText('supply current');
});
