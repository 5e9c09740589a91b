/** A set of parts that are done together: what is listed, in which order, which one hands are at. */
import { type Op, opsIn, type Stage } from '../sets/index.ts';
import type { SetEvent, SetItem, SetLeg, SetOrdered, SetSaid } from './setForms.ts';

export interface SetState {
  items: Map<string, SetItem>;
  /** The order of each stage, as it was said last. */
  ordered: Map<SetOrdered['stage'], SetOrdered>;
  /** The part that hands are at; null: none. */
  at: string | null;
}
export const freshSet = (): SetState => ({ items: new Map(), ordered: new Map(), at: null });

function withSaid(item: SetItem | undefined, said: SetSaid): SetItem {
  const all = Object.entries({ do: 'renew', ...item, ...said });
  return Object.fromEntries(all.filter(([, v]) => v !== null && v !== undefined && v !== '')) as SetItem;
}

/** Puts what was listed, dropped or ordered into a set. */
export function applySet(set: SetState, body: SetEvent): void {
  switch (body.type) {
    case 'set-parts':
      for (const said of body.items) set.items.set(said.partId, withSaid(set.items.get(said.partId), said));
      break;
    case 'set-dropped':
      for (const partId of body.partIds) set.items.delete(partId);
      if (set.at !== null && !set.items.has(set.at)) set.at = null;
      break;
    case 'set-ordered':
      set.ordered.set(body.stage, body);
      break;
    case 'set-at':
      set.at = body.partId;
  }
}

/** What is left to be done at a part of a set. */
export const leftOf = (item: Pick<SetItem, 'do'>, done: Record<Op, boolean>): Op[] =>
  opsIn('each', item.do).filter((op) => !done[op]);

/** What is done to all parts while an operation is on. */
export const STAGE_OF: Record<Op, Stage> = { remove: 'off', prepare: 'prepared', fit: 'fitted' };

/** Whether an order was computed for what is there now; true where either does not say. */
export const isFreshOrder = ({ hash }: Pick<SetOrdered, 'hash'>, now: string | undefined): boolean =>
  hash === undefined || now === undefined || hash === now;

/** The order that an operation goes by. */
export const orderFor = ({ set }: { set: SetState | null }, op: Op): SetOrdered | undefined =>
  set?.ordered.get(set.ordered.has('each') ? 'each' : STAGE_OF[op]);

/** What was ordered for a part of the set. */
export const legAt = (of: { set: SetState | null }, partId: string | undefined, op: Op): SetLeg | undefined =>
  partId === undefined ? undefined : orderFor(of, op)?.legs.find((l) => l.partId === partId && l.op === op);
