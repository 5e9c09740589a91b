/** Lands or joints walked row by row, one key each; of holes first the one face, then the other. What is said is kept at once. */
import type { Recorder } from '$lib/jobs/recorder.svelte';
import { type BoardModel, type PlacedPart, type Side, solderedTerminals } from '@orthos/core/board';
import { type JobEventBody, landKey } from '@orthos/core/job';
import { rowsOf } from '@orthos/core/rework';

/** One to look at. */
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

interface Asked<S extends string> {
  part: PlacedPart;
  /** Seen from the side one works on: of holes the one with the solder. */
  side: Side;
  recorder: Recorder;
  stored: () => ReadonlyMap<string, S>;
  /** What most of them are: said of a row, or of all that are left, in one stroke. */
  good: S;
  /** What is kept of one. */
  event: (spot: Pick<Spot, 'terminal' | 'far'>, state: S) => JobEventBody;
  /** Of holes the other face as well. */
  bothFaces?: boolean;
  /** These alone. */
  only?: readonly string[];
}

/** Lands or joints of a part, walked. */
export class Walk<S extends string> {
  readonly spots: Spot[];
  readonly side: Side;
  /** Quarter turns of the view. */
  turns = $state(0);
  private at = $state(0);
  private readonly given = $state<Record<string, S>>({});
  private readonly asked: Asked<S>;
  // keys may come faster than the server answers: each goes to the one it was meant for
  private queue = Promise.resolve();

  constructor(asked: Asked<S>) {
    const { part, side, bothFaces = false, only } = asked;
    this.asked = asked;
    this.side = side;
    const holes = new Set(solderedTerminals(part).flatMap((t) => (t.drill_mm ? [t.id] : [])));
    const rows = rowsOn(part).map((row) => row.filter((t) => only?.includes(t) ?? true));
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
    this.spots = [...face(), ...(bothFaces ? face(true) : [])];
    this.at = this.first();
  }
  private first(): number {
    const open = this.spots.findIndex((s) => this.stateOf(s) === undefined);
    return open < 0 ? this.spots.length : open;
  }

  stateOf({ key }: Pick<Spot, 'key'>): S | undefined {
    return this.given[key] ?? this.asked.stored().get(key);
  }
  due = $derived.by<Spot | null>(() => this.spots[this.at] ?? null);
  done = $derived.by(() => this.spots.filter((s) => this.stateOf(s) !== undefined).length);

  /** What is seen of the land that is due; on to the next that nobody has looked at. */
  say(state: S): void {
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
      if (s.row === due.row && s.at >= due.at && this.stateOf(s) === undefined) this.mark(s, this.asked.good);
    this.next();
  }
  allClean(): void {
    for (const s of this.spots) if (this.stateOf(s) === undefined) this.mark(s, this.asked.good);
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
    const after = this.spots.findIndex((s, n) => n > this.at && this.stateOf(s) === undefined);
    this.at = after >= 0 ? after : this.first();
  }
  private mark({ key, terminal, far }: Spot, state: S): void {
    this.given[key] = state;
    this.queue = this.queue.then(async () => {
      const told = await this.asked.recorder.record(this.asked.event({ terminal, ...(far ? { far } : {}) }, state));
      if (!told) delete this.given[key];
    });
  }
}

/** The net of a land, where the board model knows it. */
export const netOf = (board: BoardModel, partId: string, terminal: string): string | undefined =>
  board.parts.find((p) => p.partId === partId)?.nets?.[terminal];
