/** From bare lands to a part that is on: lands walked on the drawing, ways of putting it on, hands against the hidden bench. */
import { expect, type Page } from '@playwright/test';
import { choose, goOn, hurried, newJob, openRun, record, tap, test, untilShown, watchErrors } from './helpers.ts';

const QUILLON = 'Quillon, 4 layers';
const QUILLON_GONE = [
  { type: 'power-gone', sourceId: 'harness', how: 'pulled' },
  { type: 'power-gone', sourceId: 'bulk', how: 'discharged', residual_V: 0 },
];
const WEIR_GONE = [
  { type: 'power-gone', sourceId: 'mains', how: 'pulled' },
  { type: 'power-gone', sourceId: 'bulk', how: 'discharged', residual_V: 0 },
];
const say = (page: Page) => page.getByRole('heading', { level: 1 });
const ways = (page: Page) => page.getByRole('region', { name: 'How it goes on' });

/** A job whose part is bought and only has to go on. */
async function toFit(page: Page, board: string, partId: string, ...gone: object[]): Promise<string> {
  const id = await newJob(page, { board, complaint: 'fit what is in the bag', kind: 'fit-only' });
  await record(page, id, { type: 'suspect', partId, why: 'in the bag' }, ...gone, {
    type: 'orientation-checked',
    against: ['silkscreen'],
  });
  return id;
}
const way = (page: Page, name: string) => ways(page).getByRole('radio', { name: new RegExp(`^\\W*\\d?\\s*${name}`) });
/** Looks at a way of putting it on; once it is computed in full the others are called off. */
async function lookAt(page: Page, name: string): Promise<void> {
  await way(page, name).click();
  await expect(ways(page)).toHaveAttribute('data-shown', name, { timeout: 120_000 });
  const cancel = ways(page).getByRole('button', { name: 'Cancel' });
  // through meanwhile, there is nothing to call off
  if (await cancel.isVisible()) await cancel.click({ timeout: 2000 }).catch(() => {});
  await expect(cancel).toHaveCount(0);
}

/** Taps through the lands and the placing of U2 on molten ones. */
async function ontoMolten(page: Page): Promise<void> {
  for (const words of [
    'Tin the lands',
    'Flux every land.',
    'Air on at',
    'Air on the lands until all are bright.',
    'Set U2 onto the molten lands.',
  ]) {
    await tap(page);
    // times that are still computed come along
    await expect(say(page)).toContainText(words, { timeout: 90_000 });
  }
}

test.describe.configure({ mode: 'parallel' });
let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

test('lands are walked on the drawing, one key each; a torn one is wired by the netlist; then they are clean', async ({
  page,
}) => {
  const id = await newJob(page, { board: QUILLON, complaint: 'no talk on the bus' });
  await record(page, id, { type: 'suspect', partId: 'u7', why: 'reads low' });
  await page.goto(`/jobs/${id}/prepare`);
  const lands = page.getByRole('region', { name: 'Lands' });
  const sheet = page.getByTestId('land-sheet');
  await expect(lands.getByRole('heading', { name: 'Land 1: what do you see?' })).toBeVisible();
  await expect(sheet).toContainText('0 of 8');
  await page.keyboard.press('s');
  await expect(lands.getByRole('heading', { name: 'Land 2: what do you see?' })).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'land 1: solder left' })).toBeVisible();
  // the rest of its row in one stroke, the other row by the pedal
  await page.keyboard.press('r');
  await expect(sheet).toContainText('4 of 8');
  await page.keyboard.press('PageDown');
  await expect(sheet).toContainText('8 of 8');
  await expect(lands.getByText('All 8 looked at.')).toBeVisible();
  // on a second look one turns out to be torn
  await sheet.getByRole('button', { name: 'land 7: clean' }).click();
  await page.keyboard.press('t');
  const wire = lands.getByRole('group', { name: 'Wire for 7' });
  await expect(wire).toContainText('CANH');
  await expect(wire).toContainText('under 0.3 Ω');
  const gate = page.getByText('1 dirty, 7 torn');
  await expect(gate.first()).toBeVisible();
  await lands.getByRole('button', { name: 'Done' }).click();
  await expect(lands.getByText('✓ one round of braid')).toBeVisible();
  await wire.getByLabel('Ohms of the wire').fill('hot');
  await wire.getByRole('button', { name: 'Laid, soldered, checked' }).click();
  await expect(page.getByRole('alert')).toContainText('End to end');
  await wire.getByLabel('Ohms of the wire').fill('47');
  await wire.getByRole('button', { name: 'Laid, soldered, checked' }).click();
  await expect(page.getByRole('alert')).toContainText('is no wire');
  await wire.getByLabel('Ohms of the wire').fill('0,2');
  await wire.getByRole('button', { name: 'Laid, soldered, checked' }).click();
  await expect(lands.getByText('✓ wire to')).toBeVisible();
  await expect(page.getByText('8 looked at one by one').first()).toBeVisible();
  // turned as the lens has it, and kept after a reload
  await page.keyboard.press('v');
  await expect(sheet).toContainText('turned 90°');
  await page.reload();
  await expect(lands.getByText('✓ wire to')).toBeVisible();
});

