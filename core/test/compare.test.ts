/** Ways of working compared: the orderings every practitioner would sign, and what stands behind them. */
import { describe, expect, it } from 'vitest';
import { runCalc } from '../src/calc/index.ts';
import type { Comparison, Row } from '../src/compare/index.ts';
import { Draws, percentile, shareOf, spreadOf } from '../src/compare/draws.ts';
import { benchMinutes } from '../src/compare/minutes.ts';
import { inTheEnd } from '../src/compare/index.ts';
import { RECIPES } from '../src/rework/methods/recipes.ts';
import { type Ensemble, ensembleOf } from '../src/rework/ensemble.ts';
import { kindOf, type PlanRun } from '../src/rework/index.ts';
import { air, boardOf, planOf } from './plans.ts';

const context = { now: () => 0 };
type Given = Record<string, unknown>;

const part = (id: string, pkg: string, x_mm: number, y_mm: number, more: Given = {}) => ({
  id,
  package: pkg,
  x_mm,
  y_mm,
  ...more,
});
const place = (kind: string, size: number, parts: Given[], more: Given = {}) => ({
  board: { kind, lx_mm: size, ly_mm: size, parts },
  target: 'u1',
  ...more,
});
const compare = (asked: Given, methods?: string[], more: Given = {}) =>
  runCalc('plan.compare', { case: asked, ...(methods ? { methods } : {}), ...more }, context) as Promise<Comparison>;
const row = ({ rows }: Comparison, id: string): Row => {
  const found = rows.find((r) => r.id === id);
  if (!found) throw new Error(`no row ${id}`);
  return found;
};
const rankOf = ({ rows }: Comparison, id: string) => rows.findIndex((r) => r.id === id);

const IRON = { tool: 'iron', set_C: [200, 450], power_W: 70, tips_mm: [1, 3, 5] };
const SOLDER = { tool: 'wire', wt: { Sn: 63, Pb: 37 }, dia_mm: 0.7 };
const FLUX = { tool: 'flux', kind: 'rosin' };
const BRAID = { tool: 'braid' };

describe('every way is listed', () => {
  type Listed = {
    methods: { id: string; fits: boolean; why?: string; needs: { tool: string; have: boolean }[]; phases: string[] }[];
  };
  const list = async (pkg: string, more: Given = {}) =>
    (await runCalc(
      'plan.methods',
      { case: place('four-layer', 60, [part('u1', pkg, 30, 30)], more) },
      context,
    )) as Listed;
  it('once, with its phases, and a reason where it does not fit', async () => {
    const { methods } = await list('SOIC-8');
    expect(methods.map((m) => m.id)).toEqual(RECIPES.map((r) => r.id));
    for (const m of methods) expect(m.fits, m.id).toBe(m.why === undefined);
    const by = (id: string) => methods.find((m) => m.id === id);
    expect(by('bead')?.phases).toEqual(['alloy', 'stroke']);
    expect(by('vacuum')).toMatchObject({ fits: false, why: 'its joints lie in no holes' });
    expect(by('twist-off')?.fits).toBe(false);
    // a board without a list of its tools has all of them
    for (const m of methods) for (const need of m.needs) expect(need.have).toBe(true);
  });
  it('with what the bench lacks: two irons are two, low-melt wire is no solder', async () => {
    const { methods } = await list('SOIC-8', { kit: [IRON, SOLDER, FLUX, BRAID] });
    const lacks = (id: string) =>
      methods.find((m) => m.id === id)?.needs.flatMap((n) => (n.have ? [] : [n.tool])) ?? ['?'];
    expect(lacks('air-slow')).toEqual(['air']);
    expect(lacks('lift-legs')).toEqual([]);
    expect(lacks('irons2')).toEqual(['iron']);
    expect(lacks('bead')).toEqual(['wire']);
    expect(lacks('preheat-air')).toEqual(['below', 'air']);
  });
  it('for a tail, a can and pins has what is theirs alone', async () => {
    const fits = async (pkg: string) => (await list(pkg)).methods.flatMap((m) => (m.fits ? [m.id] : []));
    expect(await fits('FLEX-PI-20')).toContain('peel');
    expect(await fits('CAN-6.3')).toContain('twist-off');
    const pins = await fits('DIP-16');
    expect(pins).toEqual(expect.arrayContaining(['vacuum', 'vacuum-then-air', 'vacuum-warm', 'cut-legs']));
    expect(pins).not.toContain('irons2');
    expect(await fits('C0603')).toEqual(expect.arrayContaining(['tweezers', 'pool']));
    expect(await fits('BGA-64')).not.toContain('bead');
  });
});

