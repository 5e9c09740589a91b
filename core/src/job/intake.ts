/**
 * What is written down when a device comes in: the complaint tried, how it opens, damage that was there
 * already, start-ups on a bench supply, what is offered and promised.
 */
import { z } from 'zod';
import { OPENING_KINDS, type OpeningKind } from '../board/index.ts';
import { placeSchema as place } from '../ground/index.ts';
import { id, text } from './eventForms.ts';

export const DAMAGE_KINDS = [
  'heat mark',
  'molten plastic',
  'pry mark',
  'liquid',
  'corrosion',
  'earlier repair',
  'broken off',
  'crack',
] as const;
export type DamageKind = (typeof DAMAGE_KINDS)[number];

export const DECLINE_REASONS = [
  'not economic',
  'too much damage',
  'part not to be had',
  'not safe to repair',
  'needs licensed people',
  'owner does not want it',
] as const;
export type DeclineReason = (typeof DECLINE_REASONS)[number];

const stroke = z
  .array(z.tuple([z.number(), z.number()]))
  .min(2)
  .max(400);
const minor = z.int().min(0).max(100_000_000);

const tierSchema = z.strictObject({
  label: text.max(120),
  /** Bench minutes of the first attempt. */
  minutes: z.number().min(0).max(10_000),
  parts_minor: minor,
  /** Attempts to expect. */
  attempts: z.number().min(1).max(20),
  price_minor: minor,
});
export type Tier = z.infer<typeof tierSchema>;

/** What a job can wait for while nobody's hands can do anything. */
export const WAITS_FOR = ['part', 'answer', 'pick-up'] as const;
export type WaitsFor = (typeof WAITS_FOR)[number];

/** The events of intake, for the union of all. */
export const intakeEvents = [
  /** Hands wait, for what, and until when it should be there; `for` null: they wait no longer. */
  z.strictObject({
    type: z.literal('waits'),
    for: z.enum(WAITS_FOR).nullable(),
    what: z.string().trim().max(200).optional(),
    until: z.iso.date().optional(),
  }),
  z.strictObject({
    type: z.literal('complaint-tried'),
    seen: z.enum(['as told', 'otherwise', 'not seen', 'not tried']),
    note: z.string().trim().max(2000),
  }),
  z.strictObject({ type: z.literal('extra'), name: text.max(200), state: z.enum(['wanted', 'done', 'left']) }),
  z.strictObject({
    type: z.literal('functions-listed'),
    kind: text.max(60),
    names: z.array(text.max(120)).min(1).max(60),
  }),
  z.strictObject({
    type: z.literal('opened'),
    kind: z.enum(OPENING_KINDS),
    what: z.string().trim().max(200),
    /** How many of them. */
    count: z.int().min(1).max(200),
    /** The board model's own step that this was. */
    modelStep: id.optional(),
    photoId: z.uuid().optional(),
  }),
  z.strictObject({ type: z.literal('closed-again'), stepId: id }),
  z.strictObject({
    type: z.literal('damage'),
    kind: z.enum(DAMAGE_KINDS),
    /** There before the board came in, or done by this bench. */
    whose: z.enum(['found', 'ours']),
    note: z.string().trim().max(2000),
    place: place.optional(),
    photoId: z.uuid().optional(),
    /** Pen marks: board millimetres as seen from the top, or fractions of the photo's width and height. */
    pen: z.strictObject({ on: z.enum(['board', 'photo']), strokes: z.array(stroke).min(1).max(40) }).optional(),
  }),
  z.strictObject({
    type: z.literal('supply-stage'),
    startUpId: z.uuid(),
    stage: text.max(80),
    /** Since the supply came on. */
    at_s: z.number().min(0).max(86_400),
    supply_V: z.number().min(0).max(2000),
    limit_A: z.number().positive().max(1000),
    current_A: z.number().min(0).max(1000),
    /** It comes from the simulated supply. */
    simulated: z.literal(true).optional(),
  }),
  z.strictObject({ type: z.literal('proof'), by: z.enum(['running', 'readings']), why: text }),
  z.strictObject({
    type: z.literal('offer'),
    currency: z.string().regex(/^[A-Z]{3}$/, 'is not a currency, e.g. EUR'),
    tiers: z.array(tierSchema).min(1).max(6),
    /** What the device is worth to its owner. */
    worth_minor: minor.nullable(),
  }),
  z.strictObject({ type: z.literal('offer-taken'), tier: text.max(120) }),
  z.strictObject({
    type: z.literal('warranty'),
    months: z.int().min(0).max(120),
    terms: text,
  }),
] as const;

