/** Work of several phases: what one hands over to the next, what joints are made of on the way, and what is left. */
import { describe, expect, it } from 'vitest';
import { SOLDER_ALLOYS } from '../src/alloys/solder.ts';
import { runCalc } from '../src/calc/index.ts';
import { ReworkRun } from '../src/rework/bench/reworkRun.ts';
import type { RunState } from '../src/rework/bench/runState.ts';
import { methodsFor } from '../src/rework/methods/choose.ts';
import { givenMethodSchema, givenOf, idOfLabel, methodOfGiven } from '../src/rework/methods/given.ts';
import { wordsOf } from '../src/rework/words.ts';
import { methodName } from '../src/rework/methods/names.ts';
import { FIT_RECIPES } from '../src/rework/methods/fitRecipes.ts';
import { RECIPES } from '../src/rework/methods/recipes.ts';
import { softenFor } from '../src/rework/methods/usual.ts';
import { stintsOf } from '../src/rework/stints.ts';
import { formOf } from '../src/rework/phases/forms.ts';
import { kindOf } from '../src/rework/phases/index.ts';
import { KIND_NAMES, type Phase, phasesSchema } from '../src/rework/phases/schema.ts';
import { HeatRun } from '../src/thermal/heatRun.ts';
import { air, bead, boardOf, changed, planOf, runOf, spike, tweezers, vacuum } from './plans.ts';

const context = { now: () => 0 };
const SAC = { Ts: 217, Tl: 220, Cs: 2e-4, Cl: 2.2e-4, latent: 0.02 };
const LEADED = { Ts: 183, Tl: 190, Cs: 3e-4, Cl: 3.3e-4, latent: 0.03 };

const REST = { id: 'rest', kind: 'rest', settings: {}, until: { C: 60, at: 'board' }, giveUp_s: 300 } as const;
const LIFT = { id: 'lift', kind: 'lift', settings: { stays_s: 2 }, until: { s: 4 }, giveUp_s: 10 } as const;

const stepped = (phases: Phase[], pkg = 'SOIC-8') => {
  const input = planOf(boardOf(pkg), phases);
  return new ReworkRun(input, stintsOf(input.phases));
};

describe('solder that goes into a joint', () => {
  const joint = (T0: number, P: number) =>
    new HeatRun({ nodes: [{ id: 'j', type: 'joint', enthalpy: { ...SAC }, T0, P }], links: [] }, 22);
  it('leaves its temperature as it is, and the books balance', () => {
    const run = joint(22, 0.02);
    for (let n = 0; n < 30; n++) run.step(0.05);
    const before_C = run.T[0];
    run.changeJoint(0, LEADED);
    expect(run.T[0]).toBe(before_C);
    for (let n = 0; n < 120; n++) run.step(0.05);
    expect(run.T[0]).toBeGreaterThan(190);
    expect(run.stored_J()).toBeCloseTo(run.input_J - run.lost_J, 12);
  });
  it('books the heat that takes it from the start to the joint', () => {
    const run = joint(22, 0);
    run.changeJoint(0, LEADED);
    // it comes as warm as the joint: nothing to book
    expect(run.input_J).toBe(0);
    const warm = joint(22, 0.01);
    for (let n = 0; n < 40; n++) warm.step(0.05);
    const [in_J, C] = [warm.input_J, warm.T[0]];
    expect(C).toBeLessThan(183);
    warm.changeJoint(0, LEADED);
    // solid both: the heat that the larger one took from 22 °C on, less what the smaller had
    expect(warm.input_J - in_J).toBeCloseTo((LEADED.Cs - SAC.Cs) * (C - 22), 12);
  });
  it('melts it at once where the joint is hotter than its liquidus, and makes it stiff where it is not', () => {
    const hot = joint(200, 0);
    hot.changeJoint(0, LEADED);
    expect(hot.H[0]).toBeGreaterThan(LEADED.latent);
    hot.changeJoint(0, SAC);
    expect(hot.T[0]).toBe(200);
    expect(hot.H[0]).toBeLessThan(0);
  });
  it('wants a joint', () => {
    const run = new HeatRun({ nodes: [{ id: 'b', type: 'body', C: 1, T0: 20 }], links: [] }, 20);
    expect(() => run.changeJoint(0, SAC)).toThrow('b is no joint');
  });
});

