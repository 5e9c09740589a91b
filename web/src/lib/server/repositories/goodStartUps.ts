import { desc, eq } from 'drizzle-orm';
import type { GoodStartUp } from '../../diagnose/view.ts';
import type { Database } from '../db/connect.ts';
import { goodStartUps } from '../db/schema.ts';

/** Start-ups of good units of a kind of board, the latest first. */
export async function goodStartUpsOf(db: Database, modelId: string): Promise<GoodStartUp[]> {
  return db
    .select({ id: goodStartUps.id, unit: goodStartUps.unit, stages: goodStartUps.stages })
    .from(goodStartUps)
    .where(eq(goodStartUps.modelId, modelId))
    .orderBy(desc(goodStartUps.takenAt), desc(goodStartUps.id));
}

/** Keeps a good unit's start-up; the same id again changes nothing. */
export async function addGoodStartUp(db: Database, modelId: string, startUp: GoodStartUp): Promise<void> {
  await db
    .insert(goodStartUps)
    .values({ ...startUp, modelId })
    .onConflictDoNothing();
}
