import { expect, type Page } from '@playwright/test';

/** Opens a demo job by a piece of its complaint; gives its address without the step. */
export async function openJob(page: Page, text: string, step: string): Promise<string> {
  await page.goto(`/jobs?q=${encodeURIComponent(text)}`);
  const href = await page.locator('a.row').first().getAttribute('href');
  if (!href) throw new Error(`no job "${text}"`);
  await page.goto(`${href}/${step}`);
  await expect(page.getByRole('application')).toBeVisible();
  return href;
}

/** Waits until a plan is computed and stored. */
export async function planReady(page: Page): Promise<void> {
  await expect(page.getByRole('button', { name: 'Use this plan' })).toBeEnabled({ timeout: 60_000 });
}

/** Fails the test on any error the browser reports. */
export function watchErrors(page: Page): string[] {
  const errors: string[] = [];
  page.on('pageerror', (e) => errors.push(e.message));
  page.on('console', (m) => {
    // refused requests are answered with a sentence on the page; the browser logs them all the same
    if (m.type() === 'error' && !m.text().startsWith('Failed to load resource')) errors.push(m.text());
  });
  return errors;
}
