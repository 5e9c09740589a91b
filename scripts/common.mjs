// Shared by all commands: places, running programs, telling the user. No npm imports: this runs before they are there.
import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
export const LOCAL = join(ROOT, '.data');

/** Debian's Chromium, and the part of it that does without a window. */
export const CHROMIUM = '/usr/bin/chromium';
export const SHELL = '/usr/bin/chromium-headless-shell';

export const isRoot = process.getuid?.() === 0;

/** Progress goes to standard error; results alone go to standard output. */
export function say(text) {
  process.stderr.write(`${text}\n`);
}

/** A problem that the user can mend: printed as it is, without a stack. */
export class Trouble extends Error {}

export function hash(text) {
  return createHash('sha256').update(text).digest('hex');
}

/** Runs a program to its end with its output on our standard error; throws Trouble when it fails. */
export function run(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: ROOT, stdio: ['ignore', 2, 2], ...options });
  if (done.error) throw new Trouble(`${command}: ${done.error.message}`);
  if (done.status !== 0)
    throw new Trouble(`${command} ${args.slice(0, 3).join(' ')} failed (${done.status ?? done.signal})`);
}

/** How often a long piece of work says that it goes on, ms. */
const TELL_MS = 15_000;

/** Like `run`, for work that takes a while: says what it does, now and then how long it has been at it, and how long it took. */
export async function runLong(what, usual, command, args, options = {}) {
  const from = Date.now();
  const seconds = () => `${Math.round((Date.now() - from) / 1000)} s`;
  say(`${what} (${usual})`);
  const telling = setInterval(() => say(`  ${what}: ${seconds()} …`), TELL_MS);
  const code = await runAttached(command, args, { cwd: ROOT, stdio: ['ignore', 2, 2], ...options }).finally(() =>
    clearInterval(telling),
  );
  if (code !== 0) throw new Trouble(`${command} ${args.slice(0, 3).join(' ')} failed (${code})`);
  say(`  ${what}: done, ${seconds()}`);
}

/** Runs a program and gives back its exit code and output. */
export function capture(command, args, options = {}) {
  const done = spawnSync(command, args, { cwd: ROOT, encoding: 'utf8', ...options });
  return { code: done.status ?? 1, out: done.stdout ?? '', err: done.stderr ?? done.error?.message ?? '' };
}

/** Runs a program and resolves with its exit code and all it said. */
export function collect(command, args, options = {}) {
  return new Promise((done) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: ['ignore', 'pipe', 'pipe'], ...options });
    let out = '';
    for (const stream of [child.stdout, child.stderr]) stream.setEncoding('utf8').on('data', (text) => (out += text));
    child.once('error', (e) => done({ code: 1, out: e.message }));
    child.once('close', (code) => done({ code: code ?? 1, out }));
  });
}

/** Runs a program with our own input and output; resolves with its exit code. */
export function runAttached(command, args, options = {}) {
  return new Promise((done, fail) => {
    const child = spawn(command, args, { cwd: ROOT, stdio: 'inherit', ...options });
    child.once('error', fail);
    child.once('exit', (code, signal) => done(code ?? (signal ? 130 : 1)));
  });
}

export function wait(ms) {
  return new Promise((done) => setTimeout(done, ms));
}

/** A TCP port of the loopback address that is free now. */
export function freePort(wanted = 0) {
  return new Promise((done, fail) => {
    const server = createServer();
    server.once('error', fail);
    server.listen(wanted, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => done(port));
    });
  });
}

export function alive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

export function readJson(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return undefined;
  }
}

/** Reads a secret made once and kept readable for its owner alone. */
export function secret(file, make) {
  if (!existsSync(file)) {
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(file, make(), { mode: 0o600 });
    chmodSync(file, 0o600);
  }
  return readFileSync(file, 'utf8').trim();
}

/** One hash over the contents of files and folders below ROOT, names included. */
export function hashTree(paths) {
  const sum = createHash('sha256');
  const visit = (path) => {
    const full = join(ROOT, path);
    if (!existsSync(full)) return;
    if (statSync(full).isDirectory()) {
      for (const name of readdirSync(full).sort())
        if (!['node_modules', '.svelte-kit'].includes(name)) visit(join(path, name));
    } else {
      sum.update(path).update('\0').update(readFileSync(full)).update('\0');
    }
  };
  for (const path of paths) visit(path);
  return sum.digest('hex');
}
