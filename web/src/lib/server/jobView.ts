/** One job as its pages and endpoints see it: ticket, board, log, gates, plan and whether it is stale. */
import {
  contentHash,
  currentAttempt,
  DEFAULT_STATION,
  ENGINE_VERSION,
  fateOf,
  floodSolder,
  foldJob,
  isPolarised,
  judgeGates,
  layOutFor,
  methodSchema,
  methodsFor,
  onDial,
  packageById,
  solderedTerminals,
  staysLeadFree,
  standsAt,
  type BoardModel,
  type JobState,
  type Method,
  type Flood,
  type PlanResult,
  type ShopLimits,
  type StationModel,
} from '@orthos/core';
import { error } from '@sveltejs/kit';
import { z } from 'zod';
import type { Database } from './db/connect';
import type { KitSnapshot, PlanSettings } from './db/schema';
import { boardVersionById } from './repositories/boardModels';
import { shopSettings } from './repositories/settings';
import { circuitsOf } from './repositories/circuits';
import { goodReadingsOf } from './repositories/goodReadings';
import { goodStartUpsOf } from './repositories/goodStartUps';
import { eventsOf } from './repositories/jobEvents';
import { listKit } from './repositories/kit';
import { listMeters } from './repositories/meters';
import { photosOf } from './repositories/photos';
import { latestPlan, planById, type Plan } from './repositories/plans';
import { routinesOf } from './repositories/routines';
import { reopeningsOf, ticketById } from './repositories/tickets';

const AMBIENT_C = 22;

export interface PlanInputs {
  target: string;
  settings: PlanSettings;
  kit: KitSnapshot;
  station: StationModel;
  methods: { method: Method; unfit?: string }[];
  /** Rows of the limits table as this shop wants them; absent where it wants none. */
  limits?: ShopLimits;
  /** What this shop floods lands with. */
  flood: Flood;
  hash: string;
}

/** What a plan for this job would be computed from now; null without a target. */
async function planInputs(
  db: Database,
  boardHash: string,
  board: BoardModel,
  target: string | undefined,
  stored: PlanSettings | null,
): Promise<PlanInputs | null> {
  const part = board.parts.find((p) => p.partId === target);
  if (!part || packageById(part.package).terminals.length === 0) return null;
  const kit = await listKit(db);
  const { limits = {}, flood } = (await shopSettings(db)).value;
  const overridden = Object.keys(limits).length > 0 ? { limits } : {};
  const choose = (kind: 'air' | 'iron', id: string | undefined) =>
    kit.find((k) => k.id === id) ?? kit.find((k) => k.kind === kind);
  const station = choose('air', stored?.stationId);
  const iron = choose('iron', stored?.ironId);
  const model: StationModel = {
    ...(station?.doc ?? DEFAULT_STATION),
    ironPlusMinus_K: (iron?.doc ?? DEFAULT_STATION).ironPlusMinus_K,
  };
  const before = z.array(methodSchema).parse(stored?.methods ?? []);
  const methods = methodsFor(part.package, staysLeadFree(board, flood)).map((c) => ({
    ...c,
    method: onDial(before.find((m) => m.label === c.method.label) ?? c.method, model),
  }));
  const settings: PlanSettings = {
    v: 1,
    stationId: station?.id ?? '',
    ironId: iron?.id ?? '',
    ambient_C: stored?.ambient_C ?? AMBIENT_C,
    // absent where nothing is set, so that older plans keep their hash
    ...(stored?.surroundings ? { surroundings: stored.surroundings } : {}),
    methods: methods.map((m) => m.method),
  };
  return {
    target: part.partId,
    settings,
    kit: {
      station: { ...model, id: settings.stationId, name: station?.name ?? 'unknown station' },
      iron: { id: settings.ironId, name: iron?.name ?? 'unknown iron' },
    },
    station: model,
    methods,
    ...overridden,
    flood,
    hash: contentHash({ board: boardHash, target: part.partId, station: model, settings, ...overridden }),
  };
}

export type Freshness = 'fresh' | 'stale' | 'older-engine';

