import { copperDrawingSchema, textHash } from '@orthos/core';
import { eq } from 'drizzle-orm';
import { gunzipSync } from 'node:zlib';
import type { Database } from '../db/connect.ts';
import { boardDrawings } from '../db/schema.ts';

/** Text of a drawing at most, bytes. */
const MOST_BYTES = 150_000_000;

export class DrawingError extends Error {}

/** Stores a gzip of a drawing's JSON under the hash of that text; the same one twice changes nothing. */
export async function addDrawing(db: Database, hash: string, gzip: Buffer): Promise<void> {
  let text: string;
  try {
    text = gunzipSync(gzip, { maxOutputLength: MOST_BYTES }).toString('utf8');
  } catch {
    throw new DrawingError(`No gzip of at most ${MOST_BYTES / 1e6} MB.`);
  }
  if (textHash(text) !== hash) throw new DrawingError('The drawing is not the one its hash names.');
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    throw new DrawingError('The drawing is not JSON.');
  }
  const parsed = copperDrawingSchema.safeParse(value);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new DrawingError(`${issue.path.join('.')}: ${issue.message}`);
  }
  await db.insert(boardDrawings).values({ hash, doc: gzip }).onConflictDoNothing();
}

/** The gzip of a drawing. */
export async function drawingGzip(db: Database, hash: string): Promise<Buffer | undefined> {
  const [row] = await db.select({ doc: boardDrawings.doc }).from(boardDrawings).where(eq(boardDrawings.hash, hash));
  return row?.doc;
}
