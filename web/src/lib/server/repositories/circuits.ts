import { type Netlist, netlistSchema } from '@orthos/core/circuit';
import { and, asc, eq, sql } from 'drizzle-orm';
import type { Circuit } from '../../diagnose/view.ts';
import type { Database } from '../db/connect.ts';
import { circuits } from '../db/schema.ts';
import { ConflictError } from './conflict.ts';

const read = (row: typeof circuits.$inferSelect) => ({ ...row, netlist: netlistSchema.parse(row.netlist) });
/** The circuits drawn for a kind of board, by name. */
export async function circuitsOf(db: Database, modelId: string): Promise<Circuit[]> {
  const rows = await db.select().from(circuits).where(eq(circuits.modelId, modelId)).orderBy(asc(circuits.name));
  return rows.map(read);
}

/** Adds a circuit; the same id again changes nothing. */
export async function addCircuit(
  db: Database,
  circuit: { id: string; modelId: string; name: string; netlist: Netlist },
): Promise<void> {
  await db.insert(circuits).values(circuit).onConflictDoNothing();
}

/** Saves a circuit; refused when it changed since `version`. */
export async function saveCircuit(
  db: Database,
  id: string,
  version: number,
  { name, netlist }: { name: string; netlist: Netlist },
): Promise<number> {
  const [saved] = await db
    .update(circuits)
    .set({ name, netlist, updatedAt: new Date(), version: sql`${circuits.version} + 1` })
    .where(and(eq(circuits.id, id), eq(circuits.version, version)))
    .returning({ version: circuits.version });
  if (!saved) throw new ConflictError('The circuit', await circuitById(db, id));
  return saved.version;
}

export async function circuitById(db: Database, id: string): Promise<Circuit | undefined> {
  const [row] = await db.select().from(circuits).where(eq(circuits.id, id));
  return row ? read(row) : undefined;
}

export async function removeCircuit(db: Database, id: string): Promise<void> {
  await db.delete(circuits).where(eq(circuits.id, id));
}
