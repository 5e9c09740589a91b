/** How a part goes on, in the words of the bench: seconds, wind, hold, order. */
import { writeComposition } from '@orthos/core/alloys';
import type { FitRow, Planned } from '@orthos/core/compare';
import { type JointState, someJoints } from '@orthos/core/rework';
import { lasts } from '$lib/plan/ways';

export const fitRowOf = ({ row }: Planned): FitRow | undefined => (row && 'wind' in row ? row : undefined);

/** "Every joint made after about 40 s, 32 to 54". */
export function madeWords({ loose_s }: FitRow): string {
  if (!loose_s?.p50) return 'Not every joint is made';
  const range = loose_s.p5 && loose_s.p95 ? `, ${lasts(loose_s.p5)} to ${lasts(loose_s.p95)}` : '';
  return `Every joint made after about ${lasts(loose_s.p50)}${range}.`;
}

/** What its own air does to it, and from where it would not. */
export function windWords({ wind, pace }: FitRow): string {
  if (!wind || pace) return '';
  if (wind.verdict === 'stays') return 'In flux its own air should leave it where it is.';
  const ways = [
    ...(wind.standoff_mm === undefined ? [] : [`start at ${wind.standoff_mm} mm`]),
    ...(wind.flow_L_min === undefined ? [] : [`no more than ${wind.flow_L_min} L/min`]),
  ];
  const how = ways.length > 0 ? `: ${ways.join(', or ')}` : ': by iron instead';
  return `It ${wind.verdict === 'flies' ? 'may fly' : 'may be pushed aside'}${how}.`;
}

/** How long it is held once the heat is off. */
export function holdWords({ hold_s, frozen_s }: FitRow): string {
  if (hold_s === null) return frozen_s ? 'It stays soft for more than a minute after the heat.' : '';
  return `Heat off, then still for ${lasts(hold_s)} at least, until it is dull.`;
}

/** In which order, and how fast an iron gets on. */
export function orderWords({ order, pace }: FitRow): string {
  if (!order || order.length === 0) return '';
  if (!pace) return order.length > 1 ? `First ${order[0]}, last ${order[order.length - 1]}.` : '';
  const each = `about ${pace.s_per_joint.toFixed(1)} s a joint`;
  if (order.length < 3) return `${order.join(', then ')}; ${each}.`;
  return `${order[0]}, then ${order[1]} across; then row by row: ${someJoints(order.slice(2))}; ${each}.`;
}

/** What lies on the lands: metals, the commonest first, and how much of a joint. */
export function landWords(joints: readonly JointState[]): string {
  const film = joints.find((j) => j.alloy);
  if (!film?.alloy) return '';
  const wt = Object.fromEntries(
    Object.entries(film.alloy)
      .filter(([, share]) => (share ?? 0) >= 0.5)
      .map(([element, share]) => [element, Math.round(share ?? 0)]),
  );
  return `From lands as they are once prepared: a film of ${writeComposition(wt)}.`;
}
