/** The tickets of the demo shop, open and lately closed. All names and numbers are made up. */
import { FUNCTION_LISTS, type JobEventBody } from '@orthos/core/job';
import { bramble } from './bramble.ts';
import { lodestar } from './lodestar.ts';
import { quillon } from './quillon.ts';
import { seatHeater } from './seatHeater.ts';
import ternWet from './tern-wet.jpg?inline';
import { ternT2 } from './ternT2.ts';
import { at, type DemoTicket, type Later, reading } from './ticketForm.ts';
import { weir } from './weir.ts';

const before = (name: string, state: 'works' | 'dead' | 'not tried'): JobEventBody => ({
  type: 'function',
  name,
  when: 'before',
  state,
});

const WET_PHOTO = '01990000-0000-7000-8000-0000000000f1';

/** A pen's ring round a place. */
const ring = (x: number, y: number, rx: number, ry: number): [number, number][] =>
  Array.from({ length: 19 }, (_, i) => {
    const a = (i / 18) * 2 * Math.PI;
    return [Math.round(1e3 * (x + rx * Math.cos(a))) / 1e3, Math.round(1e3 * (y + ry * Math.sin(a))) / 1e3];
  });

const startUp = (
  startUpId: string,
  supply_V: number,
  limit_A: number,
  stages: [stage: string, at_s: number, current_A: number][],
): JobEventBody[] =>
  stages.map(([stage, at_s, current_A]) => ({
    type: 'supply-stage',
    startUpId,
    stage,
    at_s,
    supply_V,
    limit_A,
    current_A,
  }));

/** How the Tern comes open. */
const opening: JobEventBody[] = [
  { type: 'opened', kind: 'pry', what: 'lower seam, right of the bracket', count: 1 },
  { type: 'opened', kind: 'clip', what: 'rim, thumbs outwards', count: 6 },
  { type: 'opened', kind: 'screw', what: 'M2 × 5 through the board', count: 4 },
  { type: 'opened', kind: 'cable', what: 'glass plug J3', count: 1 },
];

/** One operation of a campaign, done by hand without marks. */
const takenOff = (runId: string): (JobEventBody | Later)[] => [
  { type: 'run-begun', runId, op: 'remove', methodId: 'vacuum', guide: null, offline: false, bench: false },
  { after_s: 150, body: { type: 'run-ended', runId, outcome: 'finished' } },
];
const runId = (n: number) => `01990000-0000-7000-8000-${String(n).padStart(12, '0')}`;
/** The campaign's fourteen cans: what goes in, and the two snap-ins that are still on their way. So many are off already. */
const CANS = Array.from({ length: 14 }, (_, i) => {
  const [substitute, bin] =
    i < 2
      ? ['270 µF 400 V', '']
      : i < 4
        ? ['1000 µF 35 V', 'B6']
        : i < 8
          ? ['470 µF 50 V', 'B5']
          : ['220 µF 25 V', 'B2'];
  return { partId: `c${i + 1}`, side: 'top' as const, substitute, bin, missing: i < 2 ? (true as const) : null };
});
const OFF = 6;

