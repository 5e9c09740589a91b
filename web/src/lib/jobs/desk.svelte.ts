/**
 * What stage and panels of one job (or one board) share: what is looked at (`Desk`), and what panels lay over the board (`Overlays`, by `layOver`).
 */
import type { Side } from '@orthos/core/board';
import type { Place } from '@orthos/core/ground';
import type { FieldFrames } from '@orthos/core/rework';
import type { StageTool, StageView } from '$lib/stage/view';
import type { Isotherm } from '$lib/stage/heatLayer';
import { getContext, onDestroy, setContext, type Snippet, untrack } from 'svelte';

export type Lens = 'sheet' | 'parts' | 'copper' | 'readings' | 'heat' | 'circuit';
export const LENS_NAMES: Record<Lens, string> = {
  sheet: 'Part',
  parts: 'Parts',
  copper: 'Copper',
  readings: 'Readings',
  heat: 'Heat',
  circuit: 'Circuit',
};

export interface Callout {
  id: string;
  x_mm: number;
  y_mm: number;
  side: Side;
  title: string;
  detail: string;
  tone: 'hot' | 'evidence' | 'stop';
}

/** Damage on the board: strokes in board millimetres, or only a place. */
export interface PenMark {
  id: string;
  /** There before, done here, or being drawn. */
  tone: 'found' | 'ours' | 'now';
  side: Side;
  strokes: [number, number][][];
  at?: [number, number];
  label: string;
}

export interface HeatOnStage {
  frames: FieldFrames;
  side: Side;
  isotherms: Isotherm[];
}

/** The chosen method's times, for the scrubber. */
export interface MeltTimes {
  /** When each joint is molten, s. */
  joints: number[];
  allWet: number | null;
  allWetRange: { from: number | null; to: number | null };
  closes: number | null;
  closedBy: string;
  end: number;
}

/** Where the probes go: the next reading, and the other probe; `red`: the meter's red one is the other one. */
interface Probes {
  next: Place;
  other?: { place: Place; red: boolean };
}

/** A part of a set: its number in the order, what it has come to, from where the tool comes (as air is set), if it matters. */
export interface Numbered {
  partId: string;
  n: number;
  tone: 'done' | 'now' | 'next' | 'listed';
  from_deg?: number;
}

/** What a panel lays over the board. */
interface Sheet {
  callouts?: Callout[];
  /** Damage as it was marked, and what the pen draws now. */
  penMarks?: PenMark[];
  probes?: Probes;
  heat?: HeatOnStage;
  melt?: MeltTimes;
  /** Where foil is cut. */
  cut?: { side: Side; points: [number, number][] };
  /** Parts of a set, in their order; the way from one to the next is drawn where they have one. */
  numbered?: readonly Numbered[];
  /** Joint of the target that melts last, drawn hot. */
  marked?: { partId: string; terminal: string };
}
class Slot {
  sheet = $state.raw<Sheet>({});
}

/** What lies over the board. Each panel lays its own, by `layOver`, and it goes with the panel; of two of a kind the one laid later is seen. */
class Overlays {
  // not state itself: one panel comes while another goes, and neither may write what it read before the other wrote
  private readonly slots: Slot[] = [];
  private changed = $state.raw({});
  callouts = $derived(this.topmost('callouts') ?? []);
  penMarks = $derived(this.topmost('penMarks') ?? []);
  probes = $derived(this.topmost('probes'));
  heat = $derived(this.topmost('heat'));
  melt = $derived(this.topmost('melt'));
  marked = $derived(this.topmost('marked'));
  cut = $derived(this.topmost('cut'));
  numbered = $derived(this.topmost('numbered') ?? []);

  private topmost<K extends keyof Sheet>(kind: K): Sheet[K] {
    void this.changed;
    return this.slots.findLast((s) => s.sheet[kind] !== undefined)?.sheet[kind];
  }
  add(): Slot {
    const slot = new Slot();
    this.slots.push(slot);
    this.changed = {};
    return slot;
  }
  remove(slot: Slot): void {
    const at = this.slots.indexOf(slot);
    if (at >= 0) this.slots.splice(at, 1);
    this.changed = {};
  }
}

/** Lays over the board what `sheet` says, as long as the calling component is on the page. Components made later lie above. */
export function layOver(desk: Desk, sheet: () => Sheet): void {
  const slot = untrack(() => desk.over.add());
  $effect(() => {
    slot.sheet = sheet();
  });
  onDestroy(() => desk.over.remove(slot));
}

/** Shows a drawing of the part in the board's place, as long as the calling component is on the page; the board is a lens away. */
export function layOnStage(desk: Desk, sheet: Snippet): void {
  desk.sheet = sheet;
  desk.lens = 'sheet';
  onDestroy(() => {
    if (desk.sheet !== sheet) return;
    desk.sheet = undefined;
    if (desk.lens === 'sheet') desk.lens = 'parts';
  });
}

/** Shows something under board and panel, across the whole page, as long as the calling component is on it. */
export function layBelow(desk: Desk, strip: Snippet): void {
  desk.below = strip;
  onDestroy(() => {
    if (desk.below === strip) desk.below = undefined;
  });
}

/** Shows another board beside this one, as long as the calling component is on the page. */
export function layBeside(desk: Desk, board: Snippet): void {
  desk.beside = board;
  onDestroy(() => {
    if (desk.beside === board) desk.beside = undefined;
  });
}

/** What is looked at: side, lens, part, place, moment. The stage changes it, and so may any panel. */
export class Desk {
  side = $state<Side>('top');
  lens = $state<Lens>('parts');
  /** Copper layer shown by the copper lens, from the top; null: the side that is seen. */
  layer = $state<number | null>(null);
  /** Net that is lit up. */
  net = $state<string | null>(null);
  /** Selected part. */
  selected = $state<string | null>(null);
  /** Where the next reading or observation belongs. */
  place = $state<Place | null>(null);
  /** Seconds on the scrubber. */
  time = $state(0);
  /** Takes the pointer on the board before the stage does: one panel's at a time. */
  tool = $state.raw<StageTool | undefined>(undefined);
  /** What a panel shows of the part in the board's place. */
  sheet = $state.raw<Snippet | undefined>(undefined);
  /** What lies under board and panel, across the whole page. */
  below = $state.raw<Snippet | undefined>(undefined);
  /** What another board shows beside this one, in the same view. */
  beside = $state.raw<Snippet | undefined>(undefined);
  /** Where the board lies on the screen. */
  stage = $state.raw<StageView>({ scale: 8, ox: 0, oy: 0, mirrored: false, axis: 0 });
  readonly over = new Overlays();

  /** Shows a part on its side. */
  show(part: { partId: string; side: Side }): void {
    this.side = part.side;
    this.selected = part.partId;
  }
}

const KEY = Symbol('desk');
export const provideDesk = () => setContext(KEY, new Desk());
export const useDesk = () => getContext<Desk>(KEY);
