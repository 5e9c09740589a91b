/** Every way of putting a part on there is: each school of soldering a recipe of its own. Adding one is its entry here and its name in `names.ts`. */
import { type Composition, SOLDER_ALLOYS } from '../../alloys/index.ts';
import { packageById, type Terminal } from '../../packages/index.ts';
import { Wind } from '../bench/wind.ts';
import { reachOf, type Row, rowsOf } from '../phases/rows.ts';
import type { Phase, PhaseOf } from '../phases/schema.ts';
import { LEADED } from '../solders.ts';
import { DEFAULT_STATION } from '../station.ts';
import { RANGES, within } from '../ranges.ts';
import type { Recipe, Unfit } from './recipes.ts';
import { airFor, LOOSENS, openingFor, type Piece, UNTIL_TOLD, warmBoard } from './usual.ts';

const terminalsOf = ({ packageId }: Piece): readonly Terminal[] => packageById(packageId).terminals;
const inHoles = (piece: Piece): Unfit | undefined =>
  terminalsOf(piece).some((t) => t.drill_mm)
    ? { why: 'its joints lie in holes', cheapest: 'hole by hole with an iron' }
    : undefined;
const unlessLow = (piece: Piece): Unfit | undefined =>
  terminalsOf(piece).some((t) => t.kind === 'pad' || t.kind === 'leadless')
    ? undefined
    : { why: 'its legs give way when it is pressed', cheapest: 'solder as it lies: legs settle by themselves' };

/** What it is soldered with: the board's own where no lead may come to it. */
const solderFor = ({ leadFree, jointAlloy }: Piece): Composition | undefined =>
  leadFree ? SOLDER_ALLOYS.get(jointAlloy ?? '')?.wt : undefined;
const withSolder = (piece: Piece) => {
  const alloy = solderFor(piece);
  return alloy ? { alloy } : {};
};
/** Bismuth paste for what must stay cool: melts at 139 °C. */
const LOW_PASTE: Composition = { Sn: 42, Bi: 58 };

/** Laid in flux nothing may come near to moving: N at most so, and the weakest air that still heats, L/min. */
const [CALM, LEAST_FLOW] = [0.4, 8];
/** How much further the nozzle stays away than for taking off, mm. */
const FURTHER_MM = 5;

/** Air for a part that is held by nothing but flux: from further off, and as weak as it takes. */
function calmAir(piece: Piece, id = 'air'): PhaseOf<'air'> {
  const air = airFor(piece, piece.heavy ? 'fast' : 'slow');
  const settings = { ...air.settings, standoff_mm: air.settings.standoff_mm + FURTHER_MM };
  const part = { partId: '', package: piece.packageId, x_mm: 0, y_mm: 0, rotation_deg: 0, side: 'top' as const };
  const bench = { ambient_C: 22, station: DEFAULT_STATION };
  const blows = (flow_L_min: number) =>
    new Wind(bench, [{ ...settings, flow_L_min }], { x: 0, y: 0 }).onLaid(part).N > CALM;
  let flow = settings.flow_L_min;
  while (flow > LEAST_FLOW && blows(flow)) flow = Math.max(LEAST_FLOW, Math.floor(0.9 * flow));
  return { ...air, id, settings: { ...settings, flow_L_min: flow } };
}

const IRON = { contact: 1, power_W: 70 };
/** Wires melt into joints at so much, °C: leaded, without lead, and on a board that swallows heat so much more. */
const SET_C = { leaded: 350, leadFree: 370, heavy: 30 } as const;
const set_C = ({ leadFree, heavy }: Piece): number =>
  (leadFree ? SET_C.leadFree : SET_C.leaded) + (heavy ? SET_C.heavy : 0);

/** As wide as the largest land takes: a narrow tip starves a tab. */
const tipFor = (piece: Piece): number => {
  const wide = Math.max(...terminalsOf(piece).map((t) => Math.max(t.land.w, t.land.h)));
  return Math.round(within(wide, [0.8, 5]) * 10) / 10;
};

/** Solder on tinned lands against a joint: as it lies, fat to press into, a film where the part has to lie flat. */
const SHARE = { lies: 0.8, fat: 1.4, film: 0.4 } as const;

/** What is done before the clock starts takes none of its time; setting down on molten lands a few seconds. */
const SOON = { giveUp_s: 20 };