describe('nobody has a third hand', () => {
  it('every phase says what the left and the right hand do, and holds no more', () => {
    for (const recipe of RECIPES)
      for (const phase of recipe.phases({ packageId: 'SOIC-8' })) {
        const { left, right, foot } = kindOf(phase).limbs(phase.settings);
        expect([left, right].every(Boolean), phase.kind).toBe(true);
        const irons = kindOf(phase).irons(phase.settings).length;
        // a tool a hand: two irons fill both, tweezers are one tool with two tips
        const held = [left, right].filter((s) => /iron|air|tweezers|wire|needle|pliers|cutters|spring/.test(s)).length;
        expect(held, phase.kind).toBeLessThanOrEqual(2);
        if (phase.kind === 'irons2') expect([left, right].every((s) => /iron/.test(s))).toBe(true);
        else if (phase.kind !== 'tweezers') expect(irons, phase.kind).toBeLessThanOrEqual(1);
        if (phase.kind === 'vacuum') expect(foot).toMatch(/suction/);
      }
  });
});

describe('orderings', () => {
  it('without hot air on the bench no way by air is offered', async () => {
    const asked = place('two-layer', 40, [part('u1', 'SOIC-8', 20, 20)], { kit: [IRON, SOLDER, FLUX, BRAID] });
    const found = await compare(asked, ['air-slow', 'air-fast', 'spike-then-air', 'lift-legs']);
    for (const id of ['air-slow', 'air-fast', 'spike-then-air'])
      expect(row(found, id)).toMatchObject({ verdict: 'not here', loose_s: null, score: null, procedure: null });
    expect(found.recommended).toBe('lift-legs');
    expect(row(found, 'air-fast').why).toContain('hot-air station');
  }, 60_000);
  it('a part that has to live is not cut, nor cooked', async () => {
    const asked = place('two-layer', 40, [part('u1', 'SOIC-8', 20, 20)], { mustLive: true });
    const found = await compare(asked, ['cut-legs', 'air-slow', 'irons2']);
    expect(row(found, 'cut-legs')).toMatchObject({ verdict: 'no', part: { p_hurt: 1 } });
    expect(row(found, 'cut-legs').why).toMatch(/has to live/);
    for (const r of found.rows) if (r.part && r.part.word.includes('hurt')) expect(r.verdict).not.toBe('works');
    expect(rankOf(found, 'air-slow')).toBeLessThan(rankOf(found, 'cut-legs'));
    // scrap may be cut
    const scrap = await compare({ ...asked, mustLive: false }, ['cut-legs']);
    expect(row(scrap, 'cut-legs')).toMatchObject({ verdict: 'works', part: { p_hurt: 0 } });
  }, 60_000);
  it('round four sides two irons come behind low-melt alloy, and say that both hands are full', async () => {
    const asked = place('four-layer', 60, [part('u1', 'QFP-44', 30, 30)]);
    const found = await compare(asked, ['irons2', 'bead'], { ranges: false });
    expect(rankOf(found, 'bead')).toBe(0);
    expect(row(found, 'irons2').verdict).not.toBe('works');
    expect(row(found, 'irons2').why).toMatch(/both hands/);
  }, 120_000);
  it('a spike before air shortens it', async () => {
    const asked = place('four-layer', 60, [part('u1', 'SOIC-16', 30, 30)]);
    const found = await compare(asked, ['spike-then-air', 'air-slow']);
    expect(row(found, 'spike-then-air').loose_s?.p50).toBeLessThan(row(found, 'air-slow').loose_s?.p50 ?? 0);
    expect(row(found, 'spike-then-air').heat_s?.p50).toBeLessThan(row(found, 'spike-then-air').loose_s?.p50 ?? 0);
  }, 60_000);
  it('a can that leaks: irons stall and say why, twisting is offered with a warning and never first', async () => {
    const joints = [{ corroded: true, leaking: true }];
    const asked = place('two-layer', 40, [part('u1', 'CAN-6.3', 20, 20)], { joints });
    const found = await compare(asked, ['tweezers', 'bead', 'twist-off', 'air-slow']);
    for (const id of ['tweezers', 'bead']) {
      expect(row(found, id).verdict).toBe('no');
      expect(row(found, id).why).toMatch(/crusted/);
    }
    const twisted = row(found, 'twist-off');
    expect(twisted.verdict).toBe('tight');
    expect(twisted.why).toMatch(/only when nothing melts/);
    expect(twisted.land?.p_torn).toBeGreaterThan(0.2);
    expect(found.recommended).toBe('air-slow');
  }, 60_000);
  it('beside a connector fast air is refused, or wants it covered', async () => {
    const beside = part('j1', 'CONN-PBT-8', 28.6, 20, { rotation_deg: 90 });
    const asked = place('two-layer', 50, [part('u1', 'SOIC-8', 20, 20), beside]);
    const found = await compare(asked, ['air-fast', 'bead']);
    expect(row(found, 'air-fast')).toMatchObject({ verdict: 'no', worst: { partId: 'j1', word: 'hurts' } });
    expect(row(found, 'air-fast').cheapest).toMatch(/^Cover it/);
    expect(found.recommended).toBe('bead');
  }, 60_000);
  it('small parts all round: alloy wins over bare strong air, which blows them away', async () => {
    const round = [
      [20, 24.5],
      [20, 15.5],
      [25, 20],
      [15, 20],
    ].map(([x, y], n) => part(`c${n}`, 'C0402', x, y));
    const asked = place('two-layer', 40, [part('u1', 'SOIC-8', 20, 20), ...round]);
    const found = await compare(asked, ['air-fast', 'bead']);
    expect(found.recommended).toBe('bead');
    expect(row(found, 'air-fast').why).toMatch(/wind/);
    const foil = { covers: round.map((c) => ({ kind: 'foil', partId: c.id })) };
    const covered = await compare({ ...asked, surroundings: foil }, ['air-fast']);
    expect(row(covered, 'air-fast').window?.p_open).toBeGreaterThan(row(found, 'air-fast').window?.p_open ?? 1);
  }, 60_000);
  it('a tab on a thick board is warmed first', async () => {
    const asked = place('heavy', 90, [part('u1', 'D2PAK', 45, 45)]);
    const found = await compare(asked, ['preheat-air', 'air-slow', 'bead'], { ranges: false });
    expect(found.recommended).toBe('preheat-air');
    expect(row(found, 'air-slow').cheapest).toMatch(/warming from below/);
  }, 120_000);
  it('forty pins: suction, then air for what is stuck, beats each alone', async () => {
    const asked = place('two-layer', 80, [part('u1', 'DIP-40', 40, 40)]);
    const found = await compare(asked, ['vacuum', 'vacuum-then-air', 'air-slow'], { ranges: false });
    expect(found.recommended).toBe('vacuum-then-air');
    expect(rankOf(found, 'vacuum-then-air')).toBe(0);
  }, 240_000);
  it('a cell within reach has to come out before anything is compared', async () => {
    const asked = place('two-layer', 60, [part('u1', 'SOIC-8', 20, 20), part('b1', 'CELL-20', 36, 20)]);
    const found = await compare(asked, ['air-slow', 'air-fast']);
    expect(found).toMatchObject({ rows: [], recommended: null, first: [{ partId: 'b1' }] });
    expect(found.reasons[0]).toMatch(/^Take .* out first\.$/);
    const out = await compare({ ...asked, surroundings: { absent: ['b1'] } }, ['air-slow'], { ranges: false });
    expect(out.rows).toHaveLength(1);
  }, 60_000);
});

