/**
 * What happens in a job, as an append-only log. Corrections are events too; nothing is ever changed or
 * erased. The state of a job is the fold of its log (`jobState.ts`), the gates follow from it.
 */
import { z } from 'zod';
import { faultSchema, METER_TYPES } from '../circuit/index.ts';
import { EVENTS, type Sign, SIGNS, SWAPS } from '../diagnosis/index.ts';
import { SOURCE_KINDS } from '../board/index.ts';
import { measuredSchema as measured, placeSchema as place } from '../ground/index.ts';
import { LAND_STATES, orientationSchema, SLIP_KINDS } from '../hands/index.ts';
import {
  guideSchema,
  idOfLabel,
  landsCleanSchema,
  MARKS,
  methodIdSchema,
  OPERATIONS,
  partOffSchema,
  phasesSchema,
  scannedSchema,
  stationSchema,
} from '../rework/index.ts';
import { donorEvents } from './donorForms.ts';
import { DONORS } from './donors.ts';
import { id, text } from './eventForms.ts';
import { DECLINE_REASONS, intakeEvents } from './intakeForms.ts';
import { JOINT_FINDINGS } from '../prove/index.ts';
import { provingEvents } from './provingForms.ts';
import { setEvents } from './setForms.ts';
import { storedEvents } from './storedForms.ts';

/** Which net each probe was on, with what; readings across silicon depend on both. */
const probeSchema = z.strictObject({
  type: z.enum(METER_TYPES),
  red: z.string().max(80),
  black: z.string().max(80),
  /** State of power; null unpowered. */
  state: z.string().max(80).nullable(),
  meter: z.string().max(120).optional(),
  range: z.string().max(40).optional(),
  /** The value is a simulated meter's. */
  simulated: z.literal(true).optional(),
});

/** Where a part that goes on comes from. */
export const PART_ORIGINS = ['new', 'donor board', 'the customer’s', 'the old one'] as const;
const TRIED_WHEN = ['before', 'after', 'closed'] as const;
export const QUANTITIES = ['ohm', 'diode', 'dcv', 'current'] as const;

const moment = z.int().min(0);
/** States of a joint walked over with one key each: worked on in a run, or looked at afterwards; older logs know a weak one. */
const JOINT_STATES = ['done', 'stuck', 'skipped', ...JOINT_FINDINGS, 'weak'] as const;
export type JointMark = (typeof JOINT_STATES)[number];

/** The board that was worked on; of jobs that have several. */
const boardId = z.uuid().optional();
/** What a plan's events say of it besides, and a run's; those of older logs do not. */
const ofPlan = { methodId: methodIdSchema.optional(), boardId };
const ofRun = {
  partId: id.optional(),
  op: z.enum(OPERATIONS).optional(),
  methodId: methodIdSchema.optional(),
  phase: z.string().max(40).optional(),
  boardId,
};

/** The tools a plan was computed for, or a run begun with, as they were then. */
export const kitSnapshotSchema = z.strictObject({
  station: stationSchema.extend({ id: z.string().max(60), name: z.string().max(200) }),
  iron: z.strictObject({ id: z.string().max(60), name: z.string().max(200) }),
  /** The bench they lie on; snapshots of older logs do not say. */
  bench: z.string().max(100).optional(),
});
export type KitSnapshot = z.infer<typeof kitSnapshotSchema>;

