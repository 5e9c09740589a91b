/** Cases a bench knows, with what it shows there: the default figures of parts and tools have to meet them. */
import { air, beadFor, changed, phaseFor, phasesFor, runOf } from './plans.ts';
import type { BoardModel } from '../src/board/boardModel.ts';
import { packageById } from '../src/packages/index.ts';
import { beadOn } from '../src/rework/phases/rows.ts';
import { FILM, methodsFor } from '../src/rework/index.ts';
import type { Phase } from '../src/rework/phases/schema.ts';
import { wetAt } from '../src/rework/bench/runTimes.ts';
import { type PlanRun } from '../src/rework/bench/runForm.ts';
import { type PlanInput } from '../src/rework/planForm.ts';

type Stack = [number, number][];
const TWO: Stack = [
  [35, 0.35],
  [35, 0.5],
];
const FOUR: Stack = [
  [45, 0.4],
  [35, 0.85],
  [35, 0.85],
  [45, 0.4],
];
const THICK: Stack = [
  [50, 0.45],
  [70, 0.85],
  [70, 0.85],
  [50, 0.5],
];

const HEAVY: Stack = [
  [45, 0.5],
  [105, 0.85],
  [105, 0.85],
  [45, 0.5],
];

/** A square board with the part in the middle; `area` mm of full copper under it on both faces, with vias per mm². */
function boardOf(
  pkg: string,
  size: number,
  stack: Stack,
  jointAlloy: string,
  area?: { w: number; h: number; vias: number },
): BoardModel {
  const c = size / 2;
  const hot = packageById(pkg).terminals.find((t) => t.kind === 'pad' || t.kind === 'tab');
  const at = area && {
    x_mm: c + (hot?.land.x ?? 0) - area.w / 2,
    y_mm: c + (hot?.land.y ?? 0) - area.h / 2,
    w_mm: area.w,
    h_mm: area.h,
  };
  return {
    v: 1,
    name: `${pkg} on ${size} mm`,
    outline_mm: [
      [0, 0],
      [size, 0],
      [size, size],
      [0, size],
    ],
    thickness_mm: 1.6,
    stack: stack.map(([foil_um, coverage], i) => ({ name: `L${i + 1}`, foil_um, coverage })),
    copper: at ? [0, stack.length - 1].map((layer) => ({ ...at, layer, coverage: 1 })) : [],
    vias: at && area ? [{ ...at, per_mm2: area.vias }] : [],
    holes: [],
    parts: [{ partId: 'target', package: pkg, x_mm: c, y_mm: c, rotation_deg: 0, side: 'top' }],
    landmarks: [],
    flipAxis_mm: c,
    powerSources: [],
    jointAlloy,
  };
}

const simulate = (board: BoardModel, phase: Phase | Phase[], more: Partial<PlanInput> = {}) =>
  runOf(board, phase, { quality: 'plan', ...more });

const all = (run: PlanRun) => run.allWet_s ?? Infinity;
/** Joints of a kind all wet, s. */
const wetOf = (run: PlanRun, ids: (id: string) => boolean) =>
  Math.max(...run.joints.filter((j) => ids(j.terminal)).map((j) => wetAt(j) ?? Infinity));

/** A figure of a run with the band a bench shows. */
export interface Figure {
  what: string;
  value: number;
  from: number;
  to: number;
  unit: string;
}
export interface BenchTime {
  name: string;
  inputs: string;
  run: () => Promise<Figure[]>;
}

const s = (what: string, value: number, from: number, to: number) => ({ what, value, from, to, unit: 's' });

