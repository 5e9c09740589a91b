import { expect } from '@playwright/test';
import { blankBoard } from '@orthos/core/board';
import { spawnSync } from 'node:child_process';
import jpeg from 'jpeg-js';
import { callOff, openJob, openRun, planReady, record, seemsFine, tap, test, uuid7 } from './helpers.ts';

const NOBODY = '01890000-0000-7000-8000-000000000000';
const INTAKE_PARTS = ['Tried', 'Opening', 'Damage', 'Offer', 'Before'];
const DIAGNOSE_PARTS = ['Sheet', 'Circuit', 'Rail', 'Current', 'Routine'];
const RUN = '019ac000-0000-4000-8000-0000000000c1';
const BLANK = blankBoard('Blank', 50, 40, 2, 1.6);
const EVENT = { id: '01990000-0000-7000-8000-000000000001', body: { type: 'observation', text: 'seen' } };

/** An open job without a target: which ones are, other tests decide. */
async function aJob(request: import('@playwright/test').APIRequestContext): Promise<string> {
  const { jobs } = (await (await request.get('/api/find?q=')).json()) as { jobs: { id: string }[] };
  for (const { id } of jobs) {
    const { inputs } = (await (await request.get(`/api/jobs/${id}`)).json()) as { inputs: unknown };
    if (inputs === null) return id;
  }
  throw new Error('every open job has a target');
}

test('pages that are not there answer 404 with a sentence', async ({ request }) => {
  for (const path of [
    `/jobs/${NOBODY}`,
    `/jobs/${NOBODY}/plan`,
    `/run/${NOBODY}/remove`,
    `/run/${NOBODY}/dance`,
    `/record/${NOBODY}`,
    `/record/${NOBODY}/pdf`,
    `/label/${NOBODY}`,
    `/api/photos/${NOBODY}`,
    '/jobs/none',
    `/boards/${NOBODY}`,
    `/boards/${NOBODY}/edit`,
    `/boards/${NOBODY}/compare`,
    `/boards/${NOBODY}/file`,
    `/api/boards/${NOBODY}/draft`,
    `/api/boards/drawings/${'0'.repeat(64)}`,
    '/boards/x',
    '/nowhere',
  ])
    expect((await request.get(path)).status(), path).toBe(404);
});

