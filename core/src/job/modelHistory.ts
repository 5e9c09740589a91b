/** What earlier jobs on the same kind of board found: culprits, what went with them, readings, minutes. */
import { compareReading, type Measured, type Place, type Quantity } from '../ground/index.ts';
import { pointOf } from './provingRules.ts';
import { attemptsOf, isFitted, type JobState, type RunningJob } from './jobState.ts';

export interface EarlierJob {
  id: string;
  number: number;
  complaint: string;
  log: Pick<RunningJob, 'state' | 'minutes'>;
}

interface EarlierGood extends Pick<JobState['readings'][number], 'place' | 'quantity' | 'probe'> {
  unit: string;
  value: Measured;
}

export interface ModelHistory {
  /** Jobs closed with a repair: what the counts are out of. */
  jobs: number;
  declined: number;
  open: number;
  /** Parts convicted, most often first. */
  culprits: { partId: string; jobs: number }[];
  /** Parts that were bad, or renewed, in the same job as a culprit. */
  companions: { culprit: string; partId: string; jobs: number }[];
  /** Points that were off in repaired jobs, most often first, with the culprit they went with most. */
  readings: { place: Place; quantity: Quantity; jobs: number; culprit: string }[];
  /** What places read on boards known to be good: after a repair that held, or as a good board's beside a reading. `unit`: which board. */
  good: EarlierGood[];
  /** Median bench minutes; null without any. */
  minutes: number | null;
  /** The latest of them, newest first. */
  latest: { id: string; number: number; complaint: string; outcome: string; culprit: string | null }[];
  /** How it was opened last time. */
  opening: { number: number; steps: JobState['intake']['opened'] } | null;
}

const LATEST = 8;
const MOST_READINGS = 8;

/** The part that a repaired job came down to; null when its last suspect tested good. */
export function culpritOf(state: JobState): string | null {
  if (state.released?.outcome !== 'repaired') return null;
  const { suspect, offBoardTest } = attemptsOf(state).at(-1) ?? {};
  return suspect && offBoardTest?.result !== 'good' ? suspect.partId : null;
}

const median = (values: number[]): number | null => {
  if (values.length === 0) return null;
  const sorted = values.toSorted((a, b) => a - b);
  const [low, high] = [sorted[Math.floor((sorted.length - 1) / 2)], sorted[Math.ceil((sorted.length - 1) / 2)]];
  return (low + high) / 2;
};

function counter<T>() {
  const counts = new Map<string, { what: T; jobs: number }>();
  return {
    add(key: string, what: T) {
      const row = counts.get(key);
      if (row) row.jobs++;
      else counts.set(key, { what, jobs: 1 });
    },
    rows: () => [...counts.values()].sort((a, b) => b.jobs - a.jobs),
  };
}

/** What one job knows of good boards. */
function goodIn(state: JobState, number: number): EarlierGood[] {
  const cut = state.beforeWork?.readings ?? state.readings.length;
  const after = state.released?.outcome === 'repaired' ? state.readings.slice(cut) : [];
  const own = new Map(after.map((r) => [pointOf(r), r]));
  const beside = state.readings.filter((r) => r.good !== null && r.goodFrom === 'good board');
  const entry = ({ place, quantity, probe }: JobState['readings'][number], unit: string, value: Measured) => ({
    ...{ unit, place, quantity, value },
    ...(probe ? { probe } : {}),
  });
  return [
    ...beside.flatMap((r) => (r.good === null ? [] : [entry(r, `good board of No. ${number}`, r.good)])),
    ...[...own.values()].map((r) => entry(r, `No. ${number}, repaired`, r.value)),
  ];
}

/** `jobs` newest first. */
export function modelHistory(jobs: readonly EarlierJob[]): ModelHistory {
  const culprits = counter<string>();
  const companions = counter<{ culprit: string; partId: string }>();
  const points = new Map<
    string,
    { place: Place; quantity: Quantity; jobs: number; with: ReturnType<typeof counter<string>> }
  >();
  const minutes: number[] = [];
  const good: EarlierGood[] = [];
  let [repaired, declined, open] = [0, 0, 0];
  let opening: ModelHistory['opening'] = null;
  const latest: ModelHistory['latest'] = [];
  for (const { id, number, complaint, log } of jobs) {
    const { state } = log;
    good.push(...goodIn(state, number));
    const culprit = culpritOf(state);
    if (latest.length < LATEST)
      latest.push({ id, number, complaint, outcome: state.released?.outcome ?? 'open', culprit });
    if (!opening && state.intake.opened.length > 0) opening = { number, steps: state.intake.opened };
    if (!state.released) open++;
    if (state.released?.outcome === 'declined') declined++;
    if (state.released?.outcome !== 'repaired') continue;
    repaired++;
    const spent = state.released.minutes ?? Math.round(log.minutes);
    if (spent > 0) minutes.push(spent);
    if (!culprit) continue;
    culprits.add(culprit, culprit);
    const renewed = new Set(
      state.attempts.flatMap((a) =>
        a.suspect && (a.offBoardTest?.result === 'bad' || (isFitted(a) && a.offBoardTest?.result !== 'good'))
          ? [a.suspect.partId]
          : [],
      ),
    );
    renewed.delete(culprit);
    for (const partId of renewed) companions.add(`${culprit} ${partId}`, { culprit, partId });
    const seen = new Set<string>();
    for (const r of state.readings.slice(0, state.beforeWork?.readings)) {
      const key = pointOf(r);
      const difference = compareReading(r.value, r.good, r.quantity);
      if (seen.has(key) || (difference !== 'low' && difference !== 'high')) continue;
      seen.add(key);
      const row = points.get(key) ?? { place: r.place, quantity: r.quantity, jobs: 0, with: counter<string>() };
      row.jobs++;
      row.with.add(culprit, culprit);
      points.set(key, row);
    }
  }
  return {
    jobs: repaired,
    declined,
    open,
    culprits: culprits.rows().map(({ what, jobs: n }) => ({ partId: what, jobs: n })),
    companions: companions.rows().map(({ what, jobs: n }) => ({ ...what, jobs: n })),
    readings: [...points.values()]
      .sort((a, b) => b.jobs - a.jobs)
      .slice(0, MOST_READINGS)
      .map((r) => ({ place: r.place, quantity: r.quantity, jobs: r.jobs, culprit: r.with.rows()[0].what })),
    good,
    minutes: median(minutes),
    latest,
    opening,
  };
}