test('holes are walked on both faces', async ({ page }) => {
  const id = await newJob(page, { board: 'Weir, 2 layers', complaint: 'restarts when it is hot' });
  await record(page, id, { type: 'suspect', partId: 'c9', why: 'bulged' });
  await page.goto(`/jobs/${id}/prepare`);
  const sheet = page.getByTestId('land-sheet');
  await expect(sheet).toContainText('bottom, mirrored as seen');
  await page.keyboard.press('p');
  await page.keyboard.press(' ');
  await expect(sheet).toContainText('2 of 4');
  await expect(sheet).toContainText('top');
  // two pins are two rows
  await page.keyboard.press('r');
  await page.keyboard.press('r');
  await expect(page.getByText('All 4 looked at.')).toBeVisible();
  await expect(page.getByText('heat through, clear from both faces')).toBeVisible();
});

test('an 0402 that its own air would carry off is refused until its settings change; the way that is chosen is what hands follow', async ({
  page,
}) => {
  test.setTimeout(400_000);
  const id = await toFit(page, QUILLON, 'c25', ...QUILLON_GONE);
  await page.goto(`/jobs/${id}/fit`);
  await expect(page.getByRole('region', { name: 'Set it by' })).toContainText('body to body');
  await lookAt(page, 'Air on tinned lands');
  await expect(ways(page)).toContainText('In flux its own air should leave it where it is.');
  await page.getByRole('button', { name: 'Change settings' }).click();
  const form = page.getByRole('form', { name: 'Settings of Air on tinned lands' });
  await form.getByLabel('Air, L/min', { exact: true }).fill('60');
  await form.getByLabel('Distance, mm', { exact: true }).fill('8');
  await form.getByRole('button', { name: 'Keep these' }).click();
  await expect(ways(page).getByText(/It may fly: start at \d+ mm/)).toBeVisible({ timeout: 120_000 });
  await expect(ways(page).getByText('the air blows it off its lands').first()).toBeVisible({ timeout: 120_000 });
  await lookAt(page, 'One land tinned, then the other');
  await expect(ways(page)).toContainText('1, then 2;');
  await ways(page).getByRole('button', { name: 'Put it on this way' }).click();
  await expect(ways(page).getByRole('button', { name: 'In use' })).toBeVisible();
  await openRun(page, id, 'fit');
  await tap(page);
  await expect(say(page)).toHaveText('Tin one land. The other stays bare.');
});

