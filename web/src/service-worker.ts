/// <reference types="@sveltejs/kit" />
/// <reference lib="webworker" />
/**
 * Lets a run that was opened once be opened again while the server is away. The application's own files come from
 * here; pages of a run come from the server, and from here only when it does not answer. Nothing else is kept.
 */
import { build, files, version } from '$service-worker';

const sw = self as unknown as ServiceWorkerGlobalScope;
const KEPT = `orthos-${version}`;
/** What a run never needs, and is large: it is fetched when it is used. */
const LARGE = /\/elk-worker\.|\/workers\/chunks\//;
const own = new Set([...build.filter((file) => !LARGE.test(file)), ...files]);

sw.addEventListener('install', (event) => {
  event.waitUntil(caches.open(KEPT).then((cache) => cache.addAll([...own])));
  void sw.skipWaiting();
});

sw.addEventListener('activate', (event) => {
  const clean = async () => {
    // the version before stays: a run that is open ends with what it was begun with
    const older = (await caches.keys()).filter((name) => name !== KEPT);
    for (const name of older.slice(0, -1)) await caches.delete(name);
    await sw.clients.claim();
  };
  event.waitUntil(clean());
});

sw.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== sw.location.origin) return;
  if (own.has(url.pathname) || url.pathname.startsWith('/_app/immutable/')) event.respondWith(ownFile(request));
  else if (request.mode === 'navigate' && url.pathname.startsWith('/run/')) event.respondWith(runPage(request));
});

/** What is kept under an address, of this version before the one before. */
async function keptOf(request: Request): Promise<Response | undefined> {
  return (await caches.match(request, { cacheName: KEPT })) ?? (await caches.match(request));
}

async function ownFile(request: Request): Promise<Response> {
  return (await keptOf(request)) ?? fetch(request);
}

/** A run's page from the server; the kept one where the server is away, or there but without its database. */
async function runPage(request: Request): Promise<Response> {
  try {
    const answer = await fetch(request);
    if (answer.ok) await (await caches.open(KEPT)).put(request, answer.clone());
    if (answer.status < 500) return answer;
    return (await keptOf(request)) ?? answer;
  } catch (e) {
    const kept = await keptOf(request);
    if (kept) return kept;
    throw e;
  }
}

/** A page that was opened before this worker was there, or without going through it, asks to be kept; told when it is. */
sw.addEventListener('message', (event) => {
  const { keep } = event.data as { keep?: string };
  if (!keep?.startsWith('/run/')) return;
  const kept = async () => {
    const cache = await caches.open(KEPT);
    await cache.add(keep);
    event.ports[0]?.postMessage('kept');
  };
  event.waitUntil(kept().catch(() => event.ports[0]?.postMessage('not kept')));
});