test('bad bodies are refused with the field, and change nothing', async ({ request, baseURL }) => {
  const id = await aJob(request);
  const headers = { origin: baseURL ?? '' };
  const send = (method: 'POST' | 'PUT', path: string, data: unknown) =>
    request.fetch(path, { method, headers, data: data as string });
  const before = await (await request.get(`/api/jobs/${id}`)).text();
  const cases: ['POST' | 'PUT', string, unknown, number, string][] = [
    ['POST', `/api/jobs/${id}/events`, {}, 400, 'id'],
    ['POST', `/api/jobs/${id}/first-power`, { volts: 0 }, 400, 'volts'],
    ['POST', `/api/jobs/${id}/first-power`, { volts: 12, watch: { net: '5V', volts: 'much' } }, 400, 'watch.volts'],
    ['POST', `/api/jobs/${id}/events`, { ...EVENT, extra: 1 }, 400, 'extra'],
    ['POST', `/api/jobs/${id}/events`, { ...EVENT, body: { type: 'party' } }, 400, 'body.type'],
    [
      'POST',
      `/api/jobs/${id}/events`,
      { ...EVENT, body: { type: 'suspect', partId: 'zz9', why: 'x' } },
      400,
      'body.partId',
    ],
    [
      'POST',
      `/api/jobs/${id}/events`,
      { ...EVENT, body: { type: 'withdrawn', eventId: 'none', why: 'x' } },
      400,
      'body.eventId',
    ],
    [
      'POST',
      `/api/jobs/${id}/events`,
      { ...EVENT, body: { type: 'plan', planId: NOBODY, label: 'x' } },
      400,
      'body.planId',
    ],
    [
      'POST',
      `/api/jobs/${id}/events`,
      { ...EVENT, body: { type: 'power-gone', sourceId: 'sun', how: 'x' } },
      400,
      'body.sourceId',
    ],
    ['POST', `/api/jobs/${NOBODY}/events`, EVENT, 404, 'no such job'],
    ['POST', `/api/jobs/${id}/events`, { ...EVENT, at: 9e15 }, 400, 'at'],
    ...(
      [
        [{ type: 'mark', runId: RUN, instruction: 'flux', what: 'done' }, 'body.runId'],
        [{ type: 'mark', runId: RUN, instruction: 'flux', what: 'jumped' }, 'body.what'],
        [{ type: 'run-ended', runId: RUN, outcome: 'finished' }, 'body.runId'],
        [{ type: 'joint', runId: RUN, terminal: '1', state: 'done' }, 'body.runId'],
        [{ type: 'slip', kind: 'sneezed' }, 'body.kind'],
        [{ type: 'slip-checked', slipId: 'none', ok: true, result: 'x' }, 'body.slipId'],
        [{ type: 'mark-moved', eventId: 'none', to: 1 }, 'body.eventId'],
        [{ type: 'target-confirmed', landmarks: ['moon', 'sun'] }, 'body.landmarks'],
        [{ type: 'target-confirmed', landmarks: ['hole-nw'] }, 'two landmarks'],
        [{ type: 'neighbour-accepted', partId: 'zz9', why: 'x' }, 'body.partId'],
        [{ type: 'override', gate: 'lands', why: 'x' }, 'body.gate'],
        [{ type: 'orientation-checked', against: [] }, 'body.against'],
        [{ type: 'short-check', rail: '5V', load: null, ohm: 4, good_ohm: -1, nature: null }, 'body.good_ohm'],
        [{ type: 'power-gone', sourceId: 'cell', how: 'x', residual_V: -4 }, 'body.residual_V'],
        [{ type: 'released', outcome: 'lost' }, 'body.outcome'],
        [{ type: 'released', outcome: 'declined', reason: 'no wish' }, 'body.reason'],
        [{ type: 'opened', kind: 'screw', what: '', count: 0 }, 'body.count'],
        [{ type: 'closed-again', stepId: 'none' }, 'body.stepId'],
        [{ type: 'damage', kind: 'crack', whose: 'theirs', note: '' }, 'body.whose'],
        [{ type: 'offer-taken', tier: 'none' }, 'body.tier'],
        [{ type: 'swapped', partId: 'zz9', followed: true }, 'body.partId'],
        [{ type: 'routine-step', routineId: NOBODY, step: 'x', result: 'off' }, 'body.routineId'],
        [
          { type: 'profile', net: '3V3', current_A: 0, injection: { x_mm: 0, y_mm: 0, side: 'top' }, points: [] },
          'body.current_A',
        ],
        [
          {
            type: 'pair',
            faults: [
              { ref: 'C1', mode: 'sad' },
              { ref: 'C2', mode: 'short' },
            ],
          },
          'body.faults',
        ],
      ] as const
    ).map(([body, says]): ['POST', string, unknown, number, string] => [
      'POST',
      `/api/jobs/${id}/events`,
      { ...EVENT, body },
      400,
      says,
    ]),
    ['PUT', `/api/jobs/${id}/ticket`, { version: 1 }, 400, 'kind'],
    ['PUT', `/api/jobs/${NOBODY}/ticket`, {}, 404, 'no such job'],
    ['POST', '/api/routines', { name: '', steps: [], modelIds: [] }, 400, 'name'],
    ['POST', '/api/routines', { id: EVENT.id, name: 'x', steps: [], modelIds: [NOBODY] }, 400, 'no such board model'],
    ['PUT', `/api/routines/${NOBODY}`, {}, 404, 'no such routine'],
    ['POST', `/api/boards/${NOBODY}/start-ups`, {}, 404, 'no such board model'],
    ['POST', `/api/jobs/${id}/reopen`, {}, 409, 'still open'],
    ['POST', `/api/jobs/${NOBODY}/reopen`, {}, 404, 'no such job'],
    ['POST', `/api/jobs/${id}/photos`, {}, 400, 'id'],
    ['POST', `/api/jobs/${id}/photos?id=${EVENT.id}&taken=never`, {}, 400, 'taken'],
    ['POST', `/api/jobs/${id}/photos?id=${EVENT.id}&taken=after`, {}, 400, 'JPEG'],
    ['POST', `/api/jobs/${NOBODY}/photos?id=${EVENT.id}&taken=after`, {}, 404, 'no such job'],
    ['POST', '/api/calc/plan.bench', { seed: -1 }, 400, 'plan'],
    [
      'POST',
      `/api/jobs/${id}/events`,
      { ...EVENT, body: { type: 'observation', text: 'x'.repeat(1_100_000) } },
      413,
      '1 MB',
    ],
    ['POST', `/api/jobs/${id}/plans`, { id: EVENT.id }, 400, 'inputHash'],
    [
      'POST',
      `/api/jobs/${id}/plans`,
      { id: EVENT.id, inputHash: 'a'.repeat(64), engineVersion: 1, results: {} },
      409,
      'target',
    ],
    ['PUT', `/api/jobs/${id}/plan-settings`, { version: 1 }, 400, 'settings'],
    [
      'PUT',
      `/api/jobs/${NOBODY}/plan-settings`,
      { version: 1, settings: { v: 1, stationId: NOBODY, ironId: NOBODY, ambient_C: 20, methods: [] } },
      400,
      'methods',
    ],
    ['POST', '/api/boards', { id: EVENT.id }, 400, 'doc'],
    ['POST', '/api/boards', { id: EVENT.id, doc: BLANK, publish: 'yes' }, 400, 'publish'],
    ['POST', '/api/boards', { id: EVENT.id, doc: { ...BLANK, drawing: 'a'.repeat(64) } }, 409, 'drawing'],
    ['POST', '/api/boards', { id: EVENT.id, doc: { ...BLANK, thickness_mm: 1e9 } }, 400, 'doc.thickness_mm'],
    ['PUT', `/api/boards/drawings/${'a'.repeat(64)}`, {}, 400, 'gzip'],
    ['PUT', '/api/boards/drawings/short', {}, 400, '64 hexadecimal'],
    ['PUT', `/api/boards/${NOBODY}/draft`, { version: 1, doc: BLANK }, 404, 'no such board'],
    ['POST', `/api/boards/${NOBODY}/publish`, {}, 404, 'no such board'],
    ['POST', `/api/boards/${NOBODY}/copy`, { id: EVENT.id, name: 'x' }, 404, 'no such board'],
    ['POST', `/api/boards/${NOBODY}/photos?id=${EVENT.id}&side=top`, {}, 404, 'no such board'],
    ['POST', `/api/boards/${NOBODY}/photos?id=${EVENT.id}&side=left`, {}, 400, 'side'],
    ['POST', '/api/calc/board.import', { name: 'x', bytes: 'aGVsbG8=' }, 400, 'text outside of brackets'],
    ['POST', '/api/calc/heat.magic', {}, 404, 'heat.field'],
    ['POST', '/api/calc/joint.volume', {}, 400, 'wt'],
    ['POST', '/api/calc/heat.field', { probes: [{ name: 'p', t: 1, node: 'x' }] }, 400, 'board'],
    ['POST', '/api/calc/heat.field', { nodes: [{ id: 'b', type: 'body', C: -1 }], probes: [] }, 400, 'nodes.0.C'],
  ];
  for (const [method, path, data, status, says] of cases) {
    const answer = await send(method, path, data);
    expect(answer.status(), `${method} ${path} ${JSON.stringify(data)}`).toBe(status);
    expect(await answer.text()).toContain(says);
  }
  for (const path of [`/api/jobs/${id}/events`, '/api/calc/joint.volume'])
    expect(
      (
        await request.fetch(path, {
          method: 'POST',
          headers: { ...headers, 'content-type': 'application/json' },
          data: Buffer.from('{"a":'),
        })
      ).status(),
    ).toBe(400);
  expect(await (await request.get(`/api/jobs/${id}`)).text()).toBe(before);
});

