/** What must hold for every log, whatever stands in it. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  benchMinutes,
  foldJob,
  JOB_TYPE_IDS,
  JOB_TYPES,
  type JobEvent,
  type JobEventBody,
  jobEventSchema,
  type JobFacts,
  judgeGates,
  openGates,
  RunningJob,
  standsAt,
} from '../src/job/index.ts';
import { STEPS } from '../src/hands/forms.ts';

const RUNS = ['019ac000-0000-4000-8000-000000000001', '019ac000-0000-4000-8000-000000000002'];
const place = { x_mm: 1, y_mm: 2, side: 'top' as const, partId: 'c7', terminal: '1' };
const run = fc.constantFrom(...RUNS);
const op = fc.constantFrom('remove' as const, 'prepare' as const, 'fit' as const);
const word = fc.constantFrom('seen', 'low', 'hot');
const ohms = fc.oneof(fc.double({ min: 0, max: 1e6, noNaN: true }), fc.constant('OL' as const));

const inSet = fc.constantFrom('u1', 'c7', 'c8');
const body: fc.Arbitrary<JobEventBody> = fc.oneof(
  fc.record({
    type: fc.constant('set-parts' as const),
    items: fc.array(
      fc.record({
        partId: inSet,
        side: fc.constant('top' as const),
        do: fc.constantFrom('renew' as const, 'leave' as const, 'salvage' as const),
        missing: fc.constantFrom(true as const, null),
      }),
      { minLength: 1, maxLength: 3 },
    ),
  }),
  fc.record({ type: fc.constant('set-dropped' as const), partIds: fc.array(inSet, { minLength: 1, maxLength: 2 }) }),
  fc.record({ type: fc.constant('set-at' as const), partId: inSet }),
  fc.record({ type: fc.constant('waits' as const), for: fc.constantFrom('part' as const, 'answer' as const, null) }),
  fc.record({ type: fc.constant('observation' as const), text: word }),
  fc.record({
    type: fc.constant('reading' as const),
    place: fc.constant(place),
    quantity: fc.constant('ohm' as const),
    value: ohms,
    good: fc.option(ohms, { nil: null }),
    powered: fc.boolean(),
  }),
  fc.record({ type: fc.constant('suspect' as const), partId: fc.constantFrom('u1', 'c7'), why: word }),
  fc.record({ type: fc.constant('plan' as const), planId: word, methodId: fc.constantFrom('air-slow', 'bead') }),
  fc.record({
    type: fc.constant('power-gone' as const),
    sourceId: fc.constantFrom('cell', 'bulk'),
    how: word,
    residual_V: fc.double({ min: 0, max: 60, noNaN: true }),
  }),
  fc.record({ type: fc.constant('power-connected' as const), sourceId: fc.constantFrom('cell', 'bulk') }),
  fc.record({ type: fc.constant('neighbour-covered' as const), partId: fc.constant('j2'), how: word }),
  fc.record({
    type: fc.constant('run-begun' as const),
    runId: run,
    op,
    methodId: fc.constantFrom('air-slow', 'bead'),
    guide: fc.constant(null),
    offline: fc.boolean(),
    bench: fc.boolean(),
  }),
  fc.record({
    type: fc.constant('mark' as const),
    runId: run,
    instruction: word,
    what: fc.constantFrom(
      'done' as const,
      'heat-on' as const,
      'all-wet' as const,
      'lifted' as const,
      'fitted' as const,
    ),
  }),
  fc.record({
    type: fc.constant('run-ended' as const),
    runId: run,
    outcome: fc.constantFrom('finished' as const, 'given up' as const),
  }),
  fc.record({
    type: fc.constant('joint' as const),
    terminal: fc.constantFrom('1', '2'),
    state: fc.constantFrom('good' as const, 'weak' as const, 'done' as const),
  }),
  fc.record({
    type: fc.constant('short-check' as const),
    rail: word,
    load: fc.constant(null),
    ohm: ohms,
    good_ohm: fc.option(fc.constant(2400), { nil: null }),
    nature: fc.constant(null),
  }),
  fc.record({
    type: fc.constant('function' as const),
    name: word,
    when: fc.constantFrom('before' as const, 'after' as const),
    state: fc.constantFrom('works' as const, 'dead' as const, 'not tried' as const),
  }),
  fc.record({
    type: fc.constant('slip' as const),
    kind: fc.constantFrom('bumped' as const, 'powered-while-hot' as const),
  }),
  fc.record({ type: fc.constant('override' as const), gate: fc.constantFrom('power-gone', 'short-check'), why: word }),
  fc.record({ type: fc.constant('new-attempt' as const), why: word }),
  fc.record({ type: fc.constant('orientation-checked' as const), against: fc.constant<string[]>(['photo']) }),
);
const log: fc.Arbitrary<JobEvent[]> = fc
  .array(body, { maxLength: 40 })
  .map((bodies) => bodies.map((b, i) => ({ id: `e${i}`, at: i * 1000, actor: 'unsigned', v: 1, body: b })));

const facts: JobFacts = {
  complaint: 'dead',
  type: 'repair',
  powerSources: [
    { id: 'cell', label: 'cell', kind: 'cell' },
    { id: 'bulk', label: 'bulk', kind: 'capacitor' },
  ],
  planFresh: true,
  hotNeighbours: ['j2'],
  layOut: null,
  rails: [],
  loads: [],
  terminals: ['1', '2'],
  targetPolarised: true,
  drawnMark: null,
  mayHold: [],
  legs: [],
  proofs: [],
  atRisk: null,
};
const gatesOf = (events: JobEvent[]) => judgeGates(foldJob(events), facts);

describe('for every log', () => {
  it('events are what the schema takes, so what is stored can be read back', () => {
    fc.assert(
      fc.property(body, (b) => {
        expect(jobEventSchema.parse(JSON.parse(JSON.stringify(b)))).toEqual(JSON.parse(JSON.stringify(b)));
      }),
    );
  });
  it('folding is pure: the log is not touched, twice gives the same', () => {
    fc.assert(
      fc.property(log, (events) => {
        const before = JSON.stringify(events);
        expect(foldJob(events)).toEqual(foldJob(events));
        expect(JSON.stringify(events)).toBe(before);
      }),
    );
  });
  it('a log taken up piece by piece is at every moment what the whole folds to, withdrawals included', () => {
    fc.assert(
      fc.property(
        log,
        fc.array(fc.nat(45), { maxLength: 4 }),
        fc.array(fc.nat(6), { maxLength: 12 }),
        (all, gone, cuts) => {
          const events = [...all];
          for (const [n, at] of gone.entries()) {
            const eventId = `e${at}`;
            const taken: JobEvent = {
              id: `w${n}`,
              at: 0,
              actor: 'unsigned',
              v: 1,
              body: { type: 'withdrawn', eventId, why: 'wrong' },
            };
            events.splice((at * 7) % (events.length + 1), 0, taken);
          }
          const running = new RunningJob();
          let from = 0;
          for (const cut of [...cuts, events.length]) {
            running.append(events.slice(from, from + cut));
            from += cut;
            expect(running.state).toEqual(foldJob(events.slice(0, from)));
          }
        },
      ),
    );
  });
  it('a withdrawn event counts as if it had never been', () => {
    fc.assert(
      fc.property(log, fc.nat(), (events, pick) => {
        fc.pre(events.length > 0);
        const gone = events[pick % events.length];
        const taken: JobEvent = {
          id: 'w',
          at: 99_000,
          actor: 'unsigned',
          v: 1,
          body: { type: 'withdrawn', eventId: gone.id, why: 'wrong' },
        };
        const { withdrawn, ...left } = foldJob([...events, taken]);
        const { withdrawn: none, ...never } = foldJob(events.filter((e) => e !== gone));
        expect([withdrawn.size, none.size]).toEqual([1, 0]);
        expect(left).toEqual(never);
      }),
    );
  });
  it('every gate has one of three states and a reason, and the job stands at a step', () => {
    fc.assert(
      fc.property(log, fc.constantFrom(...JOB_TYPE_IDS), (events, type) => {
        const gates = gatesOf(events);
        for (const g of gates) {
          expect(['met', 'unmet', 'unknown']).toContain(g.state);
          expect(g.why).not.toBe('');
          if (g.overridden !== undefined) expect(g.state).not.toBe('met');
        }
        const step = standsAt(foldJob(events), type);
        expect(STEPS).toContain(step);
        expect(JOB_TYPES[type].skips).not.toContain(step);
        for (const g of openGates(gates, type)) expect(g.state).not.toBe('met');
      }),
    );
  });
  it('after a powered reading, a connection or power found while hot, power is not gone', () => {
    const powered = fc.constantFrom<JobEventBody>(
      { type: 'reading', place, quantity: 'dcv', value: 3.3, good: null, powered: true },
      { type: 'power-connected', sourceId: 'cell' },
      { type: 'slip', kind: 'powered-while-hot' },
    );
    fc.assert(
      fc.property(log, powered, (events, b) => {
        const gates = gatesOf([...events, { id: 'p', at: 1e6, actor: 'unsigned', v: 1, body: b }]);
        const power = gates.find((g) => g.id === 'power-gone');
        expect(power?.state).toBe('unmet');
        expect(power?.overridden).toBeUndefined();
      }),
    );
  });
  it('after new work the short check is never met', () => {
    fc.assert(
      fc.property(log, op, (events, o) => {
        const begun: JobEventBody = {
          type: 'run-begun',
          runId: '019ac000-0000-4000-8000-000000000009',
          op: o,
          methodId: 'x',
          guide: null,
          offline: false,
          bench: false,
        };
        const gates = gatesOf([...events, { id: 'r', at: 1e6, actor: 'unsigned', v: 1, body: begun }]);
        const check = gates.find((g) => g.id === 'short-check');
        expect(check?.state).toBe('unknown');
        expect(check?.overridden).toBeUndefined();
      }),
    );
  });
  it('attempts only grow, and earlier ones stay as they were', () => {
    fc.assert(
      fc.property(log, (events) => {
        const before = foldJob(events).attempts;
        const next: JobEvent = { id: 'n', at: 1e6, actor: 'unsigned', v: 1, body: { type: 'new-attempt', why: 'no' } };
        const after = foldJob([...events, next]).attempts;
        expect(after).toHaveLength(before.length + 1);
        expect(after.slice(0, -1)).toEqual(before);
      }),
    );
  });
  it('the hands have never worked less than no time', () => {
    fc.assert(
      fc.property(log, (events) => {
        const spent = benchMinutes(events);
        expect(spent).toBeGreaterThanOrEqual(0);
        const times = [0, ...events.map((e) => e.at)];
        expect(spent).toBeLessThanOrEqual(
          (Math.max(...times) - Math.min(...times)) / 60_000 + 2 * events.length + 1e-9,
        );
      }),
    );
  });
});
