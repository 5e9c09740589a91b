/** Parts of a board that are chosen together: by kind, by net, by what is like one of them. */
import {
  type BoardModel,
  classOfPart,
  isGroundNet,
  PART_CLASSES,
  type PlacedPart,
  solderedTerminals,
} from '@orthos/core/board';
import { packageById } from '@orthos/core/packages';
import type { SetItem } from '@orthos/core/job';

export interface Together {
  key: string;
  label: string;
  parts: PlacedPart[];
}

const hasJoints = (part: PlacedPart): boolean => solderedTerminals(part).length > 0;

const PLURAL: Partial<Record<string, string>> = {
  electrolytic: 'electrolytics',
  shunt: 'shunts',
  LED: 'LEDs',
  IC: 'ICs',
};
const plural = (word: string): string => PLURAL[word] ?? (word.endsWith('s') ? word : `${word}s`);

/** Kinds of which a board has at least two, the most first; parts with pins and parts on lands apart where there are both. */
export function kindsOn(board: BoardModel): Together[] {
  const groups = new Map<string, Together>();
  for (const part of board.parts) {
    if (!part.ref || !hasJoints(part)) continue;
    const word = plural(PART_CLASSES[classOfPart(part)]);
    const pins = solderedTerminals(part).every((t) => t.drill_mm);
    const key = `${word}, ${pins ? 'with pins' : 'on lands'}`;
    const group = groups.get(key) ?? { key, label: key, parts: [] };
    group.parts.push(part);
    groups.set(key, group);
  }
  return [...groups.values()].filter((g) => g.parts.length > 1).toSorted((a, b) => b.parts.length - a.parts.length);
}

/** Nets that at least two parts with joints hang on; ground and what half of the board hangs on say nothing. */
export function netsOn(board: BoardModel): Together[] {
  const groups = new Map<string, Together>();
  for (const part of board.parts)
    for (const net of new Set(Object.values(part.nets ?? {}))) {
      if (!hasJoints(part)) continue;
      const group = groups.get(net) ?? { key: net, label: net, parts: [] };
      group.parts.push(part);
      groups.set(net, group);
    }
  return [...groups.values()]
    .filter((g) => g.parts.length > 1 && g.parts.length <= Math.max(6, board.parts.length / 2))
    .toSorted((a, b) => a.label.localeCompare(b.label, 'en', { numeric: true }));
}

/** A net of more parts than this feeds half of the board: it says nothing of who works with whom. */
const SMALL_NET = 8;

/** The circuit that a part is in: what shares its small nets, and the small nets of those; itself among them. Alone where no net is known. */
export function circuitRound(board: BoardModel, partId: string): PlacedPart[] {
  const ofNet = new Map<string, PlacedPart[]>();
  for (const part of board.parts)
    for (const net of new Set(Object.values(part.nets ?? {}))) ofNet.set(net, [...(ofNet.get(net) ?? []), part]);
  const next = (part: PlacedPart) =>
    [...new Set(Object.values(part.nets ?? {}))].flatMap((net) => {
      const there = ofNet.get(net) ?? [];
      return isGroundNet(net) || there.length > SMALL_NET ? [] : there;
    });
  const own = board.parts.filter((p) => p.partId === partId);
  const round = own.flatMap(next);
  // a chip at the edge of the circuit has circuits of its own
  const further = round.filter((p) => Object.keys(p.nets ?? {}).length <= 2).flatMap(next);
  return [...new Set([...own, ...round, ...further])].filter(hasJoints);
}

/** What a part is, as it is told: value and size as drawn, unless somebody said otherwise. */
export function whatItIs(part: PlacedPart, item?: Pick<SetItem, 'value' | 'rating' | 'size'>): string {
  const value = item?.value ?? part.value ?? part.what ?? '';
  return [value, item?.rating, item?.size ?? ''].filter(Boolean).join(' ') || packageById(part.package).label;
}

/** Parts of a set that are the same thing: what is said of one is mostly true of all of them. */
export function likeOf(board: BoardModel, items: readonly SetItem[], partId: string): SetItem[] {
  const partOf = (id: string) => board.parts.find((p) => p.partId === id);
  const own = partOf(partId);
  const item = items.find((i) => i.partId === partId);
  if (!own || !item) return [];
  const same = (i: SetItem) => {
    const part = partOf(i.partId);
    return part?.package === own.package && whatItIs(part, i) === whatItIs(own, item);
  };
  return items.filter(same);
}
