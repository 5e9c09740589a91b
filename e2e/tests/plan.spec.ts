/** What a plan is computed with besides the tool: heat from below, draught, covers, closing in. */
import { expect, type Page } from '@playwright/test';
import {
  callOff,
  choose,
  hurried,
  newJob,
  openRun,
  pick,
  planReady,
  record,
  tap,
  test,
  untilShown,
  usePlan,
  watchErrors,
} from './helpers.ts';

const QUILLON = 'Quillon, 4 layers';
const QUILLON_GONE = [
  { type: 'power-gone', sourceId: 'harness', how: 'pulled' },
  { type: 'power-gone', sourceId: 'bulk', how: 'discharged', residual_V: 0 },
];

/** When all joints of the chosen method are wet, s. */
async function wet(page: Page): Promise<number> {
  const text = await page
    .getByText(/all wet \d+ s/)
    .first()
    .textContent();
  return Number(/all wet (\d+) s/.exec(text ?? '')?.[1]);
}

const methodsOf = (page: Page) => page.getByRole('radiogroup', { name: 'Methods' });

interface Kept {
  surroundings?: unknown;
  methods: { id: string; phases: { settings: Record<string, unknown> }[] }[];
}
/** Does what sends a form; gives what is kept then. A plan is computed from nothing else, so what it does to one is core's to show. */
async function keeps(page: Page, act: () => Promise<unknown>): Promise<Kept> {
  const sent = page.waitForRequest(/plan-settings/);
  await act();
  return ((await sent).postDataJSON() as { settings: Kept }).settings;
}
/** How the first heat of a way is set, in what is kept. */
const setOf = ({ methods }: Kept, id: string) => methods.find((m) => m.id === id)?.phases[0].settings;

/** Once one way is computed in full: its seconds; the others are called off. */
async function timeOf(page: Page, name: string): Promise<number> {
  await pick(page, name);
  const seconds = await wet(page);
  await callOff(page);
  return seconds;
}

/** A new job with its suspect, at its plan: the way that is asked for, or the best, is computed in full, the rest is called off. */
async function planFor(page: Page, board: string, partId: string, complaint: string, way?: string): Promise<string> {
  const id = await newJob(page, { board, complaint });
  await record(page, id, { type: 'suspect', partId, why: 'reads low' });
  await page.goto(`/jobs/${id}/plan${way ? `?method=${way}` : ''}`);
  await planReady(page, 'best');
  await callOff(page);
  return id;
}

// each has a job of its own, and each is long
test.describe.configure({ mode: 'parallel' });

let errors: string[] = [];
test.beforeEach(({ page }) => {
  errors = watchErrors(page);
});
test.afterEach(() => expect(errors).toEqual([]));

test('surroundings: a preheater melts sooner, covers are kept, taking them away brings the old plan’s inputs back', async ({
  page,
}) => {
  test.setTimeout(300_000);
  await planFor(page, QUILLON, 'q1', 'switch gets hot', 'air-slow');
  const besides = page.getByRole('table', { name: 'Besides, until it is off' });
  await expect(besides).toContainText(/Land .*soft/);
  await expect(besides).toContainText('Its body');
  const before = await wet(page);

  await page.getByRole('button', { name: 'Surroundings' }).click();
  const form = page.getByRole('form', { name: 'Surroundings' });
  await choose(form.getByRole('combobox').first(), 'preheater');
  await form.locator('input').first().fill('900');
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(form.getByRole('alert')).toContainText('30 to 300');
  await form.locator('input').first().fill('170');
  const covered =
    (await form
      // a neighbour's: foil over the part itself keeps the air from it
      .getByLabel(/^Cover on (?!Q1$)/)
      .first()
      .getAttribute('aria-label')) ?? '';
  await choose(form.getByLabel(covered), 'foil, standing off');
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(page.getByRole('button', { name: 'Surroundings: preheater, 1 covered' })).toBeVisible();
  expect(await timeOf(page, 'Air, slow')).toBeLessThan(before);

  await page.reload();
  await page.getByRole('button', { name: 'Surroundings: preheater, 1 covered' }).click();
  await choose(form.getByRole('combobox').first(), 'open air');
  await choose(form.getByLabel(covered), 'not covered');
  const bare = await keeps(page, () => form.getByRole('button', { name: 'Compute with these' }).click());
  expect(bare.surroundings).toBeUndefined();
  await expect(page.getByRole('button', { name: 'Surroundings', exact: true })).toBeVisible();

  await page.getByRole('button', { name: 'Change settings' }).click();
  const settings = page.getByRole('form', { name: /Settings of Air, slow/ });
  await settings.getByLabel('Stage 2 from, s').fill('20');
  await settings.getByRole('button', { name: 'Keep these' }).click();
  await expect(settings.getByRole('alert')).toContainText('what changes then');
  await settings.getByLabel('Stage 2 at, mm').fill('8');
  await settings.getByRole('button', { name: 'Keep these' }).click();
  await expect(page.getByText('8 mm from 20 s').first()).toBeVisible();
  await expect(page.getByText(/the inputs changed/)).toBeVisible();
});

