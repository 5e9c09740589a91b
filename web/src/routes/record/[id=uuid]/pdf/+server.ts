import { dayIn } from '$lib/ui/dates';
import { recordOf } from '$lib/release/jobRecord';
import { jobView } from '$lib/server/jobs/jobView';
import { recordPdf } from '$lib/server/recordPdf';
import { pictureOf } from '$lib/server/repositories/photos';
import { shownSettings } from '$lib/server/repositories/settings';

/** Photos printed of each kind. */
const MOST_PHOTOS = 4;

export const GET = async ({ locals, params }) => {
  const view = await jobView(locals.db, params.id);
  const shop = await shownSettings(locals.db);
  const photos = [];
  for (const taken of ['before', 'after'] as const)
    for (const p of view.photos.filter((q) => q.taken === taken).slice(0, MOST_PHOTOS)) {
      const jpeg = await pictureOf(locals.db, p.id, 'image');
      if (jpeg) photos.push({ title: taken === 'before' ? 'Before' : 'After', jpeg });
    }
  const record = recordOf(view, (ms) => dayIn(shop.timeZone, ms));
  const pdf = await recordPdf(shop.name, record, photos);
  return new Response(new Uint8Array(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="orthos-${view.ticket.number}.pdf"`,
    },
  });
};
