/**
 * `orthos calc NAME [FILE]`: JSON from a file or standard input, result on standard output, what is wrong
 * on standard error. Exit 2: bad input or no such calculation; 1: internal error.
 */
import { readFileSync } from 'node:fs';
import { CALCS, CalcInputError, runCalc, UnknownCalcError } from '@orthos/core';
import { resultJson } from './json.ts';

const [name, file] = process.argv.slice(2);

function usage(): never {
  const names = [...CALCS.values()].map((c) => `  ${c.name.padEnd(14)} ${c.summary}`);
  process.stderr.write(`usage: orthos calc NAME [FILE]   (JSON from FILE or standard input)\n${names.join('\n')}\n`);
  process.exit(2);
}

function readInput(): unknown {
  const calc = CALCS.get(name);
  // a calculation without input need not wait for one
  if (calc?.input.safeParse({}).success && !file && process.stdin.isTTY) return {};
  let text: string;
  try {
    text = readFileSync(file ?? 0, 'utf8');
  } catch (error) {
    throw new CalcInputError([
      { field: '', message: `cannot read ${file ?? 'standard input'}: ${(error as Error).message}` },
    ]);
  }
  if (text.trim() === '') return {};
  try {
    return JSON.parse(text);
  } catch (error) {
    throw new CalcInputError([{ field: '', message: `not JSON: ${(error as Error).message}` }]);
  }
}

if (!name || name === '--help') usage();
try {
  if (!CALCS.has(name)) throw new UnknownCalcError(name);
  const result = await runCalc(name, readInput(), { now: () => performance.now() });
  process.stdout.write(`${resultJson(result, 2)}\n`);
} catch (error) {
  if (error instanceof CalcInputError) {
    for (const issue of error.issues)
      process.stderr.write(`${issue.field ? `${issue.field}: ` : ''}${issue.message}\n`);
    process.exitCode = 2;
  } else if (error instanceof UnknownCalcError) {
    process.stderr.write(`${error.message}\n`);
    process.exitCode = 2;
  } else {
    process.stderr.write(`internal error: ${(error as Error).message}\n`);
    process.exitCode = 1;
  }
}
