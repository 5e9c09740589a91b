/**
 * What a bare land that is not as it should be takes: a round of braid, glue, a hole opened, or a wire from where it was to the nearest
 * place of its net. Times are bench experience, none measured here (docs/physics/hands.md).
 */
import {
  type BoardModel,
  bodyRect,
  boxOnBoard,
  isGroundNet,
  type PlacedPart,
  partName,
  solderedTerminals,
  toBoard,
  voltsOf,
} from '../board/index.ts';
import type { Terminal } from '../packages/index.ts';
import type { LandMark } from './forms.ts';

export interface Wire {
  net: string;
  to: { partId: string; terminal: string };
  /** Along its way, with a millimetre at either end to solder, mm. */
  length_mm: number;
  /** Diameter of its copper, mm. */
  gauge_mm: number;
  /** It goes through the board: the other end lies on the other face. */
  through: boolean;
  /** Bodies in the straight line, that it goes round. */
  round: string[];
  /** What foreign land it comes nearest to, and how near, mm; null where there is none. */
  clear: { name: string; mm: number } | null;
  /** Spots of glue that hold it down. */
  glue: number;
  /** What proves it. */
  check: string;
}

export interface LandRepair {
  /** What to do, as an imperative. */
  what: string;
  seconds: number;
  /** Where a wire would do it; absent where no other place of its net is known. */
  wire?: Wire;
}

/** Copper by what flows: a signal, a supply or its return, what comes off a tab; mm. */
const GAUGE_MM = { signal: 0.15, supply: 0.3, tab: 0.6 } as const;
/** Soldered over at either end, what a bent wire is longer than the straight line, and round a body; mm and shares. */
const [END_MM, SLACK, DETOUR] = [1, 1.1, 1.3];
/** Glued down this often, mm; a wire this short holds itself. */
const [GLUE_EACH_MM, ALONE_MM] = [5, 3];
/** Going through the board costs as much as so many millimetres. */
const THROUGH_MM = 10;

/** s. */
const SECONDS = { dirty: 25, lifted: 60, torn: 300, 'mask-gone': 30, burnt: 120, plugged: 40 } as const;

/** Undefined where nothing has to be done. */
export function landRepair(
  board: BoardModel,
  part: PlacedPart,
  terminal: string,
  state: LandMark,
  far = false,
): LandRepair | undefined {
  if (state === 'good' || state === 'no-copper') return undefined;
  const seconds = SECONDS[state];
  const hole = solderedTerminals(part).some((t) => t.id === terminal && t.drill_mm);
  switch (state) {
    case 'dirty':
      return { what: 'one round of braid', seconds };
    case 'plugged':
      return { what: 'heat through, clear from both faces', seconds };
    case 'lifted':
      return { what: 'glue down, no pull on it', seconds };
    case 'mask-gone':
      return { what: 'varnish after fitting', seconds };
    case 'burnt':
      return { what: 'scrape to sound laminate and copper, look again', seconds };
    case 'torn': {
      if (hole && !far) return { what: 'solder on the other face', seconds: SECONDS.lifted };
      const wire = wireFor(board, part, terminal);
      return {
        what: wire ? `wire to ${nameAt(board, wire.to)}` : 'follow its track, wire to where it goes',
        seconds,
        ...(wire ? { wire } : {}),
      };
    }
  }
}

const nameAt = (board: BoardModel, { partId, terminal }: Wire['to']): string => {
  const part = board.parts.find((p) => p.partId === partId);
  return `${part ? partName(part) : partId} ${terminal}`;
};

type Point = readonly [number, number];
const between = ([ax, ay]: Point, [bx, by]: Point): number => Math.hypot(ax - bx, ay - by);

