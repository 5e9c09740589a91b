/**
 * What a search finds for the planned jobs of the demo shop, as the interface asks for it: all dials that the full bench can turn, covers where somebody is
 * hurt. Run: npx tsx web/scripts/planned-searches.ts [part …]; some five minutes. docs/physics/search.md keeps what it printed.
 */
import type { BoardModel } from '@orthos/core/board';
import { freeOn, planWay, tuneInput, tuneSettings } from '@orthos/core/compare';
import { caseOf, COVER_KINDS, type Kit, methodsOn, pieceOn, reworkPlaceSchema } from '@orthos/core/rework';
import { importBoard } from '@orthos/formats';
import { readFileSync } from 'node:fs';
import { demoKit } from '../src/lib/server/demo/kit.ts';
import { lodestar } from '../src/lib/server/demo/lodestar.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { weir } from '../src/lib/server/demo/weir.ts';

const file = new URL('../src/lib/server/demo/gantry.kicad_pcb', import.meta.url);
const { board: gantry } = importBoard([{ name: 'gantry.kicad_pcb', bytes: new Uint8Array(readFileSync(file)) }]);

const JOBS: [name: string, board: BoardModel, part: string, way: string][] = [
  ['quillon-q1', quillon, 'q1', 'air-slow'],
  ['quillon-d3', quillon, 'd3', 'air-slow'],
  ['quillon-u4', quillon, 'u4', 'air-slow'],
  ['quillon-c5', quillon, 'c5', 'air-slow'],
  ['quillon-q2', quillon, 'q2', 'air-slow'],
  ['tern-u1', ternT2, 'u1', 'air-slow'],
  ['tern-u2', ternT2, 'u2', 'air-slow'],
  ['lodestar-u2', lodestar, 'u2', 'air-slow'],
  ['weir-c9', weir, 'c9', 'vacuum'],
  ['weir-k3', weir, 'k3', 'vacuum'],
  ['gantry-u3', gantry, 'u3', 'air-fast'],
];
const kit: Kit = demoKit().flatMap((t) => (t.bench === 'full bench' ? [t.spec] : []));
const context = { now: () => 0 };
const wanted = process.argv.slice(2);

for (const [name, board, target, way] of JOBS.filter(([n]) => wanted.length === 0 || wanted.includes(n))) {
  const part = board.parts.find((p) => p.partId === target);
  if (!part) throw new Error(`${board.name} has no ${target}`);
  const found = caseOf(reworkPlaceSchema.parse({ board, target, kit, seed: 1 }));
  const method = methodsOn(part.package, pieceOn(board, part), { kit, dials: found.station }).find(
    (m) => m.method.id === way,
  )?.method;
  if (!method) throw new Error(`no ${way}`);
  const { phases } = method;
  const plan = { ...found, phases, quality: 'coarse' as const, frames: false };
  const { worst } = (await planWay({ plan, as: way, ranges: false }, context)).row ?? {};
  const near = board.parts.find((p) => p.partId === worst?.partId);
  const kind = COVER_KINDS.find((k) => kit.some((i) => i.tool === 'cover' && i.kind === k));
  const cover = near && kind && near.side === part.side ? { [`cover.${near.partId}`]: ['none', kind] } : {};
  const { quality: _, frames: __, ...said } = plan;
  const began = Date.now();
  const asked = tuneInput.parse({ ...said, as: way, free: { ...freeOn(method, kit), ...cover } });
  const tuned = await tuneSettings(asked, context);
  const loose = tuned.row.loose_s?.p50;
  process.stdout.write(
    `| ${[
      name,
      way,
      tuned.before.score?.toFixed(3),
      tuned.score.toFixed(3),
      tuned.row.verdict,
      `${(100 * tuned.p_open).toFixed(0)} %`,
      loose ? `${loose.toFixed(0)} s` : '–',
      tuned.evaluated,
      `${((Date.now() - began) / 1000).toFixed(0)} s`,
    ].join(' | ')} |\n`,
  );
}
