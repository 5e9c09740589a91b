/** Which flux for what has to melt, and how much of it where small or open parts stand near. */
import { jointMetal, SOLDER_ALLOYS } from '../alloys/index.ts';
import { gapBetween, partName, type PlacedPart } from '../board/index.ts';
import { formatTemperature } from '../ground/index.ts';
import { takesNoFlux } from '../materials/index.ts';
import { packageById } from '../packages/index.ts';
import { broughtBy, type Instruction, isLowMelting, kindOf, limitRowOf, someJoints } from '../rework/index.ts';
import { ANY_SUPPLIES, type FluxAtHand } from './supplies.ts';
import type { Work } from './work.ts';

/** What kinds of flux work between where the jar does not say, °C (makers' usual ranges, from memory). */
const KINDS: Readonly<Record<string, { name: string; active_C: readonly [number, number] }>> = {
  rosin: { name: 'rosin flux', active_C: [110, 330] },
  'no-clean': { name: 'no-clean flux', active_C: [130, 280] },
  'low-temperature': { name: 'low-temperature flux', active_C: [75, 200] },
};
const ANY = { name: 'flux', active_C: [110, 300] as const };
/** It is at work before the solder melts, and until it is well over that, K. */
const [BEFORE_K, OVER_K] = [10, 20];

const fluxName = ({ kind }: FluxAtHand): string => (KINDS[kind ?? ''] ?? ANY).name;

const worksAt = ({ kind, active_C = (KINDS[kind ?? ''] ?? ANY).active_C }: FluxAtHand, melts_C: number): boolean =>
  active_C[0] <= melts_C - BEFORE_K && active_C[1] >= melts_C + OVER_K;

/** Where what melts first does so, °C: low-melt alloy that is brought into the joints, else the board's solder. */
export function melts_C({ target, board, method }: Pick<Work, 'target' | 'board' | 'method'>): number {
  const brought = method.phases.flatMap((p) => [...broughtBy(p, target.package).values()]);
  const low = brought.map((b) => b.alloy).filter(isLowMelting);
  const own = SOLDER_ALLOYS.get(board.jointAlloy)?.wt;
  return Math.min(...[...low, ...(own ? [own] : [])].map((wt) => jointMetal(wt).Tl), 217);
}

const isOld = ({ expires }: FluxAtHand, today: string) => expires !== undefined && expires < today;

/** The flux to take: one that works where the solder melts, fresh ones first; undefined where there is none at all. `today` as 2026-11-30. */
export function fluxFor(
  fluxes: readonly FluxAtHand[],
  at_C: number,
  today = '',
): { name: string; works: boolean; old: boolean } | undefined {
  const known = fluxes.map((f) => ({ name: fluxName(f), works: worksAt(f, at_C), old: isOld(f, today) }));
  return known.sort((a, b) => Number(b.works) - Number(a.works) || Number(a.old) - Number(b.old)).at(0);
}

/** Flux creeps so far; parts up to this length swim on it, mm. */
const [CREEP_MM, SMALL_MM] = [3, 2.2];
/** Into what takes none it must not run from further away either, mm. */
const OPEN_MM = 6;

const within = ({ board, target }: Work, mm: number, like: (part: PlacedPart) => boolean): string[] =>
  board.parts
    .filter((p) => p.partId !== target.partId && p.side === target.side && like(p) && gapBetween(p, target) <= mm)
    .map(partName);
const isSmall = (part: PlacedPart): boolean => {
  const { body } = packageById(part.package);
  return Math.max(body.l, body.w) <= SMALL_MM;
};

/** How much, and why: a trace where it would carry small parts off in the air or run into open ones, plenty for irons and alloy. */
function amount(work: Work): { much: string; why: string } {
  const open = within(work, OPEN_MM, (p) => takesNoFlux(limitRowOf(p)));
  if (open.length > 0) return { much: 'A trace', why: `None may run into ${someJoints(open)}.` };
  const blown = work.method.phases.some((p) => ['air', 'below'].includes(kindOf(p).tool));
  const small = blown ? within(work, CREEP_MM, isSmall) : [];
  if (small.length > 0) return { much: 'A trace', why: `${someJoints(small)} swim on more.` };
  return blown ? { much: 'A thin film', why: '' } : { much: 'Plenty', why: '' };
}

/** The word to flux, with what flux and how much of it. */
export function fluxed(said: Instruction, work: Work): Instruction {
  const { fluxes } = work.supplies ?? ANY_SUPPLIES;
  const at_C = melts_C(work);
  const taken = fluxes === null ? undefined : fluxFor(fluxes, at_C, work.today);
  const { much, why } = amount(work);
  const doubts = [
    ...(taken && !taken.works ? [`No flux here works at ${formatTemperature(at_C, work.panel)}.`] : []),
    ...(taken?.old ? ['It is past its date.'] : []),
  ];
  return {
    ...said,
    watch: [`${much} of ${taken?.name ?? 'flux'}.`, why, ...doubts, said.watch].filter(Boolean).join(' '),
  };
}
