/** What a plan is computed with besides the tool: heat from below, draught, covers, closing in. */
import { expect, test } from '@playwright/test';
import { newJob, planReady, record, watchErrors } from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

test('surroundings: a preheater melts sooner, covers are kept, taking them away brings the old plan’s inputs back', async ({
  page,
}) => {
  const id = await newJob(page, { board: 'Quillon, 4 layers', complaint: 'switch gets hot' });
  await record(page, id, { type: 'suspect', partId: 'q1', why: 'low' });
  await page.goto(`/jobs/${id}/plan`, { waitUntil: 'networkidle' });
  await planReady(page);
  const besides = page.getByRole('table', { name: 'Besides, until it is off' });
  await expect(besides).toContainText(/Land .*soft/);
  await expect(besides).toContainText('Its body');
  const slow = page.getByRole('radiogroup', { name: 'Methods' }).getByText('Air, slow');
  await slow.click();
  const wet = async () =>
    Number(
      /all wet (\d+) s/.exec(
        (await page
          .getByText(/all wet \d+ s/)
          .first()
          .textContent()) ?? '',
      )?.[1],
    );
  const before = await wet();

  await page.getByRole('button', { name: 'Surroundings' }).click();
  const form = page.getByRole('form', { name: 'Surroundings' });
  await form.locator('select').first().selectOption({ label: 'preheater' });
  await form.locator('input').first().fill('900');
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(form.getByRole('alert')).toContainText('30 to 300');
  await form.locator('input').first().fill('170');
  const covered =
    (await form
      .getByLabel(/^Cover on/)
      .first()
      .getAttribute('aria-label')) ?? '';
  await form.getByLabel(covered).selectOption({ label: 'foil, standing off' });
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await planReady(page);
  await expect(page.getByRole('button', { name: 'Surroundings: preheater, 1 covered' })).toBeVisible();
  await slow.click();
  expect(await wet()).toBeLessThan(before);

  await page.reload();
  await page.getByRole('button', { name: 'Surroundings: preheater, 1 covered' }).click();
  await form.locator('select').first().selectOption({ label: 'open air' });
  await form.getByLabel(covered).selectOption({ label: 'not covered' });
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(page.getByRole('button', { name: 'Surroundings', exact: true })).toBeVisible();
  await planReady(page);
  await slow.click();
  expect(await wet()).toBe(before);

  await page.getByRole('button', { name: 'Change settings' }).click();
  const settings = page.getByRole('form', { name: /Settings of Air, slow/ });
  await settings.getByLabel('Stage 2 from, s').fill('20');
  await settings.getByRole('button', { name: 'Keep these' }).click();
  await expect(settings.getByRole('alert')).toContainText('what changes then');
  await settings.getByLabel('Stage 2 at, mm').fill('8');
  await settings.getByRole('button', { name: 'Keep these' }).click();
  await expect(page.getByText('8 mm from 20 s').first()).toBeVisible();
  await expect(page.getByText(/the inputs changed/)).toBeVisible();
});

test('hot tweezers on a two-ended part: pulses and a lean on the air beside it, corroded joints, metal on it', async ({
  page,
}) => {
  test.setTimeout(120_000);
  const id = await newJob(page, { board: 'Quillon, 4 layers', complaint: 'reads open at the sense resistor' });
  await record(page, id, { type: 'suspect', partId: 'r14', why: 'open' });
  await page.goto(`/jobs/${id}/plan`, { waitUntil: 'networkidle' });
  await planReady(page);
  const methods = page.getByRole('radiogroup', { name: 'Methods' });
  const wet = async () =>
    Number(
      /all wet (\d+) s/.exec(
        (await page
          .getByText(/all wet \d+ s/)
          .first()
          .textContent()) ?? '',
      )?.[1],
    );

  await methods.getByText('Air, fast').click();
  const before = await wet();
  await page.getByRole('button', { name: 'Change settings' }).click();
  const settings = page.getByRole('form', { name: /Settings of Air, fast/ });
  await settings.getByText('Path, stage 2, lean, mouth, pulses').click();
  await settings.getByLabel('Pulses: on, s').fill('2');
  await settings.getByRole('button', { name: 'Keep these' }).click();
  await expect(settings.getByRole('alert')).toContainText('both, or both empty');
  await settings.getByLabel('Pulses: off, s').fill('2');
  await settings.getByLabel('Nozzle leans, °').fill('20');
  await settings.getByRole('button', { name: 'Keep these' }).click();
  await expect(methods.getByText('pulsed, leaning 20°')).toBeVisible();
  await page.keyboard.press('c');
  await planReady(page);
  await methods.getByText('Air, fast').click();
  // half the time without wind
  expect(await wet()).toBeGreaterThan(before * 1.3);

  await methods.getByText('Hot tweezers').click();
  await expect(page.getByRole('heading', { name: /^Hot tweezers: / })).toBeVisible();
  const clean = await wet();
  await page.getByRole('button', { name: 'Surroundings' }).click();
  const form = page.getByRole('form', { name: 'Surroundings' });
  await form.getByLabel('Corroded ones').fill('9');
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(form.getByRole('alert')).toContainText('9');
  await form.getByLabel('Corroded ones').fill('1');
  await form.getByLabel('Their own solder').fill('Bi58Sn42');
  await form.getByLabel('Metal or glue on R14').selectOption({ label: 'clip' });
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(page.getByRole('button', { name: 'Surroundings: 1 with metal or glue, joints' })).toBeVisible();
  await planReady(page);
  await methods.getByText('Hot tweezers').click();
  await page.getByText('Each joint, and where').click();
  const joints = page.getByRole('table', { name: 'Each joint' });
  // eutectic tin-bismuth
  await expect(joints.getByText(/13[89] to 1(38|39|40) °C/).first()).toBeVisible();
  await page.getByRole('button', { name: /^Surroundings: / }).click();
  await form.getByLabel('Their own solder').fill('');
  await form.getByLabel('Metal or glue on R14').selectOption({ label: 'nothing on it' });
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(page.getByRole('button', { name: 'Surroundings: joints', exact: true })).toBeVisible();
  await planReady(page);
  await methods.getByText('Hot tweezers').click();
  // the corroded end takes heat badly and wets slowly
  expect(await wet()).toBeGreaterThan(clean);
  await page.getByRole('button', { name: /^Surroundings: / }).click();
  await form.getByLabel('Corroded ones').fill('');
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(page.getByRole('button', { name: 'Surroundings', exact: true })).toBeVisible();
  await planReady(page);
  await methods.getByText('Hot tweezers').click();
  expect(await wet()).toBe(clean);
  await page.getByRole('button', { name: 'Use this plan' }).click();
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();
});
