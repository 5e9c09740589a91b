/** What a plan does not know for sure: the few inputs that matter, each with how far it may be off (two standard deviations). */
import type { BoardModel } from '../board/index.ts';
import { PLANE_FROM } from '../materials/index.ts';
import { kindOf } from './phases/index.ts';
import type { Phase } from './phases/schema.ts';
import type { PlanInput } from './planForm.ts';
import { PACE_WITHIN } from './handTimes.ts';
import { type Range, RANGES, within } from './ranges.ts';

interface UncertainInput {
  name: string;
  /** The input with this one off by `z` times its plus-minus. */
  off: (input: PlanInput, z: number) => PlanInput;
}

/** What copper and thickness may be off by, as shares (estimates). */
const COPPER = 0.15;
/** Without a plane in the board it is the tracks' way that counts, which nobody knows. */
const BROKEN_COPPER = 0.3;
const THICKNESS = 0.06;

/** Boards that the model takes. */
const THICK_MM: Range = [0.2, 6];

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

const ofBoard: UncertainInput[] = [
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

/** What a kind of phase declares, off in every phase that has it. */
function ofPhases(phases: readonly Phase[]): UncertainInput[] {
  const names = [...new Set(phases.flatMap((p) => kindOf(p).uncertain.map((u) => u.name)))];
  return names.map((name) => ({
    name,
    off(input, z) {
      const { station } = input;
      const declared = (p: Phase) => kindOf(p).uncertain.find((u) => u.name === name);
      const shift = phases.map(declared).find((u) => u?.station);
      return {
        ...input,
        ...(shift ? { station: { ...station, ...shift.station?.(station, z) } } : {}),
        phases: input.phases.map((p) => {
          const change = declared(p)?.settings?.(p.settings, z, station);
          return change ? ({ ...p, settings: { ...p.settings, ...change } } as Phase) : p;
        }),
      };
    },
  }));
}

/** One person is slow or quick in everything. */
const ofHands: UncertainInput = {
  name: 'pace of the hands',
  off: (i, z) => (z === 0 ? i : { ...i, pace: within((i.pace ?? 1) * PACE_WITHIN ** z, RANGES.pace) }),
};

/** The inputs that matter for a procedure: at most eleven. */
export const uncertainOf = (phases: readonly Phase[]): UncertainInput[] => [
  ...ofPhases(phases),
  ...(phases.some((p) => kindOf(p).paced) ? [ofHands] : []),
  ...ofBoard,
];
