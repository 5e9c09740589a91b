// Kills at random, in turn: application, database, supervisor, whole browser; then counts whether anything is lost.
//   node e2e/scripts/crash.mjs [ROUNDS EACH] [VICTIM …]      writes to the demo shop of this clone; it must not be running
// Lost is: an event that was answered with 201, or a mark that the run's page had written down, that is not in the log exactly once when all is
// well again.
import { chromium } from '@playwright/test';
import { spawn } from 'node:child_process';
import { mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';
import { v7 } from 'uuid';
import { alive, freePort, ROOT, wait } from '../../scripts/common.mjs';
import { cluster, dataRoot } from '../../scripts/postgres.mjs';
import { runningApps } from '../../scripts/server.mjs';
import { launchOptions } from '../browser.mjs';

const rounds = Number(process.argv[2] ?? 10);
const all = ['application', 'database', 'supervisor', 'browser'];
const victims = process.argv.length > 3 ? process.argv.slice(3) : all;
const port = await freePort();
const url = `http://127.0.0.1:${port}`;
const origin = url;
const profile = mkdtempSync(join(tmpdir(), 'orthos-crash-'));
const database = cluster(dataRoot());

let supervisor;
function startSupervisor() {
  supervisor = spawn(process.execPath, [join(ROOT, 'scripts/orthos.mjs'), 'demo'], {
    stdio: 'ignore',
    env: { ...process.env, PORT: String(port) },
  });
}
const healthy = () =>
  fetch(`${url}/api/health`, { signal: AbortSignal.timeout(2000) }).then(
    (r) => r.ok,
    () => false,
  );
async function untilHealthy() {
  for (let n = 0; n < 1200; n++) {
    if (await healthy()) return;
    await wait(100);
  }
  throw new Error('it does not come back');
}

/** Processes of the browser with this profile. */
const browserPids = () =>
  readdirSync('/proc').filter((pid) => {
    try {
      return /^\d+$/.test(pid) && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(profile);
    } catch {
      return false;
    }
  });

const post = (path, data, headers = {}) =>
  fetch(url + path, {
    method: 'POST',
    headers: { origin, 'content-type': 'application/json', ...headers },
    body: JSON.stringify(data),
    signal: AbortSignal.timeout(5000),
  });

/** A new job on the first demo board with its power gone, ready to begin. */
async function newJob() {
  const { jobs } = await (await fetch(`${url}/api/find?q=Tern`)).json();
  const [{ id }] = jobs.length ? jobs : (await (await fetch(`${url}/api/find?q=`)).json()).jobs;
  const client = new pg.Client({ connectionString: database.url('orthos_demo') });
  await client.connect();
  const made = v7();
  await client.query(
    `insert into tickets (id, kind, customer_id, board_id, board_version_id, device, complaint)
     select $1, 'repair', t.customer_id, t.board_id, t.board_version_id, 'crash test', 'dead'
     from tickets t join board_versions v on v.id = t.board_version_id
     where v.doc ->> 'name' = 'Tern T2, 2 layers' or t.id = $2 order by (v.doc ->> 'name' = 'Tern T2, 2 layers') desc limit 1`,
    [made, id],
  );
  await client.end();
  for (const body of [
    { type: 'suspect', partId: 'c7', why: 'reads low' },
    { type: 'power-gone', sourceId: 'battery', how: 'pulled' },
    { type: 'power-gone', sourceId: 'cell', how: 'pulled' },
  ]) {
    const answer = await post(`/api/jobs/${made}/events`, { id: v7(), body });
    if (!answer.ok) throw new Error(await answer.text());
  }
  return made;
}

let context;
async function openRun(job) {
  context = await chromium.launchPersistentContext(profile, {
    ...launchOptions,
    viewport: { width: 1280, height: 800 },
  });
  const page = context.pages()[0] ?? (await context.newPage());
  await page.goto(`${url}/run/${job}/remove`);
  await page.locator('h1').first().waitFor({ timeout: 60_000 });
  return page;
}
/** Ids of what the page has written down: waiting or sent. */
const writtenDown = (page, job) =>
  page.evaluate(
    (ticketId) =>
      new Promise((done, fail) => {
        const open = indexedDB.open('orthos-outbox');
        open.onerror = () => fail(open.error);
        open.onsuccess = () => {
          const all = open.result.transaction('entries').objectStore('entries').getAll();
          all.onsuccess = () => {
            open.result.close();
            done(all.result.filter((e) => e.ticketId === ticketId).map((e) => e.id));
          };
        };
      }),
    job,
  );

const counts = {};
let lost = 0;
startSupervisor();
await untilHealthy();
for (let round = 0; round < victims.length * rounds; round++) {
  const what = victims[round % victims.length];
  const job = await newJob();
  let page = await openRun(job);
  await page.locator('[data-kept=true]').waitFor({ timeout: 60_000 });
  const must = new Set();
  const answered = new Set();
  /** Another client: what was answered with 201 has to be there. */
  let talking = true;
  const talk = (async () => {
    while (talking) {
      const id = v7();
      const ok = await post(`/api/jobs/${job}/events`, { id, body: { type: 'observation', text: 'seen' } }).then(
        (r) => r.ok,
        () => false,
      );
      if (ok) {
        must.add(id);
        answered.add(id);
      }
      await wait(20);
    }
  })();
  const killAt = Date.now() + 300 + Math.random() * 1500;
  let killed = false;
  let presses = 0;
  /** Forth and back, so that the run never ends. */
  const press = () => page.keyboard.press(presses++ % 2 === 0 && presses > 1 ? 'Backspace' : ' ', { delay: 5 });
  while (!killed) {
    await press().catch(() => undefined);
    await wait(30 + Math.random() * 120);
    if (Date.now() > killAt - 100) for (const id of await writtenDown(page, job)) must.add(id);
    if (Date.now() < killAt) continue;
    killed = true;
    if (what === 'application') process.kill(runningApps()[0].pid, 'SIGKILL');
    if (what === 'database')
      process.kill(Number(readFileSync(join(database.root, 'pg/postmaster.pid'), 'utf8').split('\n')[0]), 'SIGKILL');
    if (what === 'supervisor') supervisor.kill('SIGKILL');
    if (what === 'browser')
      for (const pid of browserPids()) if (alive(Number(pid))) process.kill(Number(pid), 'SIGKILL');
  }
  if (what !== 'browser') {
    // the hands go on while it is gone
    for (let n = 0; n < 6; n++) {
      await press();
      await wait(100);
    }
    for (const id of await writtenDown(page, job)) must.add(id);
  }
  await wait(300);
  if (what === 'supervisor') {
    // nobody keeps them going now: stopped and started as a person would
    for (const app of runningApps()) process.kill(app.pid, 'SIGKILL');
    startSupervisor();
  }
  talking = false;
  await talk;
  await untilHealthy();
  if (what === 'browser') {
    await context.close().catch(() => undefined);
    await wait(500);
    page = await openRun(job);
  }
  await page.getByRole('status').filter({ hasText: 'marks saved' }).waitFor({ timeout: 60_000 });
  await context.close();
  const client = new pg.Client({ connectionString: database.url('orthos_demo') });
  await client.connect();
  const { rows } = await client.query('select id from job_events where ticket_id = $1', [job]);
  await client.end();
  const there = new Set(rows.map((r) => r.id));
  const missing = [...must].filter((id) => !there.has(id));
  for (const id of missing)
    process.stderr.write(`  ${id}, ${answered.has(id) ? 'answered with 201' : 'written down by the page'}\n`);
  lost += missing.length;
  counts[what] = {
    rounds: (counts[what]?.rounds ?? 0) + 1,
    told: (counts[what]?.told ?? 0) + must.size,
    lost: (counts[what]?.lost ?? 0) + missing.length,
  };
  process.stderr.write(`${round + 1} ${what}: ${must.size} told, ${missing.length} lost\n`);
}
supervisor.kill('SIGTERM');
rmSync(profile, { recursive: true, force: true });
process.stdout.write('| killed | rounds | answered or written down | lost |\n| --- | ---: | ---: | ---: |\n');
for (const [what, c] of Object.entries(counts))
  process.stdout.write(`| ${what} | ${c.rounds} | ${c.told} | ${c.lost} |\n`);
process.exitCode = lost === 0 ? 0 : 1;
