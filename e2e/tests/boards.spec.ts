import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, expect, type Page } from '@playwright/test';
import type { BoardModel } from '@orthos/core/board';
import { zipSync } from 'fflate';
import { bramble } from '../../web/src/lib/server/demo/bramble.ts';
import { bytesOf, drillText, gerberText } from '../../formats/test/gerberText.ts';
import { launchOptions } from '../browser.mjs';
import { choose, killAllOf, newJob, patient, test, watchErrors } from './helpers.ts';
import { CORNERS_PX, Tracer } from './tracer.ts';

const file = (path: string) => new URL(`../../${path}`, import.meta.url).pathname;
const PHOTO = file('web/static/practice/bramble-top.jpg');
const PHOTO_BELOW = file('web/static/practice/bramble-bottom.jpg');
const GANTRY = file('web/src/lib/server/demo/gantry.kicad_pcb');

let errors: string[];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => {
  expect(errors).toEqual([]);
});

async function begin(page: Page, name: string, [w, h]: [number, number] = [90, 80]): Promise<string> {
  await page.goto('/boards/new');
  await page.getByLabel('Name of the board').fill(name);
  await page.getByLabel('Width, mm').fill(String(w));
  await page.getByLabel('Height, mm').fill(String(h));
  await page.getByRole('button', { name: 'Go on to the photo' }).click();
  await page.waitForURL('**/edit');
  await expect(page.getByRole('application')).toBeVisible();
  return page.url().split('/')[4];
}
const panel = (page: Page, name: string) =>
  page.getByRole('tablist', { name: 'Panel' }).getByRole('tab', { name }).click();
async function layPhoto(page: Page, path: string): Promise<void> {
  await page.locator('input[type=file]').setInputFiles(path);
  await expect(page.getByText('Tie it to the board by')).toBeVisible();
  await page.locator('[role=application] img').evaluate((img: HTMLImageElement) => img.decode());
}
async function tieByCorners(page: Page, t: Tracer): Promise<void> {
  for (const corner of CORNERS_PX) await t.clickPixel(corner);
  await expect(page.getByText(/1 pixel = 6\d\.\d ± 0\.1 µm/)).toBeVisible();
}
async function draft(page: Page, id: string): Promise<BoardModel> {
  await expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();
  const answer = await page.request.get(`/api/boards/${id}/draft`);
  return ((await answer.json()) as { doc: BoardModel }).doc;
}
const truth = (ref: string) => {
  const part = bramble.parts.find((p) => p.ref === ref);
  if (!part) throw new Error(`no ${ref}`);
  return part;
};
const near = (doc: BoardModel, ref: string) => {
  const t = truth(ref);
  const sorted = doc.parts
    .filter((p) => p.side === t.side)
    .map((p) => ({ p, d: Math.hypot(p.x_mm - t.x_mm, p.y_mm - t.y_mm) }))
    .sort((a, b) => a.d - b.d);
  return sorted[0];
};

