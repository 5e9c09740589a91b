/** The kit as it is owned: benches listed in a minute, tools with dials of their own, what plans make of them. */
import { expect, type Page } from '@playwright/test';
import { callOff, choose, openTool, planReady, test, watchErrors } from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

const methods = (page: Page) => page.getByRole('radiogroup', { name: 'Methods' });

/** An express job for a part, on a bench. */
async function express(page: Page, part: string, bench: string): Promise<void> {
  await page.goto('/jobs/express');
  await page.getByLabel('Part to take off').fill(part);
  await choose(page.getByLabel('Bench'), bench);
  await expect(page.getByRole('combobox', { name: /station/ })).toHaveCount(0);
}

test('a bench without hot air, listed in a minute: no air is asked for, and what it would take is said', async ({
  page,
}) => {
  const start = Date.now();
  await page.goto('/kit');
  await page.getByRole('button', { name: '+ another bench' }).click();
  const list = page.getByRole('form', { name: 'Add the bench' });
  await list.getByRole('button', { name: 'Add the bench' }).click();
  await expect(list.getByRole('alert')).toContainText('what is it called?');
  await list.getByLabel('Name').fill('stool');
  await choose(list.getByLabel('What is on it'), 'Irons, no hot air');
  await list.getByRole('button', { name: 'Add the bench' }).click();
  await page.getByRole('link', { name: 'stool' }).click();
  const air = page.getByRole('region', { name: 'Air' });
  await expect(air).toContainText('none: what needs it is not offered');
  expect(Date.now() - start).toBeLessThan(60_000);

  await express(page, 'soic 8', 'stool');
  const shown = page.getByRole('complementary', { name: 'The part' });
  await expect(shown.getByText(/^Air, slow: needs hot-air station/)).toBeVisible();
  await page.getByRole('button', { name: 'Plan it' }).click();
  await page.waitForURL('**/plan');
  await planReady(page, 'best');
  await expect(page.getByText('Not on the stool')).toBeVisible();
  await expect(methods(page).getByRole('radio', { name: /Air, slow/ })).toContainText('needs hot-air station');
  // one that is not here is computed on demand, and cannot be used
  await methods(page)
    .getByRole('radio', { name: /Air, slow/ })
    .click();
  await expect(page.locator('[data-shown="Air, slow"]')).toBeVisible({ timeout: 90_000 });
  await expect(methods(page).getByRole('radio', { name: /Air, slow/ })).toContainText(/with it: (works|tight|no);/);
  await expect(page.getByRole('button', { name: 'Use this plan' })).toBeDisabled();
  // nothing from below or to cover with lies there
  await page.getByRole('button', { name: 'Surroundings' }).click();
  await page.getByRole('form', { name: 'Surroundings' }).getByLabel('Under the board').click();
  await expect(page.getByRole('option')).toHaveText(['open air', 'lies on a mat']);
  await page.keyboard.press('Escape');
  // on the other bench it can be
  await choose(page.getByLabel('Bench'), 'full bench');
  await planReady(page, 'best');
  await expect(page.getByText('Not on the', { exact: false })).toHaveCount(0);
});

