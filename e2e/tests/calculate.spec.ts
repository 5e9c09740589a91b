/** The calculators on alloys: one answer each, the case in the address. */
import { expect } from '@playwright/test';
import { choose, test, watchErrors } from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

test('a mixture: what it melts at, its last liquid, its hazards; the address brings the case back', async ({
  page,
}) => {
  await page.goto('/calculate');
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('Mixture');
  await page.keyboard.press('Enter');
  await page.waitForURL('**/calculate/mixture*');
  const liquidus = page.getByTestId('liquidus');
  await expect(liquidus).toHaveText('180 °C', { timeout: 20_000 });
  await expect(page.getByText(/17 % freezes only at 9[56] °C/)).toBeVisible();
  await expect(page.getByText('Lead: wash hands')).toBeVisible();
  const form = page.getByRole('form', { name: 'Solders' });
  await form.getByLabel('Solder 2').fill('Bi52,5Kr3');
  await expect(form.getByText('Elements with their percent')).toBeVisible();
  await expect(page.getByRole('alert')).toContainText('Solder 2: a composition');
  await form.getByLabel('Solder 2').fill('Sn63Pb37');
  await form.getByLabel('mg').nth(1).fill('10');
  await expect(liquidus).toHaveText('198 °C', { timeout: 20_000 });
  await form.getByRole('button', { name: 'One less' }).click();
  await expect(page.getByText('217 °C to 220 °C')).toBeVisible({ timeout: 20_000 });
  await expect(page.getByRole('img', { name: /From cold to hot: solidus 21\d °C/ })).toBeVisible();
  await form.getByLabel('Solder 1').fill('Bi50Pb26.7Sn13.3Cd10');
  await expect(form.getByText('Not to be used at the bench')).toBeVisible();
  await expect(page).toHaveURL(/Cd10/);
  await page.reload();
  await expect(page.getByLabel('Solder 1')).toHaveValue('Bi50Pb26.7Sn13.3Cd10');
});

test('the alloy needed: which need rules, what it costs to clean, what cannot be reached', async ({ page }) => {
  await page.goto('/calculate/amount');
  await expect(page.getByTestId('needed')).toHaveText('175 mg', { timeout: 20_000 });
  const needs = page.getByRole('list', { name: 'What each asks for' }).getByRole('listitem');
  await expect(needs).toHaveCount(3);
  await expect(page.getByText('the bead rules')).toBeVisible();
  await expect(page.getByText(/Costs 3 rounds of braid/)).toBeVisible();
  // its chart is drawn out under the pointer, and whole again
  const chart = page
    .getByRole('img')
    .filter({ has: page.locator('clipPath') })
    .first();
  await chart.hover();
  await page.keyboard.down('Control');
  await page.mouse.wheel(0, -400);
  await page.keyboard.up('Control');
  await expect(chart).toContainText('double click: all of it');
  await chart.dblclick();
  await expect(chart).not.toContainText('double click: all of it');
  await page.getByLabel('Rows to bead along, mm').fill('');
  await page.getByLabel('Movable after the heat, s').fill('');
  await expect(page.getByText('the composition rules')).toBeVisible({ timeout: 20_000 });
  await expect(needs).toHaveCount(1);
  await page.getByLabel('Rows to bead along, mm').fill('ten');
  await expect(page.getByRole('alert')).toContainText('lengths in mm');
  await page.getByLabel('Rows to bead along, mm').fill('');
  await page.getByLabel('Alloy to work in').fill('Sn63Pb37');
  await expect(page.getByRole('alert')).toContainText('alone it melts at 183 °C', { timeout: 20_000 });
  await page.getByLabel('Alloy to work in').fill('Bi54Sn26Cd20');
  await expect(page.getByRole('alert')).toContainText('cadmium', { timeout: 20_000 });
  await page.goto('/calculate/amount?joint=Sn63Pb37&mg=10&alloy=Bi58Sn42&target=160&mixing=1&rows=&hold=');
  await expect(page.getByTestId('needed')).toHaveText(/mg/, { timeout: 20_000 });
});

test('a package that is not known blanks the number and says what is near; words in any order are understood', async ({
  page,
}) => {
  await page.goto('/calculate/amount');
  await expect(page.getByTestId('needed')).toHaveText('175 mg', { timeout: 20_000 });
  const field = page.getByLabel('Joints of a package');
  await field.fill('SOIC-20');
  await expect(page.getByTestId('needed')).toHaveCount(0);
  await expect(page.getByRole('alert')).toContainText('There is no package "SOIC-20". Near: SOIC-20W');
  await field.press('Tab');
  await expect(page.getByTestId('needed')).toHaveCount(0);
  await field.fill('qfp 44');
  await field.press('Tab');
  await expect(field).toHaveValue('QFP-44');
  await expect(page.getByTestId('needed')).toHaveText(/mg/, { timeout: 20_000 });
  await page.goto('/calculate/melt');
  await expect(page.getByTestId('melt')).toBeVisible({ timeout: 60_000 });
  await page.getByRole('combobox', { name: 'Package', exact: true }).fill('warp 9');
  await expect(page.getByTestId('melt')).toHaveCount(0);
  await expect(page.getByRole('alert')).toContainText('Near: ');
});

