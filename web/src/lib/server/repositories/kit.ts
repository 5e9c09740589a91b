import {
  DEFAULT_STATION,
  type KitItem as KitSpec,
  kitItemSchema,
  type KitTool,
  type StationModel,
  stationSchema,
  USUAL,
} from '@orthos/core/rework';
import { and, asc, eq, sql } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { Database } from '../db/connect.ts';
import { kitItems, meters, tickets } from '../db/schema.ts';
import { ConflictError } from './conflict.ts';

type Row = typeof kitItems.$inferSelect;
export interface KitItem extends Omit<Row, 'spec' | 'doc'> {
  /** How far its dials are from the truth. */
  doc: StationModel;
  spec: KitSpec;
}

const toItem = (row: Row): KitItem => ({
  ...row,
  doc: row.doc ? stationSchema.parse(row.doc) : DEFAULT_STATION,
  spec: row.spec ? kitItemSchema.parse(row.spec) : USUAL[row.kind].spec,
});

export async function listKit(db: Database): Promise<KitItem[]> {
  return (await db.select().from(kitItems).orderBy(asc(kitItems.kind), asc(kitItems.name), asc(kitItems.id))).map(
    toItem,
  );
}

type NewItem = { kind: KitTool; name: string; bench: string; doc?: StationModel; spec?: KitSpec };

/** Adds tools, all or none of them. */
export async function addKitItems(db: Database, items: readonly NewItem[]): Promise<string[]> {
  const rows = items.map((item) => ({ id: v7(), ...item }));
  if (rows.length > 0) await db.insert(kitItems).values(rows);
  return rows.map((r) => r.id);
}

/** Saves a tool; refused when it changed since `version`. */
export async function saveKitItem(
  db: Database,
  id: string,
  version: number,
  change: Pick<KitItem, 'name' | 'bench' | 'doc' | 'spec' | 'outOfOrder'>,
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

/** Takes a tool off the list; refused when it changed since `version`. */
export async function removeKitItem(db: Database, id: string, version: number): Promise<void> {
  const gone = await db
    .delete(kitItems)
    .where(and(eq(kitItems.id, id), eq(kitItems.version, version)))
    .returning({ id: kitItems.id });
  if (gone.length > 0) return;
  const [stored] = await db.select().from(kitItems).where(eq(kitItems.id, id));
  if (stored) throw new ConflictError('The tool', stored);
}

/** Another name for a bench: of its tools, its instruments, and in the jobs that are planned for it. */
export const renameBench = (db: Database, from: string, to: string): Promise<void> =>
  db.transaction(async (tx) => {
    for (const table of [kitItems, meters])
      await tx
        .update(table)
        .set({ bench: to, version: sql`${table.version} + 1` })
        .where(eq(table.bench, from));
    await tx
      .update(tickets)
      .set({ planSettings: sql`jsonb_set(${tickets.planSettings}, '{bench}', to_jsonb(${to}::text))` })
      .where(sql`${tickets.planSettings} ->> 'bench' = ${from}`);
  });
