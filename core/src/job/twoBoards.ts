/**
 * Two boards of one kind: what is wrong with each, and what it takes to have one that works: mended as it is, with parts of the other, or the other
 * way round. Minutes of parts are computed elsewhere (orders of sets), those of lands and cleaning are bench experience (docs/physics/sets.md).
 */
import { type BoardModel, partName, type PlacedPart } from '../board/index.ts';
import type { Sign } from '../diagnosis/index.ts';
import { landRepair } from '../hands/index.ts';
import type { Op } from '../sets/index.ts';
import type { DamageKind } from './intakeForms.ts';
import { type Attempt, isFitted, isOff, type JobState } from './jobState.ts';
import { landIsGood } from './lands.ts';

export interface BoardFault {
  /** Absent where it is about no part. */
  partId?: string;
  what: string;
  /** Another part has to stand there; its place is empty already; a land or wire; cleaning; nothing until more is known. */
  mend: 'part' | 'empty' | 'land' | 'clean' | 'prove' | 'none';
  /** What hands take, but for parts, min. */
  minutes: number;
}

/** A leak or a stain: washed, brushed, dried; a crack: every track across it and the layers inside proven; min (estimates). */
const [CLEAN_MIN, PROVE_MIN] = [10, 30];
const DAMAGE: Record<DamageKind, { mend: BoardFault['mend']; minutes: number }> = {
  'heat mark': { mend: 'none', minutes: 0 },
  'molten plastic': { mend: 'part', minutes: 0 },
  'pry mark': { mend: 'none', minutes: 0 },
  liquid: { mend: 'clean', minutes: CLEAN_MIN },
  corrosion: { mend: 'clean', minutes: CLEAN_MIN },
  'earlier repair': { mend: 'none', minutes: 0 },
  'broken off': { mend: 'part', minutes: 0 },
  crack: { mend: 'prove', minutes: PROVE_MIN },
};
const DEAD: ReadonlySet<Sign> = new Set<Sign>(['burnt', 'hole', 'swollen', 'cracked', 'lifted', 'reversed']);

/** Whether what stands there is another one than was judged bad. */
const isRenewed = (a: Attempt): boolean => isFitted(a) && (a.newPart?.ok ?? true);

/** What a job says is wrong with its board now, part by part; parts that are off for another board are no fault of it. */
export function faultsOf(board: BoardModel, state: JobState): BoardFault[] {
  const parts = new Map(board.parts.map((p) => [p.partId, p]));
  const nameOf = (partId: string) => {
    const part = parts.get(partId);
    return part ? partName(part) : partId;
  };
  const renewed = new Set(state.attempts.filter(isRenewed).flatMap((a) => a.suspect?.partId ?? []));
  const found: BoardFault[] = [];
  const ofPart = (partId: string, what: string, mend: BoardFault['mend']) => {
    const known = found.find((f) => f.partId === partId && (f.mend === 'part' || f.mend === 'empty'));
    if (renewed.has(partId)) return;
    if (!known) found.push({ partId, what, mend, minutes: 0 });
    else if (mend === 'empty') Object.assign(known, { what, mend });
  };
  for (const { sign, place } of state.observations) {
    if (!sign || place?.partId === undefined) continue;
    if (sign === 'missing') ofPart(place.partId, `${nameOf(place.partId)} is missing`, 'empty');
    else if (DEAD.has(sign)) ofPart(place.partId, `${nameOf(place.partId)} is ${sign}`, 'part');
  }
  for (const { kind, place } of state.intake.damage) {
    const { mend, minutes } = DAMAGE[kind];
    const at = place?.partId;
    const what = `${kind}${at ? ` at ${nameOf(at)}` : ''}`;
    if (mend === 'part' && at !== undefined) ofPart(at, what, 'part');
    // plastic that belongs to nothing drawn is looked at
    else found.push({ ...(at ? { partId: at } : {}), what, mend: mend === 'part' ? 'none' : mend, minutes });
  }
  const own = state.attempts.filter((a) => a.ofSet === undefined);
  for (const a of own) {
    const { suspect, offBoardTest: test } = a;
    if (!suspect || test?.result === 'good' || (a !== own.at(-1) && test?.result !== 'bad')) continue;
    const bad = test?.result === 'bad' ? 'tested bad' : 'is suspected';
    ofPart(suspect.partId, `${nameOf(suspect.partId)} ${bad}`, isOff(a) ? 'empty' : 'part');
  }
  for (const a of state.attempts) {
    const part = parts.get(a.suspect?.partId ?? '');
    if (part) found.push(...landFaults(board, part, a));
  }
  return found;
}

