/**
 * Fills an empty database with the demo shop: kit, boards, customers, tickets at different steps. All
 * names are made up; dates are relative to `now`.
 */
import {
  DEFAULT_STATION,
  type BoardModel,
  type Fault,
  type JobEvent,
  type JobEventBody,
  type Measured,
  type Place,
} from '@orthos/core';
import { gzipSync } from 'node:zlib';
import { v7 } from 'uuid';
import type { Database } from '../db/connect.ts';
import { addDrawing } from '../repositories/boardDrawings.ts';
import { createBoardModel } from '../repositories/boardModels.ts';
import { addCircuit } from '../repositories/circuits.ts';
import { appendEvents } from '../repositories/jobEvents.ts';
import { hideFault } from '../repositories/hiddenFaults.ts';
import { addKitItem } from '../repositories/kit.ts';
import { addMeter } from '../repositories/meters.ts';
import { saveShopSettings } from '../repositories/settings.ts';
import { closeTicket, countTickets, createTicket, type NewTicket } from '../repositories/tickets.ts';
import { bramble } from './bramble.ts';
import { demoCircuits } from './circuits.ts';
import { coupon } from './coupon.ts';
import { gantry } from './gantry.ts';
import { lodestar } from './lodestar.ts';
import { quillon } from './quillon.ts';
import { ternT2 } from './ternT2.ts';
import { weir } from './weir.ts';

const DAY = 86_400_000;

type DemoTicket = Pick<NewTicket, 'customer' | 'device' | 'complaint' | 'inBox' | 'serial' | 'waitsFor'> & {
  board: BoardModel;
  kind?: NewTicket['kind'];
  days: number;
  promisedInDays?: number;
  events: JobEventBody[];
  closedDaysAgo?: number;
  /** What is really wrong; only the simulated meter knows. */
  hidden?: Fault[];
};

/** The place of a part's terminal, as a reading names it. */
function at(board: BoardModel, ref: string, terminal: string): Place {
  const part = board.parts.find((p) => p.ref === ref);
  if (!part) throw new Error(`${board.name} has no ${ref}`);
  return { x_mm: part.x_mm, y_mm: part.y_mm, side: part.side, partId: part.partId, terminal };
}

const reading = (
  board: BoardModel,
  ref: string,
  terminal: string,
  quantity: 'ohm' | 'diode' | 'dcv',
  value: Measured,
  good: Measured | null,
): JobEventBody => ({
  type: 'reading',
  place: at(board, ref, terminal),
  quantity,
  value,
  good,
  ...(good === null ? {} : { goodFrom: 'good board' as const }),
  powered: quantity === 'dcv',
});

const before = (name: string, state: 'works' | 'dead' | 'not tried'): JobEventBody => ({
  type: 'function',
  name,
  when: 'before',
  state,
});

