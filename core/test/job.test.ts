import { describe, expect, it } from 'vitest';
import { judgeShort } from '../src/diagnosis/index.ts';
import {
  benchMinutes,
  blocks,
  COMPLAINT,
  currentAttempt,
  foldJob,
  isFitted,
  isOff,
  type JobEventBody,
  jobEventSchema,
  type JobFacts,
  type JobType,
  judgeEvent,
  judgeGates,
  lastRun,
  jointStates,
  openGates,
  saidAllWet,
  secondsOf,
  standsAt,
} from '../src/job/index.ts';
import { voltsOf } from '../src/board/netNames.ts';
import { expressBoard, type Mark, type Operation } from '../src/rework/index.ts';
import { type Measured } from '../src/ground/readings.ts';

let count = 0;
const wrongPart: JobEventBody = { type: 'slip', kind: 'wrong-part', partId: 'c9' };
const log = (bodies: JobEventBody[]) =>
  bodies.map((body) => ({
    id: body === wrongPart ? 'wrong' : `e${++count}`,
    at: count,
    actor: 'unsigned',
    v: 1 as const,
    body,
  }));

const facts: JobFacts = {
  complaint: 'dead',
  type: 'repair',
  powerSources: [{ id: 'cell', label: 'coin cell' }],
  planFresh: true,
  hotNeighbours: [],
  layOut: {
    tools: ['flux'],
    setPoints: [{ id: 'air', label: 'air temperature', value: 390, unit: '°C', tolerance: 5 }],
  },
  rails: [],
  loads: [],
  terminals: ['1'],
  targetPolarised: true,
  drawnMark: '1',
  mayHold: ['data'],
  legs: [],
  proofs: [],
  atRisk: null,
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
const plan: JobEventBody = { type: 'plan', planId: 'p', methodId: 'air-slow' };
const gone: JobEventBody = { type: 'power-gone', sourceId: 'cell', how: 'taken out, 0.00 V' };

const gate = (id: string, bodies: JobEventBody[], change: Partial<JobFacts> = {}) => {
  const found = judgeGates(foldJob(log(bodies)), { ...facts, ...change }).find((g) => g.id === id);
  if (!found) throw new Error(`no gate ${id}`);
  return found;
};

const RUN = '019ac000-0000-7000-8000-00000000000a';
const RUN2 = '019ac000-0000-7000-8000-00000000000b';
const begun = (op: Operation, runId = RUN): JobEventBody => ({
  type: 'run-begun',
  runId,
  op,
  methodId: 'air-slow',
  guide: null,
  offline: false,
  bench: false,
});
const mark = (what: Mark, runId = RUN): JobEventBody => ({ type: 'mark', runId, instruction: what, what });
const ended = (runId = RUN): JobEventBody => ({ type: 'run-ended', runId, outcome: 'finished' });
const short = (ohm: Measured, change: Partial<Extract<JobEventBody, { type: 'short-check' }>> = {}): JobEventBody => ({
  type: 'short-check',
  rail: '3V3',
  load: null,
  ohm,
  good_ohm: 2400,
  nature: null,
  ...change,
});
const tried = (name: string, when: 'before' | 'after', state: 'works' | 'dead' | 'not tried'): JobEventBody => ({
  type: 'function',
  name,
  when,
  state,
});
const off: JobEventBody = {
  type: 'reading',
  place: { ...place, partId: 'c7', terminal: '1' },
  quantity: 'ohm',
  value: 1.4,
  good: 2400,
  powered: false,
};

const holdsData: JobEventBody = { type: 'part-holds', partId: suspect.partId, holds: ['data'] };
const read = (when: 'before' | 'after' = 'before'): JobEventBody => ({
  ...{ type: 'stored-read', partId: suspect.partId, when, checksum: 'a1b2c3d4' },
});

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
    'stored-read': {
      met: [[suspect, holdsData, read(), read()]],
      unmet: [[suspect, holdsData, read()]],
      unknown: [[suspect]],
    },
    'neighbours-covered': { met: [[]], unmet: [[], { hotNeighbours: ['j2'] }], unknown: [[], { hotNeighbours: null }] },
    'laid-out': {
      met: [[{ type: 'laid-out', tools: ['flux'], setPoints: [{ id: 'air', value: 388 }] }]],
      unmet: [[{ type: 'laid-out', tools: ['flux'], setPoints: [{ id: 'air', value: 420 }] }]],
      unknown: [[], { layOut: null }],
    },
    'all-wet': {
      met: [[begun('remove'), mark('all-wet')]],
      unmet: [[begun('remove'), mark('lifted')]],
      unknown: [[begun('remove')]],
    },
    surroundings: {
      met: [[{ type: 'surroundings-scanned', ok: true, after: 'removal' }]],
      unmet: [[{ type: 'surroundings-scanned', ok: false, after: 'removal' }]],
      unknown: [[]],
    },
    lands: { met: [[{ type: 'lands-clean', ok: true }]], unmet: [[{ type: 'lands-clean', ok: false }]], unknown: [[]] },
    'off-board': {
      met: [[{ type: 'off-board-test', result: 'bad' }]],
      unmet: [[{ type: 'off-board-test', result: 'not tested' }]],
      unknown: [[]],
    },
    'new-part': {
      met: [[{ type: 'new-part-measured', ok: true, note: '98 µF' }]],
      unmet: [[{ type: 'new-part-measured', ok: false, note: '' }]],
      unknown: [[]],
    },
    orientation: {
      met: [[{ type: 'orientation-checked', against: ['photo'] }]],
      unmet: [
        [{ type: 'orientation-checked', against: ['photo'], seen: { lies: '2', belongs: [{ by: 'photo', at: '1' }] } }],
      ],
      unknown: [[], { targetPolarised: null }],
    },
    restored: {
      met: [[wrongPart, { type: 'slip-checked', slipId: 'wrong', ok: true, result: 'back on, 98 µF' }]],
      unmet: [[wrongPart, { type: 'slip-checked', slipId: 'wrong', ok: false, result: 'a land is torn' }]],
      unknown: [[wrongPart]],
    },
    'short-check': { met: [[short(2300)]], unmet: [[short(1.4)]], unknown: [[short(3, { good_ohm: null })]] },
    joints: {
      met: [[{ type: 'joint', terminal: '1', state: 'good' }]],
      unmet: [[{ type: 'joint', terminal: '1', state: 'bridge' }]],
      unknown: [[]],
    },
    'surroundings-after': {
      met: [[{ type: 'surroundings-scanned', ok: true, after: 'fitting' }]],
      unmet: [[{ type: 'surroundings-scanned', ok: false, after: 'fitting' }]],
      unknown: [[]],
    },
    'stored-back': {
      met: [[suspect, holdsData, read(), read(), read('after')]],
      unmet: [[suspect, holdsData, read('after')]],
      unknown: [[suspect, holdsData, read(), read()]],
    },
    'readings-back': {
      met: [[off, begun('fit'), { ...off, value: 2300 }]],
      unmet: [[off, begun('fit'), { ...off, value: 3 }]],
      unknown: [[off, begun('fit')]],
    },
    functions: {
      met: [[tried(COMPLAINT, 'after', 'works')]],
      unmet: [[tried(COMPLAINT, 'after', 'dead')]],
      unknown: [[tried('lamp', 'before', 'works')]],
    },
    slips: {
      met: [[begun('remove'), mark('lifted')]],
      unmet: [[{ type: 'slip', kind: 'bumped' }]],
      unknown: [[]],
    },
    outcome: { met: [[{ type: 'released', outcome: 'repaired' }]], unmet: [[begun('fit')]], unknown: [[]] },
  };
  it('the list is complete', () => {
    expect(Object.keys(scenes)).toEqual(judgeGates(foldJob(log([suspect, holdsData])), facts).map((g) => g.id));
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
  it('are four, and block when unmet or unknown, unless overridden', () => {
    const gates = judgeGates(foldJob([]), facts);
    expect(gates.filter((g) => g.hard).map((g) => g.id)).toEqual([
      'power-gone',
      'orientation',
      'restored',
      'short-check',
    ]);
    // nothing came off by mistake yet
    expect(gates.filter(blocks).map((g) => g.id)).toEqual(['power-gone', 'orientation', 'short-check']);
    expect(blocks(gate('power-gone', [{ type: 'override', gate: 'power-gone', why: 'bench supply only' }]))).toBe(
      false,
    );
    expect(blocks(gate('power-gone', [], { powerSources: [] }))).toBe(true);
  });
  it('no power while a part that came off by mistake is not back, worked on or not', () => {
    const standing = (bodies: JobEventBody[]) => {
      const state = foldJob(log(bodies));
      const gates = judgeGates(state, facts);
      const board = { ...expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 }) };
      board.powerSources = [{ id: 'cell', label: 'coin cell' }];
      const never = () => true;
      const asked = { hasEvent: never, hasRun: never, hasRoutineStep: never, hasPhoto: never };
      return { closed: false, state, gates, board, plan: null, ...asked };
    };
    const connect: JobEventBody = { type: 'power-connected', sourceId: 'cell' };
    expect(judgeEvent(connect, standing([]))).toBeUndefined();
    expect(judgeEvent(connect, standing([wrongPart]))?.message).toBe(
      'Nothing left off by mistake: C9 to put back and check.',
    );
    const back: JobEventBody = { type: 'slip-checked', slipId: 'wrong', ok: true, result: 'all right' };
    expect(judgeEvent(connect, standing([wrongPart, back]))).toBeUndefined();
    expect(judgeEvent(connect, standing([wrongPart, { ...back, ok: false }]))).toBeDefined();
  });
  it('power gone lapses with a powered reading or a connection, and says why', () => {
    expect(gate('power-gone', [gone, reading(false)]).state).toBe('met');
    const lapsed = gate('power-gone', [gone, reading(true)]);
    expect(lapsed.state).toBe('unmet');
    expect(lapsed.why).toMatch(/under power/);
    expect(gate('power-gone', [gone, { type: 'power-connected', sourceId: 'cell' }]).state).toBe('unmet');
    expect(gate('power-gone', [gone, reading(true), gone]).state).toBe('met');
  });
  it('work on the board asks for a new short check', () => {
    expect(gate('short-check', [short(2300), begun('fit')]).state).toBe('unknown');
  });
  it('an override lets one operation through and is spent when its cause comes up again', () => {
    const override: JobEventBody = { type: 'override', gate: 'power-gone', why: 'bench supply only' };
    expect(gate('power-gone', [override]).overridden).toBe('bench supply only');
    const again = foldJob(log([override, reading(true)]));
    expect(judgeGates(again, facts).find((g) => g.id === 'power-gone')?.overridden).toBeUndefined();
    expect(again.overrides).toHaveLength(1);
  });
  it('a cell taken out is gone; a capacitor only when its voltage was measured below half a volt', () => {
    const powerSources = [{ id: 'bulk', label: 'C1', kind: 'capacitor' as const }];
    const drained = (residual_V?: number): JobEventBody => ({
      type: 'power-gone',
      sourceId: 'bulk',
      how: 'through 1 kΩ',
      ...(residual_V === undefined ? {} : { residual_V }),
    });
    expect(gate('power-gone', [drained()], { powerSources }).why).toMatch(/not measured/);
    expect(gate('power-gone', [drained(38)], { powerSources }).why).toMatch(/still 38 V/);
    expect(gate('power-gone', [drained(0.08)], { powerSources }).state).toBe('met');
  });
  it('sources named on the job count too; "nothing can feed it" is an answer', () => {
    const none = { powerSources: [] };
    expect(gate('power-gone', [{ type: 'power-source', label: 'bare board', kind: 'none' }], none).state).toBe('met');
    expect(gate('power-gone', [{ type: 'power-source', label: 'lamp lead', kind: 'lead' }], none).state).toBe('unmet');
  });
  it('finding it powered while hot is a slip and lapses the power gate', () => {
    const events = [gone, { type: 'slip', kind: 'powered-while-hot' } as JobEventBody];
    expect(gate('power-gone', events).why).toMatch(/powered while hot/);
    expect(gate('slips', events).state).toBe('unmet');
    expect(gate('power-gone', [...events, gone]).state).toBe('met');
  });
  it('connecting one of two sources leaves only that one open', () => {
    const powerSources = [...facts.powerSources, { id: 'plug', label: 'plug' }];
    const plugGone: JobEventBody = { type: 'power-gone', sourceId: 'plug', how: 'pulled' };
    const lapsed = gate('power-gone', [gone, plugGone, { type: 'power-connected', sourceId: 'plug' }], {
      powerSources,
    });
    expect(lapsed.evidence).toEqual(['plug']);
  });
});

