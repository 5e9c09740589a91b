/** A job as rules see it: ticket, board, log so far, gates, the plan computed last. What is immutable or only grows is kept in memory between requests. */
import { type BoardModel, isPolarised, type PlacedPart, solderedTerminals } from '@orthos/core/board';
import { contentHash } from '@orthos/core/ground';
import { drawnMark, layOutFor, plannedCovers, staysLeadFree, suppliesOf, type Work } from '@orthos/core/hands';
import { legsToPush, proofsOf } from '@orthos/core/prove';
import { atRisk } from '$lib/jobs/atRisk';
import {
  asMeasured,
  currentAttempt,
  type JobState,
  judgeGates,
  legAt,
  mayHold,
  type RunningJob,
  setProgress,
} from '@orthos/core/job';
import { packageById } from '@orthos/core/packages';
import { freeOn } from '@orthos/core/compare';
import { fateOf, isDoable, type Kit, methodsOn, type OnOrOff, pieceOn, type PlanResult } from '@orthos/core/rework';
import { ENGINE_VERSION } from '@orthos/core/thermal';
import type { Database } from '../db/connect.ts';
import { handsAt } from '../../jobs/handsAt.ts';
import type { AtBench, Freshness, PlanInputs } from '../../jobs/view.ts';
import { asFirst, type PlanSettings, planSettingsSchema, type StoredPlanSettings } from '../../plan/stored.ts';
import { Kept, MadeOf } from '../kept.ts';
import { boardVersionById, type BoardVersion } from '../repositories/boardModels.ts';
import { planById, type Plan } from '../repositories/plans.ts';
import { shopAt, type Shop } from '../repositories/shop.ts';
import type { Judged } from '../repositories/tickets.ts';
import { benchFor, benchNames } from './bench.ts';
import { logOf } from './logs.ts';

const AMBIENT_C = 22;

/** What plans would be computed from, and the hash of a stored plan's part of it. */
interface Basis {
  inputs: PlanInputs;
  hashFor(plan: Pick<Plan, 'v' | 'methods'>): string;
}

/** What a plan for this job would be computed from now; null without a target. */
function basisOf(
  { hash: boardHash, doc: board }: BoardVersion,
  target: string,
  kept: StoredPlanSettings | null,
  { kit, settings: { limits = {}, flood, temperature, length, never } }: Shop,
): Basis | null {
  const stored = kept ? planSettingsSchema.parse(kept) : null;
  const part = board.parts.find((p) => p.partId === target);
  if (!part || packageById(part.package).terminals.length === 0) return null;
  const overridden = Object.keys(limits).length > 0 ? { limits } : {};
  const bench = benchFor(kit, stored ?? {});
  const { station, iron, model } = bench;
  const piece = { ...pieceOn(board, part, stored?.surroundings), leadFree: staysLeadFree(board, flood) };
  const edited = new Map([...(stored?.methods ?? []), ...(stored?.fits ?? [])].map((m) => [m.id, m]));
  const ways = (op: OnOrOff) =>
    methodsOn(part.package, piece, {
      ...{ kit: bench.kit, dials: model, never, op },
      housed: stored?.surroundings?.held?.kind === 'housing',
    }).map((c) => ({ ...c, method: edited.get(c.method.id) ?? c.method }));
  const [methods, fits] = [ways('remove'), ways('fit')];
  const settings: PlanSettings = {
    v: 2,
    stationId: station?.id ?? '',
    ironId: iron?.id ?? '',
    ambient_C: stored?.ambient_C ?? AMBIENT_C,
    // absent where nothing is set, so that older plans keep their hash
    ...(bench.name ? { bench: bench.name } : {}),
    ...(stored?.surroundings ? { surroundings: stored.surroundings } : {}),
    methods: methods.map((m) => m.method),
    ...(stored?.fits ? { fits: stored.fits } : {}),
    ...(stored?.fitBy ? { fitBy: stored.fitBy } : {}),
  };
  // a plan is compared by the methods it has: one that came later makes none of them stale
  // what a dial is called, and a bench, changes no heat; how it goes on, nothing of how it comes off
  const physical = { ...model, dials: undefined };
  const hashOf = (s: PlanSettings | ReturnType<typeof asFirst>) =>
    contentHash({
      board: boardHash,
      target: part.partId,
      station: physical,
      settings: { ...s, bench: undefined, fits: undefined, fitBy: undefined },
      ...overridden,
    });
  const { joints: _, reused: __, ...surroundings } = stored?.surroundings ?? {};
  const around = { ambient_C: settings.ambient_C, surroundings };
  const inputs: PlanInputs = {
    target: part.partId,
    settings,
    kit: {
      station: { ...model, id: settings.stationId, name: station?.name ?? 'no air station' },
      iron: { id: settings.ironId, name: iron?.name ?? 'no iron' },
      ...(bench.name ? { bench: bench.name } : {}),
    },
    station: model,
    methods,
    fits,
    fitBy: stored?.fitBy ?? null,
    edited: [...edited.keys()],
    free: Object.fromEntries(
      [...methods, ...fits].filter(isDoable).map(({ method }) => [method.id, freeOn(method, bench.kit)]),
    ),
    bench: {
      ...{ name: bench.name, names: benchNames(kit) },
      ...aroundOn(bench.kit),
      supplies: suppliesOf(bench.kit, board, flood),
    },
    ...overridden,
    ...(never?.length ? { never } : {}),
    panel: { temperature, length, air: model.air, dials: model.dials },
    flood,
    hash: hashOf(settings),
    setHash: contentHash({
      ...{ board: boardHash, station: physical, kit: bench.kit, never },
      ...around,
      ...overridden,
    }),
  };
  return {
    inputs,
    hashFor(plan) {
      const ids = new Set(plan.methods.map((m) => m.id));
      const mine = { ...settings, methods: settings.methods.filter((m) => ids.has(m.id)) };
      return hashOf(plan.v >= 2 ? mine : asFirst(mine));
    },
  };
}

