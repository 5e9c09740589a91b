/** Preparing lands for the next part: what is left in the joints decides how many rounds of solder and braid. */
import {
  type CleanUpPlace,
  type Composition,
  mixedByVolume,
  normalised,
  PLACES,
  residualLimits,
  roundsUntil,
  SOLDER_ALLOYS,
} from '../alloys/index.ts';
import { partName } from '../board/index.ts';
import { packageById } from '../packages/index.ts';
import { broughtBy, FILM, type Instruction, type JointState, kindOf, LEADED, someJoints } from '../rework/index.ts';
import { floodSolder, staysLeadFree } from './flood.ts';
import { ANY_SUPPLIES, type Clearing, placeOf } from './supplies.ts';
import type { Work } from './work.ts';

/** What clean-up depends on. */
export type CleanUpOf = Pick<Work, 'target' | 'board' | 'method' | 'joints' | 'flood'>;

/** Rounds that what was worked in costs, by the joint that took most of it: a bead, a spike, the rest of an earlier repair. */
export function roundsFor(work: CleanUpOf, place: CleanUpPlace = placeOf(work.target)): number {
  const leadFree = staysLeadFree(work.board, work.flood);
  return Math.max(1, ...leftInJoints(work).map((wt) => roundsOfMix(wt, place, leadFree)));
}

/** Rounds after a part has come off: holes that were sucked empty stay empty, unless something has to come out of them that suction leaves. */
export function roundsAfter(work: CleanUpOf): number {
  const needed = roundsFor(work);
  const sucked = work.method.phases.some((p) => kindOf(p).opensHoles);
  return sucked && needed === 1 ? 0 : needed;
}

/** What suction leaves in a hole, against a usual joint. */
const SUCKED = 0.1;

/** What lands are flooded with, as a metal. */
const floodMetal = ({ board, flood }: Pick<CleanUpOf, 'board' | 'flood'>): Composition =>
  (staysLeadFree(board, flood) ? SOLDER_ALLOYS.get(board.jointAlloy)?.wt : undefined) ?? LEADED;

/** What lies on lands that somebody else made ready. */
export const preparedLands = (work: Pick<CleanUpOf, 'board' | 'flood'>): JointState[] => [
  { ...FILM, alloy: floodMetal(work) },
];

/** What lies on each land once it was made ready: what came off thinned by every round of flood and braid. */
export function landsAfter(work: CleanUpOf): JointState[] {
  const { terminals } = packageById(work.target.package);
  const { wick } = PLACES[placeOf(work.target)];
  const flood = floodMetal(work);
  const rounds = roundsAfter(work);
  return leftInJoints(work).map((left, n) => {
    let wt = left;
    // what braid leaves is as much of a joint as it always leaves; a flood fills the land again
    for (let i = 0; i < rounds; i++) wt = mixedByVolume(flood, [{ alloy: wt, ratio: wick }]);
    return { terminals: [terminals[n].id], alloy: wt, volume: rounds === 0 ? SUCKED : wick };
  });
}

/** What the work leaves in each joint: its own solder, what was said of it, what every phase brings. */
function leftInJoints({ target, board, method, joints = [] }: CleanUpOf): Composition[] {
  const { terminals } = packageById(target.package);
  const brought = method.phases.map((p) => broughtBy(p, target.package));
  return terminals.map((t) => {
    const said = joints.filter((j) => j.terminals?.includes(t.id) ?? true);
    const own = said.findLast((j) => j.alloy)?.alloy ?? SOLDER_ALLOYS.get(board.jointAlloy)?.wt ?? { Sn: 100 };
    const others = [...(said.findLast((j) => j.with)?.with ?? [])];
    for (const into of brought) {
      const { alloy, mm3 } = into.get(t.id) ?? { mm3: 0 };
      if (alloy && mm3 > 0) others.push({ alloy, ratio: mm3 / t.volume_mm3 });
    }
    return mixedByVolume(own, others);
  });
}

/** Rounds of solder and braid until nothing of a mixture is above its guide. */
function roundsOfMix(wt: Composition, place: CleanUpPlace, leadFree: boolean): number {
  const share = normalised(wt);
  return Math.max(
    0,
    ...residualLimits(share, leadFree).map(
      ({ element, limit_wt }) =>
        roundsUntil({ c_wt: share[element] ?? 0, mass: 1 }, { wick: PLACES[place].wick, add: 1, limit_wt }).cycles,
    ),
  );
}

