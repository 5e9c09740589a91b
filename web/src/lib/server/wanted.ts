import type { IncomingMessage } from 'node:http';

/**
 * Does work as long as somebody waits for its answer. The signal of a request tells only of a connection lost while its body was read; afterwards
 * the socket does.
 */
export async function whileWanted<T>(
  { request, platform }: { request: Request; platform?: Readonly<App.Platform> | undefined },
  work: (signal: AbortSignal) => Promise<T>,
): Promise<T> {
  const gone = new AbortController();
  const leave = () => gone.abort();
  const socket = (platform as { req?: IncomingMessage } | undefined)?.req?.socket;
  socket?.once('close', leave);
  try {
    return await work(AbortSignal.any([request.signal, gone.signal]));
  } finally {
    socket?.off('close', leave);
  }
}
