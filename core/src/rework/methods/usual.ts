/** Usual settings of tools for a part: where a recipe starts from. */
import { LOW_MELT_LEAD_FREE, SOLDER_ALLOYS } from '../../alloys/index.ts';
import type { BoardModel, PlacedPart } from '../../board/index.ts';
import { extentOf, packageById } from '../../packages/index.ts';
import { LEADED } from '../solders.ts';
import { STUCK_ON, type StuckOn } from '../bench/around.ts';
import type { Surroundings } from '../bench/surroundingsForm.ts';
import type { Phase, PhaseOf, SettingsOf } from '../phases/schema.ts';
import { rowsOf } from '../phases/rows.ts';

/** What a recipe is made for. */
export interface Piece {
  packageId: string;
  /** No lead may come into the joints. */
  leadFree?: boolean;
  /** What the board is soldered with, by its id. */
  jointAlloy?: string;
  /** The board swallows heat: planes of thick foil, or a lot of them. */
  heavy?: boolean;
  /** What sits on it and has to come off before anything melts. */
  stuck?: readonly StuckOn[];
  /** Where it stands, mm on the board. */
  at?: { x_mm: number; y_mm: number; rotation_deg: number };
}

/** Copper of a board that swallows heat: its foils by what they cover, µm in all. */
const HEAVY_UM = 150;

/** What a recipe has to know of the board a part stands on. */
export const pieceOn = (
  { jointAlloy, stack }: Pick<BoardModel, 'jointAlloy' | 'stack'>,
  { partId, x_mm, y_mm, rotation_deg }: Pick<PlacedPart, 'partId' | 'x_mm' | 'y_mm' | 'rotation_deg'>,
  { sinks = [] }: Pick<Surroundings, 'sinks'> = {},
): Omit<Piece, 'packageId'> => ({
  stuck: STUCK_ON.filter((what) => sinks.some((s) => s.partId === partId && s.kind === what)),
  jointAlloy,
  heavy: stack.reduce((um, l) => um + l.foil_um * l.coverage, 0) >= HEAVY_UM,
  at: { x_mm, y_mm, rotation_deg },
});

const LOOSE = { until: { loose: 'all' as const } };
/** Until the technician says so: the phase has done what it was for. */
const TOLD = { until: { told: true as const } };
/** When labels, coatings and glue give, °C (from memory, docs/physics/hands.md): mild air, well below melting. */
const SOFT_C = { label: 70, coating: 100, glue: 120 } as const;

/** What sits on a part, off in this order: a label lies on a coating, and both on glue. */
export const softenFor = (piece: Piece): PhaseOf<'soften'>[] =>
  (piece.stuck ?? []).map((what) => {
    const { nozzle_mm, sweep_mm, flow_L_min } = airFor(piece, 'mild').settings;
    const settings = { nozzle_mm, sweep_mm, flow_L_min, what, soft_C: SOFT_C[what], set_C: 200, standoff_mm: 20 };
    return { id: `soften-${what}`, kind: 'soften', settings, ...TOLD, giveUp_s: 300 };
  });

const IRON = { contact: 1, power_W: 70 };

const SCHOOLS = {
  slow: { set_C: 390, flow: 45, standoff_mm: 14 },
  fast: { set_C: 450, flow: 70, standoff_mm: 9 },
  /** For joints that need no more than low-melt alloy does. */
  mild: { set_C: 260, flow: 40, standoff_mm: 16 },
  /** For what is left in holes: nothing small stands in its way. */
  strong: { set_C: 480, flow: 100, standoff_mm: 8 },
} as const;
/** So much longer than wide, and the air goes to and fro along a part instead of round it. */
const LONG = 2;

export function airFor({ packageId, at }: Piece, school: keyof typeof SCHOOLS): PhaseOf<'air'> {
  const { body } = packageById(packageId);
  const size = Math.max(body.l, body.w);
  const wide = size >= 4 ? 1 : 0.45;
  const { set_C, flow, standoff_mm } = SCHOOLS[school];
  const strong = school === 'strong';
  const along = strong && size >= LONG * Math.min(body.l, body.w);
  const turned = (body.l >= body.w ? 0 : 90) - (at?.rotation_deg ?? 0);
  const settings = {
    nozzle_mm: size < 4 ? 5 : size < 8 ? 8 : strong ? 12 : 10,
    sweep_mm: Math.round(size * (along ? 0.46 : 0.5) * 10) / 10,
    ...(along ? { sweep_deg: ((turned % 180) + 180) % 180 } : {}),
    set_C,
    flow_L_min: Math.round(flow * wide),
    standoff_mm,
  };
  return { id: 'air', kind: 'air', settings, ...LOOSE, giveUp_s: strong ? 240 : 150 };
}