const tinned = (piece: Piece, share: number, one?: true): PhaseOf<'tin'> => ({
  id: 'tin',
  kind: 'tin',
  settings: {
    ...IRON,
    set_C: set_C(piece),
    tip_mm: Math.min(3, tipFor(piece)),
    share,
    ...(terminalsOf(piece).some((t) => t.kind === 'pad') ? { pad_share: Math.min(share, SHARE.film) } : {}),
    ...(one ? { one } : {}),
    ...withSolder(piece),
  },
  ...UNTIL_TOLD,
  ...SOON,
});
const pasted = (piece: Piece, alloy = solderFor(piece) ?? LEADED): PhaseOf<'paste'> => ({
  id: 'paste',
  kind: 'paste',
  settings: { share: 1, alloy },
  ...UNTIL_TOLD,
  ...SOON,
});
const placed = (settings: PhaseOf<'place'>['settings'] = {}): PhaseOf<'place'> => ({
  id: 'place',
  kind: 'place',
  settings,
  ...UNTIL_TOLD,
  ...SOON,
});

/** Longest on one joint before it is left, s: tabs, holes and planes take their time. */
const MOST_S = { light: 8, holes: 15, heavy: 20 } as const;
/** Pins are heated through their holes: hotter, °C. */
const HOLES_K = 30;

function atJoints(piece: Piece) {
  const heavy = piece.heavy === true || terminalsOf(piece).some((t) => t.kind === 'tab');
  const holes = inHoles(piece) !== undefined;
  return {
    settings: {
      ...IRON,
      set_C: set_C(piece) + (holes ? HOLES_K : 0),
      tip_mm: tipFor(piece),
      tip: 'chisel' as const,
      share: 1,
      most_s: heavy ? MOST_S.heavy : holes ? MOST_S.holes : MOST_S.light,
      ...withSolder(piece),
    },
    ...LOOSENS,
    giveUp_s: Math.min(1200, 60 + (holes ? 20 : 15) * terminalsOf(piece).length),
  };
}
const soldered = (piece: Piece, kind: 'joint' | 'fill'): PhaseOf<'joint'> | PhaseOf<'fill'> => ({
  id: kind,
  kind,
  ...atJoints(piece),
});
const tacked = (piece: Piece): PhaseOf<'tack'> => ({
  id: 'tack',
  kind: 'tack',
  ...atJoints(piece),
  ...UNTIL_TOLD,
  giveUp_s: 120,
});

/** Rows closer than this are dragged, from so many joints on, mm; the hand's pace by pitch, mm/s (17-hands: bench experience). */
const [DRAG_PITCH_MM, DRAG_FROM] = [1.3, 6];
const DRAG_MM_S = [
  [0.75, 4],
  [0.45, 3],
  [0, 2],
] as const;
function pitchOf(piece: Piece): number | undefined {
  const rows = rowsOf(piece.packageId).filter((r) => r.terminals.length >= DRAG_FROM);
  if (rows.length === 0) return undefined;
  return Math.min(...rows.map((r) => r.length_mm / r.terminals.length));
}

const pressed = (): PhaseOf<'press'> => ({
  id: 'press',
  kind: 'press',
  settings: { stays_s: 3 },
  ...UNTIL_TOLD,
  giveUp_s: 60,
});

/** Sockets stand in rows of so much from pin to pin, mm. */
const SOCKET_PITCH_MM = 2.54;
/** A chip in two even rows of pins, which a socket can take. */
function isDual(piece: Piece): boolean {
  const { sides, pins } = reachOf(piece.packageId);
  const even = ({ terminals, length_mm, depth_mm }: Row) =>
    terminals.length > 2 && Math.abs((length_mm - depth_mm) / (terminals.length - 1) - SOCKET_PITCH_MM) < 0.1;
  return pins && sides === 2 && rowsOf(piece.packageId).every(even);
}

