// Putting a part on: every school computed from the lands as they are; what its own air does to it; how long it is held; in which order it is made.
import { describe, expect, it } from 'vitest';
import { packageById } from '../src/packages/index.ts';
import { hiddenBenchInput, landsAfter, playHiddenBench } from '../src/hands/index.ts';
import { compareFits, fitInput, type FitRow, type Fitting } from '../src/compare/index.ts';
import { expressBoard, FILM, methodsFor, ownWind, type Phase, reworkInput, tellRework } from '../src/rework/index.ts';
import { DEFAULT_STATION } from '../src/rework/station.ts';
import { ReworkRun } from '../src/rework/bench/reworkRun.ts';
import { stintsOf } from '../src/rework/stints.ts';
import { blowAway, HeatRun } from '../src/thermal/index.ts';
import { runCalc } from '../src/calc/index.ts';

const context = { now: () => 0 };
const boardOf = (pkg: string, kind = 'two-layer', more: object[] = []) => ({
  kind,
  lx_mm: 50,
  ly_mm: 50,
  parts: [{ id: 'u1', package: pkg, x_mm: 25, y_mm: 25 }, ...more],
});
const fits = (
  pkg: string,
  methods: string[],
  { kind, more, ...rest }: { kind?: string; more?: object[]; lands?: object[] } = {},
) =>
  compareFits(
    fitInput.parse({ case: { board: boardOf(pkg, kind, more), target: 'u1', seed: 1 }, methods, ...rest }),
    context,
  );
const rowOf = (out: Fitting, id: string): FitRow => {
  const row = out.rows.find((r) => r.id === id);
  if (!row) throw new Error(`no row ${id}: ${out.rows.map((r) => r.id).join(', ')}`);
  return row;
};

/** A bench at which a part goes on, far from plastic. */
const benchFor = (pkg: string) => ({
  board: expressBoard({ package: pkg, boardKind: 'two-layer', plastic: 'pbt', distance_mm: 20 }),
  target: 'target',
  station: DEFAULT_STATION,
  ambient_C: 22,
  fitting: true,
  joints: [FILM],
});
const phasesOf = (pkg: string, id: string): Phase[] =>
  methodsFor(pkg, {}, 'fit').find((m) => m.method.id === id)?.method.phases ?? [];

it('a socket is judged by its own plastic, not by the chip that goes into it cold', async () => {
  const rows = await fits('DIP-8', ['fit-socket', 'fit-holes']);
  const [socket, chip] = ['fit-socket', 'fit-holes'].map((id) => rowOf(rows, id));
  expect(socket.part?.margin_K).not.toBeNull();
  // PBT stands some 45 K less than a moulded chip on pins
  expect((chip.part?.margin_K ?? 0) - (socket.part?.margin_K ?? 0)).toBeGreaterThan(15);
});

