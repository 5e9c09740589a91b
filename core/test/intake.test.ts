import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  closingSteps,
  expectedAttempts,
  expectedMinutes,
  foldJob,
  FUNCTION_LISTS,
  JOB_TYPES,
  type JobEventBody,
  jobEventSchema,
  type JobFacts,
  type JobType,
  judgeGates,
  judgeStartUp,
  modelHistory,
  openGates,
  priceOf,
  RunningJob,
  screwsOut,
  standsAt,
  startUpSentence,
  warrantyTerms,
  worthOf,
} from '../src/job/index.ts';

let count = 0;
const log = (bodies: JobEventBody[]) =>
  bodies.map((body) => ({ id: `i${++count}`, at: count, actor: 'unsigned', v: 1 as const, body }));
const fold = (bodies: JobEventBody[]) => foldJob(log(bodies));
const START = '019ac000-0000-7000-8000-0000000000aa';

const facts = (type: JobType): JobFacts => ({
  complaint: 'dead',
  type,
  powerSources: [{ id: 'lead', label: 'plug' }],
  planFresh: null,
  hotNeighbours: null,
  layOut: null,
  rails: [],
  loads: [],
  terminals: null,
  targetPolarised: null,
  drawnMark: null,
  mayHold: [],
  legs: [],
  proofs: [],
  atRisk: null,
});
const gatesOf = (type: JobType, bodies: JobEventBody[]) => judgeGates(fold(bodies), facts(type));
const opened = (kind: 'screw' | 'clip' | 'pry' | 'cable', what: string, n = 1): JobEventBody => ({
  type: 'opened',
  kind,
  what,
  count: n,
});
const stage = (name: string, at_s: number, current_A: number, limit_A = 1): JobEventBody => ({
  type: 'supply-stage',
  startUpId: START,
  stage: name,
  at_s,
  supply_V: 12,
  limit_A,
  current_A,
});
const reading = (value: number, good: number, terminal = '1'): JobEventBody => ({
  type: 'reading',
  place: { x_mm: 1, y_mm: 2, side: 'top', partId: 'c7', terminal },
  quantity: 'ohm',
  value,
  good,
  powered: false,
});

describe('opening and closing', () => {
  it('closes in reverse, with counts, and knows the screws that are still out', () => {
    const events = log([
      opened('screw', 'M2 × 6 under the feet', 4),
      opened('clip', 'left edge', 2),
      opened('cable', 'J3'),
    ]);
    const { intake } = foldJob(events);
    const steps = closingSteps(intake);
    expect(steps.map((s) => s.says)).toEqual([
      'plug in J3',
      'snap in 2 × left edge',
      'drive in 4 × M2 × 6 under the feet',
    ]);
    expect(screwsOut(intake)).toBe(4);
    const closed = foldJob([...events, ...log([{ type: 'closed-again', stepId: events[0].id }])]).intake;
    expect(screwsOut(closed)).toBe(0);
    expect(closingSteps(closed).map((s) => s.done)).toEqual([false, false, true]);
  });
  it('reversing twice gives the order of opening, whatever was opened', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom('screw', 'clip', 'pry', 'cable'), fc.integer({ min: 1, max: 9 }))),
        (list) => {
          const { intake } = fold(list.map(([kind, n], i) => opened(kind, `place ${i}`, n)));
          expect(
            closingSteps(intake)
              .toReversed()
              .map((s) => s.stepId),
          ).toEqual(intake.opened.map((s) => s.id));
          expect(screwsOut(intake)).toBe(list.filter(([k]) => k === 'screw').reduce((n, [, c]) => n + c, 0));
        },
      ),
    );
  });
  it('a step taken back is neither open nor to be closed', () => {
    const events = log([opened('screw', 'by mistake')]);
    const state = foldJob([...events, ...log([{ type: 'withdrawn', eventId: events[0].id, why: 'taken back' }])]);
    expect(closingSteps(state.intake)).toEqual([]);
  });
});

