import { asc, eq } from 'drizzle-orm';
import { v7 } from 'uuid';
import type { Database } from '../db/connect.ts';
import { ownPackages } from '../db/schema.ts';

/** The shop's own packages by name. */
export async function listOwnPackages(db: Database) {
  return db
    .select({ id: ownPackages.id, label: ownPackages.label, designation: ownPackages.designation })
    .from(ownPackages)
    .orderBy(asc(ownPackages.label));
}

/** False when the name is taken. */
export async function addOwnPackage(db: Database, label: string, designation: string): Promise<boolean> {
  const made = await db
    .insert(ownPackages)
    .values({ id: v7(), label, designation })
    .onConflictDoNothing()
    .returning({ id: ownPackages.id });
  return made.length > 0;
}

/** Takes the name away; boards that use the package keep it, for it is written out in them. */
export async function removeOwnPackage(db: Database, id: string): Promise<void> {
  await db.delete(ownPackages).where(eq(ownPackages.id, id));
}
