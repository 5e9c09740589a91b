import { dayIn } from '$lib/ui/dates';
import { recordOf } from '$lib/release/jobRecord';
import { sideBySide } from '$lib/release/recordSummary';
import { jobView } from '$lib/server/jobs/jobView';
import { recordPdf } from '$lib/server/recordPdf';
import { pictureOf } from '$lib/server/repositories/photos';
import { shownSettings } from '$lib/server/repositories/settings';

/** Rows of photos that are printed. */
const MOST_PHOTOS = 4;

export const GET = async ({ locals, params }) => {
  const view = await jobView(locals.db, params.id);
  const shop = await shownSettings(locals.db);
  const picture = async (p: (typeof view.photos)[number] | undefined) =>
    (p && (await pictureOf(locals.db, p.id, 'image'))) || undefined;
  const photos: [Buffer | undefined, Buffer | undefined][] = [];
  for (const [before, after] of sideBySide(view.photos).slice(0, MOST_PHOTOS))
    photos.push([await picture(before), await picture(after)]);
  const record = recordOf(view, (ms) => dayIn(shop.timeZone, ms));
  const pdf = await recordPdf(shop.name, record, photos);
  return new Response(new Uint8Array(pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `inline; filename="orthos-${view.ticket.number}.pdf"`,
    },
  });
};
