// Two boards: what each has wrong, what each way takes, the record that travels with a part, a new board without parts.
import { describe, expect, it } from 'vitest';
import {
  asMeasured,
  copyOf,
  faultsOf,
  foldJob,
  heatsOf,
  isFreshOrder,
  type JobEventBody,
  jobEventSchema,
  type JobFacts,
  judgeEvent,
  judgeGates,
  type MinutesOf,
  otherThickness,
  partRecordOf,
  setProgress,
  standsAt,
  waysWithTwo,
} from '../src/job/index.ts';
import { shortBoard, shortBoardSchema } from '../src/rework/shortBoard.ts';
import { opsIn } from '../src/sets/index.ts';

const board = shortBoard(
  shortBoardSchema.parse({
    ...{ kind: 'two-layer', lx_mm: 60, ly_mm: 40 },
    parts: [
      { id: 'u1', package: 'SOIC-8', x_mm: 15, y_mm: 15 },
      { id: 'u2', package: 'SOIC-8', x_mm: 35, y_mm: 15 },
      { id: 'c1', package: 'C1206', x_mm: 15, y_mm: 30 },
    ],
  }),
);
const [U1] = board.parts;
const T = '019ac000-0000-4000-8000-0000000000aa';
const runId = (n: number) => `019ac000-0000-4000-8000-00000000000${n}`;
const state = (...bodies: JobEventBody[]) =>
  foldJob(
    bodies.map((body, i) => ({ id: `e${i}`, at: 60_000 * i, actor: 'x', v: 2, body: jobEventSchema.parse(body) })),
  );
const place = (partId: string) => ({ x_mm: 0, y_mm: 0, side: 'top' as const, partId });
const sign = (partId: string, is: 'burnt' | 'missing'): JobEventBody => ({
  ...{ type: 'observation', text: 'seen', sign: is, place: place(partId) },
});
const guide = (dose: number) => ({
  ...{ joints: [], last: null, allWet_s: 40, allWetFrom_s: null, allWetTo_s: null, closes_s: null },
  ...{ closesFrom_s: null, closesTo_s: null, closedBy: '', heat: { land_K_s: 5000, dose } },
});
const run = (n: number, op: 'remove' | 'prepare' | 'fit', partId: string, dose = 0.1): JobEventBody[] => [
  {
    type: 'run-begun',
    runId: runId(n),
    op,
    methodId: 'air-slow',
    partId,
    guide: guide(dose),
    offline: true,
    bench: false,
  },
  { type: 'run-ended', runId: runId(n), outcome: 'finished' },
];
const listed = (partId: string, more: object = {}): JobEventBody => ({
  ...{ type: 'set-parts', items: [{ partId, side: 'top', ...more }] },
});
const goTo = (partId: string): JobEventBody => ({ type: 'set-at', partId });
const from = (partId: string) => ({ ticketId: T, number: 128, partId });

describe('what is wrong with a board', () => {
  const wrong = (...bodies: JobEventBody[]) => faultsOf(board, state(...bodies)).map((f) => [f.partId, f.mend]);
  it('signs, suspects, damage and lands, each once; what was renewed is no fault', () => {
    expect(wrong()).toEqual([]);
    expect(wrong(sign('u1', 'burnt'), { type: 'suspect', partId: 'u1', why: 'low' })).toEqual([['u1', 'part']]);
    expect(wrong(sign('u1', 'missing'))).toEqual([['u1', 'empty']]);
    expect(wrong({ type: 'suspect', partId: 'u1', why: 'low' }, { type: 'off-board-test', result: 'good' })).toEqual(
      [],
    );
    const mended: JobEventBody[] = [
      { type: 'suspect', partId: 'u1', why: 'low' },
      ...run(1, 'remove', 'u1'),
      { type: 'off-board-test', result: 'bad' },
      ...run(2, 'fit', 'u1'),
    ];
    expect(wrong(...mended.slice(0, 4))).toEqual([['u1', 'empty']]);
    expect(wrong(...mended)).toEqual([]);
    const damage = (kind: 'crack' | 'liquid' | 'heat mark' | 'broken off', partId?: string): JobEventBody => ({
      ...{ type: 'damage', kind, whose: 'found', note: '' },
      ...(partId ? { place: place(partId) } : {}),
    });
    expect(wrong(damage('crack'), damage('liquid', 'u2'), damage('heat mark'), damage('broken off', 'c1'))).toEqual([
      [undefined, 'prove'],
      ['u2', 'clean'],
      [undefined, 'none'],
      ['c1', 'part'],
    ]);
  });
  it('lands that are torn, until they are mended', () => {
    const torn: JobEventBody[] = [
      { type: 'suspect', partId: 'u1', why: 'low' },
      { type: 'off-board-test', result: 'good' },
      { type: 'land', terminal: '3', state: 'torn' },
    ];
    const [found] = faultsOf(board, state(...torn));
    expect(found).toMatchObject({ partId: 'u1', mend: 'land', minutes: 5 });
    expect(wrong(...torn, { type: 'land-repaired', terminal: '3', how: 'wire' })).toEqual([]);
  });
});

