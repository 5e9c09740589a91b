/** Tools and surroundings of a rework: what each must do, in orders rather than in seconds. */
import type { AirSettings } from '../src/rework/phases/air/settings.ts';
import type { Phase } from '../src/rework/phases/schema.ts';
import { describe, expect, it } from 'vitest';
import { changed, air, boardOf, planOf, runOf } from './plans.ts';
import { blows, settingAt, stageOf } from '../src/rework/phases/air/field.ts';
import { planInputSchema, type PlanInput } from '../src/rework/planForm.ts';

const board = boardOf('SOIC-8', 'two-layer', 'pbt');
const run = (phase: Phase, more: Partial<PlanInput> = {}) => runOf(board, phase, more);
async function wet(phase: Phase, more: Partial<PlanInput> = {}): Promise<number> {
  return (await run(phase, more)).allWet_s ?? Infinity;
}
/** The plastic neighbour of the express board, and where it stands from the target. */
const plastic = (await run(air({ limit_s: 5 }))).neighbours[0];
const placed = board.parts.find((p) => p.partId === plastic.partId);
const target = board.parts.find((p) => p.partId === 'target');
if (!placed || !target) throw new Error('the express board has no neighbour');

describe('air that changes on the way', () => {
  it('closing in: warm from afar, molten only after it has come close, the sooner the sooner', async () => {
    const far = air({ standoff_mm: 60, set_C: 390 });
    const close = (from_s: number) => changed(far, { stages: [{ from_s, standoff_mm: 9 }] });
    expect(await wet(far)).toBe(Infinity);
    const [early, late] = [await wet(close(20)), await wet(close(50))];
    expect(early).toBeGreaterThan(20);
    expect(late).toBeGreaterThan(50);
    expect(late).toBeGreaterThan(early);
    // what was warmed before needs less time close up
    expect(late - 50).toBeLessThan(early - 20);
  });
  it('a stage changes only what it names, and holds until the next', () => {
    const method = air({
      stages: [
        { from_s: 10, set_C: 430 },
        { from_s: 30, flow_L_min: 70, standoff_mm: 7 },
      ],
    });
    expect(
      [0, 10, 29.9, 30].map((t) => [
        stageOf(method.settings, t),
        settingAt(method.settings, t).set_C,
        settingAt(method.settings, t).flow_L_min,
      ]),
    ).toEqual([
      [0, 400, 45],
      [1, 430, 45],
      [1, 430, 45],
      [2, 430, 70],
    ]);
    expect(settingAt(method.settings, 40)).toMatchObject({ standoff_mm: 7, sweep_mm: 4 });
  });
  it('hotter or stronger in the middle melts sooner', async () => {
    const plain = await wet(air());
    expect(await wet(air({ stages: [{ from_s: 8, set_C: 470 }] }))).toBeLessThan(plain);
    expect(await wet(air({ stages: [{ from_s: 8, flow_L_min: 80 }] }))).toBeLessThan(plain);
  });
  it('pulses melt later than steady air, and longer pauses later still', async () => {
    const plain = await wet(air());
    const half = await wet(air({ pulse: { on_s: 3, off_s: 1 } }));
    expect(half).toBeGreaterThan(plain * 1.15);
    expect(await wet(air({ pulse: { on_s: 3, off_s: 2 } }))).toBeGreaterThan(half);
    expect([0, 2.9, 3, 3.9, 4].map((t) => blows(air({ pulse: { on_s: 3, off_s: 1 } }).settings, t))).toEqual([
      true,
      true,
      false,
      false,
      true,
    ]);
  });
  it('a leaning nozzle warms what lies down the wind more than what lies behind it', async () => {
    const angle = (Math.atan2(-(placed.y_mm - target.y_mm), placed.x_mm - target.x_mm) * 180) / Math.PI;
    const peak = async (approach_deg: number) =>
      (await run(air({ tilt_deg: 35, approach_deg, limit_s: 25 }))).neighbours.find((n) => n.partId === plastic.partId)
        ?.peak_C ?? 0;
    const [leaningFromIt, leaningTowardsIt] = [await peak(angle), await peak(angle + 180)];
    expect(leaningTowardsIt).toBeGreaterThan(leaningFromIt + 5);
  });
  it('a hand that moves along a line warms what lies on that line more', async () => {
    const along = (Math.atan2(-(placed.y_mm - target.y_mm), placed.x_mm - target.x_mm) * 180) / Math.PI;
    const peak = async (sweep_deg: number | undefined) =>
      (await run(air({ sweep_mm: 6, limit_s: 25, ...(sweep_deg === undefined ? {} : { sweep_deg }) }))).neighbours.find(
        (n) => n.partId === plastic.partId,
      )?.peak_C ?? 0;
    const [onIt, circling, across] = [await peak(along), await peak(undefined), await peak(along + 90)];
    expect(onIt).toBeGreaterThan(circling + 1);
    expect(circling).toBeGreaterThan(across + 1);
    // to and fro has no sense of direction
    expect(await peak(along + 180)).toBeCloseTo(onIt, 6);
  });
  it('a wide mouth spreads the same bore over more board', async () => {
    const pads = async (mouth?: AirSettings['mouth']) =>
      (await run(air({ limit_s: 15, nozzle_mm: 4, sweep_mm: 0, ...(mouth ? { mouth } : {}) }))).body_C;
    const narrow = await pads();
    expect(await pads({ kind: 'slot', w_mm: 16, h_mm: 16 })).toBeLessThan(narrow);
    expect(await pads({ kind: 'rim', w_mm: 24, h_mm: 24 })).toBeLessThan(await pads({ kind: 'rim', w_mm: 8, h_mm: 8 }));
  });
});