describe('functions by kind of device', () => {
  it('are listed once, without overwriting what was tried', () => {
    const names = [...FUNCTION_LISTS['display or instrument']];
    const { functions, intake } = fold([
      { type: 'function', name: 'display', when: 'before', state: 'dead' },
      { type: 'functions-listed', kind: 'display or instrument', names },
    ]);
    expect([...functions.keys()]).toEqual(['display', ...names.filter((n) => n !== 'display')]);
    expect(functions.get('display')).toEqual({ before: 'dead' });
    expect(functions.get('buttons')).toEqual({});
    expect(intake.deviceKind).toBe('display or instrument');
  });
  it('name each function once', () => {
    for (const names of Object.values(FUNCTION_LISTS)) expect(new Set(names).size).toBe(names.length);
  });
});

describe('kinds of job', () => {
  it('measuring only needs readings and no hands', () => {
    const gates = gatesOf('measure-only', [reading(1, 100)]);
    expect(gates.find((g) => g.id === 'target')?.state).toBe('met');
    expect(standsAt(fold([reading(1, 100)]), 'measure-only')).toBe('release');
    expect(standsAt(fold([{ type: 'observation', text: 'looks well' }]), 'measure-only')).toBe('diagnose');
  });
  it('data only asks which part holds it and skips heat', () => {
    const gates = gatesOf('data-only', []);
    expect(gates.find((g) => g.id === 'target')?.why).toContain('holds the data');
    expect(openGates(gates, 'data-only').map((g) => g.step)).toEqual(['diagnose', 'release']);
  });
  it.each(['refurbish', 'transplant', 'conversion'] as const)('%s goes through the hands', (type) => {
    expect(JOB_TYPES[type].skips).toEqual([]);
    expect(gatesOf(type, []).find((g) => g.id === 'target')).toMatchObject({
      state: 'unmet',
      why: JOB_TYPES[type].target,
    });
  });
  it('what can only be measured is judged by its readings, not by functions', () => {
    const gate = (bodies: JobEventBody[]) => gatesOf('repair', bodies).find((g) => g.id === 'functions');
    expect(gate([])?.state).toBe('unknown');
    expect(gate([{ type: 'proof', by: 'readings', why: 'no motor here' }])?.state).toBe('met');
    expect(gate([{ type: 'proof', by: 'running', why: 'whole device' }])?.state).toBe('unknown');
  });
});

describe('start-up on the bench supply', () => {
  const good = [
    { stage: 'connected', at_s: 0, current_A: 0.002 },
    { stage: 'switched on', at_s: 2, current_A: 0.12 },
    { stage: 'running', at_s: 5, current_A: 0.2 },
  ];
  it('keeps stages in time and lapses the power gate', () => {
    const { intake, powerGone, powerLapse } = fold([
      { type: 'power-gone', sourceId: 'lead', how: 'pulled' },
      stage('running', 5, 0.2),
      stage('connected', 0, 0.002),
    ]);
    expect(intake.startUps[0].stages.map((s) => s.stage)).toEqual(['connected', 'running']);
    expect(powerGone.size).toBe(0);
    expect(powerLapse).toContain('bench supply');
  });
  it.each([
    ['as a good unit', [0.002, 0.13, 0.19], null],
    ['at the limit', [1, 1, 1], 'before'],
    ['too much', [0.002, 0.4, 0.5], 'switched on'],
    ['too little', [0.002, 0.118, 0.02], 'running'],
  ] as const)('%s', (state, currents, stageName) => {
    const points = good.map((g, i) => ({ ...g, limit_A: 1, current_A: currents[i] }));
    const verdicts = judgeStartUp(points, good);
    expect(verdicts.map((v) => v.state)).toContain(state);
    const sentence = startUpSentence(verdicts);
    if (stageName === null) expect(sentence).toContain('at every stage');
    else if (stageName !== 'before') expect(sentence).toContain(`“${stageName}”`);
    else expect(sentence).toContain('power off, ohms first');
  });
  it('says how many times a good unit', () => {
    expect(judgeStartUp([{ stage: 'Running', at_s: 5, current_A: 0.8, limit_A: 1 }], good)[0]).toMatchObject({
      ratio: 4,
      state: 'too much',
    });
  });
  it('says nothing against a stage that no good unit has', () => {
    expect(judgeStartUp([{ stage: 'asleep', at_s: 9, current_A: 0.1 }], good)[0].state).toBe('no reference');
    const asleep = { stage: 'asleep', at_s: 9, current_A: 0.1 };
    expect(startUpSentence(judgeStartUp([asleep], []))).toBe('Of a good unit no such stage is known yet.');
    const woken = { stage: 'woken', at_s: 12, current_A: 0.2 };
    expect(startUpSentence(judgeStartUp([asleep, woken], [asleep]))).toContain('at 1 of 2 stages');
    expect(startUpSentence(judgeStartUp([asleep], [asleep]))).toContain('at every stage');
  });
});

