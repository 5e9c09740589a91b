import { foldJob, type JobEvent, type JobEventBody, modelHistory, RunningJob } from '@orthos/core/job';
import { expressBoard } from '@orthos/core/rework';
import { v7 } from 'uuid';
import { beforeAll, describe, expect, it } from 'vitest';
import { compared } from '../src/lib/diagnose/comparing.ts';
import { questionOf, referenceFor } from '../src/lib/diagnose/question.ts';
import { probeOfReading, readTyped } from '../src/lib/diagnose/probes.ts';
import { damageMarks, damageWords } from '../src/lib/intake/damage.ts';
import { formatMoney, moneyField, parseMoney } from '../src/lib/intake/money.ts';
import { recordOf } from '../src/lib/release/jobRecord.ts';
import { demoCircuits } from '../src/lib/server/demo/circuits.ts';
import { ternT2 } from '../src/lib/server/demo/ternT2.ts';
import { modelHistoryOf } from '../src/lib/server/modelHistoryOf.ts';
import { createBoardModel } from '../src/lib/server/repositories/boardModels.ts';
import { ConflictError } from '../src/lib/server/repositories/conflict.ts';
import { addGoodStartUp, goodStartUpsOf } from '../src/lib/server/repositories/goodStartUps.ts';
import { appendEvents } from '../src/lib/server/repositories/jobEvents.ts';
import {
  addRoutine,
  removeRoutine,
  routineById,
  routinesOf,
  saveRoutine,
} from '../src/lib/server/repositories/routines.ts';
import { createTicket, saveTicket, ticketById } from '../src/lib/server/repositories/tickets.ts';
import { testDatabase } from './database.ts';
import { viewOf } from './view.ts';

const { db } = testDatabase();
const doc = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'pbt', distance_mm: 4 });
let model: { modelId: string; versionId: string };
let other: { modelId: string; versionId: string };
beforeAll(async () => {
  model = await createBoardModel(db(), { doc });
  other = await createBoardModel(db(), { doc });
});

let n = 0;
const log = (bodies: JobEventBody[]): JobEvent[] =>
  bodies.map((body) => ({ id: v7(), at: ++n * 1000, actor: 'unsigned', v: 1, body }));
const ticket = (complaint = 'dark') =>
  createTicket(db(), {
    kind: 'repair',
    customer: 'Ada Rooke',
    device: 'lamp',
    complaint,
    modelId: model.modelId,
    boardVersionId: model.versionId,
  });

describe('routines of a family', () => {
  const steps = [{ id: 'a', says: 'look under the plug' }];
  it('belong to several kinds of board, are saved by version, and go', async () => {
    const id = v7();
    await addRoutine(db(), { id, name: 'First look', steps, modelIds: [model.modelId, other.modelId] });
    await addRoutine(db(), { id, name: 'sent twice', steps: [], modelIds: [model.modelId] });
    for (const { modelId } of [model, other])
      expect((await routinesOf(db(), modelId)).map((r) => r.name)).toEqual(['First look']);
    const stored = await routineById(db(), id);
    if (!stored) throw new Error('gone');
    expect(await saveRoutine(db(), { ...stored, name: 'Second look', modelIds: [other.modelId] })).toBe(2);
    expect(await routinesOf(db(), model.modelId)).toEqual([]);
    await expect(saveRoutine(db(), { ...stored, name: 'late' })).rejects.toBeInstanceOf(ConflictError);
    expect(await routineById(db(), id)).toMatchObject({ name: 'Second look', modelIds: [other.modelId], version: 2 });
    await removeRoutine(db(), id);
    expect(await routineById(db(), id)).toBeUndefined();
  });
});

describe('start-ups of good units', () => {
  it('are kept once, the latest first', async () => {
    const first = { id: v7(), unit: 'hall', stages: [{ stage: 'on', at_s: 0, current_A: 0.1 }] };
    await addGoodStartUp(db(), model.modelId, first);
    await addGoodStartUp(db(), model.modelId, { ...first, unit: 'again' });
    await addGoodStartUp(db(), model.modelId, { ...first, id: v7(), unit: 'attic' });
    expect((await goodStartUpsOf(db(), model.modelId)).map((s) => s.unit)).toEqual(['attic', 'hall']);
    expect(await goodStartUpsOf(db(), other.modelId)).toEqual([]);
  });
});