export const FIT_RECIPES: readonly Recipe[] = [
  {
    id: 'fit-air',
    phases: (piece) => [tinned(piece, SHARE.lies), placed(), calmAir(piece)],
    unfit: inHoles,
  },
  {
    id: 'fit-paste',
    phases: (piece) => [pasted(piece), placed(), calmAir(piece)],
    unfit: inHoles,
  },
  {
    id: 'fit-molten',
    phases(piece) {
      const air = calmAir(piece, 'lands');
      return [
        tinned(piece, SHARE.lies),
        { ...air, until: { loose: terminalsOf(piece).map((t) => t.id) } },
        placed({ molten: true }),
        calmAir(piece),
      ];
    },
    unfit: (piece) =>
      inHoles(piece) ??
      (terminalsOf(piece).some((t) => t.kind === 'ball')
        ? { why: 'nobody sets balls down on molten lands by hand', cheapest: 'air on tinned lands' }
        : undefined),
  },
  {
    id: 'fit-press',
    phases: (piece) => [tinned(piece, SHARE.fat), placed(), calmAir(piece), pressed()],
    unfit: (piece) => inHoles(piece) ?? unlessLow(piece),
  },
  {
    id: 'fit-joints',
    phases: (piece) =>
      terminalsOf(piece).length > 2
        ? [placed(), tacked(piece), soldered(piece, 'joint')]
        : [placed(), soldered(piece, 'joint')],
    unfit: inHoles,
  },
  {
    id: 'fit-drag',
    phases(piece) {
      const pitch = pitchOf(piece) ?? DRAG_PITCH_MM;
      const [, mm_s] = DRAG_MM_S.find(([from]) => pitch >= from) ?? DRAG_MM_S[2];
      const { settings, ...rest } = atJoints(piece);
      return [
        placed(),
        tacked(piece),
        {
          id: 'drag',
          kind: 'drag',
          ...rest,
          settings: { ...settings, tip: 'knife', tip_mm: 3, share: SHARE.lies, mm_s },
        },
      ];
    },
    unfit(piece) {
      const pitch = pitchOf(piece);
      return (
        inHoles(piece) ??
        (pitch !== undefined && pitch <= DRAG_PITCH_MM
          ? undefined
          : { why: 'its joints stand too far apart for a bead to run along', cheapest: 'joint by joint' })
      );
    },
  },
  {
    id: 'fit-one-land',
    phases: (piece) => [tinned(piece, SHARE.lies, true), placed(), soldered(piece, 'joint')],
    unfit: (piece) =>
      inHoles(piece) ??
      (terminalsOf(piece).length === 2 && reachOf(piece.packageId).sides === 2
        ? undefined
        : { why: 'it has more than two ends', cheapest: 'tacked at a corner instead' }),
  },
  {
    id: 'fit-holes',
    phases: (piece) => [placed(), soldered(piece, 'fill')],
    unfit: (piece) => (inHoles(piece) ? undefined : { why: 'it has no pins in holes' }),
  },
  {
    id: 'fit-socket',
    asked: true,
    phases: (piece) => [placed({ socket: true }), soldered(piece, 'fill')],
    unfit: (piece) => (isDual(piece) ? undefined : { why: 'only chips in two rows of pins go into a socket' }),
  },
  {
    id: 'fit-paste-low',
    asked: true,
    phases: (piece) => [pasted(piece, LOW_PASTE), placed(), cooler(calmAir(piece))],
    unfit: inHoles,
  },
  {
    id: 'fit-warm-air',
    asked: true,
    phases(piece) {
      const air = calmAir(piece);
      return [tinned(piece, SHARE.lies), placed(), warmBoard(air), air];
    },
    unfit: inHoles,
  },
  {
    id: 'fit-below',
    asked: true,
    phases: (piece) => [
      pasted(piece),
      placed(),
      {
        id: 'below',
        kind: 'below',
        settings: {
          source: 'infrared',
          T_C: 400,
          flux_W_m2: 25_000,
          ...(piece.at ? { window: openingFor(piece.packageId, piece.at) } : {}),
        },
        ...LOOSENS,
        giveUp_s: 300,
      },
    ],
    unfit: inHoles,
  },
  {
    id: 'again-air',
    again: true,
    phases: (piece) => [placed({ again: true }), calmAir(piece)],
    unfit: inHoles,
  },
  {
    id: 'again-iron',
    again: true,
    phases: (piece) => [placed({ again: true }), soldered(piece, inHoles(piece) ? 'fill' : 'joint')],
  },
];

/** For a paste that melts 45 K below leaded solder, °C. */
const COOL_C = 300;
function cooler(air: PhaseOf<'air'>): Phase {
  return { ...air, settings: { ...air.settings, set_C: within(COOL_C, RANGES.air.set_C) } };
}