describe('a leaded spike, then air', () => {
  const board = boardOf('QFP-44', 'four-layer');
  const slow = air({ set_C: 390, standoff_mm: 14, nozzle_mm: 10, sweep_mm: 5 });
  it('the air starts on the field and the metal that the iron left', async () => {
    const [chained, alone] = [await runOf(board, [spike(), slow]), await runOf(board, slow)];
    const [iron, blown] = chained.phases ?? [];
    expect([iron.id, blown.id]).toEqual(['spike', 'air']);
    // hands change tools in between
    expect(blown.from_s - iron.to_s).toBeCloseTo(5, 1);
    for (const j of chained.joints) expect(j.liquidus_C).toBeLessThan(205);
    expect(alone.joints[0].liquidus_C).toBe(220);
    expect((chained.allWet_s ?? Infinity) - blown.from_s).toBeLessThan(0.75 * (alone.allWet_s ?? Infinity));
    // joints that melted under the iron are not said to be loose then: they froze again
    for (const j of chained.joints) expect(j.wet_s).toBeGreaterThan(blown.from_s);
  });
  it('is the one run that two are, with the state of the first between them', async () => {
    const procedure = (phases: Phase[]) => ({ v: 1, method: 'some', op: 'remove', partId: 'target', phases });
    const place = { board, target: 'target' };
    const tell = async (phases: Phase[], more = {}) =>
      (await runCalc('heat.rework', { case: place, procedure: procedure(phases), ...more }, context)) as {
        joints: { terminal: string; loose_s: number | null; wt: Record<string, number>; mm3: number }[];
        phases: { id: string; from_s: number; to_s: number; heat_s: number; hands_s: number }[];
        lands: { terminal: string; exposure_K_s: number; peak_C: number }[];
        state: RunState;
      };
    const whole = await tell([spike(), slow]);
    const [iron, blown] = whole.phases;
    // the same five seconds of tools changing
    const first = await tell([spike()], { until_s: blown.from_s });
    expect(first.phases[0].to_s).toBeCloseTo(iron.to_s, 6);
    const second = await tell([slow], { start: JSON.parse(JSON.stringify(first.state)) as RunState });
    const lastOf = (r: typeof whole) => Math.max(...r.joints.map((j) => j.loose_s ?? Infinity));
    expect(Math.abs(lastOf(second) - (lastOf(whole) - blown.from_s))).toBeLessThan(0.5);
    for (const [i, j] of second.joints.entries()) {
      expect(j.mm3).toBeCloseTo(whole.joints[i].mm3, 12);
      expect(j.wt.Pb).toBeCloseTo(whole.joints[i].wt.Pb, 9);
    }
    // what lands have been through goes on from what the iron did to them
    for (const [i, l] of second.lands.entries()) {
      expect(l.exposure_K_s).toBeGreaterThan(first.lands[i].exposure_K_s);
      expect(l.exposure_K_s / whole.lands[i].exposure_K_s).toBeCloseTo(1, 1);
    }
  }, 30_000);
  it('keeps the books of energy through both', async () => {
    const { energy } = await runOf(boardOf('SOIC-8'), [spike(), air()], { books: true });
    if (!energy) throw new Error('no books');
    expect(Math.abs(energy.stored_J - (energy.input_J - energy.lost_J)) / energy.input_J).toBeLessThan(1e-6);
  });
  it('is offered where its joints hold no lead and may, and a tip comes to them', () => {
    const why = (pkg: string, board: Parameters<typeof methodsFor>[1]) =>
      methodsFor(pkg, board).find((m) => m.method.id === 'spike-then-air')?.unfit;
    expect(why('SOIC-8', { jointAlloy: 'SAC305' })).toBeUndefined();
    expect(why('SOIC-8', { jointAlloy: 'Sn63Pb37' })).toMatch(/leaded already/);
    expect(why('SOIC-8', { jointAlloy: 'SAC305', leadFree: true })).toMatch(/without lead/);
    const bismuth = [...SOLDER_ALLOYS.values()].find((row) => row.wt.Bi);
    expect(why('SOIC-8', { jointAlloy: bismuth?.id })).toMatch(/bismuth/);
    expect(why('BGA-64', { jointAlloy: 'SAC305' })).toMatch(/balls/);
  });
});