test('a photo becomes a board: target, neighbours and copper in two minutes of hands, then a job on it', async ({
  page,
}) => {
  const id = await begin(page, 'Bramble, traced');
  await layPhoto(page, PHOTO);
  const t = new Tracer(page, [90, 80]);
  await tieByCorners(page, t);

  await t.panel('Parts');
  const put = async (ref: string, off: [number, number] = [0, 0]) => {
    const { x_mm, y_mm } = truth(ref);
    t.think();
    await t.clickAt(x_mm + off[0], y_mm + off[1]);
  };
  // the part to be changed first; the hand is a little off, the edges bring it home
  await t.arm('mod 24');
  await put('U1', [0.5, -0.4]);
  await expect(page.getByText(/slid 0\.\d\d mm onto its edges/)).toBeVisible();
  await t.key('Escape');
  for (const [typed, ref] of [
    ['soic8', 'U6'],
    ['qfp32', 'U2'],
    ['sot223', 'U3'],
  ] as const) {
    await t.arm(typed);
    await put(ref, [0.3, 0.3]);
    await t.key('Escape');
  }
  // rows of equal parts
  let turns = 0;
  for (const [typed, first, last, count] of [
    ['0805 c', 'C10', 'C13', 4],
    ['0603 r', 'R7', 'R12', 6],
  ] as const) {
    await t.arm(typed);
    // the turn stays from one package to the next
    if (turns++ === 0) await t.key('r');
    await put(first);
    await t.key('Escape');
    await t.key('w');
    const box = page.getByLabel('Parts in the row');
    await box.click();
    await box.fill(String(count));
    await box.blur();
    t.think();
    t.seconds += 1.1 + 2 * 0.28;
    await put(last);
  }
  // what is only in the way gets a box: kind and height in the panel, two corners in the picture
  for (const [ref, limit, height, w, h] of [
    ['T1', 'transformer on a bobbin', '14', 17, 16],
    ['J2', 'PA66 without glass', '10', 15.24, 8.2],
    ['BZ1', 'sounder on pins', '9.5', 12, 12],
  ] as const) {
    await t.key('b');
    await choose(page.getByLabel('What it is'), limit);
    await page.getByLabel('Height, mm').fill(height);
    await page.getByLabel('Height, mm').blur();
    t.think();
    t.seconds += 2 * 1.1 + 4 * 0.28;
    const { x_mm, y_mm } = truth(ref);
    await t.drag(x_mm - w / 2, y_mm - h / 2, x_mm + w / 2, y_mm + h / 2);
    await t.key('Escape');
  }
  await t.panel('Copper');
  await t.drag(50, 30, 68, 52);
  await page.getByLabel('partial').check();
  t.think();
  t.seconds += 1.3;
  await t.drag(46, 52, 86, 74);

  const doc = await draft(page, id);
  expect(doc.parts).toHaveLength(1 + 3 + 4 + 6 + 3);
  expect(doc.copper.map((c) => [c.layer, c.coverage])).toEqual([
    [0, 1],
    [1, 1],
    [0, 0.5],
    [1, 0.5],
  ]);
  for (const ref of ['U1', 'U6', 'U2', 'U3', 'C10', 'C13', 'R7', 'R12', 'T1', 'J2', 'BZ1'])
    expect(near(doc, ref).d, ref).toBeLessThan(0.25);
  expect(near(doc, 'U1').p).toMatchObject({ package: 'MOD-24', rotation_deg: 0 });
  expect(near(doc, 'U2').p.package).toBe('QFP-32');
  console.error(
    `traced ${doc.parts.length} parts and 2 copper areas in ${t.seconds.toFixed(0)} s of hands (keystroke-level model)`,
  );
  expect(t.seconds).toBeLessThan(120);

  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await page.waitForURL(`**/boards/${id}`);
  await expect(page.getByText('version 1, 2 layers')).toBeVisible();
  const job = await newJob(page, { board: 'Bramble, traced, 2 layers', complaint: 'No heating at all' });
  expect(job).toBeTruthy();
});

