// `./orthos test`: all tests, from whatever state the machine is in. Own database cluster, own ports.
import { existsSync, mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { freePort, LOCAL, readJson, ROOT, runAttached, say } from './common.mjs';
import { cluster, throwAwayRoot } from './postgres.mjs';
import { startApp, stopApp } from './server.mjs';
import { prepare } from './setup.mjs';
import { weigh } from './weight.mjs';

const vitest = join(ROOT, 'node_modules/.bin/vitest');
const playwright = join(ROOT, 'node_modules/.bin/playwright');

/** Passed, failed, skipped and passed at the second try, of one runner's JSON report; no report counts as one failure. */
function tally(name, file, code) {
  const report = existsSync(file) ? readJson(file) : undefined;
  let counts;
  if (report?.numTotalTests !== undefined)
    counts = { passed: report.numPassedTests, failed: report.numFailedTests, skipped: report.numPendingTests ?? 0 };
  else if (report?.stats)
    counts = {
      passed: report.stats.expected + report.stats.flaky,
      failed: report.stats.unexpected,
      skipped: report.stats.skipped,
      again: report.stats.flaky,
    };
  else counts = { passed: 0, failed: 1, skipped: 0 };
  // a runner that ends badly with all tests green failed outside of them (a file that does not load, say)
  if (code !== 0 && counts.failed === 0) counts.failed = 1;
  say(
    `${name}: ${counts.passed} passed, ${counts.failed} failed${counts.skipped ? `, ${counts.skipped} skipped` : ''}${counts.again ? `, ${counts.again} of them at the second try` : ''}`,
  );
  return counts;
}

async function vitestIn(workspace, reports, env = {}) {
  const file = join(reports, `${workspace}.json`);
  const args = ['run', '--reporter=dot', '--reporter=json', `--outputFile.json=${file}`];
  const code = await runAttached(vitest, args, {
    cwd: join(ROOT, workspace),
    env: { ...process.env, ...env },
    stdio: ['ignore', 2, 2],
  });
  return tally(workspace, file, code);
}

/** Browsers at once: one waits half of its time. */
const LANES = 2;

/** The browser tests: each lane has an application and a database of its own, and takes the next file when it is done. */
async function browserTests(reports, pg, args) {
  const file = join(reports, 'e2e.json');
  const lanes = [];
  try {
    for (let n = 1; n <= LANES; n++) {
      const databaseUrl = pg.url(`e2e_${n}`);
      pg.createDatabase(`e2e_${n}`);
      const app = await startApp({ port: await freePort(), databaseUrl, env: { ORTHOS_DEMO: '1' } });
      lanes.push({ url: app.url, databaseUrl, pid: app.child.pid });
    }
    const code = await runAttached(playwright, ['test', '--reporter=list,json', ...args], {
      cwd: join(ROOT, 'e2e'),
      env: {
        ...process.env,
        ORTHOS_URL: lanes.map((l) => l.url).join(' '),
        ORTHOS_DATABASE_URL: lanes.map((l) => l.databaseUrl).join(' '),
        PLAYWRIGHT_JSON_OUTPUT_FILE: file,
        ORTHOS_E2E_OUT: join(reports, 'e2e'),
      },
      stdio: ['ignore', 2, 2],
    });
    return tally('e2e', file, code);
  } finally {
    for (const { pid } of lanes) await stopApp({ pid });
  }
}

const minutes = (ms) => `${Math.floor(ms / 60_000)} min ${Math.round((ms % 60_000) / 1000)} s`;

/** Runs everything, or only the named workspaces (core formats instruments web e2e). */
export async function testAll(args) {
  const begun = Date.now();
  const only = args.filter((a) => !a.startsWith('-'));
  const wanted = (name) => only.length === 0 || only.includes(name);
  await prepare({ debian: ['postgresql', 'chromium'], build: 'packages' });
  // beside the tests that do without
  const built = wanted('web') || wanted('e2e') ? prepare({}) : Promise.resolve();
  built.catch(() => {});
  const reports = join(LOCAL, `reports-${process.pid}`);
  mkdirSync(reports, { recursive: true });
  const results = [];
  const root = throwAwayRoot();
  const pg = cluster(root);
  const cleanUp = () => {
    pg.stop();
    rmSync(root, { recursive: true, force: true });
  };
  process.once('SIGINT', () => {
    cleanUp();
    process.exit(130);
  });
  try {
    for (const name of ['core', 'formats', 'instruments'])
      if (wanted(name)) results.push(await vitestIn(name, reports));
    await built;
    if (wanted('web') || wanted('e2e')) await pg.start();
    if (wanted('web')) {
      pg.createDatabase('admin');
      results.push(await vitestIn('web', reports, { TEST_DATABASE_URL: pg.url('admin') }));
    }
    if (wanted('e2e')) {
      const weight = weigh(join(ROOT, 'web/.svelte-kit/output'), say);
      say(`weight of pages: ${weight.passed} passed, ${weight.failed} failed`);
      results.push(weight);
      const options = args.filter((a) => a.startsWith('-'));
      results.push(await browserTests(reports, pg, options));
    }
  } finally {
    cleanUp();
    rmSync(reports, { recursive: true, force: true });
  }
  const sum = (key) => results.reduce((n, r) => n + (r[key] ?? 0), 0);
  const more = (key, words) => (sum(key) ? `, ${sum(key)} ${words}` : '');
  const [skipped, again] = [more('skipped', 'skipped'), more('again', 'of them at the second try')];
  process.stdout.write(
    `${sum('passed')} passed, ${sum('failed')} failed${skipped}${again}, in ${minutes(Date.now() - begun)}\n`,
  );
  return sum('failed') === 0 && sum('passed') > 0 ? 0 : 1;
}