describe('a phase hands over', () => {
  const long = { giveUp_s: 20 };
  it('after a time, at a temperature of board or body, when a joint is loose', () => {
    const until = (u: Phase['until']) => {
      const run = stepped([{ ...air(), ...long, until: u } as Phase, { ...bead(), id: 'then' }]);
      for (;;) {
        run.step();
        const over = run.phaseIsOver();
        if (over !== 'no') return { run, over };
      }
    };
    expect(until({ s: 3 }).run.time).toBeCloseTo(3, 0);
    const board = until({ C: 90, at: 'board' }).run;
    const under = board.lumps.joints.flatMap((j) => j.columns);
    expect(under.reduce((sum, c) => sum + board.heat.cells_C[c], 0) / under.length).toBeCloseTo(90, -1);
    const body = until({ C: 100, at: 'body' }).run;
    expect(body.heat.T[body.lumps.body]).toBeGreaterThanOrEqual(100);
    expect(until({ C: 60, at: { x_mm: 30, y_mm: 30 } }).over).toBe('handed over');
    expect(until({ loose: ['1'] }).run.joints.joints[0].wet_s).not.toBeNull();
    // nobody says so, and it never gets there
    expect(until({ told: true })).toMatchObject({ over: 'given up', run: { time: expect.closeTo(20, 0) as number } });
  });
  it('that is given up goes on to what stands in for it, and never back', () => {
    const weak = { ...air({ set_C: 100 }), ...long, else: 'stroke' };
    const run = stepped([weak, spike(), bead()]);
    while (run.phaseIsOver() === 'no') run.step();
    expect(run.next('given up')).toBe(true);
    expect(run.phases.map((p) => p.id)).toEqual(['air', 'stroke']);
    expect(run.next('given up')).toBe(false);
    expect(run.next('handed over')).toBe(false);
  });
  it('leaves no tip on the board behind, and none follows once the tools have left', () => {
    const run = stepped([bead(), { ...air(), id: 'then' }]);
    while (run.time < 3) run.step();
    run.next('handed over');
    const held_C = run.heat.T[run.lumps.joints[0].node];
    while (run.time < 7) run.step();
    expect(run.heat.T[run.lumps.joints[0].node]).toBeLessThan(held_C - 10);
    run.leave();
    expect(() => run.next('handed over')).toThrow('tools have left');
  });
  it('a joint sucked empty stays loose under what comes after', async () => {
    const pins = boardOf('DIP-8');
    const some = { ...vacuum(), until: { s: 12 } } as Phase;
    const { joints, phases } = await runOf(pins, [some, { ...air({ limit_s: 10 }), id: 'air' }]);
    const began = phases?.[1].from_s ?? 0;
    const empty = joints.filter((j) => (j.wet_s ?? Infinity) < began);
    expect(empty.length).toBeGreaterThan(1);
    expect(empty.length).toBeLessThan(8);
    // what was sucked out is gone, from those joints alone
    const told = (await runCalc(
      'heat.rework',
      {
        case: { board: pins, target: 'target' },
        procedure: { v: 1, method: 'vacuum', op: 'remove', partId: 'target', phases: [some] },
      },
      context,
    )) as { joints: { mm3: number }[] };
    const [least, most] = [Math.min(...told.joints.map((j) => j.mm3)), Math.max(...told.joints.map((j) => j.mm3))];
    expect(least / most).toBeCloseTo(0.1, 9);
  });
  it('a lead that is cut carries no heat into the body', () => {
    const body = (cut: boolean) => {
      const drive = stintsOf([bead()])[0];
      const input = planOf(boardOf('SOIC-8'), bead());
      const run = new ReworkRun(input, [
        {
          ...drive,
          drive: (scene) => {
            const made = drive.drive(scene);
            return Object.assign(made, {
              begin: (work: Parameters<NonNullable<typeof made.begin>>[0]) => {
                if (cut) for (const i of scene.lumps.joints.keys()) work.cut(i);
              },
            });
          },
        },
      ]);
      while (run.time < 5) run.step();
      return run.heat.T[run.lumps.body];
    };
    expect(body(true)).toBeLessThan(body(false) - 10);
  });
});

