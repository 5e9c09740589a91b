import type { Hold } from '@orthos/core/compare';

const WORDS: Record<Hold['by'], (h: Hold) => string> = {
  body: (h) => `by its body, jaws at ${h.hours.join(' and ')} o’clock, with ${h.tool}`,
  leg: (h) => `by a leg, from ${h.hours[0]} o’clock: no room for jaws at its faces`,
  cup: () => 'with a suction cup on its top',
  pick: (h) => `with a ${h.tool}${h.hours.length > 0 ? `, from ${h.hours[0]} o’clock` : ''}: no room for jaws`,
};

/** How a part is taken hold of, in words; hours as on a clock round it, seen from its side. */
export const holdWords = (hold: Hold): string => WORDS[hold.by](hold);
