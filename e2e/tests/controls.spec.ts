/** Parts of the interface that stand on many pages: a day, words about a control. */
import { expect } from '@playwright/test';
import { newJob, openJob, seemsFine, test, typeDay, watchErrors } from './helpers.ts';

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

test('a day is typed or picked from its month; half of one is told; none is none', async ({ page }) => {
  const id = await newJob(page, { board: 'Tern T2, 2 layers', complaint: 'promised for a day' });
  await page.goto(`/jobs/${id}/intake`);
  await page.getByRole('button', { name: 'Change the ticket' }).click();
  const form = page.getByRole('form', { name: 'Ticket' });
  const day = form.getByRole('group', { name: 'Promised for' });
  const change = page.getByRole('button', { name: 'Change the ticket' });
  const kept = async () => {
    await form.getByRole('button', { name: 'Save' }).click();
    await expect(change).toBeVisible();
    const promised = await page.locator('dt:text-is("Promised") + dd').innerText();
    await change.click();
    return promised;
  };

  // half of it: told once it is left, and again not when it is whole; two numbers of a year are enough
  await day.getByRole('spinbutton').first().click();
  await page.keyboard.type('0403');
  await form.getByLabel('Device').click();
  await expect(form.getByText('a part of it is missing')).toBeVisible();
  await day.getByRole('spinbutton').last().click();
  await page.keyboard.type('31');
  await form.getByLabel('Device').click();
  await expect(form.getByText('a part of it is missing')).toHaveCount(0);
  expect(await kept()).toBe('4 Mar 2031');

  // from its month, by keys: a week later
  await day.getByRole('button', { name: /a month to pick from/ }).click();
  await expect(page.getByRole('grid')).toBeVisible();
  await seemsFine(page, 'the month of a day');
  await page.getByRole('button', { name: 'Tuesday, 4 March 2031' }).focus();
  await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  expect(await kept()).toBe('11 Mar 2031');

  await day.getByRole('button', { name: /a month to pick from/ }).click();
  await page.getByRole('button', { name: 'No day' }).click();
  expect(await kept()).toBe('not promised');

  await typeDay(day, '2030-12-24');
  expect(await kept()).toBe('24 Dec 2030');
});

test('words about a control come to a pointer that rests and to the focus, and go with Escape', async ({ page }) => {
  await openJob(page, 'no answer', 'diagnose');
  const flip = page.getByRole('button', { name: /^Top/ });
  const words = page.getByRole('tooltip', { name: 'Turn the board over (F)' });
  await flip.hover();
  await expect(words).toBeVisible();
  await expect(flip).toHaveAccessibleDescription('Turn the board over (F)');
  await seemsFine(page, 'words about a control');
  await page.mouse.move(4, 4);
  await expect(words).toHaveCount(0);
  // by keys
  await flip.focus();
  await page.keyboard.press('Tab');
  await expect(page.getByRole('tooltip', { name: /^Ruler/ })).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('tooltip')).toHaveCount(0);
});