describe('a row', () => {
  const asked = place('two-layer', 40, [part('u1', 'SOIC-8', 20, 20), part('j1', 'CONN-PBT-8', 20, 32)]);
  it('scores as its figures say, moves with the weights, and can be run again', async () => {
    const weights = { pads: 3, neighbours: 2, part: 1, minutes: 5 };
    const { rows } = await compare(asked, ['air-slow'], { weights });
    const [r] = rows;
    const open = r.window?.p_open ?? 0;
    const sum =
      3 * (r.land?.p_torn ?? 0) + 2 * (r.worst?.p_hurt ?? 0) + (5 * (r.minutes ?? 0)) / 60 + (open < 0.9 ? 1 : 0);
    expect(r.score).toBeCloseTo(sum, 12);
    const told = (await runCalc(
      'heat.rework',
      { case: asked, procedure: JSON.parse(JSON.stringify(r.procedure)) as unknown },
      context,
    )) as { joints: { loose_s: number }[]; phases: { heat_s: number; hands_s: number }[] };
    const last = Math.max(...told.joints.map((j) => j.loose_s));
    // the comparison is coarser
    expect(last / (r.loose_s?.p50 ?? 0)).toBeGreaterThan(0.85);
    expect(last / (r.loose_s?.p50 ?? 0)).toBeLessThan(1.15);
    expect(told.phases[0].hands_s).toBe(0);
  }, 60_000);
  it('is the same for a seed, and its ranges are in order', async () => {
    const [a, b, c] = [
      await compare(asked, ['bead']),
      await compare(asked, ['bead']),
      await compare({ ...asked, seed: 2 }, ['bead']),
    ];
    expect(a).toEqual(b);
    expect(a.rows[0].loose_s).not.toEqual(c.rows[0].loose_s);
    for (const { loose_s: s } of [...a.rows, ...(a.rows[0].joints ?? [])]) {
      expect(s?.p5).toBeLessThanOrEqual(s?.p50 ?? 0);
      expect(s?.p50).toBeLessThanOrEqual(s?.p95 ?? 0);
    }
    expect(a.rows[0].last?.reduce((sum, l) => sum + l.p, 0)).toBeGreaterThan(0.8);
    expect(a.reasons).toHaveLength(3);
  }, 60_000);
  it('takes longer for slow hands, which cool the board meanwhile', async () => {
    const of = async (pace: string) => (await compare({ ...asked, pace }, ['bead'], { ranges: false })).rows[0];
    const [novice, expert] = [await of('novice'), await of('expert')];
    expect(novice.loose_s?.p50).toBeGreaterThan(1.5 * (expert.loose_s?.p50 ?? 0));
    expect(novice.minutes).toBeGreaterThan(1.4 * (expert.minutes ?? 0));
  }, 60_000);
  it.each([
    [{ target: 'nobody' }, 'no part "nobody"'],
    [{ kit: [{ tool: 'magnet' }] }, 'kit'],
    [{ kit: [{ tool: 'air', set_C: [500, 100], flow_L_min: [1, 9], nozzles: [{ round_mm: 5 }] }] }, 'from low to high'],
    [{ pace: 'drunk' }, 'pace'],
  ])('%# is refused with its reason', async (wrong, why) => {
    await expect(compare({ ...asked, ...wrong })).rejects.toThrow(why);
  });
  it('of a method nobody knows is refused', async () => {
    await expect(compare(asked, ['magic'])).rejects.toThrow('methods.0');
  });
});

