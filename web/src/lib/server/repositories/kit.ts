import { type StationModel, stationSchema } from '@orthos/core/rework';
import { and, asc, eq, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { Database } from '../db/connect.ts';
import { kitItems } from '../db/schema.ts';
import { ConflictError } from './conflict.ts';

export type KitItem = typeof kitItems.$inferSelect;

const toItem = (row: KitItem): KitItem => ({ ...row, doc: stationSchema.parse(row.doc) });

export async function listKit(db: Database): Promise<KitItem[]> {
  return (await db.select().from(kitItems).orderBy(asc(kitItems.kind), asc(kitItems.name))).map(toItem);
}

export async function addKitItem(
  db: Database,
  item: Pick<KitItem, 'kind' | 'name' | 'bench' | 'doc'>,
): Promise<string> {
  const id = v7();
  await db.insert(kitItems).values({ id, ...item });
  return id;
}

/** Saves a tool; refused when it changed since `version`. */
export async function saveKitItem(
  db: Database,
  id: string,
  version: number,
  change: { name: string; bench: string; doc: StationModel },
): Promise<void> {
  const [saved] = await db
    .update(kitItems)
    .set({ ...change, version: sql`${kitItems.version} + 1` })
    .where(and(eq(kitItems.id, id), eq(kitItems.version, version)))
    .returning({ id: kitItems.id });
  if (saved) return;
  const [stored] = await db.select().from(kitItems).where(eq(kitItems.id, id));
  throw new ConflictError('The tool', stored);
}