test('fifty steps back and forth, and a reload in the middle loses nothing', async ({ page }) => {
  const id = await begin(page, 'Undo board');
  await panel(page, 'Parts');
  const stage = page.getByRole('application');
  const box = await stage.boundingBox();
  if (!box) throw new Error('no stage');
  await page.keyboard.press('a');
  await page.keyboard.type('0603 c');
  await page.keyboard.press('Enter');
  const middle = [box.x + box.width / 2, box.y + box.height / 2];
  for (let n = 0; n < 52; n++)
    await page.mouse.click(middle[0] - 250 + (n % 13) * 40, middle[1] - 150 + Math.floor(n / 13) * 90);
  await page.keyboard.press('Escape');
  await expect(page.getByText('52 parts.')).toBeVisible();
  for (let n = 0; n < 52; n++) await page.keyboard.press('u');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
  await expect(page.getByText('Start with the part you will change')).toBeVisible();
  for (let n = 0; n < 50; n++) await page.keyboard.press('y');
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+Shift+z');
  await expect(page.getByText('50 parts.')).toBeVisible();

  // the page goes before the server has been told: the browser has it
  await page.route('**/draft', (route) => (route.request().method() === 'PUT' ? route.abort() : route.continue()));
  await page.keyboard.press('y');
  await expect(page.getByText('51 parts.')).toBeVisible();
  await expect(page.getByText(/kept in this browser/)).toBeVisible();
  await page.reload();
  await expect(page.getByText('51 parts.')).toBeVisible();
  await expect(page.getByText(/kept in this browser/)).toBeVisible();
  await page.unroute('**/draft');
  expect((await draft(page, id)).parts).toHaveLength(51);
});