describe('the offer', () => {
  it('expects one attempt when sure, more when the odds are spread', () => {
    expect(expectedAttempts([1])).toBe(1);
    expect(expectedAttempts([])).toBe(1);
    expect(expectedAttempts([0.5, 0.5])).toBeCloseTo(1.5, 12);
    // 0.6 · 1 + 0.3 · 2, and 0.1 found only in a third
    expect(expectedAttempts([0.3, 0.6])).toBeCloseTo(1.5, 12);
  });
  it('matches trying parts in falling odds, simulated', () => {
    const odds = [0.45, 0.3, 0.15];
    let seed = 7;
    const random = () => (seed = (seed * 48271) % 2147483647) / 2147483647;
    let sum = 0;
    const N = 40_000;
    for (let i = 0; i < N; i++) {
      let u = random();
      let n = 0;
      while (n < odds.length && u >= odds[n]) u -= odds[n++];
      sum += n + 1;
    }
    expect(Math.abs(sum / N - expectedAttempts(odds))).toBeLessThan(0.02);
  });
  it('never grows cheaper with minutes, parts or attempts', () => {
    const tier = fc.record({
      minutes: fc.integer({ min: 0, max: 600 }),
      attempts: fc.integer({ min: 1, max: 6 }),
      parts_minor: fc.integer({ min: 0, max: 50_000 }),
    });
    fc.assert(
      fc.property(tier, fc.constantFrom('minutes', 'attempts', 'parts_minor'), (t, key) => {
        expect(priceOf({ ...t, [key]: t[key] + 1 }, 6000)).toBeGreaterThanOrEqual(priceOf(t, 6000));
        expect(priceOf(t, 6000) % 100).toBe(0);
      }),
    );
  });
  it('an hour at 60 an hour and 5 of parts is 65', () => {
    expect(priceOf({ minutes: 60, attempts: 1, parts_minor: 500 }, 6000)).toBe(6500);
    expect(expectedMinutes({ minutes: 60, attempts: 2 })).toBeCloseTo(96, 9);
  });
  it.each([
    [3000, 10_000, 'worth it'],
    [5000, 10_000, 'borderline'],
    [8000, 10_000, 'does not pay'],
    [8000, null, 'not known'],
  ] as const)('%d of %s: %s', (price, worth, state) => expect(worthOf(price, worth).state).toBe(state));
  it('a new offer is not yet taken', () => {
    const offer: JobEventBody = {
      type: 'offer',
      currency: 'EUR',
      tiers: [{ label: 'the part', minutes: 40, parts_minor: 200, attempts: 1.2, price_minor: 6000 }],
      worth_minor: null,
    };
    expect(fold([offer, { type: 'offer-taken', tier: 'the part' }]).intake.taken).toBe('the part');
    expect(fold([offer, { type: 'offer-taken', tier: 'the part' }, offer]).intake.taken).toBeUndefined();
  });
  it('promises less after earlier work, liquid, or when nothing can be run', () => {
    const clean = warrantyTerms({ months: 6, workedOn: false, liquid: false, measuredOnly: false });
    expect(clean).toEqual({ months: 6, terms: 'on the parts renewed and their joints.' });
    for (const key of ['workedOn', 'liquid', 'measuredOnly'] as const) {
      const less = warrantyTerms({ months: 6, workedOn: false, liquid: false, measuredOnly: false, [key]: true });
      expect(less.months).toBeLessThan(6);
      expect(less.terms).toContain(';');
    }
  });
});

