/** What a job asks the ranking: its circuit, the readings that hold, what was seen, tried and known before. */
import { stateOf } from '$lib/jobs/stateOf';
import { type BoardModel, isGroundNet } from '@orthos/core/board';
import { netAt, type Netlist, STARTED_S, startState, suppliedAt } from '@orthos/core/circuit';
import {
  besideOf,
  companionsOf,
  type DiagnoseInput,
  fitsNowhere,
  type Reference,
  referenceOf,
  type Swap,
} from '@orthos/core/diagnosis';
import type { Measured } from '@orthos/core/ground';
import { attemptsOf, currentAttempt, isFitted, type JobState, judgeStartUp, type ModelHistory } from '@orthos/core/job';
import { circuitOf } from './circuitOf';
import { placeName } from './place';
import { type Probe, probeKey, probeOfReading, TYPE_OF } from './probes';
import type { RailPlace } from './railPlaces.svelte';
import type { Circuit, DiagnoseView } from './view';

/** Ground under any of its names is one. */
function keyOf(probe: Probe): string {
  const plain = (net: string) => (isGroundNet(net) ? '' : net);
  return probeKey({ ...probe, red: plain(probe.red), black: plain(probe.black) });
}

/**
 * What good boards of this kind read for a probe. Without a circuit what earlier jobs knew counts too; with one their boards, meters and loads of
 * another day would say more than they can.
 */
export function referenceFor(view: DiagnoseView, netlist: Netlist | null, probe: Probe): Reference | null {
  const key = keyOf(probe);
  const measured = view.goodReadings.filter((g) => keyOf({ ...g, state: g.state || null }) === key);
  const earlier = netlist
    ? []
    : view.history.good.filter((g) => {
        const own = TYPE_OF[g.quantity] === probe.type ? probeOfReading(g, view.board, null) : null;
        return own !== null && keyOf(own) === key;
      });
  return referenceOf(probe.type, [...earlier, ...measured]);
}

/** Readings that still hold: those since the last work on the board. */
export const standing = (job: JobState): JobState['readings'] => job.readings.slice(job.beforeWork?.readings ?? 0);

/** The meter that readings are taken with, unless one says otherwise: the first of the kit. */
export const benchMeter = (view: DiagnoseView): DiagnoseView['meters'][number] | null => view.meters[0] ?? null;

/** What the leads leave of ohms, on both boards alike. */
const withoutLeads = (value: Measured | null, leads_ohm: number): Measured | null =>
  typeof value === 'number' ? Math.max(0, value - leads_ohm) : value;

type Reading = DiagnoseInput['readings'][number];

/** The question for the worker; null without a circuit. */
export function questionOf(
  view: DiagnoseView,
  rails: ReadonlyMap<string, RailPlace> = new Map(),
): DiagnoseInput | null {
  const { history } = view;
  const job = stateOf(view.events);
  const circuit = circuitOf(view.circuits, job);
  if (!circuit) return null;
  const { netlist } = circuit;
  const refOf = refs(view.board, circuit);
  const meter = benchMeter(view);
  const leads_ohm = meter?.leadsOhm ?? 0;
  const readings = standing(job).flatMap((r) => {
    const probe = probeOfReading(r, view.board, netlist) ?? outsideProbe(r, view.board, netlist);
    if (!probe) return [];
    const { type, red, black, state } = probe;
    const raw = r.good ?? referenceFor(view, netlist, probe)?.value ?? null;
    const good = type === 'ohm' || type === 'cont' ? withoutLeads(raw, leads_ohm) : raw;
    return [{ type, ...(type === 'isup' ? {} : { red, black }), state, value: r.value, good }];
  });
  const started = startUpReading(view, job, netlist);
  const attempt = currentAttempt(job);
  const tested = attempt.offBoardTest;
  const suspect = attempt.suspect && refOf(attempt.suspect.partId);
  return {
    netlist: started?.netlist ?? netlist,
    // a current that was read since stands instead of it
    readings: [...(started ? [started.reading] : []), ...readings],
    lead_resistance_ohm: leads_ohm,
    accuracy: { ohm_percent: meter?.ohmPercent ?? 0, volt_percent: meter?.voltPercent ?? 0 },
    history: { events: job.onset, jobs: history.jobs, culprits: culpritsIn(history, refOf) },
    seen: job.observations.flatMap((o) => {
      const ref = o.sign && o.place?.partId ? refOf(o.place.partId) : undefined;
      return ref && o.sign ? [{ ref, sign: o.sign }] : [];
    }),
    off_board:
      tested && suspect && tested.result !== 'not tested'
        ? [
            {
              ref: suspect,
              result: tested.result,
              ...(tested.recovered === undefined ? {} : { recovered: tested.recovered }),
            },
          ]
        : [],
    swapped: [...renewedInVain(job), ...job.swapped].flatMap(([partId, { followed, how }]) => {
      const ref = refOf(partId);
      return ref ? [{ ref, followed, how }] : [];
    }),
    beside: besideOf(view.board, netlist).map(({ net, parts }) => ({ net, parts: [...parts] })),
    on_rails: onRails(rails, refOf),
    companions: companionsFound(netlist, job, history, refOf),
    ...(job.software ? { software: job.software.state } : {}),
    ...(job.pair ? { pair: job.pair } : {}),
  };
}

