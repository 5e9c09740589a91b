/** What a reading of a proof was of, and what it said. */
import type { Measured } from '../ground/index.ts';

export interface Place {
  partId: string;
  terminal: string;
}
export interface Probed {
  /** `apart`: no solder between them. `through`: from its leg to where its track goes. */
  kind: 'apart' | 'through';
  terminal: string;
  to: Place;
}
export type ProofReading = { ohm: Measured } | { said: 'beeps' | 'silent' };

export const proofKey = ({ kind, terminal, to }: Probed): string => `${kind} ${terminal} ${to.partId}/${to.terminal}`;