test('a radial can goes into its holes one by one, against the hidden bench, to its record', async ({ page }) => {
  test.setTimeout(300_000);
  const id = await toFit(page, 'Weir, 2 layers', 'c9', ...WEIR_GONE);
  await hurried(page);
  await openRun(page, id, 'fit');
  await expect(page.getByLabel('How')).toContainText('Hole by hole');
  await page.getByLabel('a hidden bench plays the board').check();
  await expect(page.getByText('computing the times')).toHaveCount(0, { timeout: 60_000 });
  await tap(page);
  await expect(say(page)).toContainText('C9 into its holes.');
  await tap(page);
  await expect(say(page)).toHaveText(/Iron on at \d+ °C\./);
  await tap(page);
  await expect(say(page)).toHaveText('Fill hole by hole, 2 in all.');
  for (const pin of ['1', '2']) {
    await untilShown(page, page.getByText(`Bench: joint ${pin} is through.`));
    await tap(page);
  }
  await expect(say(page)).toHaveText('Iron into its stand.');
  await tap(page);
  await expect(say(page)).toHaveText(/Hold still/);
  await tap(page);
  await tap(page);
  await expect(say(page)).toHaveText('Fit: finished.');
  await page.goto(`/jobs/${id}/fit`);
  await expect(page.getByText('Hole by hole').first()).toBeVisible();
  await page.goto(`/record/${id}`);
  await expect(page.getByText('Hole by hole').first()).toBeVisible();
});

test('set down on molten lands: lands first, then the part with the air on, then held until it is dull', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const id = await toFit(
    page,
    'Tern T2, 2 layers',
    'u2',
    ...['battery', 'cell'].map((sourceId) => ({ type: 'power-gone', sourceId, how: 'pulled' })),
  );
  await openRun(page, id, 'fit');
  await choose(page.getByLabel('How'), 'Set down on molten lands');
  await expect(page.getByText('computing the times')).toHaveCount(0, { timeout: 60_000 });
  await ontoMolten(page);
  await tap(page);
  await expect(page.getByTestId('clock')).toBeVisible();
  await page.keyboard.press('a');
  await expect(say(page)).toContainText('Heat off');
  await tap(page);
  await expect(say(page)).toHaveText(/Hold still \d+ s at least, until it is dull\./);
});

test('a bridge after fitting is touched up in place: fresh flux, joint by joint, counted as a second heat', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const id = await toFit(page, QUILLON, 'u7', ...QUILLON_GONE);
  const runId = '019ac000-0000-4000-8000-0000000000f1';
  await record(
    page,
    id,
    { type: 'run-begun', runId, op: 'fit', methodId: 'fit-joints', guide: null, offline: false, bench: false },
    { type: 'run-ended', runId, outcome: 'finished' },
    { type: 'orientation-checked', against: ['silkscreen'] },
  );
  await page.goto(`/jobs/${id}/verify`);
  await page.getByRole('application').focus();
  await expect(page.getByRole('heading', { name: 'Joint 1: what do you see?' })).toBeVisible();
  await page.keyboard.press('b');
  await page.getByRole('link', { name: 'reheat or touch up in place' }).click();
  await page.waitForURL('**/fit');
  const again = page.getByRole('region', { name: 'Again, in place' });
  await again.getByRole('button', { name: 'Compute the ways' }).click();
  await expect(again.getByText(/Every joint made/).first()).toBeVisible({ timeout: 120_000 });
  await expect(again).toContainText('Every heat counts on its lands and on the part.');
  await again.getByRole('radio', { name: /Touched up in place/ }).click();
  await again.getByRole('button', { name: 'Put it on this way' }).click();
  await expect(again.getByRole('button', { name: 'In use' })).toBeVisible();
  await openRun(page, id, 'fit');
  await expect(page.getByLabel('How')).toContainText('Touched up in place');
  await tap(page);
  await expect(say(page)).toHaveText('Fresh flux all round U7.');
  await tap(page);
  await tap(page);
  await expect(say(page)).toHaveText('Solder joint by joint, 8 in all.');
});

