/** What a tool does to a run over time. Whoever drives a `ReworkRun` gives it one; a phase that hands over gives it the next. */
import type { HeatRun } from '../thermal/index.ts';
import type { AirOn } from './air.ts';
import type { Wind } from './wind.ts';

export interface Drive {
  /** Strokes loosen and lose joints by turns: until then all loose is not for good, s. */
  readonly settled_s: number;
  /** Whether joints have to mix with what was added before they are loose. */
  readonly mixes: boolean;
  /** Which joints were sucked empty, where only that looses them. */
  readonly freed?: readonly boolean[];
  /** What tips had on each joint so far, W/K·s. */
  readonly touched?: Float64Array;
  /** What its wind does to small parts. */
  readonly wind?: Wind;
  /** Whether a tip is down, and when one last came down somewhere else, or left, s. */
  readonly down: boolean;
  readonly moved_s: number;
  /** Whether joints can turn within a few steps: they are looked at after each. */
  readonly brisk: boolean;
  /** The air that blows at a time; the same object as long as nothing changes. */
  airAt(t: number): AirOn | undefined;
  /** Does what is due at a time; `molten` says which joints are through. */
  act(run: HeatRun, t: number, molten: (joint: number) => boolean): void;
}
