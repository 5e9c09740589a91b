import { asc, eq } from 'drizzle-orm';
import type { GoodReading } from '../../diagnose/view.ts';
import type { Database } from '../db/connect.ts';
import { goodReadings } from '../db/schema.ts';

/** What good boards of a kind read, oldest first. */
export async function goodReadingsOf(db: Database, modelId: string): Promise<GoodReading[]> {
  return db
    .select({
      id: goodReadings.id,
      unit: goodReadings.unit,
      type: goodReadings.type,
      red: goodReadings.red,
      black: goodReadings.black,
      state: goodReadings.state,
      value: goodReadings.value,
    })
    .from(goodReadings)
    .where(eq(goodReadings.modelId, modelId))
    .orderBy(asc(goodReadings.takenAt), asc(goodReadings.id));
}

/** Adds readings of a good board; one that is there already (same id) changes nothing. */
export async function addGoodReadings(db: Database, modelId: string, readings: GoodReading[]): Promise<void> {
  if (readings.length === 0) return;
  await db
    .insert(goodReadings)
    .values(readings.map((r) => ({ ...r, modelId })))
    .onConflictDoNothing();
}