test('a QFN on a fat centre pad sits tilted; given up, with a film on the pad it lies flat; both stand on the record', async ({
  page,
}) => {
  test.setTimeout(400_000);
  const cells = ['battery', 'cell'].map((sourceId) => ({ type: 'power-gone', sourceId, how: 'pulled' }));
  const id = await toFit(page, 'Tern T2, 2 layers', 'u2', ...cells);
  await page.goto(`/jobs/${id}/fit`);
  const padIs = async (share: string) => {
    await way(page, 'Set down on molten lands').click();
    await page.getByRole('button', { name: 'Change settings' }).click();
    const form = page.getByRole('form', { name: 'Settings of Set down on molten lands' });
    await form.getByLabel('on a pad under the body, ×', { exact: true }).fill(share);
    await form.getByRole('button', { name: 'Keep these' }).click();
    await expect(form).toHaveCount(0, { timeout: 30_000 });
    await lookAt(page, 'Set down on molten lands');
  };
  const upToWet = async (again = false) => {
    if (!again) await hurried(page);
    await openRun(page, id, 'fit');
    if (again) await page.keyboard.press('n');
    await page.getByLabel('a hidden bench plays the board').check();
    await choose(page.getByLabel('How'), 'Set down on molten lands');
    await expect(page.getByText('computing the times')).toHaveCount(0, { timeout: 60_000 });
    await ontoMolten(page);
    await tap(page);
    await expect(page.getByTestId('clock')).toBeVisible();
  };
  await padIs('1.5');
  await upToWet();
  await untilShown(page, page.getByText('it sits tilted'));
  await page.keyboard.press('x');
  await page.getByRole('button', { name: /Sits tilted or aside/ }).click();
  await expect(page.getByText('Still liquid: nudge it to its middle.')).toBeVisible();
  await page.getByRole('button', { name: 'Checked, damage found' }).click();
  await page.keyboard.press('x');
  await page.getByRole('button', { name: /Give up here/ }).click();
  await page.goto(`/jobs/${id}/fit`);
  await padIs('0.3');
  await record(page, id, { type: 'orientation-checked', against: ['silkscreen'] });
  await upToWet(true);
  await untilShown(page, page.getByText('it sits flat'));
  await page.keyboard.press('a');
  for (let n = 0; n < 3; n++) await tap(page);
  await expect(say(page)).toHaveText('Fit: finished.');
  await page.goto(`/record/${id}`);
  await expect(page.getByText('Sits tilted or aside').first()).toBeVisible();
  await expect(page.getByText('Set down on molten lands').first()).toBeVisible();
});

test('a small part beside plastic: air would hurt it, one land with an iron does not; the other joint waits until it is through', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const cells = ['battery', 'cell'].map((sourceId) => ({ type: 'power-gone', sourceId, how: 'pulled' }));
  const id = await toFit(page, 'Tern T2, 2 layers', 'c7', ...cells);
  await page.goto(`/jobs/${id}/fit`);
  await lookAt(page, 'One land tinned, then the other');
  await expect(ways(page)).toContainText(/Air on tinned lands.*J3 out first: no limit is safe for it/s);
  await expect(ways(page).getByText('1, then 2;')).toBeVisible({ timeout: 60_000 });
  await ways(page).getByRole('button', { name: 'Put it on this way' }).click();
  await expect(ways(page).getByRole('button', { name: 'In use' })).toBeVisible();
  await hurried(page);
  await openRun(page, id, 'fit');
  await page.getByLabel('a hidden bench plays the board').check();
  await expect(page.getByText('computing the times')).toHaveCount(0, { timeout: 60_000 });
  for (const words of [
    'Tin one land.',
    'Flux every land.',
    'Place C7 on its lands.',
    'Iron on at',
    'Solder joint by joint, 2',
  ]) {
    await tap(page);
    await expect(say(page)).toContainText(words);
  }
  for (const joint of ['1', '2']) {
    await untilShown(page, page.getByText(`Bench: joint ${joint} is through.`));
    await tap(page);
  }
  await expect(say(page)).toHaveText('Iron into its stand.');
  for (let n = 0; n < 3; n++) await tap(page);
  await expect(say(page)).toHaveText('Fit: finished.');
  await page.goto(`/record/${id}`);
  await expect(page.getByText('One land tinned, then the other').first()).toBeVisible();
});