test('a draft that nobody could send yet outlives a browser that is killed', async ({ baseURL }) => {
  const profile = mkdtempSync(join(tmpdir(), 'orthos-draft-'));
  const open = async () => {
    const browser = await chromium.launchPersistentContext(profile, { ...launchOptions, baseURL: baseURL ?? '' });
    return { browser, page: patient(browser.pages()[0] ?? (await browser.newPage())) };
  };
  try {
    const first = await open();
    const id = await begin(first.page, 'Killed while drawing');
    await first.page.route('**/draft', (route) => route.abort());
    await first.page.getByLabel('Name of the board').fill('Killed, and here');
    await first.page.getByLabel('Name of the board').blur();
    await expect(first.page.getByText(/kept in this browser/)).toBeVisible();
    killAllOf(profile);
    await first.browser.close().catch(() => undefined);
    const { browser, page } = await open();
    await page.goto(`/boards/${id}/edit`);
    await expect(page.getByLabel('Name of the board')).toHaveValue('Killed, and here');
    await expect(page.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();
    expect((await draft(page, id)).name).toBe('Killed, and here');
    await browser.close();
  } finally {
    rmSync(profile, { recursive: true, force: true });
  }
});

test('two pages on one draft: the later one is told, and either draft can be kept', async ({ page, context }) => {
  const id = await begin(page, 'Two pages');
  const other = patient(await context.newPage());
  await other.goto(`/boards/${id}/edit`);
  await other.getByLabel('Name of the board').fill('Two pages, theirs');
  await other.getByLabel('Name of the board').blur();
  await expect(other.getByRole('status').filter({ hasText: /^saved$/ })).toBeVisible();
  await page.getByLabel('Name of the board').fill('Two pages, mine');
  await page.getByLabel('Name of the board').blur();
  await expect(page.getByRole('alert')).toContainText('Another draft of this board was saved meanwhile');
  await page.getByRole('button', { name: 'Take the other' }).click();
  await expect(page.getByLabel('Name of the board')).toHaveValue('Two pages, theirs');
  await page.getByRole('application').focus();
  await page.keyboard.press('u');
  await expect(page.getByLabel('Name of the board')).toHaveValue('Two pages, mine');
  expect((await draft(page, id)).name).toBe('Two pages, mine');
});

test('the other side is tied by landmarks, mirrored right; swapped ends are told', async ({ page }) => {
  const id = await begin(page, 'Bramble, both sides');
  await layPhoto(page, PHOTO);
  const t = new Tracer(page, [90, 80]);
  await tieByCorners(page, t);
  await panel(page, 'Board');
  await page.getByRole('button', { name: 'Click holes' }).click();
  for (const h of bramble.holes) await t.clickAt(h.x_mm, h.y_mm);
  await panel(page, 'Photo');
  await page.keyboard.press('f');
  await expect(page.getByRole('heading', { name: 'Photo of the bottom' })).toBeVisible();
  await layPhoto(page, PHOTO_BELOW);
  await page.getByLabel('landmarks').check();
  const below = new Tracer(page, [90, 80], 'bottom');
  const known = page.getByLabel('Point of the board');
  await known.click();
  await expect(page.getByRole('option', { name: /^hole/ })).toHaveCount(4);
  const holes = await page.getByRole('option', { name: /^hole/ }).allTextContents();
  await page.keyboard.press('Escape');
  // left and right swapped first
  for (const [i, n] of [
    [0, 1],
    [1, 0],
    [2, 3],
  ] as const) {
    await choose(known, holes[i]);
    await below.clickAt(bramble.holes[n].x_mm, bramble.holes[n].y_mm);
  }
  await expect(page.getByRole('alert')).toContainText('left and right are swapped');
  await expect(page.getByRole('button', { name: 'Place the photo' })).toBeDisabled();
  for (let n = 0; n < 3; n++)
    await page
      .getByRole('button', { name: /^Take out/ })
      .first()
      .click();
  for (const [i, label] of holes.entries()) {
    await choose(known, label);
    await below.clickAt(bramble.holes[i].x_mm, bramble.holes[i].y_mm);
  }
  await page.getByRole('button', { name: 'Place the photo' }).click();
  await panel(page, 'Parts');
  await below.arm('opto smd');
  await below.clickAt(truth('U7').x_mm + 0.2, truth('U7').y_mm);
  await page.keyboard.press('Escape');
  const doc = await draft(page, id);
  expect(near(doc, 'U7').d).toBeLessThan(0.3);
  expect(near(doc, 'U7').p.side).toBe('bottom');
});

test('scale from a known pitch, and a picture taken by key from a camera', async ({ page }) => {
  await begin(page, 'Camera board');
  await page.getByRole('button', { name: 'Camera', exact: true }).click();
  await expect(page.getByLabel('Camera', { exact: true }).last()).toContainText('simulated microscope');
  await expect(page.getByRole('button', { name: 'Take it' })).toBeEnabled();
  await page.keyboard.press(' ');
  await expect(page.getByText('Tie it to the board by')).toBeVisible();
  await page.locator('[role=application] img').evaluate((img: HTMLImageElement) => img.decode());
  await page.getByLabel('a known pitch').check();
  await page.getByLabel('Pins, first to last').fill('4');
  const t = new Tracer(page, [90, 80]);
  const { x_mm, y_mm } = truth('U6');
  await t.clickAt(x_mm - 2.7, y_mm - 1.5 * 1.27);
  await expect(page.getByText('Click the last pin of the row.')).toBeVisible();
  await t.clickAt(x_mm - 2.7, y_mm + 1.5 * 1.27);
  await expect(page.getByText(/1 pixel = 6\d\.\d ± 2\.\d µm/)).toBeVisible();
  // a draft that leads nowhere can go
  await page.getByRole('button', { name: 'Discard' }).click();
  await page.getByRole('button', { name: 'For good?' }).click();
  await page.waitForURL('**/boards');
  await expect(page.getByRole('link', { name: /Camera board/ })).toHaveCount(0);
});

test('a board file: preview, another package, accepted, copper and nets on the stage', async ({ page }) => {
  await page.goto('/boards/import');
  await page.locator('input[type=file]').setInputFiles(GANTRY);
  await expect(page.getByRole('heading', { name: 'What was read' })).toBeVisible();
  const aside = page.getByLabel('What was read');
  await expect(aside).toContainText('150.0 mm × 100.0 mm');
  await expect(aside).toContainText('91: 68 top, 23 bottom; 87 are parts');
  await expect(aside).toContainText('texts: 1');
  await page.getByRole('button', { name: 'Another package for Gantry:SMB' }).click();
  await page.getByRole('combobox', { name: 'Package for Gantry:SMB' }).fill('sma');
  await page.keyboard.press('Enter');
  await expect(aside).toContainText('chosen');
  await page.getByLabel('Name of the board').fill('Gantry, revision B');
  await page.getByRole('button', { name: 'Accept the board' }).click();
  await page.waitForURL(/boards\/[0-9a-f-]{36}$/);
  await expect(page.getByText('read from gantry.kicad_pcb')).toBeVisible();
  await page.getByRole('tab', { name: 'Nets', exact: true }).click();
  await page.getByRole('row', { name: /^PHASE / }).click();
  await expect(page.getByText('net PHASE is lit')).toBeVisible();
  await page.getByRole('tablist', { name: 'Show' }).getByRole('tab', { name: 'Parts' }).click();
  await page.getByLabel('Find a part').fill('sma');
  await expect(page.getByRole('row', { name: /D1/ })).toContainText('SMA');
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('row', { selected: true })).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as…' }).click();
  await page.getByRole('menuitem', { name: 'Drawing of the top' }).click();
  expect(readFileSync(await (await download).path(), 'utf8')).toContain('width="158mm"');
  // what was saved as a file comes back
  const saved = await page.request.get(`${page.url()}/file?as=board`);
  await page.goto('/boards/import');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'back.board.json', mimeType: 'application/json', buffer: await saved.body() });
  await expect(page.getByText('our own board file')).toBeVisible();
  await page.getByLabel('Name of the board').fill('Gantry, back again');
  await page.getByRole('button', { name: 'Accept the board' }).click();
  await page.waitForURL(/boards\/[0-9a-f-]{36}$/);
  await expect(page.getByText('87 of 87 parts')).toBeVisible();
});

