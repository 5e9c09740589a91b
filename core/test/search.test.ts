// Searching settings: better than what is set, never outside of what is free, the same every time, near the best of a dense grid.
import { describe, expect, it } from 'vitest';
import { helping } from './helping.ts';
import { type Free, freeOn, hotter } from '../src/compare/index.ts';
import { searchSettings, searchInput, type TunedSoFar, tuneSettings, tuneInput } from '../src/compare/search.ts';
import { axesOf, turned } from '../src/compare/free.ts';
import { likeEnsemble } from '../src/compare/effects.ts';
import { placeOf, rowOf } from '../src/compare/row.ts';
import {
  caseOf,
  ensembleOf,
  kitItemSchema,
  type Method,
  methodsFor,
  type PlanInput,
  reworkPlaceSchema,
  runPlan,
} from '../src/rework/index.ts';

const context = { now: () => 0 };
const methodOf = (packageId: string, id: string): Method => {
  const found = methodsFor(packageId).find((m) => m.method.id === id)?.method;
  if (!found) throw new Error(`no ${id}`);
  return found;
};
/** A part on a thin board, a plastic plug and a can beside it. */
const place = (packageId: string, plastic_mm = 14) => ({
  board: {
    kind: 'two-layer',
    lx_mm: 44,
    ly_mm: 36,
    parts: [
      { id: 'u1', package: packageId, x_mm: 22, y_mm: 18 },
      { id: 'j1', package: 'CONN-PBT-8', x_mm: 22, y_mm: 18 + plastic_mm },
    ],
  },
  target: 'u1',
  seed: 1,
});
const small = (plastic_mm?: number) => ({ case: place('C0603', plastic_mm) });
const search = (change: object) =>
  searchSettings(searchInput.parse({ case: place('SOIC-8'), method: 'air-slow', ...change }), context);

describe('what is free', () => {
  const slow = methodOf('SOIC-8', 'air-slow');
  it('is walked in steps that a hand can set, both ends among them; values are taken as they are', () => {
    const [set, flow, nozzle] = axesOf({ set_C: [300, 400], flow_L_min: [20, 90], nozzle_mm: [5, 8, 12] }, slow);
    expect(set.values).toEqual([300, 310, 320, 330, 340, 350, 360, 370, 380, 390, 400]);
    expect([flow.values[0], flow.values.at(-1)]).toEqual([20, 90]);
    expect(flow.values.length).toBeLessThanOrEqual(17);
    expect(nozzle.values).toEqual([5, 8, 12]);
  });
  it('is found in the phase that has it, or in one that is named', () => {
    const warm = methodOf('SOIC-8', 'preheat-air');
    const set = turned(
      warm,
      new Map<string, number>([
        ['below.T_C', 180],
        ['below.until.C', 95],
        ['set_C', 350],
      ]),
    );
    expect(set.phases[0]).toMatchObject({ settings: { T_C: 180 }, until: { C: 95 } });
    expect(set.phases[1]).toMatchObject({ settings: { set_C: 350 } });
    // the method itself is left as it was
    expect(warm.phases[1]).not.toMatchObject({ settings: { set_C: 350 } });
  });
  it.each([
    [{ set_C: [300, 2000] }, 'free.set_C'],
    [{ set_C: [400, 300] }, 'free.set_C'],
    [{ no_such: [1, 2] }, 'free.no_such'],
    [{ tip: ['knife'] }, 'free.tip'],
  ])('says what cannot be turned: %j', async (free, field) => {
    await expect(search({ free })).rejects.toMatchObject({ issues: [expect.objectContaining({ field })] });
  });
  it('says what does not fit, or is not there', async () => {
    const free = { set_C: [300, 400] };
    await expect(search({ method: 'twist-off', free })).rejects.toMatchObject({ issues: [{ field: 'method' }] });
    const bare = { ...place('SOIC-8'), kit: [{ tool: 'iron', set_C: [200, 450] }] };
    await expect(search({ case: bare, free })).rejects.toMatchObject({ issues: [{ field: 'method' }] });
  });
});

