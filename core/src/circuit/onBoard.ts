/** Where the circuit lies on the board: nets as places for a probe, board parts as parts of a circuit. */
import { type BoardModel, type PlacedPart, toBoard } from '../board/index.ts';
import type { Place } from '../ground/index.ts';
import { packageById } from '../packages/index.ts';
import type { CircuitPart, Netlist } from './netlist.ts';

/** The board part that a part of the circuit stands for: the one it names, else the one with its reference. */
export function boardPartOf(
  board: Pick<BoardModel, 'parts'>,
  part: Pick<CircuitPart, 'ref' | 'partId'>,
): PlacedPart | undefined {
  return board.parts.find((p) => (part.partId === undefined ? p.ref === part.ref : p.partId === part.partId));
}

/** Terminal of a board part for a pin of the circuit: of the same name, else the one on the same net. */
function terminalOf(part: PlacedPart, pin: string, net: string): string | undefined {
  const { terminals } = packageById(part.package);
  if (terminals.some((t) => t.id === pin)) return pin;
  return Object.entries(part.nets ?? {}).find(([, n]) => n === net)?.[0];
}

/** A place on a part's terminal, or on the part when the terminal is not known. */
export function placeOn(part: PlacedPart, terminalId?: string): Place {
  const at = { x_mm: part.x_mm, y_mm: part.y_mm, side: part.side, partId: part.partId };
  const terminal = packageById(part.package).terminals.find((t) => t.id === terminalId);
  if (!terminal) return at;
  const [x_mm, y_mm] = toBoard(part, terminal.land.x, terminal.land.y);
  return { ...at, x_mm, y_mm, terminal: terminal.id };
}

/** Places where a probe reaches a net, parts of the circuit first, then others of the board on that net. */
export function placesOfNet(board: Pick<BoardModel, 'parts'>, netlist: Netlist | null, net: string): Place[] {
  const physical = netlist?.alias[net] ?? net;
  const places: Place[] = [];
  const seen = new Set<string>();
  for (const part of netlist?.parts ?? []) {
    const placed = boardPartOf(board, part);
    if (!placed || seen.has(placed.partId)) continue;
    for (const [pin, n] of Object.entries(part.pins)) {
      if (n !== net && n !== physical) continue;
      seen.add(placed.partId);
      places.push(placeOn(placed, terminalOf(placed, pin, n)));
      break;
    }
  }
  for (const placed of board.parts) {
    if (seen.has(placed.partId)) continue;
    const terminal = Object.entries(placed.nets ?? {}).find(([, n]) => n === physical)?.[0];
    if (terminal !== undefined) places.push(placeOn(placed, terminal));
  }
  return places;
}

/** A land narrower than this is easily slipped off, mm. */
const EASY_MM = 0.6;
/** Turning the board over for a point is worth this way, mm. */
const TURN_MM = 150;
/** Two probes closer than this touch each other, mm. */
const APART_MM = 3;

/** How well a probe sits there: 2 on an easy land, 1 on a small one, 0 under the body or on no land that is known. */
function footing(board: Pick<BoardModel, 'parts'>, place: Place): 0 | 1 | 2 {
  const part = board.parts.find((p) => p.partId === place.partId);
  const terminal = part && packageById(part.package).terminals.find((t) => t.id === place.terminal);
  if (!terminal || (!terminal.lead && terminal.drill_mm === undefined)) return 0;
  return Math.min(terminal.land.w, terminal.land.h) >= EASY_MM ? 2 : 1;
}

/**
 * Where a probe goes for a net: easy lands before small ones, hidden ones last, each the nearest to `near` first. `apart`: a place that
 * another probe is on.
 */
export function probePoints(
  board: Pick<BoardModel, 'parts'>,
  netlist: Netlist | null,
  net: string,
  { near, apart }: { near?: Place | null; apart?: Place } = {},
): Place[] {
  const from = near ?? apart;
  const way = (p: Place, to: Place) =>
    Math.hypot(p.x_mm - to.x_mm, p.y_mm - to.y_mm) + (p.side === to.side ? 0 : TURN_MM);
  return placesOfNet(board, netlist, net)
    .filter((p) => !apart || p.side !== apart.side || way(p, apart) >= APART_MM)
    .map((place) => ({ place, footing: footing(board, place), way: from ? way(place, from) : 0 }))
    .sort((a, b) => b.footing - a.footing || a.way - b.way)
    .map(({ place }) => place);
}

/** The net at a place: as the circuit calls it, else as the board does. */
export function netAt(board: Pick<BoardModel, 'parts'>, netlist: Netlist | null, place: Place): string | undefined {
  const placed = board.parts.find((p) => p.partId === place.partId);
  if (!placed || place.terminal === undefined) return undefined;
  const part = netlist?.parts.find((p) => boardPartOf(board, p)?.partId === placed.partId);
  return part?.pins[place.terminal] ?? placed.nets?.[place.terminal];
}