test('nothing from outside is answered by 500: texts that cannot be written, numbers without end, names of the language', async ({
  request,
  baseURL,
}) => {
  const id = await aJob(request);
  const headers = { origin: baseURL ?? '' };
  const json = { ...headers, 'content-type': 'application/json' };
  const ticket = { kind: 'repair', device: 'x', complaint: 'y', inBox: '', waitsFor: '', promisedOn: null };
  const deep = (levels: number) => `${'['.repeat(levels)}${']'.repeat(levels)}`;
  const html = { ...headers, accept: 'text/html' };
  const form = (fields: Record<string, string>) => ({ headers: html, form: fields, maxRedirects: 0 });
  const job = {
    ...{ customer: 'a', contact: '', device: 'x', serial: '', complaint: 'c', inBox: '', kind: 'repair' },
    modelId: 'not-here',
    width: '40',
    height: '30',
  };
  const body = (data: string) => ({ headers: json, data: Buffer.from(data) });
  const tries: [what: string, () => Promise<import('@playwright/test').APIResponse>][] = [
    ...['\\u0000', '\\ud800'].flatMap((bad): typeof tries => [
      [
        `event ${bad}`,
        () =>
          request.post(
            `/api/jobs/${id}/events`,
            body(`{"id":"${EVENT.id}","body":{"type":"observation","text":"a${bad}b"}}`),
          ),
      ],
      [`name ${bad}`, () => request.post(`/api/jobs/${id}/events`, body(`{"id":"${EVENT.id}","a${bad}":1}`))],
      [
        `ticket ${bad}`,
        () =>
          request.put(
            `/api/jobs/${id}/ticket`,
            body(JSON.stringify({ ...ticket, version: 1, device: '@' }).replace('@', `a${bad}`)),
          ),
      ],
    ]),
    ['search', () => request.get('/jobs?q=%00')],
    ['find', () => request.get('/api/find?q=a%00b')],
    ['bytes that are no text', () => request.get('/jobs?q=%ff%fe')],
    ['version', () => request.put(`/api/jobs/${id}/ticket`, { headers, data: { ...ticket, version: 3e9 } })],
    ['settings version', () => request.post('/settings', form({ version: '99999999999', name: 'x' }))],
    [
      'day',
      () =>
        request.put(`/api/jobs/${id}/ticket`, { headers, data: { ...ticket, version: 1, promisedOn: '0000-01-01' } }),
    ],
    ['day of a new job', () => request.post('/jobs/new', form({ ...job, promisedOn: '0000-01-01' }))],
    ['NUL in a form', () => request.post('/jobs/new', form({ ...job, device: 'a\0b', promisedOn: '' }))],
    ['page', () => request.get('/jobs?closed=1&before=1e300')],
    ['page after', () => request.get('/jobs?closed=1&after=99999999999')],
    ['log after what is no entry', () => request.get(`/api/jobs/${id}?after=x%FF`)],
    ['a file as what it is not', () => request.get('/boards')],
    ...['__proto__', 'constructor', 'toString'].flatMap((name): typeof tries => [
      [`action ${name}`, () => request.post(`/kit?/${name}`, form({}))],
    ]),
    [
      'a form that is none',
      () =>
        request.post('/settings', {
          headers: { ...html, 'content-type': 'multipart/form-data; boundary=x' },
          data: Buffer.from('--x\r\nbroken'),
        }),
    ],
    [
      'a form of another kind',
      () =>
        request.post('/settings', {
          headers: { ...html, 'content-type': 'multipart/form-data' },
          data: Buffer.from('x'),
        }),
    ],
    ['deep', () => request.post(`/api/jobs/${id}/events`, body(deep(200_000)))],
    ['deep calculation', () => request.post('/api/calc/joint.volume', body(`{"wt":${deep(50_000)}}`))],
    [
      'deep settings',
      () => request.put(`/api/jobs/${id}/plan-settings`, body(`{"version":1,"settings":${deep(5000)}}`)),
    ],
  ];
  for (const [what, act] of tries) {
    const answer = await act();
    expect(answer.status(), what).toBeLessThan(500);
    if (
      ![
        'search',
        'find',
        'bytes that are no text',
        'page',
        'page after',
        'log after what is no entry',
        'a file as what it is not',
      ].includes(what)
    )
      expect(answer.status(), what).toBeGreaterThanOrEqual(400);
  }
  expect(await aJob(request)).toBeTruthy();
  const boards = await (await request.get('/boards')).text();
  const model = /\/boards\/([0-9a-f-]{36})/.exec(boards)?.[1] ?? '';
  for (const as of ['__proto__', 'constructor', 'hasOwnProperty'])
    expect((await request.get(`/boards/${model}/file?as=${as}`)).status(), as).toBe(400);
});

