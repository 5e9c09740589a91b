/** What is found after fitting: joints pushed, pins measured, neighbours looked at one by one, first power stopped. */
import { proofKey, type ProofReading } from '../prove/index.ts';
import type { NeighbourState, ProvingEvent } from './provingForms.ts';

/** Of one attempt, since the last work on the board. */
export interface Proven {
  pushed: Map<string, boolean>;
  /** By `proofKey`. */
  proofs: Map<string, { read: ProofReading; simulated: boolean }>;
  looked: Map<string, NeighbourState>;
  stopped?: Extract<ProvingEvent, { type: 'power-stopped' }> & { id: string };
}
export const freshProven = (): Proven => ({ pushed: new Map(), proofs: new Map(), looked: new Map() });

export function applyProving(proven: Proven, eventId: string, body: ProvingEvent): void {
  switch (body.type) {
    case 'leg-pushed':
      proven.pushed.set(body.terminal, body.firm);
      break;
    case 'proved': {
      const { kind, terminal: at, to, read } = body;
      const simulated = 'simulated' in read && read.simulated === true;
      proven.proofs.set(proofKey({ kind, terminal: at, to }), { read, simulated });
      break;
    }
    case 'neighbour-looked':
      proven.looked.set(body.partId, body.state);
      break;
    case 'power-stopped':
      proven.stopped = { ...body, id: eventId };
  }
}
