/** Solders that are worked in where nothing else is said. */
import { type Composition, PLACES } from '../alloys/index.ts';
import type { JointState } from './bench/surroundingsForm.ts';

/** Leaded solder: it takes tens of kelvin off what a lead-free joint needs. */
export const LEADED: Composition = { Sn: 63, Pb: 37 };

/** What lands hold that were flooded, braided and left: a film of what they were flooded with, as much as braid leaves. */
export const FILM: JointState = { alloy: LEADED, volume: PLACES.lands.wick };
