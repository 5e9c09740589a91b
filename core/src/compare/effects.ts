/**
 * What one ensemble says of a setting near its own: a single run there, with everything uncertain taken to act as it did where the ensemble
 * was computed. Times by their ratios, margins by their differences.
 */
import { type Ensemble, type PlanRun, wetAt, windowEnd } from '../rework/index.ts';

type Seconds = number | null | undefined;

/** How a time changes from one run to another; undefined where one of them has none. */
const ratio = (from: Seconds, to: Seconds): number | undefined => (from && to ? to / from : undefined);

/** A run as it would be, were it as far from another as `to` is from `from`. */
function moved(run: PlanRun, from: PlanRun, to: PlanRun): PlanRun {
  const all = ratio(from.allWet_s, to.allWet_s) ?? 1;
  /** A time that no longer happens is gone; one that had none to compare with goes with all others. */
  const time = (t: Seconds, a: Seconds, b: Seconds): number | null => {
    if (t === null || t === undefined) return null;
    const gone = typeof a === 'number' && (b === null || b === undefined);
    return gone ? null : t * (ratio(a, b) ?? all);
  };
  const by = <T>(list: readonly T[], key: (item: T) => string) => new Map(list.map((item) => [key(item), item]));
  const [fromJoint, toJoint] = [by(from.joints, (j) => j.terminal), by(to.joints, (j) => j.terminal)];
  const [fromPart, toPart] = [by(from.neighbours, (n) => n.partId), by(to.neighbours, (n) => n.partId)];
  const shift = (m: Seconds, a: Seconds, b: Seconds): number | null =>
    typeof m === 'number' ? m + (typeof a === 'number' && typeof b === 'number' ? b - a : 0) : null;
  const { outcomes } = run;
  const [body, bodyFrom, bodyTo] = [outcomes?.body, from.outcomes?.body, to.outcomes?.body];
  const wet = (map: Map<string, PlanRun['joints'][number]>, terminal: string) => {
    const joint = map.get(terminal);
    return joint && wetAt(joint);
  };
  return {
    ...run,
    allWet_s: time(run.allWet_s, from.allWet_s, to.allWet_s),
    freezes_s: time(run.freezes_s, from.freezes_s, to.freezes_s),
    joints: run.joints.map((j) => ({
      ...j,
      wet_s: time(wetAt(j), wet(fromJoint, j.terminal), wet(toJoint, j.terminal)),
    })),
    neighbours: run.neighbours.map((n) => {
      const [a, b] = [fromPart.get(n.partId), toPart.get(n.partId)];
      return {
        ...n,
        over_s: time(n.over_s, a?.over_s, b?.over_s),
        loosens_s: time(n.loosens_s, a?.loosens_s, b?.loosens_s),
        margin_K: shift(n.margin_K, a?.margin_K, b?.margin_K),
      };
    }),
    closes: run.closes && closing(run.closes, time(run.closes.at_s, windowEnd(from), windowEnd(to))),
    ...(outcomes && body
      ? {
          outcomes: {
            ...outcomes,
            body: { ...body, margin_K: shift(body.margin_K, bodyFrom?.margin_K, bodyTo?.margin_K) },
          },
        }
      : {}),
  };
}

const closing = (closes: NonNullable<PlanRun['closes']>, at_s: number | null): PlanRun['closes'] =>
  at_s === null ? null : { ...closes, at_s };

/** The ensemble of a setting from one quick run there; `quick`: the run of the known setting that is as quick. */
export function likeEnsemble(run: PlanRun, known: Ensemble, quick: PlanRun): Ensemble {
  const nominal = moved(run, quick, known.nominal);
  return {
    ...known,
    nominal,
    centre: nominal,
    members: known.members.map((m) => moved(nominal, known.centre, m)),
  };
}
