// What is found after fitting, as the log keeps it: gates, first power that was stopped, a second attempt, what the next try is chosen by.
import { describe, expect, it } from 'vitest';
import {
  COMPLAINT,
  currentAttempt,
  foldJob,
  type GateResult,
  type JobEventBody,
  jobEventSchema,
  type JobFacts,
  judgeEvent,
  judgeGates,
  knownOf,
  symptomsOf,
} from '../src/job/index.ts';
import { legsToPush, nextTries, proofsOf } from '../src/prove/index.ts';
import { expressBoard } from '../src/rework/index.ts';

const plain = expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
const board = {
  ...plain,
  powerSources: [{ id: 'in', label: '12 V' }],
  parts: plain.parts.map((p) => (p.partId === 'target' ? { ...p, nets: { 1: 'VIN', 2: 'GND', 3: 'FB' } } : p)),
};
const u1 = board.parts.find((p) => p.partId === 'target') ?? board.parts[0];
const other = board.parts.find((p) => p.partId !== 'target') ?? board.parts[0];
const facts: JobFacts = {
  ...{ complaint: 'dead', type: 'repair', powerSources: board.powerSources, planFresh: null, hotNeighbours: null },
  ...{ layOut: null, rails: [], loads: [], terminals: ['1', '2'], targetPolarised: true, drawnMark: '1', mayHold: [] },
  ...{ legs: ['1', '2'], proofs: proofsOf(board, u1), atRisk: [{ id: other.partId, name: 'J1' }] },
};
let n = 0;
const fold = (...bodies: JobEventBody[]) =>
  foldJob(
    bodies.map((body) => ({ id: `e${n++}`, at: n, actor: 'bench', v: 2 as const, body: jobEventSchema.parse(body) })),
  );
const gate = (id: string, ...bodies: JobEventBody[]): GateResult | undefined =>
  judgeGates(fold(...bodies), facts).find((g) => g.id === id);

const suspect: JobEventBody = { type: 'suspect', partId: 'target', why: 'low' };
const joint = (terminal: string, state: 'good' | 'dull' | 'bridge' | 'weak'): JobEventBody => ({
  type: 'joint',
  terminal,
  state,
});
const pushed = (terminal: string, firm: boolean): JobEventBody => ({ type: 'leg-pushed', terminal, firm });
const apart = (a: string, b: string, read: { ohm: number | 'OL' } | { said: 'beeps' | 'silent' }): JobEventBody => ({
  ...{ type: 'proved', kind: 'apart', terminal: a, to: { partId: 'target', terminal: b } },
  read,
});
const looked = (state: 'as before' | 'melted'): JobEventBody => ({
  type: 'neighbour-looked',
  partId: other.partId,
  state,
});
const rail: JobEventBody = { type: 'short-check', rail: '5 V', load: null, ohm: 5000, good_ohm: 5000, nature: null };
const work: JobEventBody = {
  ...{ type: 'run-begun', runId: '019ac000-0000-7000-8000-00000000000a', op: 'fit', methodId: 'fit-air' },
  ...{ guide: null, offline: true, bench: false },
};

