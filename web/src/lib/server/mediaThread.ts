/** Photos and drawings are read in threads: one keeps a processor busy, more wait for their turn. */
import { error } from '@sveltejs/kit';
import type { MediaAnswer, MediaJob, MediaResult } from '../../../hosts/media';
import { Lane } from './thread';

const lane = new Lane({ file: 'media.mjs', atOnce: 2, mostWaiting: 20, most_s: 120 });

/** What became of it; an HTTP error with a sentence where nothing could. The bytes are given away. */
export async function inMediaThread<J extends MediaJob>(job: J, signal: AbortSignal): Promise<MediaResult<J>> {
  const answer = await lane.run<MediaAnswer<J>>(job, signal, [job.bytes.buffer as ArrayBuffer]);
  if (answer === 'busy') error(429, { message: 'Many pictures are being read already; try again in a moment.' });
  if (answer === 'stopped') error(422, { message: 'It took too long to read.' });
  if (answer.ok) return answer.result;
  if (answer.refused === undefined) throw new Error(answer.internal);
  error(400, { message: answer.refused });
}
