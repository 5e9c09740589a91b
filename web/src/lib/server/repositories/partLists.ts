import { setItemSchema } from '@orthos/core/job';
import { and, asc, eq } from 'drizzle-orm';
import { z } from 'zod';
import type { PartList } from '../../set/partList.ts';
import type { Database } from '../db/connect.ts';
import { partLists } from '../db/schema.ts';

const itemsSchema = z.array(setItemSchema);

/** Lists of parts that are kept for a kind of board, by name. */
export async function partListsOf(db: Database, modelId: string): Promise<PartList[]> {
  const rows = await db.select().from(partLists).where(eq(partLists.modelId, modelId)).orderBy(asc(partLists.name));
  return rows.map(({ id, name, items }) => ({ id, name, items: itemsSchema.parse(items) }));
}

/** Keeps a list; what was kept under its name before is replaced. */
export async function keepPartList(db: Database, modelId: string, { id, name, items }: PartList): Promise<void> {
  await db
    .insert(partLists)
    .values({ id, modelId, name, items })
    .onConflictDoUpdate({ target: [partLists.modelId, partLists.name], set: { items } });
}

/** Whether there was such a list. */
export async function forgetPartList(db: Database, modelId: string, id: string): Promise<boolean> {
  const gone = await db
    .delete(partLists)
    .where(and(eq(partLists.modelId, modelId), eq(partLists.id, id)))
    .returning({ id: partLists.id });
  return gone.length > 0;
}
