import { describe, expect, it } from 'vitest';
import {
  attemptsOf,
  currentAttempt,
  foldJob,
  isOff,
  type JobEvent,
  type JobEventBody,
  jobEventSchema,
  type JobFacts,
  judgeEvent,
  judgeGates,
  legAt,
  setProgress,
  type SetSaid,
  type Standing,
  standsAt,
  workAt,
} from '../src/job/index.ts';
import { shortBoard, shortBoardSchema } from '../src/rework/shortBoard.ts';

const at = (n: number) => `019ac000-0000-4000-8000-00000000000${n}`;
const log = (bodies: JobEventBody[]): JobEvent[] =>
  bodies.map((body, i) => ({ id: `e${i}`, at: 1000 * i, actor: 'unsigned', v: 1, body }));
const state = (...bodies: JobEventBody[]) => foldJob(log(bodies));
const part = (partId: string, more: Partial<SetSaid> = {}): SetSaid => ({ partId, side: 'top', ...more });
const listed = (...items: SetSaid[]): JobEventBody => ({ type: 'set-parts', items });
const goTo = (partId: string): JobEventBody => ({ type: 'set-at', partId });
const leg = (partId: string, op: 'remove' | 'prepare' | 'fit' = 'remove') => ({
  ...{ partId, op, methodId: 'tweezers', guide: null, start_s: 0, end_s: 10, start_C: 22, rest_s: 0, restFor: [] },
});
const ordered = (partIds: string[], stage: 'off' | 'each' = 'off'): JobEventBody => ({
  ...{ type: 'set-ordered', stage, by: 'computed', minutes: 5, list_minutes: 7 },
  legs: partIds.map((p) => leg(p)),
});
const run = (n: number, op: 'remove' | 'prepare' | 'fit', partId: string): JobEventBody[] => [
  { type: 'run-begun', runId: at(n), op, methodId: 'tweezers', partId, guide: null, offline: true, bench: false },
  { type: 'run-ended', runId: at(n), outcome: 'finished' },
];

