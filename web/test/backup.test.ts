/** Backup and restore on a cluster of their own: others connected, wrong files, killed on the way. */
import { spawn } from 'node:child_process';
import { readFileSync, rmSync, truncateSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import { backUp, restore } from '../../scripts/backup.mjs';
import { cluster, throwAwayRoot } from '../../scripts/postgres.mjs';
import { connect, migrateDatabase } from '../src/lib/server/db/connect.ts';
import { photoBlobs, photos } from '../src/lib/server/db/schema.ts';
import { createBoardDraft } from '../src/lib/server/repositories/boardModels.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { v7 } from 'uuid';

const root = throwAwayRoot();
const own = cluster(root);

const sql = async (database: string, text: string): Promise<Record<string, unknown>[]> => {
  const client = new pg.Client({ connectionString: own.url(database) });
  // put out between question and end: the answer is there, or says so itself
  client.on('error', () => undefined);
  await client.connect();
  return client
    .query(text)
    .then((r) => r.rows as Record<string, unknown>[])
    .finally(() => client.end());
};
const databases = async () =>
  (await sql('postgres', 'select datname from pg_database order by 1')).map((r) => String(r.datname));
/** Until what a killed command had begun is over: the database finishes a statement whose asker is gone. */
const calm = () =>
  expect
    .poll(
      async () =>
        (await sql('postgres', `select 1 from pg_stat_activity where application_name in ('psql', 'pg_restore')`))
          .length,
      { timeout: 10_000 },
    )
    .toBe(0);
const modelsIn = async (database: string) =>
  (await sql(database, 'select name from board_models order by 1')).map((r) => String(r.name));

/** A shop with one board and a photo. */
async function shop(name: string, boards: string[]): Promise<void> {
  own.createDatabase(name);
  await migrateDatabase(own.url(name), 'drizzle');
  const { db, close } = connect(own.url(name));
  for (const board of boards) await createBoardDraft(db, { doc: { ...ternT2, name: board } });
  const id = v7();
  await db.insert(photos).values({ id, width: 1, height: 1 });
  await db.insert(photoBlobs).values({ photoId: id, image: Buffer.alloc(3_000_000, 7), thumbnail: Buffer.alloc(10) });
  await close();
}

beforeAll(() => own.start(), 120_000);
afterAll(() => {
  own.stop();
  rmSync(root, { recursive: true, force: true });
});
let file: string;
beforeEach(async () => {
  for (const name of await databases())
    if (name.startsWith('shop')) await sql('postgres', `drop database "${name}" with (force)`);
  file = join(root, `${v7()}.dump`);
});

describe('backup and restore', () => {
  it('brings back what was there though somebody is connected, and keeps what it replaces', async () => {
    await shop('shop', ['Heron']);
    await backUp(own, 'shop', file);
    await sql('shop', `update board_models set name = 'spoilt'`);
    const guest = new pg.Client({ connectionString: own.url('shop') });
    guest.on('error', () => undefined);
    await guest.connect();
    const { holds, kept } = await restore(own, 'shop', file);
    expect(holds).toBe('0 jobs, 0 entries, 1 photos');
    expect(await modelsIn('shop')).toEqual(['Heron']);
    expect(await modelsIn(kept)).toEqual(['spoilt']);
    const [{ bytes }] = await sql('shop', 'select length(image) as bytes from photo_blobs');
    expect(bytes).toBe(3_000_000);
    expect(await databases()).not.toContain('shop_restoring');
    // the guest was put out of the old one and is not in the new one
    await expect(guest.query('select 1')).rejects.toThrow();
  });
  it('refuses what is no backup, cut short, another program’s, or of a newer version, and changes nothing', async () => {
    await shop('shop', ['Heron']);
    await backUp(own, 'shop', file);
    const refused = async (name: string, why: string) => {
      await expect(restore(own, 'shop', name)).rejects.toThrow(why);
      expect(await modelsIn('shop')).toEqual(['Heron']);
      expect((await databases()).filter((d) => d.startsWith('shop'))).toEqual(['shop']);
    };
    const text = join(root, 'text.dump');
    writeFileSync(text, 'PG is not it');
    await refused(text, 'not a backup');
    const cut = join(root, 'cut.dump');
    writeFileSync(cut, readFileSync(file));
    truncateSync(cut, 9_000);
    await refused(cut, 'could not be read');

    own.createDatabase('other');
    await sql('other', 'create table tickets (id int)');
    const other = join(root, 'other.dump');
    await backUp(own, 'other', other);
    await refused(other, 'of something else');
    await sql('other', 'create schema drizzle');
    await sql(
      'other',
      `create table drizzle.__drizzle_migrations (id int, hash text); insert into drizzle.__drizzle_migrations values (1, 'x')`,
    );
    rmSync(other);
    await backUp(own, 'other', other);
    await refused(other, 'of something else');

    await shop('shop_newer', ['Ibis']);
    await sql('shop_newer', `insert into drizzle.__drizzle_migrations (hash, created_at) values ('later', 9e15)`);
    const newer = join(root, 'newer.dump');
    await backUp(own, 'shop_newer', newer);
    await sql('postgres', 'drop database shop_newer');
    await refused(newer, 'newer Orthos');
  });
  it('is the old one or the new one, whole, whenever it is killed', async () => {
    await shop('shop', ['Heron']);
    await backUp(own, 'shop', file);
    const script = `
      const { cluster } = await import(${JSON.stringify(new URL('../../scripts/postgres.mjs', import.meta.url).href)});
      const { restore } = await import(${JSON.stringify(new URL('../../scripts/backup.mjs', import.meta.url).href)});
      await restore(cluster(${JSON.stringify(root)}), 'shop', ${JSON.stringify(file)});`;
    for (const after of [150, 300, 450, 600, 750, 900]) {
      await sql('shop', `update board_models set name = 'later'`);
      const child = spawn(process.execPath, ['--input-type=module', '-e', script], { stdio: 'ignore' });
      const ended = new Promise((done) => child.once('exit', done));
      setTimeout(() => child.kill('SIGKILL'), after);
      await ended;
      await calm();
      expect([['Heron'], ['later']]).toContainEqual(await modelsIn('shop'));
    }
    await restore(own, 'shop', file);
    expect(await modelsIn('shop')).toEqual(['Heron']);
  });
});
