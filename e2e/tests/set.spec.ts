/** Parts done together: chosen, ordered, worked through with one pedal, by one hand or two browsers. */
import { expect, type Page } from '@playwright/test';
import { gone, newJob, patient, record, seemsFine, shopOf, test, typeDay, watchErrors } from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

const WEIR = 'Weir, 2 layers';
const set = (page: Page) => page.getByRole('region', { name: 'Set' });
const table = (page: Page) => page.getByRole('grid', { name: 'Parts of the set' });
const order = (page: Page) => page.getByRole('grid', { name: 'Order' });
const heading = (page: Page) => page.locator('h1');
const use = (page: Page) => page.getByRole('button', { name: 'Use this order' });

async function ordered(page: Page): Promise<void> {
  await expect(use(page)).toBeEnabled({ timeout: 120_000 });
}
/** The order of parts as it is shown. */
const names = async (page: Page) =>
  (await order(page).locator('tbody tr td:nth-child(2)').allInnerTexts()).map((t) => t.replace(/^✓ |,.*$/g, ''));

test('fourteen cans: from opening the job to the first can off, in three minutes and under sixty letters', async ({
  page,
}) => {
  const id = await newJob(page, { board: WEIR, complaint: 'cans due after nine years' });
  await record(page, id, gone('mains', 0), gone('bulk', 0));
  await page.goto(`/jobs/${id}/diagnose?set`);
  const begun = Date.now();
  let letters = 0;
  const type = async (label: string, text: string) => {
    letters += text.length;
    await page.getByLabel(label).fill(text);
    await page.getByLabel(label).blur();
  };
  await set(page)
    .getByRole('button', { name: /^14 electrolytics/ })
    .click();
  await expect(table(page).locator('tbody tr')).toHaveCount(14);
  // what is the same thing is said once
  for (const [part, text, all] of [
    ['C9', '220 µF 25 V', 6],
    ['C5', '470 µF 50 V', 4],
    ['C3', '1 mF 35 V', 2],
  ] as const) {
    await table(page)
      .getByRole('row', { name: new RegExp(`^${part} `) })
      .click();
    await type('Goes in instead', text);
    await expect(table(page).getByText(text)).toHaveCount(all);
  }
  await table(page).getByRole('row', { name: /^C1 / }).click();
  await page.getByText('not here yet').click();
  await expect(table(page).getByText('not here yet')).toHaveCount(2);
  await expect(set(page)).toContainText('Not here yet: C1, C2');

  await page.getByRole('link', { name: 'In which order?' }).click();
  await ordered(page);
  await expect(page.getByRole('heading', { level: 2 })).toContainText(/All off: about \d+ min/);
  await expect(page.getByTestId('set-timeline').getByRole('img')).toHaveAttribute('aria-label', /14 steps in/);
  await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();
  const [first, second] = await names(page);

  await page.goto(`/jobs/${id}/protect`);
  for (const box of await page.getByRole('checkbox').all()) if (await box.isVisible()) await box.check();
  await page.keyboard.press('t');
  await page.goto(`/run/${id}/remove`);
  await expect(heading(page)).toHaveText(`Ready to take ${first} off?`);
  await expect(page.getByTestId('set-ready')).toContainText('0 of 14 off');
  await expect(page.getByTestId('set-ready')).toContainText(/Loose after about \d+ s/);
  for (let taps = 0; taps < 30; taps++) {
    await page.keyboard.press('Space');
    await page.waitForTimeout(350);
    if (taps > 3 && (await heading(page).innerText()).startsWith('Ready')) break;
  }
  // the pedal has led on to the next one
  await expect(heading(page)).toHaveText(`Ready to take ${second} off?`);
  await expect(page.getByTestId('set-ready')).toContainText('1 of 14 off');
  expect(Date.now() - begun).toBeLessThan(180_000);
  expect(letters).toBeLessThan(60);

  // back to the one before, and on again
  await page.keyboard.press('Backspace');
  await expect(heading(page)).toHaveText(/finished/);
  await page.goto(`/jobs/${id}/remove`);
  await expect(set(page)).toContainText('1 of 14 off');
  await table(page)
    .getByRole('row', { name: new RegExp(`${second} `) })
    .click();
  await page.keyboard.press('g');
  await expect(table(page).locator('tr[aria-current=step]')).toContainText(second);
});

test('an order is changed by hand and told anew; one by one costs more; nothing is left behind on a change of the set', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const id = await newJob(page, { board: WEIR, complaint: 'three cans and a chip' });
  const items = ['c9', 'c14', 'u2'].map((partId) => ({ partId, side: 'top' }));
  await record(page, id, { type: 'set-parts', items: [...items, { partId: 'c5', side: 'top', after: ['c9'] }] });
  await page.goto(`/jobs/${id}/plan`);
  await ordered(page);
  const before = await names(page);
  expect(before.indexOf('C9')).toBeLessThan(before.indexOf('C5'));
  await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();

  // one that waits for no other, a place further up
  const free = before.filter((name) => !['C9', 'C5'].includes(name)).at(-1) ?? '';
  await order(page)
    .getByRole('row', { name: new RegExp(`\\b${free}\\b`) })
    .click();
  await page.keyboard.press('p');
  await expect(page.getByText(/Changed by hand/)).toBeVisible({ timeout: 60_000 });
  await ordered(page);
  expect(await names(page)).not.toEqual(before);
  await page.keyboard.press('o');
  await expect(page.getByText(/As listed/)).toBeVisible({ timeout: 60_000 });

  // part by part is another order, with lands and new parts in it
  await page.getByText('part by part').click();
  await expect(page.getByRole('heading', { level: 2 })).toContainText(/Part by part: about \d+ min/, {
    timeout: 120_000,
  });
  await expect(order(page).locator('tbody tr')).toHaveCount(12);

  // a part more: the order that is kept no longer has every part
  await record(page, id, { type: 'set-parts', items: [{ partId: 'c12', side: 'top' }] });
  await page.goto(`/jobs/${id}/plan`);
  await expect(page.getByRole('navigation', { name: 'Steps' })).toContainText('put in order');
  await ordered(page);
  expect(await names(page)).toContain('C12');
});

