/** Every way of working on one part, computed on one bench and put in order. */
import { type BoardModel, partName, type PlacedPart } from '../board/index.ts';
import type { CalcContext } from '../ground/index.ts';
import {
  caseOf,
  ensembleOf,
  has,
  lacks,
  type Method,
  methodName,
  methodsFor,
  type MethodChoice,
  onBench,
  onDial,
  partOf,
  type PlanInput,
  type PlanRun,
  type ReworkPlace,
  wantsOf,
  wetAt,
} from '../rework/index.ts';
import type { z } from 'zod';
import type { CompareInput, Comparison, methodsOutput, Row } from './forms.ts';
import { notHere, type Place, rowOf } from './row.ts';

/** Runs at 6 000 cells that one of plan quality takes as long as. */
const PLAN_COSTS = 3;
/** Members of a design: twelve, sixteen above eleven inputs. */
const LEAST_MEMBERS = 12;

/** Copper of a board that swallows heat: its foils by what they cover, µm in all. */
const HEAVY_UM = 150;

/** What the shop's rule says of lead on this board: one without lead may have it, unless it is to stay so. */
const pieceOf = ({ jointAlloy, stack }: BoardModel, target: PlacedPart) => ({
  jointAlloy,
  heavy: stack.reduce((um, l) => um + l.foil_um * l.coverage, 0) >= HEAVY_UM,
  at: { x_mm: target.x_mm, y_mm: target.y_mm, rotation_deg: target.rotation_deg },
});

/** The ways for a case as its bench can set them. */
function choicesFor(asked: ReworkPlace, target: PlacedPart): MethodChoice[] {
  const { station } = caseOf(asked);
  return methodsFor(target.package, pieceOf(asked.board, target)).map((c) => ({
    ...c,
    method: onDial(onBench(c.method, asked.kit), station),
  }));
}

function targetOf({ board, target }: ReworkPlace): PlacedPart {
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

const ORDER: Record<Row['verdict'], number> = { works: 0, tight: 1, no: 2, 'not here': 3 };

/** By verdict, then score; what is a last resort behind all else of its verdict. */
function inOrder(rows: readonly Row[]): Row[] {
  const rank = (r: Row) => [ORDER[r.verdict], r.lastResort ? 1 : 0, r.score ?? Infinity];
  return [...rows].sort((a, b) => {
    const [x, y] = [rank(a), rank(b)];
    const at = x.findIndex((v, i) => v !== y[i]);
    return at < 0 ? 0 : x[at] - y[at];
  });
}

/** Throws `OutOfBoundsError` rather than tell a temperature that is not possible. */
export async function compareMethods(input: CompareInput, context: CalcContext): Promise<Comparison> {
  const { case: asked, weights } = input;
  const target = targetOf(asked);
  const place: Place = { asked, board: asked.board, target, weights };
  const wanted = choicesFor(asked, target).filter(
    (c) => !c.unfit && (input.methods === undefined || input.methods.includes(c.method.id)),
  );
  const lacking = new Map(wanted.map((c) => [c.method.id, lacks(c.method, asked.kit).map((w) => w.name)]));
  const here = wanted.filter((c) => lacking.get(c.method.id)?.length === 0);
  const rows: Row[] = wanted
    .filter((c) => !here.includes(c))
    .map((c) => notHere(c.method, lacking.get(c.method.id) ?? []));
  for (const [n, { method }] of here.entries()) {
    const ensemble = await ensembleOf(
      planInput(asked, method, input.quality),
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
    rows.push(rowOf(method, ensemble, place));
  }
  return inTheEnd(rows);
}

/** Rows in order, with the one that is recommended and why. */
export function inTheEnd(rows: readonly Row[]): Comparison {
  const ordered = inOrder(rows);
  const usable = ordered.filter((r) => r.verdict === 'works' || r.verdict === 'tight');
  const recommended = usable.find((r) => !r.lastResort) ?? usable.at(0) ?? null;
  return {
    rows: ordered,
    recommended: recommended?.id ?? null,
    reasons: reasonsFor(recommended, ordered),
  };
}

function planInput(asked: ReworkPlace, { phases }: Method, quality: CompareInput['quality']): PlanInput {
  return { ...caseOf(asked), phases, quality, frames: false };
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

const percent = (p: number): string => `${Math.round(100 * p)} %`;

/** Three lines for the one that is recommended: what it does, what it spares, against what. */
function reasonsFor(row: Row | null, rows: readonly Row[]): string[] {
  if (!row?.window || !row.loose_s) {
    const best = rows.find((r) => r.verdict === 'no');
    return [
      rows.length === 0 ? 'Nothing on this bench can take it off.' : 'No way on this bench leaves a safe window.',
      best ? `Nearest: ${best.name.toLowerCase()}, but ${best.why}.` : 'Tools are missing for all of them.',
      best?.cheapest ?? rows.find((r) => r.cheapest)?.cheapest ?? 'Send it to somebody with more tools.',
    ];
  }
  const { window, loose_s, worst, land, minutes } = row;
  const heat = row.heat_s?.p50;
  const next = rows.find((r) => r.id !== row.id && r.verdict !== 'not here');
  const of = heat === null || heat === undefined ? '' : `, of it ${Math.round(heat)} s under heat`;
  const spared = worst
    ? `worst neighbour ${worst.margin_K === null ? 'is never near its limit' : `stays ${Math.round(worst.margin_K)} K from its limit`}`
    : 'no neighbour is near a limit';
  return [
    `About ${Math.round(loose_s.p50 ?? 0)} s until all is loose${of}; the window is open on ${percent(window.p_open)} of benches.`,
    `Land torn: ${percent(land?.p_torn ?? 0)}; ${spared}.`,
    next
      ? `${Math.round(minutes ?? 0)} min in all; next best, ${next.name.toLowerCase()}: ${next.why}.`
      : `${Math.round(minutes ?? 0)} min in all; nothing else here does it.`,
  ];
}