describe('the short check', () => {
  it.each([
    [1.4, 2400, null, 'unmet'],
    [1300, 2400, null, 'met'],
    ['OL', 2400, null, 'met'],
    [4.8, null, { why: 'motor output', least_ohm: 4 }, 'met'],
    [0.3, null, { why: 'motor output', least_ohm: 4 }, 'unmet'],
    // between a fifth and half of a good board nobody knows
    [1100, 2400, null, 'unknown'],
    [481, 2400, null, 'unknown'],
    [479, 2400, null, 'unmet'],
    // two leads are 0.2 Ω
    [0.55, 1, null, 'unknown'],
    [0.39, 1, null, 'unmet'],
    [8, null, null, 'unknown'],
    [900, null, null, 'unknown'],
    [1000, null, null, 'met'],
  ] as const)('%s Ω against %s and %o is %s', (ohm, good_ohm, nature, state) => {
    expect(judgeShort({ ohm, good_ohm, nature }).state).toBe(state);
  });
  it.each([
    ['3V3', 4.5, 'unknown'],
    ['3V3', 5, 'met'],
    ['5 V', 10, 'unknown'],
    ['5 V', 11.5, 'met'],
    ['12V harness', 50, 'unknown'],
    ['12V harness', 70, 'met'],
    ['48 V', 900, 'unknown'],
    ['48 V', 1010, 'met'],
    ['VBAT', 900, 'unknown'],
  ] as const)('by its voltage alone: %s at %d Ω is %s', (rail, ohm, state) => {
    expect(judgeShort({ rail, ohm, good_ohm: null, nature: null }).state).toBe(state);
  });
  it.each([
    ['3V3', 3.3],
    ['1V0_CORE', 1],
    ['+12V', 12],
    ['5 V', 5],
    ['3,3 V', 3.3],
    ['36 V plug', 36],
    ['12V harness', 12],
    ['VBAT', null],
    ['CV5', null],
    ['supply input', null],
  ] as const)('%s is a rail of %s V', (rail, volts) => expect(voltsOf(rail)).toBe(volts));
  it('asks for every rail and every load, board alone first', () => {
    const change = {
      rails: [
        { id: 'a', label: '3V3' },
        { id: 'b', label: '5V' },
      ],
      loads: [{ id: 'm', label: 'motor' }],
    };
    expect(gate('short-check', [short(2300)], change).why).toBe('still to measure: 5V, with motor');
    const all = [short(2300), short(900, { rail: '5V', good_ohm: 1000 }), short(2100, { load: 'motor' })];
    expect(gate('short-check', all, change).state).toBe('met');
    expect(gate('short-check', [short(2100, { load: 'motor' })], { loads: change.loads }).why).toMatch(/board alone/);
  });
  it('counts the latest reading of a rail', () => {
    expect(gate('short-check', [short(1.4), short(2200)]).state).toBe('met');
  });
});

