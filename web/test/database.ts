/** A fresh database for one test file: a copy of the migrated template in the throw-away cluster. */
import { randomBytes } from 'node:crypto';
import pg from 'pg';
import { afterAll, beforeAll } from 'vitest';
import { connect, migrateDatabase, type Database } from '../src/lib/server/db/connect.ts';

const serverUrl = (): string => {
  const url = process.env.TEST_DATABASE_URL;
  if (!url) throw new Error('TEST_DATABASE_URL is not set: run ./orthos test');
  return url;
};
export const urlOf = (name: string): string => serverUrl().replace(/\/[^/]*$/, `/${name}`);

export async function admin(sql: string): Promise<void> {
  const client = new pg.Client({ connectionString: serverUrl() });
  await client.connect();
  await client.query(sql).finally(() => client.end());
}

/** The database of the calling test file; ready from its first test on. */
export function testDatabase(): { db: () => Database; url: () => string } {
  const name = `t_${randomBytes(6).toString('hex')}`;
  let open: ReturnType<typeof connect>;
  beforeAll(async () => {
    await admin(`create database ${name}`);
    await migrateDatabase(urlOf(name), 'drizzle');
    open = connect(urlOf(name));
  });
  afterAll(() => open?.close());
  return { db: () => open.db, url: () => urlOf(name) };
}