test('a calculation that nobody waits for any more gives its place back at once', async ({ request, baseURL }) => {
  const origin = baseURL ?? '';
  const long = {
    board: { lx: 0.1, ly: 0.1, nx: 60, ny: 60, layers: [{ dz: 1e-3, kx: 1, ky: 1, kz: 1, rhoc: 1e6 }] },
    probes: [{ name: 'a', t: 600, x: 0, y: 0, layer: 0 }],
  };
  const ask = (signal?: AbortSignal) =>
    fetch(`${origin}/api/calc/heat.field`, {
      method: 'POST',
      headers: { origin, 'content-type': 'application/json' },
      body: JSON.stringify(long),
      signal,
    });
  for (let n = 0; n < 3; n++) {
    const left = new AbortController();
    const gone = [ask(left.signal), ask(left.signal)].map((p) => p.catch(() => undefined));
    await new Promise((done) => setTimeout(done, 300));
    left.abort();
    await Promise.all(gone);
    const next = async () => (await request.post('/api/calc/joint.volume', { headers: { origin }, data: {} })).status();
    // the input is wrong, but it was looked at; the server hears of who left a moment later
    await expect.poll(next, { timeout: 2000 }).toBe(400);
  }
});

test('photos are read beside the requests: pages answer while twelve megapixels are on their way', async ({
  request,
  baseURL,
}) => {
  const origin = baseURL ?? '';
  const id = await aJob(request);
  const [w, h] = [4000, 3000];
  const data = Buffer.alloc(w * h * 4);
  for (let n = 0; n < data.length; n++) data[n] = (n >> 12) & 255;
  const bytes = jpeg.encode({ width: w, height: h, data }, 60).data;
  let done = false;
  const sent = request
    .post(`/api/jobs/${id}/photos?id=${uuid7()}&taken=after`, {
      headers: { origin, 'content-type': 'image/jpeg' },
      data: bytes,
      timeout: 85_000,
    })
    .finally(() => (done = true));
  let answered = 0;
  while (!done) {
    await request.get('/api/health');
    answered++;
  }
  expect((await sent).status()).toBe(201);
  // read in the server's own thread, the picture kept everybody waiting for seconds
  expect(answered).toBeGreaterThan(10);
});