/** Lands of a part that are not as they should be, and were not mended. */
function landFaults(board: BoardModel, part: PlacedPart, { lands, landRepairs }: Attempt): BoardFault[] {
  return [...lands].flatMap(([key, mark]) => {
    if (landIsGood(mark) || landRepairs.has(key)) return [];
    const [terminal, far] = [key.replace(/ far$/, ''), key.endsWith(' far')];
    const repair = landRepair(board, part, terminal, mark, far);
    const what = `${partName(part)} ${key}: ${mark}${repair ? `, ${repair.what}` : ''}`;
    return [{ partId: part.partId, what, mend: 'land' as const, minutes: (repair?.seconds ?? 0) / 60 }];
  });
}

type Which = 'here' | 'there';
/** Minutes of an operation at a part of either board; null where this bench cannot do it. */
export type MinutesOf = (which: Which, partId: string, op: Op) => number | null;

export interface TwoBoardsWay {
  id: 'mend' | 'bring' | 'over';
  /** The board that works in the end. */
  keep: Which;
  /** Parts that go from one board to the other. */
  moves: string[];
  /** New ones that are needed. */
  news: string[];
  steps: { what: string; minutes: number }[];
  /** Null where something of it cannot be done here. */
  minutes: number | null;
  /** What speaks against it besides minutes. */
  doubts: string[];
}

interface Found {
  board: BoardModel;
  here: readonly BoardFault[];
  there: readonly BoardFault[];
  /** Parts that hold what cannot be bought: where one stands on this board, it is the owner's, and goes wherever his board goes. */
  holders: readonly string[];
  names: Record<Which, string>;
  minutesOf: MinutesOf;
}

const isEmpty = (faults: readonly BoardFault[], partId: string): boolean =>
  faults.some((f) => f.partId === partId && f.mend === 'empty');

const needsPart = (f: BoardFault): boolean => f.mend === 'part' || f.mend === 'empty';

/** What can be done with two boards, the quickest first; what rests on a doubtful board behind all others. */
export function waysWithTwo(found: Found): TwoBoardsWay[] {
  const bad = { here: partsOf(found.here), there: partsOf(found.there) };
  const ways = [
    wayOf(found, 'mend', 'here', []),
    ...([...bad.here].some((id) => !bad.there.has(id)) ? [wayOf(found, 'bring', 'here', [])] : []),
    wayOf(
      found,
      'over',
      'there',
      found.holders.filter((id) => !isEmpty(found.here, id)),
    ),
  ];
  const rank = (w: TwoBoardsWay) => (w.minutes === null ? 2 : w.doubts.length > 0 ? 1 : 0);
  return ways.toSorted((a, b) => rank(a) - rank(b) || (a.minutes ?? Infinity) - (b.minutes ?? Infinity));
}

const partsOf = (faults: readonly BoardFault[]): Set<string> =>
  new Set(faults.filter(needsPart).flatMap((f) => f.partId ?? []));

/** One board kept: its faults mended, its bad parts from the other board where that is asked for and has good ones; `along` comes over whatever is bad. */
function wayOf(found: Found, id: TwoBoardsWay['id'], keep: Which, along: readonly string[]): TwoBoardsWay {
  const { board, names, minutesOf } = found;
  const other: Which = keep === 'here' ? 'there' : 'here';
  const [mine, theirs] = [found[keep], found[other]];
  const others = partsOf(theirs);
  const name = (partId: string) => {
    const part = board.parts.find((p) => p.partId === partId);
    return part ? partName(part) : partId;
  };
  const way: TwoBoardsWay = { id, keep, moves: [], news: [], steps: [], minutes: 0, doubts: [] };
  for (const f of mine) {
    if (needsPart(f) || f.mend === 'none') continue;
    way.steps.push({ what: f.what, minutes: f.minutes });
    if (f.mend === 'prove') way.doubts.push(`${f.what} on ${names[keep]}: what is broken inside shows later`);
  }
  let cannot = false;
  for (const partId of new Set([...partsOf(mine), ...along])) {
    const moves = along.includes(partId) || (id !== 'mend' && !others.has(partId));
    const ops: [Which, Op][] = [
      ...(moves ? [[other, 'remove'] as [Which, Op]] : []),
      ...(isEmpty(mine, partId) ? [] : [[keep, 'remove'] as [Which, Op]]),
      [keep, 'prepare'],
      [keep, 'fit'],
    ];
    const told = ops.map(([which, op]) => minutesOf(which, partId, op));
    cannot ||= told.includes(null);
    const minutes = told.reduce<number>((sum, m) => sum + (m ?? 0), 0);
    (moves ? way.moves : way.news).push(partId);
    way.steps.push({ what: moves ? `${name(partId)} from ${names[other]}` : `${name(partId)}, a new one`, minutes });
    const lost = along.includes(partId) && others.has(partId);
    if (!moves && found.holders.includes(partId))
      way.doubts.push(`${name(partId)}, bought, is empty: what it held has to be loaded`);
    if (lost) way.doubts.push(`${name(partId)} itself is in doubt, and what it holds is the owner’s`);
  }
  way.minutes = cannot ? null : way.steps.reduce((sum, s) => sum + s.minutes, 0);
  return way;
}
