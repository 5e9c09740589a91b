import { existsSync } from 'node:fs';
import { CHROMIUM, SHELL } from '../scripts/common.mjs';

/** How Debian's Chromium is started here: no window, no network chatter of its own. */
export const launchOptions = {
  executablePath: existsSync(SHELL) ? SHELL : CHROMIUM,
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
  ],
};