describe('what a bench can turn', () => {
  const kit = [
    { tool: 'air', set_C: [150, 430], flow_L_min: [20, 60], nozzles: [{ round_mm: 5 }, { round_mm: 10 }] },
    { tool: 'iron', set_C: [200, 380], power_W: 60, tips_mm: [2, 3] },
    { tool: 'below', kind: 'air', T_C: [50, 250] },
  ].map((i) => kitItemSchema.parse(i));
  it('is what its tools can, and no more', () => {
    expect(freeOn(methodOf('SOIC-8', 'air-slow'), kit)).toMatchObject({
      'air.set_C': [250, 430],
      'air.flow_L_min': [20, 60],
      'air.nozzle_mm': [5, 10],
    });
    const warm = freeOn(methodOf('SOIC-8', 'preheat-air'), kit);
    expect(warm).toMatchObject({ 'below.T_C': [120, 250], 'below.until.C': [80, 140] });
    expect(Object.keys(warm).length).toBeLessThanOrEqual(12);
    expect(freeOn(methodOf('SOIC-8', 'bead'), kit)).toMatchObject({
      'stroke.set_C': [280, 380],
      'stroke.tip_mm': [2, 3],
    });
  });
  it('hotter is nearer to the most that it can, and no further; irons and hands stay as they are', () => {
    const usual = methodOf('SOIC-8', 'air-slow');
    expect(hotter(usual, kit, 0)).toEqual(usual);
    const most = hotter(usual, kit, 1).phases.find((p) => p.kind === 'air');
    expect(most?.settings).toMatchObject({ set_C: 430, standoff_mm: 8 });
    expect((most?.settings as { flow_L_min: number }).flow_L_min).toBeLessThanOrEqual(60);
    const half = hotter(usual, kit, 0.5).phases.find((p) => p.kind === 'air');
    expect((half?.settings as { set_C: number }).set_C).toBeLessThan(430);
    for (const id of ['bead', 'cut-legs'])
      expect(hotter(methodOf('SOIC-8', id), kit, 1)).toEqual(methodOf('SOIC-8', id));
  });
  it('is nothing where nothing is turned', () => {
    expect(freeOn(methodOf('SOIC-8', 'cut-legs'), kit)).toEqual({});
    expect(freeOn(methodOf('CAN-8', 'twist-off'), kit)).toEqual({});
  });
  it('can all be searched', () => {
    for (const { method, unfit } of ['SOIC-8', 'DIP-8', 'R0805', 'FLEX-8'].flatMap((p) => methodsFor(p))) {
      const free = freeOn(method, undefined);
      if (unfit || Object.keys(free).length === 0) continue;
      for (const axis of axesOf(free, method))
        expect(axis.values.length, `${method.id} ${axis.key}`).toBeGreaterThan(1);
    }
  });
});

describe('a glance', () => {
  it('at a known setting is the known row itself', async () => {
    const found: PlanInput = {
      ...caseOf(reworkPlaceSchema.parse(place('SOIC-8'))),
      phases: methodOf('SOIC-8', 'air-fast').phases,
      quality: 'coarse',
      frames: false,
    };
    const ensemble = await ensembleOf(found, { quality: 'coarse', least: 12, nominalCosts: 1 }, context);
    const quick = await runPlan({ ...found, quality: 'search' }, context);
    const method = { id: 'air-fast', phases: found.phases };
    const [known, like] = [ensemble, likeEnsemble(quick, ensemble, quick)].map((e) => rowOf(method, e, placeOf(found)));
    expect(like.score).toBeCloseTo(known.score ?? NaN, 4);
    expect(like.window?.p_open).toBeCloseTo(known.window?.p_open ?? NaN, 6);
    expect(like.worst?.margin_K).toBeCloseTo(known.worst?.margin_K ?? NaN, 6);
  });
});

