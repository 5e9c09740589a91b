/** Bare lands walked row by row, one key each; of holes first the one face, then the other. What is said is kept at once. */
import type { Recorder } from '$lib/jobs/recorder.svelte';
import { type BoardModel, type PlacedPart, type Side, solderedTerminals } from '@orthos/core/board';
import { landKey } from '@orthos/core/job';
import type { LandMark } from '@orthos/core/hands';
import { rowsOf } from '@orthos/core/rework';

/** One land to look at. */
export interface Spot {
  key: string;
  terminal: string;
  far?: true;
  hole: boolean;
  /** Its row on its face, and its place there. */
  row: number;
  at: number;
  of: number;
}

/** Rows of a part that stand on the board, those that no tip reaches last. */
function rowsOn(part: PlacedPart): string[][] {
  const here = new Set(solderedTerminals(part).map((t) => t.id));
  const rows = rowsOf(part.package).map((r) => r.terminals.filter((t) => here.has(t)));
  const rest = [...here].filter((t) => !rows.some((r) => r.includes(t)));
  return [...rows, rest].filter((r) => r.length > 0);
}

export class LandWalk {
  readonly spots: Spot[];
  /** Seen from the side one works on: of holes the one with the solder. */
  readonly side: Side;
  /** Quarter turns of the view. */
  turns = $state(0);
  private at = $state(0);
  private readonly given = $state<Record<string, LandMark>>({});
  private readonly recorder: Recorder;
  private readonly stored: () => ReadonlyMap<string, LandMark>;
  // keys may come faster than the server answers: each goes to the one it was meant for
  private queue = Promise.resolve();

  constructor(part: PlacedPart, side: Side, recorder: Recorder, stored: () => ReadonlyMap<string, LandMark>) {
    this.recorder = recorder;
    this.stored = stored;
    this.side = side;
    const holes = new Set(solderedTerminals(part).flatMap((t) => (t.drill_mm ? [t.id] : [])));
    const rows = rowsOn(part);
    const face = (far?: true): Spot[] =>
      rows.flatMap((row, r) => {
        const mine = far ? row.filter((t) => holes.has(t)) : row;
        return mine.map((terminal, at): Spot => {
          const spot = { terminal, ...(far ? { far } : {}) };
          return {
            ...spot,
            key: landKey(spot),
            hole: holes.has(terminal),
            row: r + (far ? rows.length : 0),
            at,
            of: mine.length,
          };
        });
      });
    this.spots = [...face(), ...face(true)];
    this.at = Math.max(
      0,
      this.spots.findIndex((s) => this.stateOf(s) === undefined),
    );
  }

  stateOf({ key }: Pick<Spot, 'key'>): LandMark | undefined {
    return this.given[key] ?? this.stored().get(key);
  }
  due = $derived.by<Spot | null>(() => this.spots[this.at] ?? null);
  done = $derived.by(() => this.spots.filter((s) => this.stateOf(s) !== undefined).length);

  /** What is seen of the land that is due; on to the next that nobody has looked at. */
  say(state: LandMark): void {
    const { due } = this;
    if (!due) return;
    this.mark(due, state);
    this.next();
  }
  /** The rest of the row is clean, in one stroke. */
  rowIsClean(): void {
    const { due } = this;
    if (!due) return;
    for (const s of this.spots)
      if (s.row === due.row && s.at >= due.at && this.stateOf(s) === undefined) this.mark(s, 'good');
    this.next();
  }
  allClean(): void {
    for (const s of this.spots) if (this.stateOf(s) === undefined) this.mark(s, 'good');
    this.next();
  }
  go(to: Spot): void {
    this.at = this.spots.indexOf(to);
  }
  step(by: number): void {
    this.at = (Math.min(this.at, this.spots.length - 1) + by + this.spots.length) % this.spots.length;
  }
  /** On to the row after this one, or before. */
  stepRow(by: number): void {
    const row = (this.due ?? this.spots[this.spots.length - 1]).row;
    const rows = [...new Set(this.spots.map((s) => s.row))];
    const to = rows[(rows.indexOf(row) + by + rows.length) % rows.length];
    this.at = this.spots.findIndex((s) => s.row === to);
  }

  private next(): void {
    const open = (s: Spot) => this.stateOf(s) === undefined;
    const after = this.spots.findIndex((s, n) => n > this.at && open(s));
    const first = this.spots.findIndex(open);
    this.at = after >= 0 ? after : first >= 0 ? first : this.spots.length;
  }
  private mark({ key, terminal, far }: Spot, state: LandMark): void {
    this.given[key] = state;
    this.queue = this.queue.then(async () => {
      const told = await this.recorder.record({ type: 'land', terminal, state, ...(far ? { far } : {}) });
      if (!told) delete this.given[key];
    });
  }
}

/** The net of a land, where the board model knows it. */
export const netOf = (board: BoardModel, partId: string, terminal: string): string | undefined =>
  board.parts.find((p) => p.partId === partId)?.nets?.[terminal];
