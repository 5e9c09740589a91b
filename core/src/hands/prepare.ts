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
    watch: 'Never scrape. A braid that froze on tears the pad: heat it again.',
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

export function prepare(work: Work): Instruction[] {
  const { nearest, atRisk = [], supplies = ANY_SUPPLIES } = work;
  const place = placeOf(work.target);
  const clearing = CLEARING[supplies.clears[place]][place];
  const own = work.flood === 'own';
  const solder = floodSolder(work.board, work.flood);
  // without solder to thin it with one clearing takes what it takes
  const first = atRisk.length > 0 ? someJoints(atRisk) : nearest;
  const rounds = supplies.floods ? roundsAfter(work) : Math.min(1, roundsAfter(work));
  return [
    {
      id: 'scan',
      say: 'Scan the surroundings. Compare with the photo.',
      watch: first
        ? `${first} first: softened, leaning, shifted? Then every small part.`
        : 'Nothing shifted, missing, softened.',
      tap: 'as before',
      mark: 'done',
      event: { type: 'surroundings-scanned', ok: true, after: 'removal' },
    },
    ...(rounds === 0
      ? [
          {
            id: 'through',
            say: 'Hold it against the light: is every hole open?',
            watch: 'One that is not: fresh solder, then suck it once more.',
            tap: 'holes open',
            mark: 'done' as const,
          },
        ]
      : []),
    ...Array.from({ length: rounds }, (_, i): Instruction[] => [
      ...(supplies.floods
        ? [
            {
              id: `flood-${i + 1}`,
              say:
                rounds > 1 ? `Round ${i + 1} of ${rounds}: flood with ${solder}.` : `Flood the lands with ${solder}.`,
              watch: own
                ? 'It wets later and wants a hotter tip: fresh flux, 30 K more, no longer on a land.'
                : 'While the board is still warm. Fresh flux.',
              tap: 'flooded',
              mark: 'done' as const,
            },
          ]
        : []),
      { id: `braid-${i + 1}`, ...clearing, mark: 'done' },
    ]).flat(),
    {
      id: 'wash',
      say: 'Iron away. Wash the flux off with alcohol.',
      watch: 'No heat, no spark near alcohol. Let it dry.',
      tap: 'washed',
      mark: 'done',
    },
    {
      id: 'lands',
      say: 'Look at every land: flat, shiny, nothing lifted?',
      watch: 'No balls, no hairs, holes open on both faces.',
      tap: 'lands clean',
      mark: 'done',
      event: { type: 'lands-clean', ok: true },
    },
  ];
}
