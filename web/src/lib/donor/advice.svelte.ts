/** What two boards of a kind have wrong, and what each way to one that works takes: minutes from an order of the parts in question, made by a worker. */
import type { DonorView } from '$lib/jobs/donorView';
import { stateOf } from '$lib/jobs/stateOf';
import type { JobView } from '$lib/jobs/view';
import { setBenchOf } from '$lib/set/setPlanner.svelte';
import type { PlacedPart } from '@orthos/core/board';
import { type BoardFault, faultsOf, type JobState, mayHold, type TwoBoardsWay, waysWithTwo } from '@orthos/core/job';
import type { SetInput, SetOrder } from '@orthos/core/sets';
import { proxy, wrap } from 'comlink';
import type { SetWorker } from '../../workers/set.worker';
import SetWorkerScript from '../../workers/set.worker?worker';

/** Parts that are computed at most: two boards with more wrong than that are no choice of minutes any more. */
const MOST = 12;

export interface Compared {
  here: BoardFault[];
  there: BoardFault[];
  /** Parts that hold what cannot be bought. */
  holders: string[];
  /** What minutes are needed of, the input of an order; null where no bench is known, or nothing is wrong. */
  input: SetInput | null;
}

/** What a part holds belongs to the owner: known, or to be expected of its kind, unless somebody said that it holds nothing. */
const carries = (state: JobState, part: PlacedPart): boolean =>
  (state.stored.get(part.partId)?.holds ?? mayHold(part)).length > 0;

export function comparedOf(view: JobView, donor: DonorView): Compared {
  const state = stateOf(view.events);
  const here = faultsOf(view.board, state);
  const there = faultsOf(donor.board, stateOf(donor.events));
  const holders = view.board.parts.filter((p) => p.ref && carries(state, p)).map((p) => p.partId);
  const meant = [...here, ...there].flatMap((f) => ((f.mend === 'part' || f.mend === 'empty') && f.partId) || []);
  const parts = [...new Set([...meant, ...(meant.length > 0 || here.length > 0 ? holders : [])])].slice(0, MOST);
  const bench = setBenchOf({ board: view.board, inputs: view.inputs ?? donor.inputs }, []);
  const input: SetInput | null =
    bench && parts.length > 0
      ? // off alive, made ready, on: all that may be asked of any of them
        { ...bench, set: parts.map((partId) => ({ partId, do: 'lend' })), stage: 'each', finalists: 0 }
      : null;
  return { here, there, holders, input };
}

export class Advice {
  ways = $state.raw<TwoBoardsWay[] | null>(null);
  progress = $state<number | null>(null);
  problem = $state<string | null>(null);
  private worker: Worker | undefined;
  private asked = '';

  /** Computes anew where what it rests on has changed. */
  async ask(view: JobView, donor: DonorView, compared: Compared): Promise<void> {
    const { here, there, holders, input } = compared;
    const key = JSON.stringify([here, there, holders, input]);
    if (key === this.asked) return;
    this.end();
    this.asked = key;
    this.problem = null;
    this.ways = null;
    if (here.length === 0) return;
    try {
      const order = input && (await this.order(input));
      if (this.asked !== key) return;
      this.ways = waysWithTwo({
        ...{ board: view.board, here, there, holders },
        names: { here: 'this board', there: `No. ${donor.number}` },
        minutesOf: (_, partId, op) => order?.order.find((l) => l.partId === partId && l.op === op)?.minutes ?? null,
      });
    } catch (e) {
      if (this.asked === key) this.problem = (e as Error).message;
    } finally {
      if (this.asked === key) this.progress = null;
    }
  }

  private async order(input: SetInput): Promise<SetOrder> {
    const worker = new SetWorkerScript();
    this.worker = worker;
    this.progress = 0;
    const failed = new Promise<never>((_, fail) =>
      worker.addEventListener('error', (e) => fail(new Error(e.message || 'its worker could not be loaded'))),
    );
    const told = proxy((done: number) => {
      if (this.worker === worker) this.progress = done;
    });
    const order = await Promise.race([wrap<SetWorker>(worker).order(input, { finalists: 0 }, told), failed]);
    worker.terminate();
    return order;
  }

  end(): void {
    this.worker?.terminate();
    this.worker = undefined;
    this.progress = null;
    this.asked = '';
  }
}