test('hot tweezers on a two-ended part: pulses and a lean on the air beside it, corroded joints, metal on it', async ({
  page,
}) => {
  test.setTimeout(300_000);
  await planFor(page, QUILLON, 'r14', 'reads open at the sense resistor', 'tweezers');
  const methods = methodsOf(page);

  await methods.getByText('Air, fast', { exact: true }).click();
  await page.getByRole('button', { name: 'Change settings' }).click();
  const settings = page.getByRole('form', { name: /Settings of Air, fast/ });
  await settings.getByText('Path, stage 2, lean, mouth, pulses').click();
  await settings.getByLabel('Pulses: on, s').fill('2');
  await settings.getByRole('button', { name: 'Keep these' }).click();
  await expect(settings.getByRole('alert')).toContainText('both, or both empty');
  await settings.getByLabel('Pulses: off, s').fill('2');
  await settings.getByLabel('Nozzle leans, °').fill('20');
  const pulsed = await keeps(page, () => settings.getByRole('button', { name: 'Keep these' }).click());
  expect(setOf(pulsed, 'air-fast')).toMatchObject({ pulse: { on_s: 2, off_s: 2 }, tilt_deg: 20 });
  await expect(methods.getByText('pulsed, leaning 20°')).toBeVisible();

  await methods.getByText('Hot tweezers', { exact: true }).click();
  await expect(page.getByRole('heading', { name: /^Hot tweezers: / })).toBeVisible();
  await page.getByRole('button', { name: 'Surroundings' }).click();
  const form = page.getByRole('form', { name: 'Surroundings' });
  const compute = form.getByRole('button', { name: 'Compute with these' });
  await form.getByLabel('Corroded ones').fill('9');
  await compute.click();
  await expect(form.getByRole('alert')).toContainText('9');
  await form.getByLabel('Corroded ones').fill('1');
  await form.getByLabel('Their own solder').fill('Bi58Sn42');
  await choose(form.getByLabel('What sits on R14'), 'clip');
  await compute.click();
  await expect(page.getByRole('button', { name: 'Surroundings: 1 with something on it, joints' })).toBeVisible();
  await timeOf(page, 'Hot tweezers');
  await page.getByText('Each joint, and where').click();
  const joints = page.getByRole('table', { name: 'Each joint' });
  // eutectic tin-bismuth
  await expect(joints.getByText(/13[89] to 1(38|39|40) °C/).first()).toBeVisible();
  await page.getByRole('button', { name: /^Surroundings: / }).click();
  await form.getByLabel('Their own solder').fill('');
  await choose(form.getByLabel('What sits on R14'), 'nothing on it');
  const { surroundings } = await keeps(page, () => compute.click());
  expect(surroundings).toEqual({ joints: [{ terminals: ['1'], corroded: true }] });
  await page.getByRole('button', { name: 'Surroundings: joints', exact: true }).click();
  await form.getByLabel('Corroded ones').fill('');
  expect((await keeps(page, () => compute.click())).surroundings).toBeUndefined();
  await expect(page.getByRole('button', { name: 'Surroundings', exact: true })).toBeVisible();
  await usePlan(page, 'Hot tweezers');
});

