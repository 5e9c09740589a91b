/** Irons along rows, at both ends and in holes; joints with metal of their own; what drains them. */
import { describe, expect, it } from 'vitest';
import { air, bead, beadFor, boardOf, type Change, planOf, runOf as run, tweezers, vacuum } from './plans.ts';
import { jointMetal, mixedByVolume } from '../src/alloys/jointMetal.ts';
import { SOLDER_ALLOYS } from '../src/alloys/solder.ts';
import type { BoardModel } from '../src/board/boardModel.ts';
import { methodsFor } from '../src/rework/methods/choose.ts';
import { BOARD_KINDS } from '../src/rework/expressBoard.ts';
import { beadOn, reachOf, rowsOf } from '../src/rework/phases/rows.ts';
import { givenMethodSchema, phaseOfGiven } from '../src/rework/methods/given.ts';
import { phaseOf } from '../src/rework/methods/method.ts';
import { solderOf } from '../src/rework/solderOf.ts';
import type { Phase } from '../src/rework/phases/schema.ts';
import { staysLeadFree } from '../src/hands/flood.ts';
import { planInputSchema, type PlanInput } from '../src/rework/planForm.ts';
import type { PlanRun } from '../src/rework/bench/runForm.ts';
import { wettingTime_s } from '../src/rework/bench/wetting.ts';

const wet = async (board: BoardModel, method: Phase, more: Partial<PlanInput> = {}) =>
  (await run(board, method, more)).allWet_s ?? Infinity;

describe('an iron along the rows', () => {
  const so = boardOf('SOIC-16', 'four-layer');
  it('two irons are sooner than one, and both rows melt alike', async () => {
    const one = await run(so, bead());
    const two = await run(so, bead({ irons: 2 }));
    expect(two.allWet_s).toBeLessThan(one.allWet_s ?? Infinity);
    const first = (r: typeof one, from: number) =>
      Math.min(...r.joints.slice(from, from + 8).map((j) => j.liquidus_s ?? Infinity));
    expect(Math.abs(first(two, 0) - first(two, 8))).toBeLessThan(0.3);
    expect(Math.abs(first(one, 0) - first(one, 8))).toBeGreaterThan(0.5);
  });
  it('a longer rest at the ends heats the ends more than the middle', async () => {
    const peaks = async (rest_s: number) => {
      const r = await run(so, bead({ rest_s, pass_s: 1, stroke_s: 12, limit_s: 14 }));
      return r.joints[0].peak_C - r.joints[3].peak_C;
    };
    expect(await peaks(2)).toBeGreaterThan((await peaks(0)) + 3);
  });
  it('a slow stroke leaves the far end cold for longer', async () => {
    const firstAtEnd = async (pass_s: number) => (await run(so, bead({ pass_s }))).joints[7].solidus_s ?? Infinity;
    expect(await firstAtEnd(8)).toBeGreaterThan(await firstAtEnd(1));
  });
  it('a thicker tip and more power bring more heat', async () => {
    const short = { stroke_s: 4, limit_s: 5 };
    const body = async (change: Change<'stroke'>) => (await run(so, bead({ ...short, ...change }))).body_C;
    expect(await body({ tip: 'cone' })).toBeLessThan(await body({ tip: 'chisel' }));
    expect(await body({ tip: 'chisel' })).toBeLessThan(await body({ tip: 'knife' }));
    expect(await body({ power_W: 15 })).toBeLessThan(await body({ power_W: 70 }));
  });
  it('a flooded joint of leaded solder melts higher and freezes sooner than a low-melt bead', async () => {
    const two = boardOf('SOIC-16', 'thin');
    const flooded = await run(two, bead({ alloy: { Sn: 63, Pb: 37 }, irons: 2, limit_s: 90 }));
    const low = await run(two, bead({ irons: 2, limit_s: 90 }));
    expect(flooded.joints[0].liquidus_C).toBeGreaterThan(180);
    expect(low.joints[0].liquidus_C).toBeLessThan(130);
    expect(flooded.hold_s ?? NaN).toBeLessThan(low.hold_s ?? NaN);
    expect((await run(so, air({ limit_s: 5 }))).hold_s).toBeUndefined();
  });
});