describe('ways of putting a part on', () => {
  it('fit by what the part is: holes one by one, two ends one after the other, a rim pressed, rows dragged', () => {
    const fitting = (pkg: string) =>
      methodsFor(pkg, {}, 'fit').flatMap((m) => (m.unfit || m.asked || m.again ? [] : [m.method.id]));
    expect(fitting('RADIAL-8')).toEqual(['fit-holes']);
    expect(fitting('C0805')).toEqual(['fit-air', 'fit-paste', 'fit-molten', 'fit-joints', 'fit-one-land']);
    expect(fitting('QFN-24')).toEqual(['fit-air', 'fit-paste', 'fit-molten', 'fit-press']);
    expect(fitting('QFP-44')).toEqual(['fit-air', 'fit-paste', 'fit-molten', 'fit-joints', 'fit-drag']);
    for (const pkg of ['QFN-24', 'BGA-64', 'QFP-44', 'DIP-8'])
      for (const { unfit, method } of methodsFor(pkg, {}, 'fit')) expect(unfit ?? 'fits', method.id).not.toBe('');
    expect(methodsFor('DIP-16', {}, 'fit').find((m) => m.method.id === 'fit-socket')?.unfit).toBeUndefined();
    expect(methodsFor('SOIC-8', {}, 'fit').find((m) => m.method.id === 'fit-socket')?.unfit).toBeDefined();
  });
  it('what is told to stay without lead brings none', () => {
    const ways = methodsFor('QFP-44', { leadFree: true, jointAlloy: 'SAC305' }, 'fit');
    for (const { method, unfit } of ways.filter((w) => !w.unfit))
      for (const p of method.phases)
        if ('alloy' in p.settings)
          expect((p.settings.alloy as { Pb?: number }).Pb ?? 0, `${method.id} ${unfit ?? ''}`).toBe(0);
  });
  it('heavier boards take longer, lead-free longer than leaded, bismuth less', async () => {
    const light = rowOf(await fits('SOIC-8', ['fit-paste']), 'fit-paste');
    const heavy = rowOf(await fits('SOIC-8', ['fit-paste'], { kind: 'four-layer' }), 'fit-paste');
    expect(heavy.loose_s?.p50).toBeGreaterThan(light.loose_s?.p50 ?? NaN);
    const board = expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 12 });
    const loose = async (alloy: object) => {
      const phases = methodsFor('SOIC-8', {}, 'fit')
        .find((m) => m.method.id === 'fit-paste')
        ?.method.phases.map((p) => (p.kind === 'paste' ? { ...p, settings: { ...p.settings, alloy } } : p));
      const procedure = { v: 1, method: 'fit-paste', op: 'fit', partId: 'target', phases };
      const film = { alloy, volume: 0.1 };
      const told = await tellRework(
        reworkInput.parse({ case: { board, target: 'target', op: 'fit', joints: [film] }, procedure }),
        context,
      );
      return Math.max(...told.joints.map((j) => j.loose_s ?? Infinity));
    };
    const [sac, leaded, bismuth] = [
      await loose({ Sn: 96.5, Ag: 3, Cu: 0.5 }),
      await loose({ Sn: 63, Pb: 37 }),
      await loose({ Sn: 42, Bi: 58 }),
    ];
    expect(sac).toBeGreaterThan(leaded);
    expect(leaded).toBeGreaterThan(bismuth);
  }, 60_000);
  it('an iron makes joint after joint in an order that holds it: corners first, each once', async () => {
    const row = rowOf(await fits('SOIC-8', ['fit-joints']), 'fit-joints');
    expect(row.order?.slice(0, 2)).toEqual(['1', '5']);
    expect(new Set(row.order)).toEqual(new Set(packageById('SOIC-8').terminals.map((t) => t.id)));
    expect(row.wind).toMatchObject({ N: 0, verdict: 'stays' });
    expect(row.pace?.s_per_joint).toBeGreaterThan(1.5);
    expect(row.pace?.s_per_joint).toBeLessThan(5);
    const times = row.joints?.map((j) => j.loose_s.p50 ?? 0) ?? [];
    expect(Math.max(...times)).toBeCloseTo(row.loose_s?.p50 ?? NaN, 0);
  }, 60_000);
  it('dragging is quicker than joint by joint, from a pitch on', async () => {
    const out = await fits('QFP-44', ['fit-joints', 'fit-drag']);
    expect(rowOf(out, 'fit-drag').loose_s?.p50).toBeLessThan(0.7 * (rowOf(out, 'fit-joints').loose_s?.p50 ?? NaN));
  }, 60_000);
  it('lead and bismuth together are refused, bismuth alone says where not', async () => {
    const low = rowOf(await fits('SOIC-8', ['fit-paste-low']), 'fit-paste-low');
    expect([low.verdict, low.why]).toEqual(['no', expect.stringMatching(/soften at 9\d °C/)]);
    const lands = packageById('SOIC-8').terminals.map((t) => ({
      terminal: t.id,
      wt: { Sn: 96.5, Ag: 3, Cu: 0.5 },
      mm3: 0.02,
    }));
    const clean = rowOf(await fits('SOIC-8', ['fit-paste-low'], { lands }), 'fit-paste-low');
    expect(clean.verdict).toBe('works');
    expect(clean.why).toMatch(/nowhere hot/);
  }, 60_000);
  it('more solder on the lands takes longer', async () => {
    const lands = (mm3: number) =>
      packageById('SOIC-8').terminals.map((t) => ({ terminal: t.id, wt: { Sn: 63, Pb: 37 }, mm3 }));
    const [little, much] = [
      rowOf(await fits('SOIC-8', ['fit-air'], { lands: lands(0.03) }), 'fit-air'),
      rowOf(await fits('SOIC-8', ['fit-air'], { lands: lands(1.5) }), 'fit-air'),
    ];
    expect(much.loose_s?.p50).toBeGreaterThan(little.loose_s?.p50 ?? NaN);
  }, 60_000);
  it('a plastic neighbour counts, and so does the part itself', async () => {
    const plug = [{ id: 'j1', package: 'CONN-PBT-8', x_mm: 25, y_mm: 31.5 }];
    const out = await fits('SOIC-8', ['fit-air', 'fit-joints'], { more: plug });
    expect(rowOf(out, 'fit-air').worst?.partId).toBe('j1');
    expect(rowOf(out, 'fit-joints').worst?.margin_K ?? 500).toBeGreaterThan(rowOf(out, 'fit-air').worst?.margin_K ?? 0);
    expect(rowOf(out, 'fit-air').part?.margin_K).toEqual(expect.any(Number));
  }, 60_000);
  it('a row runs again as it was computed, and says what every joint is made of', async () => {
    const row = rowOf(await fits('C0805', ['fit-one-land']), 'fit-one-land');
    const told = await tellRework(
      reworkInput.parse({ case: { board: boardOf('C0805'), target: 'u1', op: 'fit' }, procedure: row.procedure }),
      context,
    );
    const made = Math.max(...told.joints.map((j) => j.loose_s ?? Infinity));
    expect(made).toBeGreaterThan(0.6 * (row.loose_s?.p50 ?? NaN));
    expect(made).toBeLessThan(1.6 * (row.loose_s?.p50 ?? NaN));
    for (const j of told.joints) {
      expect(j.wt.Pb ?? 0).toBeGreaterThan(30);
      expect(j.frozen_s).toEqual(expect.any(Number));
    }
  }, 60_000);
  it('a way of taking off is none of putting on, and the other way round', async () => {
    const place = { board: boardOf('C0805'), target: 'u1' };
    await expect(runCalc('plan.fit', { case: place, methods: ['air-slow'] }, context)).rejects.toThrow(
      /no way of putting a part on/,
    );
    await expect(runCalc('plan.compare', { case: place, methods: ['fit-air'] }, context)).rejects.toThrow(
      /no way known here/,
    );
  });
  it('a land that the part has not is refused where it stands', async () => {
    const input = {
      case: { board: boardOf('C0805'), target: 'u1' },
      lands: [{ terminal: '9', wt: { Sn: 100 }, mm3: 1 }],
    };
    await expect(runCalc('plan.fit', input, context)).rejects.toThrow(/lands\.0\.terminal: u1 has no "9"/);
  });
});

