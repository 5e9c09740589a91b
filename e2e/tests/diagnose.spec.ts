/** From readings to the convicted part, on the demo's diagnosis tickets. */
import { readFile } from 'node:fs/promises';
import { expect, type Page } from '@playwright/test';
import { choose, newJob, openJob, test, watchErrors } from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

const card = (page: Page) => page.getByRole('form', { name: 'Next reading' });
const suspects = (page: Page) => page.getByRole('region', { name: 'Suspects', exact: true });

/** Readings by hand in the sheet, one mode of the meter at a time. */
async function sheet(page: Page, readings: Record<string, string>, mode = 'ohms'): Promise<void> {
  await page.getByRole('tablist', { name: 'Diagnose' }).getByRole('tab', { name: 'Sheet' }).click();
  await choose(page.getByLabel('Meter on'), mode);
  for (const [net, value] of Object.entries(readings)) {
    const cell = page.getByLabel(net, { exact: true });
    await cell.fill(value);
    await cell.press('Enter');
    await expect(cell).toHaveValue('');
    await expect(cell).toHaveAttribute('placeholder', /\d|OL/);
  }
  await page.getByRole('tablist', { name: 'Diagnose' }).getByRole('tab', { name: 'Find' }).click();
}

test('a regulator that reads healthy and is silent: the meter goes where it is told, U3 is convicted', async ({
  page,
}) => {
  const href = await openJob(page, 'Nothing on the display', 'diagnose');
  await expect(card(page)).toBeVisible({ timeout: 20_000 });
  // no powered reading is offered before the rails have been read
  await expect(suspects(page)).toContainText('Not under power yet');
  await expect(card(page)).not.toContainText('volts');
  const convict = page.getByRole('button', { name: 'Convict U3' });
  for (let n = 0; n < 14; n++) {
    // named alone and nothing against it
    if (await convict.isVisible()) break;
    const before = await page.getByRole('row').count();
    await page.getByRole('application').focus();
    await page.keyboard.press('m');
    await expect(page.getByRole('row')).toHaveCount(before + (n === 0 ? 2 : 1));
    await expect(page.getByText(/^computing faults/)).toHaveCount(0);
  }
  await expect(suspects(page)).toContainText('Power may come on');
  await expect(suspects(page)).toContainText('For: ');
  await convict.click();
  await page.waitForURL(`**${href}/plan`);
  await page.goto(`${href}/diagnose`);
  await expect(page.getByText('Plan for U3')).toBeVisible();
  // the record tells what was ruled out on the way
  await page.goto(href.replace('/jobs/', '/record/'));
  await expect(page.getByText(/to ground, ohms: .*no short: /).first()).toBeVisible();
});

test('a motor output is low by nature and is not called short; the short behind the diode keeps power off', async ({
  page,
}) => {
  await openJob(page, 'leads crossed', 'diagnose');
  await expect(card(page)).toBeVisible({ timeout: 20_000 });
  await sheet(page, { 'MOTA to ground': '.5', 'MOTB to ground': '.6' });
  await expect(suspects(page)).not.toContainText('resting contact');
  await expect(suspects(page)).toContainText('not read in ohms since the last work: 12VIN, 5V, 12V');
  await sheet(page, { '12V to ground': '.6', '5V to ground': '1k1', '12VIN to ground': 'OL' });
  await expect(suspects(page)).toContainText('12V reads 0.6 Ω, where 3.09 kΩ is healthy: find the short first');
  await expect(suspects(page)).not.toContainText('resting contact');
  // reversed supply speaks for the clamp; the technician looks and finds it cracked
  const first = suspects(page).getByRole('button', { name: 'D2', exact: true });
  await expect(first).toBeVisible();
  await first.click();
  await page.getByRole('button', { name: 'Convict D2' }).click();
  await page.waitForURL('**/plan');
});

test('a wrong first suspect stays attempt 1; the clamp on the bus line is attempt 2 and stands out', async ({
  page,
}) => {
  const href = await openJob(page, 'changed U7', 'diagnose');
  await expect(suspects(page)).toBeVisible({ timeout: 20_000 });
  await expect(page.getByText('Attempt 1: U7', { exact: false })).toContainText('Was not it');
  await expect(suspects(page).locator('.text-base').first()).toHaveText('D3');
  await expect(suspects(page)).toContainText('Against:');
  await suspects(page).getByRole('button', { name: 'D3', exact: true }).click();
  await page.getByRole('button', { name: 'Convict D3' }).click();
  await page.waitForURL(`**${href}/plan`);
});