test('forms refuse bad input with 400 and keep what was typed', async ({ request, baseURL }) => {
  const headers = { origin: baseURL ?? '', accept: 'text/html' };
  for (const [path, form] of [
    ['/jobs/new', { customer: '', device: 'x' }],
    [
      '/jobs/new',
      {
        customer: 'a',
        contact: '',
        device: 'x',
        serial: '',
        complaint: 'c',
        inBox: '',
        kind: 'repair',
        modelId: NOBODY,
        promisedOn: '',
      },
    ],
    ['/jobs/express?/fresh', { package: 'nothing' }],
    ['/jobs/express?/again', { id: 'nobody' }],
    ['/boards/new', { name: '', width: '5', height: 'x', layers: '2', thickness: '1' }],
    ['/boards/packages?/add', { label: 'x', designation: 'gull-rows:pins=9' }],
    ['/boards/packages?/remove', { id: 'x' }],
    ['/settings', { name: '' }],
    ['/kit?/save', { id: 'nobody' }],
    ['/kit?/add', { kind: 'hammer' }],
    ['/kit?/list', { kind: 'kitchen', name: 'x' }],
    ['/kit?/list', { kind: 'full', name: ' ' }],
    ['/kit?/putBack', { item: '{"kind":"iron"}' }],
    ['/kit?/putBack', { item: 'no JSON' }],
  ] as [string, Record<string, string>][]) {
    const answer = await request.post(path, { headers, form, maxRedirects: 0 });
    expect(answer.status(), path).toBeGreaterThanOrEqual(400);
    expect(answer.status(), path).toBeLessThan(500);
  }
});

test('calculations answer over HTTP as on the command line', async ({ request, baseURL }) => {
  const headers = { origin: baseURL ?? '' };
  const answer = await request.post('/api/calc/heat.field', {
    headers,
    data: { nodes: [{ id: 'b', type: 'body', C: 0.4, hA: 0.02, P: 4 }], probes: [{ name: 'p', t: 20, node: 'b' }] },
  });
  const { probes } = (await answer.json()) as { probes: { value: number }[] };
  expect(probes[0].value).toBeCloseTo(20 + 200 * (1 - Math.exp(-1)), 1);
  const large = (side: number) => ({
    board: { lx: 1, ly: 1, nx: side, ny: side, layers: [{ dz: 1e-3, kx: 1, ky: 1, kz: 1, rhoc: 1e6 }] },
    probes: [{ name: 'a', t: 1000, x: 0, y: 0, layer: 0 }],
  });
  for (const [side, why] of [
    [600, 'limit here is 10 s'],
    [2000, '4000000 cells take 512 MB, at most 64'],
  ] as const) {
    const refused = await request.post('/api/calc/heat.field', { headers, data: large(side) });
    expect(refused.status()).toBe(400);
    expect(await refused.text()).toContain(why);
  }
});