/** A plan against today's inputs. Once the hands have begun, nothing makes it stale. */
function freshnessOf(plan: Plan, inputs: PlanInputs | null, state: JobState): Freshness {
  if (currentAttempt(state).runs.length > 0) return 'fresh';
  if (plan.inputHash !== inputs?.hash) return 'stale';
  return plan.engineVersion < ENGINE_VERSION ? 'older-engine' : 'fresh';
}

/** The method of a plan that was chosen, with what it is expected to do. */
function planInUse(plan: Plan, label: string) {
  const method = plan.methods.find((m) => m.label === label);
  return method && plan.results[label] ? { label, method, result: plan.results[label] } : null;
}

/** Neighbours that something has to be done about first: hurt or perhaps hurt before the part is off, to be taken out, loose in the wind. */
function hotNeighbours(result: PlanResult): string[] {
  return result.neighbours
    .filter((n) => fateOf(result, n).first === 'wind' || fateOf(result, n).tone === 'stop')
    .map((n) => n.partId);
}

/** Loads the whole view; 404 when there is no such job. */
export async function jobView(db: Database, id: string) {
  const found = await ticketById(db, id);
  if (!found) error(404, 'There is no such job.');
  const { ticket, customer, serial, modelId } = found;
  const version = await boardVersionById(db, ticket.boardVersionId);
  if (!version) throw new Error(`Ticket ${ticket.number} pins a board version that does not exist`);
  const events = await eventsOf(db, id);
  const state = foldJob(events);
  const attempt = currentAttempt(state);
  const inputs = await planInputs(db, version.hash, version.doc, attempt.suspect?.partId, ticket.planSettings);
  const plan = await latestPlan(db, id);
  const mine = plan && plan.target === attempt.suspect?.partId ? plan : undefined;
  const freshness = mine && freshnessOf(mine, inputs, state);
  // the plan in use may be older than the one computed last
  const chosen = attempt.plan && (attempt.plan.planId === plan?.id ? plan : await planById(db, attempt.plan.planId));
  const inUse = chosen && attempt.plan ? planInUse(chosen, attempt.plan.label) : null;
  const target = version.doc.parts.find((p) => p.partId === attempt.suspect?.partId);
  const hot = inUse ? hotNeighbours(inUse.result) : null;
  const gates = judgeGates(state, {
    complaint: ticket.complaint,
    type: ticket.kind,
    powerSources: version.doc.powerSources,
    planFresh: chosen ? freshnessOf(chosen, inputs, state) !== 'stale' : null,
    hotNeighbours: hot,
    layOut: inUse
      ? layOutFor(
          inUse.method,
          inputs?.station ?? {},
          floodSolder(version.doc, inputs?.flood),
          inputs?.settings.surroundings?.joints,
        )
      : null,
    rails: version.doc.rails ?? [],
    loads: version.doc.loads ?? [],
    terminals: target ? solderedTerminals(target).map((t) => t.id) : null,
    targetPolarised: target ? isPolarised(target) : null,
  });
  const [circuits, goodReadings, goodStartUps, routines, meters, photos, reopenings] = await Promise.all([
    circuitsOf(db, modelId),
    goodReadingsOf(db, modelId),
    goodStartUpsOf(db, modelId),
    routinesOf(db, modelId),
    listMeters(db),
    photosOf(db, id),
    reopeningsOf(db, ticket),
  ]);
  return {
    ticket,
    customer,
    serial,
    board: version.doc,
    boardVersion: { number: version.number, hash: version.hash },
    events,
    gates,
    step: standsAt(state, ticket.kind),
    inputs,
    plan: mine ?? null,
    freshness: freshness ?? null,
    /** The plan that the hands follow, if one was chosen. */
    inUse,
    hotNeighbours: hot ?? [],
    modelId,
    /** Circuits drawn for this kind of board, what good boards of it read and draw, the shop's routines for it. */
    circuits,
    goodReadings,
    goodStartUps,
    routines,
    /** Meters of the kit: what they and their leads add to a reading. */
    meters,
    photos,
    reopenings,
  };
}
export type JobView = Awaited<ReturnType<typeof jobView>>;