describe('its own air', () => {
  const part = (pkg: string) => ({
    partId: 'p',
    package: pkg,
    x_mm: 0,
    y_mm: 0,
    rotation_deg: 0,
    side: 'top' as const,
  });
  const bench = { ambient_C: 22, station: DEFAULT_STATION };
  const air = (settings: object): Phase[] => {
    const [first] = methodsFor('C0402').flatMap((m) => m.method.phases.filter((p) => p.kind === 'air'));
    return [{ ...first, settings: { ...first.settings, ...settings } } as Phase];
  };
  it('blows an 0402 off its lands where it is close and strong, and says from where it stays', () => {
    const near = ownWind(part('C0402'), air({ flow_L_min: 60, nozzle_mm: 5, standoff_mm: 8, sweep_mm: 0 }), bench);
    expect(near.verdict).toBe('flies');
    const { standoff_mm = NaN, flow_L_min = NaN } = near;
    expect(ownWind(part('C0402'), air({ flow_L_min: 60, nozzle_mm: 5, standoff_mm, sweep_mm: 0 }), bench).verdict).toBe(
      'stays',
    );
    expect(ownWind(part('C0402'), air({ flow_L_min, nozzle_mm: 5, standoff_mm: 8, sweep_mm: 0 }), bench).verdict).toBe(
      'stays',
    );
  });
  it('draws a fluxed part down, and knows a dry one by its friction alone', () => {
    const at = {
      Q_L_min: 20,
      D_mm: 5,
      H_mm: 20,
      Tset_C: 350,
      Tamb_C: 22,
      efficiency: 0.8,
      r_mm: 0,
      part: { l_mm: 1, w_mm: 0.5, h_mm: 0.5 },
    };
    const [dry, fluxed] = [0, 0.5].map((fluxed_mm2) => blowAway({ ...at, wet: 0, fluxed_mm2 }));
    const weight = 5000 * 1e-3 * 0.5e-3 * 0.5e-3 * 9.81;
    expect(dry.N / fluxed.N).toBeCloseTo((0.3 * weight + 0.3 * 1200 * 0.5e-6) / (0.3 * weight), 6);
  });
  it('is refused as a plan until its settings change', async () => {
    const phases = phasesOf('C0402', 'fit-air');
    const blown = phases.map((p) =>
      p.kind === 'air' ? { ...p, settings: { ...p.settings, flow_L_min: 60, standoff_mm: 8 } } : p,
    );
    const plan = { ...benchFor('C0402'), quality: 'coarse' };
    const rowFor = async (list: unknown) =>
      ((await runCalc('plan.heat', { ...plan, as: 'fit-air', phases: list }, context)) as { row: FitRow }).row;
    const [flies, stays] = [await rowFor(blown), await rowFor(phases)];
    expect([flies.verdict, flies.why, flies.cheapest]).toEqual([
      'no',
      expect.stringMatching(/blows it off/),
      expect.stringMatching(/start at \d+ mm/),
    ]);
    expect(stays.verdict).toBe('works');
  }, 60_000);
});

