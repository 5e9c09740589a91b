/** Five things a newcomer wants in the first minutes, without the README; what each costs in presses and characters is in docs/first-minutes.md. */
import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { expect, type Locator, type Page } from '@playwright/test';
import { choose, freshShop, test, watchErrors } from './helpers.ts';

/** A hand that counts. */
class Hand {
  presses = 0;
  characters = 0;
  readonly page: Page;
  constructor(page: Page) {
    this.page = page;
  }
  async click(target: Locator): Promise<void> {
    this.presses++;
    await target.click();
  }
  async key(name: string): Promise<void> {
    this.presses++;
    await this.page.keyboard.press(name);
  }
  async type(field: Locator, text: string): Promise<void> {
    this.presses++;
    this.characters += text.length;
    await field.fill(text);
  }
  async choose(field: Locator, label: string): Promise<void> {
    this.presses += 2;
    await choose(field, label);
  }
}

const TASKS: [title: string, act: (hand: Hand, page: Page) => Promise<void>][] = [
  [
    'take in a broken board of your own',
    async (hand, page) => {
      await hand.click(page.getByRole('link', { name: 'New job', exact: true }));
      await hand.type(page.getByLabel('Customer'), 'Marla Quay');
      await hand.type(page.getByLabel('Device'), 'Harbour light timer');
      await hand.type(page.getByLabel("Complaint, in the owner's words"), 'dark since the storm');
      await hand.choose(page.getByLabel('Board', { exact: true }), 'not here yet: a name and its size');
      await hand.click(page.getByRole('button', { name: 'Take it in' }));
      await page.waitForURL('**/intake');
      await expect(page.getByText('Nothing is placed on Harbour light timer yet.')).toBeVisible();
    },
  ],
  [
    'know how to heat a part beside plastic',
    async (hand, page) => {
      await hand.click(page.getByRole('link', { name: 'Express job' }));
      await hand.type(page.getByLabel('Part to take off'), 'soic 16');
      // the list that opened has it first
      await expect(page.getByRole('option').first()).toContainText('SOIC-16');
      await hand.key('Enter');
      await hand.choose(page.getByLabel('Nearest plastic'), 'PBT');
      await hand.type(page.getByLabel('Its distance, mm'), '6');
      await hand.click(page.getByRole('button', { name: 'Plan it' }));
      await page.waitForURL('**/plan');
      await expect(page.getByText('What matters most')).toBeVisible({ timeout: 90_000 });
    },
  ],
  [
    'find which of two parts on a rail is short',
    async (hand, page) => {
      await hand.click(page.getByRole('list', { name: 'To begin with' }).getByRole('link').nth(2));
      await page.waitForURL('**/diagnose');
      await hand.click(page.getByRole('tablist', { name: 'Diagnose' }).getByRole('tab', { name: 'Rail' }));
      const form = page.getByRole('form', { name: 'Millivolt profile' });
      // it opens on the rail that reads low
      await expect(form.getByRole('combobox', { name: 'Rail', exact: true })).toHaveText('3V3');
      for (const [pad, mV] of [
        ['C1.1', '4.6'],
        ['C7.1', '4.62'],
        ['U5.8', '4.58'],
        ['U2.1', '4.6'],
        ['C6.1', '4.59'],
      ])
        await hand.type(page.getByLabel(`${pad}, millivolts`), mV);
      await hand.click(form.getByRole('button', { name: 'Compute the place' }));
      await expect(page.getByRole('region', { name: 'Place of the short' })).toContainText(/\d mm/, {
        timeout: 30_000,
      });
      // what was typed stays
      await expect(page.getByLabel('C7.1, millivolts')).toHaveValue('4.62');
    },
  ],
  [
    'know how much alloy a part of 20 pins takes',
    async (hand, page) => {
      await hand.click(page.getByRole('link', { name: 'Calculate' }));
      await hand.click(page.getByRole('link', { name: 'Alloy needed' }));
      await hand.type(page.getByLabel('Joints of a package'), 'soic 20w');
      await hand.key('Enter');
      await expect(page.getByTestId('needed')).toHaveText(/\d+ mg/, { timeout: 20_000 });
    },
  ],
  [
    'print the record of a finished job',
    async (hand, page) => {
      await hand.click(page.getByRole('link', { name: 'Show closed jobs' }));
      await expect(page.getByRole('link', { name: 'Show open jobs' })).toBeVisible();
      await hand.click(page.locator('a.row').first());
      await page.waitForURL('**/release');
      await hand.click(page.getByRole('link', { name: 'The record' }));
      await page.waitForURL('**/record/**');
      await page.evaluate(() => (window.print = () => document.documentElement.setAttribute('data-printed', '')));
      await hand.key('p');
      await expect(page.locator('html[data-printed]')).toBeAttached();
    },
  ],
];

test('the first five minutes work without a word of help', async ({ page }) => {
  test.setTimeout(300_000);
  const errors = watchErrors(page);
  const shop = await freshShop();
  const rows: string[] = [];
  try {
    for (const [title, act] of TASKS)
      await test.step(title, async () => {
        const hand = new Hand(page);
        await page.goto(`${shop.origin}/jobs`);
        await act(hand, page);
        rows.push(`| ${title} | ${hand.presses} | ${hand.characters} |`);
      });
    expect(errors).toEqual([]);
  } finally {
    await shop.close();
  }
  const told = readFileSync(fileURLToPath(new URL('../../docs/first-minutes.md', import.meta.url)), 'utf8');
  expect(told.replaceAll(/ +/g, ' ')).toContain(rows.join('\n'));
});