export const benchTimes: BenchTime[] = [
  {
    name: 'SOIC-8, leaded, small two-layer board',
    inputs: '20 L/min, 6 mm, 12 mm above, 345 °C, circling 5 mm; 40 mm board',
    run: async () => {
      const method = air({ flow_L_min: 20, nozzle_mm: 6, standoff_mm: 12, set_C: 345, sweep_mm: 5 });
      return [s('all wet', all(await simulate(boardOf('SOIC-8', 40, TWO, 'Sn63Pb37'), method)), 20, 60)];
    },
  },
  {
    name: 'SOIC-16W, leaded, two-layer board',
    inputs: '30 L/min, 8 mm, 12 mm, 370 °C, 6 mm; 50 mm',
    run: async () => {
      const method = air({ flow_L_min: 30, nozzle_mm: 8, standoff_mm: 12, set_C: 370, sweep_mm: 6 });
      return [s('all wet', all(await simulate(boardOf('SOIC-16W', 50, TWO, 'Sn63Pb37'), method)), 20, 60)];
    },
  },
  {
    name: 'QFP-48, lead-free, four layers, far then close',
    inputs: '38 L/min, 8 mm, 30 mm then 9 mm from 40 s, 390 °C, 4 mm; 60 mm',
    run: async () => {
      const method = air({ flow_L_min: 38, set_C: 390, standoff_mm: 30, stages: [{ from_s: 40, standoff_mm: 9 }] });
      return [s('all wet', all(await simulate(boardOf('QFP-48', 60, FOUR, 'SAC305'), method)), 60, 120)];
    },
  },
  {
    name: 'QFN-48 with pad, lead-free, heavy board from cold',
    inputs: '98 L/min, 10 mm, 9 mm, 445 °C, 4 mm; 140 mm with 105 µm inside, full copper and 1 via/mm² under the pad',
    run: async () => {
      const method = air({ flow_L_min: 98, nozzle_mm: 10, standoff_mm: 9, set_C: 445, limit_s: 300 });
      const run = await simulate(boardOf('QFN-48', 140, HEAVY, 'SAC305', { w: 5.4, h: 5.4, vias: 1 }), method);
      const rim = wetOf(run, (id) => id !== 'EP');
      const pad = wetOf(run, (id) => id === 'EP');
      return [s('rim', rim, 40, 200), s('pad', pad, 90, 240), s('pad after rim', pad - rim, 0.1, 150)];
    },
  },
  {
    name: 'D2PAK, lead-free, thick cold board',
    inputs:
      '72 L/min, 10 mm, 10 mm, 425 °C, 4 mm; 140 mm with 70 µm inside, 16 × 14 mm copper with 0.5 via/mm² under the tab',
    run: async () => {
      const method = air({ flow_L_min: 72, nozzle_mm: 10, standoff_mm: 10, set_C: 425, limit_s: 300 });
      const run = await simulate(boardOf('D2PAK', 140, THICK, 'SAC305', { w: 14, h: 16, vias: 0.5 }), method);
      const tab = wetOf(run, (id) => id === 'TAB');
      const legs = wetOf(run, (id) => id !== 'TAB');
      return [s('legs', legs, 40, 200), s('tab', tab, 90, 240), s('tab after legs', tab - legs, 1, 150)];
    },
  },
  {
    name: 'Aluminium can 6.3, leaded, two-layer board, hot and strong',
    inputs: '70 L/min, 8 mm, 12 mm, 405 °C, 3.5 mm; 40 mm',
    run: async () => {
      const method = air({ flow_L_min: 70, standoff_mm: 12, set_C: 405, sweep_mm: 3.5 });
      return [s('all wet', all(await simulate(boardOf('CAN-6.3', 40, TWO, 'Sn63Pb37'), method)), 5, 15)];
    },
  },
  {
    name: '0603, leaded, on an area at 100 °C',
    inputs: '14 L/min, 5 mm, 16 mm, 335 °C, 2 mm; 40 mm, warmed from below for two minutes first',
    run: async () => {
      const method = air({
        flow_L_min: 2,
        nozzle_mm: 5,
        standoff_mm: 120,
        set_C: 100,
        sweep_mm: 2,
        stages: [{ from_s: 120, set_C: 335, flow_L_min: 14, standoff_mm: 16 }],
      });
      const under = { kind: 'preheater', T_C: 125, h: 60 } as const;
      const run = await simulate(boardOf('C0603', 40, TWO, 'Sn63Pb37'), method, { under });
      return [s('all wet after the air', all(run) - 120, 5, 15)];
    },
  },
  {
    name: 'Preheating from afar',
    inputs: '70 L/min, 10 mm, 60 mm, 455 °C, 10 mm; QFP-48 on 60 mm of four layers, 120 s',
    run: async () => {
      const method = air({
        flow_L_min: 70,
        nozzle_mm: 10,
        standoff_mm: 60,
        set_C: 455,
        sweep_mm: 10,
        limit_s: 120,
      });
      const run = await simulate(boardOf('QFP-48', 60, FOUR, 'SAC305'), method);
      const molten = run.joints.filter((j) => j.solidus_s !== null).length;
      return [
        { what: 'body', value: run.body_C, from: 130, to: 200, unit: '°C' },
        { what: 'joints that begin to melt', value: molten, from: 0, to: 0, unit: '' },
      ];
    },
  },
  {
    name: '0805, lead-free, hot tweezers',
    inputs: '350 °C on both ends; 40 mm of two layers',
    run: async () => [
      s(
        'both ends wet',
        all(await simulate(boardOf('C0805', 40, TWO, 'SAC305'), phaseFor('C0805', 'tweezers'))),
        0.5,
        4,
      ),
    ],
  },
  {
    name: 'DIP-8, lead-free, vacuum iron pin by pin',
    inputs:
      '380 °C, fresh solder fed, travel, suction, one pin in twelve or in five once more; 60 mm, two layers, then four with planes reached by spokes',
    run: async () => {
      const perPin = async (stack: Stack) =>
        all(await simulate(boardOf('DIP-8', 60, stack, 'SAC305'), phaseFor('DIP-8', 'vacuum'))) / 8;
      return [
        s('a pin of two layers', await perPin(TWO), 5.5, 13),
        s('a pin of four layers', await perPin(FOUR), 6, 19),
      ];
    },
  },
  ...(
    [
      ['two layers', TWO, 5, 60],
      ['four layers', FOUR, 1, 25],
    ] as const
  ).map(([name, stack, from, to]): BenchTime => ({
    name: `Bead of low-melt alloy, SOIC-16 on ${name}`,
    inputs: 'iron at 350 °C stroking 25 s, about 24 mm³ of bead; 60 mm',
    run: async () => {
      const bead_mm3_mm = 24 / beadOn('SOIC-16', 1).all_mm3;
      const bead = changed(beadFor('SOIC-16'), { set_C: 350, bead_mm3_mm });
      const run = await simulate(boardOf('SOIC-16', 60, [...stack], 'SAC305'), bead);
      return [
        s('all wet', all(run), 1.5, 20),
        s('stays liquid after the iron has left', run.hold_s ?? Infinity, from, to),
      ];
    },
  })),
  // bands from how long hands take (docs/physics/hands.md), written before the runs: two of three benches, and a little over
  {
    name: 'DIP-16 on four layers, vacuum iron, hands included',
    inputs: '380 °C, fresh solder, every fifth pin once more; 60 mm; from the first touch of heat',
    run: async () => [
      s(
        'all pins free',
        all(await simulate(boardOf('DIP-16', 60, FOUR, 'SAC305'), phaseFor('DIP-16', 'vacuum'))),
        120,
        330,
      ),
    ],
  },
  {
    name: 'DIP-40 on two layers, vacuum iron, hands included',
    inputs: 'as above; 100 mm',
    run: async () => [
      s(
        'all pins free',
        all(await simulate(boardOf('DIP-40', 100, TWO, 'SAC305'), phaseFor('DIP-40', 'vacuum'))),
        240,
        640,
      ),
    ],
  },
  ...(
    [
      ['SOIC-16', 'bead', 'low-melt alloy laid along two rows, then stroked', 20, 75],
      ['QFP-44', 'bead', 'low-melt alloy laid along four rows, then stroked', 45, 130],
      ['SOIC-8', 'lift-legs', 'legs lifted one by one', 75, 210],
      ['C0603', 'pool', 'a pool over both ends', 2, 13],
      ['QFP-44', 'cut-legs', 'legs cut', 160, 420],
      ['CAN-6.3', 'twist-off', 'can twisted off', 18, 48],
    ] as const
  ).map(([pkg, recipe, what, from, to]): BenchTime => ({
    name: `${pkg}, ${what}, hands included`,
    inputs: 'usual settings of the recipe; 60 mm of two layers; from the first touch',
    run: async () => [
      s('the part is free', all(await simulate(boardOf(pkg, 60, TWO, 'SAC305'), phasesFor(pkg, recipe))), from, to),
    ],
  })),
  // putting on, from lands that were made ready: bands from how long hands take, as above
  ...(
    [
      ['SOIC-8', 'fit-joints', 'leg by leg with an iron', 15, 50],
      ['QFP-44', 'fit-drag', 'two corners tacked, rows dragged', 25, 80],
      ['C0805', 'fit-joints', 'both ends with an iron', 4, 20],
      ['C0805', 'fit-one-land', 'one land tinned, then the other', 4, 20],
      ['DIP-8', 'fit-holes', 'hole by hole', 20, 65],
      ['SOIC-8', 'fit-air', 'air on tinned lands', 12, 60],
      ['QFN-24', 'fit-paste', 'paste and air', 12, 90],
    ] as const
  ).map(([pkg, recipe, what, from, to]): BenchTime => ({
    name: `${pkg} goes on: ${what}, hands included`,
    inputs: 'usual settings of the recipe; 60 mm of two layers; from the first touch of heat',
    run: async () => {
      const phases = methodsFor(pkg, {}, 'fit').find((m) => m.method.id === recipe)?.method.phases ?? [];
      const run = await simulate(boardOf(pkg, 60, TWO, 'SAC305'), phases, { fitting: true, joints: [FILM] });
      const made = s('every joint is made', all(run), from, to);
      const air = phases.some((p) => p.kind === 'air');
      return air ? [made, s('solid once the heat has left', run.sets?.solid_s ?? Infinity, 0.3, 12)] : [made];
    },
  })),
];