describe('hot tweezers', () => {
  it('say of the last end that both heat alike, not that the iron comes late', async () => {
    const { last } = await run(boardOf('C1206'), tweezers());
    expect(last?.why).toMatch(/^both tips heat alike/);
    expect(last?.paths?.tool_W).toBeGreaterThan(0);
  });
  it('melt both ends of a chip at once and before air does', async () => {
    const chip = boardOf('C1206');
    const r = await run(chip, tweezers());
    const [a, b] = r.joints.map((j) => j.liquidus_s ?? Infinity);
    expect(Math.abs(a - b)).toBeLessThan(0.2);
    expect(r.allWet_s).toBeLessThan(await wet(chip, air()));
  });
  it('are offered for two-ended parts only', () => {
    const ids = (pkg: string) => methodsFor(pkg).flatMap((m) => (m.unfit ? [] : [m.method.id]));
    expect(ids('C0805')).toContain('tweezers');
    expect(ids('SOIC-8')).not.toContain('tweezers');
    expect(ids('DIP-8')).toContain('vacuum');
    expect(reachOf('DIP-8')).toEqual({ sides: 2, pins: true });
    expect(reachOf('QFP-48').sides).toBe(4);
  });
});

describe('a vacuum iron on plated holes', () => {
  const dip = boardOf('DIP-8');
  it('goes pin by pin, frees all of them, each after the last', async () => {
    const r = await run(dip, vacuum({ limit_s: 120 }));
    const wet = r.joints.map((j) => j.wet_s ?? Infinity);
    expect(r.allWet_s).not.toBeNull();
    const times = [...wet].sort((a, b) => a - b);
    // of eight pins on two layers one stays plugged, and comes round again
    expect(wet.filter((t, i) => t !== times[i] && t === times[7])).toHaveLength(1);
    const none = await run(dip, vacuum({ limit_s: 120 }), { stuck: [] });
    const inTurn = none.joints.map((j) => j.wet_s ?? Infinity);
    expect(inTurn).toEqual([...inTurn].sort((a, b) => a - b));
    for (let i = 1; i < times.length; i++) expect(times[i] - times[i - 1]).toBeGreaterThan(1);
    // what is empty does not freeze again
    expect(r.freezes_s).toBeNull();
  });
  it('is slower through a thicker board, and says what drains the last pin', async () => {
    const at = (thickness_mm: number) => run({ ...dip, thickness_mm }, vacuum({ dwell_s: 0.1 }));
    const [thin, thick] = [await at(1), await at(2.4)];
    expect(thick.allWet_s).toBeGreaterThan(thin.allWet_s ?? Infinity);
    expect(thick.last?.why).toMatch(/^the iron comes to it last; .* takes \d+ % of the heat it gets$/);
    expect(thick.last?.paths?.tool_W).toBeGreaterThan(0.5);
  });
  it('staying longer on each takes longer', async () => {
    expect(await wet(dip, vacuum({ dwell_s: 3 }))).toBeGreaterThan((await wet(dip, vacuum({ dwell_s: 0.5 }))) + 10);
  });
  it('a pin in a plane melts later: its hole touches every layer', async () => {
    const withPlane = (coverage: number): BoardModel => {
      const b = boardOf('DIP-8', 'four-layer');
      const t = 3.81;
      const c = BOARD_KINDS['four-layer'].size_mm / 2;
      return {
        ...b,
        stack: b.stack.map((l, i) => ({ ...l, coverage: i === 1 || i === 2 ? 0.1 : l.coverage })),
        // round pin 1 only
        copper: [1, 2].map((layer) => ({ layer, coverage, x_mm: c - 14, y_mm: c - t - 10, w_mm: 20, h_mm: 11 })),
      };
    };
    const first = async (coverage: number) =>
      (await run(withPlane(coverage), vacuum({ most_s: 60, tip: 'chisel' }))).joints[0].liquidus_s ?? Infinity;
    expect(await first(1)).toBeGreaterThan((await first(0.1)) * 1.1);
  });
  it('gives up on a pin after a while and comes back to it', async () => {
    const r = await run(boardOf('DIP-8', 'four-layer'), vacuum({ most_s: 1.5, dwell_s: 0.2, limit_s: 120 }));
    const order = r.joints.map((j) => j.wet_s ?? Infinity);
    expect(order).not.toEqual([...order].sort((a, b) => a - b));
  });
});