test('a memory that moves keeps its data: read twice before the heat, the same once it is on again; a slipped clip and a spoilt copy are told', async ({
  page,
}) => {
  test.setTimeout(240_000);
  const id = await newJob(page, { board: 'Lodestar, 2 layers', complaint: 'forgets where the window ends' });
  await record(page, id, { type: 'suspect', partId: 'u2', why: 'answers now and then' });
  await page.goto(`/jobs/${id}/protect`);
  const held = page.getByRole('group', { name: 'What U2 holds' });
  await expect(held).toContainText('By its name U2 may hold data');
  await held.getByRole('checkbox', { name: /^data/ }).click();
  await expect(page.getByText('not read yet').first()).toBeVisible();
  const dump = (first: number) => ({
    name: `u2-${first}.bin`,
    mimeType: 'application/octet-stream',
    buffer: Buffer.from(Uint8Array.from({ length: 8192 }, (_, n) => (n === 0 ? first : (n * 7) % 256))),
  });
  const before = page.getByLabel('File that was read, before');
  await before.setInputFiles(dump(1));
  await expect(page.getByText('Read once: take the clip off')).toBeVisible();
  await before.setInputFiles(dump(2));
  await expect(page.getByText('Read until two in a row agree')).toBeVisible();
  await before.setInputFiles(dump(2));
  await expect(page.getByText('Two reads agree: this is the copy.')).toBeVisible();
  const off = '019ac000-0000-4000-8000-0000000000d1';
  const run = { partId: 'u2', op: 'remove', methodId: 'air-slow' };
  await record(
    page,
    id,
    ...['harness', 'bulk'].map((sourceId) => ({ type: 'power-gone', sourceId, how: 'pulled', residual_V: 0 })),
    { type: 'run-begun', runId: off, ...run, guide: null, offline: false, bench: false },
    { type: 'mark', runId: off, instruction: 'lift', what: 'lifted' },
    { type: 'run-ended', runId: off, outcome: 'finished' },
    { type: 'lands-clean', ok: true },
  );
  // on again: which way round, with the netlist's ground
  await page.goto(`/jobs/${id}/fit`);
  await choose(page.getByLabel('Where the part is from'), 'the old one');
  await page.getByLabel('New part, measured').fill('all pins as before');
  await page.getByRole('button', { name: 'Good', exact: true }).click();
  await expect(page.getByText('✓ good').first()).toBeVisible();
  const marks = page.getByRole('group', { name: 'Orientation' });
  await marks.getByRole('radiogroup', { name: 'Mark of the part' }).getByRole('radio', { name: /by 1/ }).click();
  await marks.getByRole('radio', { name: 'land 4' }).click();
  await marks.getByRole('button', { name: 'Checked' }).click();
  await expect(marks.getByText('✓ mark at 1, as continuity').first()).toBeVisible();
  await hurried(page);
  await openRun(page, id, 'fit');
  await page.getByLabel('a hidden bench plays the board').check();
  await choose(page.getByLabel('How'), 'Iron, joint by joint');
  await expect(page.getByText('computing the times')).toHaveCount(0, { timeout: 60_000 });
  for (let n = 0; n < 12 && !(await say(page).innerText()).startsWith('Solder joint by joint'); n++) await goOn(page);
  for (let n = 0; n < 8; n++) {
    await untilShown(page, page.getByText(/Bench: joint \d is through\./));
    await goOn(page);
  }
  for (let n = 0; n < 6 && !(await say(page).innerText()).startsWith('Fit: finished'); n++) await goOn(page);
  await expect(say(page)).toHaveText('Fit: finished.');
  await page.goto(`/jobs/${id}/verify`);
  await expect(page.getByText('data not read since it went on').first()).toBeVisible();
  const after = page.getByLabel('File that was read, after');
  await after.setInputFiles(dump(3));
  await expect(page.getByText('▲ not the same')).toBeVisible();
  await expect(page.getByText('data differs from the copy').first()).toBeVisible();
  await after.setInputFiles(dump(2));
  await expect(page.getByText('✓ the same')).toBeVisible();
  await page.goto(`/record/${id}`);
  await expect(page.getByText(/data read twice alike, .* the same after/)).toBeVisible();
  await expect(page.getByText('mark at 1, as continuity')).toBeVisible();
});
