import { and, desc, eq } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { planOf } from '../../plan/stored.ts';
import { plans } from '../db/schema.ts';
import { Kept } from '../kept.ts';

export type Plan = typeof plans.$inferSelect;

/** The form that plans are stored in now. */
export const PLAN_VERSION = 2;

const toPlan = (row: Plan): Plan => ({ ...row, ...planOf(row.v, row.methods, row.results) });

type PlanToStore = Omit<Plan, 'createdAt' | 'whole'> & { whole?: boolean };

/** Stores a computed plan; the same id sent twice changes nothing. */
export async function storePlan(db: Database, plan: PlanToStore): Promise<void> {
  await db.insert(plans).values(plan).onConflictDoNothing();
}

/** Stores for a job the whole plan that any job computed last from the same inputs with the same engine; false when nobody has. */
export async function storeKnownPlan(
  db: Database,
  plan: Omit<Plan, 'createdAt' | 'methods' | 'results' | 'whole'>,
): Promise<boolean> {
  const same = and(
    eq(plans.inputHash, plan.inputHash),
    eq(plans.engineVersion, plan.engineVersion),
    eq(plans.v, plan.v),
    plans.whole,
  );
  const [known] = await db
    .select({ methods: plans.methods, results: plans.results })
    .from(plans)
    .where(same)
    .orderBy(desc(plans.createdAt))
    .limit(1);
  if (known) await storePlan(db, { ...plan, ...known });
  return known !== undefined;
}

const computed = new Kept<Plan>(200);

export async function planById(db: Database, id: string): Promise<Plan | undefined> {
  const found = await computed.all([id], async () => {
    const rows = await db.select().from(plans).where(eq(plans.id, id));
    return rows.map((row) => [row.id, toPlan(row)]);
  });
  return found.get(id);
}