describe('freezing', () => {
  it('of a joint that one path cools takes what its melting heat takes through it', () => {
    // eutectic: 30 % of the melting heat, then all of it, through G to a cold end
    const [G, latent, Tm] = [2e-3, 2, 183];
    const enthalpy = { Ts: Tm - 0.01, Tl: Tm, Cs: 1e-4, Cl: 1e-4, latent };
    const run = new HeatRun(
      {
        nodes: [
          { id: 'j', type: 'joint', enthalpy, T0: Tm },
          { id: 'cold', type: 'fixed', T0: 23 },
        ],
        links: [{ a: 0, node: 1, G }],
      },
      23,
    );
    const started = run.H[0];
    let [at30, at100] = [NaN, NaN];
    while (Number.isNaN(at100) && run.time < 1000) {
      run.step(0.02);
      if (Number.isNaN(at30) && run.H[0] < 0.7 * started) at30 = run.time;
      if (run.H[0] <= 0) at100 = run.time;
    }
    const closed = latent / (G * (Tm - 23));
    expect(at30 / closed).toBeCloseTo(0.3, 2);
    expect(at100 / closed).toBeCloseTo(1, 2);
  });
  it('is told of every way: joints hold before they are solid through, and it is held for longer than that', async () => {
    const row = rowOf(await fits('QFN-24', ['fit-air']), 'fit-air');
    expect(row.frozen_s?.p5).toBeGreaterThan(0);
    expect(row.hold_s).toBeGreaterThan(row.frozen_s?.p95 ?? NaN);
  }, 60_000);
});