const plots = () => {
  const outline = {
    function: 'Profile,NP',
    tracks: [
      {
        w: 0.1,
        points: [
          [0, 0],
          [40, 0],
          [40, 25],
          [0, 25],
          [0, 0],
        ] as [number, number][],
      },
    ],
  };
  const pads = (['1', '2'] as const).map((pin, i) => ({
    x: 10 + i * 1.57,
    y: 10,
    w: 0.9,
    h: 0.9,
    ref: 'R1',
    pin,
    net: `N${pin}`,
  }));
  return {
    'plots/top.gbr': bytesOf(gerberText({ function: 'Copper,L1,Top', pads })),
    'plots/bottom.gbr': bytesOf(gerberText({ function: 'Copper,L2,Bot' })),
    'plots/edge.gbr': bytesOf(gerberText(outline)),
    'plots/holes.drl': bytesOf(drillText([{ x: 5, y: 5, d: 0.4 }])),
  };
};

test('photoplots in a zip: which file is what can be corrected', async ({ page }) => {
  await page.goto('/boards/import');
  await page
    .locator('input[type=file]')
    .setInputFiles({ name: 'plots.zip', mimeType: 'application/zip', buffer: Buffer.from(zipSync(plots())) });
  await expect(page.getByRole('heading', { name: 'Which file is what' })).toBeVisible();
  await expect(page.getByLabel('What was read').last()).toContainText('1: 1 top, 0 bottom');
  await choose(page.getByLabel('Layer of top.gbr'), 'bottom');
  await choose(page.getByLabel('Layer of bottom.gbr'), 'top');
  await expect(page.getByLabel('What was read').last()).toContainText('1: 0 top, 1 bottom');
  await page.getByRole('button', { name: 'Accept the board' }).click();
  await page.waitForURL(/boards\/[0-9a-f-]{36}$/);
  await expect(page.getByRole('heading', { name: 'plots' })).toBeVisible();
});

