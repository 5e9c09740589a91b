/** Photos as requests carry them. The work is done in a thread: a picture of twelve megapixels takes seconds. */
import { error, type RequestEvent } from '@sveltejs/kit';
import { inMediaThread } from './mediaThread';
import { whileWanted } from './wanted';

const MOST_BYTES = 25 * 1024 * 1024;

/** The JPEG that a request carries, ready to be stored; 413, 429 or 400 with a sentence otherwise. */
export async function readPhotoBody(event: RequestEvent) {
  const { request } = event;
  if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES)
    error(413, { message: 'A photo of at most 25 MB.' });
  const bytes = new Uint8Array(await request.arrayBuffer());
  if (bytes.length > MOST_BYTES) error(413, { message: 'A photo of at most 25 MB.' });
  const { width, height, image, thumbnail } = await whileWanted(event, (signal) =>
    inMediaThread({ what: 'photo', bytes }, signal),
  );
  return { width, height, image: Buffer.from(image), thumbnail: Buffer.from(thumbnail) };
}
