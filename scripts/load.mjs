// How much this machine takes: node scripts/load.mjs [JOBS] [ENTRIES PER JOB]   (after a build: ./orthos start or test makes one)
// A demo shop on a throw-away cluster, measured bare and again with JOBS more; marks on many jobs and on one long one, and the lists with
// twenty readers at once. Times are what a client sees; the client itself shares the processors with server and database.
import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { freePort, say } from './common.mjs';
import { cluster, throwAwayRoot } from './postgres.mjs';
import { startApp, stopApp } from './server.mjs';

const [jobs = 10_000, entries = 42] = process.argv.slice(2).map(Number);
const READERS = 20;

const root = throwAwayRoot();
const pg = cluster(root);
const sql = (text) => {
  const done = pg.client('psql', ['-d', 'load', '-v', 'ON_ERROR_STOP=1', '-qtAc', text]);
  if (done.status !== 0) throw new Error(done.stderr);
  return done.stdout.trim();
};

/** A key of version 7, made of the time and chance. */
function v7() {
  const time = Date.now().toString(16).padStart(12, '0');
  return `${time.slice(0, 8)}-${time.slice(8)}-7${randomUUID().slice(15)}`;
}

const stats = (times, from) => {
  times.sort((a, b) => a - b);
  const at = (p) => Math.round(times[Math.min(times.length - 1, Math.floor(p * times.length))]);
  return { perSecond: Math.round((times.length / (performance.now() - from)) * 1000), median: at(0.5), p95: at(0.95) };
};

/** Calls `act` `total` times, `lanes` at once; the times of each, ms. */
async function drive(total, lanes, act) {
  const times = [];
  const from = performance.now();
  let next = 0;
  await Promise.all(
    Array.from({ length: lanes }, async (_, lane) => {
      while (next < total) {
        const n = next++;
        const t0 = performance.now();
        await act(n, lane);
        times.push(performance.now() - t0);
      }
    }),
  );
  return stats(times, from);
}

async function main() {
  await pg.start();
  pg.createDatabase('load');
  const app = await startApp({ port: await freePort(), databaseUrl: pg.url('load'), env: { ORTHOS_DEMO: '1' } });
  const rows = [];
  const row = (name, { perSecond, median, p95 }) => rows.push(`| ${name} | ${perSecond} | ${median} | ${p95} |`);
  // the plainest client there is: what it costs itself is missing to the server
  const agent = new Agent({ keepAlive: true, maxSockets: 100 });
  const ask = (path, body) =>
    new Promise((done, failed) => {
      const headers = body ? { origin: app.url, 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) } : {};
      const asked = request(app.url + path, { agent, method: body ? 'POST' : 'GET', headers }, (answer) => {
        answer.resume().on('end', () => (answer.statusCode < 300 ? done() : failed(new Error(`${path}: ${answer.statusCode}`))));
      });
      asked.on('error', failed).end(body);
    });
  const send = (id, body) => ask(`/api/jobs/${id}/events`, JSON.stringify({ id: v7(), body }));
  const open = (path) => ask(path);
  /** New jobs on the boards of the demo, each with so many entries in its log. */
  const fill = (count, each, closed) =>
    sql(`
      with made as (
        insert into tickets (id, kind, customer_id, board_id, board_version_id, device, complaint, created_at, closed_at)
        select gen_random_uuid(), 'repair', t.customer_id, t.board_id, t.board_version_id, 'bench unit ' || n,
          case when n % 997 = 0 then 'whistles like a kettle' else 'stays dark, number ' || n end,
          now() - n * interval '1 minute', ${closed ? "case when n % 20 = 0 then null else now() - n * interval '1 minute' end" : 'null'}
        from generate_series(1, ${count}) n
        join lateral (select * from tickets where kind = 'repair' order by number limit 1 offset n % 5) t on true
        returning id)
      , logged as (
        insert into job_events (id, ticket_id, at, actor, v, body)
        select gen_random_uuid(), made.id, now(), 'unsigned', 1, jsonb_build_object('type', 'observation', 'text', 'looked at number ' || k)
        from made cross join generate_series(1, ${each}) k)
      select string_agg(id::text, ' ') from made`).split(' ');
  const measure = async (name) => {
    const many = fill(60, 20, false);
    row(
      `${name}: marks on 60 jobs`,
      await drive(3000, 60, (n, lane) => send(many[lane], { type: 'observation', text: `mark ${n}` })),
    );
    const [long] = fill(1, 2000, false);
    row(
      `${name}: marks on one job of 2,000`,
      await drive(600, 4, (n) => send(long, { type: 'observation', text: `mark ${n}` })),
    );
    for (const [what, path] of [
      ['open jobs', '/jobs'],
      ['closed jobs, page 1', '/jobs?closed=1'],
      ['closed jobs, page 200', '/jobs?closed=1&before=200'],
      ['a rare word', '/jobs?closed=1&q=kettle'],
      ['one job, its first step', `/jobs/${many[0]}/intake`],
      ['one job of 2,000 entries', `/jobs/${long}/intake`],
    ]) {
      await open(path);
      row(`${name}: ${what}`, await drive(200, READERS, () => open(path)));
    }
  };
  try {
    await measure('bare');
    fill(jobs, entries, true);
    sql('analyze');
    await measure(`${jobs.toLocaleString('en')} jobs`);
  } finally {
    await stopApp({ pid: app.child.pid });
  }
  process.stdout.write(
    `| what | per second | median, ms | p95, ms |\n| --- | ---: | ---: | ---: |\n${rows.join('\n')}\n`,
  );
}

try {
  await main();
} catch (error) {
  say(error.stack);
  process.exitCode = 1;
} finally {
  pg.stop();
  rmSync(root, { recursive: true, force: true });
}