describe('verification', () => {
  it('all joints, readings and functions have to be taken again, not some of them', () => {
    const one: JobEventBody = { type: 'joint', terminal: '1', state: 'good' };
    expect(gate('joints', [one], { terminals: ['1', '2'] }).why).toBe('1 not looked at');
    const other = { ...off, place: { ...place, partId: 'u3', terminal: '5' } };
    const some = [off, other, begun('fit'), { ...off, value: 2300 }];
    expect(gate('readings-back', some).why).toBe('1 to take again');
    const lamp = [tried('lamp', 'before', 'works'), tried(COMPLAINT, 'after', 'works')];
    expect(gate('functions', lamp).why).toBe('not tried again: lamp');
    expect(gate('functions', [...lamp, tried('lamp', 'after', 'dead')]).why).toMatch(/worked before/);
    expect(gate('functions', [...lamp, tried('lamp', 'after', 'works')]).state).toBe('met');
  });
  it('one torn or dirty land is enough, whatever was said of all of them', () => {
    const clean: JobEventBody = { type: 'lands-clean', ok: true };
    const land = (state: 'good' | 'dirty' | 'torn'): JobEventBody => ({ type: 'land', terminal: '7', state });
    expect(gate('lands', [clean, land('torn')]).why).toBe('7 torn');
    expect(gate('lands', [land('dirty'), clean]).state).toBe('unmet');
    expect(gate('lands', [land('dirty'), clean, land('good')]).state).toBe('met');
    expect(gate('lands', [land('good')]).state).toBe('unknown');
  });
  it('what was dead before may stay dead', () => {
    const events = [
      tried('beep', 'before', 'dead'),
      tried(COMPLAINT, 'after', 'works'),
      tried('beep', 'after', 'dead'),
    ];
    expect(gate('functions', events).state).toBe('met');
  });
  it('is undone by further work', () => {
    const done = [
      tried(COMPLAINT, 'after', 'works'),
      { type: 'joint', terminal: '1', state: 'good' } as JobEventBody,
      { type: 'surroundings-scanned', ok: true, after: 'fitting' } as JobEventBody,
      begun('prepare'),
    ];
    for (const id of ['functions', 'joints', 'surroundings-after']) expect(gate(id, done).state).toBe('unknown');
  });
});

