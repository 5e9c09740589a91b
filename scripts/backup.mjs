// The database as one file, and back. Both stream: a shop's photos may be larger than memory.
import {
  closeSync,
  fsyncSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  readSync,
  renameSync,
  rmSync,
} from 'node:fs';
import { dirname, join } from 'node:path';
import { hash, ROOT, Trouble, wait } from './common.mjs';

const MIGRATIONS = join(ROOT, 'web/drizzle');
/** Others who are still on the database are asked to go this many times. */
const ASKED = 20;

/** Writes a database to `file`; it is there whole or not at all. */
export async function backUp(pg, database, file) {
  mkdirSync(dirname(file), { recursive: true });
  const part = `${file}.part`;
  const out = openSync(part, 'w', 0o600);
  try {
    await pg.stream('pg_dump', ['-Fc', '-d', database], { out });
    fsyncSync(out);
  } catch (error) {
    rmSync(part, { force: true });
    throw new Trouble(`The backup failed: ${error.message}`);
  } finally {
    closeSync(out);
  }
  renameSync(part, file);
}

/** The migrations of this version in their order, by the hashes that the database keeps of them. */
function migrations() {
  const names = readdirSync(MIGRATIONS).filter((f) => f.endsWith('.sql'));
  return names.sort().map((name) => hash(readFileSync(join(MIGRATIONS, name))));
}

/** Throws Trouble unless the database is one of ours, of this version or an older one. */
function checkOurs(pg, database) {
  const read = pg.client('psql', [
    ...['-d', database, '-v', 'ON_ERROR_STOP=1', '-tAc'],
    'select hash from drizzle.__drizzle_migrations order by id',
  ]);
  if (read.status !== 0) throw new Trouble('That file is a database of something else.');
  const has = read.stdout.trim().split('\n').filter(Boolean);
  const known = migrations();
  if (has.length === 0 || has[0] !== known[0]) throw new Trouble('That file is a database of something else.');
  if (has.some((h, n) => h !== known[n]))
    throw new Trouble('That backup is of a newer Orthos than this one: bring Orthos up to date first.');
}

/** What a database holds, in words: enough to see that it is the right one. */
function holdings(pg, database) {
  const count = (table) => {
    const read = pg.client('psql', ['-d', database, '-tAc', `select count(*) from ${table}`]);
    return read.status === 0 ? Number(read.stdout.trim()) : 0;
  };
  return `${count('tickets')} jobs, ${count('job_events')} entries, ${count('photos')} photos`;
}

/** To the millisecond: two restores within a second keep two databases. */
const stamp = () => new Date().toISOString().replace(/[-:.]/g, '').slice(0, 18).toLowerCase();

/**
 * Reads a backup into a database of its own, looks at what it is and only then puts it in place of `database`, in one transaction; what
 * was there stays under a dated name. Whatever goes wrong or is killed on the way, `database` is the old one or the new one, whole.
 * @returns {Promise<{ holds: string, kept: string }>}
 */
export async function restore(pg, database, file) {
  const input = openSync(file, 'r');
  const fresh = `${database}_restoring`;
  const quiet = (text) => pg.client('psql', ['-d', 'postgres', '-v', 'ON_ERROR_STOP=1', '-qc', text]);
  const must = (text) => {
    const done = quiet(text);
    if (done.status !== 0) throw new Trouble(`Nothing was changed: ${done.stderr.trim()}`);
  };
  try {
    const head = Buffer.alloc(5);
    readSync(input, head, 0, 5, 0);
    if (head.toString() !== 'PGDMP') throw new Trouble(`${file} is not a backup made by ./orthos backup.`);
    must(`drop database if exists "${fresh}" with (force)`);
    pg.createDatabase(fresh);
    try {
      await pg.stream('pg_restore', ['--exit-on-error', '--no-owner', '-d', fresh], { input });
    } catch (error) {
      throw new Trouble(`The backup could not be read; nothing was changed.\n${error.message}`);
    }
    checkOurs(pg, fresh);
    const holds = holdings(pg, fresh);
    const kept = `${database}_before_${stamp()}`;
    await swap(pg, quiet, { database, fresh, kept });
    // proved on what is in place now
    if (holdings(pg, database) !== holds)
      throw new Trouble(`The database in place is not the one read; the old one is ${kept}.`);
    return { holds, kept };
  } catch (error) {
    quiet(`drop database if exists "${fresh}" with (force)`);
    throw error;
  } finally {
    closeSync(input);
  }
}

/** Both names change in one transaction; it needs a moment in which nobody is connected. */
async function swap(pg, quiet, { database, fresh, kept }) {
  let last = '';
  for (let n = 0; n < ASKED; n++) {
    quiet(`select pg_terminate_backend(pid) from pg_stat_activity where datname = '${database}'`);
    const done = quiet(
      `begin; alter database "${database}" rename to "${kept}"; alter database "${fresh}" rename to "${database}"; commit;`,
    );
    if (done.status === 0) return;
    last = done.stderr.trim();
    await wait(100);
  }
  throw new Trouble(`Something else keeps using the database; nothing was changed.\n${last}`);
}
