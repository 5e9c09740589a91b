import { and, asc, eq, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { Database } from '../db/connect.ts';
import { meters } from '../db/schema.ts';
import { ConflictError } from './conflict.ts';

export type Meter = typeof meters.$inferSelect;

/** Meters and supplies alike. */
export async function listInstruments(db: Database): Promise<Meter[]> {
  return db.select().from(meters).orderBy(asc(meters.kind), asc(meters.name));
}

export async function listMeters(db: Database, kind: Meter['kind'] = 'meter'): Promise<Meter[]> {
  return db.select().from(meters).where(eq(meters.kind, kind)).orderBy(asc(meters.name));
}

export async function addMeter(db: Database, meter: Partial<Meter> & { name: string }): Promise<string> {
  const id = v7();
  await db.insert(meters).values({ ...meter, id });
  return id;
}

/** Saves a meter; refused when it changed since `version`. */
export async function saveMeter(
  db: Database,
  id: string,
  version: number,
  change: Omit<Meter, 'id' | 'kind' | 'version' | 'simulated'>,
): Promise<void> {
  const [saved] = await db
    .update(meters)
    .set({ ...change, version: sql`${meters.version} + 1` })
    .where(and(eq(meters.id, id), eq(meters.version, version)))
    .returning({ id: meters.id });
  if (saved) return;
  const [stored] = await db.select().from(meters).where(eq(meters.id, id));
  throw new ConflictError('The meter', stored);
}