test('the solder of a package fills in milligrams and rows, and weighs with its metal', async ({ page }) => {
  await page.goto('/calculate/amount');
  const mg = page.getByLabel('Solder in all joints, mg');
  await page.getByLabel('Joints of a package').fill('SOIC-16');
  await page.getByLabel('as full as printed, times').fill('2');
  await page.getByLabel('as full as printed, times').press('Tab');
  await expect(page.getByLabel('Rows to bead along, mm')).toHaveValue('9.4 9.4');
  const leadFree = Number(await mg.inputValue());
  expect(leadFree).toBeGreaterThan(1);
  await page.getByLabel('Joints are').fill('Sn63Pb37');
  await page.getByLabel('Joints are').press('Tab');
  // 8.4 against 7.4 g/cm³
  await expect.poll(async () => Number(await mg.inputValue()) / leadFree).toBeCloseTo(1.135, 1);
  await expect(page.getByTestId('needed')).toHaveText(/mg/, { timeout: 20_000 });
});

test('melt time: air, tweezers and a vacuum iron, the field beside it, what is wrong in words', async ({ page }) => {
  await page.goto('/calculate/melt');
  const melt = page.getByTestId('melt');
  await expect(melt).toHaveText(/^\d+ s$/, { timeout: 40_000 });
  await expect(page.getByText(/^Joint \d is last: it lies/)).toBeVisible();
  const picture = (t: number) => page.getByRole('img', { name: `Temperature of the working side ${t} s after` });
  const time = page.getByRole('slider', { name: 'Time since the heat came on, seconds' });
  await expect(page.getByText('8 of 8 joints loose')).toBeVisible();
  await time.focus();
  await page.keyboard.press('Home');
  for (let n = 0; n < 3; n++) await page.keyboard.press('ArrowRight');
  await expect(picture(3)).toBeVisible();
  await expect(page.getByText('0 of 8 joints loose')).toBeVisible();
  await page.getByText('Each joint, and where').click();
  await expect(page.getByRole('table', { name: 'Each joint' }).getByRole('row')).toHaveCount(9);

  // too cool to melt anything
  const seconds = async () => Number.parseInt((await melt.textContent()) ?? '', 10);
  const slow = await seconds();
  await page.getByLabel('Set-point, °C').fill('200');
  await expect(melt).toHaveText('stays solid', { timeout: 40_000 });
  await page.getByLabel('Set-point, °C').fill('470');
  await expect(melt).toHaveText(/^\d+ s$/, { timeout: 40_000 });
  expect(await seconds()).toBeLessThan(slow);
  await page.getByLabel('Set-point, °C').fill('2000');
  await expect(page.getByRole('alert')).toContainText('set_C', { timeout: 40_000 });
  await page.getByLabel('Set-point, °C').fill('hot');
  await expect(page.getByRole('alert')).toContainText('numbers');

  await page.getByLabel('Package').fill('C1206');
  await page.getByLabel('Package').press('Tab');
  await choose(page.getByLabel('Tool'), 'Hot tweezers');
  await expect(melt).toHaveText(/^\d+ s$/, { timeout: 40_000 });
  expect(await seconds()).toBeLessThan(10);
  await page.getByLabel('Package').fill('DIP-8');
  await page.getByLabel('Package').press('Tab');
  await choose(page.getByLabel('Tool'), 'Vacuum iron');
  await expect(page).toHaveURL(/tool=vacuum/);
  await expect(melt).toHaveText(/^\d+ s$/, { timeout: 60_000 });
  await page.reload();
  await expect(page.getByLabel('Package')).toHaveValue('DIP-8');
  await expect(melt).toHaveText(/^\d+ s$/, { timeout: 60_000 });
  // a bookmark from before methods had ids
  await page.goto('/calculate/melt?pkg=DIP-8&tool=Vacuum+iron');
  await expect(page.getByLabel('Tool')).toHaveText('Vacuum iron');
  await page.getByLabel('Package').fill('XYZ-9');
  await expect(page.getByRole('alert')).toContainText('no package "XYZ-9"');
});

test('rounds of clean-up: lands, legs and holes, and what skipping one leaves', async ({ page }) => {
  await page.goto('/calculate/rounds');
  await expect(page.getByTestId('rounds')).toHaveText('4 rounds');
  await choose(page.getByLabel('Where'), 'plated holes');
  await expect(page.getByTestId('rounds')).toHaveText('5 rounds');
  await page.getByLabel('Rounds skipped').fill('1');
  await expect(page.getByRole('paragraph').filter({ hasText: 'After skipping 1:' })).toContainText('× the guide');
  await page.getByLabel('May stay, %').fill('0');
  await expect(page.getByRole('alert')).toContainText('above 0');
  await page.getByLabel('May stay, %').fill('2');
  await expect(page.getByTestId('rounds')).toHaveText('3 rounds');
  await expect(page).toHaveURL(/limit=2/);
});