test('other hosts and other sites are refused; pages carry a strict content policy', async ({ request, baseURL }) => {
  expect((await request.get('/jobs', { headers: { host: 'orthos.example' } })).status()).toBe(421);
  const foreign = await request.post('/api/calc/joint.volume', {
    headers: { origin: 'http://elsewhere.example' },
    data: {},
  });
  expect(foreign.status()).toBe(403);
  expect((await request.post('/api/calc/joint.volume', { data: {} })).status()).toBe(403);
  const page = await request.get('/jobs');
  const policy = page.headers()['content-security-policy'];
  expect(policy).toContain("default-src 'self'");
  expect(policy).not.toContain('unsafe-inline');
  expect(policy).toContain("frame-ancestors 'none'");
  expect(page.headers()['x-content-type-options']).toBe('nosniff');
  expect(baseURL).toContain('127.0.0.1');
});

test('axe finds nothing serious on any main view, by day and under the scope', async ({ page }) => {
  test.setTimeout(180_000);
  const scan = (name: string) => seemsFine(page, name);
  for (const path of [
    '/jobs',
    '/jobs?closed=1',
    '/jobs?q=zzzz',
    '/jobs/new',
    '/jobs/express',
    '/boards',
    '/boards/new',
    '/boards/import',
    '/boards/packages',
    '/kit',
    '/settings',
    '/calculate',
    '/calculate/melt',
    '/calculate/mixture',
    '/calculate/amount',
    '/calculate/rounds',
  ]) {
    await page.goto(path);
    await scan(`${path}`);
  }
  await page.goto('/boards');
  await page
    .getByRole('link', { name: /^Gantry 1/ })
    .or(page.getByRole('link', { name: /^Gantry industrial/ }))
    .first()
    .click();
  await page.waitForURL(/boards\/[0-9a-f-]{36}$/);
  const board = page.url();
  for (const view of ['Nets', 'Versions', 'Parts']) {
    await page.getByRole('tablist', { name: 'Show' }).getByRole('tab', { name: view }).click();
    await scan(`board, ${view}`);
  }
  await page.goto(`${board}/compare?from=1&to=draft`);
  await scan(`compare`);
  await page.goto(`${board}/edit`);
  for (const panel of ['Photo', 'Board', 'Parts', 'Copper', 'Opening', 'Lists']) {
    await page.getByRole('tablist', { name: 'Panel' }).getByRole('tab', { name: panel }).click();
    await scan(`edit, ${panel}`);
  }
  let job = '';
  for (const step of ['intake', 'diagnose', 'plan', 'protect', 'remove', 'prepare', 'fit', 'verify', 'release']) {
    job = await openJob(page, 'Resets over every bump', step);
    if (step === 'plan') {
      await planReady(page, 'best');
      await callOff(page);
    }
    await scan(`${step}`);
    const parts = step === 'intake' ? INTAKE_PARTS : step === 'diagnose' ? DIAGNOSE_PARTS : [];
    for (const name of parts) {
      await page
        .getByRole('tablist', { name: step === 'intake' ? 'Intake' : 'Diagnose', exact: true })
        .getByRole('tab', { name, exact: true })
        .click();
      await scan(`${step}, ${name}`);
    }
  }
  await page.goto(job.replace('/jobs/', '/label/'));
  await scan(`label`);
  job = await openJob(page, 'Resets over every bump', 'release');
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  await scan(`keys`);
  await page.goto(job.replace('/jobs/', '/record/'));
  await scan(`record`);
  const jobId = job.split('/').at(-1) ?? '';
  for (const sourceId of ['battery', 'cell']) await record(page, jobId, { type: 'power-gone', sourceId, how: 'out' });
  await openRun(page, jobId, 'remove');
  await expect(page.getByText('Ready to take it off?')).toBeVisible();
  await scan(`run, before`);
  await tap(page);
  await expect(page.getByText('step 1 of')).toBeVisible();
  for (let n = 0; n < 5 && !(await page.getByTestId('clock').isVisible()); n++) {
    await tap(page);
    await page.waitForTimeout(150);
  }
  await expect(page.getByTestId('clock')).toBeVisible();
  await scan(`run, hot`);
  await page.keyboard.press('x');
  await expect(page.getByRole('list', { name: 'What is wrong?' })).toBeVisible();
  await scan(`run, something is wrong`);
  await page.keyboard.press('g');
  await expect(page.getByText('Given up here.')).toBeVisible();
});

test('a reader of a calculation who has seen enough does not kill it', () => {
  const root = new URL('../..', import.meta.url).pathname;
  const told = spawnSync('bash', ['-o', 'pipefail', '-c', './orthos calc heat.simulate --schema | head -c 20'], {
    cwd: root,
    encoding: 'utf8',
  });
  expect([told.status, told.stderr, told.stdout.length]).toEqual([0, '', 20]);
});
