/** The hidden bench of a run: what it shows of the board, joint by joint, and says in words. */
import { runInPool } from '$lib/compute/pool';
import type { HiddenTruth } from '@orthos/core/hands';
import type { PlanInput } from '@orthos/core/rework';
import type { Run } from '@orthos/core/job';
import { benchWords, looseJoints, type Turn } from './benchAnswers';

/** What is asked of it. */
interface Asked {
  /** Joints are gone through one by one, by one of the tools at least. */
  pinByPin: boolean;
  /** The part goes on: joints are made, not loosened. */
  fitting: boolean;
  run: Run | null;
  /** Turns of joints so far, and the one whose turn it is. */
  turns: readonly Turn[];
  joint: string | null;
  /** It is only tried. */
  tried: boolean;
  oneByOne: boolean;
  hot: boolean;
  heatOff: boolean;
  elapsed: number | null;
}

export class PlayedBench {
  truth = $state.raw<HiddenTruth | null>(null);
  problem = $state<string | null>(null);
  /** What is being played, or was. */
  private playing = '';
  private stopped = new AbortController();
  private readonly asked: () => Asked;
  constructor(asked: () => Asked) {
    this.asked = asked;
  }

  private pins = $derived.by(() => (this.asked().pinByPin ? this.truth?.pins : undefined));
  /** Joints that it shows as loose. */
  loose = $derived.by<ReadonlySet<string>>(() => {
    const { run, turns, oneByOne, hot, elapsed } = this.asked();
    if (!this.truth || run?.ended) return new Set();
    return looseJoints(this.truth, this.pins, turns, !oneByOne && hot ? elapsed : null);
  });
  says = $derived.by<string | null>(() => {
    const { truth, pins } = this;
    const { run, turns, joint, tried, fitting, hot, heatOff, elapsed } = this.asked();
    if (!truth || run?.ended || heatOff || (!hot && !pins)) return null;
    return benchWords(truth, { pins, turns, loose: this.loose, joint, tried, fitting, elapsed_s: elapsed ?? 0 });
  });

  /** Plays what hands go through, with so many phases of work before it; the same again after a reload: its seed is the run's id. */
  async play(runId: string, plan: PlanInput, before: number): Promise<void> {
    const playing = JSON.stringify([runId, plan.phases]);
    if (playing === this.playing) return;
    this.stop();
    this.playing = playing;
    const { signal } = (this.stopped = new AbortController());
    const seed = Number.parseInt(runId.replaceAll('-', '').slice(-8), 16);
    try {
      this.truth = await runInPool<HiddenTruth>('plan.bench', { plan, before, seed }, { signal });
    } catch (e) {
      if ((e as Error).name !== 'AbortError') this.problem = `The hidden bench stopped: ${(e as Error).message}`;
    }
  }
  stop(): void {
    this.stopped.abort();
    this.playing = '';
  }
}
