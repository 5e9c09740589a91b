/** Neighbours while a run goes on: how hot each becomes, and when one is over its limit or loose itself. */
import type { HeatRun } from '../thermal/heatRun.ts';
import type { Lumps } from './lumps.ts';
import type { PlanRun } from './planForm.ts';

/** A neighbour so long over its limit has been hurt, s. */
const HURT_S = 5;

export class NeighbourWatch {
  readonly neighbours: PlanRun['neighbours'];
  private readonly lumps: Lumps;
  private readonly solidus_C: number;

  /** `solidus_C` of the board's solder: from there on they are loose. */
  constructor(lumps: Lumps, ambient_C: number, solidus_C: number) {
    this.lumps = lumps;
    this.solidus_C = solidus_C;
    this.neighbours = lumps.neighbours.map((n) => ({
      partId: n.part.partId,
      distance_mm: n.distance_mm,
      limit_C: n.limit.limit.value,
      limitPlusMinus_C: n.limit.limit.plusMinus,
      atWet_C: ambient_C,
      peak_C: ambient_C,
      over_s: null,
      loosens_s: null,
    }));
  }

  /** `wet`: whether the target's joints have been wet. */
  note(run: HeatRun, wet: boolean): void {
    for (const [i, n] of this.lumps.neighbours.entries()) {
      const seen = this.neighbours[i];
      for (const node of n.nodes) seen.peak_C = Math.max(seen.peak_C, run.T[node]);
      if (!wet) seen.atWet_C = seen.peak_C;
      if (seen.peak_C >= seen.limit_C) seen.over_s ??= run.time;
      if (seen.peak_C >= this.solidus_C) seen.loosens_s ??= run.time;
    }
  }

  hurt(time: number): boolean {
    return this.neighbours.some((n) => n.over_s !== null && time > n.over_s + HURT_S);
  }

  /** The first that goes over its limit. */
  firstOver(): PlanRun['closes'] {
    const over = this.neighbours.flatMap(({ partId, over_s }) => (over_s === null ? [] : [{ partId, at_s: over_s }]));
    return over.sort((a, b) => a.at_s - b.at_s)[0] ?? null;
  }
}