test('what lies under the board and what holds it: infrared, mat, frame, props, draught, glue', async ({ page }) => {
  test.setTimeout(300_000);
  await planFor(page, QUILLON, 'q1', 'switch gets hot again', 'air-fast');
  const form = page.getByRole('form', { name: 'Surroundings' });
  const compute = form.getByRole('button', { name: 'Compute with these' });
  const open = async () => {
    if (!(await form.isVisible())) await page.getByRole('button', { name: /^Surroundings/ }).click();
  };
  /** Computes with what the form says; gives what was kept, which is what it is computed from. */
  const kept = async (words: string) => {
    const { surroundings } = await keeps(page, () => compute.click());
    // stored, what was shown before is stale
    await expect(form).toHaveCount(0);
    await expect(page.getByRole('button', { name: words, exact: true })).toBeVisible();
    return surroundings;
  };
  await pick(page, 'Air, fast');
  const plain = await wet(page);

  await open();
  await choose(form.getByLabel('Under the board'), 'infrared');
  await form.getByLabel('kW/m²').fill('90');
  await compute.click();
  await expect(form.getByRole('alert')).toContainText('0 to 60');
  await form.getByLabel('kW/m²').fill('9');
  await form.getByLabel('only in a window, mm').fill('wide');
  await compute.click();
  await expect(form.getByRole('alert')).toContainText('24 30');
  await form.getByLabel('only in a window, mm').fill('30 30');
  expect(await kept('Surroundings: infrared')).toMatchObject({
    under: { kind: 'infrared', flux_W_m2: 9000, window: expect.objectContaining({ w_mm: 30, h_mm: 30 }) as unknown },
  });
  expect(await timeOf(page, 'Air, fast')).toBeLessThan(plain);

  await open();
  await form.getByLabel('only in a window, mm').fill('');
  expect(await kept('Surroundings: infrared')).toEqual({ under: { kind: 'infrared', flux_W_m2: 9000 } });
  await open();
  await choose(form.getByLabel('Under the board'), 'mat');
  expect(await kept('Surroundings: mat')).toMatchObject({ under: { kind: 'mat' } });

  await open();
  await choose(form.getByLabel('Under the board'), 'open');
  await choose(form.getByLabel('The board is'), 'frame');
  await form.getByLabel('rim on it, mm').fill('99');
  await compute.click();
  await expect(form.getByRole('alert')).toContainText('0.5 to 20');
  await form.getByLabel('rim on it, mm').fill('6');
  expect(await kept('Surroundings: frame')).toEqual({ held: { kind: 'frame', width_mm: 6 } });
  await open();
  await choose(form.getByLabel('The board is'), 'props');
  await compute.click();
  await expect(form.getByRole('alert')).toContainText('x and y of each');
  await form.getByLabel('props at x y, mm').fill('13 49, 17 52, 15 46');
  await form.getByLabel('thick, mm').fill('14');
  expect(await kept('Surroundings: props')).toEqual({
    held: { kind: 'props', d_mm: 14, places: [13, 17, 15].map((x_mm, n) => ({ x_mm, y_mm: [49, 52, 46][n] })) },
  });

  await open();
  await choose(form.getByLabel('The board is'), 'free');
  await choose(form.getByLabel('The room'), 'strong draught');
  expect(await kept('Surroundings: draught')).toEqual({ draught: 6 });
  await open();
  await choose(form.getByLabel('The room'), 'still air');
  await choose(form.getByLabel('What sits on Q1'), 'glued down');
  expect(await kept('Surroundings: 1 with something on it')).toEqual({ sinks: [{ kind: 'glue', partId: 'q1' }] });
  await page.reload();
  // the form remembers it
  await page.getByRole('button', { name: 'Surroundings: 1 with something on it' }).click();
  await expect(form.getByLabel('What sits on Q1')).toHaveText('glued down');
  await choose(form.getByLabel('What sits on Q1'), 'nothing on it');
  expect(await kept('Surroundings')).toBeUndefined();
});

