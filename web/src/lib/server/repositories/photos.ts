import { and, asc, eq, inArray, isNotNull } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { photoBlobs, photos } from '../db/schema.ts';

type NewPhoto = Omit<typeof photos.$inferInsert, 'createdAt'> & { image: Buffer; thumbnail: Buffer };

/** Stores a photo with its thumbnail; picture and description go in together or not at all; the same id twice changes nothing and is false. */
export async function addPhoto(db: Database, { image, thumbnail, ...photo }: NewPhoto): Promise<boolean> {
  return db.transaction(async (tx) => {
    const [stored] = await tx.insert(photos).values(photo).onConflictDoNothing().returning({ id: photos.id });
    if (stored) await tx.insert(photoBlobs).values({ photoId: photo.id, image, thumbnail });
    return stored !== undefined;
  });
}

/** Those of these ids that are stored, in whatever job. */
export async function knownPhotos(db: Database, ids: string[]): Promise<Set<string>> {
  if (ids.length === 0) return new Set();
  const rows = await db.select({ id: photos.id }).from(photos).where(inArray(photos.id, ids));
  return new Set(rows.map((r) => r.id));
}

/** Photos of a job, without the pictures. */
export async function photosOf(db: Database, ticketId: string) {
  return db.select().from(photos).where(eq(photos.ticketId, ticketId)).orderBy(asc(photos.createdAt));
}

export async function pictureOf(db: Database, photoId: string, size: 'image' | 'thumbnail') {
  const [row] = await db.select({ data: photoBlobs[size] }).from(photoBlobs).where(eq(photoBlobs.photoId, photoId));
  return row?.data;
}

/** Takes a photo of a job out; false when there is none. Those under a board model stay: versions name them. */
export async function removePhoto(db: Database, photoId: string): Promise<boolean> {
  const gone = await db
    .delete(photos)
    .where(and(eq(photos.id, photoId), isNotNull(photos.ticketId)))
    .returning({ id: photos.id });
  return gone.length > 0;
}
