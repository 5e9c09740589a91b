/** Solders that are worked in where nothing else is said. */
import type { Composition } from '../alloys/index.ts';

/** Leaded solder: it takes tens of kelvin off what a lead-free joint needs. */
export const LEADED: Composition = { Sn: 63, Pb: 37 };
