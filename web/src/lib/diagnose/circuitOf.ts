/** Which circuit a job is judged by: what its readings mean, and what a simulated meter answers. */
import type { Netlist } from '@orthos/core/circuit';
import type { JobState } from '@orthos/core/job';

interface Drawn {
  id: string;
  netlist: Netlist;
  updatedAt: Date | string;
}

/** The chosen one, else the one drawn last. */
export function circuitOf<C extends Drawn>(circuits: readonly C[], job: Pick<JobState, 'circuitId'>): C | null {
  const chosen = circuits.find((c) => c.id === job.circuitId);
  return chosen ?? circuits.toSorted((a, b) => +new Date(b.updatedAt) - +new Date(a.updatedAt))[0] ?? null;
}
