/**
 * Speed of the kernel and of one whole plan run, as ratios within one run of this script:
 *   npx tsx core/bench/plan.bench.ts [C-PROGRAM]
 * C-PROGRAM is the compiled yardstick of the same case (developers only); without it the ratio is to our own kernel.
 */
import { spawnSync } from 'node:child_process';
import { runBench } from '../src/thermal/bench.ts';
import { runPlan } from '../src/rework/planRun.ts';
import { DEFAULT_STATION } from '../src/rework/defaults.ts';
import { quillon } from '../../web/src/lib/server/demo/quillon.ts';
import { ternT2 } from '../../web/src/lib/server/demo/ternT2.ts';
import type { PlanInput } from '../src/rework/planForm.ts';

const now = () => performance.now();

/** ns per cell-step of the C program's best run, if there is one. */
function yardstick(): number | undefined {
  const program = process.argv[2];
  if (!program) return undefined;
  const out = spawnSync(program, ['0.05', '3'], { encoding: 'utf8' }).stdout;
  return (JSON.parse(out.trim().split('\n').at(-1) ?? '{}') as { ns_per_cell_step?: number }).ns_per_cell_step;
}

async function planCost(board: PlanInput['board'], target: string) {
  const input: PlanInput = {
    board,
    target,
    // too cool to melt anything: the run lasts its full 120 s
    method: {
      kind: 'air',
      label: 'bench',
      set_C: 200,
      flow_L_min: 40,
      nozzle_mm: 8,
      standoff_mm: 10,
      sweep_mm: 4,
      limit_s: 120,
    },
    station: DEFAULT_STATION,
    ambient_C: 22,
    quality: 'plan',
    frames: true,
  };
  const times: number[] = [];
  let work = 0;
  let cells = 0;
  for (let n = 0; n < 9; n++) {
    const start = now();
    const run = await runPlan(input, { now });
    times.push(now() - start);
    work = run.cells * run.steps;
    cells = run.cells;
  }
  const best = Math.min(...times);
  return { cells, best_ms: best, ns: (best * 1e6) / work };
}

async function main() {
  const report = (name: string, ns: number, base: number, more = '') =>
    process.stdout.write(
      `${name.padEnd(34)} ${ns.toFixed(2).padStart(7)} ns per cell-step   ${(ns / base).toFixed(2)} × yardstick ${more}\n`,
    );
  const c = yardstick();
  const wasm = runBench(now, 'wasm', 5).ns_per_cell_step;
  const base = c ?? wasm;
  if (c) report('C yardstick', c, base);
  report('kernel, WebAssembly', wasm, base);
  report('kernel, TypeScript twin', runBench(now, 'ts', 1).ns_per_cell_step, base);
  // the first plan of a process also compiles it
  await planCost(ternT2, 'u1');
  for (const [board, target] of [
    [ternT2, 'u2'],
    [ternT2, 'u1'],
    [quillon, 'u4'],
    [quillon, 'q1'],
  ] as const) {
    const p = await planCost(board, target);
    report(`plan run, ${board.name} ${target}`, p.ns, base, `(${p.cells} cells, 120 s in ${p.best_ms.toFixed(0)} ms)`);
  }
  if (c) report('C yardstick again', yardstick() ?? c, base);
}
void main();