const bodies = z.discriminatedUnion('type', [
  ...intakeEvents,
  z.strictObject({
    type: z.literal('observation'),
    text,
    place: place.optional(),
    /** What kind of sign it is, when it speaks about the part there. */
    sign: z.enum(Object.keys(SIGNS) as [Sign, ...Sign[]]).optional(),
  }),
  z.strictObject({ type: z.literal('onset'), events: z.array(z.enum(EVENTS)).max(20) }),
  z.strictObject({ type: z.literal('circuit-used'), circuitId: z.uuid() }),
  /** Whether software can imitate the complaint: its twin tried, or settings and firmware put right. */
  z.strictObject({
    type: z.literal('software'),
    state: z.enum(['possible', 'ruled out']),
    how: z.string().trim().max(400),
  }),
  /** A part changed for one of a good board: did the fault go along? */
  /**
   * What became of the fault without this part: with a good board's in its place, with a new one, or with a leg in the air. `followed`: the
   * fault went along with the part (the line came back).
   */
  z.strictObject({ type: z.literal('swapped'), partId: id, followed: z.boolean(), how: z.enum(SWAPS).optional() }),
  /** Two faults to be weighed together; null: none. */
  z.strictObject({ type: z.literal('pair'), faults: z.tuple([faultSchema, faultSchema]).nullable() }),
  /** A current injected into a rail and what a meter showed from the injection to each point, mV. */
  z.strictObject({
    type: z.literal('profile'),
    net: text.max(80),
    current_A: z.number().positive().max(50),
    injection: place,
    /** Width of the tracks where no copper is drawn, mm; 1 without it. */
    track_mm: z.number().positive().max(50).optional(),
    points: z
      .array(z.strictObject({ place, mV: z.number().min(-1000).max(10_000) }))
      .min(1)
      .max(60),
  }),
  z.strictObject({
    type: z.literal('routine-step'),
    routineId: z.uuid(),
    step: id,
    result: z.enum(['as it should', 'off', 'skipped']),
    note: z.string().trim().max(400).optional(),
  }),
  z.strictObject({
    type: z.literal('reading'),
    place,
    quantity: z.enum(QUANTITIES),
    value: measured,
    /** What a good board reads there, the same place of a twin channel, or what was expected. */
    good: measured.nullable(),
    goodFrom: z.enum(['good board', 'twin', 'expected']).optional(),
    /** Taken with the board under power. */
    powered: z.boolean(),
    probe: probeSchema.optional(),
  }),
  z.strictObject({ type: z.literal('withdrawn'), eventId: id, why: text }),
  z.strictObject({
    type: z.literal('suspect'),
    partId: id,
    why: text,
    /** What was measured and what it ruled out, reading by reading, in words. */
    story: z.array(text.max(400)).max(40).optional(),
  }),
  z.strictObject({ type: z.literal('plan'), planId: id, methodId: methodIdSchema, partId: id.optional(), boardId }),
  /** A source that the board model does not list; the event's id names it. */
  z.strictObject({ type: z.literal('power-source'), label: text.max(120), kind: z.enum(SOURCE_KINDS) }),
  z.strictObject({
    type: z.literal('power-gone'),
    sourceId: id,
    how: text,
    /** What the meter still showed across it, V. */
    residual_V: z.number().min(0).max(2000).optional(),
  }),
  z.strictObject({ type: z.literal('power-connected'), sourceId: id }),
  z.strictObject({
    type: z.literal('target-confirmed'),
    landmarks: z.array(id).min(2, 'two landmarks').max(10),
    partId: id.optional(),
    boardId,
  }),
  /** `partId` is the neighbour, `target` the part that is worked at. */
  z.strictObject({ type: z.literal('neighbour-covered'), partId: id, how: text, target: id.optional(), ...ofPlan }),
  z.strictObject({ type: z.literal('neighbour-accepted'), partId: id, why: text, target: id.optional(), ...ofPlan }),
  z.strictObject({
    type: z.literal('laid-out'),
    /** Tools within reach, as named by the plan. */
    tools: z.array(z.string().max(120)).max(40),
    /** What each tool is really set to. */
    setPoints: z.array(z.strictObject({ id: z.string().max(40), value: z.number() })).max(20),
    partId: id.optional(),
    ...ofPlan,
  }),
  z.strictObject({
    type: z.literal('run-begun'),
    runId: z.uuid(),
    op: z.enum(OPERATIONS),
    methodId: methodIdSchema,
    /** What a method was called that goes by its id now; of runs begun before methods had ids. */
    method: z.string().max(60).optional(),
    /** The plan it follows, if it follows one, and what exactly the hands do, with which tools. */
    planId: id.optional(),
    phases: phasesSchema.optional(),
    kit: kitSnapshotSchema.optional(),
    partId: id.optional(),
    boardId,
    guide: guideSchema.nullable(),
    /** Begun while the server was away: gates were judged by what the browser knew. */
    offline: z.boolean(),
    /** A simulated board played it. */
    bench: z.boolean(),
  }),
  z.strictObject({
    type: z.literal('mark'),
    runId: z.uuid(),
    instruction: z.string().max(40),
    what: z.enum(MARKS),
    ...ofRun,
  }),
  z.strictObject({ type: z.literal('mark-moved'), eventId: id, to: moment }),
  /** Hands do otherwise than planned: what they do now, and when joints should be wet then; null while nobody knows. */
  z.strictObject({
    type: z.literal('run-changed'),
    runId: z.uuid(),
    why: text.max(200),
    phases: phasesSchema.optional(),
    /** The tool whose clock it is came so much later than planned, s. */
    late_s: z.number().min(0).max(36_000).optional(),
    guide: guideSchema.nullable(),
    ...ofRun,
  }),
  z.strictObject({
    type: z.literal('run-ended'),
    runId: z.uuid(),
    outcome: z.enum(['finished', 'given up']),
    ...ofRun,
  }),
  z.strictObject({
    type: z.literal('joint'),
    /** Worked on in a run, or looked at afterwards. */
    runId: z.uuid().optional(),
    terminal: z.string().min(1).max(20),
    state: z.enum(JOINT_STATES),
    /** Where in the run: joints that hold come round again. Logs of old do not say. */
    instruction: z.string().max(40).optional(),
    ...ofRun,
  }),
  scannedSchema,
  landsCleanSchema,
  partOffSchema,
  z.strictObject({
    type: z.literal('land'),
    terminal: z.string().min(1).max(20),
    state: z.enum(LAND_STATES),
    /** Of a hole: its land on the other face. */
    far: z.literal(true).optional(),
  }),
  z.strictObject({
    type: z.literal('land-repaired'),
    terminal: z.string().min(1).max(20),
    far: z.literal(true).optional(),
    how: z.string().trim().min(1).max(200),
    /** A wire from the land, or from its leg, to another place of its net. */
    wire: z
      .strictObject({
        to: z.strictObject({ partId: id, terminal: z.string().min(1).max(20) }),
        length_mm: z.number().positive().max(1000),
        gauge_mm: z.number().positive().max(5),
      })
      .optional(),
    /** End to end, as it was measured. */
    ohm: z.number().min(0).max(1e6).optional(),
  }),
  z.strictObject({
    type: z.literal('off-board-test'),
    result: z.enum(['bad', 'good', 'not tested']),
    /** Whether the board's line came back without the part. */
    recovered: z.boolean().optional(),
    /** How it was tested. */
    recipe: z.string().trim().max(400).optional(),
  }),
  z.strictObject({
    type: z.literal('new-part-measured'),
    ok: z.boolean(),
    note: z.string().trim().max(2000),
    origin: z.enum(PART_ORIGINS).optional(),
    /** Which drawer, donor or order. */
    from: z.string().trim().max(200).optional(),
    donor: z.enum(DONORS).optional(),
    /** Another part than the old one: which, and why it will do. */
    substitute: z.strictObject({ number: text.max(120), why: text.max(400) }).optional(),
  }),
  z.strictObject({
    type: z.literal('orientation-checked'),
    against: z.array(text).min(1, 'name what it was checked against'),
    /** What was seen and measured; those of older logs do not say. */
    seen: orientationSchema.optional(),
  }),
  /** Where a photo's pixels lie on the board, row by row of a 3 × 3 homography to mm. */
  z.strictObject({
    type: z.literal('photo-placed'),
    photoId: z.uuid(),
    side: z.enum(['top', 'bottom']),
    toBoard: z.array(z.number().min(-1e9).max(1e9)).length(9),
  }),
  ...storedEvents,
  ...provingEvents,
  ...setEvents,
  ...donorEvents,
  z
    .strictObject({
      type: z.literal('short-check'),
      rail: text.max(120),
      /** The load it was measured with; null: the board alone. */
      load: text.max(120).nullable(),
      /** Read in ohms, or in diode mode. */
      ohm: measured.optional(),
      diode: z.strictObject({ V: measured, good_V: z.number().positive().max(10).nullable() }).optional(),
      /** What a good board reads there, Ω. */
      good_ohm: z.number().positive().nullable(),
      /** The least a healthy rail of this nature reads, Ω, and which nature. */
      nature: z.strictObject({ why: text, least_ohm: z.number().positive() }).nullable(),
    })
    .refine((c) => (c.ohm === undefined) !== (c.diode === undefined), {
      error: 'in ohms, or in diode mode',
      path: ['ohm'],
    }),
  z.strictObject({
    type: z.literal('function'),
    name: text.max(120),
    /** Before the work; after it, on the bench; closed again. */
    when: z.enum(TRIED_WHEN),
    state: z.enum(['works', 'dead', 'not tried']),
  }),
  z.strictObject({
    type: z.literal('slip'),
    kind: z.enum(SLIP_KINDS),
    runId: z.uuid().optional(),
    /** The part it happened to. */
    partId: id.optional(),
  }),
  z.strictObject({ type: z.literal('slip-checked'), slipId: id, ok: z.boolean(), result: text }),
  z.strictObject({ type: z.literal('override'), gate: id, why: text, partId: id.optional(), boardId }),
  /** `same`: at the same part once more, with what is known of it. */
  z.strictObject({ type: z.literal('new-attempt'), why: text, same: z.literal(true).optional() }),
  /** The owner has it back. */
  z.strictObject({ type: z.literal('handed-over'), to: z.string().trim().max(200).optional() }),
  z.strictObject({
    type: z.literal('released'),
    outcome: z.enum(['repaired', 'not repaired', 'declined']),
    minutes: z.number().min(0).max(100_000).optional(),
    lead: z.boolean().optional(),
    note: z.string().trim().max(4000).optional(),
    /** Why it was declined. */
    reason: z.enum(DECLINE_REASONS).optional(),
  }),
]);
export type JobEventBody = z.infer<typeof bodies>;

/** Bodies as they were written before methods had ids: a plan and a run named theirs by its label. */
function withIds(body: unknown): unknown {
  if (typeof body !== 'object' || body === null || !('type' in body) || 'methodId' in body) return body;
  if (body.type === 'plan' && 'label' in body && typeof body.label === 'string') {
    const { label, ...rest } = body;
    return { ...rest, methodId: idOfLabel(label) };
  }
  if (body.type === 'run-begun' && 'method' in body && typeof body.method === 'string')
    return { ...body, methodId: idOfLabel(body.method) };
  return body;
}

/** A body of any version; what comes out is today's. */
export const jobEventSchema = z.preprocess(withIds, bodies);

/** An event as kept: who and when, UTC milliseconds. `v` is the version of the form it came in; its body is today's. */
export interface JobEvent {
  id: string;
  at: number;
  actor: string;
  v: 1 | 2;
  body: JobEventBody;
}
