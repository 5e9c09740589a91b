// `./orthos check`: everything that can be judged without running the application.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { capture, ROOT, say } from './common.mjs';
import { lockUnchanged, prepare } from './setup.mjs';

const bin = (name) => join(ROOT, 'node_modules/.bin', name);
const inWeb = { cwd: join(ROOT, 'web') };

const CHECKS = [
  ['formatting', bin('prettier'), ['--check', '--log-level', 'warn', '.']],
  ['lint', bin('eslint'), ['.', '--max-warnings', '0']],
  ['types of core', bin('tsc'), ['-p', 'core']],
  ['types of formats', bin('tsc'), ['-p', 'formats']],
  ['types of instruments', bin('tsc'), ['-p', 'instruments']],
  ['types of e2e', bin('tsc'), ['-p', 'e2e']],
  ['routes of web', bin('svelte-kit'), ['sync'], inWeb],
  ['types of web', bin('svelte-check'), ['--fail-on-warnings', '--output', 'human'], inWeb],
  ['unused code and packages', bin('knip'), ['--no-progress']],
  ['heat kernel as committed', process.execPath, ['core/scripts/build-kernel.mjs', '--check']],
  ['physics notes as computed', bin('tsx'), ['core/scripts/physics-notes.ts', '--check']],
];

export async function checkAll() {
  prepare({ debian: [], build: 'packages' });
  let failed = 0;
  for (const [name, command, args, options] of CHECKS) {
    const { code, out, err } = capture(command, args, { ...options, maxBuffer: 1 << 26 });
    say(`${code === 0 ? 'ok  ' : 'FAIL'} ${name}`);
    if (code !== 0) {
      failed++;
      say(`${out}${err}`.trim());
    }
  }
  const unchanged = lockUnchanged();
  const noHosts = !/"resolved": "http/.test(readFileSync(join(ROOT, 'package-lock.json'), 'utf8'));
  for (const [name, ok] of [
    ['package lock is what an install leaves', unchanged !== false],
    ['package lock names no registry', noHosts],
  ]) {
    say(`${ok ? 'ok  ' : 'FAIL'} ${name}`);
    if (!ok) failed++;
  }
  process.stdout.write(`check: ${CHECKS.length + 2 - failed} passed, ${failed} failed\n`);
  return failed === 0 ? 0 : 1;
}