describe('a set of parts', () => {
  it('keeps what is said of each field by itself: two who write at once lose nothing', () => {
    const { set } = state(
      listed(part('c1'), part('c2')),
      listed(part('c1', { substitute: '220 µF 25 V' })),
      listed(part('c1', { bin: 'B2', missing: true })),
      listed(part('c1', { missing: null })),
    );
    expect(set?.items.get('c1')).toEqual({
      partId: 'c1',
      side: 'top',
      do: 'renew',
      substitute: '220 µF 25 V',
      bin: 'B2',
    });
    expect(set?.items.get('c2')).toEqual({ partId: 'c2', side: 'top', do: 'renew' });
  });

  it('work at each is its own, in the order that was said, and no wrong suspect', () => {
    const bodies = [
      listed(part('c1'), part('c2'), part('c3', { do: 'salvage' })),
      ordered(['c3', 'c1', 'c2']),
      goTo('c3'),
    ];
    const begun = state(...bodies, ...run(1, 'remove', 'c3'), goTo('c1'));
    expect(setProgress(begun)).toMatchObject({
      stage: 'off',
      next: { partId: 'c1', op: 'remove', leg: { methodId: 'tweezers' } },
      counts: { remove: { done: 1, all: 3 }, fit: { done: 0, all: 2 } },
    });
    expect(setProgress(begun)?.parts.map((p) => p.state)).toEqual(['waiting', 'waiting', 'salvaged']);
    expect(currentAttempt(begun)).toMatchObject({ ofSet: 'c1', suspect: { partId: 'c1' } });
    expect(attemptsOf(begun)).toEqual([]);
    expect(legAt(begun, 'c1', 'remove')?.partId).toBe('c1');
  });

  it('a run of a part belongs to it, whichever part the other browser went to meanwhile', () => {
    const both = state(listed(part('c1'), part('c2')), goTo('c1'), goTo('c2'), goTo('c1'), ...run(1, 'remove', 'c2'));
    expect(isOff(workAt(both, 'c2') as never)).toBe(true);
    expect(workAt(both, 'c1')?.runs).toEqual([]);
  });

  it('power and landmarks hold for the side, covers and lay-out for all; a short check is of the board', () => {
    const found: JobEventBody = { type: 'target-confirmed', landmarks: ['a', 'b'], partId: 'c1' };
    const check: JobEventBody = { type: 'short-check', rail: '5V', load: null, ohm: 900, good_ohm: null, nature: null };
    const other = part('c3', { side: 'bottom' });
    const base = [
      listed(part('c1'), part('c2'), other),
      goTo('c1'),
      found,
      { type: 'neighbour-covered', partId: 'k1', how: 'foil' },
      { type: 'laid-out', tools: ['flux'], setPoints: [] },
    ] as JobEventBody[];
    expect(currentAttempt(state(...base, goTo('c2')))).toMatchObject({ targetConfirmed: { landmarks: ['a', 'b'] } });
    expect(currentAttempt(state(...base, goTo('c2'))).neighbours.has('k1')).toBe(true);
    expect(currentAttempt(state(...base, goTo('c3'))).targetConfirmed).toBeUndefined();
    expect(currentAttempt(state(...base, check, goTo('c2'))).shortChecks).toHaveLength(1);
    expect(currentAttempt(state(...base, check, goTo('c2'), ...run(1, 'fit', 'c2'), goTo('c1'))).shortChecks).toEqual(
      [],
    );
  });

  it('stands at what is next: order, off, lands, on; a part that is not there keeps nobody waiting but its own place', () => {
    const items = listed(part('c1'), part('c2'));
    const stands = (...more: JobEventBody[]) => standsAt(state(items, ...more), 'refurbish');
    expect(stands()).toBe('plan');
    const off = [ordered(['c1', 'c2']), goTo('c1'), ...run(1, 'remove', 'c1')];
    expect(stands(ordered(['c1', 'c2']))).toBe('protect');
    expect(stands(...off)).toBe('remove');
    const prepared = [...off, ...run(2, 'remove', 'c2'), goTo('c2'), ...run(3, 'remove', 'c2'), goTo('c1')];
    expect(stands(...prepared)).toBe('prepare');
    const lands = [...prepared, ...run(4, 'prepare', 'c1'), ...run(5, 'prepare', 'c2')];
    expect(stands(...lands)).toBe('fit');
    const missing = state(items, ...lands, listed(part('c2', { missing: true })), ...run(6, 'fit', 'c1'));
    expect(setProgress(missing)).toMatchObject({ stage: 'fitted', next: null });
    expect(setProgress(missing)?.missing.map((i) => i.partId)).toEqual(['c2']);
    expect(stands(...lands, ...run(6, 'fit', 'c1'), ...run(7, 'fit', 'c2'))).toBe('verify');
  });

  it('what is dropped is gone, with the hands that were at it', () => {
    const dropped = state(listed(part('c1'), part('c2')), goTo('c1'), { type: 'set-dropped', partIds: ['c1'] });
    expect([...(dropped.set?.items.keys() ?? [])]).toEqual(['c2']);
    expect(dropped.set?.at).toBeNull();
    expect(setProgress(state(listed(part('c1')), { type: 'set-dropped', partIds: ['c1'] }))).toBeNull();
  });

  const facts: JobFacts = {
    ...{ complaint: 'due', type: 'refurbish', powerSources: [], planFresh: null, hotNeighbours: null, layOut: null },
    ...{ rails: [], loads: [], terminals: null, targetPolarised: null, drawnMark: null, mayHold: [], legs: [] },
    ...{ proofs: [], atRisk: null },
  };
  it('has gates of its own: an order with every part in it, every part done; no suspect to test', () => {
    const gate = (id: string, ...more: JobEventBody[]) =>
      judgeGates(state(listed(part('c1'), part('c2')), ...more), facts).find((g) => g.id === id);
    expect(gate('target')).toMatchObject({ state: 'met', why: '2 parts listed' });
    expect(gate('plan-fresh')).toMatchObject({ state: 'unmet', why: 'no order of the set yet' });
    expect(gate('plan-fresh', ordered(['c1']))).toMatchObject({ state: 'unmet', why: 'not in the order: C2' });
    expect(gate('plan-fresh', ordered(['c1', 'c2']))).toMatchObject({ state: 'met' });
    expect(gate('set-done', ...run(1, 'remove', 'c1'))).toMatchObject({ state: 'unmet', why: '2 of 2 open: C1, C2' });
    expect(gate('off-board', goTo('c1'))).toBeUndefined();
  });

  const board = shortBoard(
    shortBoardSchema.parse({
      ...{ kind: 'two-layer', lx_mm: 40, ly_mm: 30 },
      parts: ['c1', 'c2'].map((id, n) => ({ id, package: 'C1206', x_mm: 10 + 10 * n, y_mm: 10 })),
    }),
  );
  const standing = (...bodies: JobEventBody[]): Standing => {
    const folded = state(...bodies);
    return {
      ...{ closed: false, state: folded, gates: judgeGates(folded, facts), board, plan: null },
      ...{ hasEvent: () => true, hasRun: () => true, hasRoutineStep: () => true, hasPhoto: () => true },
    };
  };
  it.each<[string, JobEventBody, string]>([
    ['a part that the board does not have', listed(part('zz')), 'body.items.0.partId'],
    ['a part on another side than it stands', listed(part('c1', { side: 'bottom' })), 'body.items.0.side'],
    ['something first that is not there', listed(part('c1', { after: ['zz'] })), 'body.items.0.after'],
    ['an order of what is not listed', ordered(['c2']), 'body.legs'],
    ['hands at what is not listed', goTo('c2'), 'body.partId'],
  ])('refuses %s', (_, body, field) => {
    expect(judgeEvent(body, standing(listed(part('c1'))))?.field).toBe(field);
  });
  it('takes what fits, and power only after a short check once any part was worked at', () => {
    expect(judgeEvent(listed(part('c1')), standing())).toBeUndefined();
    expect(judgeEvent(goTo('c1'), standing(listed(part('c1'))))).toBeUndefined();
    const connect: JobEventBody = { type: 'power-connected', sourceId: 'x' };
    const worked = standing(listed(part('c1'), part('c2')), goTo('c1'), ...run(1, 'remove', 'c1'), goTo('c2'));
    const there = { ...worked, board: { ...board, powerSources: [{ id: 'x', label: 'lead' }] } };
    expect(judgeEvent(connect, there)?.message).toMatch(/Short check/);
  });
  it.each([
    { type: 'set-parts', items: [] },
    { type: 'set-parts', items: [{ partId: 'c1', side: 'left' }] },
    { type: 'set-parts', items: [{ partId: 'c1', side: 'top', do: 'burn' }] },
    { type: 'set-at' },
    { type: 'waits', for: 'rain' },
    { type: 'waits', for: 'part', until: 'soon' },
  ])('refuses a form that is none: %j', (body) => {
    expect(jobEventSchema.safeParse(body).success).toBe(false);
  });
});

describe('waiting', () => {
  it('is a state with a date, taken back, and an answer ends waiting for one', () => {
    const part: JobEventBody = { type: 'waits', for: 'part', what: 'C5', until: '2026-12-09' };
    expect(state(part).intake.waits).toMatchObject({ for: 'part', what: 'C5', until: '2026-12-09' });
    expect(state(part, { type: 'waits', for: null }).intake.waits).toBeUndefined();
    const taken: JobEventBody = { type: 'offer-taken', tier: 'all' };
    expect(state({ type: 'waits', for: 'answer' }, taken).intake.waits).toBeUndefined();
    expect(state(part, taken).intake.waits?.for).toBe('part');
  });
});
