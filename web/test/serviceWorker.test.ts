/** The service worker through deployments: a run that is open, or kept, goes on with the files it was begun with. */
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';

type Listener = (event: unknown) => void;
const ORIGIN = 'http://bench.example';
const addressOf = (at: Request | string) => new URL(typeof at === 'string' ? at : at.url, ORIGIN).href;

/** What a browser keeps for an origin; caches in the order they were made. */
function cacheStorage() {
  const all = new Map<string, Map<string, Response>>();
  const find = (name: string, at: Request | string) => all.get(name)?.get(addressOf(at))?.clone();
  const open = async (name: string) => {
    const kept = all.get(name) ?? new Map<string, Response>();
    all.set(name, kept);
    const add = async (at: string) => {
      const answer = await fetch(new Request(addressOf(at)));
      if (!answer.ok) throw new TypeError(`${at}: ${answer.status}`);
      kept.set(addressOf(at), answer);
    };
    return {
      add,
      addAll: async (list: string[]) => {
        for (const at of list) await add(at);
      },
      put: async (at: Request, answer: Response) => void kept.set(addressOf(at), answer),
    };
  };
  return {
    open,
    keys: async () => [...all.keys()],
    delete: async (name: string) => all.delete(name),
    match: async (at: Request, { cacheName }: { cacheName?: string } = {}) =>
      cacheName === undefined ? [...all.keys()].map((n) => find(n, at)).find(Boolean) : find(cacheName, at),
  };
}

/** The server: what it answers under each path; null when it is away. */
let server: Record<string, string> | null;
beforeEach(() => {
  vi.stubGlobal('caches', cacheStorage());
  vi.stubGlobal('fetch', async (request: Request) => {
    if (!server) throw new TypeError('nobody answers');
    const text = server[new URL(request.url).pathname];
    return new Response(text, { status: text === undefined ? 404 : 200 });
  });
});
afterEach(() => vi.unstubAllGlobals());

/** A version comes into use, as a browser does it; gives what its worker answers to a page. */
async function deploy(version: string) {
  const chunk = `/_app/immutable/${version}.js`;
  server = { [chunk]: `code of ${version}`, '/font.woff2': 'a font', '/run/7/remove': `page of ${version}` };
  const heard = new Map<string, Listener>();
  vi.stubGlobal('deployed', { build: [chunk], files: ['/font.woff2'], version });
  vi.stubGlobal('self', {
    addEventListener: (name: string, f: Listener) => heard.set(name, f),
    skipWaiting: async () => {},
    clients: { claim: async () => {} },
    location: new URL(ORIGIN),
  });
  vi.resetModules();
  await import('../src/service-worker.ts');
  const wait = async (name: string) => {
    let done: Promise<unknown> | undefined;
    heard.get(name)?.({ waitUntil: (p: Promise<unknown>) => (done = p) });
    await done;
  };
  await wait('install');
  await wait('activate');
  return async (path: string, mode = 'no-cors') => {
    const request = new Request(addressOf(path));
    Object.defineProperty(request, 'mode', { value: mode });
    let answer: Promise<Response> | undefined;
    heard.get('fetch')?.({ request, respondWith: (p: Promise<Response>) => (answer = p) });
    return answer === undefined ? 'not answered' : (await answer).text();
  };
}

describe('a deployment', () => {
  it('leaves a page of the version before all of its files', async () => {
    await deploy('one');
    const two = await deploy('two');
    expect(await two('/_app/immutable/one.js')).toBe('code of one');
    expect(await two('/_app/immutable/two.js')).toBe('code of two');
  });
  it('leaves a run that was kept before, as long as its server is away', async () => {
    const one = await deploy('one');
    expect(await one('/run/7/remove', 'navigate')).toBe('page of one');
    const two = await deploy('two');
    server = null;
    expect(await two('/run/7/remove', 'navigate')).toBe('page of one');
    expect(await two('/_app/immutable/one.js')).toBe('code of one');
  });
  it('shows the newer page of a run once it was seen', async () => {
    await (
      await deploy('one')
    )('/run/7/remove', 'navigate');
    const two = await deploy('two');
    expect(await two('/run/7/remove', 'navigate')).toBe('page of two');
    server = null;
    expect(await two('/run/7/remove', 'navigate')).toBe('page of two');
  });
  it('keeps no third version, and nothing but runs and own files', async () => {
    for (const version of ['one', 'two', 'three']) await deploy(version);
    expect(await caches.keys()).toEqual(['orthos-two', 'orthos-three']);
    const three = await deploy('three');
    expect(await three('/jobs', 'navigate')).toBe('not answered');
    expect(await three('/font.woff2')).toBe('a font');
  });
});