export const tickets: DemoTicket[] = [
  {
    board: ternT2,
    customer: 'Velo Marrow',
    device: 'Tern T2 display',
    serial: 'T2-30418',
    complaint: 'Display stays dark after a wet ride. Battery is good on another bike.',
    inBox: 'display, bracket, no cable',
    photo: { id: WET_PHOTO, url: ternWet, caption: 'top, as it came' },
    shows: 'Which of fourteen on one rail: millivolts along it tell.',
    hidden: [{ ref: 'C7', mode: 'short', r: 1.4 }],
    days: 3,
    promisedInDays: 2,
    events: [
      { type: 'onset', events: ['liquid', 'sudden'] },
      { type: 'functions-listed', kind: 'display or instrument', names: [...FUNCTION_LISTS['display or instrument']] },
      before('display', 'dead'),
      before('buttons', 'works'),
      { type: 'complaint-tried', seen: 'as told', note: 'dark at 36 V, limit 0.25 A, at once' },
      ...opening,
      {
        type: 'damage',
        kind: 'liquid',
        whose: 'found',
        note: 'dried edge of water',
        place: at(ternT2, 'J2', '1'),
        pen: { on: 'board', strokes: [ring(55.6, 31.4, 5.2, 3.4)] },
      },
      {
        type: 'damage',
        kind: 'liquid',
        whose: 'found',
        note: 'white edge at the battery plug',
        photoId: WET_PHOTO,
        pen: { on: 'photo', strokes: [ring(0.845, 0.68, 0.09, 0.1)] },
      },
      {
        type: 'damage',
        kind: 'pry mark',
        whose: 'found',
        note: 'at the seam, earlier',
        place: { x_mm: 4, y_mm: 34, side: 'top' },
      },
      ...startUp('01990000-0000-7000-8000-0000000000d1', 36, 0.25, [
        ['connected', 0, 0.25],
        ['switched on', 3, 0.25],
      ]),
      { type: 'proof', by: 'running', why: 'display runs from the bench supply' },
      { type: 'extra', name: 'new coin cell BT1', state: 'wanted' },
      {
        type: 'offer',
        currency: 'EUR',
        tiers: [
          { label: 'the one part', minutes: 35, parts_minor: 200, attempts: 1.3, price_minor: 4000 },
          { label: 'the whole circuit round it', minutes: 75, parts_minor: 900, attempts: 1, price_minor: 7700 },
        ],
        worth_minor: 18_900,
      },
      { type: 'offer-taken', tier: 'the one part' },
      { type: 'observation', text: 'No corrosion round J2; a faint bloom under U2' },
      reading(ternT2, 'C10', '1', 'ohm', 1.9, 2400),
      reading(ternT2, 'C15', '1', 'ohm', 5200, 5100),
      reading(ternT2, 'U3', '1', 'dcv', 5.02, 5),
      reading(ternT2, 'C7', '1', 'ohm', 1.4, 2400),
    ],
  },
  {
    board: quillon,
    customer: 'Orrin Fell',
    device: 'Quillon seat module',
    serial: 'Q-88120',
    complaint: 'Seat moves backwards on its own when the doors are opened, then not at all.',
    inBox: 'module in its housing',
    shows: 'Heat beside plastic: plan it, cover, take the part off, fit a new one, print the record.',
    hidden: [{ ref: 'Q1', mode: 'short', pins: ['D', 'S'], r: 0.1 }],
    days: 5,
    promisedInDays: 1,
    events: [
      before('backwards', 'dead'),
      before('forwards', 'works'),
      before('memory keys', 'works'),
      { type: 'observation', text: 'Brown ring round the tab of Q1', place: at(quillon, 'Q1', 'TAB') },
      reading(quillon, 'Q1', '3', 'ohm', 2030, 4700),
      reading(quillon, 'Q1', 'TAB', 'ohm', 2050, 3600),
      {
        type: 'reading',
        place: at(quillon, 'Q1', '3'),
        quantity: 'ohm',
        value: 0.3,
        good: 8300,
        goodFrom: 'good board',
        powered: false,
        probe: { type: 'ohm', red: 'OUT', black: '12V', state: null },
      },
      { type: 'suspect', partId: 'q1', why: 'TAB to OUT reads 0.3 Ω with the harness off, a good board 8.3 kΩ' },
    ],
  },
  {
    board: quillon,
    customer: 'Hollis Garage',
    device: 'Quillon seat module',
    serial: 'Q-90233',
    complaint: 'Car reports no answer from the seat. Another shop has already changed U7.',
    inBox: 'bare board',
    hidden: [{ ref: 'D3', mode: 'short', r: 9 }],
    days: 6,
    events: [
      { type: 'suspect', partId: 'u7', why: 'CANH sits at 0.2 V' },
      { type: 'observation', text: 'U7 is fresh, joints clean; fault unchanged' },
      reading(quillon, 'U7', '7', 'ohm', 11, 4600),
      reading(quillon, 'U7', '6', 'ohm', 129, 4600),
      { type: 'new-attempt', why: 'New U7, same fault: U7 was not it' },
      reading(quillon, 'D3', '1', 'ohm', 9, 4600),
      { type: 'suspect', partId: 'd3', why: 'CANH 9 Ω at D3, 11 Ω at U7: lower the nearer to D3' },
    ],
  },
  {
    board: ternT2,
    customer: 'Ines Calder',
    device: 'Tern T2 display',
    serial: 'T2-30977',
    complaint: 'Segments missing, worse when cold.',
    inBox: 'display and bracket',
    days: 2,
    promisedInDays: 5,
    events: [
      reading(ternT2, 'U1', '1', 'dcv', 3.29, 3.3),
      reading(ternT2, 'U1', '20', 'dcv', 1.1, 9.2),
      { type: 'suspect', partId: 'u1', why: 'Supply good, VLED missing at its own pin, load unplugged' },
    ],
  },
  {
    board: ternT2,
    customer: 'Velo Marrow',
    device: 'Tern T2 display',
    serial: 'T2-31544',
    complaint: 'Resets over every bump.',
    inBox: 'display only',
    days: 1,
    events: [
      { type: 'observation', text: 'Resets when U2 is pressed at its north-west corner', place: at(ternT2, 'U2', '1') },
      { type: 'suspect', partId: 'u2', why: 'Pressing the corner cures it; centre pad cracked, reflow or renew' },
    ],
  },
  {
    board: quillon,
    customer: 'Petra Vane',
    device: 'Quillon seat module',
    serial: 'Q-77012',
    complaint: 'Memory positions lost, line 2 low.',
    inBox: 'module',
    days: 9,
    waitsFor: 'donor board',
    events: [
      reading(quillon, 'U4', '25', 'ohm', 86, 2100),
      reading(quillon, 'U4', '26', 'ohm', 2070, 2100),
      { type: 'suspect', partId: 'u4', why: 'Line 2 reads 86 Ω with C19 to C22 lifted; line 1 is untouched' },
    ],
  },
  {
    board: quillon,
    kind: 'fit-only',
    customer: 'Hollis Garage',
    device: 'Quillon seat module',
    serial: 'Q-90411',
    complaint: 'C5 already taken off by the owner. Fit the new one that is in the bag.',
    inBox: 'bare board, new polymer can in a bag',
    days: 1,
    promisedInDays: 1,
    events: [{ type: 'suspect', partId: 'c5', why: 'To be fitted: 100 µF polymer, 8 mm' }],
  },
  {
    board: ternT2,
    customer: 'Sable Anders',
    device: 'Tern T2 display',
    serial: 'T2-29001',
    complaint: 'Dead since the battery plug was put in the wrong way.',
    inBox: 'display, bracket, battery lead',
    hidden: [{ ref: 'D2', mode: 'short', r: 0.8 }],
    days: 0,
    events: [],
  },
  {
    board: quillon,
    customer: 'Orrin Fell',
    device: 'Quillon seat module',
    serial: 'Q-71555',
    complaint: 'Seat heater stays on.',
    days: 30,
    closedDaysAgo: 24,
    events: seatHeater,
  },
  {
    board: ternT2,
    customer: 'Ines Calder',
    device: 'Tern T2 display',
    serial: 'T2-11870',
    complaint: 'Sat in salt water for a week.',
    days: 41,
    closedDaysAgo: 40,
    events: [
      { type: 'observation', text: 'Tracks eaten under BT1 and J1; more tracks than parts to mend' },
      {
        type: 'released',
        outcome: 'declined',
        reason: 'not economic',
        note: 'More tracks to mend than the display is worth',
      },
    ],
  },
  {
    board: ternT2,
    customer: 'Velo Marrow',
    device: 'Tern T2 display',
    serial: 'T2-31602',
    complaint: 'Nothing on the display, nothing gets warm. Was fine in the evening.',
    inBox: 'display, battery lead',
    shows: 'Nothing measured yet: let the meter answer and find the fault.',
    hidden: [{ ref: 'U3', mode: 'dead' }],
    days: 0,
    events: [before('display', 'dead'), before('buttons', 'not tried')],
  },
  {
    board: lodestar,
    customer: 'Hollis Garage',
    device: 'Lodestar window-lift module',
    serial: 'LS-40117',
    complaint: 'Dead since the car was jump-started with the leads crossed.',
    inBox: 'bare board',
    hidden: [{ ref: 'D2', mode: 'short', r: 0.6 }],
    days: 0,
    events: [{ type: 'onset', events: ['reversed'] }],
  },
  {
    board: bramble,
    customer: 'Ada Rooke',
    device: 'Bramble thermostat',
    serial: 'BR-2209',
    complaint: 'Blank after the frost. A second one from the hall works.',
    inBox: 'thermostat, and the good one from the hall',
    days: 0,
    events: [before('panel', 'dead')],
  },
  {
    board: weir,
    kind: 'refurbish',
    customer: 'Brackwater Pumps',
    device: 'Weir pump controller',
    serial: 'W-0612',
    complaint: 'Fourteen cans due after nine years; restarts by itself on hot days.',
    inBox: 'controller in its box, door key',
    days: 4,
    promisedInDays: 3,
    events: [
      { type: 'onset', events: ['creeping'] },
      { type: 'opened', kind: 'screw', what: 'M4 × 10, cover', count: 6 },
      { type: 'opened', kind: 'cable', what: 'J3 sensor plug', count: 1 },
      { type: 'damage', kind: 'corrosion', whose: 'found', note: 'both ground lugs', place: at(weir, 'LUG1', '1') },
      { type: 'set-parts', items: CANS },
      ...Array.from({ length: OFF }, (_, i): (JobEventBody | Later)[] => [
        { type: 'set-at', partId: `c${14 - i}` },
        ...takenOff(runId(600 + i)),
      ]).flat(),
    ],
  },
  {
    board: 'Gantry',
    customer: 'Dunelift Service',
    device: 'Gantry gate board',
    serial: 'G-3341',
    complaint: 'No gate pulses after a surge on the 24 V line.',
    inBox: 'bare board, no drive',
    days: 0,
    promisedInDays: 4,
    events: [
      { type: 'onset', events: ['sudden'] },
      { type: 'observation', text: 'U3 pulls 3.3 V down to 1.1 V and is warm at once; its clock stands still' },
      { type: 'suspect', partId: 'u3', why: '3.3 V 4 Ω at U3, 740 Ω with its ferrite lifted' },
    ],
  },
  {
    board: 'Gantry',
    kind: 'measure-only',
    customer: 'Dunelift Service',
    device: 'Gantry gate board',
    serial: 'G-3307',
    complaint: 'Drive trips at once. Say whether the gate board is the cause.',
    inBox: 'bare board, no drive',
    days: 1,
    promisedInDays: 2,
    events: [
      { type: 'proof', by: 'readings', why: 'no 600 V drive on this bench' },
      { type: 'observation', text: 'Q1 and Q2 look well; no crack in the paste' },
    ],
  },
  {
    board: lodestar,
    kind: 'data-only',
    customer: 'Petra Vane',
    device: 'Lodestar window-lift module',
    serial: 'LS-38820',
    complaint: 'Keep the learnt end-stops before the car goes to the breaker.',
    days: 13,
    closedDaysAgo: 12,
    events: [
      { type: 'suspect', partId: 'u2', why: 'position memory, read in circuit with the controller held in reset' },
      {
        type: 'released',
        outcome: 'repaired',
        minutes: 25,
        lead: false,
        note: 'Two reads alike; copy on the owner’s stick',
      },
    ],
  },
  {
    board: weir,
    customer: 'Brackwater Pumps',
    device: 'Weir pump controller',
    serial: 'W-0598',
    complaint: 'Alarm relay sticks.',
    days: 20,
    closedDaysAgo: 18,
    events: [
      { type: 'suspect', partId: 'k3', why: 'contact welded, closed without its coil' },
      {
        type: 'run-begun',
        runId: runId(700),
        op: 'remove',
        methodId: 'air-slow',
        guide: {
          joints: [],
          last: null,
          allWet_s: 62,
          allWetFrom_s: 50,
          allWetTo_s: 80,
          closes_s: 96,
          closesFrom_s: 80,
          closesTo_s: 110,
          closedBy: 'C21',
        },
        offline: false,
        bench: false,
      },
      { after_s: 5, body: { type: 'mark', runId: runId(700), instruction: 'heat', what: 'heat-on' } },
      { after_s: 131, body: { type: 'mark', runId: runId(700), instruction: 'look', what: 'all-wet' } },
      { after_s: 6, body: { type: 'mark', runId: runId(700), instruction: 'lift', what: 'lifted' } },
      { after_s: 4, body: { type: 'mark', runId: runId(700), instruction: 'off', what: 'heat-off' } },
      { after_s: 20, body: { type: 'run-ended', runId: runId(700), outcome: 'finished' } },
      { after_s: 30, body: { type: 'slip', kind: 'too-hot', runId: runId(700) } },
      {
        type: 'damage',
        kind: 'molten plastic',
        whose: 'ours',
        note: 'film capacitor shrank, 35 s past the window',
        place: at(weir, 'C21', '1'),
      },
      { type: 'off-board-test', result: 'bad', recovered: true },
      {
        type: 'released',
        outcome: 'repaired',
        minutes: 85,
        lead: true,
        note: 'C21 renewed at our cost; the board is thicker than its model said',
      },
    ],
  },
];