/** A bead that covers the lands of its row, mm² by the square of their depth; a hand lays no more than so much. */
const BEAD = { perDepth2: 0.6, least: 0.2, most: 1.2 };

function beadOf({ packageId }: Piece): number {
  const deepest = Math.max(...rowsOf(packageId).map((row) => row.depth_mm), 0);
  return Math.round(Math.min(BEAD.most, Math.max(BEAD.least, BEAD.perDepth2 * deepest ** 2)) * 100) / 100;
}

/** Round more than two sides a narrow tip comes back too late: what it left has frozen again. */
const around = ({ packageId }: Piece) => rowsOf(packageId).length > 2;

/** Low-melt alloy, or ordinary solder to flood with, laid along every row. */
export function layAlloy(piece: Piece, what: 'low-melt' | 'solder'): PhaseOf<'alloy'> {
  const flood = piece.leadFree ? SOLDER_ALLOYS.get(piece.jointAlloy ?? '')?.wt : LEADED;
  const alloy = what === 'solder' ? (flood ?? LEADED) : piece.leadFree ? LOW_MELT_LEAD_FREE : undefined;
  const settings = {
    ...IRON,
    set_C: what === 'solder' ? 360 : 320,
    bead_mm3_mm: beadOf(piece),
    ...(alloy ? { alloy } : {}),
    tip_mm: around(piece) ? 5 : 3,
  };
  return { id: 'alloy', kind: 'alloy', settings, ...TOLD, giveUp_s: 300 };
}

export function strokeFor(piece: Piece): PhaseOf<'stroke'> {
  const stroke_s = around(piece) ? 40 : 25;
  const settings = { ...IRON, set_C: 320, tip_mm: around(piece) ? 5 : 3, stroke_s };
  return { id: 'stroke', kind: 'stroke', settings, ...LOOSE, giveUp_s: 150 };
}

export const spikeFor = (then: string): PhaseOf<'spike'> => ({
  id: 'spike',
  kind: 'spike',
  settings: { ...IRON, set_C: 360, tip_mm: 3, tip: 'chisel', ratio: 1, most_s: 5 },
  ...TOLD,
  giveUp_s: 240,
  else: then,
});

/** Suction, until all are free or, where something else follows, until the lap is done. */
export function suctionFor({ packageId }: Piece, then?: string): PhaseOf<'vacuum'> {
  const { terminals } = packageById(packageId);
  const widest = Math.max(...terminals.map((t) => t.drill_mm ?? 0), 0);
  const settings: SettingsOf<'vacuum'> = {
    set_C: 380,
    // it clears the lead and covers the land
    tip_mm: widest > 1.1 ? 3 : 2.5,
    tip: 'chisel',
    contact: 1,
    power_W: 80,
    dwell_s: 1,
    most_s: 8,
  };
  const giveUp_s = Math.min(900, Math.max(150, 25 * terminals.length));
  // one lap, then what is stuck goes to the other tool
  if (then) return { id: 'vacuum', kind: 'vacuum', settings: { ...settings, laps: 1 }, ...TOLD, giveUp_s, else: then };
  return { id: 'vacuum', kind: 'vacuum', settings, ...LOOSE, giveUp_s };
}

/** The board warmed right through, well below melting. */
const WARM_C = { air: 110, iron: 90 } as const;

export function warmBoard(then: Phase): PhaseOf<'below'> {
  return {
    id: 'below',
    kind: 'below',
    settings: { source: 'air', T_C: 230 },
    until: { C: then.kind === 'air' ? WARM_C.air : WARM_C.iron, at: 'board' },
    giveUp_s: 240,
    else: then.id,
  };
}

/** A window that lets heat at the part alone, mm on the board: the part with so much round it. */
const AROUND_MM = 8;
export function openingFor(
  packageId: string,
  at: { x_mm: number; y_mm: number; rotation_deg: number },
): NonNullable<SettingsOf<'below'>['window']> {
  const { x0, x1, y0, y1 } = extentOf(packageById(packageId));
  const turn = (at.rotation_deg * Math.PI) / 180;
  const [c, s] = [Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn))];
  const [w, h] = [(x1 - x0) * c + (y1 - y0) * s + 2 * AROUND_MM, (x1 - x0) * s + (y1 - y0) * c + 2 * AROUND_MM];
  return { x_mm: at.x_mm - w / 2, y_mm: at.y_mm - h / 2, w_mm: w, h_mm: h };
}

export const LOOSENS = LOOSE;
export const UNTIL_TOLD = TOLD;
