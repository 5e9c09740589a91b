/** Every way of working on one part, computed on one bench and put in order. */
import { type BoardModel, partName, type PlacedPart } from '../board/index.ts';
import type { CalcContext } from '../ground/index.ts';
import {
  caseOf,
  type Ensemble,
  ensembleOf,
  has,
  type Method,
  methodName,
  methodsOn,
  type MethodChoice,
  type OnOrOff,
  partOf,
  pieceOn,
  type PlanInput,
  type PlanRun,
  type ReworkPlace,
  runPlan,
  wantsOf,
  wetAt,
} from '../rework/index.ts';
import type { z } from 'zod';
import type { CompareInput, Comparison, methodsOutput, Row } from './forms.ts';
import { type Compared, inTheEnd } from './order.ts';
import { notHere, type Place, placeOf, rowOf } from './row.ts';

/** Runs at 6 000 cells that one of plan quality takes as long as. */
const PLAN_COSTS = 3;
/** Members of a design: twelve, sixteen above eleven inputs. */
export const LEAST_MEMBERS = 12;

/** The ways for a case as its bench can set them. */
export function choicesFor(asked: ReworkPlace, target: PlacedPart, op: OnOrOff = 'remove'): MethodChoice[] {
  const { station } = caseOf(asked);
  return methodsOn(target.package, pieceOn(asked.board, target, asked.surroundings), {
    kit: asked.kit,
    dials: station,
    op,
    housed: asked.surroundings?.held?.kind === 'housing',
  });
}

export function targetOf({ board, target }: ReworkPlace): PlacedPart {
  const part = board.parts.find((p) => p.partId === target);
  if (!part) throw new Error(`The board has no part "${target}".`);
  return part;
}

/** Lists every way with what it needs. `case.target` must be a part of the board with terminals. */
export function listMethods(asked: ReworkPlace): z.infer<typeof methodsOutput> {
  return {
    methods: choicesFor(asked, targetOf(asked)).map(({ method, unfit, cheapest }) => ({
      id: method.id,
      name: methodName(method.id),
      fits: unfit === undefined,
      ...(unfit ? { why: unfit } : {}),
      ...(cheapest ? { cheapest } : {}),
      needs: wantsOf(method).map((want) => ({ tool: want.tool, name: want.name, have: has(asked.kit, want) })),
      phases: method.phases.map((p) => p.kind),
    })),
  };
}

/** Throws `OutOfBoundsError` rather than tell a temperature that is not possible. */
export const compareMethods = (input: CompareInput, context: CalcContext): Promise<Comparison> =>
  compareWays(input, { op: 'remove', rowOf, notHere }, context);

/** How one kind of work makes rows. */
interface Rows<R extends Row> {
  op: OnOrOff;
  rowOf(method: Method, ensemble: Ensemble, place: Place): R;
  notHere(method: Method, lacking: readonly string[]): R;
}

/** Every way of doing one thing, in order. Throws as `compareMethods`. */
export async function compareWays<R extends Row>(
  input: CompareInput,
  { op, rowOf: make, notHere: lacking }: Rows<R>,
  context: CalcContext,
): Promise<Compared<R>> {
  const { case: asked, weights } = input;
  const target = targetOf(asked);
  const wanted = choicesFor(asked, target, op).filter(
    // what stands on its lands is heated again only when somebody says so
    (c) => !c.unfit && (input.methods?.includes(c.method.id) ?? !c.again),
  );
  const here = wanted.filter((c) => !c.lacks);
  const rows: R[] = wanted.flatMap((c) => (c.lacks ? [lacking(c.method, c.lacks)] : []));
  for (const [n, { method }] of here.entries()) {
    const found: PlanInput = { ...caseOf(asked, { op }), phases: method.phases, quality: input.quality, frames: false };
    const ensemble = await ensembleOf(
      found,
      {
        quality: 'coarse',
        least: LEAST_MEMBERS,
        nominalCosts: input.quality === 'plan' ? PLAN_COSTS : 1,
        settled: (run) => !input.ranges || isHopeless(run),
      },
      partOf(context, n / here.length, 1 / here.length),
    );
    const first = outFirst(ensemble.nominal, asked.board);
    if (first.length > 0) return { rows: [], recommended: null, reasons: outFirstReasons(first), first };
    const row = make(method, ensemble, placeOf(found, weights, asked.seed));
    rows.push({ ...row, procedure: { ...procedureOf(method, asked), op } });
  }
  return inTheEnd(rows, op);
}

