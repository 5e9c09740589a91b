import { describe, expect, it } from 'vitest';
import {
  blocks,
  currentAttempt,
  foldJob,
  judgeGates,
  jobEventSchema,
  stepAt,
  type JobEventBody,
  type JobFacts,
} from '../src/job/index.ts';

let count = 0;
const log = (bodies: JobEventBody[]) =>
  bodies.map((body) => ({ id: `e${++count}`, at: count, actor: 'unsigned', v: 1 as const, body }));

const facts: JobFacts = {
  complaint: 'dead',
  fitOnly: false,
  powerSources: [{ id: 'cell', label: 'coin cell' }],
  planFresh: true,
  hotNeighbours: [],
  targetPolarised: true,
};
const place = { x_mm: 1, y_mm: 1, side: 'top' as const };
const reading = (powered: boolean): JobEventBody => ({
  type: 'reading',
  place,
  quantity: 'ohm',
  value: 4,
  good: null,
  powered,
});
const suspect: JobEventBody = { type: 'suspect', partId: 'u1', why: 'low' };
const plan: JobEventBody = { type: 'plan', planId: 'p', label: 'Air' };
const gone: JobEventBody = { type: 'power-gone', sourceId: 'cell', how: 'taken out, 0.00 V' };

const gate = (id: string, bodies: JobEventBody[], change: Partial<JobFacts> = {}) => {
  const found = judgeGates(foldJob(log(bodies)), { ...facts, ...change }).find((g) => g.id === id);
  if (!found) throw new Error(`no gate ${id}`);
  return found;
};

describe('every gate can be met, unmet and unknown', () => {
  type Scene = [JobEventBody[], Partial<JobFacts>?];
  const scenes: Record<string, { met: Scene; unmet: Scene; unknown: Scene }> = {
    complaint: { met: [[]], unmet: [[], { complaint: ' ' }], unknown: [[], { complaint: null }] },
    target: { met: [[suspect]], unmet: [[reading(false)]], unknown: [[]] },
    'plan-fresh': { met: [[plan]], unmet: [[plan], { planFresh: false }], unknown: [[plan], { planFresh: null }] },
    'power-gone': { met: [[gone]], unmet: [[]], unknown: [[], { powerSources: [] }] },
    'target-marked': {
      met: [[suspect, { type: 'target-confirmed', landmarks: ['a', 'b'] }]],
      unmet: [[suspect]],
      unknown: [[]],
    },
    'neighbours-covered': { met: [[]], unmet: [[], { hotNeighbours: ['j2'] }], unknown: [[], { hotNeighbours: null }] },
    'all-wet': { met: [[{ type: 'all-wet' }]], unmet: [[{ type: 'lifted' }]], unknown: [[]] },
    surroundings: {
      met: [[{ type: 'surroundings-scanned', ok: true }]],
      unmet: [[{ type: 'surroundings-scanned', ok: false }]],
      unknown: [[]],
    },
    lands: { met: [[{ type: 'lands-clean', ok: true }]], unmet: [[{ type: 'lands-clean', ok: false }]], unknown: [[]] },
    'off-board': {
      met: [[{ type: 'off-board-test', result: 'bad' }]],
      unmet: [[{ type: 'off-board-test', result: 'not tested' }]],
      unknown: [[]],
    },
    'new-part': {
      met: [[{ type: 'new-part-measured', ok: true }]],
      unmet: [[{ type: 'new-part-measured', ok: false }]],
      unknown: [[]],
    },
    orientation: {
      met: [[{ type: 'orientation-checked', against: ['photo'] }]],
      unmet: [[]],
      unknown: [[], { targetPolarised: null }],
    },
    'short-check': {
      met: [[{ type: 'short-check', ok: true, judgedBy: 'good board' }]],
      unmet: [[{ type: 'short-check', ok: false, judgedBy: 'good board' }]],
      unknown: [[]],
    },
    'readings-back': {
      met: [[{ type: 'readings-back', ok: true }]],
      unmet: [[{ type: 'readings-back', ok: false }]],
      unknown: [[]],
    },
    functions: {
      met: [[{ type: 'functions-tried', ok: true }]],
      unmet: [[{ type: 'functions-tried', ok: false }]],
      unknown: [[]],
    },
    slips: { met: [[{ type: 'lifted' }]], unmet: [[{ type: 'slip', kind: 'bumped' }]], unknown: [[]] },
    outcome: {
      met: [[{ type: 'released', outcome: 'repaired' }]],
      unmet: [[{ type: 'functions-tried', ok: true }]],
      unknown: [[]],
    },
  };
  it('the list is complete', () => {
    expect(Object.keys(scenes)).toEqual(judgeGates(foldJob([]), facts).map((g) => g.id));
  });
  for (const [id, scene] of Object.entries(scenes))
    it.each(['met', 'unmet', 'unknown'] as const)(`${id}: %s`, (state) => {
      const [events, change] = scene[state];
      const judged = gate(id, events, change);
      expect(judged.state).toBe(state);
      expect(judged.why).not.toBe('');
    });
});