/** What a bench has to put over neighbours, under the board and round it. */
function aroundOn(kit: Kit | undefined): Omit<AtBench, 'supplies'> {
  return {
    ...(kit ? { tools: kit } : {}),
    covers: kit?.flatMap((i) => (i.tool === 'cover' ? [i.kind ?? ''] : [])) ?? null,
    below: kit?.flatMap((i) => (i.tool === 'below' ? [i.kind] : [])) ?? null,
    fixtures: kit?.flatMap((i) => (i.tool === 'fixture' ? [i.kind ?? ''] : [])) ?? null,
  };
}

/** A plan against today's inputs. Once the hands have begun, nothing makes it stale. */
function freshnessOf(plan: Plan, basis: Basis | null, state: JobState): Freshness {
  if (currentAttempt(state).runs.length > 0) return 'fresh';
  if (plan.inputHash !== basis?.hashFor(plan)) return 'stale';
  return plan.engineVersion < ENGINE_VERSION ? 'older-engine' : 'fresh';
}

/** The method of a plan that was chosen, with what it is expected to do. */
function planInUse(plan: Plan, methodId: string) {
  const method = plan.methods.find((m) => m.id === methodId);
  return method && plan.results[methodId] ? { planId: plan.id, method, result: plan.results[methodId] } : null;
}

/** Neighbours that something has to be done about first: hurt or perhaps hurt before the part is off, to be taken out, loose in the wind. */
function hotOf(result: PlanResult): string[] {
  return result.neighbours
    .filter((n) => fateOf(result, n).first === 'wind' || fateOf(result, n).tone === 'stop')
    .map((n) => n.partId);
}

/** What a job is judged by besides its log: no entry of the log changes any of it. */
interface Ground extends Judged {
  version: BoardVersion;
  latest: Plan | undefined;
}

/** A job's ground; what of it never changes is read once. */
export async function groundOf(db: Database, judged: Judged): Promise<Ground> {
  const { ticket, latestPlanId } = judged;
  const version = await boardVersionById(db, ticket.boardVersionId);
  if (!version) throw new Error(`Ticket ${ticket.number} pins a board version that does not exist`);
  const latest = latestPlanId === null ? undefined : await planById(db, latestPlanId);
  return { ...judged, version, latest };
}

/** What plans would be computed from, by all that it depends on. */
const basesMade = new Kept<{ basis: Basis | null }>(500);

async function basisFor(
  db: Database,
  { ticket, shopStamp }: Ground,
  version: BoardVersion,
  target: string | undefined,
): Promise<Basis | null> {
  if (target === undefined) return null;
  const key = [ticket.id, ticket.version, version.hash, target, shopStamp].join(' ');
  const made =
    basesMade.get(key) ??
    basesMade.set(key, {
      basis: basisOf(version, target, ticket.planSettings, await shopAt(db, shopStamp)),
    });
  return made.basis;
}

/** A version of a board as the one that lies there was measured. */
function measured(version: BoardVersion, state: JobState): BoardVersion {
  const doc = asMeasured(version.doc, state);
  return doc === version.doc ? version : { ...version, doc, hash: `${version.hash} ${doc.thickness_mm} mm` };
}

