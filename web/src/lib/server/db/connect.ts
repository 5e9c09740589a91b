import { drizzle, type NodePgQueryResultHKT } from 'drizzle-orm/node-postgres';
import { sql } from 'drizzle-orm';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import type { PgDatabase } from 'drizzle-orm/pg-core';
import pg from 'pg';
import * as schema from './schema.ts';

/** The pool, or a transaction on it. */
export type Database = PgDatabase<NodePgQueryResultHKT, typeof schema>;

/** Any number; all Orthos processes take the same lock while they migrate. */
const MIGRATION_LOCK = 7_148_201;

/** A database that does not take a connection within this is away, ms. */
const PATIENCE_MS = 15_000;
/** Health is told within this, ms. */
const HEALTH_MS = 1000;

/** Connections refused, lost or not yet taken: what a database says that is gone, going or coming. */
const AWAY_CODES = new Set(['ECONNREFUSED', 'ECONNRESET', 'EPIPE', '57P01', '57P02', '57P03', '08006', '08001']);
const AWAY_WORDS =
  /connection terminated|not queryable|timeout exceeded when trying to connect|terminating connection/i;

/** Whether an error says that the database is away, not that a question was wrong. */
export function isAway(error: unknown): boolean {
  for (let e = error; e instanceof Error; e = e.cause) {
    if (AWAY_CODES.has(String((e as { code?: unknown }).code)) || AWAY_WORDS.test(e.message)) return true;
  }
  return false;
}

/** Whether the database answers a question now. */
export async function reached(db: Database): Promise<boolean> {
  const late = new Promise<false>((done) => setTimeout(() => done(false), HEALTH_MS).unref());
  const answer = db.execute(sql`select 1`).then(
    () => true,
    () => false,
  );
  return Promise.race([answer, late]);
}

/** Connects a pool to PostgreSQL 15 or later. */
export function connect(url: string): { db: Database; close: () => Promise<void> } {
  const pool = new pg.Pool({ connectionString: url, max: 20, connectionTimeoutMillis: PATIENCE_MS });
  // a backend that goes away, idle or in the middle of something, must not take the process with it; who waits for an answer is told by its own error
  pool.on('connect', (client) => client.on('error', () => undefined));
  pool.on('error', (error) => console.error(`database connection lost: ${error.message}`));
  return { db: drizzle(pool, { schema, casing: 'snake_case' }), close: () => pool.end() };
}

/** Brings the schema up to date; several processes may try at once. */
export async function migrateDatabase(url: string, folder: string): Promise<void> {
  const client = new pg.Client({ connectionString: url });
  await client.connect();
  try {
    await client.query('select pg_advisory_lock($1)', [MIGRATION_LOCK]);
    await migrate(drizzle(client, { casing: 'snake_case' }), { migrationsFolder: folder });
  } finally {
    await client.end();
  }
}