describe('which board is kept', () => {
  /** Off 4, lands 2, on 6 min. */
  const usual: MinutesOf = (_, __, op) => ({ remove: 4, prepare: 2, fit: 6 })[op];
  const ways = (here: JobEventBody[], there: JobEventBody[], holders: string[] = [], minutesOf = usual) =>
    waysWithTwo({
      ...{ board, holders, minutesOf, names: { here: 'this board', there: 'No. 128' } },
      here: faultsOf(board, state(...here)),
      there: faultsOf(board, state(...there)),
    });
  const short = (w: ReturnType<typeof ways>) => w.map(({ id, minutes }) => [id, minutes]);
  it('a new part where one is to be had costs one removal less than one from the other board', () => {
    const found = ways([sign('u1', 'burnt')], [sign('u2', 'burnt')]);
    // the other board needs another part just as well, brought from here
    expect(short(found)).toEqual([
      ['mend', 12],
      ['bring', 16],
      ['over', 16],
    ]);
    expect(found[0]).toMatchObject({ keep: 'here', news: ['u1'], moves: [] });
    expect(found[1]).toMatchObject({ moves: ['u1'], steps: [{ what: 'u1 from No. 128', minutes: 16 }] });
  });
  it('a whole board takes what is the owner’s, rather than that many wires', () => {
    const torn = ['1', '2', '3', '4', '5', '6'].map((terminal): JobEventBody => ({
      type: 'land',
      terminal,
      state: 'torn',
    }));
    const here: JobEventBody[] = [
      { type: 'suspect', partId: 'u1', why: 'x' },
      { type: 'off-board-test', result: 'good' },
      ...torn,
    ];
    expect(short(ways(here, [], ['u2']))).toEqual([
      ['over', 16],
      ['mend', 30],
    ]);
    // one wire is cheaper than moving anything
    expect(short(ways([here[0], here[1], torn[0]], [], ['u2']))[0]).toEqual(['mend', 5]);
  });
  it('a cracked board is doubtful and comes behind; what the bench cannot do, behind that', () => {
    const crack: JobEventBody = { type: 'damage', kind: 'crack', whose: 'found', note: '' };
    expect(ways([sign('u1', 'burnt')], [crack]).map((w) => w.id)).toEqual(['mend', 'bring', 'over']);
    expect(ways([sign('u1', 'burnt')], [crack])[2].doubts).toHaveLength(1);
    const cannot: MinutesOf = (_, id, op) => (id === 'u1' ? null : usual('here', id, op));
    expect(short(ways([sign('u1', 'burnt')], [], [], cannot))).toEqual([
      ['over', 0],
      ['mend', null],
      ['bring', null],
    ]);
  });
  it('what held something is not simply bought', () => {
    const [first, second] = ways([sign('u1', 'burnt')], [sign('u2', 'burnt')], ['u1']);
    expect(first.id).toBe('bring');
    expect(second).toMatchObject({ id: 'mend', doubts: ['u1, bought, is empty: what it held has to be loaded'] });
  });
  it('an empty place needs nothing off; what is dead on both is bought', () => {
    expect(short(ways([sign('u1', 'missing')], []))).toContainEqual(['mend', 8]);
    expect(ways([sign('u1', 'burnt')], [sign('u1', 'burnt')]).map((w) => w.id)).not.toContain('bring');
  });
});