/** What replacing a part of a board asks for, whatever the log says. */
const asksOf = (board: BoardModel, target: PlacedPart) => ({
  terminals: solderedTerminals(target).map((t) => t.id),
  targetPolarised: isPolarised(target),
  drawnMark: drawnMark(target),
  mayHold: mayHold(target),
  legs: legsToPush(target),
  proofs: proofsOf(board, target),
});
const NO_TARGET = { terminals: null, targetPolarised: null, drawnMark: null, mayHold: [], legs: [], proofs: [] };

/** By the board and the part. */
const asksMade = new MadeOf<BoardModel, string, ReturnType<typeof asksOf>>();
/** By what the plan would be computed from, and the phases of its method, as a plan or the order of a set keeps them. */
const layOutsMade = new MadeOf<PlanInputs, Work['method']['phases'], ReturnType<typeof layOutFor>>();

/** Plans and gates of a job by its ground and its log. */
export async function standingOn(db: Database, ground: Ground, log: RunningJob) {
  const { ticket, latest } = ground;
  const { state } = log;
  const version = measured(ground.version, state);
  const attempt = currentAttempt(state);
  // a set is planned before hands are at any of its parts
  const listed = setProgress(state)?.next?.partId ?? state.set?.items.keys().next().value;
  const basis = await basisFor(db, ground, version, attempt.suspect?.partId ?? listed);
  const inputs = basis?.inputs ?? null;
  const plan = latest && latest.target === attempt.suspect?.partId ? latest : undefined;
  // the plan in use may be older than the one computed last
  const chosen = attempt.plan && (await planById(db, attempt.plan.planId));
  const inUse = chosen && attempt.plan ? planInUse(chosen, attempt.plan.methodId) : null;
  const leg = legAt(state, attempt.ofSet, 'remove');
  const ordered = leg?.phases && leg.methodId ? { id: leg.methodId, phases: leg.phases } : undefined;
  const target = version.doc.parts.find((p) => p.partId === attempt.suspect?.partId);
  // who would be hurt, and who is not only because the plan counts on a cover
  const planned = plannedCovers(inputs?.settings.surroundings ?? {})
    .map((c) => c.partId)
    .filter((id) => id !== inputs?.target);
  const hot = inUse ? hotOf(inUse.result) : leg && (leg.covers ?? []).flatMap((c) => c.partId ?? []);
  const hotNeighbours = hot ? [...new Set([...hot, ...planned])] : null;
  const method = inUse?.method ?? ordered;
  const layOut =
    method && target && inputs
      ? layOutsMade.of(inputs, method.phases, () =>
          layOutFor({ board: version.doc, target, method, ...handsAt(inputs) }, inputs.panel),
        )
      : null;
  const gates = judgeGates(state, {
    complaint: ticket.complaint,
    type: ticket.kind,
    powerSources: version.doc.powerSources,
    ...(inputs ? { setHash: inputs.setHash } : {}),
    planFresh: chosen ? freshnessOf(chosen, basis, state) !== 'stale' : null,
    hotNeighbours,
    layOut,
    rails: version.doc.rails ?? [],
    loads: version.doc.loads ?? [],
    ...(target ? asksMade.of(version.doc, target.partId, () => asksOf(version.doc, target)) : NO_TARGET),
    atRisk:
      inUse || leg ? atRisk({ inUse, board: version.doc }, leg).map((r) => ({ id: r.partId, name: r.name })) : null,
  });
  return {
    version,
    target: target ?? null,
    log,
    state,
    inputs,
    /** The plan computed last for the target that is chosen now. */
    plan: plan ?? null,
    freshness: plan ? freshnessOf(plan, basis, state) : null,
    /** The plan that the hands follow, if one was chosen. */
    inUse,
    layOut,
    hotNeighbours: hotNeighbours ?? [],
    gates,
  };
}

/** What work at any part of a job's board would be computed from, also while none is chosen; null where nothing on it has joints. */
export async function benchInputs(db: Database, judged: Judged): Promise<PlanInputs | null> {
  const ground = await groundOf(db, judged);
  const version = measured(ground.version, (await logOf(db, judged.ticket.id)).state);
  const part = version.doc.parts.find((p) => solderedTerminals(p).length > 0);
  return (await basisFor(db, ground, version, part?.partId))?.inputs ?? null;
}

/** A ticket's board, log, plans and gates as they are now. */
export async function standingOf(db: Database, judged: Judged) {
  return standingOn(db, await groundOf(db, judged), await logOf(db, judged.ticket.id));
}
