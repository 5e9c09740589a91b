import type { AirMethod } from '../src/rework/method.ts';

/** A usual hot-air method for tests. */
export const air = (change: Partial<AirMethod> = {}): AirMethod => ({
  kind: 'air',
  label: 'air',
  set_C: 400,
  flow_L_min: 45,
  nozzle_mm: 8,
  standoff_mm: 10,
  sweep_mm: 4,
  limit_s: 150,
  ...change,
});
