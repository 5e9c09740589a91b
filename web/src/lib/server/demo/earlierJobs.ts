/** Closed jobs in outline: enough of a past for "the same model before". */
import type { JobEventBody } from '@orthos/core/job';
import { lodestar } from './lodestar.ts';
import { quillon } from './quillon.ts';
import { ternT2 } from './ternT2.ts';
import { at, reading, type DemoTicket } from './ticketForm.ts';

interface Outline {
  board: typeof ternT2;
  device: string;
  days: number;
  complaint: string;
  customer: string;
  culprit: string;
  minutes: number;
  readings?: JobEventBody[];
  /** Where the new part lay. */
  from?: string;
  /** Found bad first, in the same job. */
  first?: string;
}

const dead33 = [reading(ternT2, 'C10', '1', 'ohm', 2.2, 2400)];
const rows: Outline[] = [
  {
    board: ternT2,
    device: 'Tern T2 display',
    days: 55,
    customer: 'Velo Marrow',
    complaint: 'Dark after rain.',
    culprit: 'C7',
    from: 'drawer B2, 0805',
    minutes: 30,
    readings: dead33,
  },
  {
    board: ternT2,
    device: 'Tern T2 display',
    days: 77,
    customer: 'Sable Anders',
    complaint: 'Went dark on the road.',
    culprit: 'C9',
    minutes: 45,
    readings: dead33,
  },
  {
    board: ternT2,
    device: 'Tern T2 display',
    days: 96,
    customer: 'Velo Marrow',
    complaint: 'No light, no keys.',
    culprit: 'C7',
    minutes: 28,
    readings: [reading(ternT2, 'C7', '1', 'ohm', 1.1, 2400)],
  },
  {
    board: ternT2,
    device: 'Tern T2 display',
    days: 120,
    customer: 'Ines Calder',
    complaint: 'Nothing after a jolt.',
    culprit: 'U3',
    minutes: 50,
    readings: [reading(ternT2, 'U3', '5', 'dcv', 0.1, 3.3)],
  },
  {
    board: ternT2,
    device: 'Tern T2 display',
    days: 140,
    customer: 'Ada Rooke',
    complaint: 'Battery put in the wrong way by a friend.',
    culprit: 'U4',
    first: 'D2',
    minutes: 95,
    readings: [reading(ternT2, 'C14', '1', 'ohm', 0.9, 5600)],
  },
  {
    board: quillon,
    device: 'Quillon seat module',
    days: 62,
    customer: 'Hollis Garage',
    complaint: 'No answer from the seat.',
    culprit: 'D3',
    from: 'drawer D7',
    minutes: 35,
    readings: [reading(quillon, 'D3', '1', 'ohm', 12, 4600)],
  },
  {
    board: quillon,
    device: 'Quillon seat module',
    days: 105,
    customer: 'Orrin Fell',
    complaint: 'No answer, cold mornings only.',
    culprit: 'D3',
    minutes: 40,
    readings: [reading(quillon, 'D3', '1', 'ohm', 31, 4600)],
  },
  {
    board: quillon,
    device: 'Quillon seat module',
    days: 131,
    customer: 'Hollis Garage',
    complaint: 'Moves by itself.',
    culprit: 'Q1',
    first: 'U6',
    minutes: 80,
    readings: [reading(quillon, 'Q1', 'TAB', 'ohm', 0.5, 3100)],
  },
  {
    board: lodestar,
    device: 'Lodestar window-lift module',
    days: 88,
    customer: 'Petra Vane',
    complaint: 'Window dead since the battery was changed.',
    culprit: 'D1',
    from: 'drawer D4',
    minutes: 40,
    readings: [reading(lodestar, 'C1', '2', 'ohm', 1.3, 2900)],
  },
];

const why = 'lowest at its own pads';
export const earlierJobs: DemoTicket[] = rows.map(({ culprit, first, minutes, from, readings = [], ...t }) => ({
  ...t,
  closedDaysAgo: t.days - 3,
  events: [
    ...readings,
    ...(first
      ? ([
          { type: 'suspect', partId: at(t.board, first, '1').partId ?? '', why },
          { type: 'off-board-test', result: 'bad', recovered: false },
          { type: 'new-attempt', why: `${first} was bad, the line still is` },
        ] satisfies JobEventBody[])
      : []),
    { type: 'suspect', partId: at(t.board, culprit, '1').partId ?? '', why },
    { type: 'off-board-test', result: 'bad', recovered: true },
    ...(from
      ? [{ type: 'new-part-measured' as const, ok: true, note: 'as its sheet says', origin: 'new' as const, from }]
      : []),
    { type: 'released', outcome: 'repaired', minutes, lead: true },
  ],
}));
