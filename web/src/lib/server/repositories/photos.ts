import { asc, eq } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { photoBlobs, photos } from '../db/schema.ts';

type NewPhoto = Omit<typeof photos.$inferInsert, 'createdAt'> & { image: Buffer; thumbnail: Buffer };

/** Stores a photo with its thumbnail; picture and description go in together or not at all. */
export async function addPhoto(db: Database, { image, thumbnail, ...photo }: NewPhoto): Promise<void> {
  await db.transaction(async (tx) => {
    await tx.insert(photos).values(photo);
    await tx.insert(photoBlobs).values({ photoId: photo.id, image, thumbnail });
  });
}

/** Photos of a job, without the pictures. */
export async function photosOf(db: Database, ticketId: string) {
  return db.select().from(photos).where(eq(photos.ticketId, ticketId)).orderBy(asc(photos.createdAt));
}

export async function pictureOf(db: Database, photoId: string, size: 'image' | 'thumbnail') {
  const [row] = await db.select({ data: photoBlobs[size] }).from(photoBlobs).where(eq(photoBlobs.photoId, photoId));
  return row?.data;
}
