/** What a part brings with it when it goes to another board: how hot it was, what is on its legs, how it was proven, what it holds. */
import { partName, type PlacedPart } from '../board/index.ts';
import type { PartRecord } from './donorForms.ts';
import { heatOfPart } from './heats.ts';
import { isOff, type JobState, type Run, workOn } from './jobState.ts';
import { copyOf } from './stored.ts';

/** Instruction of a run that cleans the legs, one by one. */
const LEGS = 'legs';

/** Whether a part's legs were cleaned in these runs. */
export const legsCleaned = (runs: readonly Run[]): boolean =>
  runs.some((r) => r.marks.some((m) => m.instruction === LEGS));

/** As far as the job of its board tells now: also of a part that is still on. */
export function partRecordOf(state: JobState, part: PlacedPart): PartRecord {
  const work = workOn(state, part.partId);
  const off = work?.runs.findLast((r) => r.op === 'remove' && r.ended?.outcome === 'finished');
  const stored = state.stored.get(part.partId);
  const worked = [...state.functions].filter(([, tried]) => tried.before === 'works').map(([name]) => name);
  const dead = [...state.functions.values()].some((tried) => tried.before === 'dead');
  const { partOff, offBoardTest: test } = work ?? {};
  const heat = work && heatOfPart(work.runs);
  const copied = copyOf(stored ?? { before: [] });
  const what = [part.what, part.value].filter(Boolean).join(' ');
  return {
    name: partName(part),
    ...(what ? { what: what.slice(0, 200) } : {}),
    offAt: work && isOff(work) ? (off?.ended?.at ?? partOff?.at ?? null) : null,
    ...(off ? { methodId: off.methodId } : {}),
    times: heat?.times ?? 0,
    peak_C: partOff?.heat?.peak_C ?? null,
    dose: heat?.dose ?? partOff?.heat?.dose ?? null,
    legs: partOff?.legs ?? [],
    legsClean: work ? legsCleaned(work.runs) : null,
    place: partOff?.place ?? '',
    tested: test ? { result: test.result, ...(test.recipe ? { recipe: test.recipe } : {}) } : null,
    donor: dead ? 'dead of something else' : worked.length > 0 ? 'ran until it came off' : 'not known',
    provenBy: worked.slice(0, 60),
    holds: [...(stored?.holds ?? [])],
    copy: copied.state === 'copy' ? (copied.read?.checksum ?? null) : null,
    ...(stored?.firmware ? { firmware: stored.firmware } : {}),
    ...(stored?.settings ? { settings: stored.settings } : {}),
  };
}