test('hostile files give a sentence with a line and change nothing', async ({ page }) => {
  const count = async () => {
    await page.goto('/boards');
    return page.getByRole('listitem').count();
  };
  const before = await count();
  await page.goto('/boards/import');
  const good = readFileSync(GANTRY, 'utf8');
  const refused = async (name: string, buffer: Buffer, sentence: RegExp) => {
    await page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
    await expect(page.getByRole('alert')).toContainText(sentence);
    await expect(page.getByRole('alert')).toContainText('Nothing was changed');
  };
  await refused('cut.kicad_pcb', Buffer.from(good.slice(0, 20_000)), /cut\.kicad_pcb, line \d+: /);
  await refused('deep.kicad_pcb', Buffer.from('('.repeat(100_000)), /line 1: brackets are nested/);
  await refused(
    'far.kicad_pcb',
    Buffer.from(good.replace('(at 122 70)', '(at 1e99 70)')),
    /line \d+: .*out of all reason/,
  );
  await refused('bytes.kicad_pcb', Buffer.from(Array.from({ length: 5000 }, (_, i) => (i * 7919) % 256)), /not text/);
  await refused(
    'bomb.zip',
    Buffer.from(zipSync({ 'a.gbr': new Uint8Array(40_000_000) }, { level: 9 })),
    /unpacks to more than/,
  );
  await refused('cut.gbr', Buffer.from(gerberText({ function: 'Copper,L1,Top' }).replace('M02*', '')), /without M02/);
  await refused('empty.gbr', Buffer.from(''), /is empty/);
  // dropped on the page as well
  const dropped = await page.evaluateHandle(() => {
    const data = new DataTransfer();
    data.items.add(new File(['(nothing'], 'dropped.kicad_pcb'));
    return data;
  });
  await page.dispatchEvent('body', 'drop', { dataTransfer: dropped });
  await expect(page.getByRole('alert')).toContainText('dropped.kicad_pcb, line 1: the file ends inside (nothing');
  expect(await count()).toBe(before);
});

test('lists add parts and nets to a traced board, columns corrected, undone in one step', async ({ page }) => {
  const id = await begin(page, 'List board', [60, 40]);
  await panel(page, 'Lists');
  const csv =
    'Part;Mid X;Mid Y;Turn;Package;Note\nR1;12,5;30;90;R_0603;10k\nU1;30;20;0;SOIC-8;op-amp\nZ1;400;400;0;0603;\n';
  const input = page.locator('input[type=file]');
  await input.setInputFiles({ name: 'place.csv', mimeType: 'text/csv', buffer: Buffer.from(csv) });
  await expect(page.getByText('3 rows: 2 parts to add, 0 to change, 1 left out.')).toBeVisible();
  await choose(page.getByLabel('Column Turn'), 'rotation');
  await choose(page.getByLabel('Column Note'), 'value');
  await page.getByRole('button', { name: 'Add to the board' }).click();
  await expect(page.getByText('2 parts added')).toBeVisible();
  let doc = await draft(page, id);
  expect(doc.parts.map((p) => [p.ref, p.package, p.x_mm, p.y_mm, p.rotation_deg, p.value])).toEqual([
    ['R1', 'R0603', 12.5, 10, 90, '10k'],
    ['U1', 'SOIC-8', 30, 20, 0, 'op-amp'],
  ]);
  const column = (fields: Record<number, string>) => {
    const line = Array.from({ length: 80 }, () => ' ');
    for (const [at, text] of Object.entries(fields)) [...text].forEach((ch, i) => (line[Number(at) - 1 + i] = ch));
    return line.join('').trimEnd();
  };
  const net = [
    'P  UNITS CUST 1',
    column({ 1: '327', 4: 'VCC', 21: 'U1', 27: '-', 28: '8', 39: 'A01', 42: 'X+032700', 50: 'Y+021905', 58: 'X0600' }),
    '999',
  ].join('\n');
  await input.setInputFiles({ name: 'board.ipc', mimeType: 'text/plain', buffer: Buffer.from(net) });
  await expect(page.getByText('1 points: 0 parts to add, 1 to change')).toBeVisible();
  await page.getByRole('button', { name: 'Add to the board' }).click();
  await expect(page.getByText('0 parts added, 1 changed')).toBeVisible();
  doc = await draft(page, id);
  expect(doc.parts[1].nets).toEqual({ '8': 'VCC' });
  await input.setInputFiles({ name: 'bad.csv', mimeType: 'text/csv', buffer: Buffer.from('Ref,X,Y\nR1,here,2') });
  await expect(page.getByRole('alert')).toContainText('bad.csv, line 2: "here" is no number for x');
  await page.getByRole('button', { name: /^Undo read board/ }).click();
  await page.getByRole('button', { name: /^Undo read place/ }).click();
  expect((await draft(page, id)).parts).toHaveLength(0);
});