describe('the record that goes with a part', () => {
  const donor = state(
    { type: 'function', name: 'pulses', when: 'before', state: 'works' },
    { type: 'part-holds', partId: 'u1', holds: ['data', 'firmware'] },
    ...['a1b2c3', 'a1b2c3'].map((checksum): JobEventBody => ({
      type: 'stored-read',
      partId: 'u1',
      when: 'before',
      checksum,
    })),
    listed('u1', { do: 'move', to: from('u1') }),
    goTo('u1'),
    ...run(1, 'remove', 'u1', 0.25),
    { type: 'part-off', partId: 'u1', fate: 'must live', place: 'tray 1', legs: ['Sn63Pb37'], heat: { peak_C: 231 } },
  );
  it('tells heat, legs, proof and what it holds', () => {
    expect(partRecordOf(donor, U1)).toMatchObject({
      ...{ name: 'u1', methodId: 'air-slow', times: 1, dose: 0.25, peak_C: 231, legs: ['Sn63Pb37'] },
      ...{ legsClean: false, place: 'tray 1', donor: 'ran until it came off', provenBy: ['pulses'] },
      ...{ holds: ['data', 'firmware'], copy: 'a1b2c3' },
    });
    expect(partRecordOf(donor, U1).offAt).not.toBeNull();
    expect(partRecordOf(state(), U1)).toMatchObject({ offAt: null, times: 0, dose: null, donor: 'not known' });
  });
  it('adds its heat to what it takes here, and its copy is known here', () => {
    const came: JobEventBody = { type: 'part-came', partId: 'u1', from: from('u1'), record: partRecordOf(donor, U1) };
    const here = state(listed('u1', { from: from('u1') }), goTo('u1'), ...run(2, 'remove', 'u1'), came);
    expect(heatsOf(here).part).toEqual({ times: 1, dose: 0.25 });
    const on = state(
      listed('u1', { from: from('u1') }),
      goTo('u1'),
      came,
      ...run(2, 'remove', 'u1'),
      ...run(3, 'fit', 'u1'),
    );
    expect(heatsOf(on).part).toMatchObject({ times: 2 });
    expect(heatsOf(on).part.dose).toBeCloseTo(0.35, 6);
    expect(copyOf(here.stored.get('u1') ?? { before: [] })).toMatchObject({ state: 'copy' });
  });
  it('is taken only from where the set says', () => {
    const record = partRecordOf(donor, U1);
    const judge = (wanted: object, got: object) =>
      judgeEvent(jobEventSchema.parse({ type: 'part-came', partId: 'u1', from: got, record }), {
        ...{ closed: false, gates: [], board, plan: null, state: state(listed('u1', wanted)) },
        ...{ hasEvent: () => true, hasRun: () => true, hasRoutineStep: () => true, hasPhoto: () => true },
      });
    expect(judge({ from: from('u1') }, from('u1'))).toBeUndefined();
    expect(judge({ from: from('u1') }, from('u2'))?.field).toBe('body.from');
    expect(judge({}, from('u1'))?.field).toBe('body.from');
  });
});

