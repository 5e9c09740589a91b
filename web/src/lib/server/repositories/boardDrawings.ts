import { eq } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { boardDrawings } from '../db/schema.ts';

/** Stores a gzip of a drawing's JSON, checked before, under the hash of that text; the same one twice changes nothing. */
export async function addDrawing(db: Database, hash: string, gzip: Buffer): Promise<void> {
  await db.insert(boardDrawings).values({ hash, doc: gzip }).onConflictDoNothing();
}

/** The gzip of a drawing. */
export async function drawingGzip(db: Database, hash: string): Promise<Buffer | undefined> {
  const [row] = await db.select({ doc: boardDrawings.doc }).from(boardDrawings).where(eq(boardDrawings.hash, hash));
  return row?.doc;
}