test('a board whose plug went in the wrong way: its first reading keeps power off', async ({ page }) => {
  await openJob(page, 'wrong way', 'diagnose');
  await expect(card(page)).toBeVisible({ timeout: 20_000 });
  await card(page).getByRole('textbox').fill('12,5,3');
  await page.keyboard.press('Enter');
  await expect(card(page).getByRole('alert')).toContainText('A number such as');
  await page.keyboard.press('s');
  await sheet(page, { '36V to ground': '0.8' });
  await expect(suspects(page)).toContainText('36V reads 0.8 Ω');
  await expect(suspects(page)).toContainText('Not under power yet');
  await expect(page.getByRole('region', { name: 'Split the suspects' }).or(card(page))).not.toContainText('volts');
  await suspects(page).getByRole('button', { name: 'D2', exact: true }).click();
  await page
    .getByRole('button', { name: /Convict D2|D2 it is/ })
    .first()
    .click();
  await page.waitForURL('**/plan');
});

test('the tickets that came with readings lead to their part by what was read', async ({ page }) => {
  const convict = async (ref: string) => {
    const part = suspects(page).getByRole('button', { name: ref, exact: true }).first();
    await expect(part).toBeVisible({ timeout: 20_000 });
    await part.click();
    await suspects(page)
      .getByRole('button', { name: new RegExp(`^(Convict ${ref}|Overrule: ${ref} it is)$`) })
      .first()
      .click();
    await page.waitForURL('**/plan');
  };
  // a wet ride: what reads alike is told apart on the board, by the lower ohms of the two places
  await openJob(page, 'dark after a wet ride', 'diagnose');
  await convict('C7');
  // a switch that conducts by itself, three readings round it
  await openJob(page, 'moves backwards', 'diagnose');
  await expect(suspects(page).getByRole('button', { name: 'Convict Q1' })).toBeVisible({ timeout: 20_000 });
  // a supply that the driver makes for itself and the circuit does not say
  await openJob(page, 'Segments missing', 'diagnose');
  await expect(suspects(page)).toBeVisible({ timeout: 20_000 });
  await expect(suspects(page)).not.toContainText('would show about 9.2 V');
  await convict('U1');
  // one line of two low: controller or transceiver, and the technician has lifted what hangs on it
  await openJob(page, 'Memory positions lost', 'diagnose');
  await expect(
    suspects(page)
      .getByText(/U4.*U7/)
      .first(),
  ).toContainText('leaky', { timeout: 20_000 });
  await convict('U4');
});

test('a job without a circuit is solved beside the good board', async ({ page }) => {
  const href = await openJob(page, 'Blank after the frost', 'diagnose');
  const enter = async (where: string, value: string, good: string) => {
    await page.getByLabel('Measured at').fill(where);
    await page.getByLabel('Reads, Ω').fill(value);
    await page.getByLabel('Good board, Ω').fill(good);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('row', { name: new RegExp(where.replace('.', '\\.')) })).toBeVisible();
  };
  await enter('C3.2', '1k9', '2k');
  await enter('U3.2', '1.1', '1k6');
  await enter('C14.1', '.7', '1k6');
  await expect(suspects(page)).toContainText('from good-board readings alone');
  await expect(suspects(page)).toContainText('3V3 reads 0.7 Ω, a good board 1.6 kΩ');
  // what is on 5 V is cleared by its normal reading
  await expect(suspects(page)).not.toContainText('C10');
  await page.getByRole('application').focus();
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('C14');
  await page.keyboard.press('Enter');
  await page.getByLabel('Why C14').fill('lowest on 3V3, 0.7 Ω across it');
  await page.getByRole('button', { name: 'C14 it is', exact: true }).click();
  await page.waitForURL(`**${href}/plan`);
});

