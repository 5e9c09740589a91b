// The built application as a process: start it, know a running one, stop it.
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { alive, freePort, hash, LOCAL, readJson, ROOT, Trouble, wait } from './common.mjs';

const APPS = join(LOCAL, 'apps');
const CLONE = hash(ROOT).slice(0, 16);
const ENTRY = join(ROOT, 'web/build/index.js');
const KEEPER = 'scripts/orthos.mjs';
const DEFAULT_PORT = 4870;

const ours = (pid) => {
  try {
    return alive(pid) && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(ENTRY);
  } catch {
    return false;
  }
};

/** Running instances of this clone: { name, pid, url }. */
export function runningApps() {
  if (!existsSync(APPS)) return [];
  return readdirSync(APPS).flatMap((file) => {
    const app = readJson(join(APPS, file));
    if (app && ours(app.pid)) return [app];
    rmSync(join(APPS, file), { force: true });
    return [];
  });
}

async function answers(url) {
  try {
    const response = await fetch(`${url}/api/health`, { signal: AbortSignal.timeout(2000) });
    return response.ok && (await response.json()).clone === CLONE;
  } catch {
    return false;
  }
}

/** PORT if given (a taken one is an error), else the usual one or the next that is free. */
export async function choosePort() {
  const wanted = process.env.PORT;
  if (wanted !== undefined) {
    const port = Number(wanted);
    if (!Number.isInteger(port) || port < 1 || port > 65535)
      throw new Trouble(`PORT must be 1 to 65535, not "${wanted}".`);
    return freePort(port).catch(() => {
      throw new Trouble(`Port ${port} is taken. Give another PORT, or none and Orthos finds one.`);
    });
  }
  for (let port = DEFAULT_PORT; port < DEFAULT_PORT + 50; port++) {
    const free = await freePort(port).catch(() => undefined);
    if (free) return free;
  }
  return freePort();
}

/**
 * Starts the application and waits until it answers.
 * @param {{ name?: string, port: number, databaseUrl: string, env?: object, stdio?: any }} options
 * @returns {Promise<{ child: import('node:child_process').ChildProcess, url: string, ended: Promise<number> }>}
 */
export async function startApp({ name, port, databaseUrl, env = {}, stdio = ['ignore', 2, 2] }) {
  const host = process.env.HOST ?? '127.0.0.1';
  if (!['127.0.0.1', 'localhost', '::1'].includes(host))
    throw new Trouble('Only this machine is served until there is sign-in: leave HOST at 127.0.0.1.');
  const url = `http://127.0.0.1:${port}`;
  const child = spawn(process.execPath, [ENTRY], {
    cwd: join(ROOT, 'web'),
    stdio,
    env: {
      ...process.env,
      NODE_ENV: 'production',
      HOST: '127.0.0.1',
      PORT: String(port),
      ORIGIN: url,
      // photos; everything else is held to 1 MB by the application
      BODY_SIZE_LIMIT: '25M',
      SHUTDOWN_TIMEOUT: '2',
      DATABASE_URL: databaseUrl,
      ORTHOS_CLONE: CLONE,
      ORTHOS_MIGRATIONS: join(ROOT, 'web/drizzle'),
      ORTHOS_HOSTS: join(ROOT, 'web/build-hosts'),
      ...env,
    },
  });
  const ended = new Promise((done) => child.once('exit', (code, signal) => done(code ?? (signal ? 1 : 0))));
  let gone = false;
  void ended.then(() => (gone = true));
  for (let n = 0; n < 600 && !gone; n++) {
    if (await answers(url)) {
      if (name) {
        mkdirSync(APPS, { recursive: true });
        writeFileSync(join(APPS, `${name}.json`), JSON.stringify({ name, pid: child.pid, url, keeper: process.pid }));
      }
      return { child, url, ended };
    }
    await wait(50);
  }
  child.kill('SIGKILL');
  throw new Trouble('The application did not start; what it said stands above.');
}

/** Whether a process is a command of ours that keeps an application going. */
const keeps = (pid) => {
  try {
    return alive(pid) && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(KEEPER);
  } catch {
    return false;
  }
};

/**
 * Stops an application politely, then by force; one that is kept going by its keeper, which would start it again.
 * @param {{ pid: number | undefined, name?: string, keeper?: number }} app
 */
export async function stopApp({ pid, name, keeper }) {
  if (keeper !== undefined && keeper !== process.pid && keeps(keeper)) {
    process.kill(keeper, 'SIGTERM');
    for (let n = 0; n < 200 && alive(keeper); n++) await wait(50);
  }
  if (alive(pid)) process.kill(pid, 'SIGTERM');
  for (let n = 0; n < 80 && alive(pid); n++) await wait(50);
  if (alive(pid)) process.kill(pid, 'SIGKILL');
  if (name) rmSync(join(APPS, `${name}.json`), { force: true });
}
