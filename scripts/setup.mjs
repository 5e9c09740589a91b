// What must be on the machine: Debian packages, npm packages, the built application. Each step is skipped when
// nothing changed. Runs under a lock (see `locked`), so that two commands at once do not build over each other.
import { existsSync, mkdirSync, readdirSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  capture,
  CHROMIUM,
  hash,
  hashTree,
  isRoot,
  LOCAL,
  readJson,
  ROOT,
  run,
  runAttached,
  runLong,
  say,
  SHELL,
  Trouble,
} from './common.mjs';

/** What flock answers when somebody else has the lock. */
const HELD = 75;

const PG_ROOT = '/usr/lib/postgresql';

/** Folder of the newest PostgreSQL's programs, or undefined. */
export function postgresBin() {
  if (!existsSync(PG_ROOT)) return undefined;
  const versions = readdirSync(PG_ROOT)
    .map(Number)
    .filter((n) => n >= 15 && existsSync(join(PG_ROOT, String(n), 'bin/initdb')));
  return versions.length ? join(PG_ROOT, String(Math.max(...versions)), 'bin') : undefined;
}

const NEEDS = {
  postgresql: { packages: ['postgresql'], there: () => postgresBin() !== undefined },
  // a window is never opened: the shell alone starts in half the time
  chromium: {
    packages: ['chromium-headless-shell'],
    there: () => existsSync(SHELL),
    instead: () => existsSync(CHROMIUM),
  },
};

/** Installs Debian packages that are missing; where that cannot be, goes on with what does instead, if it is there. */
export function ensureDebian(wanted) {
  for (const { packages, there, instead } of wanted.map((name) => NEEDS[name])) {
    if (there()) continue;
    try {
      install(packages);
    } catch (e) {
      if (!instead?.()) throw e;
      say(`${e.message}\nGoing on with what is installed instead of ${packages.join(', ')}.`);
    }
  }
}