describe('what is in a joint', () => {
  const so = boardOf('SOIC-8');
  it('metal of any composition comes near the rows of the table', () => {
    for (const row of SOLDER_ALLOYS.values()) {
      expect(jointMetal(row.wt).latent).toBe(row.latent.value);
      // a thousandth of something else: computed, not looked up
      const almost = jointMetal({ ...row.wt, Ag: (row.wt.Ag ?? 0) + 0.05 });
      for (const [got, wanted] of [
        [almost.cs, row.cs.value],
        [almost.cl, row.cl.value],
        [almost.latent, row.latent.value],
      ])
        expect(Math.abs(got / wanted - 1)).toBeLessThan(0.15);
      expect(Math.abs(almost.Ts - row.Ts.value)).toBeLessThan(4);
    }
  });
  it('volumes mix by their mass', () => {
    const half = mixedByVolume({ Sn: 100 }, [{ alloy: { Pb: 100 }, ratio: 1 }]);
    expect(half.Pb).toBeCloseTo((100 * 11.34) / (11.34 + 7.29), 9);
    expect(mixedByVolume({ Sn: 63, Pb: 37 }, []).Sn).toBeCloseTo(63, 12);
  });
  it('a leaded spike in lead-free joints melts sooner; so does a factory joint of tin-bismuth', async () => {
    const own = await run(so, air());
    const spiked = await run(so, air(), { joints: [{ with: [{ alloy: { Sn: 63, Pb: 37 }, ratio: 2 }] }] });
    const cold = await run(so, air(), { joints: [{ alloy: { Bi: 58, Sn: 42 } }] });
    expect(own.joints[0].liquidus_C).toBe(220);
    expect(spiked.joints[0].liquidus_C).toBeLessThan(205);
    expect(cold.joints[0].liquidus_C).toBe(140);
    expect(spiked.allWet_s).toBeLessThan(own.allWet_s ?? Infinity);
    expect(cold.allWet_s).toBeLessThan(spiked.allWet_s ?? Infinity);
  });
  it('joints may differ: only the one named is changed, and it is last', async () => {
    const r = await run(so, air(), {
      joints: [{ alloy: { Sn: 63, Pb: 37 } }, { terminals: ['3'], alloy: { Sn: 99.3, Cu: 0.7 }, volume: 2 }],
    });
    expect(r.joints.map((j) => Math.round(j.liquidus_C ?? 0))).toEqual([183, 183, 227, 183, 183, 183, 183, 183]);
    expect(r.last?.terminal).toBe('3');
  });
  it('rests of a low-melt repair lower the solidus of leaded joints to 96 °C', async () => {
    const r = await run(so, air({ limit_s: 40 }), {
      joints: [{ alloy: { Sn: 63, Pb: 37 }, with: [{ alloy: { Bi: 52.5, Pb: 32, Sn: 15.5 }, ratio: 0.5 }] }],
    });
    expect(r.joints[0].solidus_C).toBeLessThan(140);
    expect(r.joints[0].liquidus_C).toBeLessThan(180);
  });
  it('a corroded joint takes heat badly, wets slowly, and is named as the reason', async () => {
    const sound = await run(so, air());
    const r = await run(so, air(), { joints: [{ terminals: ['5'], corroded: true }] });
    expect(r.last?.terminal).toBe('5');
    expect(r.last?.why).toMatch(/corroded/);
    const five = r.joints.find((j) => j.terminal === '5');
    expect((five?.wet_s ?? 0) - (five?.liquidus_s ?? 0)).toBeGreaterThan(2);
    expect(r.allWet_s).toBeGreaterThan((sound.allWet_s ?? 0) + 1);
  });
  it('wetting takes a second or two near the liquidus, four times that on corroded metal, never less than a second', () => {
    expect(wettingTime_s(40, 'sound')).toBe(1);
    expect(wettingTime_s(20, 'sound')).toBe(2);
    expect(wettingTime_s(0, 'sound')).toBe(4);
    expect(wettingTime_s(200, 'sound')).toBe(1);
    expect(wettingTime_s(20, 'corroded')).toBe(8);
    expect(wettingTime_s(20, 'leaking')).toBe(24);
  });
});

