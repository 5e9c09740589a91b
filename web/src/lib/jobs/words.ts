import type { GateResult, Step } from '@orthos/core';

export const stepLabel = (step: Step): string => step[0].toUpperCase() + step.slice(1);

/** One short line for a step in the strip, from its gates. */
export function stepSummary(gates: GateResult[]): { state: 'met' | 'open' | 'stop' | 'unknown'; text: string } {
  const open = gates.filter((g) => g.state !== 'met' && !g.overridden);
  if (open.length === 0) return { state: 'met', text: gates.length === 1 ? gates[0].why : 'done' };
  const hard = open.find((g) => g.hard);
  const first = hard ?? open[0];
  return {
    state: first.state === 'unknown' ? 'unknown' : hard ? 'stop' : 'open',
    text: first.label.toLowerCase(),
  };
}