function install(missing) {
  const options = ['-o', 'DPkg::Lock::Timeout=120', '-y', '--no-install-recommends'];
  if (!isRoot)
    throw new Trouble(
      `Missing on this machine: ${missing.join(', ')}. Run:\n  sudo apt-get update && sudo apt-get install ${options.slice(2).join(' ')} ${missing.join(' ')}`,
    );
  say(`Installing from Debian: ${missing.join(', ')}`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const apt = (args) => {
    const { code, out, err } = capture('apt-get', args, { env, maxBuffer: 1 << 26 });
    if (code !== 0)
      throw new Trouble(`apt-get ${args.at(-1)} failed:\n${`${out}${err}`.split('\n').slice(-25).join('\n')}`);
  };
  apt(['-o', 'DPkg::Lock::Timeout=120', '-qq', 'update']);
  if (missing.includes('postgresql') && !existsSync(PG_ROOT)) {
    // ours is a private cluster; a fresh install need not start one of its own
    mkdirSync('/etc/postgresql-common', { recursive: true });
    const conf = '/etc/postgresql-common/createcluster.conf';
    if (!existsSync(conf)) writeFileSync(conf, 'create_main_cluster = false\n');
  }
  apt([...options, '-qq', '-o', 'Dpkg::Options::=--force-confold', 'install', ...missing]);
}

/** Installs npm packages when the lock, a manifest or the Node version changed. */
export async function ensurePackages() {
  const manifests = [
    'package.json',
    'package-lock.json',
    ...['core', 'formats', 'instruments', 'web', 'e2e'].map((w) => `${w}/package.json`),
  ];
  const wanted = hash(hashTree(manifests) + process.version);
  const stamp = join(ROOT, 'node_modules/.orthos-stamp');
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return;
  // with the committed lock; `npm ci` fails where optional binaries of other platforms are not served
  await runLong('Installing npm packages', 'about a minute', 'npm', [
    'install',
    '--no-audit',
    '--no-fund',
    '--loglevel=error',
  ]);
  writeFileSync(stamp, hash(hashTree(manifests) + process.version));
}

const SHARED_SOURCES = ['core/package.json', 'core/src', 'formats/src', 'package-lock.json', 'tsconfig.base.json'];
const BUILDS = {
  app: {
    sources: [
      ...SHARED_SOURCES,
      'web/src',
      'web/static',
      'web/package.json',
      'web/svelte.config.js',
      'web/vite.config.ts',
      'web/tsconfig.json',
    ],
    what: 'Building the application',
    usual: 'two minutes',
    out: 'web/build',
    vite: ['build', '--logLevel', 'error'],
  },
  hosts: {
    sources: [
      ...SHARED_SOURCES,
      'web/hosts',
      'web/src/lib/server/checkDrawing.ts',
      'web/src/lib/server/readPhoto.ts',
      'web/vite.hosts.config.ts',
    ],
    what: 'Building the calculation hosts',
    usual: 'ten seconds',
    out: 'web/build-hosts',
    vite: ['build', '--logLevel', 'error', '-c', 'vite.hosts.config.ts'],
  },
};

/** Builds what is out of date, all at once, aside, and puts it in place by renaming. */
export async function ensureBuild(names = ['app', 'hosts']) {
  const due = names
    .map((name) => ({ name, ...BUILDS[name], wanted: hashTree(BUILDS[name].sources) }))
    .filter(({ out, wanted }) => readJson(join(ROOT, out, '.orthos-built.json'))?.hash !== wanted);
  if (due.length === 0) return;
  await ensurePackages();
  const env = { ...process.env, ORTHOS_OUT: 'build.next', NODE_ENV: 'production' };
  const inWeb = { cwd: join(ROOT, 'web'), env, stdio: ['ignore', 'ignore', 2] };
  run(join(ROOT, 'node_modules/.bin/svelte-kit'), ['sync'], inWeb);
  const built = await Promise.allSettled(
    due.map(async ({ name, what, usual, out, vite, wanted }) => {
      const target = join(ROOT, out);
      await runLong(what, usual, join(ROOT, 'node_modules/.bin/vite'), vite, inWeb);
      // the hosts' configuration appends -hosts to the name it is given
      const made = join(ROOT, 'web', name === 'app' ? 'build.next' : 'build.next-hosts');
      writeFileSync(join(made, '.orthos-built.json'), JSON.stringify({ hash: wanted }));
      rmSync(`${target}.old`, { recursive: true, force: true });
      if (existsSync(target)) renameSync(target, `${target}.old`);
      renameSync(made, target);
      rmSync(`${target}.old`, { recursive: true, force: true });
    }),
  );
  const failed = built.find((b) => b.status === 'rejected');
  if (failed) throw failed.reason;
}

/**
 * Brings the machine up to what a command needs. The work runs in a child process under flock(1), which lets go
 * by itself whatever happens to us.
 */
export async function prepare({ debian = [], build = ['app', 'hosts'] }) {
  mkdirSync(LOCAL, { recursive: true });
  const lock = join(LOCAL, 'setup.lock');
  const work = [lock, process.execPath, join(ROOT, 'scripts/setup-run.mjs'), JSON.stringify({ debian, build })];
  const locked = (...options) =>
    runAttached('flock', [...options, ...work], { cwd: ROOT, stdio: ['ignore', 2, 2] }).catch((error) => {
      throw new Trouble(`flock: ${error.message}`);
    });
  let code = await locked('-n', '-E', String(HELD));
  if (code === HELD) {
    const holder = readFileSync(lock, 'utf8').trim();
    say(`Another command is setting this clone up${holder ? ` (process ${holder})` : ''}; waiting for it.`);
    code = await locked('-w', '1200', '-E', String(HELD));
    if (code === HELD) throw new Trouble('It has not finished within twenty minutes.');
  }
  // what was wrong has been said by the one who did it
  if (code !== 0) throw new Trouble('');
}

/** Whether the committed lock is what an install leaves behind; undefined outside a git checkout. */
export function lockUnchanged() {
  const { code, out } = capture('git', ['status', '--porcelain', '--', 'package-lock.json']);
  return code === 0 ? out.trim() === '' : undefined;
}
