/** A run's marks beside what was predicted for them. */
import { type Mark, meltOrder } from '@orthos/core/rework';
import type { Run } from '@orthos/core/job';

export interface MarkRow {
  eventId: string;
  what: Mark;
  label: string;
  /** Seconds after heat on; null where there is none. */
  planned: number | null;
  actual: number | null;
  /** Actual less planned, s. */
  off: number | null;
}

const LABELS: Record<Exclude<Mark, 'done'>, string> = {
  'heat-on': 'heat on',
  'first-wet': 'first joint wet',
  'all-wet': 'all wet',
  lifted: 'lifted',
  'heat-off': 'heat off',
  fitted: 'frozen in place',
};

/** The marks that mean more than "done", in the order of their times. */
export function markRows(run: Run): MarkRow[] {
  const heatOn = run.marks.find((m) => m.what === 'heat-on')?.at ?? null;
  const planned = (what: Mark): number | null => {
    if (!run.guide) return null;
    if (what === 'all-wet') return run.guide.allWet_s;
    if (what !== 'first-wet') return null;
    const [first] = meltOrder(run.guide);
    return run.guide.joints.find((j) => j.terminal === first)?.wet_s ?? null;
  };
  return run.marks
    .flatMap((m): MarkRow[] => {
      if (m.what === 'done') return [];
      const actual = heatOn === null ? null : (m.at - heatOn) / 1000;
      const plan = planned(m.what);
      return [
        {
          eventId: m.eventId,
          what: m.what,
          label: LABELS[m.what],
          planned: plan,
          actual,
          off: plan === null || actual === null ? null : actual - plan,
        },
      ];
    })
    .sort((a, b) => (a.actual ?? 0) - (b.actual ?? 0));
}