test('cells and displays come out first, on either side; what stands in its own papers counts', async ({ page }) => {
  test.setTimeout(300_000);
  await planFor(page, 'Tern T2, 2 layers', 'u1', 'segments missing', 'bead');
  const methods = methodsOf(page);
  await pick(page, 'Low-melt + iron');
  await expect(methods.getByText(/^take (J3, BT1|BT1, J3) out first/).first()).toBeVisible();
  await expect(page.getByText('Take J3 and BT1 out first.', { exact: false })).toBeVisible();
  await expect(page.getByRole('row', { name: /J3 other side, display/ })).toBeVisible();
  await page.getByRole('row', { name: 'BT1' }).getByRole('button', { name: 'take it out' }).click();
  await page.getByRole('button', { name: 'Surroundings: 1 taken out', exact: true }).click();
  const form = page.getByRole('form', { name: 'Surroundings' });
  await choose(form.getByLabel('Cover on J3'), 'taken out');
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(page.getByRole('button', { name: 'Surroundings: 2 taken out', exact: true })).toBeVisible();
  await pick(page, 'Low-melt + iron');
  await expect(page.getByText('out first', { exact: false })).toHaveCount(0);
  // the form remembers it, and it can be put back
  await page.getByRole('button', { name: /^Surroundings/ }).click();
  await expect(form.getByLabel('Cover on BT1')).toHaveText('taken out');
  await choose(form.getByLabel('Cover on BT1'), 'not covered');
  await choose(form.getByLabel('Board and parts'), 'damp');
  await choose(form.getByLabel('Afterwards U1'), 'goes on again');
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(page.getByRole('button', { name: 'Surroundings: 1 taken out, damp, goes on again' })).toBeVisible();
  await pick(page, 'Low-melt + iron');
  await expect(methods.getByText(/^take BT1 out first/).first()).toBeVisible();
});

test('settings asked for rarely: a line, a wide mouth, a hotter second stage; two irons that rest, another alloy', async ({
  page,
}) => {
  test.setTimeout(600_000);
  await planFor(page, QUILLON, 'u4', 'controller dead', 'air-fast');
  const methods = methodsOf(page);
  const change = async (name: string, texts: Record<string, string>) => {
    const settings = page.getByRole('form', { name: `Settings of ${name}` });
    if (!(await settings.isVisible())) await page.getByRole('button', { name: 'Change settings' }).click();
    await expect(settings).toBeVisible();
    const closed = settings.getByRole('button', {
      name: /^(Path, stage 2|Tip and way|Alloy and tip)/,
      expanded: false,
    });
    while ((await closed.count()) > 0) await closed.first().click();
    for (const [label, text] of Object.entries(texts)) {
      const field = settings.getByLabel(label, { exact: true });
      if ((await field.getAttribute('role')) === 'combobox') await choose(field, text);
      else await field.fill(text);
    }
    await settings.getByRole('button', { name: 'Keep these' }).click();
    return settings;
  };
  const kept = async (name: string, id: string, texts: Record<string, string>) =>
    setOf(await keeps(page, () => change(name, texts)), id);

  let settings = await change('Air, fast', { Mouth: 'wide open' });
  await expect(settings.getByRole('alert').first()).toContainText('its size');
  const slot = { 'in a line at, °': '90', 'Mouth, wide, mm': '10', 'Mouth, high, mm': '12' };
  expect(await kept('Air, fast', 'air-fast', slot)).toMatchObject({
    sweep_deg: 90,
    mouth: { kind: 'slot', w_mm: 10, h_mm: 12 },
  });
  await expect(methods.getByText('in a line, slot')).toBeVisible();
  settings = await change('Air, fast', { 'Stage 2 set-point, °C': '700' });
  await expect(settings.getByRole('alert').filter({ hasText: '100 to 550' })).toBeVisible();
  await expect(settings.getByRole('alert').filter({ hasText: 'when it begins' })).toBeVisible();
  const hotter = { 'Stage 2 from, s': '10', 'Stage 2 set-point, °C': '480', 'Stage 2 air, L/min': '90' };
  expect(await kept('Air, fast', 'air-fast', hotter)).toMatchObject({
    stages: [{ from_s: 10, set_C: 480, flow_L_min: 90 }],
  });
  await expect(methods.getByText('480 °C 90 L/min from 10 s')).toBeVisible();

  await methods.getByText('Low-melt + iron', { exact: true }).click();
  settings = await change('Low-melt + iron', { 'Alloy of the bead': 'Zz50' });
  await expect(settings.getByRole('alert')).toContainText('elements with their percent');
  await change('Low-melt + iron', {
    'Alloy of the bead': 'Bi58Sn42',
    Irons: 'two, opposite',
    'rest at its ends, s': '0.5',
  });
  await expect(methods.getByText(/Sn42Bi58; then .*, two irons$/)).toBeVisible();
  // one iron alone does not get this alloy loose round four sides of a four-layer board
  await page.keyboard.press('c');
  expect(await timeOf(page, 'Low-melt + iron')).toBeGreaterThan(0);
  // the lowest tip that does is computed with it, and set by one press
  const lowest = page.getByRole('button', { name: /^Set \d+ °C$/ });
  const told = ((await lowest.textContent()) ?? '').replace('Set ', '');
  await lowest.click();
  await expect(methods.getByText(told).first()).toBeVisible();
  const lower = await timeOf(page, 'Low-melt + iron');
  await expect(page.getByText('liquid for a lift once the iron has left')).toContainText(told);
  // everything is still there after a reload
  await page.reload();
  await expect(methods.getByText(told).first()).toBeVisible();
  await pick(page, 'Low-melt + iron');
  expect(await wet(page)).toBe(lower);
});