describe('a ticket', () => {
  it('is changed by version; the one who comes late sees what is stored', async () => {
    const { id, version } = await ticket();
    const change = {
      kind: 'conversion' as const,
      device: 'lamp',
      complaint: 'brighter, please',
      inBox: 'lamp',
      waitsFor: 'a LED',
      promisedOn: '2026-12-01',
    };
    expect(await saveTicket(db(), id, version, change)).toBe(version + 1);
    await expect(saveTicket(db(), id, version, { ...change, waitsFor: '' })).rejects.toMatchObject({
      stored: { waitsFor: 'a LED' },
    });
    expect((await ticketById(db(), id))?.ticket).toMatchObject(change);
  });
});

describe('the same model before', () => {
  it('counts the other tickets of this kind of board only', async () => {
    const { modelId, versionId } = await createBoardModel(db(), { doc });
    const mine = await createTicket(db(), {
      kind: 'repair',
      customer: 'Ada Rooke',
      device: 'lamp',
      complaint: 'mine',
      modelId,
      boardVersionId: versionId,
    });
    const before = await createTicket(db(), {
      kind: 'repair',
      customer: 'Ada Rooke',
      device: 'lamp',
      complaint: 'earlier',
      modelId,
      boardVersionId: versionId,
    });
    await ticket('of another model');
    await appendEvents(
      db(),
      before.id,
      log([
        { type: 'suspect', partId: 'target', why: 'low' },
        { type: 'released', outcome: 'repaired', minutes: 20 },
      ]),
    );
    const history = await modelHistoryOf(db(), modelId, mine.id);
    expect(history).toMatchObject({ jobs: 1, minutes: 20, culprits: [{ partId: 'target', jobs: 1 }] });
    expect(history.latest.map((j) => j.complaint)).toEqual(['earlier']);
    expect(await modelHistoryOf(db(), modelId, before.id)).toMatchObject({ jobs: 0, open: 1 });
  });
});

describe('money', () => {
  it.each([
    ['12', 'EUR', 1200],
    ['4,50', 'EUR', 450],
    ['4.505', 'EUR', 451],
    ['700', 'JPY', 700],
    ['-1', 'EUR', null],
    ['a lot', 'EUR', null],
  ] as const)('%s %s is %s', (text, currency, minor) => expect(parseMoney(text, currency)).toBe(minor));
  it('comes back from its field as it went in', () => {
    for (const minor of [0, 5, 450, 1200]) expect(parseMoney(moneyField(minor, 'EUR'), 'EUR')).toBe(minor);
    expect(formatMoney(7500, 'EUR')).toBe('€75.00');
  });
});

describe('damage on the stage', () => {
  const place = { x_mm: 10, y_mm: 12, side: 'bottom' as const };
  const { damage } = foldJob(
    log([
      { type: 'damage', kind: 'liquid', whose: 'found', note: 'edge', place },
      {
        type: 'damage',
        kind: 'crack',
        whose: 'ours',
        note: '',
        place: { ...place, side: 'top' },
        pen: {
          on: 'board',
          strokes: [
            [
              [1, 2],
              [3, 4],
            ],
          ],
        },
      },
      {
        type: 'damage',
        kind: 'pry mark',
        whose: 'found',
        note: '',
        photoId: v7(),
        pen: {
          on: 'photo',
          strokes: [
            [
              [0, 0],
              [1, 1],
            ],
          ],
        },
      },
    ]),
  ).intake;
  it('is a place or strokes on its side; what is on a photo stays there', () => {
    expect(damageMarks(damage).map((m) => [m.label, m.tone, m.side, m.strokes.length])).toEqual([
      ['1 liquid', 'found', 'bottom', 0],
      ['2 crack', 'ours', 'top', 1],
    ]);
  });
  it('is said in words', () =>
    expect(damage.map((d) => damageWords(ternT2, d))).toEqual([
      'liquid at 10.0, 12.0: edge',
      'crack at 10.0, 12.0',
      'pry mark on a photo',
    ]));
});