test('a circuit begun from a usual one: values, nets, supply, undo, drawing; good boards and CSV beside it', async ({
  page,
}) => {
  const jobId = await newJob(page, { board: 'Weir, 2 layers', complaint: 'relay does not pull' });
  await page.goto(`/jobs/${jobId}/diagnose`);
  const panel = page.getByRole('tablist', { name: 'Diagnose' });
  await panel.getByRole('tab', { name: 'Sheet' }).click();
  await expect(page.getByText('No circuit yet')).toBeVisible();
  await panel.getByRole('tab', { name: 'Circuit' }).click();
  await choose(page.getByLabel('A usual circuit'), 'Relay driver with flyback diode');
  await page.getByRole('button', { name: 'Begin' }).first().click();
  await expect(page.getByRole('button', { name: /^K1/ })).toBeVisible();
  await page.getByRole('button', { name: /^K1/ }).click();
  const form = page.getByRole('form', { name: 'Part K1' });
  await form.getByLabel('Resistance, Ω').fill('much');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(form.getByRole('alert')).toContainText('Resistance, Ω: a number such as 4k7');
  await form.getByLabel('Resistance, Ω').fill('270');
  await form.getByLabel('Pin 2 on').fill('TYPO');
  await form.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText('Only one pin is on TYPO')).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByText('Only one pin is on')).toHaveCount(0);
  const supply = page.getByRole('form', { name: 'Supply' });
  await supply.getByLabel('Net').fill('NOWHERE');
  await supply.getByLabel('Volts').fill('12');
  await supply.getByLabel('Limit, A').fill('500m');
  await supply.getByRole('button', { name: 'Set' }).click();
  await expect(page.getByText('Name the state and a net of the circuit.')).toBeVisible();

  // the drawing and the board know of each other
  await page.getByRole('button', { name: 'Draw it' }).click();
  const drawing = page.getByRole('group', { name: 'Circuit', exact: true });
  await expect(drawing).toBeVisible({ timeout: 20_000 });
  await expect(drawing.getByRole('button', { name: /^K1/ })).toBeVisible();
  await drawing.getByRole('button', { name: /^K1/ }).click();

  // good boards: two units give a spread
  await panel.getByRole('tab', { name: 'Sheet' }).click();
  await page.getByLabel('a good board').check();
  const cell = page.getByLabel('5V to ground', { exact: true });
  await cell.fill('6k1');
  await cell.press('Enter');
  await expect(page.getByText('Say which good board this is')).toBeVisible();
  for (const [unit, value] of [
    ['hall', '6k1'],
    ['attic', '5k7'],
  ]) {
    await page.getByLabel('Which good board').fill(unit);
    await cell.fill(value);
    await cell.press('Enter');
    await expect(cell).toHaveValue('');
  }
  await expect(page.getByRole('row', { name: /5V to ground/ })).toContainText('(2)');
  await page.getByLabel('a good board').uncheck();
  await cell.fill('2,1');
  await cell.press('Enter');
  await expect(page.getByRole('row', { name: /5V to ground/ })).toContainText('too low');

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as CSV' }).click(),
  ]);
  const text = await readFile(await download.path(), 'utf8');
  expect(text).toContain('ohm,5V,GND,,2.1,');
  const upload = async (body: string) =>
    page.getByLabel('Read CSV').setInputFiles({ name: 'bench.csv', mimeType: 'text/csv', buffer: Buffer.from(body) });
  await upload('type,red,value\nohm,12V,lots\n');
  await expect(page.getByText('bench.csv: line 2: value: "lots" is no reading')).toBeVisible();
  await upload('type,red,black,value\nohm,12V,GND,OL\nohm,BASE,GND,10k\n');
  await expect(page.getByText('2 readings stored.')).toBeVisible();
});

test('a simulated meter knows nothing where nothing is hidden; a rail over its nominal keeps power off; a contradiction convicts nobody', async ({
  page,
}) => {
  const jobId = await newJob(page, { board: 'Tern T2, 2 layers', complaint: 'too bright' });
  await page.goto(`/jobs/${jobId}/diagnose`);
  await expect(card(page)).toBeVisible({ timeout: 20_000 });
  await card(page).getByRole('button', { name: 'Meter' }).click();
  await expect(card(page).getByRole('alert')).toContainText('is simulated and knows nothing of this board');
  await expect(page.getByRole('row')).toHaveCount(0);
  await sheet(page, { '36V to ground': '61k', '5V to ground': '4k9', '3V3 to ground': '2k3' });
  await expect(suspects(page)).not.toContainText('find the short first');
  await sheet(page, { '5V to ground': '6.4' }, 'volts, awake');
  await expect(suspects(page)).toContainText('5V was measured at 6.4 V where');
  await expect(suspects(page)).toContainText('Not under power yet');
  // a short beside a diode reading that shows none
  await sheet(page, { '3V3 to ground': '1.2' });
  await sheet(page, { '3V3 to ground': 'OL' }, 'diode mode');
  await expect(suspects(page)).toContainText('the readings fit no single fault');
  await expect(page.getByRole('button', { name: /^Convict/ })).toHaveCount(0);
});

test('nothing is offered that no meter gives: a meter that is not there says so and loses nothing', async ({
  page,
}) => {
  await page.goto('/kit');
  await page.getByRole('button', { name: '+ meter' }).click();
  const form = page.getByRole('form', { name: 'New meter' });
  await form.getByLabel('Name').fill('A far meter');
  await form.getByLabel('Port').fill('99999');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(form.getByRole('alert')).toContainText('1 to 65535');
  await form.getByLabel('Address (SCPI)').fill('127.0.0.1');
  await form.getByLabel('Port').fill('1');
  await form.getByRole('button', { name: 'Save' }).click();
  await expect(page.getByText('saved')).toBeVisible();
  await openJob(page, 'Segments missing', 'diagnose');
  await expect(card(page)).toBeVisible({ timeout: 20_000 });
  await card(page).getByRole('button', { name: 'Meter' }).click();
  await expect(card(page).getByRole('alert')).toContainText('no instrument answers at 127.0.0.1:1');
});