describe('runs', () => {
  const at = (seconds: number, body: JobEventBody, id = `m${seconds}`) => ({
    id,
    at: seconds * 1000,
    actor: 'unsigned',
    v: 1 as const,
    body,
  });
  it('keep their marks, moved and withdrawn ones included', () => {
    const events = [
      at(0, begun('remove')),
      at(10, mark('heat-on')),
      at(52, mark('first-wet')),
      at(70, mark('all-wet')),
      at(74, mark('lifted')),
      at(90, { type: 'mark-moved', eventId: 'm70', to: 66_000 }),
      at(91, { type: 'withdrawn', eventId: 'm52', why: 'too early' }),
    ];
    const run = lastRun(currentAttempt(foldJob(events)), 'remove');
    expect(run?.marks.map((m) => m.what)).toEqual(['heat-on', 'all-wet', 'lifted']);
    expect(run && secondsOf(run, 'all-wet')).toBe(56);
    expect(run && secondsOf(run, 'first-wet')).toBeNull();
    expect(benchMinutes(events)).toBeCloseTo(91 / 60);
  });
  it('are valid with no marks at all', () => {
    const attempt = currentAttempt(foldJob([at(0, begun('remove')), at(300, ended())]));
    expect([isOff(attempt), saidAllWet(attempt), isFitted(attempt)]).toEqual([true, false, false]);
    expect(benchMinutes([at(0, begun('remove')), at(300, ended())])).toBe(5);
  });
  it('the time at the bench counts everything written down, pauses out, long runs in', () => {
    const look = (s: number) => at(s, { type: 'observation', text: 'looked' });
    // ten minutes of looking, an hour of lunch, four minutes more
    expect(benchMinutes([look(0), look(600), look(4200), look(4440)])).toBe(10 + 2 + 4);
    // half an hour of one run with nobody at a key
    expect(benchMinutes([at(0, begun('remove')), at(1800, ended())])).toBe(30);
    // order of writing does not matter
    expect(benchMinutes([look(600), look(0)])).toBe(10);
    expect(benchMinutes([])).toBe(0);
  });
  it('given up is not off', () => {
    const up = at(60, { type: 'run-ended', runId: RUN, outcome: 'given up' });
    expect(isOff(currentAttempt(foldJob([at(0, begun('remove')), up])))).toBe(false);
  });
  it('joints of a run and joints looked at afterwards are kept apart', () => {
    const attempt = currentAttempt(
      foldJob([
        at(0, begun('fit')),
        at(1, { type: 'joint', runId: RUN, terminal: '1', state: 'stuck' }),
        at(1, { type: 'joint', runId: RUN, terminal: '3', state: 'stuck', instruction: 'pins' }),
        at(1, { type: 'joint', runId: RUN, terminal: '3', state: 'done', instruction: 'pins-2' }),
        at(2, { type: 'joint', terminal: '1', state: 'good' }),
      ]),
    );
    const states = jointStates(lastRun(attempt, 'fit') ?? { walked: [] });
    expect([states.get('1'), states.get('3')]).toEqual(['stuck', 'done']);
    expect(attempt.joints.get('1')).toBe('good');
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
    const at = (bodies: JobEventBody[], type: JobType = 'repair') => standsAt(foldJob(log(bodies)), type);
    expect(at([])).toBe('intake');
    expect(at([reading(false)])).toBe('diagnose');
    expect(at([], 'express')).toBe('diagnose');
    expect(at([suspect])).toBe('plan');
    expect(at([suspect, plan])).toBe('protect');
    const guarded: JobEventBody[] = [
      suspect,
      plan,
      gone,
      { type: 'target-confirmed', landmarks: ['a', 'b'] },
      { type: 'laid-out', tools: ['flux'], setPoints: [{ id: 'air', value: 390 }] },
    ];
    expect(at(guarded)).toBe('remove');
    expect(at(guarded, 'fit-only')).toBe('fit');
    const off: JobEventBody[] = [...guarded, begun('remove'), ended()];
    expect(at(off)).toBe('prepare');
    expect(at([...off, { type: 'lands-clean', ok: true }])).toBe('fit');
    const on: JobEventBody[] = [...off, begun('fit', RUN2), ended(RUN2)];
    expect(at(on)).toBe('verify');
    expect(at([...on, { type: 'function', name: COMPLAINT, when: 'after', state: 'works' }])).toBe('release');
    // a wrong suspect begins again where it has to be looked for
    expect(at([...off, { type: 'new-attempt', why: 'was not it' }])).toBe('diagnose');
  });
  it('does not send a verified job back for its power gate, but keeps the gate lapsed', () => {
    const powered = [begun('fit'), short(2300), { type: 'power-connected', sourceId: 'cell' } as JobEventBody];
    const gates = judgeGates(foldJob(log(powered)), facts);
    expect(gates.find((g) => g.id === 'power-gone')?.state).toBe('unmet');
    expect(openGates(gates, 'repair').map((g) => g.id)).not.toContain('power-gone');
    const again = judgeGates(foldJob(log([...powered, begun('fit')])), facts);
    expect(openGates(again, 'repair').map((g) => g.id)).toContain('power-gone');
  });
  it('accepts only well-formed events', () => {
    expect(jobEventSchema.safeParse({ type: 'suspect', partId: 'u1', why: '  ' }).success).toBe(false);
    expect(jobEventSchema.safeParse({ type: 'target-confirmed', landmarks: ['a'] }).success).toBe(false);
    expect(jobEventSchema.safeParse({ ...reading(true), value: Infinity }).success).toBe(false);
    expect(jobEventSchema.safeParse({ type: 'party' }).success).toBe(false);
  });
});