describe('molten lands', () => {
  it('are heated without the part, which comes cold: joints freeze under it and melt again', async () => {
    const run = new ReworkRun({ ...benchFor('SOIC-8'), quality: 'coarse' }, stintsOf(phasesOf('SOIC-8', 'fit-molten')));
    const body = () => run.heat.T[run.lumps.body];
    let laid: number | undefined;
    while (run.time < 200 && run.joints.allLoose_s === null) {
      run.step();
      const over = run.phaseIsOver();
      if (run.phases.at(-1)?.id === 'lands' && over === 'handed over') {
        // nothing but the gap below it warms what is not there
        expect(run.joints.joints.every((_, i) => run.joints.isLoose(i))).toBe(true);
        run.next('handed over');
        laid = run.time;
        expect(body()).toBe(22);
      } else if (over !== 'no') run.next(over);
    }
    expect(laid).toBeGreaterThan(5);
    expect(run.joints.allLoose_s).toBeGreaterThan((laid ?? NaN) + 1);
  }, 30_000);
});

describe('again, in place', () => {
  it('is no way of putting on: only where somebody says so, with the joints as they are', async () => {
    const board = boardOf('SOIC-8');
    const input = (methods?: string[]) =>
      fitInput.parse({
        case: { board, target: 'u1', seed: 1, joints: [{ alloy: { Sn: 63, Pb: 37 }, volume: 1 }] },
        ...(methods ? { methods } : {}),
        ranges: false,
      });
    const usual = await compareFits(input(), context);
    expect(usual.rows.some((r) => r.id.startsWith('again-'))).toBe(false);
    const again = await compareFits(input(['again-air', 'again-iron']), context);
    const row = rowOf(again, 'again-iron');
    expect(row.verdict).toBe('works');
    expect(row.loose_s?.p50).toBeLessThan(2 * (rowOf(usual, 'fit-joints').loose_s?.p50 ?? NaN));
    expect(rowOf(again, 'again-air').hold_s).toBeGreaterThan(1);
  }, 60_000);
});

describe('the hidden bench of putting on', () => {
  const sits = async (pad_share: number) => {
    const phases = phasesOf('QFN-24', 'fit-air').map((p) =>
      p.kind === 'tin' ? { ...p, settings: { ...p.settings, pad_share } } : p,
    );
    const plan = { ...benchFor('QFN-24'), phases };
    const input = hiddenBenchInput.parse({ plan, seed: 7 });
    return (await playHiddenBench(input, context)).sits;
  };
  it('tilts a part on a fat centre pad, and lays it flat on a film', async () => {
    expect(await sits(1.4)).toBe('tilted');
    expect(await sits(0.2)).toBe('flat');
  }, 30_000);
});

describe('lands as they are once prepared', () => {
  const board = expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
  const target = board.parts[0];
  const after = (id: string, flood: 'leaded' | 'own' = 'leaded') => {
    const method = methodsFor('SOIC-8').find((m) => m.method.id === id)?.method;
    if (!method) throw new Error(`no ${id}`);
    return landsAfter({ board, target, method, flood });
  };
  it('hold what they were flooded with, and what is left of low-melt alloy under its guide', () => {
    const [plain] = after('air-slow');
    expect(plain.alloy?.Pb).toBeGreaterThan(25);
    expect(plain.volume).toBeCloseTo(0.2, 9);
    const [beaded] = after('bead');
    expect(beaded.alloy?.Bi).toBeGreaterThan(0);
    expect(beaded.alloy?.Bi).toBeLessThan(1);
    const [own] = after('air-slow', 'own');
    expect(own.alloy?.Pb ?? 0).toBe(0);
  });
});
