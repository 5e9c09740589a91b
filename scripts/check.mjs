// `./orthos check`: everything that can be judged without running the application.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { collect, ROOT, say } from './common.mjs';
import { lockUnchanged, prepare } from './setup.mjs';

const bin = (name) => join(ROOT, 'node_modules/.bin', name);
/** The native compiler, by its place: what lint and bundlers load is called by the same name. */
const types = (workspace, what = workspace) => [
  `types of ${what}`,
  process.execPath,
  [join(ROOT, 'node_modules/@typescript/native/bin/tsc'), '-p', workspace],
];
const inWeb = { cwd: join(ROOT, 'web') };

/** Name, program, arguments, options; the longest first, so that none is left alone at the end. */
const CHECKS = [
  ['lint', bin('eslint'), ['.', '--max-warnings', '0']],
  ['types of web', bin('svelte-check'), ['--tsgo', '--fail-on-warnings', '--output', 'human'], inWeb],
  types('formats', 'core and formats'),
  types('e2e'),
  types('instruments'),
  ['formatting', bin('oxfmt'), ['--list-different']],
  ['imports', bin('oxlint'), []],
  ['unused code and packages', bin('knip'), ['--no-progress']],
  ['heat kernel as committed', process.execPath, ['core/scripts/build-kernel.mjs', '--check']],
];

/** Runs a check, says how it went, gives the number of failures. */
async function judge([name, command, args, options]) {
  const started = Date.now();
  const { code, out } = await collect(command, args, options);
  say(`${code === 0 ? 'ok  ' : 'FAIL'} ${name}, ${Math.round((Date.now() - started) / 1000)} s`);
  if (code === 0) return 0;
  say(out.trim());
  return 1;
}

export async function checkAll() {
  await prepare({ build: 'packages' });
  // types and lint read what this writes
  const routes = await judge(['routes of web', bin('svelte-kit'), ['sync'], inWeb]);
  const waiting = [...CHECKS];
  const lane = async () => {
    let bad = 0;
    for (let check = waiting.shift(); check; check = waiting.shift()) bad += await judge(check);
    return bad;
  };
  const lanes = await Promise.all([lane(), lane()]);
  let failed = lanes.reduce((sum, bad) => sum + bad, routes);
  const unchanged = lockUnchanged();
  const noHosts = !/"resolved": "http/.test(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'));
  for (const [name, ok] of [
    ['package lock is what an install leaves', unchanged !== false],
    ['package lock names no registry', noHosts],
  ]) {
    say(`${ok ? 'ok  ' : 'FAIL'} ${name}`);
    if (!ok) failed++;
  }
  process.stdout.write(`check: ${CHECKS.length + 3 - failed} passed, ${failed} failed\n`);
  return failed === 0 ? 0 : 1;
}