describe('what earlier work left', () => {
  it('is taken over cell by cell on the same mesh, and by means on another', () => {
    const input = planOf(boardOf('SOIC-8'), air());
    const run = new ReworkRun(input, stintsOf(input.phases));
    while (run.time < 8) run.step();
    const state = run.state();
    const same = new ReworkRun(input, stintsOf(input.phases), { start: state });
    expect([...same.heat.cells_C].slice(0, 500)).toEqual([...run.heat.cells_C].slice(0, 500));
    expect(same.heat.T[same.lumps.body]).toBe(run.heat.T[run.lumps.body]);
    // mean by heat capacity: conserved where the mesh is another
    const mean = ({ heat, mesh: { grid, columns } }: ReworkRun) => {
      let [sum, all] = [0, 0];
      for (const [c, C] of (heat.capacity ?? []).entries()) {
        // the last column of a row pads it
        if ((c % columns) % grid.stride >= grid.dx.length) continue;
        [sum, all] = [sum + C * heat.cells_C[c], all + C];
      }
      return sum / all;
    };
    const finer = new ReworkRun({ ...input, quality: 'plan' }, stintsOf(input.phases), { start: state });
    expect(finer.mesh.columns).toBeGreaterThan(same.mesh.columns);
    expect(Math.abs(mean(finer) / mean(run) - 1)).toBeLessThan(0.02);
  });
  it('is turned over with the board', () => {
    const board = boardOf('SOIC-8');
    const below = { ...board.parts[0], partId: 'below', side: 'bottom' as const };
    const both = { ...board, parts: [...board.parts, below] };
    const top = planOf(both, air());
    const run = new ReworkRun(top, stintsOf(top.phases));
    while (run.time < 2) run.step();
    const turned = new ReworkRun({ ...top, target: 'below' }, stintsOf(top.phases), { start: run.state() });
    const face = (r: ReworkRun, far: boolean) => {
      const { grid, columns } = r.mesh;
      const slab = far ? (grid.dz.length - 1) * columns : 0;
      return Math.max(...r.heat.cells_C.subarray(slab, slab + columns));
    };
    expect(face(turned, true)).toBeCloseTo(face(run, false), 0);
    expect(face(turned, false)).toBeCloseTo(face(run, true), 0);
  });
  it('of another form or size is refused', async () => {
    const tell = (start: unknown) =>
      runCalc(
        'heat.rework',
        {
          case: { board: boardOf('SOIC-8'), target: 'target' },
          procedure: { v: 1, method: 'x', op: 'remove', partId: 'target', phases: [air()] },
          start,
        },
        context,
      );
    const state = stepped([air()]).state();
    await expect(tell({ ...state, T_C: state.T_C.slice(1) })).rejects.toThrow('a temperature for every cell');
    await expect(tell({ ...state, v: 2 })).rejects.toThrow('v');
  });
});

