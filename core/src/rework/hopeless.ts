/**
 * Whether a run that goes on as it is will ever melt its joints: a search that tries hundreds of settings does not wait for those that cannot. Under heat that stays as it is
 * a temperature rises more and more slowly, so what is left of its way is at most its last rate times the time that is left.
 */
import type { ReworkRun } from './bench/reworkRun.ts';
import type { PlanRun } from './bench/runForm.ts';

/** Temperatures are looked at over windows this long, s: longer than a hand takes round the part. */
const WINDOW_S = 5;
/** Melting of others sets heat free, meshes ripple: so much more than the last rate would bring, and so many K. */
const [MORE, NEAR_K] = [1.2, 5];
/** What each window brings lessens by a share that lessens too, for slow parts of the board come after quick ones: its power (fitted to whole runs, within 8 K). */
const SLOWER = 0.7;

/** Hottest of a few places in the last three windows, the newest last, °C. */
class Windows {
  private windows: Float64Array[] = [];
  get isFull(): boolean {
    return this.windows.length === 3;
  }
  begin(places: number): void {
    this.windows = [...this.windows.slice(-2), new Float64Array(places).fill(-Infinity)];
  }
  note(C: (i: number) => number): void {
    const now = this.windows[this.windows.length - 1];
    for (let i = 0; i < now.length; i++) now[i] = Math.max(now[i], C(i));
  }
  of(i: number): [first: number, before: number, now: number] {
    const [a, b, c] = this.windows.map((w) => w[i]);
    return [a, b, c];
  }
  /** How much hotter a place would have become by the end, K: each window brings less than the one before. */
  rest(i: number, left_s: number): number {
    const [first, before, now] = this.of(i);
    const [was, is] = [before - first, now - before];
    if (!(is > 0)) return 0;
    const q = Math.min(0.99, (is / Math.max(was, is)) ** SLOWER);
    return (is * q * (1 - q ** (left_s / WINDOW_S))) / (1 - q);
  }
}

export class Hopeless {
  private readonly joints = new Windows();
  private readonly neighbours = new Windows();
  private began: number | null = null;

  /** Looks at a run after a step. Whether some joint never melts. */
  look(run: ReworkRun): boolean {
    const { steadySince_s: since, joints, neighbours, time } = run;
    if (since === null || time < since || joints.allLoose_s !== null) return false;
    if (this.began === null || time >= this.began + WINDOW_S) {
      if (this.joints.isFull && joints.joints.some((_, i) => this.isCold(i, run))) return true;
      this.began = time;
      this.joints.begin(joints.joints.length);
      this.neighbours.begin(neighbours.peaks.length);
    }
    this.joints.note((i) => joints.temperature(i));
    this.neighbours.note((i) => neighbours.peaks[i].peak_C);
    return false;
  }

  private isCold(i: number, run: ReworkRun): boolean {
    const [, before, now] = this.joints.of(i);
    const short_K = run.joints.liquidus(i) - now;
    return short_K > NEAR_K && short_K > (MORE * Math.max(0, now - before) * run.left_s) / WINDOW_S;
  }

  /** What a run that was given up tells, as if it had gone on to its end: how near its joints came, and whom the air would have hurt. */
  asIfTold(run: ReworkRun): Omit<PlanRun, 'frames'> {
    const { left_s, time } = run;
    run.neighbours.goesOn((i) => this.neighbours.rest(i, left_s), time, left_s);
    const result = run.result();
    const joints = result.joints.map((j, i) => ({ ...j, peak_C: j.peak_C + this.joints.rest(i, left_s) }));
    return { ...result, joints };
  }
}
