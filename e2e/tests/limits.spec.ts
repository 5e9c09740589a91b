/** Whose word counts on what a part stands: the table's, the shop's, the part's own papers; and the laminate's kind. In a shop of its own. */
import { expect, type Page } from '@playwright/test';
import { callOff, freshShop, pick, test, usePlan, watchErrors } from './helpers.ts';

/** What the plan of slow air says of the plug beside the target; nothing where there is nothing to say. */
async function plugUnder(page: Page): Promise<string> {
  await pick(page, 'Air, slow');
  const row = page.getByRole('row').filter({ has: page.getByText('J2', { exact: true }) });
  await expect(page.getByText(/^Neighbours (in|until)/)).toBeVisible();
  return (await row.count()) > 0 ? (await row.first().innerText()).replaceAll(/\s+/g, ' ') : '';
}

test('the shop’s limits, a part’s own papers and the kind of laminate reach the plan', async ({ page }) => {
  test.setTimeout(300_000);
  const errors = watchErrors(page);
  const shop = await freshShop();
  try {
    const takeIn = async () => {
      await page.goto(`${shop.origin}/boards`);
      await page.getByRole('link', { name: /Quillon/ }).click();
      await page.getByRole('link', { name: 'New job with this board' }).click();
      await page.getByLabel('Customer').fill('Marla Quay');
      await page.getByLabel('Device').fill('Quillon seat module');
      await page.getByLabel("Complaint, in the owner's words").fill('switch beside the plug');
      await page.getByRole('button', { name: 'Take it in' }).click();
      await page.waitForURL('**/intake');
      await page.goto(page.url().replace('/intake', '/diagnose'));
      await page.keyboard.press('/');
      await page.getByPlaceholder('Go to a place').fill('Q1');
      await page.keyboard.press('Enter');
      await page.getByLabel('Why Q1').fill('short');
      await page.keyboard.press('Enter');
      await page.waitForURL('**/plan');
    };
    await takeIn();
    const job = page.url();
    await usePlan(page, 'Air, slow');
    const before = await plugUnder(page);

    // the shop knows better than the table
    await page.goto(`${shop.origin}/settings`);
    const limits = page.getByLabel('Limits of this shop');
    await limits.fill('unobtainium 70 5');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByText(/unobtainium/).first()).toBeVisible();
    await limits.fill('pbt-gf 60 5');
    await page.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(page.getByText('● saved')).toBeVisible();
    await page.goto(job);
    await expect(page.getByText(/stale|changed/i).first()).toBeVisible();
    await page.keyboard.press('c');
    const strict = await plugUnder(page);
    expect(strict).not.toBe(before);
    expect(strict).toMatch(/hurts/);
    await callOff(page);

    // the plug's own papers win over both; and the board is of another laminate
    await page.goto(`${shop.origin}/boards`);
    await page.getByRole('link', { name: /Quillon/ }).click();
    await page.getByRole('link', { name: 'Edit', exact: true }).click();
    await page.waitForURL('**/edit');
    await page.keyboard.press('/');
    await page.getByPlaceholder('Go to a place').fill('J2');
    await page.keyboard.press('Enter');
    await page.getByRole('tab', { name: 'Parts', exact: true }).click();
    const own = page.getByLabel('Its own papers say: °C, and for how many s');
    await own.fill('9000');
    await own.press('Tab');
    await expect(page.getByText('What it stands: 30 to 500 °C')).toBeVisible();
    await own.fill('280 120');
    await own.press('Tab');
    await page.getByRole('tab', { name: 'Board', exact: true }).click();
    const laminate = page.getByLabel('Laminate');
    await laminate.click();
    await page.getByRole('option', { selected: false }).first().click();
    await page.getByRole('button', { name: 'Publish as version 2' }).click();
    await page.waitForURL(/\/boards\/[0-9a-f-]+$/);
    await takeIn();
    const lenient = await plugUnder(page);
    expect(lenient).not.toMatch(/hurts/);
    // the job that began before keeps its board
    await page.goto(job);
    expect(await plugUnder(page)).toBe(strict);
    expect(errors).toEqual([]);
  } finally {
    await shop.close();
  }
});
