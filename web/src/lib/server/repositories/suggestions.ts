/** Jobs that a newcomer to the demo shop may begin with, and what each shows. */
import { eq } from 'drizzle-orm';
import { z } from 'zod';
import type { Database } from '../db/connect.ts';
import { settings } from '../db/schema.ts';

const KEY = 'suggested-jobs';
const schema = z.array(z.strictObject({ id: z.uuid(), title: z.string(), shows: z.string() }));
export type Suggestion = z.infer<typeof schema>[number];

export async function suggestJobs(db: Database, suggestions: Suggestion[]): Promise<void> {
  await db.insert(settings).values({ key: KEY, value: suggestions }).onConflictDoNothing();
}

export async function suggestionsOf(db: Database): Promise<Suggestion[]> {
  const [row] = await db.select().from(settings).where(eq(settings.key, KEY));
  return row ? schema.parse(row.value) : [];
}