/** How lands, and holes, are cleared with what lies there. */
const CLEARING: Record<Clearing, Record<'lands' | 'holes', Pick<Instruction, 'say' | 'watch' | 'tap'>>> = {
  braid: both({
    say: 'Braid on, iron on the braid. Both off hot.',
    watch: 'Dabbed on weak lands, glided along a row once it boils. Never scrape: a braid that froze on tears the pad.',
    tap: 'braided',
  }),
  vacuum: {
    lands: {
      say: 'Vacuum iron over each land: it melts, it is drawn off.',
      watch: 'The tip floats on the solder, no pressure. What stays is flat enough.',
      tap: 'drawn off',
    },
    holes: {
      say: 'Vacuum iron on each hole: molten through, then suck.',
      watch: 'Until daylight shows. One that stays shut: fresh solder, then from the other face.',
      tap: 'holes open',
    },
  },
  pump: {
    lands: {
      say: 'Melt each land, pump beside the tip, release at once.',
      watch: 'Its nozzle never presses on a land. Cock it away from the board: it kicks.',
      tap: 'drawn off',
    },
    holes: {
      say: 'Heat each hole through from one face, pump from the other.',
      watch: 'Molten through first. One that stays shut: fresh solder, once more.',
      tap: 'holes open',
    },
  },
  tip: both({
    say: 'Draw the solder off with a clean, tinned tip.',
    watch: 'Wipe it, again, until the lands are flat. No braid or pump on this bench.',
    tap: 'drawn off',
  }),
};
function both<T>(one: T): Record<'lands' | 'holes', T> {
  return { lands: one, holes: one };
}

/** What is done first, while it is warm; what comes after it is the rounds'. */
export const prepare = (work: Work): Instruction[] => [
  scan(work),
  ...bulk(work),
  ...clear(work),
  ...film(work),
  ...underLeak(work),
  ...legs(work),
  ...wash(work),
  {
    id: 'lands',
    say: 'Look at every land: flat, shiny, nothing lifted?',
    watch: 'No balls, no hairs, holes open on both faces.',
    tap: 'lands clean',
    mark: 'done',
    event: { type: 'lands-clean', ok: true },
  },
];

const step = (id: string, say: string, watch: string, tap: string, more: Partial<Instruction> = {}): Instruction => ({
  ...{ id, say, watch, tap, mark: 'done' },
  ...more,
});

function scan({ nearest, atRisk = [] }: Work): Instruction {
  const first = atRisk.length > 0 ? someJoints(atRisk) : nearest;
  const watch = first
    ? `${first} first: softened, leaning, shifted? Then every small part.`
    : 'Nothing shifted, missing, softened.';
  return step('scan', 'Scan the surroundings. Compare with the photo.', watch, 'as before', {
    event: { type: 'surroundings-scanned', ok: true, after: 'removal' },
  });
}

/** Alloy that lies from land to land comes off in one piece before any braid. */
function bulk({ method }: Work): Instruction[] {
  if (!method.phases.some((p) => kindOf(p).bridges || p.kind === 'pool')) return [];
  return [
    step(
      'bulk',
      'Gather the alloy with the tip. Lift it off.',
      'While it is warm: on the tip, into the sponge. Then sweep loose balls away. What is gone needs no braid.',
      'gathered',
    ),
  ];
}

/** Rounds of fresh solder and clearing: rows as rows, holes one by one and never flooded. */
function clear(work: Work): Instruction[] {
  const { supplies = ANY_SUPPLIES, target } = work;
  const place = placeOf(target);
  const clearing = CLEARING[supplies.clears[place]][place];
  const rounds = supplies.floods ? roundsAfter(work) : Math.min(1, roundsAfter(work));
  const holes = place === 'holes' ? packageById(target.package).terminals.map((t) => t.id) : undefined;
  if (rounds === 0)
    return [
      step(
        'through',
        'Hold it against the light: is every hole open?',
        'One that is not: fresh solder, then suck it once more.',
        'holes open',
      ),
    ];
  const round = (i: number) => (rounds > 1 ? `Round ${i + 1} of ${rounds}: ` : '');
  return Array.from({ length: rounds }, (_, i): Instruction[] => {
    if (holes) {
      const fresh = supplies.floods ? `A little ${floodName(work)} into each, heated through. ` : '';
      const say = rounds > 1 ? `${round(i)}hole by hole.` : clearing.say;
      const watch = `${rounds > 1 ? `${clearing.say} ` : ''}${fresh}${clearing.watch}`;
      return [step(`braid-${i + 1}`, say, watch, 'this hole open', { walk: holes })];
    }
    return [
      ...(supplies.floods ? [floodOf(work, i, round(i))] : []),
      { id: `braid-${i + 1}`, ...clearing, ...(oneLand(work) && i === rounds - 1 ? ONE_LAND : {}), mark: 'done' },
    ];
  }).flat();
}
const floodName = ({ board, flood }: Work): string => floodSolder(board, flood);

