/** Photos on their way into a job, wherever they come from: chosen, pasted, dropped, from the shop's folder. */
import { Bytes, send, SendError } from '$lib/jobs/send';
import { type Step, STEPS } from '@orthos/core/hands';
import { v7 } from 'uuid';
import { smaller } from './smaller';

export type Taken = 'before' | 'during' | 'after';

/** What a photo taken while this step is open shows. */
export function takenAt(step: Step): Taken {
  const at = STEPS.indexOf(step);
  if (at < STEPS.indexOf('remove')) return 'before';
  return at < STEPS.indexOf('verify') ? 'during' : 'after';
}

export interface Stored {
  id: string;
  /** False where this very photo was there before. */
  stored: boolean;
}

/** Makes a picture smaller and stores it. Throws with a sentence; nothing is stored then. */
export async function storePhoto(ticketId: string, picture: Blob, taken: Taken, id: string = v7()): Promise<Stored> {
  let body: Blob;
  try {
    body = await smaller(picture);
  } catch {
    const name = picture instanceof File && picture.name ? picture.name : 'It';
    throw new Error(`${name} is not a picture this browser can read. Nothing was stored.`);
  }
  const query = new URLSearchParams({ id, taken });
  return (await send('POST', `/api/jobs/${ticketId}/photos?${query}`, new Bytes(body, 'image/jpeg'))) as Stored;
}

/** The pictures among what was pasted or dropped. */
export const picturesIn = (data: DataTransfer | null): File[] =>
  [...(data?.files ?? [])].filter((f) => f.type.startsWith('image/'));

export interface Arrived {
  name: string;
  id: string;
}

/** What has come into the shop's folder since `since`, ms of the server's clock; without it only what the clock says. */
export async function arrivedSince(since: number | null): Promise<{ now: number; photos: Arrived[] }> {
  const query = since === null ? '' : `?since=${since}`;
  return (await send('GET', `/api/photos/arrived${query}`)) as { now: number; photos: Arrived[] };
}

/** The picture of that name in the folder. */
export async function fetchArrived({ name }: Arrived): Promise<File> {
  const answer = await fetch(`/api/photos/arrived/${encodeURIComponent(name)}`);
  if (!answer.ok) throw new SendError(answer.status, `${name} could not be read from the folder.`);
  return new File([await answer.blob()], name);
}