describe('the search', () => {
  const free = { set_C: [280, 460], flow_L_min: [15, 60], standoff_mm: [5, 20], nozzle_mm: [5, 8] };
  it('finds settings that cost less, within what is free, the same every time', async () => {
    const [one, two] = [
      await search({ ...small(), free, budget_runs: 40 }),
      await search({ ...small(), free, budget_runs: 40 }),
    ];
    expect(two).toEqual(one);
    const { settings, trace, score, evaluated, dials } = one;
    expect(score).toBeLessThan(trace[0].score);
    expect(trace.at(-1)?.score).toBe(score);
    for (const [i, t] of trace.entries()) if (i > 0) expect(t.score).toBeLessThan(trace[i - 1].score);
    expect(evaluated).toBeLessThanOrEqual(40);
    expect(settings.set_C).toBeGreaterThanOrEqual(280);
    expect(settings.set_C).toBeLessThanOrEqual(460);
    expect([5, 8]).toContain(settings.nozzle_mm);
    expect(dials).toEqual(
      expect.arrayContaining([
        { tool: 'air', dial: 'air temperature', value: settings.set_C, unit: '°C' },
        { tool: 'air', dial: 'air flow', value: settings.flow_L_min, unit: 'L/min' },
      ]),
    );
    expect(one.row.procedure?.phases[0].settings).toMatchObject(settings);
  }, 120_000);

  it('comes near the best of a dense grid', async () => {
    const grid: Free = { set_C: [300, 360, 420], standoff_mm: [6, 12, 18] };
    const method = methodOf('C0603', 'air-slow');
    const found = caseOf(reworkPlaceSchema.parse(place('C0603', 9)));
    let least = Infinity;
    for (const set_C of grid.set_C)
      for (const standoff_mm of grid.standoff_mm) {
        const set = turned(method, new Map(Object.entries({ set_C, standoff_mm })));
        const input: PlanInput = { ...found, phases: set.phases, quality: 'coarse', frames: false };
        const ensemble = await ensembleOf(input, { quality: 'coarse', least: 12, nominalCosts: 1 }, context);
        least = Math.min(least, rowOf(set, ensemble, placeOf(input)).score ?? Infinity);
      }
    const { score } = await search({ ...small(9), free: grid });
    expect(score - least).toBeLessThanOrEqual(0.05);
  }, 180_000);

  it('stops at once when it is called off', async () => {
    const abort = new AbortController();
    const going = searchSettings(searchInput.parse({ case: place('SOIC-8'), method: 'air-slow', free }), {
      now: () => 0,
      signal: abort.signal,
      progress: () => abort.abort(),
    });
    await expect(going).rejects.toMatchObject({ name: 'CancelledError' });
  });

  it('of a plan starts from its own settings and says what they cost', async () => {
    const method = methodOf('R0805', 'tweezers');
    const { phases } = turned(method, new Map([['set_C', 300]]));
    const plan = { ...caseOf(reworkPlaceSchema.parse(place('R0805'))), as: 'tweezers', phases };
    const { quality: _, ...said } = plan;
    const tuned = await tuneSettings(
      tuneInput.parse({ ...said, free: { set_C: [280, 400] }, budget_runs: 120 }),
      context,
    );
    expect(tuned.before.score).not.toBeNull();
    expect(tuned.score).toBeLessThanOrEqual(tuned.before.score ?? NaN);
    expect(tuned.phases[0].settings).toMatchObject({ set_C: tuned.settings.set_C });
  }, 60_000);

  it('tells the best so far while it goes on, and is the same to the last bit with others who help', async () => {
    const { phases } = methodOf('C0603', 'air-slow');
    const { quality: _, ...said } = { ...caseOf(reworkPlaceSchema.parse(place('C0603'))), as: 'air-slow', phases };
    const asked = tuneInput.parse({ ...said, free, budget_runs: 60 });
    const soFar: TunedSoFar[] = [];
    const progress = (_done: number, partial?: unknown) => partial && soFar.push(partial as TunedSoFar);
    const alone = await tuneSettings(asked, { ...context, progress });
    expect(soFar.length).toBeGreaterThan(1);
    // glances first, then what is surely known, each less than the one before
    expect(soFar.map((t) => t.nearly)).toEqual(soFar.map((t) => t.nearly).sort((a, b) => Number(b) - Number(a)));
    expect(soFar[0].nearly).toBe(true);
    expect(soFar.at(-1)).toEqual({ ...alone, evaluated: soFar.at(-1)?.evaluated, nearly: false });
    for (const { score, before, settings } of soFar) {
      expect(score).toBeLessThan(before.score ?? NaN);
      expect(settings).toMatchObject({ nozzle_mm: expect.any(Number) as number });
    }
    for (const lent of [1, 3]) {
      const { shares, idle } = helping(lent);
      expect(await tuneSettings(asked, { ...context, idle })).toEqual(alone);
      expect(shares.there).toBeGreaterThan(15);
    }
  }, 120_000);
});