function floodOf(work: Work, i: number, round: string): Instruction {
  const say = round ? `${round}flood with ${floodName(work)}.` : `Flood the lands with ${floodName(work)}.`;
  const watch =
    work.flood === 'own'
      ? 'It wets later and wants a hotter tip: fresh flux, 30 K more, no longer on a land.'
      : 'While the board is still warm. Fresh flux.';
  return step(`flood-${i + 1}`, say, watch, 'flooded');
}

/** A part of two ends goes on against one land that keeps its solder. */
const oneLand = ({ fitBy }: Work): boolean => fitBy === 'fit-one-land';
const ONE_LAND = {
  say: 'Braid one land clean. Leave the other flat.',
  watch: 'The one your iron hand reaches keeps its solder: the part is slid onto it. Never scrape.',
};

/** The usual failure of a pad under the body is too much on it. */
function film({ target }: Work): Instruction[] {
  if (!packageById(target.package).terminals.some((t) => t.kind === 'pad')) return [];
  return [
    step(
      'film',
      'Lay the part on, dry. Does it rock?',
      'Its rim has to touch all round. It rocks on its middle: braid the centre pad once more, until a film is left.',
      'lies flat',
    ),
  ];
}

/** Under what leaked: clean, tinned anew, every track of it proven. */
function underLeak({ joints = [], target, board }: Work): Instruction[] {
  if (!joints.some((j) => j.leaking)) return [];
  const nets = Object.entries(target.nets ?? {});
  const ends = nets.map(([terminal, net]) => {
    const other = board.parts.find((p) => p.partId !== target.partId && Object.values(p.nets ?? {}).includes(net));
    return `${terminal} to ${other ? partName(other) : net}`;
  });
  return [
    step(
      'stain',
      'Scrub the stain: alcohol and brush, then water.',
      'Gloves: it is caustic. Until no crust and no smell is left; dry it warm.',
      'stain gone',
    ),
    step(
      'retin',
      'Tin every land under it anew.',
      'Dull copper takes no solder: scraped bright, fluxed, tinned. What flakes off is torn.',
      'tinned',
    ),
    step(
      'prove',
      'Prove each via and track under the stain.',
      ends.length > 0 ? `Ohms, under 0.5: ${ends.join('; ')}.` : 'Ohms from every land to where its track goes.',
      'all conduct',
    ),
  ];
}

/** The part goes on again: its legs are cleaned like lands, by their own count of rounds. */
function legs(work: Work): Instruction[] {
  if (!work.surroundings?.reused) return [];
  const { terminals } = packageById(work.target.package);
  const rounds = roundsFor(work, 'legs');
  return [
    step(
      'legs',
      'The part itself: clean its legs one by one.',
      `Under a weight, turned for the hand. ${rounds === 1 ? 'Fresh solder and braid once' : `${rounds} rounds of fresh solder and braid`} each; straight, in one plane.`,
      'this leg clean',
      { walk: terminals.map((t) => t.id) },
    ),
  ];
}

/** Flux that is of another kind, or cooked, goes before the part comes; else it is washed once, at the end. */
function wash(work: Work): Instruction[] {
  const why = washFirst(work);
  if (!why) return [];
  return [
    step(
      'wash',
      'Iron away. Wash the flux off with alcohol.',
      `${why} No heat, no spark near alcohol. Let it dry.`,
      'washed',
    ),
  ];
}

/** Rounds of heat after which flux is char, and does nothing any more. */
const SPENT_ROUNDS = 2;
function washFirst(work: Work): string | undefined {
  if (work.joints?.some((j) => j.leaking)) return 'What leaked goes with it.';
  if (bulk(work).length > 0) return 'Flux for low temperatures does not go with solder.';
  if (roundsAfter(work) > SPENT_ROUNDS) return 'After so many rounds it is spent.';
  return undefined;
}
