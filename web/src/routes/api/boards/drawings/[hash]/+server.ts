import { inMediaThread } from '$lib/server/mediaThread';
import { addDrawing, drawingGzip } from '$lib/server/repositories/boardDrawings';
import { whileWanted } from '$lib/server/wanted';
import { error, json } from '@sveltejs/kit';

const MOST_BYTES = 24_000_000;

/** Stores the gzip of a copper drawing under its hash. */
export const PUT = async (event) => {
  const { locals, params, request } = event;
  if (!/^[0-9a-f]{64}$/.test(params.hash)) error(400, { message: 'The hash is 64 hexadecimal digits.' });
  if (Number(request.headers.get('content-length') ?? 0) > MOST_BYTES)
    error(413, { message: 'A drawing of at most 24 MB, packed.' });
  const sent = new Uint8Array(await request.arrayBuffer());
  if (sent.length > MOST_BYTES) error(413, { message: 'A drawing of at most 24 MB, packed.' });
  const { bytes } = await whileWanted(event, (signal) =>
    inMediaThread({ what: 'drawing', hash: params.hash, bytes: sent }, signal),
  );
  await addDrawing(locals.db, params.hash, Buffer.from(bytes));
  return json({ hash: params.hash }, { status: 201 });
};

/** The drawing as JSON; browsers unpack it by themselves. */
export const GET = async ({ locals, params }) => {
  const gzip = await drawingGzip(locals.db, params.hash);
  if (!gzip) error(404, { message: 'There is no such drawing.' });
  return new Response(new Uint8Array(gzip), {
    headers: {
      'content-type': 'application/json',
      'content-encoding': 'gzip',
      'cache-control': 'private, max-age=31536000, immutable',
    },
  });
};