test('two browsers on one set: each field is kept, hands go on where the other left off', async ({ page, browser }) => {
  const id = await newJob(page, { board: WEIR, complaint: 'two at one set' });
  await record(page, id, { type: 'set-parts', items: ['c9', 'c10'].map((partId) => ({ partId, side: 'top' })) });
  const other = patient(await browser.newPage());
  for (const p of [page, other]) {
    await p.goto(`${shopOf(page)}/jobs/${id}/diagnose`);
    await table(p).getByRole('row', { name: /^C9 / }).click();
    await p.getByText('for all 2 like it').click();
  }
  await page.getByLabel('Goes in instead').fill('220 µF 25 V');
  await other.getByLabel('Where it lies').fill('bin 7');
  await Promise.all([page.getByLabel('Goes in instead').blur(), other.getByLabel('Where it lies').blur()]);
  for (const p of [page, other]) {
    const row = table(p).getByRole('row', { name: /^C9 / });
    await expect(row).toContainText('220 µF 25 V');
    await expect(row).toContainText('bin 7');
  }
  // a key drops the picked one, and the other browser sees it go
  await other.getByRole('row', { name: /^C10 / }).click();
  await other.keyboard.press('Delete');
  await expect(table(page).getByRole('row', { name: /^C10 / })).toHaveCount(0);
  await other.close();
});

test('rubbed over, from a net, from a kept list; a board that lost a part says so; axe is content', async ({
  page,
}) => {
  const id = await newJob(page, { board: WEIR, complaint: 'chosen in every way' });
  await page.goto(`/jobs/${id}/diagnose`);
  await page.getByRole('link', { name: 'Several parts together' }).click();
  await expect(set(page)).toBeVisible();
  await page.getByRole('button', { name: 'rub over parts' }).click();
  const stage = page.getByRole('application');
  const box = await stage.boundingBox();
  if (!box) throw new Error('no stage');
  // along the lower half, where the cans stand
  await page.mouse.move(box.x + box.width * 0.3, box.y + box.height * 0.72);
  await page.mouse.down();
  await page.mouse.move(box.x + box.width * 0.8, box.y + box.height * 0.72, { steps: 60 });
  await page.mouse.up();
  await expect(table(page).locator('tbody tr').nth(2)).toBeVisible();
  const rubbed = await table(page).locator('tbody tr').count();
  await page.getByLabel('Keep as a list of Weir').fill('the lower row');
  await page.keyboard.press('Enter');
  await expect(page.getByLabel('From a kept list')).toBeVisible();

  const again = await newJob(page, { board: WEIR, complaint: 'from the list' });
  await page.goto(`/jobs/${again}/diagnose?set`);
  await page.getByLabel('From a kept list').click();
  await page.getByRole('option', { name: /the lower row/ }).click();
  await expect(table(page).locator('tbody tr')).toHaveCount(rubbed);
  await seemsFine(page, 'choosing a set');
  // forgotten, and had back
  await set(page).getByRole('button', { name: 'Kept lists' }).click();
  await set(page).getByRole('button', { name: 'Forget the list the lower row' }).click();
  await expect(set(page)).toContainText('“the lower row” is forgotten.');
  await set(page).getByRole('button', { name: 'Keep it after all' }).click();
  await expect(set(page).getByRole('button', { name: 'Forget the list the lower row' })).toBeVisible();
  await page.goto(`/jobs/${again}/plan`);
  await ordered(page);
  await seemsFine(page, 'the order of a set');
});

test('a job waits for a part until a day, and for an answer that comes with one key', async ({ page }) => {
  const id = await newJob(page, { board: WEIR, complaint: 'waits for two things' });
  await record(
    page,
    id,
    { type: 'set-parts', items: [{ partId: 'c1', side: 'top', missing: true }] },
    {
      ...{ type: 'offer', currency: 'EUR', worth_minor: null },
      tiers: [{ label: 'both cans', minutes: 40, parts_minor: 900, attempts: 1, price_minor: 5900 }],
    },
  );
  await page.goto(`/jobs/${id}/diagnose`);
  const form = set(page).getByRole('form', { name: 'Waits for' });
  await typeDay(form.getByRole('group', { name: 'Should be there' }), '2030-03-04');
  await form.getByRole('button', { name: 'Wait' }).click();
  await expect(set(page)).toContainText('Waits for C1, until 4 Mar 2030');
  await page.goto('/jobs?q=waits+for+two');
  await expect(page.locator('a.row').first()).toContainText('C1, 4 Mar');
  await page.goto(`/jobs/${id}/diagnose`);
  await set(page).getByRole('button', { name: 'It is here' }).click();
  await expect(set(page).getByRole('form', { name: 'Waits for' })).toBeVisible();

  await page.goto(`/jobs/${id}/intake`);
  await page.getByRole('tab', { name: 'Offer' }).click();
  const owner = page.getByRole('region', { name: 'For the owner' });
  await expect(owner.getByRole('textbox')).toHaveValue(/1\. both cans: €59\.00/);
  await page.keyboard.press('m');
  await expect(page.getByText(/Waits for the offer, until/)).toBeVisible();
  await page.keyboard.press('y');
  await expect(page.getByText('Taken: both cans.')).toBeVisible();
  await expect(page.getByText(/Waits for the offer/)).toHaveCount(0);
});