describe('the solder of a part', () => {
  const tinLead = { Sn: 63, Pb: 37 };
  it('is that of its joints, and twice of it where they are twice as full', () => {
    const one = solderOf('SOIC-16', tinLead);
    expect(one.joints).toBe(16);
    // 8.4 g/cm³: a cubic millimetre weighs 8.4 mg
    expect(one.mass_mg / one.volume_mm3).toBeCloseTo(8.4, 1);
    expect(solderOf('SOIC-16', tinLead, 2).mass_mg).toBeCloseTo(2 * one.mass_mg, 9);
  });
  it('lies in rows a tip can reach: two of an SOIC from the first to the last land, four of a QFP', () => {
    // eight lands of 0.6 mm at 1.27 mm
    for (const row of rowsOf('SOIC-16')) expect(row.length_mm).toBeCloseTo(7 * 1.27 + 0.6, 1);
    expect(rowsOf('SOIC-16')).toHaveLength(2);
    expect(rowsOf('QFP-48')).toHaveLength(4);
    expect(rowsOf('C0603')).toHaveLength(2);
  });
  it('takes a bead by length of row: about 24 mm³ along an SOIC-16, none under a body', () => {
    const { all_mm3, each_mm3 } = beadOn('SOIC-16', beadFor('SOIC-16').settings.bead_mm3_mm ?? 0);
    expect(all_mm3).toBeGreaterThan(20);
    expect(all_mm3).toBeLessThan(28);
    expect([...each_mm3.values()].reduce((a, b) => a + b, 0)).toBeCloseTo(all_mm3, 9);
    expect(beadOn('QFN-48', 1).each_mm3.has('EP')).toBe(false);
    expect(beadOn('SOIC-16', 2).all_mm3).toBeCloseTo(2 * beadOn('SOIC-16', 1).all_mm3, 9);
  });
  it('understands beads said as multiples of the solder, as plans before hold them', () => {
    const { bead_mm3_mm, ...rest } = bead().settings;
    const given = { kind: 'low-melt', label: 'Low-melt + iron', limit_s: 60, ...rest };
    const read = givenMethodSchema.parse({ ...given, bead_ratio: 6 });
    expect(phaseOfGiven(read)).toEqual(bead({ bead_mm3_mm: 1.2 }));
    expect(bead_mm3_mm).toBe(1.2);
    expect(givenMethodSchema.safeParse({ ...given, bead_mm3_mm, bead_ratio: 6 }).success).toBe(false);
    expect(givenMethodSchema.safeParse(given).success).toBe(false);
    expect(givenMethodSchema.safeParse(null).success).toBe(false);
  });
  it('is free of lead where no lead may come into the joints', () => {
    const of = (leadFree: boolean) => {
      const found = methodsFor('SOIC-16', { leadFree }).find((m) => m.method.id === 'bead');
      return (found && phaseOf(found.method, 'alloy'))?.settings ?? {};
    };
    expect(of(true)).toMatchObject({ alloy: { Bi: 58, Sn: 42 } });
    expect(of(false)).not.toHaveProperty('alloy');
    expect(staysLeadFree({ jointAlloy: 'SAC305' }, 'own')).toBe(true);
    expect(staysLeadFree({ jointAlloy: 'SAC305' }, 'leaded')).toBe(false);
    expect(staysLeadFree({ jointAlloy: 'Sn63Pb37' }, 'own')).toBe(false);
  });
});

describe('what drains a joint', () => {
  it('the paths of the last joint add up to what it takes up, and the largest is named', async () => {
    const r = await run(boardOf('DPAK', 'heavy'), air({ set_C: 450, flow_L_min: 80, standoff_mm: 9 }));
    const p = r.last?.paths;
    if (!p) throw new Error('no paths');
    expect(p.board_W).toBeLessThan(0);
    expect(p.tool_W).toBe(0);
    expect(p.body_W).toBeGreaterThan(0);
    expect(r.last?.why).toMatch(/the copper under it takes \d+ % of the heat it gets/);
    // near melting, a slow joint takes up little itself
    expect(Math.abs(p.air_W + p.body_W + p.board_W)).toBeLessThan(0.2 * p.body_W);
  });
  it('an iron is its own path', async () => {
    const r = await run(boardOf('C1206', 'four-layer'), tweezers());
    expect(r.last?.paths?.tool_W).toBeGreaterThan(0.5);
  });
});

