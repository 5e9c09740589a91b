import { routineStepSchema } from '@orthos/core/diagnosis';
import { asc, eq, inArray, sql, and } from 'drizzle-orm';
import { z } from 'zod';
import type { Routine } from '../../diagnose/view.ts';
import type { Database } from '../db/connect.ts';
import { routineModels, routines } from '../db/schema.ts';
import { ConflictError } from './conflict.ts';

const stepsSchema = z.array(routineStepSchema);

async function withModels(db: Database, rows: (typeof routines.$inferSelect)[]): Promise<Routine[]> {
  if (rows.length === 0) return [];
  const links = await db
    .select()
    .from(routineModels)
    .where(
      inArray(
        routineModels.routineId,
        rows.map((r) => r.id),
      ),
    );
  return rows.map(({ id, name, steps, version }) => ({
    id,
    name,
    steps: stepsSchema.parse(steps),
    version,
    modelIds: links.filter((l) => l.routineId === id).map((l) => l.modelId),
  }));
}

/** Routines of the family that a kind of board belongs to, by name. */
export async function routinesOf(db: Database, modelId: string): Promise<Routine[]> {
  const mine = db.select({ id: routineModels.routineId }).from(routineModels).where(eq(routineModels.modelId, modelId));
  return withModels(db, await db.select().from(routines).where(inArray(routines.id, mine)).orderBy(asc(routines.name)));
}

export async function routineById(db: Database, id: string): Promise<Routine | undefined> {
  return (await withModels(db, await db.select().from(routines).where(eq(routines.id, id))))[0];
}

/** Adds a routine; the same id again changes nothing. */
export async function addRoutine(db: Database, { modelIds, ...routine }: Omit<Routine, 'version'>): Promise<void> {
  await db.transaction(async (tx) => {
    const [stored] = await tx.insert(routines).values(routine).onConflictDoNothing().returning({ id: routines.id });
    if (stored) await tx.insert(routineModels).values(modelIds.map((modelId) => ({ routineId: routine.id, modelId })));
  });
}

/** Saves a routine with its family; refused when it changed since `version`. */
export async function saveRoutine(db: Database, { id, version, modelIds, name, steps }: Routine): Promise<number> {
  return db.transaction(async (tx) => {
    const [saved] = await tx
      .update(routines)
      .set({ name, steps, updatedAt: new Date(), version: sql`${routines.version} + 1` })
      .where(and(eq(routines.id, id), eq(routines.version, version)))
      .returning({ version: routines.version });
    if (!saved) throw new ConflictError('The routine', await routineById(db, id));
    await tx.delete(routineModels).where(eq(routineModels.routineId, id));
    await tx.insert(routineModels).values(modelIds.map((modelId) => ({ routineId: id, modelId })));
    return saved.version;
  });
}

export async function removeRoutine(db: Database, id: string): Promise<void> {
  await db.delete(routines).where(eq(routines.id, id));
}