describe('gates of verify', () => {
  it.each([
    ['unknown', [], /not looked at/],
    ['unmet', [joint('1', 'good'), joint('2', 'bridge')], /2 bridge/],
    // what only looks wrong is left as it is
    ['met', [joint('1', 'good'), joint('2', 'dull')], /left as they are: 2 dull/],
    // of a log from before there were more words
    ['unmet', [joint('1', 'good'), joint('2', 'weak')], /2 weak/],
    ['unmet', [joint('1', 'good')], /1 not looked at/],
  ] as [string, JobEventBody[], RegExp][])('joints %s', (state, bodies, why) => {
    expect(gate('joints', ...bodies)).toMatchObject({ state, why: expect.stringMatching(why) });
  });
  it.each([
    ['unknown', [], /not pushed/],
    ['unmet', [pushed('1', true)], /1 not pushed/],
    ['unmet', [pushed('1', true), pushed('2', false)], /2 gives/],
    ['met', [pushed('1', true), pushed('2', true)], /2 firm/],
    ['unknown', [pushed('1', true), pushed('2', true), work], /since the last work/],
  ] as [string, JobEventBody[], RegExp][])('legs %s', (state, bodies, why) => {
    expect(gate('legs', ...bodies)).toMatchObject({ state, why: expect.stringMatching(why) });
  });
  it('pins: each is measured, a bridge is named, a beep is not enough, work makes it all void', () => {
    const all = facts.proofs.map((p): JobEventBody => ({
      ...{ type: 'proved', kind: p.kind, terminal: p.terminal, to: p.to },
      read: p.kind === 'apart' ? { ohm: 'OL' } : { said: 'beeps' },
    }));
    expect(gate('pins', ...all)).toMatchObject({ state: 'met', why: `${all.length} measured` });
    expect(gate('pins', ...all, apart('2', '3', { ohm: 0.4 }))).toMatchObject({
      state: 'unmet',
      why: /2 and 3 .*bridged/,
    });
    expect(gate('pins', ...all, apart('2', '3', { said: 'beeps' }))).toMatchObject({ state: 'unknown' });
    expect(gate('pins', ...all, apart('2', '3', { ohm: 0.4 }), apart('2', '3', { ohm: 'OL' }))?.state).toBe('met');
    expect(gate('pins', ...all, work)?.state).toBe('unknown');
    expect(gate('pins', ...all.slice(1))).toMatchObject({ state: 'unmet', why: '1 not measured' });
  });
  it('surroundings: those the plan spoke of one by one; one look at all counts as it did', () => {
    const scan: JobEventBody = { type: 'surroundings-scanned', ok: true, after: 'fitting' };
    expect(gate('surroundings-after', scan)?.state).toBe('met');
    expect(gate('surroundings-after', looked('as before'))).toMatchObject({ state: 'unknown', why: /the rest/ });
    expect(gate('surroundings-after', looked('as before'), scan)).toMatchObject({ state: 'met', why: /one by one/ });
    expect(gate('surroundings-after', scan, looked('melted'))).toMatchObject({ state: 'unmet', why: /melted/ });
  });
});

describe('first power that was stopped', () => {
  const stopped: JobEventBody = { type: 'power-stopped', stop: 'over-voltage', why: '6.1 V at 5 V' };
  const again: JobEventBody = { type: 'power-connected', sourceId: 'in' };
  const job = (...bodies: JobEventBody[]) => {
    const state = fold(suspect, work, ...bodies);
    return {
      ...{ closed: false, state, gates: judgeGates(state, facts), board, plan: null },
      ...{ hasEvent: () => true, hasRun: () => true, hasRoutineStep: () => true, hasPhoto: () => true },
    };
  };
  it('keeps power away until rails are measured again, and says why', () => {
    expect(gate('short-check', work, rail)?.state).toBe('met');
    expect(gate('short-check', work, rail, stopped)).toMatchObject({
      state: 'unknown',
      why: expect.stringMatching(/too much voltage on a rail, 6.1 V at 5 V/),
    });
    expect(gate('short-check', work, rail, stopped, rail)?.state).toBe('met');
    expect(judgeEvent(again, job(rail, stopped))?.message).toMatch(/first power was stopped/);
    expect(judgeEvent(again, job(rail))).toBeUndefined();
  });
  it('is what shows, before anything that does not work', () => {
    const dead: JobEventBody = { type: 'function', name: COMPLAINT, when: 'after', state: 'dead' };
    expect(symptomsOf(fold(suspect, work, dead, stopped)).map((s) => s.symptom)).toEqual([
      'over-voltage',
      'still there',
    ]);
  });
});

describe('start-ups and stops', () => {
  const stage = (startUpId: string, name: string): JobEventBody => ({
    ...{ type: 'supply-stage', startUpId, stage: name, at_s: 5, supply_V: 12, limit_A: 0.1, current_A: 0.1 },
  });
  const [first, second] = ['019ac000-0000-4000-8000-0000000000a1', '019ac000-0000-4000-8000-0000000000a2'];
  const limited = (...bodies: JobEventBody[]) => knownOf(fold(suspect, ...bodies), board, u1).limited;
  it('count when they came after the work, and not while it soaks', () => {
    expect(limited(stage(first, 'running'), work)).toBe(false);
    expect(limited(work, stage(first, 'soak'))).toBe(false);
    expect(limited(work, stage(first, 'start'))).toBe(true);
  });
  it('a later start-up that went well takes the stop off what shows', () => {
    const cut: JobEventBody = { type: 'power-stopped', stop: 'over-voltage', why: '', startUpId: first };
    expect(symptomsOf(fold(suspect, work, stage(first, 'soak'), cut))).toEqual([{ symptom: 'over-voltage' }]);
    expect(symptomsOf(fold(suspect, work, stage(first, 'soak'), cut, stage(second, 'run')))).toEqual([]);
  });
});

