/** One photo or drawing in a server thread: bytes as workerData, one message back. */
import { parentPort, workerData } from 'node:worker_threads';
import { checkDrawing, DrawingError } from '../src/lib/server/checkDrawing.ts';
import { PhotoError, readPhoto } from '../src/lib/server/readPhoto.ts';

interface PhotoJob {
  what: 'photo';
  bytes: Uint8Array;
}
interface DrawingJob {
  what: 'drawing';
  hash: string;
  bytes: Uint8Array;
}
export type MediaJob = PhotoJob | DrawingJob;
export type MediaResult<J extends MediaJob> = J extends PhotoJob
  ? { width: number; height: number; image: Uint8Array; thumbnail: Uint8Array }
  : { bytes: Uint8Array };
export type MediaAnswer<J extends MediaJob> =
  | { ok: true; result: MediaResult<J> }
  | { ok: false; refused: string }
  | { ok: false; refused?: undefined; internal: string };

function work(job: MediaJob): MediaResult<MediaJob> {
  if (job.what === 'photo') {
    const { width, height, image, thumbnail } = readPhoto(job.bytes);
    return { width, height, image: new Uint8Array(image), thumbnail: new Uint8Array(thumbnail) };
  }
  checkDrawing(job.hash, job.bytes);
  return { bytes: job.bytes };
}

const post = (answer: MediaAnswer<MediaJob>) => parentPort?.postMessage(answer);
try {
  post({ ok: true, result: work(workerData as MediaJob) });
} catch (error) {
  const { message } = error as Error;
  if (error instanceof PhotoError || error instanceof DrawingError) post({ ok: false, refused: message });
  else post({ ok: false, internal: message });
}
