/** Two boards at once: a controller that goes from one gate board to another, and a harvest half done. */
import type { JobEventBody } from '@orthos/core/job';
import { gantry } from './gantry.ts';
import { at, type DemoTicket, type Later, type Others } from './ticketForm.ts';
import { quillon } from './quillon.ts';

const runId = (n: number) => `01990000-0000-7000-8000-${String(n).padStart(12, '0')}`;

/** Off with hot air, alive, into its own tray. */
const savedOff = (
  n: number,
  partId: string,
  off: { place: string; legs: string; peak_C: number; dose: number },
): (JobEventBody | Later)[] => [
  { type: 'set-at', partId },
  {
    type: 'run-begun',
    runId: runId(n),
    op: 'remove',
    methodId: 'air-slow',
    guide: null,
    offline: false,
    bench: false,
    partId,
  },
  { after_s: 110, body: { type: 'run-ended', runId: runId(n), outcome: 'finished' } },
  {
    after_s: 20,
    body: {
      ...{ type: 'part-off', partId, fate: 'must live', place: off.place, legs: [off.legs] },
      heat: { peak_C: off.peak_C, dose: off.dose },
    },
  },
];

const RECIPIENT = 'gate board that gets the controller';
const DONOR = 'gate board that gives it';
/** Where a part of the gate board stands; its file is read once the demo is made. */
const onGantry = (ref: string) => at(gantry().doc, ref, '1');

export const twoBoards: DemoTicket[] = [
  {
    board: 'Gantry',
    as: DONOR,
    kind: 'transplant',
    customer: 'Own stock',
    device: 'Gantry gate board',
    serial: 'G-2907',
    complaint: 'Bought for parts: both switches burnt open, laminate dark under them. Its control side ran until then.',
    inBox: 'bare board',
    days: 0,
    events: (others) => [
      { type: 'observation', text: 'Q1 burnt open, case split', sign: 'burnt', place: onGantry('Q1') },
      { type: 'observation', text: 'Q2 burnt with it', sign: 'burnt', place: onGantry('Q2') },
      { type: 'damage', kind: 'crack', whose: 'found', note: 'laminate split between Q1 and Q2, inner layers bare' },
      { type: 'function', name: '24 V and 3.3 V come up', when: 'before', state: 'works' },
      { type: 'function', name: 'gate pulses at the header', when: 'before', state: 'works' },
      { type: 'part-holds', partId: 'u3', holds: ['firmware', 'settings'] },
      { type: 'firmware-loaded', partId: 'u3', version: 'G 4.12' },
      { type: 'set-parts', items: [{ partId: 'u3', side: 'top', do: 'move', to: elsewhere(others, RECIPIENT, 'u3') }] },
      ...savedOff(620, 'u3', { place: 'tray G-2907 U3', legs: 'Sn96.5Ag3Cu0.5', peak_C: 238, dose: 0.06 }),
    ],
  },
  {
    board: 'Gantry',
    as: RECIPIENT,
    kind: 'transplant',
    customer: 'Dunelift Service',
    device: 'Gantry gate board',
    serial: 'G-3388',
    complaint:
      'Silent since a probe slipped on the controller. Power stage tested good by the owner. Needs a controller with its firmware.',
    inBox: 'bare board, no drive',
    days: 0,
    promisedInDays: 5,
    events: (others) => [
      { type: 'onset', events: ['sudden'] },
      {
        type: 'observation',
        text: 'U3 warm at once, its 3.3 V low; a burnt spot on its case',
        sign: 'burnt',
        place: onGantry('U3'),
      },
      { type: 'donor', from: job(others, DONOR) },
      {
        type: 'set-parts',
        items: [
          {
            ...{ partId: 'u3', side: 'top', do: 'renew', from: elsewhere(others, DONOR, 'u3') },
            substitute: `U3 of No. ${job(others, DONOR).number}`,
          },
        ],
      },
    ],
  },
  {
    board: quillon,
    kind: 'transplant',
    customer: 'Own stock',
    device: 'Quillon seat module',
    serial: 'Q-55010',
    complaint: 'Cracked across one corner, given for parts: what runs is kept, the rest is scrap.',
    inBox: 'bare board',
    days: 0,
    events: [
      { type: 'damage', kind: 'crack', whose: 'found', note: 'corner at J1, through all layers' },
      {
        type: 'set-parts',
        items: [
          { partId: 'u4', side: 'top', do: 'salvage', bin: 'H1' },
          { partId: 'u7', side: 'top', do: 'salvage', bin: 'H2' },
          {
            partId: 'u5',
            side: 'top',
            do: 'salvage',
            bin: 'H2',
            note: 'end-stops of the other seat: wipe before it goes anywhere',
          },
          { partId: 'q1', side: 'top', do: 'salvage', bin: 'H3' },
          { partId: 'u2', side: 'top', do: 'salvage', bin: 'H3' },
        ],
      },
      ...savedOff(630, 'u7', { place: 'H2', legs: 'Sn96.5Ag3Cu0.5', peak_C: 231, dose: 0.03 }),
      ...savedOff(631, 'u2', { place: 'H3', legs: 'Sn96.5Ag3Cu0.5', peak_C: 233, dose: 0.04 }),
    ],
  },
];

function job(others: Others, as: string) {
  const found = others.get(as);
  if (!found) throw new Error(`No demo job is "${as}"`);
  return found;
}
const elsewhere = (others: Others, as: string, partId: string) => ({ ...job(others, as), partId });
