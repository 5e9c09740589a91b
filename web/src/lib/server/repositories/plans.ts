import { eq } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { planOf } from '../../plan/stored.ts';
import { plans } from '../db/schema.ts';
import { Kept } from '../kept.ts';

export type Plan = typeof plans.$inferSelect;

/** The form that plans are stored in now. */
export const PLAN_VERSION = 2;

const toPlan = (row: Plan): Plan => ({ ...row, ...planOf(row.v, row.methods, row.results) });

/** Stores a computed plan; the same id sent twice changes nothing. */
export async function storePlan(db: Database, plan: Omit<Plan, 'createdAt'>): Promise<void> {
  await db.insert(plans).values(plan).onConflictDoNothing();
}

const computed = new Kept<Plan>(200);

export async function planById(db: Database, id: string): Promise<Plan | undefined> {
  const found = await computed.all([id], async () => {
    const rows = await db.select().from(plans).where(eq(plans.id, id));
    return rows.map((row) => [row.id, toPlan(row)]);
  });
  return found.get(id);
}