describe('the same model before', () => {
  const repaired = (partId: string, more: JobEventBody[] = [], minutes = 30): JobEventBody[] => [
    reading(1.2, 2400),
    ...more,
    { type: 'suspect', partId, why: 'low' },
    { type: 'released', outcome: 'repaired', minutes },
  ];
  const jobs = (...list: JobEventBody[][]) =>
    list.map((bodies, n) => ({ id: `j${n}`, number: 200 - n, complaint: 'dark', log: new RunningJob(log(bodies)) }));

  it('counts culprits, points and minutes of repaired jobs only', () => {
    const history = modelHistory(
      jobs(
        repaired('c7', [], 20),
        repaired('c7', [], 40),
        repaired('u3', [], 90),
        [{ type: 'released', outcome: 'declined' }],
        [{ type: 'suspect', partId: 'c9', why: 'open job' }],
      ),
    );
    expect(history).toMatchObject({ jobs: 3, declined: 1, open: 1, minutes: 40 });
    expect(history.culprits).toEqual([
      { partId: 'c7', jobs: 2 },
      { partId: 'u3', jobs: 1 },
    ]);
    expect(history.readings[0]).toMatchObject({ jobs: 3, culprit: 'c7', place: { partId: 'c7' } });
    expect(history.latest.map((j) => j.number)).toEqual([200, 199, 198, 197, 196]);
  });
  it('a part found bad in an earlier attempt of the same job is a companion, one that was good is not', () => {
    const twice = (result: 'bad' | 'good') =>
      jobs([
        { type: 'suspect', partId: 'q1', why: 'first' },
        { type: 'off-board-test', result },
        { type: 'new-attempt', why: 'still dead' },
        ...repaired('u9'),
      ]);
    expect(modelHistory(twice('bad')).companions).toEqual([{ culprit: 'u9', partId: 'q1', jobs: 1 }]);
    expect(modelHistory(twice('good')).companions).toEqual([]);
  });
  it('a suspect that tested good is no culprit', () => {
    const history = modelHistory(
      jobs([
        { type: 'suspect', partId: 'u1', why: 'low' },
        { type: 'off-board-test', result: 'good' },
        { type: 'released', outcome: 'repaired' },
      ]),
    );
    expect(history).toMatchObject({ jobs: 1, culprits: [] });
  });
  it('offers how it was opened the last time', () => {
    const history = modelHistory(jobs(repaired('c7'), [opened('screw', 'four', 4), ...repaired('c7')]));
    expect(history.opening).toMatchObject({ number: 199, steps: [{ kind: 'screw', count: 4 }] });
    expect(modelHistory([])).toMatchObject({ jobs: 0, minutes: null, opening: null });
  });
});

describe('events of intake', () => {
  it.each([
    { type: 'opened', kind: 'screw', what: '', count: 0 },
    { type: 'damage', kind: 'dent', whose: 'found', note: '' },
    { type: 'damage', kind: 'crack', whose: 'found', note: '', pen: { on: 'board', strokes: [[[1, 1]]] } },
    { type: 'supply-stage', startUpId: START, stage: 'on', at_s: 0, supply_V: 12, limit_A: 0, current_A: 0 },
    { type: 'offer', currency: 'euro', tiers: [], worth_minor: null },
    { type: 'warranty', months: 3, terms: '  ' },
    { type: 'released', outcome: 'declined', reason: 'no wish' },
    { type: 'extra', name: 'clean the fan' },
  ])('refuses %j', (body) => expect(jobEventSchema.safeParse(body).success).toBe(false));
});
