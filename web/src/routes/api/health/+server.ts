import { env } from '$env/dynamic/private';
import { reached } from '$lib/server/db/connect';
import { json } from '@sveltejs/kit';

/** Tells `./orthos` that this address is Orthos, of which clone, and whether its database answers; 503 when it does not. */
export const GET = async ({ locals }) => {
  const database = await reached(locals.db);
  return json(
    { app: 'orthos', clone: env.ORTHOS_CLONE ?? '', database: database ? 'reached' : 'away' },
    { status: database ? 200 : 503 },
  );
};