describe('a procedure as it is said', () => {
  it.each([
    [[], '>=1'],
    [[air(), air()], 'two phases of one id'],
    [[{ ...spike(), else: 'spike' }, air()], 'goes on to a later one'],
    [[{ ...spike(), else: 'nobody' }, air()], 'goes on to a later one'],
    [[changed(spike(), { limit_s: 900 }), { ...air({ limit_s: 900 }) }, bead()], '1800 s'],
    [[{ ...air(), kind: 'magic' }], 'kind'],
    [[air({ set_C: 2000 })], 'set_C'],
    [[{ ...air(), until: { loose: [] } }], 'until'],
  ])('%# is refused with its reason', (phases, why) => {
    const { error } = phasesSchema.safeParse(phases);
    expect(JSON.stringify(error?.issues.map((i) => `${i.path.join('.')} ${i.message}`))).toContain(why);
  });
  it('a short board stands for a whole one; its target has to be the procedure’s', async () => {
    const board = {
      kind: 'two-layer',
      lx_mm: 40,
      ly_mm: 30,
      parts: [
        { id: 'u1', package: 'soic 8', x_mm: 20, y_mm: 15 },
        { id: 'j1', package: 'CONN-PBT-8', x_mm: 20, y_mm: 24, limit: { C: 80, s: 5 } },
      ],
    };
    const told = (partId: string) =>
      runCalc(
        'heat.rework',
        {
          case: { board, target: 'u1', damp: false, joints: [{ terminals: ['1'], leaking: true }] },
          procedure: { v: 1, method: 'air-slow', op: 'remove', partId, phases: [air()] },
        },
        context,
      ) as Promise<{ joints: { loose_s: number; frozen_s: number }[]; neighbours: { partId: string; word: string }[] }>;
    await expect(told('j1')).rejects.toThrow('partId');
    const { joints, neighbours } = await told('u1');
    expect(joints).toHaveLength(8);
    // the one that leaks wets slowly
    expect(joints[0].loose_s).toBe(Math.max(...joints.map((j) => j.loose_s)));
    for (const j of joints) expect(j.frozen_s).toBeGreaterThan(0);
    expect(neighbours).toMatchObject([{ partId: 'j1', word: 'hurts', at: 'face' }]);
  });
});

describe('what sits on a part', () => {
  const stuck = (...what: ('label' | 'coating' | 'glue')[]) => softenFor({ packageId: 'QFP-44', stuck: what });
  const board = boardOf('QFP-44', 'four-layer');
  const slow = air({ set_C: 390, standoff_mm: 14, nozzle_mm: 10, sweep_mm: 5 });
  const sinks = (...kinds: ('label' | 'coating' | 'glue')[]) => ({
    sinks: kinds.map((kind) => ({ kind, partId: 'target' })),
  });
  it('comes off first, warm and with nothing molten, in its order; what cuts needs nothing bare', () => {
    const of = (id: string, ...what: ('label' | 'coating' | 'glue')[]) =>
      methodsFor('QFP-44', { stuck: what })
        .find((m) => m.method.id === id)
        ?.method.phases.map((p) => p.id) ?? [];
    expect(of('air-slow', 'label', 'glue')).toEqual(['soften-label', 'soften-glue', 'air']);
    expect(of('bead', 'coating')[0]).toBe('soften-coating');
    expect(of('cut-legs', 'coating')).toEqual(['cut']);
    expect(of('air-slow')).toEqual(['air']);
  });
  it('a label holds heat back until it is off, glue ties the body to the board: then it goes as without them', async () => {
    const free = await runOf(board, slow);
    const labelled = await runOf(board, slow, sinks('label'));
    const glued = await runOf(board, slow, sinks('glue'));
    expect(labelled.allWet_s ?? Infinity).toBeGreaterThan(1.05 * (free.allWet_s ?? Infinity));
    expect(glued.body_C).toBeLessThan(free.body_C - 1);
    const off = await runOf(board, [...stuck('label', 'glue'), slow], sinks('glue', 'label'));
    const blown = off.phases?.at(-1);
    const lasts = (off.allWet_s ?? Infinity) - (blown?.from_s ?? 0);
    // warm from the softening, it takes no longer than from cold
    expect(lasts).toBeLessThan(free.allWet_s ?? 0);
    for (const p of off.phases?.slice(0, 2) ?? []) {
      expect(p.to_s - p.from_s).toBeGreaterThan(10);
      expect(p.to_s - p.from_s).toBeLessThan(300);
    }
    for (const j of off.joints) expect(j.solidus_s).toBeGreaterThan(blown?.from_s ?? Infinity);
    // a quicker hand has it off sooner
    const quick = await runOf(board, [...stuck('glue'), slow], { ...sinks('glue'), pace: 0.5 });
    const usual = await runOf(board, [...stuck('glue'), slow], sinks('glue'));
    expect(quick.phases?.[0].to_s).toBeLessThan((usual.phases?.[0].to_s ?? 0) - 10);
  }, 60_000);
  it('is told as work of its own, with what to feel for', () => {
    const target = board.parts.find((p) => p.partId === 'target');
    if (!target) throw new Error('no target');
    const work = { board, target, guide: null, nearest: null, panel: { temperature: 'C', length: 'mm' } as const };
    const said = stuck('label', 'coating', 'glue').flatMap((p) => wordsOf(p, work));
    expect(said.map((i) => i.id)).toEqual(
      ['label', 'coating', 'glue'].flatMap((what) => [`soften-${what}`, `bare-${what}`]),
    );
    for (const i of said) expect(i.say.split(' ').length).toBeLessThanOrEqual(12);
    expect(said[0].watch).toMatch(/At about 70 °C it dents/);
  });
});