/** The nearest other place of the land's net, and what a wire there takes; undefined where its net is not known, or nowhere else. */
export function wireFor(board: BoardModel, part: PlacedPart, terminal: string): Wire | undefined {
  const net = part.nets?.[terminal];
  const own = solderedTerminals(part).find((t) => t.id === terminal);
  if (net === undefined || !own) return undefined;
  const from = placeOf(part, own);
  const ends = board.parts.flatMap((p) =>
    solderedTerminals(p).flatMap((t) => {
      if (p.nets?.[t.id] !== net || (p.partId === part.partId && t.id === terminal)) return [];
      const at = placeOf(p, t);
      const through = p.side !== part.side && !t.drill_mm && !own.drill_mm;
      return [{ part: p, t, at, through, cost: between(from, at) + (through ? THROUGH_MM : 0) }];
    }),
  );
  if (ends.length === 0) return undefined;
  const end = ends.reduce((a, b) => (b.cost < a.cost ? b : a));
  const round = bodiesBetween(board, part, end.part, from, end.at);
  const straight = between(from, end.at);
  const length = straight * (round.length > 0 ? DETOUR : SLACK) + 2 * END_MM + (end.through ? board.thickness_mm : 0);
  const length_mm = Math.ceil(2 * length) / 2;
  const to = { partId: end.part.partId, terminal: end.t.id };
  return {
    net,
    to,
    length_mm,
    gauge_mm: gaugeFor(board, net, own),
    through: end.through,
    round,
    clear: nearestForeign(board, part.side, net, from, end.at),
    glue: length_mm < ALONE_MM ? 0 : Math.max(1, Math.round(length_mm / GLUE_EACH_MM)),
    check: checkOf(board, part, terminal, to),
  };
}

const placeOf = (part: PlacedPart, { land }: Pick<Terminal, 'land'>): Point => toBoard(part, land.x, land.y);

function gaugeFor({ rails = [] }: BoardModel, net: string, { kind }: Terminal): number {
  if (kind === 'tab') return GAUGE_MM.tab;
  const supply = isGroundNet(net) || voltsOf(net) !== null || rails.some((r) => r.label === net);
  return supply ? GAUGE_MM.supply : GAUGE_MM.signal;
}

/** Continuity to the other end, and nothing to the lands beside it. */
function checkOf(board: BoardModel, part: PlacedPart, terminal: string, to: Wire['to']): string {
  const ids = solderedTerminals(part).map((t) => t.id);
  const at = ids.indexOf(terminal);
  const beside = [ids[at - 1], ids[at + 1]].filter((t) => t !== undefined && part.nets?.[t] !== part.nets?.[terminal]);
  const open = beside.map((t) => `${terminal} to ${t}`).join(' and ');
  return `${terminal} to ${nameAt(board, to)} under 0.3 Ω${open ? `; ${open} open` : ''}.`;
}

/** Bodies that stand in the straight line between two places of one face. */
function bodiesBetween(board: BoardModel, part: PlacedPart, other: PlacedPart, a: Point, b: Point): string[] {
  return board.parts
    .filter((p) => p.side === part.side && p.partId !== other.partId)
    .filter((p) => {
      const { x0, x1, y0, y1 } = boxOnBoard(p, bodyRect(p));
      // its own body is in the way where the wire starts below it
      return crosses(a, b, { x0, x1, y0, y1 });
    })
    .map(partName);
}

/** Whether a line meets a box (Liang and Barsky). */
function crosses([ax, ay]: Point, [bx, by]: Point, { x0, x1, y0, y1 }: ReturnType<typeof boxOnBoard>): boolean {
  const [dx, dy] = [bx - ax, by - ay];
  let [from, to] = [0, 1];
  for (const [p, q] of [
    [-dx, ax - x0],
    [dx, x1 - ax],
    [-dy, ay - y0],
    [dy, y1 - ay],
  ]) {
    if (p === 0 && q < 0) return false;
    if (p === 0) continue;
    const r = q / p;
    if (p < 0) from = Math.max(from, r);
    else to = Math.min(to, r);
    if (from > to) return false;
  }
  return true;
}

/** The land of another net that the line passes nearest. */
function nearestForeign(board: BoardModel, side: PlacedPart['side'], net: string, a: Point, b: Point): Wire['clear'] {
  let nearest: Wire['clear'] = null;
  for (const p of board.parts) {
    if (p.side !== side && !solderedTerminals(p).some((t) => t.drill_mm)) continue;
    for (const t of solderedTerminals(p)) {
      if (p.nets?.[t.id] === net) continue;
      const half = Math.min(t.land.w, t.land.h) / 2;
      const mm = Math.max(0, alongside(placeOf(p, t), a, b) - half);
      if (nearest === null || mm < nearest.mm)
        nearest = { name: nameAt(board, { partId: p.partId, terminal: t.id }), mm };
    }
  }
  return nearest;
}

/** From a place to a line between two, mm. */
function alongside([px, py]: Point, [ax, ay]: Point, [bx, by]: Point): number {
  const [dx, dy] = [bx - ax, by - ay];
  const t = Math.max(0, Math.min(1, ((px - ax) * dx + (py - ay) * dy) / (dx * dx + dy * dy || 1)));
  return Math.hypot(px - ax - t * dx, py - ay - t * dy);
}
