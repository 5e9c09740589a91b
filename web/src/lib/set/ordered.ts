/** An order as the log keeps it. */
import type { JobEventBody } from '@orthos/core/job';
import type { SetOrder, Stage } from '@orthos/core/sets';

export function orderedOf(
  { order, methods, minutes, list_minutes }: SetOrder,
  stage: Stage,
  byHand: boolean,
  hash: string | undefined,
): Extract<JobEventBody, { type: 'set-ordered' }> {
  return {
    type: 'set-ordered',
    stage,
    by: byHand ? 'hand' : 'computed',
    minutes,
    list_minutes,
    ...(hash === undefined ? {} : { hash }),
    legs: order.map(({ partId, op, start_s, end_s, start_C, rest_s, restFor, guide }) => {
      const way = methods.find((m) => m.partId === partId && m.op === op);
      return {
        ...{ partId, op, start_s, end_s, start_C, rest_s, restFor, guide },
        ...(way ? { methodId: way.method.id, phases: way.method.phases } : {}),
        ...(way?.covers ? { covers: way.covers } : {}),
      };
    }),
  };
}