describe('recipes and kinds', () => {
  it('every recipe makes phases that its own forms take, under an id of its own', () => {
    expect(new Set(RECIPES.map((r) => r.id)).size).toBe(RECIPES.length);
    for (const { id } of [...RECIPES, ...FIT_RECIPES]) expect(methodName(id), id).not.toBe(id);
    for (const pkg of ['C0603', 'SOIC-16', 'QFP-44', 'DIP-16', 'DPAK', 'BGA-64', 'DIP-40'])
      for (const stuck of [[], ['glue'], ['label', 'coating', 'glue']] as const)
        for (const { method } of methodsFor(pkg, { at: { x_mm: 30, y_mm: 20, rotation_deg: 30 }, stuck }))
          expect(phasesSchema.parse(method.phases)).toEqual(method.phases);
    for (const pkg of ['C0603', 'SOIC-16', 'QFP-44', 'DIP-16', 'DPAK', 'BGA-64', 'QFN-24'])
      for (const { method } of methodsFor(pkg, { at: { x_mm: 30, y_mm: 20, rotation_deg: 30 } }, 'fit'))
        expect(phasesSchema.parse(method.phases)).toEqual(method.phases);
  });
  it('every field of a form stands in the settings, and its range is what they take', () => {
    const made = [
      ...RECIPES.flatMap((r) => r.phases({ packageId: 'SOIC-8' })),
      ...softenFor({ packageId: 'SOIC-8', stuck: ['glue'] }),
      ...FIT_RECIPES.flatMap((r) => r.phases({ packageId: 'QFP-44' })),
    ];
    const usual = [air(), bead(), tweezers(), vacuum(), spike(), ...made, REST, LIFT] as Phase[];
    expect(new Set(usual.map((p) => p.kind))).toEqual(new Set(KIND_NAMES));
    for (const phase of usual) {
      const [form, { settings }] = [formOf(phase), kindOf(phase)];
      for (const f of [...form.usual, ...form.more].filter((g) => g.range && !g.key.includes('.'))) {
        const [min, max] = f.range ?? [0, 0];
        const at = (value: number) => settings.safeParse({ ...phase.settings, [f.key]: value }).success;
        expect([at(min), at(max), at(min - 1), at(max + 1)], `${phase.kind} ${f.key}`).toEqual([
          true,
          true,
          false,
          false,
        ]);
      }
    }
  });
  it('methods as they were said before go up to procedures and back, to the digit', () => {
    for (const pkg of ['C0603', 'SOIC-16', 'DIP-16'])
      for (const { method } of methodsFor(pkg).filter((m) => m.method.phases.length === 1 && !m.asked)) {
        const given = givenOf(method);
        if (given) expect(methodOfGiven(givenMethodSchema.parse(given))).toEqual(method);
      }
    expect(['Air, slow', 'Air, slow, fitting', 'Hot tweezers', 'Air, wide', '', 'air-fast'].map(idOfLabel)).toEqual([
      'air-slow',
      'air-slow',
      'tweezers',
      'air-wide',
      'method',
      'air-fast',
    ]);
  });
});