/** Goes through pins as the hidden bench answers, some of them left too early; those it shows plugged. */
async function suckAll(page: Page, pins: string[], early: string[] = []): Promise<string[]> {
  const held: string[] = [];
  for (const [n, pin] of pins.entries()) {
    await expect(page.getByText(`Joint ${pin}, ${n + 1} of ${pins.length}`)).toBeVisible();
    const through = page.getByText(`Bench: joint ${pin} is through.`);
    const plugged = page.getByText(`Bench: joint ${pin} has melted, but stays plugged.`);
    if (!early.includes(pin)) await untilShown(page, through.or(plugged));
    if (await plugged.isVisible()) {
      held.push(pin);
      await page.keyboard.press('2');
    } else await tap(page);
  }
  return held;
}

test('a vacuum iron takes a socket off pin by pin, against the hidden bench', async ({ page }) => {
  test.setTimeout(300_000);
  const id = await planFor(page, 'Tern T2, 2 layers', 'j1', 'keys dead, their socket is loose', 'vacuum');
  await record(page, id, ...['battery', 'cell'].map((sourceId) => ({ type: 'power-gone', sourceId, how: 'pulled' })));
  await usePlan(page, 'Vacuum iron');

  await hurried(page);
  await openRun(page, id, 'remove');
  await page.getByLabel('a hidden bench plays the board').check();
  const say = page.getByRole('heading', { level: 1 });
  for (const words of ['Flux every joint of J1.', 'Vacuum iron at 380 °C']) {
    await tap(page);
    await expect(say).toContainText(words);
  }
  await tap(page);
  await expect(say).toHaveText('Feed fresh solder. Molten through? Turn, suck.');
  // as the bench answers pin by pin, one left too early: no pin is through within half a second
  const held = await suckAll(page, ['1', '2', '3', '4', '5', '6'], ['5']);
  for (let lap = held; lap.length > 0;) {
    await expect(say).toHaveText('It holds: fresh solder, molten through, suck once more.');
    lap = await suckAll(page, lap);
  }
  await expect(say).toHaveText('Push every pin. Do all of them move?');
  await expect(page.getByText('Bench: 5 still holds.')).toBeVisible();
  // one holds: every pin is tried, and that one comes round again before anything is lifted
  await page.keyboard.press('2');
  await expect(say).toHaveText('Try every joint: does this one move?');
  for (const pin of ['1', '2', '3', '4', '5', '6']) {
    await expect(page.getByText(`Bench: joint ${pin} ${pin === '5' ? 'holds' : 'moves'}.`)).toBeVisible();
    if (pin === '5') await page.keyboard.press('2');
    else await tap(page);
  }
  for (let lap = ['5']; lap.length > 0;) lap = await suckAll(page, lap);
  await expect(page.getByText('Bench: every pin moves.')).toBeVisible();
  for (let n = 0; n < 5; n++) await tap(page);
  await expect(say).toHaveText('Remove: finished.');
  await page.goto(`/jobs/${id}/remove`);
  await expect(page.getByText('Vacuum iron').first()).toBeVisible();
});

