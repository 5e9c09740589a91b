// How much this machine takes: node scripts/load.mjs [JOBS] [ENTRIES PER JOB] [WHAT]   (after a build: ./orthos start or test makes one)
// A demo shop on a throw-away cluster, measured bare and again with JOBS more: marks of runs on many jobs, on one with 2,000 entries and on a board of
// 3,000 parts; lists and pages with twenty readers at once, each after as many to warm up. Times are what a client sees; the client itself shares the
// processors with server and database. WHAT: only lines with these words in their name.
import { randomUUID } from 'node:crypto';
import { rmSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { freePort, say, wait } from './common.mjs';
import { cluster, throwAwayRoot } from './postgres.mjs';
import { startApp, stopApp } from './server.mjs';

const [jobs = 10_000, entries = 42] = process.argv.slice(2, 4).map(Number);
const what = process.argv[4] ?? '';
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

const agent = new Agent({ keepAlive: true, maxSockets: 100 });

/** Calls `act` `total` times, `lanes` at once, as fast as answers come or each when it is due; the times of each, ms. */
async function drive(total, lanes, act, perSecond = Infinity) {
  // while the database was being filled nobody listened: the server has closed connections that seem open here
  agent.destroy();
  const times = [];
  const from = performance.now();
  let next = 0;
  await Promise.all(
    Array.from({ length: lanes }, async (_, lane) => {
      while (next < total) {
        const n = next++;
        const due = from + (1000 * n) / perSecond;
        const early = due - performance.now();
        if (early > 0) await wait(early);
        // who comes late because others did has waited since it was due
        const t0 = perSecond < Infinity ? due : performance.now();
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
  const ask = (path, body) =>
    new Promise((done, failed) => {
      const headers = body
        ? { origin: app.url, 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) }
        : {};
      const asked = request(app.url + path, { agent, method: body ? 'POST' : 'GET', headers }, (answer) => {
        let text = '';
        answer
          .on('data', (part) => (text += part))
          .on('end', () =>
            answer.statusCode < 300 ? done(text) : failed(new Error(`${path}: ${answer.statusCode} ${text}`)),
          );
      });
      asked.on('error', failed).end(body);
    });
  const send = (id, body) => ask(`/api/jobs/${id}/events`, JSON.stringify({ id: v7(), body }));
  const open = (path) => ask(path);
  /** Jobs on the boards of the demo, one each half hour back; one in a hundred still open, the others released and fetched, each with so many entries. */
  const fill = (count, each) =>
    sql(`
      with made as (
        insert into tickets (id, kind, customer_id, board_id, board_version_id, device, complaint, created_at, closed_at)
        select gen_random_uuid(), 'repair', t.customer_id, t.board_id, t.board_version_id, 'bench unit ' || n,
          case when n % 997 = 0 then 'whistles like a kettle' else 'stays dark, number ' || n end,
          now() - n * interval '30 minute', case when n % 100 = 0 then null else now() - n * interval '30 minute' end
        from generate_series(1, ${count}) n
        join lateral (select * from tickets where kind = 'repair' order by number limit 1 offset n % 5) t on true
        returning id, closed_at)
      insert into job_events (id, ticket_id, at, actor, v, body)
      select gen_random_uuid(), made.id, now(), 'unsigned', 1, e.body
      from made, (
        select k, jsonb_build_object('type', 'observation', 'text', 'looked at number ' || k) as body, true as open
        from generate_series(1, ${each - 2}) k
        union all select ${each}, '{"type": "released", "outcome": "repaired", "minutes": 40}', false
        union all select ${each} + 1, '{"type": "handed-over"}', false) e
      where e.open or made.closed_at is not null
      order by made.closed_at, e.k`);
  /** One job of the demo as far as its hands: a plan computed and chosen, a run begun. */
  const begin = async () => {
    const id = sql(`
      select id from tickets where closed_at is null and exists (
        select 1 from job_events e where e.ticket_id = tickets.id and e.body ->> 'type' = 'suspect')
      order by number limit 1`);
    const { ticket, inputs } = JSON.parse(await ask(`/api/jobs/${id}`));
    const board = JSON.parse(sql(`select doc from board_versions where id = '${ticket.boardVersionId}'`));
    const { method } = inputs.methods.find((m) => !m.unfit);
    const { ambient_C, surroundings } = inputs.settings;
    const { target, station, limits } = inputs;
    const asked = {
      board,
      target,
      phases: method.phases,
      as: method.id,
      station,
      ambient_C,
      ...surroundings,
      limits,
      quality: 'search',
      frames: false,
    };
    const result = JSON.parse(await ask('/api/calc/plan.heat', JSON.stringify(asked)));
    const plan = { type: 'plan', planId: v7(), methodId: method.id };
    const run = {
      type: 'run-begun',
      runId: randomUUID(),
      op: 'remove',
      methodId: method.id,
      guide: null,
      offline: false,
      bench: false,
    };
    const text = (value) => `'${JSON.stringify(value).replaceAll("'", "''")}'`;
    sql(`
      insert into plans (id, ticket_id, v, target, input_hash, engine_version, kit, methods, results)
      values ('${plan.planId}', '${id}', 2, '${target}', '${inputs.hash}', 1, ${text(inputs.kit)}, ${text([method])},
        ${text({ [method.id]: result })});
      insert into job_events (id, ticket_id, at, actor, v, body) values
        (gen_random_uuid(), '${id}', now(), 'unsigned', 2, ${text(plan)}),
        (gen_random_uuid(), '${id}', now(), 'unsigned', 2, ${text(run)})`);
    return { id, runId: run.runId };
  };
  /** Jobs like that one, with so many entries more, on its own board or on one of so many parts. */
  const like = ({ id }, count, { entries: more = 0, parts = 0 } = {}) => {
    const version = parts
      ? sql(`
        insert into board_versions (id, model_id, number, hash, doc)
        select gen_random_uuid(), v.model_id, 1000 + ${parts}, 'made', jsonb_set(v.doc, '{parts}', v.doc -> 'parts' || (
          select jsonb_agg(p || jsonb_build_object('partId', 'more' || n, 'ref', 'X' || n))
          from generate_series(1, ${parts}) n, lateral (select v.doc -> 'parts' -> (n % 5) as p) one))
        from board_versions v join tickets t on t.board_version_id = v.id where t.id = '${id}'
        on conflict (model_id, number) do update set hash = 'made' returning id`)
      : '';
    return Array.from({ length: count }, () =>
      sql(`
        with made as (
          insert into tickets (id, kind, customer_id, board_id, board_version_id, device, complaint, plan_settings)
          select gen_random_uuid(), kind, customer_id, board_id, ${version ? `'${version}'` : 'board_version_id'}, device, complaint, plan_settings
          from tickets where id = '${id}' returning id)
        , logged as (
          insert into job_events (id, ticket_id, at, actor, v, body)
          select gen_random_uuid(), made.id, e.at, e.actor, e.v, e.body
          from made, (
            select seq, at, actor, v, body from job_events where ticket_id = '${id}'
            union all select 1000000000 + k, now(), 'unsigned', 1, jsonb_build_object('type', 'observation', 'text', 'looked at number ' || k)
            from generate_series(1, ${more}) k) e
          order by e.seq)
        select id from made`),
    );
  };
  const marks = async (name, jobsOf, total, lanes, perSecond) => {
    if (!name.includes(what)) return;
    const mark = (n, lane) =>
      send(jobsOf[lane % jobsOf.length], { type: 'mark', runId: begun.runId, instruction: `look ${n}`, what: 'done' });
    await drive(total / 4, lanes, mark);
    row(name, await drive(total, lanes, mark, perSecond));
  };
  let begun;
  const measure = async (name) => {
    begun ??= await begin();
    const sixty = like(begun, 60);
    await marks(`${name}: marks in 60 runs`, sixty, 3000, 60);
    await marks(`${name}: marks in 60 runs, 150 a second`, sixty, 2000, 60, 150);
    const [long] = like(begun, 1, { entries: 2000 });
    await marks(`${name}: marks on one job of 2,000 entries`, [long], 800, 4);
    await marks(`${name}: marks on boards of 3,000 parts`, like(begun, 20, { parts: 3000 }), 2000, 20);
    for (const [page, path] of [
      ['on the bench', '/jobs'],
      ['closed jobs, first page', '/jobs?closed=1'],
      ['closed jobs, last page', '/jobs?closed=1&before=200'],
      ['a rare word', '/jobs?closed=1&q=kettle'],
      ['one job, its lay-out', `/jobs/${begun.id}/protect`],
      ['one job of 2,000 entries', `/jobs/${long}/protect`],
    ]) {
      if (!`${name}: ${page}`.includes(what)) continue;
      await drive(200, 1, () => open(path));
      row(`${name}: ${page}`, await drive(400, READERS, () => open(path)));
    }
  };
  try {
    await measure('bare');
    fill(jobs, entries);
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
