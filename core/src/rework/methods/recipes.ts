/** Every way of taking a part off there is: a recipe for this part, board and shop. Adding one is its entry here, its name in `names.ts`, and its phases' folders. */
import { SOLDER_ALLOYS } from '../../alloys/index.ts';
import { packageById } from '../../packages/index.ts';
import type { Phase } from '../phases/schema.ts';
import { reachOf, rowsOf } from '../phases/rows.ts';
import {
  airFor,
  layAlloy,
  LOOSENS,
  openingFor,
  type Piece,
  spikeFor,
  strokeFor,
  suctionFor,
  UNTIL_TOLD,
  warmBoard,
} from './usual.ts';

/** Why a recipe is not for a part or board, as a clause, and the cheapest thing that would change that. */
export interface Unfit {
  why: string;
  cheapest?: string;
}

export interface Recipe {
  id: string;
  phases(piece: Piece): Phase[];
  /** Why it does not apply; what its phases cannot do to this part they say themselves. */
  unfit?(piece: Piece): Unfit | undefined;
  /** Computed only when somebody asks for it: rarely the best way, or one that wants a tool few have. */
  asked?: true;
  /** Of a part that stands on its lands: heated again, or touched up. */
  again?: true;
  /** Only when nothing else is left. */
  lastResort?: string;
}

const pinsOf = ({ packageId }: Piece): boolean => reachOf(packageId).pins;
const joints = ({ packageId }: Piece): number => packageById(packageId).terminals.length;

function spikeUnfit(piece: Piece): Unfit | undefined {
  if (piece.leadFree) return { why: 'this board stays without lead', cheapest: 'low-melt alloy without lead instead' };
  const own = piece.jointAlloy === undefined ? undefined : SOLDER_ALLOYS.get(piece.jointAlloy);
  if (own?.lead) return { why: 'its joints are leaded already' };
  if (own?.wt.Bi) return { why: 'its joints hold bismuth: with lead it melts at 96 °C' };
  return undefined;
}

export const RECIPES: readonly Recipe[] = [
  { id: 'air-slow', phases: (piece) => [airFor(piece, 'slow')] },
  { id: 'air-fast', phases: (piece) => [airFor(piece, 'fast')] },
  {
    id: 'vacuum',
    phases: (piece) => [suctionFor(piece)],
  },
  {
    id: 'vacuum-then-air',
    phases: (piece) => [suctionFor(piece, 'air'), airFor(piece, 'strong')],
  },
  {
    id: 'tweezers',
    phases: () => [
      {
        id: 'tweezers',
        kind: 'tweezers',
        settings: { set_C: 350, tip_mm: 3, tip: 'chisel', contact: 1, power_W: 40 },
        ...LOOSENS,
        giveUp_s: 60,
      },
    ],
    unfit(piece) {
      if (pinsOf(piece)) return { why: 'its joints lie in holes' };
      return joints(piece) === 2 && reachOf(piece.packageId).sides === 2
        ? undefined
        : { why: 'tweezers have two tips: it has more than two ends' };
    },
  },
  {
    id: 'bead',
    phases: (piece) => [layAlloy(piece, 'low-melt'), strokeFor(piece)],
  },
  {
    id: 'spike-then-air',
    phases: (piece) => [spikeFor('air'), airFor(piece, 'slow')],
    unfit: spikeUnfit,
  },
  {
    id: 'alloy-then-air',
    asked: true,
    phases: (piece) => [layAlloy(piece, 'low-melt'), airFor(piece, 'mild')],
  },
  {
    id: 'preheat-air',
    asked: true,
    phases(piece) {
      // a board that swallows heat wants the strong air even when it is warm
      const blown = airFor(piece, piece.heavy ? 'fast' : 'slow');
      return [warmBoard(blown), blown];
    },
  },
  {
    id: 'vacuum-warm',
    asked: true,
    phases(piece) {
      const sucked = suctionFor(piece);
      return [warmBoard(sucked), sucked];
    },
  },
  {
    id: 'irons2',
    asked: true,
    phases(piece) {
      const { set_C, ...stroked } = strokeFor(piece).settings;
      const giveUp_s = 90;
      return [
        layAlloy(piece, 'solder'),
        { id: 'irons2', kind: 'irons2', settings: { ...stroked, set_C: 370 }, ...LOOSENS, giveUp_s },
      ];
    },
    unfit: (piece) =>
      pinsOf(piece) ? { why: 'its joints lie in holes', cheapest: 'a vacuum iron, pin by pin' } : undefined,
  },
  {
    id: 'pool',
    asked: true,
    phases: (piece) => [
      {
        id: 'pool',
        kind: 'pool',
        settings: { set_C: 370, tip_mm: 5, tip: 'knife', contact: 1, power_W: 70, pool_mm3: poolFor(piece) },
        ...LOOSENS,
        giveUp_s: 60,
      },
    ],
  },
  {
    id: 'lift-legs',
    asked: true,
    phases: (piece) => [
      {
        id: 'lift-legs',
        kind: 'lift-legs',
        settings: { set_C: 360, tip_mm: 2, tip: 'chisel', contact: 1, power_W: 70 },
        ...LOOSENS,
        giveUp_s: Math.min(1800, 60 + 60 * joints(piece)),
      },
    ],
    unfit: (piece) =>
      joints(piece) > MOST_LEGS
        ? { why: `${joints(piece)} legs one by one is an afternoon`, cheapest: 'two legs for a measurement only' }
        : undefined,
  },
  {
    id: 'cut-legs',
    asked: true,
    phases: (piece) => [
      {
        id: 'cut',
        kind: 'cut',
        settings: { with: 'cutters' },
        ...LOOSENS,
        giveUp_s: Math.min(1800, 120 + 20 * joints(piece)),
      },
    ],
  },
  {
    id: 'below-opening',
    asked: true,
    phases: ({ packageId, at }) => [
      {
        id: 'below',
        kind: 'below',
        settings: {
          source: 'infrared',
          T_C: 400,
          flux_W_m2: 25_000,
          ...(at ? { window: openingFor(packageId, at) } : {}),
        },
        ...LOOSENS,
        giveUp_s: 300,
      },
    ],
  },
  {
    id: 'peel',
    asked: true,
    phases: () => [
      {
        id: 'peel',
        kind: 'peel',
        settings: { set_C: 380, flow_L_min: 25, nozzle_mm: 5, standoff_mm: 8 },
        ...LOOSENS,
        giveUp_s: 240,
      },
    ],
  },
  {
    id: 'twist-off',
    asked: true,
    phases: () => [{ id: 'twist', kind: 'twist', settings: {}, ...UNTIL_TOLD, giveUp_s: 200 }],
    lastResort: 'twisting tears lands: only when nothing melts any more and the part is scrap',
  },
];

/** More legs than this nobody lifts one by one. */
const MOST_LEGS = 64;

/** A pool that covers the lands and what lies between them, about half a millimetre high, mm³. */
function poolFor({ packageId }: Piece): number {
  const area = packageById(packageId).terminals.reduce((sum, t) => sum + t.land.w * t.land.h, 0);
  const between = rowsOf(packageId).reduce((sum, r) => sum + r.length_mm, 0);
  return Math.round(Math.min(40, Math.max(1, 0.5 * (area + 0.5 * between))) * 10) / 10;
}