test('a package of one’s own: drawn as typed, kept, placed', async ({ page }) => {
  await page.goto('/boards/packages');
  await page.getByLabel('Find a package').fill('soic 14');
  await page.getByRole('button', { name: /^SOIC-14/ }).click();
  await page.getByRole('button', { name: 'Make one' }).click();
  await page.getByLabel('Legs on the full grid').fill('9');
  await expect(page.getByRole('alert')).toContainText('an even number');
  await page.getByLabel('Legs on the full grid').fill('10');
  await page.getByLabel('Body along the rows, mm').fill('6.2');
  await expect(page.getByRole('img', { name: /Drawing of gull rows 10/ })).toBeVisible();
  await page.getByLabel('Name', { exact: true }).fill('odd ten legs');
  await page.getByRole('button', { name: 'Keep it' }).click();
  await expect(page.getByRole('heading', { name: 'odd ten legs' })).toBeVisible();
  const id = await begin(page, 'Own package board');
  await panel(page, 'Parts');
  await page.keyboard.press('a');
  await page.keyboard.type('odd ten');
  await page.keyboard.press('Enter');
  await page.getByRole('application').click();
  expect((await draft(page, id)).parts[0].package).toContain('gull-rows:pins=10');
});

test('opening steps, a new version, what it changed, and a job that keeps its own', async ({ page }) => {
  const id = await begin(page, 'Version board');
  // an empty board is published only when that is said twice
  const empty = page.getByRole('button', { name: 'Nothing is placed. Publish it empty?' });
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await expect(empty).toBeVisible();
  await page.keyboard.press('Tab');
  await expect(empty).toHaveCount(0);
  await page.getByRole('button', { name: 'Publish', exact: true }).click();
  await empty.click();
  await page.waitForURL(`**/boards/${id}`);
  const job = await newJob(page, { board: 'Version board, 2 layers', complaint: 'Nothing happens' });
  await page.goto(`/boards/${id}/edit`);
  await panel(page, 'Opening');
  await page.getByLabel('Which').fill('two, M3');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await page.getByRole('application').click();
  await panel(page, 'Board');
  await page.getByLabel('Thickness, mm').fill('9');
  await page.getByLabel('Thickness, mm').blur();
  await expect(page.getByRole('alert')).toContainText('between 0.2 and 6 mm');
  await page.getByLabel('Thickness, mm').fill('1');
  await page.getByLabel('Thickness, mm').blur();
  await page.getByRole('button', { name: 'Publish as version 2' }).click();
  await empty.click();
  await page.waitForURL(`**/boards/${id}`);
  await page.getByRole('tab', { name: 'Versions', exact: true }).click();
  await page.getByRole('link', { name: 'against 1' }).click();
  await expect(page.getByLabel('Differences')).toContainText('thickness: 1.6 → 1');
  await expect(page.getByLabel('Differences')).toContainText('what comes off first');
  // the job began with version 1
  await page.goto(`/jobs/${job}/diagnose`);
  const view = await page.request.get(`/jobs/${job}/diagnose/__data.json`);
  expect(await view.text()).toContain('1.6');
  await page.goto(`/boards/${id}`);
  await page.getByRole('button', { name: 'Copy to a new revision' }).click();
  await page.waitForURL('**/edit');
  await expect(page.getByLabel('Name of the board')).toHaveValue('Version board, next revision');
});
