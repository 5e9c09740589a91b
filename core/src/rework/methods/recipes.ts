/** Every way of taking a part off there is: a recipe for this part, board and shop. Adding one is its entry here, and its phases' folders. */
import { LOW_MELT_LEAD_FREE, SOLDER_ALLOYS } from '../../alloys/index.ts';
import { packageById, terminalSides } from '../../packages/index.ts';
import type { Phase, PhaseOf, SettingsOf } from '../phases/index.ts';
import { reachOf, rowsOf } from '../phases/rows.ts';

/** What a recipe is made for. */
export interface Piece {
  packageId: string;
  /** No lead may come into the joints. */
  leadFree?: boolean;
  /** What the board is soldered with, by its id. */
  jointAlloy?: string;
}

export interface Recipe {
  id: string;
  /** For people; nothing is matched by it. */
  name: string;
  /** Its phases for a part; undefined where another recipe is plainly better. */
  phases(piece: Piece): Phase[] | undefined;
  /** The recipe that puts a part on as this one would, where that is another: what went before it is no part of it. */
  fitsAs?: string;
  /** Why it does not apply to this board, as a clause; what its phases cannot do to this part they say themselves. */
  unfit?(piece: Piece): string | undefined;
}

const LOOSE = { until: { loose: 'all' as const } };

/** Slow and fast school for a part of this size. */
function airFor(packageId: string, school: 'slow' | 'fast'): SettingsOf<'air'> {
  const { body } = packageById(packageId);
  const size = Math.max(body.l, body.w);
  const wide = size >= 4 ? 1 : 0.45;
  const fast = school === 'fast';
  return {
    nozzle_mm: size < 4 ? 5 : size < 8 ? 8 : 10,
    sweep_mm: Math.round(size * 0.5 * 10) / 10,
    set_C: fast ? 450 : 390,
    flow_L_min: Math.round((fast ? 70 : 45) * wide),
    standoff_mm: fast ? 9 : 14,
  };
}
const airPhase = (settings: SettingsOf<'air'>): PhaseOf<'air'> => ({
  id: 'air',
  kind: 'air',
  settings,
  ...LOOSE,
  giveUp_s: 150,
});

/** A bead that covers the lands of its row, mm² by the square of their depth; a hand lays no more than so much. */
const BEAD = { perDepth2: 0.6, least: 0.2, most: 1.2 };

/** Round four sides a narrow tip comes back too late: what it left has frozen again. */
function beadFor({ packageId, leadFree }: Piece): SettingsOf<'stroke'> {
  const around = terminalSides(packageById(packageId)) > 2;
  const deepest = Math.max(...rowsOf(packageId).map((row) => row.depth_mm), 0);
  return {
    set_C: 320,
    bead_mm3_mm: Math.round(Math.min(BEAD.most, Math.max(BEAD.least, BEAD.perDepth2 * deepest ** 2)) * 100) / 100,
    ...(leadFree ? { alloy: LOW_MELT_LEAD_FREE } : {}),
    tip_mm: around ? 5 : 3,
    contact: 1,
    power_W: 70,
    stroke_s: around ? 40 : 25,
  };
}

export const RECIPES: readonly Recipe[] = [
  { id: 'air-slow', name: 'Air, slow', phases: ({ packageId }) => [airPhase(airFor(packageId, 'slow'))] },
  { id: 'air-fast', name: 'Air, fast', phases: ({ packageId }) => [airPhase(airFor(packageId, 'fast'))] },
  {
    id: 'vacuum',
    name: 'Vacuum iron',
    phases({ packageId }) {
      if (!reachOf(packageId).pins) return undefined;
      const settings = {
        set_C: 380,
        tip_mm: 2.5,
        tip: 'chisel' as const,
        contact: 1,
        power_W: 80,
        dwell_s: 1,
        most_s: 8,
      };
      return [{ id: 'vacuum', kind: 'vacuum', settings, ...LOOSE, giveUp_s: 150 }];
    },
  },
  {
    id: 'tweezers',
    name: 'Hot tweezers',
    phases({ packageId }) {
      const { sides, pins } = reachOf(packageId);
      if (pins || sides !== 2 || packageById(packageId).terminals.length > 2) return undefined;
      const settings = { set_C: 350, tip_mm: 3, tip: 'chisel' as const, contact: 1, power_W: 40 };
      return [{ id: 'tweezers', kind: 'tweezers', settings, ...LOOSE, giveUp_s: 60 }];
    },
  },
  {
    id: 'bead',
    name: 'Low-melt + iron',
    phases: (piece) => [{ id: 'stroke', kind: 'stroke', settings: beadFor(piece), ...LOOSE, giveUp_s: 150 }],
  },
  {
    id: 'spike-then-air',
    name: 'Leaded spike, then air',
    fitsAs: 'air-slow',
    phases: ({ packageId }) => [
      {
        id: 'spike',
        kind: 'spike',
        settings: { set_C: 360, tip_mm: 3, tip: 'chisel', contact: 1, power_W: 70, ratio: 1, most_s: 5 },
        until: { told: true },
        giveUp_s: 240,
        else: 'air',
      },
      airPhase(airFor(packageId, 'slow')),
    ],
    unfit(piece) {
      if (piece.leadFree) return 'this board stays without lead';
      const own = piece.jointAlloy === undefined ? undefined : SOLDER_ALLOYS.get(piece.jointAlloy);
      if (own?.lead) return 'its joints are leaded already';
      if (own?.wt.Bi) return 'its joints hold bismuth: with lead it melts at 96 °C';
      return undefined;
    },
  },
];