test('one lap of suction, then air for what is stuck: those alone are told, nothing is lifted before each is free', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const id = await planFor(page, 'Tern T2, 2 layers', 'j1', 'socket loose, two pins eaten', 'vacuum-then-air');
  await record(page, id, ...['battery', 'cell'].map((sourceId) => ({ type: 'power-gone', sourceId, how: 'pulled' })));
  await usePlan(page, 'Vacuum iron, then air for what is stuck');
  await hurried(page);
  await openRun(page, id, 'remove');
  await page.getByLabel('a hidden bench plays the board').check();
  const say = page.getByRole('heading', { level: 1 });
  for (const words of ['Flux every joint of J1.', 'Vacuum iron at 380 °C', 'Feed fresh solder.']) {
    await tap(page);
    await expect(say).toContainText(words);
  }
  // two are said to be stuck whatever the bench says
  for (const pin of ['1', '2', '3', '4', '5', '6']) {
    await expect(page.getByText(`Joint ${pin}, ${pin} of 6`)).toBeVisible();
    await untilShown(page, page.getByText(new RegExp(`Bench: joint ${pin} (is through|has melted)`)));
    if (['2', '5'].includes(pin)) await page.keyboard.press('2');
    else await tap(page);
  }
  await expect(say).toHaveText('Nudge every pin. Does another one hold?');
  await tap(page);
  await expect(say).toContainText('Air on at');
  await tap(page);
  await expect(say).toHaveText('Air on what still holds: 2, 5.');
  await expect(page.getByTestId('clock')).toBeVisible();
  await page.keyboard.press('a');
  await expect(say).toContainText('Lift');
});

test('what the plan counts on is carried through: ticked in one act, laid out, told; left otherwise it is computed anew', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const id = await planFor(page, QUILLON, 'u7', 'no talk on the bus', 'air-slow');
  await record(page, id, ...QUILLON_GONE);
  await page.getByRole('button', { name: 'Surroundings' }).click();
  const form = page.getByRole('form', { name: 'Surroundings' });
  await choose(form.getByLabel('Under the board'), 'preheater');
  await form.locator('input').first().fill('120');
  await choose(form.getByLabel(/^Cover on D3/), 'foil, pressed on');
  await form.getByRole('button', { name: 'Compute with these' }).click();
  await expect(page.getByRole('button', { name: 'Surroundings: preheater, 1 covered' })).toBeVisible();
  await usePlan(page, 'Air, slow');

  await page.goto(`/jobs/${id}/protect`);
  const planned = page.getByRole('group', { name: 'By the plan' });
  await expect(planned).toContainText('D3 foil');
  const layOut = page.getByRole('form', { name: 'Lay-out' });
  for (const tool of ['preheater', 'foil'])
    await expect(layOut.getByRole('checkbox', { name: tool, exact: true })).toBeVisible();
  await layOut.getByRole('button', { name: 'All as planned' }).click();
  await expect(page.getByRole('heading', { name: 'Lay-out as planned' })).toBeVisible();
  await planned.getByRole('button', { name: 'All as planned' }).click();
  await expect(planned).toContainText('✓ all as planned');

  await openRun(page, id, 'remove');
  await expect(page.getByText(/not as planned/)).toHaveCount(0);
  await tap(page);
  const say = page.getByRole('heading', { level: 1 });
  await expect(say).toHaveText('Set the preheater to 120 °C, beside the board.');
  await tap(page);
  await tap(page);
  await expect(page.getByText(/Board over the preheater now\./)).toBeVisible();

  // another attempt leaves the cover off: its times are computed for the board as it is
  await record(page, id, { type: 'new-attempt', why: 'once more' });
  await record(page, id, { type: 'suspect', partId: 'u7', why: 'still low' });
  await page.goto(`/jobs/${id}/plan?method=air-slow`);
  await usePlan(page, 'Air, slow');
  await record(page, id, { type: 'neighbour-accepted', partId: 'd3', why: 'it is renewed next' });
  await openRun(page, id, 'remove');
  await expect(page.getByText('◆ D3 not as planned: times are for the board as it is')).toBeVisible({
    timeout: 60_000,
  });
});

test('foil with a window: covered in one act once power is gone, what it saves, and the print', async ({ page }) => {
  test.setTimeout(300_000);
  const id = await planFor(page, QUILLON, 'u4', 'controller dead', 'air-fast');
  await usePlan(page, 'Air, fast');
  await page.goto(`/jobs/${id}/protect`);
  const foil = page.getByRole('region', { name: 'Foil with a window' });
  await expect(foil.getByRole('button', { name: 'Foil laid' })).toBeDisabled();
  await expect(foil).toContainText('no metal yet');
  await record(page, id, ...QUILLON_GONE);
  await page.reload();
  await foil.getByRole('button', { name: 'With and without' }).click();
  await expect(foil.getByRole('table')).toContainText(/all loose at \d+ s, [+−]\d+ s/, { timeout: 60_000 });
  const pdf = page.waitForEvent('download');
  await foil.getByRole('button', { name: 'Print 1:1, PDF' }).click();
  expect((await pdf).suggestedFilename()).toBe('foil-U4.pdf');
  await foil.getByRole('button', { name: 'Foil laid' }).click();
  await expect(foil).toContainText('✓ all of them covered or accepted');
  await expect(page.getByText('neither covered nor accepted')).toHaveCount(0);
});