describe('closed and tested whole', () => {
  const opened: JobEventBody = { type: 'opened', kind: 'screw', what: 'lid', count: 4 };
  const tried = (
    name: string,
    when: 'before' | 'after' | 'closed',
    state: 'works' | 'dead' | 'not tried',
  ): JobEventBody => ({
    ...{ type: 'function', name, when, state },
  });
  it('is asked for where something was opened, and takes both', () => {
    expect(gate('closed')).toBeUndefined();
    expect(gate('closed', opened)).toMatchObject({ state: 'unmet', why: /not undone/ });
    const shut: JobEventBody = { type: 'closed-again', stepId: `e${n + 1}` };
    const whole = (...more: JobEventBody[]) => {
      const id = `e${n}`;
      return gate('closed', opened, { ...shut, stepId: id }, ...more);
    };
    expect(whole()).toMatchObject({ state: 'unknown', why: /not tried since/ });
    expect(whole(tried(COMPLAINT, 'closed', 'works'))?.state).toBe('met');
    expect(whole(tried('fan', 'before', 'works'), tried(COMPLAINT, 'closed', 'works'))).toMatchObject({
      state: 'unmet',
      why: 'not tried closed: fan',
    });
    // dead before the work is not this bench's
    const dead = [tried('fan', 'before', 'dead'), tried('fan', 'closed', 'dead'), tried(COMPLAINT, 'closed', 'works')];
    expect(whole(...dead)?.state).toBe('met');
    expect(whole(tried('fan', 'before', 'works'), tried('fan', 'closed', 'dead'))).toMatchObject({ why: /fan/ });
  });
});

describe('a second attempt at the same part', () => {
  it('carries on what is known and begins the rest afresh', () => {
    const before: JobEventBody[] = [
      suspect,
      { type: 'target-confirmed', landmarks: ['a', 'b'] },
      { type: 'neighbour-covered', partId: other.partId, how: 'foil' },
      { type: 'land', terminal: '1', state: 'torn' },
      { type: 'land-repaired', terminal: '1', how: 'wire' },
      work,
      joint('1', 'bridge'),
    ];
    const same = currentAttempt(fold(...before, { type: 'new-attempt', why: 'bridged', same: true }));
    expect(same.suspect?.partId).toBe('target');
    expect(same.targetConfirmed).toBeDefined();
    expect([...same.neighbours.keys()]).toEqual([other.partId]);
    expect([...same.landRepairs.keys()]).toEqual(['1']);
    expect([same.runs, [...same.joints], same.orientation]).toEqual([[], [], undefined]);
    expect(currentAttempt(fold(...before, { type: 'new-attempt', why: 'not it' })).suspect).toBeUndefined();
  });
});

describe('what the next try is chosen by', () => {
  it('is read from the log: joints, pins, what the function speaks of', () => {
    const state = fold(
      ...[suspect, work, joint('1', 'good'), pushed('1', false), apart('2', '3', { ohm: 0.3 }), looked('melted')],
      { type: 'function', name: 'fan', when: 'before', state: 'works' },
      { type: 'function', name: 'fan', when: 'after', state: 'dead' },
    );
    const known = knownOf(state, board, u1, 'fan');
    expect(known).toMatchObject({ fn: 'fan', joints: { 1: 'open' }, bridged: ['2–3'], wayRound: 'not checked' });
    expect(known.hurt).toHaveLength(1);
    // all but one looked at, one of the legs pushed, one pair measured
    expect(known.unproven).toBe(7 + (legsToPush(u1).length - 1) + (facts.proofs.length - 1));
    expect(symptomsOf(state)).toEqual([{ symptom: 'dead since', fn: 'fan' }]);
    expect(nextTries('dead since', known)[0]).toMatchObject({ id: 'neighbour' });
  });
});
