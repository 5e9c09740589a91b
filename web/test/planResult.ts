import { expressBoard, type PlanResult } from '@orthos/core/rework';

/** A small part beside plastic. */
export const express = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'pbt', distance_mm: 4 });

/** A plan for it that works, unless something is changed. */
export const result = (change: Partial<PlanResult> = {}): PlanResult => ({
  joints: [{ terminal: '1', solidus_s: 20, liquidus_s: 30, peak_C: 240 }],
  allWet_s: 30,
  freezes_s: null,
  last: { terminal: '1', why: 'it is far' },
  body_C: 240,
  pads_C: 235,
  neighbours: [],
  closes: null,
  ended_s: 90,
  cells: 1,
  steps: 1,
  allWetRange_s: { from: 25, to: 40 },
  closesRange_s: { from: null, to: null },
  matters: [],
  calibrated: false,
  ...change,
});

/** The plastic beside it, with room to spare. */
export const neighbour = (
  change: Partial<PlanResult['neighbours'][number]> = {},
): PlanResult['neighbours'][number] => ({
  partId: 'plastic',
  distance_mm: 4,
  limit_C: 200,
  limitPlusMinus_C: 12,
  says: 'clear',
  dose: 0,
  margin_K: 40,
  atWet_C: 140,
  peak_C: 150,
  over_s: null,
  loosens_s: null,
  ...change,
});
