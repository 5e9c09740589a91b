import { env } from '$env/dynamic/private';
import { connect, isAway, migrateDatabase, type Database } from '$lib/server/db/connect';
import { seedDemo } from '$lib/server/demo/seedDemo';
import { now } from '$lib/server/clock';
import { News } from '$lib/server/news';
import { json, type Handle, type HandleServerError, type ServerInit } from '@sveltejs/kit';

let db: Database;
let news: News;

export const init: ServerInit = async () => {
  const url = env.DATABASE_URL;
  if (!url) throw new Error('DATABASE_URL is not set: start Orthos with ./orthos start');
  await migrateDatabase(url, env.ORTHOS_MIGRATIONS ?? 'drizzle');
  const connection = connect(url);
  db = connection.db;
  news = new News(url);
  process.once('sveltekit:shutdown', () => {
    void connection.close();
    void news.close();
  });
  if (env.ORTHOS_DEMO === '1') await seedDemo(db, now());
};

/** Most bytes of a body; the first pattern that fits the path decides. */
const MOST_BODY: [RegExp, number][] = [
  [/^\/api\/(jobs|boards)\/[^/]+\/photos$/, 25 * 1024 * 1024],
  [/^\/api\/boards\/drawings\/[^/]+$/, 24_000_000],
  // a board model of thousands of parts
  [/^\/api\/boards(\/[^/]+\/draft)?$/, 8_000_000],
  [/^\/api\/calc\/board\.import$/, 16_000_000],
  [/^/, 1_000_000],
];

const LOOPBACK = new Set(['127.0.0.1', 'localhost', '[::1]']);

/**
 * Only this machine is served (no sign-in yet): other Host names are a rebinding attempt, another
 * Origin on anything but reading is another site's page.
 */
export const handle: Handle = async ({ event, resolve }) => {
  const { request, url } = event;
  event.locals.db = db;
  event.locals.news = news;
  // a page that asks for its data here was looked at when it was asked for
  if (event.isSubRequest) return resolve(event);
  const host = request.headers.get('host') ?? '';
  const hostname = host.replace(/:\d+$/, '');
  if (!LOOPBACK.has(hostname)) return json({ message: 'This address is not served.' }, { status: 421 });
  if (hostname === 'localhost' && env.ORIGIN && request.method === 'GET')
    return Response.redirect(new URL(url.pathname + url.search, env.ORIGIN), 307);
  if (request.method !== 'GET' && request.method !== 'HEAD') {
    const origin = request.headers.get('origin');
    if (origin !== url.origin)
      return json({ message: 'Refused: the request does not come from this page.' }, { status: 403 });
    if (request.headers.has('transfer-encoding')) return json({ message: 'Say how long it is.' }, { status: 411 });
    const [, most] = MOST_BODY.find(([path]) => path.test(url.pathname)) ?? [null, 0];
    if (Number(request.headers.get('content-length') ?? 0) > most)
      // the body stays unread: the connection cannot be used again
      return json(
        { message: `At most ${Math.round(most / 1e6)} MB.` },
        { status: 413, headers: { connection: 'close' } },
      );
  }
  if ((url.pathname + url.search).includes('%00'))
    return json({ message: 'This address holds a character that cannot be written down.' }, { status: 400 });
  const action = [...url.searchParams.keys()].find((key) => key.startsWith('/'));
  if (action && action.slice(1) in Object.prototype)
    return json({ message: 'There is no such action.' }, { status: 404 });
  const theme = event.cookies.get('theme') === 'scope' ? 'scope' : 'day';
  const response = await resolve(event, {
    transformPageChunk: ({ html }) => html.replace('%orthos.theme%', theme),
  });
  response.headers.set('x-content-type-options', 'nosniff');
  response.headers.set('referrer-policy', 'same-origin');
  return response;
};

export const handleError: HandleServerError = ({ error, event, status, message }) => {
  if (status === 404) return { message: 'There is nothing at this address.' };
  if (status < 500) return { message };
  if (isAway(error)) {
    console.error(`${event.request.method} ${event.url.pathname}: the database is away`);
    return {
      message:
        'The database does not answer; it is started again by itself. Nothing was changed; try again in a moment.',
    };
  }
  console.error(`${event.request.method} ${event.url.pathname}:`, error);
  return { message: 'Something went wrong on our side. Nothing was changed; try again.' };
};
