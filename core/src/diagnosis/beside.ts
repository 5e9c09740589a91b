/** What a board holds on the nets of a circuit, and the circuit does not. */
import { type BoardModel, classOfPart } from '../board/index.ts';
import { boardPartOf, type Netlist, netsOf } from '../circuit/index.ts';
import type { Beside } from './hypotheses.ts';

/** Per net that the board knows by name: its parts that the circuit lacks; an empty list says that it lacks none. */
export function besideOf(board: Pick<BoardModel, 'parts'>, netlist: Netlist): Beside[] {
  const inside = new Set(netlist.parts.map((part) => boardPartOf(board, part)?.partId));
  const onNet = new Map<string, BoardModel['parts']>();
  for (const part of board.parts)
    for (const net of new Set(Object.values(part.nets ?? {}))) onNet.set(net, [...(onNet.get(net) ?? []), part]);
  return netsOf(netlist).flatMap((net): Beside[] => {
    const there = onNet.get(netlist.alias[net] ?? net);
    if (!there) return [];
    const left = there.filter((part) => !inside.has(part.partId));
    return [{ net, parts: left.map((part) => ({ ref: part.ref ?? part.partId, cls: classOfPart(part) })) }];
  });
}