test('solder worked in, then air: set phase by phase, laid out with both tools, led through row by row', async ({
  page,
}) => {
  test.setTimeout(300_000);
  const id = await planFor(page, QUILLON, 'u7', 'no talk on the bus', 'spike-then-air');
  await pick(page, 'Leaded spike, then air');
  await expect(page.getByText(/The last heat comes on after \d+ s; times count from the first\./)).toBeVisible();
  const before = await wet(page);

  // three times the solder: more to melt, at less heat
  await page.getByRole('button', { name: 'Change settings' }).click();
  const form = page.getByRole('form', { name: 'Settings of Leaded spike, then air' });
  const iron = form.getByRole('group', { name: '1. Iron, solder worked in' });
  await expect(form.getByRole('group', { name: '2. Air' }).getByLabel('Set-point, °C', { exact: true })).toHaveValue(
    '390',
  );
  await iron.getByLabel('Worked in, ×', { exact: true }).fill('70');
  await form.getByRole('button', { name: 'Keep these' }).click();
  await expect(iron.getByRole('alert')).toHaveText('0.1 to 5 ×');
  await iron.getByLabel('Worked in, ×', { exact: true }).fill('3');
  await form.getByRole('button', { name: 'Keep these' }).click();
  await expect(page.getByText('3 × of Sn63Pb37 worked in')).toBeVisible();
  await page.getByRole('button', { name: 'Compute again' }).click();
  expect(await timeOf(page, 'Leaded spike, then air')).not.toBe(before);
  await page.getByRole('button', { name: 'Use this plan' }).click();
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();

  await page.goto(`/jobs/${id}/protect`);
  for (const tool of ['Sn63Pb37 wire to work in', 'tip 3 mm', 'nozzle 8 mm'])
    await expect(page.getByRole('checkbox', { name: tool })).toBeVisible();
  for (const set of [/^iron temperature/, /^air temperature/, /^air flow/])
    await expect(page.getByLabel(set)).toBeVisible();

  await record(
    page,
    id,
    ...['harness', 'bulk'].map((sourceId) => ({ type: 'power-gone', sourceId, how: 'gone', residual_V: 0 })),
  );
  await openRun(page, id, 'remove');
  const say = page.getByRole('heading', { level: 1 });
  for (const words of ['Row 1 of 2', 'Row 2 of 2', 'Flux every joint of U7.', 'Air on at 390 °C', 'Circle the body']) {
    await tap(page);
    await expect(say).toContainText(words);
  }
  // its clock began with the air
  await expect(page.getByText(/all wet expected in \d+ to \d+ s/)).toBeVisible();
  // a reload in the middle goes on by what it was begun with
  await page.reload();
  await expect(say).toContainText('Circle the body');
  for (let n = 0; n < 6; n++) await tap(page);
  await expect(say).toHaveText('Remove: finished.');

  // what is kept says which part, by which method, and what exactly was set
  const boardId = expect.stringMatching(/^[0-9a-f-]{36}$/) as unknown;
  const about = { op: 'remove', methodId: 'spike-then-air', partId: 'u7', boardId };
  const logged = async (type: string) => {
    const log = (await (await page.request.get(`/api/jobs/${id}/events`)).json()) as { events: { body: object }[] };
    return log.events.map((e) => e.body).filter((b) => 'type' in b && b.type === type);
  };
  // the last marks may still be on their way
  await expect.poll(async () => (await logged('mark')).at(-1)).toMatchObject({ ...about, phase: 'air' });
  expect((await logged('mark'))[0]).toMatchObject({ ...about, phase: 'spike' });
  expect((await logged('plan'))[0]).toMatchObject({ methodId: 'spike-then-air', partId: 'u7', boardId });
  expect((await logged('run-begun'))[0]).toMatchObject({
    methodId: 'spike-then-air',
    partId: 'u7',
    phases: [{ id: 'spike', settings: { ratio: 3 } }, { id: 'air' }],
  });
});

