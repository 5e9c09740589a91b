/** A repair that was proven to its end: joints, legs, pins, power in stages, every function before, open and closed again. */
import type { JobEventBody } from '@orthos/core/job';
import { legsToPush, proofsOf } from '@orthos/core/prove';
import { quillon } from './quillon.ts';
import { at, type Later, reading } from './ticketForm.ts';

const TARGET = 'q2';
const START_UP = '01990000-0000-7000-8000-000000000720';
const run = (n: number) => `01990000-0000-7000-8000-00000000071${n}`;
const tried = (name: string, ...states: ('works' | 'dead' | 'not tried')[]): JobEventBody[] =>
  states.map((state, n) => ({ type: 'function', name, when: (['before', 'after', 'closed'] as const)[n], state }));
const guide = (wet_s: [string, number][], closes_s: number, closedBy: string) => ({
  joints: wet_s.map(([terminal, s]) => ({ terminal, wet_s: s })),
  last: null,
  ...{ allWet_s: 21, allWetFrom_s: 17, allWetTo_s: 26, closes_s, closesFrom_s: 38, closesTo_s: 60, closedBy },
  heat: { land_K_s: 1900, dose: 0.06 },
});
/** One operation under the hands, marked with the pedal. */
const operation = (n: number, op: 'remove' | 'fit', wet_s: number): (JobEventBody | Later)[] => {
  const runId = run(n);
  const mark = (
    after_s: number,
    instruction: string,
    what: 'heat-on' | 'all-wet' | 'lifted' | 'heat-off' | 'fitted',
  ): Later => ({
    after_s,
    body: { type: 'mark', runId, instruction, what },
  });
  return [
    {
      ...{
        type: 'run-begun',
        runId,
        op,
        methodId: op === 'fit' ? 'fit-air' : 'air-slow',
        offline: false,
        bench: false,
      },
      guide: guide(
        [
          ['1', 18],
          ['2', 20],
          ['3', 21],
        ],
        47,
        'J1',
      ),
    },
    mark(20, 'heat', 'heat-on'),
    mark(wet_s, 'look', 'all-wet'),
    mark(3, op === 'fit' ? 'seat' : 'lift', op === 'fit' ? 'fitted' : 'lifted'),
    mark(2, 'off', 'heat-off'),
    { after_s: 30, body: { type: 'run-ended', runId, outcome: 'finished' } },
  ];
};

function proven(): JobEventBody[] {
  const part = quillon.parts.find((p) => p.partId === TARGET);
  if (!part) throw new Error(`${quillon.name} has no ${TARGET}`);
  return [
    ...['1', '2', '3'].map((terminal, n): JobEventBody => ({
      type: 'joint',
      terminal,
      state: n === 2 ? 'dull' : 'good',
    })),
    ...legsToPush(part).map((terminal): JobEventBody => ({ type: 'leg-pushed', terminal, firm: true })),
    ...proofsOf(quillon, part).map(({ kind, terminal, to }): JobEventBody => ({
      ...{ type: 'proved', kind, terminal, to },
      read: { said: kind === 'apart' ? 'silent' : 'beeps' },
    })),
    { type: 'surroundings-scanned', ok: true, after: 'fitting' },
  ];
}
const rail = (label: string, ohm: number, good_ohm: number): JobEventBody => ({
  ...{ type: 'short-check', rail: label, load: null, ohm, good_ohm, nature: null },
});
const stage = (name: string, at_s: number, limit_A: number, current_A: number): JobEventBody => ({
  ...{ type: 'supply-stage', startUpId: START_UP, stage: name, at_s, supply_V: 12, limit_A, current_A },
});

export const seatHeater: (JobEventBody | Later)[] = [
  ...tried('seat heater', 'works'),
  ...tried('memory keys', 'dead'),
  reading(quillon, 'Q2', '1', 'diode', 0.04, 0.61),
  { type: 'suspect', partId: TARGET, why: 'gate transistor short between base and emitter' },
  ...operation(0, 'remove', 23),
  { type: 'off-board-test', result: 'bad', recovered: true },
  { type: 'lands-clean', ok: true },
  { type: 'new-part-measured', ok: true, note: 'junctions as its sheet says', origin: 'new', from: 'drawer T3' },
  { type: 'orientation-checked', against: ['the photo before'] },
  ...operation(1, 'fit', 20),
  ...proven(),
  rail('12 V', 3050, 3100),
  rail('5 V', 1480, 1500),
  {
    ...rail('motor output', 5200, 5000),
    good_ohm: null,
    nature: { why: 'a motor winding is low by nature', least_ohm: 4 },
  } as JobEventBody,
  stage('soak', 4.9, 0.022, 0.012),
  stage('start', 8.8, 0.15, 0.084),
  stage('run', 18.7, 0.15, 0.061),
  {
    type: 'reading',
    place: at(quillon, 'Q2', '1'),
    quantity: 'diode',
    value: 0.6,
    good: 0.61,
    goodFrom: 'good board',
    powered: false,
  },
  ...[
    tried('the complaint', 'not tried', 'works', 'works').slice(1),
    tried('seat heater', 'works', 'works', 'works').slice(1),
  ].flat(),
  ...tried('memory keys', 'dead', 'dead', 'dead').slice(1),
  {
    type: 'released',
    outcome: 'repaired',
    minutes: 35,
    lead: true,
    note: 'Gate resistor was fine; transistor only',
  },
];
