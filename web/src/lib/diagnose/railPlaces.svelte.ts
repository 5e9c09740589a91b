/** Where millivolts along rails put a short: computed in the pool, once for the rail's own panel and for the ranking. */
import { loadDrawing } from '$lib/boards/store';
import { runInPool } from '$lib/compute/pool';
import type { BoardModel } from '@orthos/core/board';
import { type Netlist, placesOfNet } from '@orthos/core/circuit';
import type { CopperDrawing } from '@orthos/core/copper';
import { copperBetween, copperOfNet, type Located, type LocateInput } from '@orthos/core/diagnosis';
import type { Place } from '@orthos/core/ground';
import type { JobState } from '@orthos/core/job';
import { placeName } from './place';

export type Profile = JobState['profiles'][number];

/** A rail's place, and the parts that were asked about. */
export interface RailPlace {
  profile: Profile;
  located: Located;
  /** Part of the board by the name it has in `located`. */
  partIds: ReadonlyMap<string, string>;
  /** Whether the copper is as drawn; else assumed. */
  drawn: boolean;
}

interface OnBoard {
  board: BoardModel;
  netlist: Netlist | null;
}

/** Width of tracks that nobody has named, mm. */
export const TRACK_MM = 1;
/** What a millivoltmeter is good for, mV. */
const NOISE_MV = 0.05;

/** Profiles that still hold, the last of each rail. */
export function standingProfiles(job: JobState): Profile[] {
  const since = job.profiles.slice(job.beforeWork?.profiles ?? 0);
  return since.filter((p, i) => since.findLastIndex((q) => q.net === p.net) === i);
}

/** The copper of a net on the side that it is probed from, as it is drawn; null where nothing is. */
export function drawnCopper({ board, netlist }: OnBoard, drawing: CopperDrawing | null, net: string, from: Place) {
  return drawing && copperOfNet(drawing, layerUnder(board, from), netlist?.alias[net] ?? net);
}
const layerUnder = (board: BoardModel, { side }: Place) => (side === 'bottom' ? board.stack.length - 1 : 0);

export class RailPlaces {
  /** By net; a rail without an entry has no profile, or is being computed. */
  byNet = $state.raw<ReadonlyMap<string, RailPlace>>(new Map());
  drawing = $state.raw<CopperDrawing | null>(null);
  problem = $state<string | null>(null);
  private asked = '';
  private running: AbortController | null = null;

  /** Fetches the copper as it is drawn, which may be large: when a rail is looked at, or was. */
  async draw(board: BoardModel): Promise<void> {
    if (board.drawing) this.drawing = await loadDrawing(board.drawing);
  }

  /** Computes anew what has changed. */
  async ask({ board, netlist }: OnBoard, profiles: readonly Profile[]): Promise<void> {
    const key = JSON.stringify([
      board.drawing,
      netlist?.alias,
      netlist?.parts.map((p) => p.pins),
      profiles.map((p) => p.id),
    ]);
    if (key === this.asked) return;
    this.asked = key;
    this.running?.abort();
    const running = (this.running = new AbortController());
    this.problem = null;
    try {
      if (profiles.length > 0) await this.draw(board);
      const found = new Map<string, RailPlace>();
      for (const profile of profiles)
        found.set(profile.net, await this.locate({ board, netlist }, profile, running.signal));
      if (!running.signal.aborted) this.byNet = found;
    } catch (e) {
      if (running.signal.aborted) return;
      // what was computed before is of other millivolts
      this.byNet = new Map();
      this.problem = (e as Error).message;
    }
  }

  private async locate(on: OnBoard, profile: Profile, signal: AbortSignal): Promise<RailPlace> {
    const { board, netlist } = on;
    const { net, injection, points } = profile;
    const nameOf = (p: Place) => placeName(board, p);
    const refOf = (p: Place) => nameOf(p).split('.')[0];
    const pads = placesOfNet(board, netlist, net);
    const drawn = drawnCopper(on, this.drawing, net, injection);
    const others = pads.filter((p) => nameOf(p) !== nameOf(injection));
    const copper = drawn ?? copperBetween([injection, ...others], profile.track_mm ?? TRACK_MM);
    const input: LocateInput = {
      current_A: profile.current_A,
      injection: { x_mm: injection.x_mm, y_mm: injection.y_mm },
      copper: { foil_um: board.stack[layerUnder(board, injection)].foil_um, ...copper },
      points: points.map(({ place: p, mV }) => ({ x_mm: p.x_mm, y_mm: p.y_mm, label: nameOf(p), mV })),
      candidates: pads.map((p) => ({ ref: refOf(p), x_mm: p.x_mm, y_mm: p.y_mm, weight: 1 })),
      noise_mV: NOISE_MV,
    };
    const located = await runInPool<Located>('diagnose.locate', input, { signal });
    const partIds = new Map(pads.flatMap((p) => (p.partId === undefined ? [] : [[refOf(p), p.partId] as const])));
    return { profile, located, partIds, drawn: drawn !== null };
  }

  end(): void {
    this.running?.abort();
  }
}