describe('the question to the ranking', () => {
  const circuit = { id: v7(), modelId: 'm', updatedAt: new Date(), version: 1, ...demoCircuits['Tern T2'] };
  const meter = {
    id: 'k',
    name: 'M',
    bench: '',
    simulated: true,
    host: '',
    port: 1,
    ohmPercent: 2,
    voltPercent: 1,
    leadsOhm: 0.3,
    version: 1,
  };
  const none = modelHistory([]);
  const reading: JobEventBody = {
    type: 'reading',
    place: { x_mm: 0, y_mm: 0, side: 'top', partId: 'c7', terminal: '1' },
    quantity: 'ohm',
    value: 1.4,
    good: 2400,
    powered: false,
  };
  const ask = (bodies: JobEventBody[], history = none) =>
    questionOf({ ...viewOf(ternT2, undefined, log(bodies)), circuits: [circuit], meters: [meter], history });
  it('brings leads and accuracy of the kit, and takes the leads off the good board too', () => {
    expect(ask([reading])).toMatchObject({
      lead_resistance_ohm: 0.3,
      accuracy: { ohm_percent: 2, volt_percent: 1 },
      readings: [{ red: '3V3', value: 1.4, good: 2399.7 }],
    });
  });
  it('brings the current of a start-up at the volts of the circuit, beside a good unit; of rest and of other volts nothing', () => {
    const stage = (name: string, at_s: number, current_A: number, more = {}): JobEventBody => ({
      ...{ type: 'supply-stage', startUpId: 'a', stage: name, at_s, supply_V: 36, limit_A: 0.5, current_A },
      ...more,
    });
    const asked = (bodies: JobEventBody[]) =>
      questionOf({
        ...viewOf(ternT2, undefined, log(bodies)),
        circuits: [circuit],
        meters: [meter],
        goodStartUps: [{ id: 'g', unit: 'hall', stages: [{ stage: 'running', at_s: 6, current_A: 0.02 }] }],
      });
    const run = [stage('connected', 0, 0.001), stage('running', 6, 0.031), stage('asleep', 20, 0.002)];
    expect(asked(run)?.readings).toEqual([{ type: 'isup', state: 'awake', value: 0.031, good: 0.02, spread: 0.6 }]);
    expect(asked([stage('running', 6, 0.031, { supply_V: 12 })])?.readings).toEqual([]);
    expect(asked([stage('asleep', 20, 0.002)])?.readings).toEqual([]);
    // held by its limit it says that it would be more: the circuit is asked with that limit
    const held = asked([stage('running', 6, 0.1, { limit_A: 0.1 })]);
    expect(held?.readings).toEqual([{ type: 'isup', state: 'awake', value: 0.1, good: null, spread: 0.6 }]);
    expect(held?.netlist.power?.states.awake.sources[0]).toMatchObject({ ilim: 0.1 });
  });
  it('says what the board holds beside the circuit', () => {
    const beside = ask([reading])?.beside ?? [];
    expect(beside.some((b) => b.net === '3V3')).toBe(true);
  });
  it('knows what good boards read at a place: measured as such, by net or by the place alone, beside an earlier reading, or after a repair', () => {
    const bare: JobEventBody = { ...reading, good: null };
    const good = (past: JobEventBody[]) => {
      const history = modelHistory([{ id: 'e', number: 7, complaint: '', log: new RunningJob(log(past)) }]);
      // with a circuit another day's board says nothing
      expect(ask([bare], history)?.readings[0].good).toBeNull();
      return compared({ ...viewOf(ternT2, undefined, log([bare])), history }).readings[0]?.good ?? null;
    };
    expect(good([])).toBeNull();
    expect(good([{ ...reading, goodFrom: 'good board' }])).toBeCloseTo(2400, 6);
    expect(good([{ ...reading, goodFrom: 'expected' }])).toBeNull();
    const healed: JobEventBody[] = [
      bare,
      { type: 'run-begun', runId: v7(), op: 'remove', methodId: 'air-slow', guide: null, offline: false, bench: false },
      { ...bare, value: 2380 },
    ];
    expect(good([...healed, { type: 'released', outcome: 'declined' }])).toBeNull();
    const held = [{ type: 'suspect', partId: 'c7', why: 'low' }, ...healed] as JobEventBody[];
    expect(good([...held, { type: 'released', outcome: 'repaired' }])).toBeCloseTo(2380, 6);
    // without a circuit a place has its net, or its name
    const view = viewOf(ternT2, undefined, log([bare]));
    const stored = (red: string) => ({
      id: v7(),
      unit: 'hall',
      type: 'ohm' as const,
      red,
      black: 'GND',
      state: '',
      value: 2400,
    });
    const probe = probeOfReading({ place: reading.place, quantity: 'ohm' }, ternT2, null);
    expect(probe && referenceFor({ ...view, goodReadings: [stored('3V3')] }, null, probe)).toMatchObject({
      value: expect.closeTo(2400, 6),
      units: 1,
    });
    const netless = { ...ternT2, parts: ternT2.parts.map((p) => ({ ...p, nets: undefined })) } as typeof ternT2;
    const named = probeOfReading({ place: reading.place, quantity: 'ohm' }, netless, null);
    expect(named?.red).toBe('C7.1');
    const found = compared({ ...view, board: netless, goodReadings: [stored('C7.1')] });
    expect(found.readings).toMatchObject([{ net: 'c7', value: 1.4, good: expect.closeTo(2400, 6) }]);
    expect(found.suspects[0].ref).toBe('C7');
  });
  it('brings the past of the model, as the circuit names its parts', () => {
    const past = modelHistory(
      ['c7', 'c7', 'u3'].map((partId, i) => ({
        id: String(i),
        number: i,
        complaint: '',
        log: new RunningJob(
          log([
            { type: 'suspect', partId, why: 'low' },
            { type: 'released', outcome: 'repaired' },
          ]),
        ),
      })),
    );
    expect(ask([], past)?.history).toEqual({ events: [], jobs: 3, culprits: { C7: 2, U3: 1 } });
  });
  it('brings software, swaps, a pair, and what tends to fail along with a culprit found before', () => {
    const asked = ask([
      { type: 'software', state: 'ruled out', how: 'twin' },
      { type: 'swapped', partId: 'u4', followed: false },
      {
        type: 'pair',
        faults: [
          { ref: 'C7', mode: 'short' },
          { ref: 'U3', mode: 'dead' },
        ],
      },
      { type: 'suspect', partId: 'u4', why: 'first' },
      { type: 'off-board-test', result: 'bad' },
      { type: 'new-attempt', why: 'still dead' },
    ]);
    expect(asked).toMatchObject({
      software: 'ruled out',
      swapped: [{ ref: 'U4', followed: false }],
      pair: [{ ref: 'C7' }, { ref: 'U3' }],
    });
    expect(asked?.companions).toContain('L1');
    expect(asked?.companions).not.toContain('U4');
    expect(asked?.companions).not.toContain('C7');
  });
  it('a typed value is read, or says why it cannot be', () => {
    expect(readTyped('4k7', 'ohm')).toEqual({ value: 4700 });
    expect(readTyped('450', 'diode')).toMatchObject({ problem: expect.stringContaining('2.8 V') as string });
    expect(readTyped('12,5,3', 'dcv')).toMatchObject({ problem: expect.stringContaining('A number') as string });
  });
});

describe('the record of intake', () => {
  it('says what was tried, promised and left out, and nothing that was not', () => {
    const report = (bodies: JobEventBody[]) => recordOf(viewOf(ternT2, undefined, log(bodies)), String);
    expect(report([]).intake).toEqual([]);
    const full = report([
      { type: 'onset', events: ['drop'] },
      { type: 'complaint-tried', seen: 'otherwise', note: 'only cold' },
      { type: 'opened', kind: 'screw', what: 'feet', count: 3 },
      { type: 'proof', by: 'readings', why: 'no motor' },
      { type: 'warranty', months: 2, terms: 'on the part' },
      { type: 'extra', name: 'new cell', state: 'done' },
      { type: 'damage', kind: 'crack', whose: 'ours', note: '', place: { x_mm: 1, y_mm: 1, side: 'top' } },
    ]);
    expect(Object.fromEntries(full.intake)).toEqual({
      'Complaint here': 'otherwise, only cold',
      'How it began': 'drop',
      Proof: 'measured only, no motor',
      Warranty: '2 months on the part',
      Screws: '3 not back in',
    });
    expect(full.damage).toEqual(['ours: crack at 1.0, 1.0']);
    expect(full.extras).toEqual(['new cell: done']);
  });
});