/** A stage is a moment of something that changes; the circuit is computed at rest. */
const STAGE_SPREAD = 0.6;
/** Stages at which the circuit rests; what it takes then is no current of a state under power. */
const RESTS = /sleep|standby|off\b|connected/i;
/** Volts of a start-up that count as those of the circuit's supply: this share of them at least, and at most. */
const SAME_VOLTS = [0.85, 1.15];

/**
 * What the last stage of the last start-up draws, as a reading of the supply's current beside a good unit's; null where there is none, or it was
 * run at another voltage than the circuit's. Held by its limit, the circuit is asked with that limit.
 */
function startUpReading(
  view: DiagnoseView,
  job: JobState,
  netlist: Netlist,
): { netlist: Netlist; reading: Reading } | null {
  const stages = job.intake.startUps.slice(job.beforeWork?.startUps ?? 0).at(-1)?.stages ?? [];
  const last = stages.filter((s) => s.at_s >= STARTED_S && !RESTS.test(s.stage)).at(-1);
  const state = startState(netlist);
  if (!last || state === null) return null;
  const { power } = netlist;
  const nominal = (power?.states[state]?.sources ?? []).concat(power?.sources ?? [])[0]?.v ?? 0;
  const share = last.supply_V / nominal;
  if (!(share >= SAME_VOLTS[0] && share <= SAME_VOLTS[1])) return null;
  const verdict = judgeStartUp([last], view.goodStartUps[0]?.stages ?? [])[0];
  const limited = verdict.state === 'at the limit';
  const good = view.goodStartUps[0]?.stages.find((g) => g.stage.toLowerCase() === last.stage.toLowerCase());
  return {
    netlist: limited ? suppliedAt(netlist, state, { volts: nominal, limit_A: last.limit_A }) : netlist,
    reading: {
      ...{ type: 'isup', state, value: last.current_A, good: limited ? null : (good?.current_A ?? null) },
      spread: STAGE_SPREAD,
    },
  };
}

/** A reading at a joint whose net the board does not know, by the joint's name: what it says about a good board still counts. */
function outsideProbe(r: JobState['readings'][number], board: BoardModel, netlist: Netlist): Probe | null {
  if (r.good === null || r.place.partId === undefined || netAt(board, netlist, r.place) !== undefined) return null;
  return { type: TYPE_OF[r.quantity], red: placeName(board, r.place), black: netlist.ground, state: null };
}

/** Shares of parts on rails that millivolts were read along; a rail whose millivolts fit nothing says nothing. */
function onRails(
  rails: ReadonlyMap<string, RailPlace>,
  refOf: (partId: string) => string | undefined,
): DiagnoseInput['on_rails'] {
  return [...rails].flatMap(([net, { profile, located, partIds, drawn }]) => {
    if (fitsNowhere(located.best.chi2, profile.points.length)) return [];
    const places = located.candidates.map(({ ref, p }) => ({ ref: refOf(partIds.get(ref) ?? '') ?? ref, p }));
    return [{ net, places, drawn }];
  });
}

/** Parts that were put on new in an earlier attempt and the fault stayed, unless somebody has said so of the part himself. */
const renewedInVain = (job: JobState): [string, { followed: boolean; how: Swap }][] =>
  attemptsOf(job)
    .slice(0, -1)
    .flatMap((a) => (a.suspect && isFitted(a) && !job.swapped.has(a.suspect.partId) ? [a.suspect.partId] : []))
    .map((partId) => [partId, { followed: false, how: 'new part' }]);

/** Culprits of earlier jobs as the circuit names them. */
function culpritsIn(history: ModelHistory, refOf: (partId: string) => string | undefined): Record<string, number> {
  const counts: Record<string, number> = {};
  for (const { partId, jobs } of history.culprits) {
    const ref = refOf(partId);
    if (ref) counts[ref] = (counts[ref] ?? 0) + jobs;
  }
  return counts;
}

/** Parts that tend to fail along with one that was found bad in an earlier attempt: its neighbours, and the shop's own. */
export function companionsFound(
  netlist: Netlist,
  job: JobState,
  history: ModelHistory,
  refOf: (partId: string) => string | undefined,
): string[] {
  const found = attemptsOf(job)
    .slice(0, -1)
    .flatMap((a) => {
      return a.suspect && a.offBoardTest?.result === 'bad' ? [a.suspect.partId] : [];
    });
  const refsFound = found.flatMap((partId) => refOf(partId) ?? []);
  const own = history.companions.filter((c) => found.includes(c.culprit)).flatMap((c) => refOf(c.partId) ?? []);
  const list = new Set([...refsFound.flatMap((ref) => companionsOf(netlist, ref)), ...own]);
  for (const ref of refsFound) list.delete(ref);
  return [...list];
}

/** The circuit's name of a board part. */
export function refs(board: BoardModel, { netlist }: Circuit): (partId: string) => string | undefined {
  return (partId) => {
    const placed = board.parts.find((p) => p.partId === partId);
    return netlist.parts.find((p) => (p.partId ? p.partId === partId : p.ref === placed?.ref))?.ref;
  };
}
