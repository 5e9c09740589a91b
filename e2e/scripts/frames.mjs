// Main-thread time of the stage per step (pan, zoom, hover, select) on boards of 500 and 3 000 parts:
//   node e2e/scripts/frames.mjs URL DATABASE_URL
// Adds two board models to that database, drives a scripted trace, prints p50 / p95 and removes them again.
import { randomUUID } from 'node:crypto';
import { chromium } from '@playwright/test';
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

async function measure(page, count) {
  const [modelId, versionId] = [randomUUID(), randomUUID()];
  const doc = JSON.stringify(board(count));
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
    const cdp = await page.context().newCDPSession(page);
    await cdp.send('Performance.enable');
    const taskTime = async () =>
      (await cdp.send('Performance.getMetrics')).metrics.find((m) => m.name === 'TaskDuration').value * 1000;
    const box = await page.getByRole('application').boundingBox();
    const at = (fx, fy) => [box.x + box.width * fx, box.y + box.height * fy];
    const times = [];
    const step = async (act) => {
      const before = await taskTime();
      await act();
      await page.evaluate(() => new Promise((done) => requestAnimationFrame(() => requestAnimationFrame(done))));
      times.push((await taskTime()) - before);
    };
    const [x, y] = at(0.5, 0.5);
    await page.mouse.move(x, y);
    for (let n = 0; n < 25; n++) await step(() => page.mouse.wheel(0, -60));
    for (let n = 0; n < 50; n++) await step(() => page.mouse.move(...at(0.2 + 0.012 * n, 0.3 + 0.006 * n)));
    await page.mouse.move(x, y);
    await page.mouse.down();
    for (let n = 0; n < 50; n++) await step(() => page.mouse.move(x + 3 * n, y + 2 * n));
    await page.mouse.up();
    for (let n = 0; n < 25; n++) await step(() => page.keyboard.press('.'));
    for (let n = 0; n < 25; n++) await step(() => page.mouse.wheel(0, 60));
    times.sort((a, b) => a - b);
    const q = (p) => times[Math.floor(p * (times.length - 1))].toFixed(1);
    process.stdout.write(
      `${count} parts, ${count * 33 + 1} shapes: p50 ${q(0.5)} ms, p95 ${q(0.95)} ms, max ${q(1)} ms over ${times.length} steps\n`,
    );
  } finally {
    await client.query('delete from board_versions where model_id = $1', [modelId]);
    await client.query('delete from board_models where id = $1', [modelId]);
  }
}

const browser = await chromium.launch({
  executablePath: '/usr/bin/chromium',
  args: [
    '--no-sandbox',
    '--disable-gpu',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--no-first-run',
  ],
});
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('pageerror', (e) => process.stderr.write(`${e.message}\n`));
for (const count of [500, 3000]) await measure(page, count);
await browser.close();
await client.end();
