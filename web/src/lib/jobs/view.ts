/** What the pages of a job know of it. The server writes it, in `server/jobs/jobView.ts`; here is its form alone. */
import type { BoardModel } from '@orthos/core/board';
import type { Flood, Step, Supplies } from '@orthos/core/hands';
import type { PlanSettings } from '$lib/plan/stored';
import type { GateResult, JobEvent, JobType, KitSnapshot } from '@orthos/core/job';
import type { Free, Planned } from '@orthos/core/compare';
import type {
  Kit,
  LayOut,
  Method,
  MethodChoice,
  Panel,
  PlanResult,
  ShopLimits,
  StationModel,
} from '@orthos/core/rework';

/** Kinds of cover, of heat from below and of fixture that lie on a bench; null: nobody listed it, everything is there. */
export interface AtBench {
  /** Every tool of it, as plans are told; absent where nobody listed them. */
  tools?: Kit;
  covers: string[] | null;
  below: string[] | null;
  fixtures: string[] | null;
  supplies: Supplies;
}

/** What a plan for a job would be computed from now. */
export interface PlanInputs {
  target: string;
  settings: PlanSettings;
  kit: KitSnapshot;
  station: StationModel;
  methods: MethodChoice[];
  /** Ways of putting it on; the one that was chosen, where one was. */
  fits: MethodChoice[];
  fitBy: string | null;
  /** Plans are of putting it on. */
  fitting?: true;
  /** Methods that somebody set; the others are as this bench can be set. */
  edited: string[];
  /** What of each method can be turned on this bench: what a search of settings may look at. */
  free: Record<string, Free>;
  /** Where it is done, and all benches there are. */
  bench: { name: string; names: string[] } & AtBench;
  /** Rows of the limits table as this shop wants them; absent where it wants none. */
  limits?: ShopLimits;
  /** Ways this shop does not work by; absent where it has no such rule. */
  never?: string[];
  /** The user's units, and what the dials of the station say. */
  panel: Panel;
  /** What this shop floods lands with. */
  flood: Flood;
  hash: string;
  /** Of what an order of a set is computed for: board, bench and surroundings. */
  setHash: string;
}

export type Freshness = 'fresh' | 'stale' | 'older-engine';

/** The board of a job: a published version, which never changes. */
export interface BoardView {
  board: BoardModel;
  boardVersion: { id: string; number: number; hash: string };
  modelId: string;
}

interface TicketView {
  id: string;
  number: number;
  kind: JobType;
  boardVersionId: string;
  /** The board that lies there. */
  boardId: string;
  device: string;
  complaint: string;
  inBox: string;
  waitsFor: string;
  /** Date, as 2026-03-04. */
  promisedOn: string | null;
  /** UTC ms. */
  createdAt: number;
  closedAt: number | null;
  version: number;
}

interface PhotoView {
  id: string;
  taken: 'before' | 'during' | 'after';
  width: number;
  height: number;
}

/** Where a job stands, all but its log. */
export interface JobStanding {
  ticket: TicketView;
  customer: { name: string; contact: string };
  serial: string;
  step: Step;
  gates: GateResult[];
  inputs: PlanInputs | null;
  /** The plan computed last for the target that is chosen now. */
  plan: { id: string; results: Readonly<Record<string, Planned>>; whole: boolean } | null;
  freshness: Freshness | null;
  /** The plan that the hands follow, if one was chosen. */
  inUse: { planId: string; method: Method; result: PlanResult } | null;
  /** What it wants within reach, and set to what. */
  layOut: LayOut | null;
  /** Neighbours that something has to be done about first. */
  hotNeighbours: string[];
  /** Lead came onto the board. */
  leadUsed: boolean;
  photos: PhotoView[];
  reopenings: { earlier: { id: string; number: number } | null; later: { id: string; number: number }[] };
}

/** How a job goes out to a page that has its log up to an event: that event, or null where the log is whole, and what was written since. */
export interface JobAnswer extends JobStanding {
  log: { after: string | null; events: JobEvent[] };
}

/** The board is as the one that lies there was measured. */
export interface JobView extends BoardView, JobStanding {
  /** Of its drawing, mm. */
  drawn_mm: number;
  events: JobEvent[];
}
