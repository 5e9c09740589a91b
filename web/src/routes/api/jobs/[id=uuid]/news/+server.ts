import type { RequestHandler } from './$types';

/** Something is sent this often in any case, so that a reader that is gone is noticed, ms. */
const PULSE_MS = 20_000;

/**
 * Says what of the job was written, in this process or another, as it happens: a row's id, a ticket's version; nothing where something may have been
 * missed (server-sent events).
 */
export const GET: RequestHandler = ({ locals, params }) => {
  const encoder = new TextEncoder();
  let stop = () => undefined as void;
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const say = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          stop();
        }
      };
      const forget = locals.news.of(params.id, (what) => say(`data: ${what}\n\n`));
      const pulse = setInterval(() => say(': here\n\n'), PULSE_MS);
      stop = () => {
        forget();
        clearInterval(pulse);
      };
      say('retry: 2000\n\n');
    },
    cancel: () => stop(),
  });
  return new Response(stream, { headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-store' } });
};
