import { freeOn, tuneInput, tuneSettings } from '@orthos/core/compare';
import { caseOf, methodsOn, pieceOn, reworkPlaceSchema } from '@orthos/core/rework';
import { importBoard } from '@orthos/formats';
import { readFileSync } from 'node:fs';
import { demoKit } from '../src/lib/server/demo/kit.ts';
import { lodestar } from '../src/lib/server/demo/lodestar.ts';
import { quillon } from '../src/lib/server/demo/quillon.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { weir } from '../src/lib/server/demo/weir.ts';
const { board: gantry } = importBoard([{ name: 'gantry.kicad_pcb', bytes: readFileSync('web/src/lib/server/demo/gantry.kicad_pcb') }]);
const kit = demoKit().flatMap((t) => (t.bench === 'full bench' ? [t.spec] : []));
for (const [board,target,id,...absent] of [[quillon,'q1','air-slow'],[quillon,'d3','air-slow'],[quillon,'u4','air-slow'],[quillon,'c5','air-slow'],[quillon,'q2','air-slow'],[ternT2,'u1','air-slow','bt1'],[ternT2,'u2','air-slow','bt1'],[lodestar,'u2','air-slow'],[weir,'c9','vacuum','bt1'],[weir,'k3','vacuum','bt1'],[gantry,'u3','air-fast']] as const) {
  const part=board.parts.find(p=>p.partId===target)!;
  const around=absent.length?{surroundings:{absent:[...absent]}}:{};
  const found=caseOf(reworkPlaceSchema.parse({board,target,kit,...around}));
  const m=methodsOn(part.package,pieceOn(board as never,part),{kit,dials:found.station}).find(m=>m.method.id===id)!;
  if (!m || m.unfit) { console.log(board.name,target,'unfit',m?.unfit); continue; }
  const t0=Date.now();
  try {
  const out=await tuneSettings(tuneInput.parse({...found,as:id,phases:m.method.phases,free:freeOn(m.method,kit)}),{now:()=>0});
  console.log(board.name,target,part.package,id,'before',out.before.score?.toFixed(3),out.before.verdict,'found',out.score.toFixed(3),out.row.verdict,out.p_open.toFixed(2),JSON.stringify(out.settings),out.row.loose_s?.p50?.toFixed(0),'s;',out.evaluated,'looked',((Date.now()-t0)/1000).toFixed(0),'s');
  } catch(e) { console.log(board.name,target,(e as Error).message, JSON.stringify((e as any).issues)); }
}