/** The way that one quick run each speaks for: enough to choose by, not to tell anybody. `best`: null where nothing here does it. Throws as `compareMethods`. */
export async function glanceAtWays(
  found: Omit<PlanInput, 'phases'>,
  choices: readonly MethodChoice[],
  context: CalcContext,
): Promise<{ best: Method | null; why: string }> {
  const here = choices.filter((c) => !c.unfit && !c.lacks && !c.asked && !c.again);
  const look = async (until: 'shut' | 'told'): Promise<Row[]> => {
    const rows: Row[] = [];
    for (const [n, { method }] of here.entries()) {
      const input: PlanInput = { ...found, phases: method.phases, quality: 'search', frames: false };
      const nominal = await runPlan(input, partOf(context, n / here.length, 1 / here.length), until);
      const limit_s = method.phases.reduce((sum, p) => sum + p.giveUp_s, 0);
      const alone: Ensemble = { inputs: [], nominal, centre: nominal, members: [], limit_s };
      rows.push(rowOf(method, alone, placeOf(input)));
    }
    return rows;
  };
  const soon = await look('shut');
  // where each hurts somebody before all is loose, what happens after that tells them apart
  const rows = soon.some((r) => r.loose_s?.p50 !== null) ? soon : await look('told');
  const { rows: ordered, recommended, reasons } = inTheEnd(rows, found.fitting ? 'fit' : 'remove');
  // what is too near to plastic here may be done otherwise, or clear where it stands elsewhere
  const id = recommended ?? ordered.find((r) => r.loose_s?.p50 !== null)?.id;
  const choice = here.find((c) => c.method.id === id);
  return { best: choice?.method ?? null, why: reasons[1] };
}

/** A way as it was computed, to be run again; `covers` where others lie on the board than the case has. */
export function procedureOf(
  { id, phases }: Method,
  { target, surroundings }: Pick<ReworkPlace, 'target' | 'surroundings'>,
  covers = surroundings?.covers,
): NonNullable<Row['procedure']> {
  const around = { ...surroundings, ...(covers ? { covers } : {}) };
  return {
    ...{ v: 1, method: id, op: 'remove', partId: target },
    ...(Object.keys(around).length > 0 ? { surroundings: around } : {}),
    phases,
  };
}

/** Joints that stay this far below melting, and neighbours that get this much hotter than they stand, do so on any bench, K. */
const HOPELESS_K = { cold: 30, hot: 60 } as const;

/** Whether no bench would make this work: what is uncertain does not reach so far. */
function isHopeless({ allWet_s, joints, neighbours }: PlanRun): boolean {
  if (allWet_s === null)
    return joints.some((j) => wetAt(j) === null && j.peak_C < (j.liquidus_C ?? 0) - HOPELESS_K.cold);
  return neighbours.some((n) => n.margin_K !== null && n.margin_K !== undefined && n.margin_K < -HOPELESS_K.hot);
}

/** What has to come off the board before anything is heated. */
const outFirst = (run: PlanRun, board: BoardModel): NonNullable<Comparison['first']> =>
  run.neighbours
    .filter((n) => n.takeOut)
    .map(({ partId }) => {
      const part = board.parts.find((p) => p.partId === partId);
      return { what: part ? partName(part) : partId, partId };
    });

const outFirstReasons = (first: NonNullable<Comparison['first']>): string[] => [
  `Take ${first.map((f) => f.what).join(', ')} out first.`,
  'It stands within reach of the heat, and no limit is safe for it.',
  'Compare again with it off the board.',
];