describe('what becomes of parts between boards', () => {
  it('what moves is done here once it is off; what is lent waits for one back; an empty place takes no removal', () => {
    expect(opsIn('each', 'move')).toEqual(['remove']);
    expect(opsIn('each', 'lend')).toEqual(['remove', 'prepare', 'fit']);
    expect(opsIn('each', 'place')).toEqual(['prepare', 'fit']);
    const moved = setProgress(
      state(listed('u1', { do: 'move', to: from('u1') }), goTo('u1'), ...run(1, 'remove', 'u1')),
    );
    expect(moved).toMatchObject({ stage: null, parts: [{ state: 'moved' }] });
    // a board that only gave is not tried
    const gave = [listed('u1', { do: 'salvage' }), goTo('u1'), ...run(1, 'remove', 'u1')];
    expect(standsAt(state(...gave), 'transplant')).toBe('release');
    expect(standsAt(state(...gave, listed('u2', { do: 'leave' })), 'transplant')).not.toBe('release');
    const lent = state(
      listed('u1', { do: 'lend', missing: true }),
      goTo('u1'),
      ...run(1, 'remove', 'u1'),
      ...run(2, 'prepare', 'u1'),
    );
    expect(setProgress(lent)).toMatchObject({ stage: 'fitted', next: null, missing: [{ partId: 'u1' }] });
    expect(setProgress(state(listed('u1', { do: 'place' })))).toMatchObject({ next: { op: 'prepare' } });
  });
});

describe('a new board without parts', () => {
  const facts: JobFacts = {
    ...{ complaint: 'due', type: 'transplant', powerSources: [], planFresh: null, hotNeighbours: null, layOut: null },
    ...{ rails: [], loads: [], terminals: null, targetPolarised: null, drawnMark: null, mayHold: [], legs: [] },
    ...{ proofs: [], atRisk: null },
  };
  const gate = (...bodies: JobEventBody[]) => judgeGates(state(...bodies), facts).find((g) => g.id === 'bare-board');
  it('is checked before any part is on it, and only where there is one', () => {
    expect(gate()).toBeUndefined();
    const bare: JobEventBody = { type: 'bare-board' };
    expect(gate(bare)?.why).toBe('open: tried in its place without solder, thickness measured, contacts masked');
    const fits: JobEventBody = { type: 'bare-board', dryFit: true, masked: true };
    expect(gate(bare, fits)?.why).toBe('open: thickness measured');
    expect(gate(bare, fits, { type: 'bare-board', thickness_mm: 0.8 })?.state).toBe('met');
    expect(gate(bare, { type: 'bare-board', dryFit: false })?.why).toMatch(/does not fit/);
  });
  it('is computed as thick as it was measured', () => {
    const thin = state({ type: 'bare-board', thickness_mm: board.thickness_mm / 2 });
    expect(asMeasured(board, thin).thickness_mm).toBe(board.thickness_mm / 2);
    expect(asMeasured(board, state())).toBe(board);
    expect(asMeasured(board, thin)).toBe(asMeasured(board, thin));
    expect(otherThickness(board.thickness_mm, thin)).toBeCloseTo(-board.thickness_mm / 2, 9);
    expect(otherThickness(board.thickness_mm, state())).toBeNull();
  });
});

describe('an order that is kept', () => {
  it('is of the bench it was computed for; one that does not say is taken as it is', () => {
    expect(isFreshOrder({ hash: 'a' }, 'a')).toBe(true);
    expect(isFreshOrder({ hash: 'a' }, 'b')).toBe(false);
    expect(isFreshOrder({}, 'b')).toBe(true);
    const facts = {
      complaint: 'x',
      type: 'refurbish',
      powerSources: [],
      planFresh: null,
      hotNeighbours: null,
    } as const;
    const rest = { layOut: null, rails: [], loads: [], terminals: null, targetPolarised: null, drawnMark: null };
    const judged = (setHash: string) =>
      judgeGates(
        state(listed('u1', { do: 'salvage' }), {
          ...{ type: 'set-ordered', stage: 'off', by: 'computed', minutes: 5, list_minutes: 5, hash: 'a' },
          legs: [
            {
              ...{ partId: 'u1', op: 'remove', methodId: 'air-slow', guide: null, start_s: 0, end_s: 9, start_C: 22 },
              ...{ rest_s: 0, restFor: [] },
            },
          ],
        }),
        { ...facts, ...rest, mayHold: [], legs: [], proofs: [], atRisk: null, setHash },
      ).find((g) => g.id === 'plan-fresh')?.state;
    expect([judged('a'), judged('b')]).toEqual(['met', 'unmet']);
  });
});