describe('draws', () => {
  it('come out as the input of a known spread does', async () => {
    const ensemble = await ensembleOf(
      planOf(boardOf('C0603'), air({ limit_s: 60 })),
      { quality: 'search', least: 12, nominalCosts: 1 },
      context,
    );
    const made = (time: (z: number) => number): Ensemble => ({
      ...ensemble,
      limit_s: 1000,
      inputs: ['one'],
      members: ensemble.members.map((m, n) => ({
        ...m,
        allWet_s: time([1, -1, 1, 1, 1, -1, -1, -1, 1, -1, 1, -1][(12 - n) % 12]),
      })),
      nominal: { ...ensemble.nominal, allWet_s: time(0) },
      centre: { ...ensemble.nominal, allWet_s: time(0) },
    });
    // a rate of 0.1 a second that is off by a fifth, two standard deviations: a tenth is one
    const { members } = made((z) => 1 / (0.1 * (1 + 0.2 * z)));
    expect(members).toHaveLength(12);
    const draws = new Draws({ ...made((z) => 1 / (0.1 * (1 + 0.2 * z))), members }, 7);
    const times = draws.times((r: PlanRun) => r.allWet_s);
    const { p5, p50, p95 } = spreadOf(times);
    expect(p50).toBeCloseTo(10, 0);
    expect(p5).toBeLessThan(p50 ?? 0);
    expect(p95).toBeGreaterThan(p50 ?? 0);
  });
  it('count what never happens as the longest', () => {
    const times = [...Array.from({ length: 90 }, (_, n) => n + 1), ...Array.from({ length: 10 }, () => null)];
    expect(spreadOf(times)).toEqual({ p5: 6, p50: 51, p95: null });
    expect(shareOf([true, false, false, true])).toBe(0.5);
    expect(percentile([5, 1, 3], 0.5)).toBe(3);
  });
  it('minutes hold tools, flux, rounds and washing', () => {
    const minutes = (rounds: number) => benchMinutes([air()], 'SOIC-8', [], { loose_s: 30, rounds, pace: 1 });
    // 45 for the station, 40 for the board, 5 of flux, 45 to wash, 33 of heat and lift
    expect(minutes(0)).toBeCloseTo((45 + 40 + 3 + 2 + 45 + 33) / 60, 9);
    expect(minutes(2)).toBeGreaterThan(minutes(1));
  });
  it('rows come by verdict, then score, last resorts behind', () => {
    const rows = [
      { id: 'a', name: 'A', verdict: 'no', score: 0.1, why: 'x' },
      { id: 'b', name: 'B', verdict: 'tight', score: 0.1, lastResort: 'y', why: 'x' },
      { id: 'c', name: 'C', verdict: 'tight', score: 0.9, why: 'x' },
      { id: 'd', name: 'D', verdict: 'not here', score: null, why: 'x' },
    ] as unknown as Row[];
    const { rows: ordered, recommended } = inTheEnd(rows);
    expect(ordered.map((r) => r.id)).toEqual(['c', 'b', 'a', 'd']);
    expect(recommended).toBe('c');
    expect(inTheEnd([]).reasons).toHaveLength(3);
  });
});
