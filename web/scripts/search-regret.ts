/**
 * What a search of settings misses: found score less the best of a dense grid of 630 settings of air, on six parts of the demo shop.
 * Run: npx tsx web/scripts/search-regret.ts [part …]; some ten minutes a part. docs/physics/search.md keeps what it printed.
 *
 * Every setting of the grid is run as set. Where the window is shut as set it is shut on about half of all benches or more, which costs a point;
 * so whole ensembles are computed where it is open as set, and for the forty that cost least as set where it is open nowhere.
 */
import type { BoardModel } from '@orthos/core/board';
import { planWay, searchInput, searchSettings } from '@orthos/core/compare';
import { caseOf, type Kit, methodsOn, pieceOn, type PlanInput, reworkPlaceSchema } from '@orthos/core/rework';
import { demoKit } from '../src/lib/server/demo/kit.ts';
import { lodestar } from '../src/lib/server/demo/lodestar.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';

/** What is off the board meanwhile stands behind the part. */
const PARTS: [name: string, board: BoardModel, part: string, ...absent: string[]][] = [
  ['quillon-q1', quillon, 'q1'],
  ['quillon-d3', quillon, 'd3'],
  ['quillon-u4', quillon, 'u4'],
  ['tern-u1', ternT2, 'u1', 'bt1'],
  ['tern-u2', ternT2, 'u2', 'bt1'],
  ['lodestar-u2', lodestar, 'u2'],
];
const METHOD = 'air-slow';
/** 7 × 6 × 5 × 3 = 630 settings. */
const GRID = {
  set_C: [300, 330, 360, 390, 410, 435, 460],
  flow_L_min: [20, 30, 45, 60, 75, 90],
  standoff_mm: [6, 9, 13, 18, 24],
  nozzle_mm: [5, 8, 12],
};
const NEXT_BEST = 40;

const kit: Kit = demoKit().flatMap((t) => (t.bench === 'full bench' ? [t.spec] : []));
const context = { now: () => 0 };
const wanted = process.argv.slice(2);

/** All settings of the grid. */
function settings(): Record<string, number>[] {
  let all: Record<string, number>[] = [{}];
  for (const [key, values] of Object.entries(GRID)) all = all.flatMap((s) => values.map((v) => ({ ...s, [key]: v })));
  return all;
}

for (const [name, board, target, ...absent] of PARTS.filter(([n]) => wanted.length === 0 || wanted.includes(n))) {
  const part = board.parts.find((p) => p.partId === target);
  if (!part) throw new Error(`${board.name} has no ${target}`);
  const surroundings = absent.length > 0 ? { surroundings: { absent } } : {};
  const place = { board, target, kit, seed: 1, ...surroundings };
  const found = caseOf(reworkPlaceSchema.parse(place), surroundings);
  const choice = methodsOn(part.package, pieceOn(board, part), { kit, dials: found.station }).find(
    (m) => m.method.id === METHOD,
  );
  if (!choice) throw new Error(`no ${METHOD}`);
  const [phase] = choice.method.phases;
  const phasesAt = (set: Record<string, number>) =>
    [{ ...phase, settings: { ...phase.settings, ...set } }] as PlanInput['phases'];
  const asSetAt = async (set: Record<string, number>) => {
    const plan: PlanInput = { ...found, phases: phasesAt(set), quality: 'coarse', frames: false };
    return (await planWay({ plan, as: METHOD, ranges: false }, context)).row;
  };
  /** With everything that is uncertain, as comparisons have it: a search that may turn nothing. */
  const scoreAt = async (set: Record<string, number>) => {
    const free = Object.fromEntries(Object.entries(set).map(([key, v]) => [key, [v]]));
    return (await searchSettings(searchInput.parse({ case: place, method: METHOD, free, budget_runs: 1 }), context))
      .score;
  };

  const began = Date.now();
  const asSet: { set: Record<string, number>; score: number; open: boolean }[] = [];
  for (const set of settings()) {
    const row = await asSetAt(set);
    asSet.push({ set, score: row?.score ?? Infinity, open: (row?.window?.p_open ?? 0) >= 0.5 });
  }
  asSet.sort((a, b) => a.score - b.score);
  const open = asSet.filter((s) => s.open);
  let best = { score: Infinity, set: {} as Record<string, number> };
  const looked = open.length > 0 ? open : asSet.slice(0, NEXT_BEST);
  for (const { set } of looked) {
    const score = await scoreAt(set);
    if (score < best.score) best = { score, set };
  }
  const gridded = Date.now();
  const search = await searchSettings(searchInput.parse({ case: place, method: METHOD, free: GRID }), context);
  const [grid_s, search_s] = [(gridded - began) / 1000, (Date.now() - gridded) / 1000];
  const { set_C } = phase.settings as { set_C: number };
  const usual = await scoreAt({ set_C });
  process.stdout.write(
    `| ${[
      name,
      usual.toFixed(3),
      best.score.toFixed(3),
      Object.values(best.set).join(', '),
      search.score.toFixed(3),
      Object.values(search.settings).join(', '),
      (search.score - best.score).toFixed(3),
      looked.length,
      search.evaluated,
      grid_s.toFixed(0),
      search_s.toFixed(0),
    ].join(' | ')} |\n`,
  );
}