describe('what is under and round the board', () => {
  it('heat from below melts sooner; a window elsewhere helps less', async () => {
    const plain = await wet(air());
    const everywhere = await wet(air(), { under: { kind: 'preheater', T_C: 150, h: 60 } });
    const window = { x_mm: target.x_mm - 12, y_mm: target.y_mm - 12, w_mm: 24, h_mm: 24 };
    const here = await wet(air(), { under: { kind: 'preheater', T_C: 150, h: 60, window } });
    const away = await wet(air(), {
      under: { kind: 'preheater', T_C: 150, h: 60, window: { ...window, x_mm: target.x_mm + 14, w_mm: 4 } },
    });
    expect(everywhere).toBeLessThan(plain);
    expect(here).toBeLessThan(away);
    expect(everywhere).toBeLessThanOrEqual(here);
    expect(await wet(air(), { under: { kind: 'infrared', flux_W_m2: 6000 } })).toBeLessThan(plain);
  });
  it('a mild plate cools a board that is already hotter', async () => {
    const weak = air({ set_C: 380, flow_L_min: 25, limit_s: 120 });
    const gentle = await run(weak, { under: { kind: 'preheater', T_C: 60, h: 300 } });
    const open = await run(weak);
    expect(gentle.pads_C).toBeLessThan(open.pads_C);
  });
  it('a mat and a draught take heat away', async () => {
    const plain = await wet(air());
    expect(await wet(air(), { under: { kind: 'mat', contact_R: 2e-3, h: 100 } })).toBeGreaterThan(plain);
    expect(await wet(air(), { draught: 6 })).toBeGreaterThan(plain);
  });
});

describe('covers', () => {
  const peakUnder = async (kind?: 'tape' | 'foil' | 'foil-off' | 'strip' | 'thick') =>
    (await run(air({ limit_s: 30 }), kind ? { covers: [{ kind, partId: plastic.partId }] } : {})).neighbours.find(
      (n) => n.partId === plastic.partId,
    )?.peak_C ?? 0;
  it('keep a neighbour cooler, foil that stands off more than foil pressed on, tape least', async () => {
    const [bare, tape, foil, off] = [
      await peakUnder(),
      await peakUnder('tape'),
      await peakUnder('foil'),
      await peakUnder('foil-off'),
    ];
    expect(tape).toBeLessThan(bare);
    expect(foil).toBeLessThan(tape);
    expect(off).toBeLessThan(foil);
  });
  it('over the target itself, or the board round it, delay the melting', async () => {
    const plain = await wet(air());
    expect(await wet(air(), { covers: [{ kind: 'foil', partId: 'target' }] })).toBeGreaterThan(plain);
    const area = { x_mm: target.x_mm - 30, y_mm: target.y_mm - 30, w_mm: 60, h_mm: 60 };
    expect(await wet(air(), { covers: [{ kind: 'foil-off', area }] })).toBeGreaterThan(plain);
  });
});

describe('bad input', () => {
  it.each([
    [{ phases: [air({ tilt_deg: 80 })] }, 'phases.0.settings.tilt_deg'],
    [{ phases: [air({ pulse: { on_s: 0, off_s: 1 } })] }, 'phases.0.settings.pulse.on_s'],
    [{ phases: [air({ stages: [{ from_s: 5, flow_L_min: 10_000 }] })] }, 'phases.0.settings.stages.0.flow_L_min'],
    [{ under: { kind: 'preheater', T_C: 2000, h: 40 } }, 'under.T_C'],
    [{ under: { kind: 'lava' } }, 'under.kind'],
    [{ covers: [{ kind: 'foil' }] }, 'covers.0'],
    [{ draught: NaN }, 'draught'],
  ])('%j is refused by its field', (change, field) => {
    const parsed = planInputSchema.safeParse({ ...planOf(board, air()), ...change });
    expect(parsed.error?.issues.map((i) => i.path.join('.'))).toContain(field);
  });
});