describe('hard gates', () => {
  it('are three, and block when unmet or unknown, unless overridden', () => {
    const gates = judgeGates(foldJob([]), facts);
    expect(gates.filter((g) => g.hard).map((g) => g.id)).toEqual(['power-gone', 'orientation', 'short-check']);
    expect(gates.filter(blocks).map((g) => g.id)).toEqual(['power-gone', 'orientation', 'short-check']);
    expect(blocks(gate('power-gone', [{ type: 'override', gate: 'power-gone', why: 'bench supply only' }]))).toBe(
      false,
    );
    expect(blocks(gate('power-gone', [], { powerSources: [] }))).toBe(true);
  });
  it('power gone lapses with a powered reading or a connection, and says why', () => {
    expect(gate('power-gone', [gone, reading(false)]).state).toBe('met');
    const lapsed = gate('power-gone', [gone, reading(true)]);
    expect(lapsed.state).toBe('unmet');
    expect(lapsed.why).toMatch(/under power/);
    expect(gate('power-gone', [gone, { type: 'power-connected', sourceId: 'cell' }]).state).toBe('unmet');
    expect(gate('power-gone', [gone, reading(true), gone]).state).toBe('met');
  });
  it('fitting a part asks for a new short check', () => {
    expect(gate('short-check', [{ type: 'short-check', ok: true, judgedBy: 'rail' }, { type: 'fitted' }]).state).toBe(
      'unknown',
    );
  });
});

describe('the fold', () => {
  it('withdraws without erasing', () => {
    const events = log([reading(false), suspect]);
    const more = [...events, ...log([{ type: 'withdrawn', eventId: events[0].id, why: 'wrong pin' }])];
    expect(foldJob(more).readings).toHaveLength(0);
    expect(foldJob(more).withdrawn.has(events[0].id)).toBe(true);
    expect(more).toHaveLength(3);
  });
  it('a withdrawn powered reading never lapsed the power gate', () => {
    const events = log([gone, reading(true)]);
    const more = [...events, ...log([{ type: 'withdrawn', eventId: events[1].id, why: 'was unpowered' }])];
    expect(judgeGates(foldJob(more), facts).find((g) => g.id === 'power-gone')?.state).toBe('met');
  });
  it('keeps a wrong suspect as an earlier attempt', () => {
    const state = foldJob(
      log([
        suspect,
        plan,
        { type: 'new-attempt', why: 'was not it' },
        { type: 'suspect', partId: 'd3', why: 'lower there' },
      ]),
    );
    expect(state.attempts.map((a) => a.suspect?.partId)).toEqual(['u1', 'd3']);
    expect(currentAttempt(state).plan).toBeUndefined();
  });
  it('walks the steps', () => {
    const at = (bodies: JobEventBody[], change: Partial<JobFacts> = {}) => {
      const f = { ...facts, ...change };
      return stepAt(judgeGates(foldJob(log(bodies)), f), f.fitOnly);
    };
    expect(at([])).toBe('diagnose');
    expect(at([suspect])).toBe('plan');
    expect(at([suspect, plan])).toBe('protect');
    const guarded: JobEventBody[] = [suspect, plan, gone, { type: 'target-confirmed', landmarks: ['a', 'b'] }];
    expect(at(guarded)).toBe('remove');
    expect(at(guarded, { fitOnly: true })).toBe('fit');
  });
  it('accepts only well-formed events', () => {
    expect(jobEventSchema.safeParse({ type: 'suspect', partId: 'u1', why: '  ' }).success).toBe(false);
    expect(jobEventSchema.safeParse({ type: 'target-confirmed', landmarks: ['a'] }).success).toBe(false);
    expect(jobEventSchema.safeParse({ ...reading(true), value: Infinity }).success).toBe(false);
    expect(jobEventSchema.safeParse({ type: 'party' }).success).toBe(false);
  });
});
