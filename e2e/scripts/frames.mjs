// Main-thread time of the stage per step (pan, zoom, hover, select) on boards of 500 and 3 000 parts, the last one
// also with 100 000 copper shapes under the copper lens:
//   node e2e/scripts/frames.mjs URL DATABASE_URL
// Time is the main thread's own (CPU) task time from the event through two frames, less that of two empty frames.
// Adds two board models to that database, drives a scripted trace, prints p50 / p95 and removes them again.
import { randomUUID } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { chromium } from '@playwright/test';
import { launchOptions } from '../browser.mjs';
import pg from 'pg';

const [url, databaseUrl] = process.argv.slice(2);
const client = new pg.Client({ connectionString: databaseUrl });
await client.connect();

/** A board of `count` SOIC-16 parts (33 shapes each) in a square. */
function board(count) {
  const columns = Math.ceil(Math.sqrt(count));
  const side = columns * 13;
  return {
    v: 1,
    name: `Frames ${count}`,
    outline_mm: [
      [0, 0],
      [side, 0],
      [side, side],
      [0, side],
    ],
    thickness_mm: 1.6,
    stack: [{ name: 'top', foil_um: 35, coverage: 0.4 }],
    copper: [],
    vias: [],
    holes: [],
    parts: Array.from({ length: count }, (_, i) => ({
      partId: `u${i}`,
      ref: `U${i}`,
      package: 'SOIC-16',
      x_mm: 6 + 13 * (i % columns),
      y_mm: 6 + 13 * Math.floor(i / columns),
      rotation_deg: 0,
      side: 'top',
    })),
    landmarks: [],
    flipAxis_mm: side / 2,
    powerSources: [],
    jointAlloy: 'SAC305',
  };
}

/** A drawing of `count` strokes over a square of `side` mm, on 200 nets. */
function drawing(count, side) {
  const shapes = Array.from({ length: count }, (_, i) => {
    const [x, y] = [(i * 13.7) % side, (i * 7.31) % side];
    return { k: 'line', n: i % 200, w: 0.2 + 0.1 * (i % 4), p: [x, y, x + (i % 7), y, x + (i % 7), y + (i % 5)] };
  });
  return { v: 1, nets: Array.from({ length: 200 }, (_, i) => `N${i}`), layers: [{ name: 'top', shapes }] };
}

async function measure(page, count, copper = 0) {
  const [modelId, versionId] = [randomUUID(), randomUUID()];
  const model = board(count);
  const hash = 'f'.repeat(64);
  if (copper) {
    model.drawing = hash;
    const text = JSON.stringify(drawing(copper, model.outline_mm[1][0]));
    await client.query('insert into board_drawings (hash, doc) values ($1, $2) on conflict do nothing', [
      hash,
      gzipSync(text),
    ]);
  }
  const doc = JSON.stringify(model);
  await client.query('insert into board_models (id, name, draft) values ($1, $2, $3)', [
    modelId,
    `Frames ${count}`,
    doc,
  ]);
  await client.query("insert into board_versions (id, model_id, number, hash, doc) values ($1, $2, 1, 'frames', $3)", [
    versionId,
    modelId,
    doc,
  ]);
  try {
    await page.goto(`${url}/boards/${modelId}`);
    await page.waitForFunction(() => (document.querySelector('[data-testid=stage-parts]')?.width ?? 0) > 301);
    await page.waitForTimeout(1500);
    if (copper) {
      await page.getByRole('button', { name: 'Copper', exact: true }).click();
      await page.waitForTimeout(6000);
    }
    const cdp = await page.context().newCDPSession(page);
    // thread time: what the main thread itself works, not what it waits for the machine's two cores
    await cdp.send('Performance.enable', { timeDomain: 'threadTicks' });
    const taskTime = async () =>
      (await cdp.send('Performance.getMetrics')).metrics.find((m) => m.name === 'TaskDuration').value * 1000;
    const box = await page.getByRole('application').boundingBox();
    const at = (fx, fy) => [box.x + box.width * fx, box.y + box.height * fy];
    const times = [];
    const kinds = {};
    const step = async (act, kind = 'idle') => {
      const before = await taskTime();
      await act();
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      const took = (await taskTime()) - before;
      times.push(took);
      (kinds[kind] ??= []).push(took);
    };
    // what the measuring itself costs: two empty frames
    for (let n = 0; n < 40; n++) await step(() => Promise.resolve());
    const idle = times.splice(0).sort((a, b) => a - b)[20];
    const [x, y] = at(0.5, 0.5);
    await page.mouse.move(x, y);
    for (let n = 0; n < 25; n++) await step(() => page.mouse.wheel(0, -60), 'zoom');
    for (let n = 0; n < 50; n++) await step(() => page.mouse.move(...at(0.2 + 0.012 * n, 0.3 + 0.006 * n)), 'hover');
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let n = 0; n < 50; n++) await step(() => page.mouse.move(x + 3 * n, y + 2 * n), 'pan');
    await page.mouse.up();
    for (let n = 0; n < 25; n++) await step(() => page.keyboard.press('.'), 'select');
    for (let n = 0; n < 25; n++) await step(() => page.mouse.wheel(0, 60), 'zoom');
    times.sort((a, b) => a - b);
    const q = (p) => Math.max(0, times[Math.floor(p * (times.length - 1))] - idle).toFixed(1);
    process.stdout.write(
      `${count} parts, ${copper ? `copper lens with ${copper}` : count * 33 + 1} shapes: p50 ${q(0.5)} ms, p95 ${q(0.95)} ms, max ${q(1)} ms over ${times.length} steps (idle ${idle.toFixed(1)} ms taken off)\n`,
    );
    for (const [kind, list] of Object.entries(kinds)) {
      if (kind === 'idle') continue;
      list.sort((a, b) => a - b);
      const at95 = Math.max(0, list[Math.floor(0.95 * (list.length - 1))] - idle);
      process.stdout.write(`  ${kind}: p95 ${at95.toFixed(1)} ms\n`);
    }
  } finally {
    await client.query('delete from board_versions where model_id = $1', [modelId]);
    await client.query('delete from board_models where id = $1', [modelId]);
    if (copper) await client.query('delete from board_drawings where hash = $1', [hash]);
  }
}

const browser = await chromium.launch(launchOptions);
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('pageerror', (e) => process.stderr.write(`${e.message}\n`));
for (const count of [500, 3000]) await measure(page, count);
await measure(page, 3000, 100_000);
await browser.close();
await client.end();
