/** What the speed of heat is measured on: the kernel's yardstick, and whole runs on the demo boards. */
import { runYardstick } from '../src/thermal/yardstick.ts';
import type { Sweeps } from '../src/thermal/gridKernel.ts';
import { runPlan } from '../src/rework/planRun.ts';
import { DEFAULT_STATION } from '../src/rework/station.ts';
import { quillon } from '../../web/src/lib/server/demo/quillon.ts';
import { ternT2 } from '../../web/src/lib/server/demo/ternT2.ts';
import type { PlanInput } from '../src/rework/planForm.ts';
import { air } from '../test/plans.ts';

export interface Timed {
  name: string;
  cells: number;
  ms: number;
  ns_per_cell_step: number;
}

async function timeRun(now: () => number, board: PlanInput['board'], target: string, quality: PlanInput['quality']) {
  const input: PlanInput = {
    board,
    target,
    // too cool to melt anything: the run lasts its full 120 s
    phases: [air({ set_C: 200, flow_L_min: 40, limit_s: 120 })],
    station: DEFAULT_STATION,
    ambient_C: 22,
    quality,
    frames: quality === 'plan',
  };
  const start = now();
  const { cells, steps } = await runPlan(input, { now });
  const ms = now() - start;
  return { name: `${quality} run, ${board.name} ${target}`, cells, ms, ns_per_cell_step: (ms * 1e6) / cells / steps };
}

/** One round of everything; `now` in milliseconds. */
export async function heatTimes(now: () => number): Promise<Timed[]> {
  const kernel = (sweeps: Sweeps) => {
    const result = runYardstick(now, { sweeps, repeats: 1 });
    return { ...result, name: `kernel, sweeps in ${sweeps}s`, ms: result.best_s * 1000 };
  };
  return [
    kernel('single'),
    kernel('double'),
    await timeRun(now, ternT2, 'u2', 'plan'),
    await timeRun(now, ternT2, 'u1', 'plan'),
    await timeRun(now, quillon, 'u4', 'plan'),
    await timeRun(now, quillon, 'q1', 'plan'),
    await timeRun(now, quillon, 'q1', 'search'),
  ];
}

/** The best of several rounds, each with the C yardstick between (ns per cell-step, if there is one), as lines. */
export async function heatReport(
  rounds: number,
  round: () => Promise<Timed[]>,
  yardstick: () => number | undefined,
): Promise<string> {
  let best: Timed[] = [];
  let base = Infinity;
  // the first round also compiles
  await round();
  for (let n = 0; n < rounds; n++) {
    base = Math.min(base, yardstick() ?? Infinity);
    const times = await round();
    best = n === 0 ? times : best.map((b, i) => (times[i].ms < b.ms ? times[i] : b));
  }
  const unit = Number.isFinite(base) ? base : best[0].ns_per_cell_step;
  const line = ({ name, cells, ms, ns_per_cell_step: ns }: Timed) =>
    `${name.padEnd(26)} ${String(cells).padStart(6)} cells ${ms.toFixed(0).padStart(5)} ms ${ns.toFixed(2).padStart(6)} ns per cell-step ${(ns / unit).toFixed(2)} × ${unit === base ? 'C yardstick' : 'kernel'}`;
  const [plan, search] = best.slice(-2);
  return [
    ...(unit === base ? [`C yardstick ${base.toFixed(2)} ns per cell-step`] : []),
    ...best.map(line),
    `a search run takes 1/${(plan.ms / search.ms).toFixed(1)} of a planning run`,
  ].join('\n');
}
