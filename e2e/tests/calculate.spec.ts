/** The calculators on alloys: one answer each, the case in the address. */
import { expect, test } from '@playwright/test';
import { watchErrors } from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

test('a mixture: what it melts at, its last liquid, its hazards; the address brings the case back', async ({
  page,
}) => {
  await page.goto('/calculate', { waitUntil: 'networkidle' });
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
  await page.goto('/calculate/amount', { waitUntil: 'networkidle' });
  await expect(page.getByTestId('needed')).toHaveText('175 mg', { timeout: 20_000 });
  const needs = page.getByRole('list', { name: 'What each asks for' }).getByRole('listitem');
  await expect(needs).toHaveCount(3);
  await expect(page.getByText('the bead rules')).toBeVisible();
  await expect(page.getByText(/Costs 3 rounds of braid/)).toBeVisible();
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
  await page.goto('/calculate/amount?joint=Sn63Pb37&mg=10&alloy=Bi58Sn42&target=160&mixing=1&rows=&hold=', {
    waitUntil: 'networkidle',
  });
  await expect(page.getByTestId('needed')).toHaveText(/mg/, { timeout: 20_000 });
});

test('rounds of clean-up: lands, legs and holes, and what skipping one leaves', async ({ page }) => {
  await page.goto('/calculate/rounds', { waitUntil: 'networkidle' });
  await expect(page.getByTestId('rounds')).toHaveText('3 rounds');
  await page.getByLabel('Where').selectOption({ label: 'plated holes' });
  await expect(page.getByTestId('rounds')).toHaveText('4 rounds');
  await page.getByLabel('Rounds skipped').fill('1');
  await expect(page.getByRole('paragraph').filter({ hasText: 'After skipping 1:' })).toContainText('× the guide');
  await page.getByLabel('May stay, %').fill('0');
  await expect(page.getByRole('alert')).toContainText('above 0');
  await page.getByLabel('May stay, %').fill('2');
  await expect(page.getByTestId('rounds')).toHaveText('3 rounds');
  await expect(page).toHaveURL(/limit=2/);
});
