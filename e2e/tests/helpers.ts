import { expect, type Page } from '@playwright/test';

/** Opens a demo job by a piece of its complaint; gives its address without the step. */
export async function openJob(page: Page, text: string, step: string): Promise<string> {
  await page.goto(`/jobs?q=${encodeURIComponent(text)}`);
  const href = await page.locator('a.row').first().getAttribute('href');
  if (!href) throw new Error(`no job "${text}"`);
  await page.goto(`${href}/${step}`);
  await expect(page.getByRole('application')).toBeVisible();
  // the stage has taken its size: the page is alive and listens to keys
  await page.waitForFunction(
    () => (document.querySelector<HTMLCanvasElement>('[data-testid=stage-parts]')?.width ?? 0) > 301,
  );
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

/** Presses a key until it leads somewhere: a page just loaded may not listen yet. */
export async function pressUntil(page: Page, key: string, url: string): Promise<void> {
  await expect(async () => {
    await page.keyboard.press(key);
    await page.waitForURL(url, { timeout: 1500 });
  }).toPass();
}