const tickets: DemoTicket[] = [
  {
    board: ternT2,
    customer: 'Velo Marrow',
    device: 'Tern T2 display',
    serial: 'T2-30418',
    complaint: 'Display stays dark after a wet ride. Battery is good on another bike.',
    inBox: 'display, bracket, no cable',
    hidden: [{ ref: 'C7', mode: 'short', r: 1.4 }],
    days: 3,
    promisedInDays: 2,
    events: [
      before('display', 'dead'),
      before('buttons', 'works'),
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
    days: 5,
    promisedInDays: 1,
    events: [
      before('backwards', 'dead'),
      before('forwards', 'works'),
      before('memory keys', 'works'),
      { type: 'observation', text: 'Brown ring round the tab of Q1', place: at(quillon, 'Q1', 'TAB') },
      reading(quillon, 'Q1', '3', 'ohm', 0.6, 48),
      reading(quillon, 'Q1', 'TAB', 'ohm', 0.7, 3100),
      reading(quillon, 'Q1', '1', 'diode', 0.52, 0.53),
      { type: 'suspect', partId: 'q1', why: 'TAB to OUT reads 0.1 Ω with the harness off; gate is as good' },
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
    events: [
      reading(quillon, 'Q2', '1', 'diode', 0.04, 0.61),
      { type: 'suspect', partId: 'q2', why: 'Gate transistor short between base and emitter' },
      {
        type: 'released',
        outcome: 'repaired',
        minutes: 35,
        lead: true,
        note: 'Gate resistor was fine; transistor only',
      },
    ],
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
      { type: 'released', outcome: 'declined' },
    ],
  },
  {
    board: ternT2,
    customer: 'Velo Marrow',
    device: 'Tern T2 display',
    serial: 'T2-31602',
    complaint: 'Nothing on the display, nothing gets warm. Was fine in the evening.',
    inBox: 'display, battery lead',
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
];

/** Seeds once; an instance that already has tickets is left alone. */
export async function seedDemo(db: Database, now: Date): Promise<void> {
  if ((await countTickets(db)) > 0) return;
  await saveShopSettings(
    db,
    { v: 1, name: 'Saltmarsh Board Repair', temperature: 'C', length: 'mm', timeZone: 'Europe/London' },
    0,
  );
  const kit = [
    { kind: 'air', name: 'Air station, left bench', bench: 'full bench', doc: DEFAULT_STATION },
    {
      kind: 'air',
      name: 'Air station, unmarked dials',
      bench: 'bare bench',
      doc: { ...DEFAULT_STATION, efficiency: 0.76, efficiencyPlusMinus: 0.1, handFactorPlusMinus: 0.12 },
    },
    { kind: 'iron', name: 'Iron 70 W, 3 mm bevel', bench: 'full bench', doc: DEFAULT_STATION },
  ] as const;
  for (const item of kit) await addKitItem(db, item);
  await addMeter(db, { name: 'Bench meter', bench: 'full bench', simulated: true });
  const models = new Map<BoardModel, { modelId: string; versionId: string }>();
  for (const [doc, field] of [
    [ternT2, 'consumer'],
    [bramble, 'consumer'],
    [quillon, 'automotive'],
    [lodestar, 'automotive'],
    [weir, 'industrial'],
    [coupon, 'training'],
  ] as const) {
    const model = await createBoardModel(db, { doc, field });
    models.set(doc, model);
    const circuit = demoCircuits[doc.name];
    if (circuit) await addCircuit(db, { id: v7(), modelId: model.modelId, ...circuit });
  }
  const { doc, drawingText } = gantry();
  await addDrawing(db, doc.drawing ?? '', gzipSync(drawingText));
  await createBoardModel(db, { doc, field: 'industrial', origin: 'read from gantry.kicad_pcb' });
  // oldest first, so that numbers rise with time
  for (const t of [...tickets].sort((a, b) => b.days - a.days)) {
    const model = models.get(t.board);
    if (!model) throw new Error(`No model for ${t.board.name}`);
    const created = now.getTime() - t.days * DAY - 3 * 3_600_000;
    const ticket = await createTicket(db, {
      kind: t.kind ?? 'repair',
      customer: t.customer,
      device: t.device,
      serial: t.serial,
      complaint: t.complaint,
      inBox: t.inBox,
      waitsFor: t.waitsFor,
      modelId: model.modelId,
      boardVersionId: model.versionId,
      promisedOn:
        t.promisedInDays === undefined
          ? null
          : new Date(now.getTime() + t.promisedInDays * DAY).toISOString().slice(0, 10),
      createdAt: new Date(created),
    });
    const events = t.events.map((body, i): JobEvent => ({
      id: v7(),
      at: created + (i + 1) * 240_000,
      actor: 'unsigned',
      v: 1,
      body,
    }));
    await appendEvents(db, ticket.id, events);
    if (t.hidden) await hideFault(db, ticket.id, t.hidden);
    if (t.closedDaysAgo !== undefined)
      await closeTicket(db, ticket.id, new Date(now.getTime() - t.closedDaysAgo * DAY));
  }
}
