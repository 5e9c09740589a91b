// Dispatches `./orthos COMMAND`.
import { existsSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { LOCAL, ROOT, runAttached, say, Trouble } from './common.mjs';

const COMMANDS = {
  demo: 'start with the demo shop (boards, tickets)',
  start: 'start with your own, at first empty, database',
  stop: 'stop what runs of this clone, database included',
  test: 'run all tests',
  check: 'formatting, lint, types, unused code, generated files',
  calc: 'run one calculation: calc NAME [FILE]',
  backup: 'write the database to a file: backup [FILE] [--demo]',
  restore: 'read a backup back: restore FILE --yes [--demo]',
  reset: "throw this clone's databases away: reset --yes",
};

async function serve(name) {
  const { prepare } = await import('./setup.mjs');
  const { cluster, dataRoot } = await import('./postgres.mjs');
  const { choosePort, runningApps, startApp } = await import('./server.mjs');
  const { supervise } = await import('./supervise.mjs');
  const running = runningApps().find((a) => a.name === name);
  if (running) {
    say(`Orthos (${name}) is already running:`);
    process.stdout.write(`${running.url}\n`);
    return 0;
  }
  const external = process.env.DATABASE_URL;
  await prepare({ debian: external ? [] : ['postgresql'] });
  const pg = external ? undefined : cluster(dataRoot());
  const database = name === 'demo' ? 'orthos_demo' : 'orthos';
  let port;
  const start = () =>
    startApp({
      name,
      port,
      databaseUrl: external ?? pg.url(database),
      env: name === 'demo' ? { ORTHOS_DEMO: '1' } : {},
    });
  const keeper = supervise({ start, database: pg });
  let stopping = false;
  const stop = () => {
    stopping = true;
    keeper.stop();
  };
  process.on('SIGINT', stop);
  process.on('SIGTERM', stop);
  process.on('SIGHUP', stop);
  try {
    await pg?.start();
    pg?.createDatabase(database);
    if (stopping) return 0;
    port = await choosePort();
    const app = await start();
    if (stopping) {
      app.child.kill('SIGTERM');
      await app.ended;
      return 0;
    }
    say(pg ? `Data: ${join(pg.root, 'pg')}, database ${database}` : 'Data: where DATABASE_URL says');
    say(`Orthos ${name === 'demo' ? 'demo ' : ''}is ready. Open this address; Ctrl-C stops it.`);
    process.stdout.write(`${app.url}\n`);
    return await keeper.run(app);
  } finally {
    rmSync(join(LOCAL, 'apps', `${name}.json`), { force: true });
    if (runningApps().length === 0) pg?.stop();
    say('Stopped.');
  }
}

async function stopAll() {
  const { cluster, dataRoot } = await import('./postgres.mjs');
  const { postgresBin } = await import('./setup.mjs');
  const { runningApps, stopApp } = await import('./server.mjs');
  const apps = runningApps();
  for (const app of apps) await stopApp(app);
  const pg = postgresBin() ? cluster(dataRoot()) : undefined;
  const served = pg?.running() ?? false;
  pg?.stop();
  say(apps.length || served ? 'Stopped.' : 'Nothing of this clone was running.');
  return 0;
}

/** The database a command works on, and its client programs; starts the private cluster if need be. */
async function openDatabase(args, work) {
  const { prepare } = await import('./setup.mjs');
  const { cluster, dataRoot } = await import('./postgres.mjs');
  if (process.env.DATABASE_URL)
    throw new Trouble("With DATABASE_URL set, back up and restore with that server's own tools.");
  await prepare({ debian: ['postgresql'], build: [] });
  const pg = cluster(dataRoot());
  const was = pg.running();
  await pg.start();
  try {
    const name = args.includes('--demo') ? 'orthos_demo' : 'orthos';
    pg.createDatabase(name);
    return await work(pg, name);
  } finally {
    if (!was) pg.stop();
  }
}

async function backup(args) {
  const { backUp } = await import('./backup.mjs');
  const named = args.find((a) => !a.startsWith('--'));
  const stamp = new Date().toISOString().replace(/[-:]/g, '').slice(0, 15);
  const file = resolve(process.env.INIT_CWD ?? process.cwd(), named ?? join(ROOT, `backups/orthos-${stamp}.dump`));
  if (existsSync(file)) throw new Trouble(`${file} is there already; nothing was written over.`);
  return openDatabase(args, async (pg, name) => {
    await backUp(pg, name, file);
    process.stdout.write(`${file}\n`);
    return 0;
  });
}

async function restoreFrom(args) {
  const { restore } = await import('./backup.mjs');
  const named = args.find((a) => !a.startsWith('--'));
  if (!named) throw new Trouble('Which file? restore FILE --yes');
  const file = resolve(process.cwd(), named);
  if (!existsSync(file)) throw new Trouble(`There is no ${file}.`);
  if (!args.includes('--yes'))
    throw new Trouble('This puts the backup in place of what is in the database now. Say --yes when you mean it.');
  const { runningApps } = await import('./server.mjs');
  if (runningApps().length) throw new Trouble('Stop Orthos first: ./orthos stop');
  return openDatabase(args, async (pg, name) => {
    const { holds, kept } = await restore(pg, name, file);
    say(`Restored: ${holds}. What was there before is kept as database ${kept}.`);
    return 0;
  });
}

async function reset(args) {
  if (!args.includes('--yes'))
    throw new Trouble('This deletes all databases of this clone. Say --yes when you mean it.');
  await stopAll();
  const { dataRoot } = await import('./postgres.mjs');
  const root = dataRoot();
  for (const name of ['pg', 'pg.init', 'pg.port', 'pg.password', 'pg.log', 'apps'])
    rmSync(join(root, name), { recursive: true, force: true });
  say('Databases removed.');
  return 0;
}

async function calc(args) {
  const { ensureBuild } = await import('./setup.mjs');
  await ensureBuild(['hosts']);
  return runAttached(process.execPath, [join(ROOT, 'web/build-hosts/calc.mjs'), ...args], { cwd: process.cwd() });
}

const [command, ...args] = process.argv.slice(2);
try {
  const work = {
    demo: () => serve('demo'),
    start: () => serve('start'),
    stop: stopAll,
    test: async () => (await import('./test.mjs')).testAll(args),
    check: async () => (await import('./check.mjs')).checkAll(),
    calc: () => calc(args),
    backup: () => backup(args),
    restore: () => restoreFrom(args),
    reset: () => reset(args),
  }[command];
  if (!work) {
    const list = Object.entries(COMMANDS).map(([name, what]) => `  ./orthos ${name.padEnd(8)} ${what}`);
    say(`${command ? `There is no command "${command}".\n` : ''}${list.join('\n')}`);
    process.exitCode = command ? 2 : 0;
  } else process.exitCode = await work();
} catch (error) {
  if (!(error instanceof Trouble)) throw error;
  if (error.message) say(error.message);
  process.exitCode = 1;
}
