/** What is really wrong with a demo job's board: known to the simulated meter only. */
import { type Fault, faultSchema } from '@orthos/core/circuit';
import { eq } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { settings } from '../db/schema.ts';

const key = (ticketId: string) => `hidden-fault:${ticketId}`;

export async function hideFault(db: Database, ticketId: string, faults: Fault[]): Promise<void> {
  await db
    .insert(settings)
    .values({ key: key(ticketId), value: faults })
    .onConflictDoNothing();
}

/** The faults of a job's board, none for a sound one; null for a job that hides nothing. */
export async function hiddenFaultsOf(db: Database, ticketId: string): Promise<Fault[] | null> {
  const [row] = await db
    .select()
    .from(settings)
    .where(eq(settings.key, key(ticketId)));
  return row ? faultSchema.array().parse(row.value) : null;
}
