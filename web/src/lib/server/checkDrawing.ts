/** A copper drawing as it is sent: gzip of its JSON, named by the hash of that text. */
import { copperDrawingSchema } from '@orthos/core/copper';
import { textHash } from '@orthos/core/ground';
import { gunzipSync } from 'node:zlib';

/** Text of a drawing at most, bytes. */
const MOST_BYTES = 150_000_000;
/** Numbers of a drawing pack to a fifth or a twentieth; what packs to less than this is none. */
const MOST_PACKED = 100;

export class DrawingError extends Error {}

/** Throws `DrawingError` unless these bytes are the drawing that the hash names. */
export function checkDrawing(hash: string, gzip: Uint8Array): void {
  let text: string;
  try {
    text = gunzipSync(gzip, { maxOutputLength: Math.min(MOST_BYTES, MOST_PACKED * gzip.length) }).toString('utf8');
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
}
