import type { Fitted } from '../family.ts';

/** One library package: a family, its parameters (those not said keep the family's initial value) and where they are from. */
export interface LibraryRow {
  id: string;
  label?: string;
  family: string;
  p: Record<string, number | string>;
  /** Spread of real parts: sizes in mm, heat figures as a fraction. */
  plusMinus?: { mm: number; heat: number };
  fitted?: Fitted;
  /** More words it is found by. */
  words?: string;
  source: string;
}

export const FITTED = 'nominal outline of the package standard; heat figures of the fitted set';
export const JEDEC = 'nominal outline of the JEDEC registration, from memory; heat figures derived from size';
export const EIA = 'nominal size of the EIA/IEC size code; heat figures derived from size';
export const TYPICAL = 'typical size of parts on the market, no standard; heat figures derived from size';