test('settings are searched for on this bench: called off, found, taken, computed with', async ({ page }) => {
  test.setTimeout(300_000);
  await planFor(page, 'Tern T2, 2 layers', 'c7', 'dark since Sunday', 'air-slow');
  await expect(page.getByText(/all wet \d+ s/).first()).toBeVisible();
  await page.getByRole('button', { name: 'Find settings' }).click();
  const find = page.getByRole('region', { name: 'Find settings' });
  await find.getByRole('button', { name: 'Search' }).click();
  await expect(find.getByRole('progressbar')).toBeVisible();
  await find.getByRole('button', { name: 'Cancel' }).click();
  await expect(find.getByRole('button', { name: 'Search' })).toBeVisible();

  await find.getByRole('button', { name: 'Search' }).click();
  const table = find.getByRole('table', { name: 'Settings found' });
  // the best so far is shown while it goes on
  await expect(table.getByRole('rowheader', { name: 'best so far' })).toBeVisible({ timeout: 60_000 });
  await expect(find).toContainText('looked at so far');
  await expect(table.getByRole('rowheader', { name: 'found' })).toBeVisible({ timeout: 200_000 });
  await expect(table.getByRole('row')).toHaveCount(3);
  await expect(find).toContainText(/\d+ settings looked at\./);
  const before = await table.getByRole('row').nth(1).getByRole('cell').first().innerText();
  const line = await table.getByRole('row').nth(2).getByRole('cell').first().innerText();
  expect(line).not.toBe(before);
  await find.getByRole('button', { name: 'Take these settings' }).click();
  await expect(find).toHaveCount(0);
  await pick(page, 'Air, slow');
  // what was found is what is set now
  await page.getByRole('button', { name: 'Change settings' }).click();
  const set = Number(/^(\d+) °C/.exec(line)?.[1]);
  await expect(page.getByLabel('Set-point, °C').first()).toHaveValue(String(set));
});

test('nothing works beside the plastic of a thick board: what would is found, taken, and works', async ({ page }) => {
  test.setTimeout(600_000);
  await planFor(page, 'Gantry, 6 layers', 'u3', 'no gate pulses');
  const out = page.getByRole('region', { name: 'Way out' });
  await out.getByRole('button', { name: 'Look for a way out' }).click();
  await expect(out.getByRole('progressbar')).toBeVisible();
  await out.getByRole('button', { name: 'Cancel' }).click();
  await out.getByRole('button', { name: 'Look for a way out' }).click();
  const way = out.getByRole('list', { name: 'Ways out' }).getByRole('listitem').first();
  await expect(way).toContainText('over J2', { timeout: 300_000 });
  await expect(way).toContainText('works');
  await way.getByRole('button', { name: 'Plan it so' }).click();
  await expect(page.getByRole('button', { name: /Surroundings: .*\d covered/ })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Use this plan' })).toBeEnabled();
  await expect(out).toHaveCount(0);
  // what the plan counts on is asked for where neighbours are protected
  await page.getByRole('button', { name: 'Use this plan' }).click();
  await expect(page.getByRole('button', { name: 'In use' })).toBeVisible();
  await page.goto(page.url().replace(/plan.*$/, 'protect'));
  await expect(page.getByRole('main')).toContainText(/J2[\s\S]*thick cover/);
});

test('dials: known effects while they are dragged, in full once let go; slow or fast; from where', async ({ page }) => {
  test.setTimeout(300_000);
  await planFor(page, 'Tern T2, 2 layers', 'c7', 'dark since Monday', 'air-slow');
  await page.getByRole('button', { name: 'Change settings' }).click();
  const told = page.getByLabel('What it comes to');
  await expect(told).toContainText('as set', { timeout: 60_000 });
  const field = page.getByLabel('Set-point, °C').first();
  const before = await field.inputValue();
  await page.getByRole('slider', { name: 'Set-point by hand' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(field).not.toHaveValue(before);
  await expect(told).toContainText('now');
  // let go, it is computed as it is
  await expect(told).not.toContainText('≈', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Leave as it was' }).click();

  await page.getByRole('button', { name: 'Slow or fast' }).click();
  await expect(page.getByText(/Works from|No set-point works/)).toBeVisible({ timeout: 60_000 });
  await expect(page.getByRole('img', { name: 'all loose against the set-point' })).toBeVisible();
  await page.getByRole('button', { name: 'From where' }).click();
  await expect(page.getByRole('img', { name: 'Where it may come from' })).toContainText('12', { timeout: 60_000 });
  await expect(page.getByRole('main')).toContainText(/Take hold (by|with)/);
});
