/**
 * `orthos calc NAME [FILE]`: JSON from a file or standard input, result on standard output, what is wrong
 * on standard error. `--schema` in place of the file prints what it takes and gives. Exit 2: bad input or no such calculation; 1: internal error.
 */
import { readFileSync } from 'node:fs';
import { basename } from 'node:path';
import { describeCalc, UnknownCalcError } from '@orthos/core/calc';
import { CalcInputError } from '@orthos/core/ground';
import { CALCS, runCalc } from '@orthos/formats';
import { resultJson } from './json.ts';

const [name, file] = process.argv.slice(2);

function usage(): never {
  const names = [...CALCS.values()].map((c) => `  ${c.name.padEnd(14)} ${c.summary}`);
  process.stderr.write(
    `usage: orthos calc NAME [FILE]     JSON from FILE or standard input\n       orthos calc NAME --schema   what it takes and gives, with an example\n${names.join('\n')}\n`,
  );
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
    return withFile(JSON.parse(text));
  } catch (error) {
    if (error instanceof CalcInputError) throw error;
    throw new CalcInputError([{ field: '', message: `not JSON: ${(error as Error).message}` }]);
  }
}

/** `board.import` names its file by path here; everybody else sends bytes. */
function withFile(input: unknown): unknown {
  if (name !== 'board.import' || typeof input !== 'object' || input === null || !('file' in input)) return input;
  const { file: path, ...rest } = input as { file: unknown };
  if (typeof path !== 'string') throw new CalcInputError([{ field: 'file', message: 'is the path of a board file' }]);
  try {
    return { ...rest, name: basename(path), bytes: readFileSync(path).toString('base64') };
  } catch (error) {
    throw new CalcInputError([{ field: 'file', message: `cannot be read: ${(error as Error).message}` }]);
  }
}

// whoever reads the result may have seen enough of it
process.stdout.on('error', (error: NodeJS.ErrnoException) => {
  process.exit(error.code === 'EPIPE' ? 0 : 1);
});

if (!name || name === '--help') usage();
try {
  const calc = CALCS.get(name);
  if (!calc) throw new UnknownCalcError(name, [...CALCS.keys()]);
  const told =
    file === '--schema' ? describeCalc(calc) : await runCalc(name, readInput(), { now: () => performance.now() });
  process.stdout.write(`${resultJson(told, 2)}\n`);
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
