/** Changes of a kind of board's circuits: begun, saved with the version that was seen, undone. */
import { reload, send, SendError } from '$lib/jobs/send';
import { partName, type PlacedPart } from '@orthos/core/board';
import { circuitPartFrom, type Netlist, netlistSchema, netsOf, tidied, withinNets } from '@orthos/core/circuit';
import type { JobEventBody } from '@orthos/core/job';
import { v7 } from 'uuid';
import type { Circuit } from './view';

export class CircuitEditor {
  busy = $state(false);
  problem = $state('');
  /** Earlier states of the circuit, for undo. */
  private past = $state.raw<Netlist[]>([]);
  private readonly at: () => { modelId: string; circuit: Circuit | null };
  private readonly record: (body: JobEventBody) => Promise<boolean>;

  constructor(
    at: () => { modelId: string; circuit: Circuit | null },
    record: (body: JobEventBody) => Promise<boolean>,
  ) {
    this.at = at;
    this.record = record;
  }

  get canUndo(): boolean {
    return this.past.length > 0;
  }

  private async attempt(work: () => Promise<void>): Promise<void> {
    this.busy = true;
    try {
      await work();
      this.problem = '';
    } catch (e) {
      const overtaken = e instanceof SendError && e.status === 409;
      this.problem = overtaken
        ? 'Somebody else has changed this circuit; theirs is shown now. Make your change again.'
        : (e as Error).message;
      if (overtaken) await reload('job:board');
    } finally {
      this.busy = false;
    }
  }

  /** A new circuit for this kind of board, used by this job. */
  begin(name: string, netlist: Netlist): Promise<void> {
    return this.attempt(async () => {
      const id = v7();
      await send('POST', `/api/boards/${this.at().modelId}/circuits`, { id, name, netlist });
      await reload('job:board');
      this.past = [];
      await this.record({ type: 'circuit-used', circuitId: id });
    });
  }

  save(next: Netlist, keep = true): Promise<void> {
    return this.attempt(async () => {
      const { circuit } = this.at();
      if (!circuit) return;
      const checked = netlistSchema.safeParse(tidied(next));
      if (!checked.success) throw new Error(checked.error.issues.map((i) => i.message).join('; '));
      const before = circuit.netlist;
      const { id, version, name } = circuit;
      await send('PUT', `/api/circuits/${id}`, { version, name, netlist: checked.data });
      if (keep) this.past = [...this.past.slice(-49), before];
      await reload('job:board');
    });
  }

  async undo(): Promise<void> {
    const last = this.past.at(-1);
    if (!last) return;
    this.past = this.past.slice(0, -1);
    await this.save(last, false);
  }

  /** Parts of the board, as what they most likely are. */
  async takeIn(parts: readonly PlacedPart[]): Promise<void> {
    const { circuit } = this.at();
    if (!circuit) return;
    const { netlist } = circuit;
    const known = new Set(netlist.parts.map((p) => p.partId ?? p.ref));
    const nets = new Set([netlist.ground, ...netsOf(netlist)]);
    const fresh = parts
      .map((part) => withinNets(circuitPartFrom(part, netlist.ground), nets))
      .filter((p) => !known.has(p.partId ?? p.ref));
    if (fresh.length > 0) await this.save({ ...netlist, parts: [...netlist.parts, ...fresh] });
    else this.problem = `${parts.map(partName).join(', ')}: in the circuit already.`;
  }
}
