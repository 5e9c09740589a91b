/** What a plan shows on the stage: field and isotherms, times for the scrubber, callouts. Pure: result in, drawing out. */
import type { Callout, HeatOnStage, MeltTimes } from '$lib/jobs/desk.svelte';
import { SOLDER_ALLOYS } from '@orthos/core/alloys';
import { type BoardModel, type PlacedPart, toBoard } from '@orthos/core/board';
import { formatTemperature, type UnitSettings } from '@orthos/core/ground';
import { packageById } from '@orthos/core/packages';
import { type FieldFrames, fateOf, harmOf, type PlanResult, wetAt, windowEnd } from '@orthos/core/rework';
import { nameOf } from '$lib/jobs/nameOf';
import { closedBy, fateText, rangeText, seconds, verdictOf, worthShowing } from './words';

/** Isotherms closer than this would lie on each other, K. */
const APART_K = 5;
/** A neighbour with less room than this is called out, K, where it gets warm at all. */
const CLOSE_K = 40;
const WARM_K = 8;
/** Callouts of neighbours beside the last joint's. */
const MOST = 2;

/** The field with the melting range of the last joint, else of the board's own solder; undefined where neither is known. */
export function heatOnStage(
  board: BoardModel,
  target: PlacedPart,
  frames: FieldFrames,
  result: PlanResult | undefined,
  units: UnitSettings,
): HeatOnStage | undefined {
  const last = result?.joints.find((j) => j.terminal === result.last?.terminal);
  const own = SOLDER_ALLOYS.get(board.jointAlloy);
  const [solidus_C, liquidus_C] =
    last?.solidus_C !== undefined && last.liquidus_C !== undefined
      ? [last.solidus_C, last.liquidus_C]
      : [own?.Ts.value, own?.Tl.value];
  if (solidus_C === undefined || liquidus_C === undefined) return undefined;
  const isotherms = [
    { celsius: solidus_C, dashed: true },
    { celsius: liquidus_C, dashed: false },
  ]
    .filter((i, n, all) => n === all.length - 1 || i.celsius < all[n + 1].celsius - APART_K)
    .map((i) => ({ ...i, label: formatTemperature(i.celsius, units) }));
  return { frames, side: target.side, isotherms };
}

export const meltTimes = (board: BoardModel, result: PlanResult): MeltTimes => ({
  joints: result.joints.flatMap((j) => wetAt(j) ?? []),
  allWet: result.allWet_s,
  allWetRange: result.allWetRange_s,
  closes: windowEnd(result),
  closedBy: closedBy(board, result),
  end: result.ended_s,
});

/** Where a joint of a placed part lies on the board. */
function terminalPoint(part: PlacedPart, id: string): { x_mm: number; y_mm: number } {
  const terminal = packageById(part.package).terminals.find((t) => t.id === id);
  const [x_mm, y_mm] = toBoard(part, terminal?.land.x ?? 0, terminal?.land.y ?? 0);
  return { x_mm, y_mm };
}

/** The last joint, and the neighbours nearest to harm. */
export function planCallouts(
  board: BoardModel,
  target: PlacedPart,
  result: PlanResult,
  ambient_C: number,
  units: UnitSettings,
): Callout[] {
  const { last } = result;
  const close = worthShowing(result, 6)
    .filter((n) => n.takeOut || ((harmOf(n).margin_K ?? Infinity) < CLOSE_K && n.atWet_C > ambient_C + WARM_K))
    .slice(0, MOST);
  return [
    ...(last
      ? [
          {
            id: 'last',
            ...terminalPoint(target, last.terminal),
            side: target.side,
            title: `joint ${last.terminal} is last`,
            detail:
              result.allWet_s === null ? verdictOf(result).word : `${seconds(result.allWet_s)}, ${rangeText(result)}`,
            tone: 'hot' as const,
          },
        ]
      : []),
    ...close.flatMap((n) => {
      const part = board.parts.find((p) => p.partId === n.partId);
      if (!part) return [];
      const fate = fateOf(result, n);
      return [
        {
          id: n.partId,
          x_mm: part.x_mm,
          y_mm: part.y_mm,
          side: part.side,
          title: `${nameOf(board, n.partId)} ${formatTemperature(n.atWet_C, units)}`,
          detail: [fate.word, fateText(n, fate, units)].filter(Boolean).join(', '),
          tone: 'stop' as const,
        },
      ];
    }),
  ];
}
