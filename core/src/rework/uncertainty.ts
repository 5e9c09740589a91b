/** What a plan does not know for sure: the few inputs that matter, each with how far it may be off (two standard deviations). */
import type { BoardModel } from '../board/index.ts';
import { PLANE_FROM } from '../materials/index.ts';
import { UNMARKED_DIAL, type LowMeltMethod, type Method } from './method.ts';
import type { PlanInput } from './planForm.ts';
import { type Range, RANGES, within } from './ranges.ts';

interface Uncertain {
  name: string;
  /** The input with this one off by `z` times its plus-minus. */
  off: (input: PlanInput, z: number) => PlanInput;
}

/** What they may be off by where no station says it (estimates): flow, copper and thickness as shares, distance in mm. */
const FLOW = 0.1;
const COPPER = 0.15;
/** Without a plane in the board it is the tracks' way that counts, which nobody knows. */
const BROKEN_COPPER = 0.3;
const THICKNESS = 0.06;
const WOBBLE_MM = 2;
/** How much a hand's contact differs from a well wetted one, and a bead from the one asked for. */
const CONTACT = 0.35;
const BEAD = 0.3;

/** Boards that the model takes. */
const THICK_MM: Range = [0.2, 6];

function withMethod<M extends Method>(input: PlanInput, change: (m: M) => Partial<M>): PlanInput {
  return { ...input, method: { ...input.method, ...change(input.method as M) } };
}

function denser(board: BoardModel, by: number): BoardModel {
  const more = (c: number) => within(c * (1 + by), [0, 1]);
  return {
    ...board,
    stack: board.stack.map((l) => ({ ...l, coverage: more(l.coverage) })),
    copper: board.copper.map((p) => ({ ...p, coverage: more(p.coverage) })),
    // measured coverage is known; how well copper conducts between its gaps is not, which thicker foil stands for
    ...(board.coverage ? { stack: board.stack.map((l) => ({ ...l, foil_um: l.foil_um * (1 + by) })) } : {}),
  };
}

const hasPlane = (board: BoardModel) => board.stack.some((l) => l.coverage >= PLANE_FROM);

const ofBoard: Uncertain[] = [
  {
    name: 'copper of the board',
    off: (i, z) => ({ ...i, board: denser(i.board, (hasPlane(i.board) ? COPPER : BROKEN_COPPER) * z) }),
  },
  {
    name: 'thickness of the board',
    off: (i, z) => ({
      ...i,
      board: { ...i.board, thickness_mm: within(i.board.thickness_mm * (1 + THICKNESS * z), THICK_MM) },
    }),
  },
];

const ofAir: Uncertain[] = [
  {
    name: 'temperature of the station',
    off: (i, z) => ({
      ...i,
      station: {
        ...i.station,
        efficiency: within(i.station.efficiency + z * i.station.efficiencyPlusMinus, RANGES.station.efficiency),
      },
    }),
  },
  {
    name: 'flow of the station',
    off: (i, z) => {
      const by = i.station.air ? UNMARKED_DIAL.within ** z : 1 + z * (i.station.flowPlusMinus ?? FLOW);
      const flow = (v: number) => within(v * by, RANGES.air.flow_L_min);
      return withMethod(i, (m: Extract<Method, { kind: 'air' }>) => ({
        flow_L_min: flow(m.flow_L_min),
        ...(m.stages
          ? { stages: m.stages.map((s) => (s.flow_L_min ? { ...s, flow_L_min: flow(s.flow_L_min) } : s)) }
          : {}),
      }));
    },
  },
  {
    name: 'hand on the nozzle',
    off: (i, z) => ({
      ...i,
      station: {
        ...i.station,
        handFactor: within(i.station.handFactor + z * i.station.handFactorPlusMinus, RANGES.station.handFactor),
      },
    }),
  },
  {
    name: 'distance of the nozzle',
    off: (i, z) => {
      const mm = (v: number) => within(v + z * WOBBLE_MM, RANGES.air.standoff_mm);
      return withMethod(i, (m: Extract<Method, { kind: 'air' }>) => ({
        standoff_mm: mm(m.standoff_mm),
        ...(m.stages
          ? { stages: m.stages.map((s) => (s.standoff_mm ? { ...s, standoff_mm: mm(s.standoff_mm) } : s)) }
          : {}),
      }));
    },
  },
];

const ofIrons: Uncertain[] = [
  {
    name: 'temperature of the iron',
    off: (i, z) =>
      withMethod(i, (m) => ({ set_C: within(m.set_C + z * i.station.ironPlusMinus_K, RANGES.iron.set_C) })),
  },
  {
    name: 'contact of the tip',
    off: (i, z) =>
      withMethod(i, (m: LowMeltMethod) => ({ contact: within(m.contact * (1 + CONTACT * z), RANGES.iron.contact) })),
  },
];
const ofBeads: Uncertain[] = [
  {
    name: 'alloy that mixes in',
    off: (i, z) =>
      withMethod(i, (m: LowMeltMethod) => ({
        bead_mm3_mm: within(m.bead_mm3_mm * (1 + BEAD * z), RANGES.bead.bead_mm3_mm),
      })),
  },
];

/** The inputs that matter for a method: at most seven. */
export function uncertainOf(method: Method): Uncertain[] {
  if (method.kind === 'air') return [...ofAir, ...ofBoard];
  return [...ofIrons, ...(method.kind === 'low-melt' ? ofBeads : []), ...ofBoard];
}
