/** What its own air would do to a part that goes on, and how it would stay where it is. */
import type { PlacedPart } from '../board/index.ts';
import type { ReworkCase } from './bench/caseForm.ts';
import { type Blown, Wind, type WindVerdict } from './bench/wind.ts';
import type { Phase } from './phases/schema.ts';
import { RANGES } from './ranges.ts';

export interface OwnWind {
  N: number;
  verdict: WindVerdict;
  /** Where it would move: from so far it may be started, or at so little air from where the nozzle is; absent where neither helps. */
  standoff_mm?: number;
  flow_L_min?: number;
}

/** The model is weak: from where it says that a part stays it is started so much further off, or weaker. */
const SAFE = 1.25;

export function ownWind(
  part: PlacedPart,
  phases: readonly Phase[],
  bench: Pick<ReworkCase, 'ambient_C' | 'station'>,
): OwnWind {
  const blown = phases.flatMap((p): Blown[] =>
    p.kind === 'air' ? [p.settings, ...(p.settings.stages ?? []).map((s) => ({ ...p.settings, ...s }))] : [],
  );
  if (blown.length === 0) return { N: 0, verdict: 'stays' };
  const at = { x: part.x_mm, y: part.y_mm };
  const judge = (change: Partial<Blown>) =>
    new Wind(
      bench,
      blown.map((b) => ({ ...b, ...change })),
      at,
    ).onLaid(part);
  const now = judge({});
  if (now.verdict === 'stays') return now;
  const stays = (change: Partial<Blown>) => judge(change).verdict === 'stays';
  const [near, far] = [Math.min(...blown.map((b) => b.standoff_mm)), RANGES.air.standoff_mm[1]];
  const from = steps(near, far, 1).find((standoff_mm) => stays({ standoff_mm }));
  const [strong, weak] = [Math.max(...blown.map((b) => b.flow_L_min)), RANGES.air.flow_L_min[0]];
  const up = steps(strong, weak, -1).find((flow_L_min) => stays({ flow_L_min }));
  return {
    ...now,
    ...(from !== undefined && SAFE * from <= far ? { standoff_mm: Math.ceil(SAFE * from) } : {}),
    ...(up !== undefined && up / SAFE >= weak ? { flow_L_min: Math.floor(up / SAFE) } : {}),
  };
}

function steps(from: number, to: number, by: number): number[] {
  return Array.from({ length: Math.max(0, Math.floor((to - from) / by)) + 1 }, (_, n) => from + n * by);
}