describe('metal and what holds the board', () => {
  const so = boardOf('SOIC-8');
  it('a heatsink, a clip or a shield on the part delays it, the heatsink most', async () => {
    const times: Record<string, number> = {};
    for (const kind of ['heatsink', 'clip', 'shield'] as const)
      times[kind] = await wet(so, air(), { sinks: [{ kind, partId: 'target' }] });
    const bare = await wet(so, air());
    for (const t of Object.values(times)) expect(t).toBeGreaterThan(bare * 1.1);
    expect(times.heatsink).toBeGreaterThanOrEqual(times.clip);
    expect(await wet(so, air(), { sinks: [{ kind: 'clip', partId: 'target', mass_g: 8 }] })).toBeGreaterThan(
      times.clip,
    );
    expect(await wet(so, air(), { sinks: [{ kind: 'clip', partId: 'nobody' }] })).toBe(bare);
  });
  it('a clip on leads makes these the last; one that names no lead changes nothing', async () => {
    const clipped = (...terminals: string[]) => ({ sinks: [{ kind: 'clip' as const, partId: 'target', terminals }] });
    const bare = await run(so, air());
    const one = await run(so, air(), clipped('3'));
    const at = (r: PlanRun, id: string) => r.joints.find((j) => j.terminal === id)?.liquidus_s ?? Infinity;
    expect(one.last?.terminal).toBe('3');
    expect(one.last?.why).toMatch(/^a clip on its lead takes the heat/);
    expect(at(one, '3')).toBeGreaterThan(1.1 * at(bare, '3'));
    // the far row notices less
    expect(at(one, '7') / at(bare, '7') - 1).toBeLessThan(0.7 * (at(one, '3') / at(bare, '3') - 1));
    // across a row it takes heat from all of it
    const four = await run(so, air(), clipped('1', '2', '3', '4'));
    expect(['1', '2', '3', '4']).toContain(four.last?.terminal);
    for (const id of ['1', '4']) expect(at(four, id)).toBeGreaterThan(at(one, id));
    expect(at(await run(so, air(), clipped('99')), '3')).toBe(at(bare, '3'));
  });
  it('glue under a can leads its heat into the board', async () => {
    const can = boardOf('CAN-6.3');
    const method = air({ limit_s: 20 });
    const glued = await run(can, method, { sinks: [{ kind: 'glue', partId: 'target' }] });
    const free = await run(can, method);
    expect(glued.body_C).toBeLessThan(free.body_C - 2);
  });
  it('a frame or props under the board take heat, the more the nearer', async () => {
    const small = boardOf('SOIC-8', 'thin');
    const c = BOARD_KINDS.thin.size_mm / 2;
    const props = (d: number) => ({ kind: 'props' as const, d_mm: 6, places: [{ x_mm: c + d, y_mm: c }] });
    const bare = await wet(small, air());
    expect(await wet(small, air(), { held: props(3) })).toBeGreaterThan(bare);
    expect(await wet(small, air(), { held: props(3) })).toBeGreaterThan(await wet(small, air(), { held: props(18) }));
    expect(await wet(small, air(), { held: { kind: 'frame', width_mm: 12 } })).toBeGreaterThan(bare);
  });
  it('a heavy part on the other side cools the board under the target', async () => {
    const below: BoardModel = {
      ...so,
      parts: [...so.parts, { ...so.parts[0], partId: 'below', package: 'CAN-10', side: 'bottom' }],
    };
    expect(await wet(below, air())).toBeGreaterThan((await wet(so, air())) * 1.05);
  });
  it('a flex tail leads heat away along its traces', async () => {
    const r = await run(boardOf('FLEX-8', 'thin'), air({ set_C: 330, flow_L_min: 20 }));
    expect(r.joints).toHaveLength(8);
    expect(r.last?.why).not.toBe('');
  });
});

describe('bad statements', () => {
  it.each([
    [{ joints: [{ with: [{ alloy: { Sn: 63 }, ratio: -1 }] }] }, 'joints.0.with.0.ratio'],
    [{ joints: [{ terminals: [] }] }, 'joints.0.terminals'],
    [{ held: { kind: 'frame', width_mm: 0 } }, 'held.width_mm'],
    [{ held: { kind: 'props', d_mm: 5, places: [] } }, 'held.places'],
    [{ sinks: [{ kind: 'clip', partId: 'a', mass_g: 1e9 }] }, 'sinks.0.mass_g'],
    [{ sinks: [{ kind: 'glue', partId: 'a', terminals: ['1'] }] }, 'sinks.0.terminals'],
    [{ phases: [bead({ irons: 3 as 2 })] }, 'phases.0.settings.irons'],
    [{ phases: [vacuum({ dwell_s: Number.NaN })] }, 'phases.0.settings.dwell_s'],
    [{ phases: [] }, 'phases'],
    [{ phases: [air(), air()] }, 'phases'],
  ])('%j is refused with its field', (change, field) => {
    const parsed = planInputSchema.safeParse({ ...planOf(boardOf('SOIC-8'), air()), ...change });
    expect(parsed.error?.issues.map((i) => i.path.join('.'))).toContain(field);
  });
});
