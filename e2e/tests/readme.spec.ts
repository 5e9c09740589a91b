/** The README's walk, item by item: what it says is there is there, in a demo shop that nobody has touched. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, type Page } from '@playwright/test';
import { choose, freshShop, planReady, goOn, tap, test, watchErrors } from './helpers.ts';

/** The numbered items under a heading, as plain words. */
function itemsOf(heading: string): string[] {
  const text = readFileSync(fileURLToPath(new URL('../../README.md', import.meta.url)), 'utf8');
  const [, after = ''] = text.split(`## ${heading}\n`);
  const list = after.split(/\n(?=[A-Z#])/)[0];
  return list
    .split(/\n(?=\d+\. )/)
    .map((item) =>
      item
        .replaceAll(/\s+/g, ' ')
        .replaceAll(/\[([^\]]*)\]\([^)]*\)/g, '$1')
        .replaceAll(/[*_`]/g, ''),
    )
    .map((item) => item.trim())
    .filter((item) => /^\d+\. /.test(item));
}

const say = (page: Page) => page.getByRole('heading', { level: 1 });
const suspects = (page: Page) => page.getByRole('region', { name: 'Suspects', exact: true });
const toStep = async (page: Page, step: string) => {
  await page
    .getByRole('navigation', { name: 'Steps' })
    .getByRole('link', { name: new RegExp(`^${step}`) })
    .click();
  await page.waitForURL(`**/${step.toLowerCase()}`);
};
/** Taps a run to its end. */
async function through(page: Page, name: string): Promise<void> {
  const finished = page.getByText(`${name}: finished.`);
  for (let n = 0; n < 30 && !(await finished.isVisible()); n++) {
    await goOn(page);
  }
  await expect(finished).toBeVisible();
  await tap(page);
}

async function jobs(page: Page): Promise<void> {
  for (const block of ['Hands now', 'Part due', 'To be fetched'])
    await expect(page.getByRole('region', { name: block })).toBeVisible();
  await page
    .getByRole('list', { name: 'To begin with' })
    .getByRole('link', { name: /seat module/ })
    .first()
    .click();
  await page.waitForURL('**/plan');
  await expect(page.getByText('Quillon').first()).toBeVisible();
}

async function roundTheScreen(page: Page): Promise<void> {
  const strip = page.getByRole('navigation', { name: 'Steps' });
  await expect(strip.getByRole('link')).toHaveCount(9);
  // red is what comes next, not everything that is still ahead
  await expect(strip.locator('.text-stop')).toHaveCount(1);
  await toStep(page, 'Diagnose');
  await page.getByRole('application').focus();
  await page.keyboard.press('f');
  await expect(page.getByText(/Quillon, bottom side/)).toBeVisible();
  await page.keyboard.press('f');
  await page.keyboard.press('.');
  await page.keyboard.press(',');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('/');
  await page.getByPlaceholder('Go to a place').fill('Q1');
  await expect(page.getByRole('option', { name: /^Q1 high-side switch/ }).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toHaveCount(0);
}

async function diagnose(page: Page): Promise<void> {
  await expect(suspects(page).locator('.text-base').first()).toHaveText('Q1', { timeout: 30_000 });
  await expect(suspects(page)).toContainText('For: ');
  const next = page.getByRole('form', { name: 'Next reading' });
  await expect(next).toBeVisible();
  const rows = page.getByRole('row');
  const before = await rows.count();
  await page.getByRole('application').focus();
  for (let n = 1; n <= 3; n++) {
    await page.keyboard.press('m');
    await expect(rows).toHaveCount(before + n);
    await expect(page.getByRole('cell', { name: /simulated/ })).toHaveCount(n);
  }
  // what it names is what is hidden, and it goes on naming it
  await expect(suspects(page).locator('.text-base').first()).toHaveText('Q1');
  await expect(page.getByRole('button', { name: /^Convict (?!Q1)/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Convict Q1' }).click();
  await page.waitForURL('**/plan');
}

async function plan(page: Page): Promise<void> {
  await planReady(page);
  const time = page.getByLabel('Time since the heat came on, seconds');
  await page.getByRole('application').focus();
  const before = (await time.getAttribute('aria-valuenow')) ?? '';
  await page.keyboard.press('ArrowLeft');
  await expect(time).not.toHaveAttribute('aria-valuenow', before);
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('s');
  await expect(page.getByRole('button', { name: 'Keep' }).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('button', { name: 'Keep' })).toHaveCount(0);
  // by air: a bead may freeze on a bench that is colder than planned, air goes on until all is wet
  const headline = page.getByRole('heading', { level: 2 }).first();
  for (let n = 0; n < 12 && !(await headline.innerText()).startsWith('Air, fast'); n++) {
    const was = await headline.innerText();
    await page.keyboard.press('ArrowUp');
    await expect(headline).not.toHaveText(was);
  }
  await expect(headline).toContainText('Air, fast');
  await planReady(page, 'best');
  await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();
}

async function protect(page: Page): Promise<void> {
  await toStep(page, 'Protect');
  for (const volts of await page.getByLabel(/^Volts left at/).all()) await volts.fill('0.02');
  const gone = page.getByRole('button', { name: 'Gone', exact: true });
  for (let left = await gone.count(); left > 0; left--) {
    await gone.first().click();
    await expect(gone).toHaveCount(left - 1);
  }
  await expect(page.getByText('every source shown gone').first()).toBeVisible();
  const marks = page.getByRole('checkbox', { name: /^from / });
  await marks.nth(0).check();
  await marks.nth(1).check();
  await page.getByRole('button', { name: 'Target confirmed' }).click();
  await expect(page.getByText('found from 2 landmarks').first()).toBeVisible();
  await page.getByRole('button', { name: 'All as planned' }).click();
  await expect(page.getByText('as planned').first()).toBeVisible();
}

async function remove(page: Page): Promise<void> {
  await toStep(page, 'Remove');
  await page.keyboard.press('b');
  await page.waitForURL('**/run/**/remove');
  await page.getByLabel('a hidden bench plays the board').check();
  await tap(page);
  await expect(page.getByText('step 1 of')).toBeVisible();
  await tap(page);
  await expect(page.getByText('step 2 of')).toBeVisible();
  await page.keyboard.press('Backspace');
  await expect(page.getByText('step 1 of')).toBeVisible();
  for (let n = 0; n < 8 && !(await page.getByTestId('clock').isVisible()); n++) {
    await goOn(page);
  }
  await expect(page.getByText(/Bench: \d+ of \d+ joints shiny/)).toBeVisible();
  await expect(say(page)).not.toContainText(/lift/i);
  await expect(page.getByText('all wet.', { exact: false })).toBeVisible({ timeout: 120_000 });
  await expect(say(page)).not.toContainText(/lift/i);
  await page.keyboard.press('a');
  await expect(say(page)).toContainText(/lift/i);
  await through(page, 'Remove');
}

async function prepareAndFit(page: Page): Promise<void> {
  await page.waitForURL('**/prepare');
  await page.keyboard.press('b');
  await page.waitForURL('**/run/**/prepare');
  await expect(say(page)).toContainText('Ready');
  await through(page, 'Prepare');
  await page.waitForURL('**/fit');
  await page.getByRole('button', { name: 'bad', exact: true }).click();
  await page.getByRole('button', { name: 'came back' }).click();
  await choose(page.getByLabel('Where the part is from'), 'donor board');
  await page.getByLabel('Which drawer, donor or order').fill('scrap module 7');
  await page.getByLabel('New part, measured').fill('D to S open');
  await page.getByRole('button', { name: 'Good', exact: true }).click();
  await expect(page.getByText('✓ good')).toBeVisible();
  for (const of of ['Mark of the part', 'Mark of the board'])
    await page.getByRole('radiogroup', { name: of }).getByRole('radio', { name: 'by 1' }).click();
  await page.getByRole('button', { name: 'Checked', exact: true }).click();
  await expect(page.getByText('✓ mark at 1, as the board’s mark').first()).toBeVisible();
  await page.keyboard.press('b');
  await page.waitForURL('**/run/**/fit');
  await expect(say(page)).toContainText('Ready');
  await through(page, 'Fit');
}

async function verify(page: Page): Promise<void> {
  await page.waitForURL('**/verify');
  await expect(page.getByTestId('land-sheet')).toBeVisible();
  for (let n = 0; n < 3; n++) await page.keyboard.press('g');
  await expect(page.getByText('3 good')).toBeVisible();
  await page.getByRole('tab', { name: /^Push/ }).click();
  await page.getByRole('button', { name: 'Rest are firm' }).click();
  await page.getByRole('tab', { name: /^Measure/ }).click();
  await page.getByRole('button', { name: /^All others/ }).click();
  await page
    .getByRole('button', { name: /the rest as before$/ })
    .or(page.getByRole('button', { name: 'As before', exact: true }))
    .first()
    .click();
  await expect(page.getByText(/neighbours as before|one by one, all as before/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'If it does not work' })).toBeVisible();
  const form = page.getByLabel(/, ohms$/);
  await expect(form.first()).toBeVisible();
  for (const [label, ohm] of [
    ['12 V board alone, ohms', '3k5'],
    ['5 V board alone, ohms', '1k6'],
    ['motor output board alone, ohms', '4k6'],
  ])
    await page
      .getByLabel(label, { exact: true })
      .fill(ohm)
      .then(() => page.keyboard.press('Enter'));
  await expect(page.getByText('no rail is short')).toBeVisible();
  const after = page.getByRole('list', { name: 'Functions after the work' });
  await after.getByRole('button', { name: 'gone', exact: true }).click();
  for (const works of await after.getByRole('button', { name: 'works' }).all()) await works.click();
}

async function release(page: Page): Promise<void> {
  await toStep(page, 'Release');
  await page.getByRole('button', { name: 'Release', exact: true }).click();
  await expect(page.getByRole('heading', { name: 'Released: repaired' })).toBeVisible();
  await page.getByRole('link', { name: 'The record' }).click();
  await page.waitForURL('**/record/**');
  const record = page.getByRole('article');
  await expect(record).toContainText('simulated');
  await expect(record).toContainText('from a donor board, scrap module 7');
  await expect(record).toContainText('bad, the line came back without it');
  await expect(record).toContainText('Complaint');
  await expect(record).toContainText('gone');
  await expect(page.getByRole('row', { name: /all wet/ }).first()).toContainText(/\d+ s.*\d+ s/);
  await expect(page.getByRole('link', { name: 'PDF' })).toBeVisible();
}

/** What every item of the walk says, and doing it. An item without its words here, or words without an item, fails. */
const WALK: [words: string, acts: ((page: Page) => Promise<void>)[]][] = [
  [
    '1. Jobs shows what hands can do now. Open the first job of To begin with, the seat module: the strip on top shows its nine steps, the board stays on the left. F turns it over, ? shows all keys, / finds anything.',
    [jobs, roundTheScreen],
  ],
  [
    '2. Diagnose names Q1 and what speaks for it. Type what the meter shows (4k7, .42, OL) or press M: here a simulated meter answers, and says so. Convict Q1 opens the plan.',
    [diagnose],
  ],
  [
    '3. Plan compares every way of taking the part off on this board, best first as you weigh pads, neighbours, part and minutes: ← → move through time, ↑ ↓ choose the method, U uses it. Protect wants every source gone, two landmarks and the lay-out; only power stops the work.',
    [plan, protect],
  ],
  [
    '4. Remove, Prepare and Fit begin with B; tick a hidden bench plays the board. One key or pedal (Space): a tap goes on, a hold says that something is wrong. Only your own "all wet" (A) turns look now into lift.',
    [remove, prepareAndFit],
  ],
  [
    '5. Verify walks the joints on the drawing (G good, B bridge, O open), then legs, pins, rails before power and functions, and says what to try if it does not work. Release prints the record: predicted against actual, and what was simulated.',
    [verify, release],
  ],
];

test('the README is true word by word, in a shop nobody has touched', async ({ page }) => {
  test.setTimeout(600_000);
  const errors = watchErrors(page);
  const items = itemsOf('A few minutes round the bench');
  expect(items).toEqual(WALK.map(([words]) => words));
  const shop = await freshShop();
  try {
    await page.goto(`${shop.origin}/jobs`);
    for (const [words, acts] of WALK)
      await test.step(words, async () => {
        for (const act of acts) await act(page);
      });
    expect(errors).toEqual([]);
  } finally {
    await shop.close();
  }
});
