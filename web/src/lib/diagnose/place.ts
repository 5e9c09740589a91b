/** Places on a board as people write them: `C7`, `U4.25`, or a bare point. */
import type { BoardModel } from '@orthos/core/board';
import { placeOn } from '@orthos/core/circuit';
import type { Place } from '@orthos/core/ground';
import { packageById } from '@orthos/core/packages';

export function placeName(board: BoardModel, place: Place): string {
  const part = board.parts.find((p) => p.partId === place.partId);
  if (!part) return `${place.x_mm.toFixed(1)}, ${place.y_mm.toFixed(1)}`;
  const name = part.ref ?? part.partId;
  return place.terminal ? `${name}.${place.terminal}` : name;
}

/** The place a typed name means; null when the board has no such part or terminal. */
export function placeNamed(board: BoardModel, text: string): Place | null {
  const [name, terminalId] = text.trim().split(/[.\s/]+/, 2);
  if (!name) return null;
  const part = board.parts.find((p) => (p.ref ?? p.partId).toLowerCase() === name.toLowerCase());
  if (!part) return null;
  if (!terminalId) return placeOn(part);
  const terminal = packageById(part.package).terminals.find((t) => t.id.toLowerCase() === terminalId.toLowerCase());
  return terminal ? placeOn(part, terminal.id) : null;
}
