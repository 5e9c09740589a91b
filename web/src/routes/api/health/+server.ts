import { env } from '$env/dynamic/private';
import { json } from '@sveltejs/kit';

/** Tells `./orthos` that this address is Orthos, and of which clone. */
export const GET = () => json({ app: 'orthos', clone: env.ORTHOS_CLONE ?? '' });