test('a tool taken off the list can be put back, one out of order is not counted on, a dial speaks its own numbers', async ({
  page,
}) => {
  await page.goto('/kit');
  await (await openTool(page, 'Vacuum iron')).getByRole('button', { name: 'Take off the list' }).click();
  await expect(page.getByText('Vacuum iron is off the list.')).toBeVisible();
  await expect(page.getByRole('button', { name: /^Vacuum iron/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Put it back' }).click();
  await expect(page.getByRole('button', { name: /^Vacuum iron/ })).toBeVisible();

  const tweezers = await openTool(page, 'Hot tweezers');
  await tweezers.getByRole('checkbox', { name: 'Out of order' }).click();
  await tweezers.getByRole('button', { name: 'Save' }).click();
  await expect(tweezers.getByRole('status')).toContainText('out of order, saved');
  const station = await openTool(page, 'Air station, left bench');
  await station.getByLabel('Its dial reads').fill('ten');
  await station.getByRole('button', { name: 'Save' }).click();
  await expect(station.getByRole('alert')).toContainText('1=200 5=350 10=480');
  await station.getByLabel('Its dial reads').fill('1=200 5=350 10=480');
  await station.getByRole('button', { name: 'Save' }).click();
  await expect(station.getByRole('status')).toContainText('saved');
  try {
    await express(page, 'c0805', 'full bench');
    await expect(page.getByText('Hot tweezers: needs hot tweezers')).toBeVisible();
    await page.getByRole('button', { name: 'Plan it' }).click();
    await page.waitForURL('**/plan');
    await planReady(page, 'best');
    // a plan known from before shows its best alone
    const more = page.getByRole('button', { name: 'Look at these too' });
    if (await more.isVisible()) await more.click();
    // 390 °C lies at 6.5 on it
    await expect(methods(page).getByText(/^dial 6\.5, /)).toBeVisible();
    await expect(methods(page).getByRole('radio', { name: /Hot tweezers/ })).toContainText('needs hot tweezers');
  } finally {
    await page.goto('/kit');
    const same = await openTool(page, 'Air station, left bench');
    await same.getByLabel('Its dial reads').fill('');
    await same.getByRole('button', { name: 'Save' }).click();
    await expect(same.getByRole('status')).toContainText('saved');
    const mended = await openTool(page, 'Hot tweezers');
    await mended.getByRole('checkbox', { name: 'Out of order' }).click();
    await mended.getByRole('button', { name: 'Save' }).click();
    await expect(mended.getByRole('status')).toHaveText('saved');
  }
});

test('as last time: part, settings and price in one tap, planned for today’s bench', async ({ page }) => {
  const start = Date.now();
  await page.goto('/jobs/express');
  const list = page.getByRole('list', { name: 'As last time' }).getByRole('listitem');
  await expect(list.first()).toContainText(/No\. \d+/);
  expect(await list.count()).toBeGreaterThan(1);
  await expect(list.filter({ hasText: 'drawer' }).first()).toBeVisible();
  await list.first().getByRole('button').click();
  await page.waitForURL('**/plan**');
  await planReady(page, 'best');
  expect(Date.now() - start).toBeLessThan(60_000);
  await expect(methods(page).getByRole('radio', { checked: true })).toBeVisible();
  await page.getByRole('link', { name: 'Diagnose' }).first().click();
  await expect(page.getByText(/as last time, No\. \d+/).first()).toBeVisible();
});

test('a bench gets another name, and jobs planned for it stay planned', async ({ page }) => {
  await express(page, 'soic 8', 'bare bench');
  await page.getByRole('button', { name: 'Plan it' }).click();
  await page.waitForURL('**/plan');
  await planReady(page, 'best');
  await callOff(page);
  const plan = page.url();
  const rename = async (from: string, to: string) => {
    await page.goto(`/kit?bench=${encodeURIComponent(from)}`);
    await page.getByRole('button', { name: `rename ${from}` }).click();
    await page.getByLabel(`New name of ${from}`).fill(to);
    await page.getByRole('button', { name: 'Rename', exact: true }).click();
  };
  await rename('bare bench', 'full bench');
  await expect(page.getByText('there is a bench of that name')).toBeVisible();
  await rename('bare bench', 'window bench');
  try {
    await page.waitForURL('**/kit?bench=window%20bench');
    await expect(page.getByRole('link', { name: 'window bench' })).toHaveAttribute('aria-current', 'page');
    await page.goto(plan);
    await expect(page.getByLabel('Bench', { exact: true })).toHaveText('window bench');
    await expect(page.getByText('stale')).toHaveCount(0);
  } finally {
    await rename('window bench', 'bare bench');
    await page.waitForURL('**/kit?bench=bare%20bench');
  }
});

test('house rules: what the shop never does is not offered', async ({ page }) => {
  const rule = async () => {
    await page.goto('/settings');
    await page.getByText('Legs cut', { exact: true }).click();
    await page.getByRole('button', { name: 'Save' }).click();
    await expect(page.getByText('saved')).toBeVisible();
  };
  await rule();
  try {
    await express(page, 'soic 8', 'full bench');
    await page.getByRole('button', { name: 'Plan it' }).click();
    await page.waitForURL('**/plan');
    await planReady(page, 'best');
    await expect(methods(page).getByRole('radio', { name: 'Legs cut' })).toHaveCount(0);
    await page.getByRole('button', { name: /^For other parts/ }).click();
    await expect(page.getByText('Legs cut: this shop does not work that way', { exact: false })).toBeVisible();
  } finally {
    await rule();
  }
});