type IntakeEvent = z.infer<(typeof intakeEvents)[number]>;
type Body<T extends IntakeEvent['type']> = Extract<IntakeEvent, { type: T }>;
type Kept<T extends IntakeEvent['type']> = Body<T> & { id: string; at: number };

export interface StartUp {
  id: string;
  stages: Kept<'supply-stage'>[];
}

export interface IntakeState {
  complaintTried?: Kept<'complaint-tried'>;
  extras: Map<string, Body<'extra'>['state']>;
  /** Kind of device that its function list was taken from. */
  deviceKind?: string;
  /** In the order in which it was opened. */
  opened: Kept<'opened'>[];
  /** Opening steps undone, by id. */
  closed: Set<string>;
  damage: Kept<'damage'>[];
  startUps: StartUp[];
  proof?: Kept<'proof'>;
  offer?: Kept<'offer'>;
  /** Label of the tier that was taken, if it is of the last offer. */
  taken?: string;
  warranty?: Kept<'warranty'>;
  /** What it waits for, as somebody said; undefined: nothing. */
  waits?: Kept<'waits'> & { for: WaitsFor };
}

export const freshIntake = (): IntakeState => ({
  extras: new Map(),
  opened: [],
  closed: new Set(),
  damage: [],
  startUps: [],
});

type IntakeBody = z.infer<(typeof intakeEvents)[number]>;

/** Takes an event of intake into the state. */
export function applyIntake(state: IntakeState, key: { id: string; at: number }, body: IntakeBody): void {
  switch (body.type) {
    case 'complaint-tried':
      state.complaintTried = { ...body, ...key };
      break;
    case 'extra':
      state.extras.set(body.name, body.state);
      break;
    case 'functions-listed':
      state.deviceKind = body.kind;
      break;
    case 'opened':
      state.opened.push({ ...body, ...key });
      break;
    case 'closed-again':
      state.closed.add(body.stepId);
      break;
    case 'damage':
      state.damage.push({ ...body, ...key });
      break;
    case 'supply-stage': {
      let startUp = state.startUps.find((s) => s.id === body.startUpId);
      if (!startUp) state.startUps.push((startUp = { id: body.startUpId, stages: [] }));
      startUp.stages.push({ ...body, ...key });
      startUp.stages.sort((a, b) => a.at_s - b.at_s);
      break;
    }
    case 'proof':
      state.proof = { ...body, ...key };
      break;
    case 'offer':
      state.offer = { ...body, ...key };
      delete state.taken;
      break;
    case 'offer-taken':
      state.taken = body.tier;
      if (state.waits?.for === 'answer') delete state.waits;
      break;
    case 'waits':
      if (body.for === null) delete state.waits;
      else state.waits = { ...body, for: body.for, ...key };
      break;
    case 'warranty':
      state.warranty = { ...body, ...key };
      break;
  }
}

const CLOSING_WORDS: Record<OpeningKind, string> = {
  screw: 'drive in',
  clip: 'snap in',
  pry: 'press shut again:',
  cable: 'plug in',
  frame: 'put back the frame',
  shield: 'put back the shield',
  heatsink: 'refit with fresh paste or pad',
  glue: 'stick down again',
  other: 'put back',
};

export interface ClosingStep {
  stepId: string;
  says: string;
  count: number;
  photoId?: string;
  done: boolean;
}

/** Opening backwards: what goes in last came out first. */
export function closingSteps({ opened, closed }: Pick<IntakeState, 'opened' | 'closed'>): ClosingStep[] {
  return opened.toReversed().map(({ id: stepId, kind, what, count, photoId }) => ({
    stepId,
    says: [CLOSING_WORDS[kind], count > 1 ? `${count} ×` : '', what || kind].filter(Boolean).join(' '),
    count,
    ...(photoId ? { photoId } : {}),
    done: closed.has(stepId),
  }));
}

/** Screws that came out and are not back: loose metal in the case, or on the bench. */
export function screwsOut({ opened, closed }: Pick<IntakeState, 'opened' | 'closed'>): number {
  return opened.reduce((n, s) => n + (s.kind === 'screw' && !closed.has(s.id) ? s.count : 0), 0);
}
