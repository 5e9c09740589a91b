/** What is said after fitting: legs pushed, pins measured, neighbours looked at, first power stopped. */
import { z } from 'zod';
import { measuredSchema as measured } from '../ground/index.ts';
import { id } from './eventForms.ts';
import { STOP_IDS } from './stops.ts';

/** What a neighbour is found to be beside the photo from before. */
export const NEIGHBOUR_STATES = ['as before', 'moved', 'lifted', 'melted', 'burnt', 'solder on it'] as const;
export type NeighbourState = (typeof NEIGHBOUR_STATES)[number];

const terminal = z.string().min(1).max(20);

export const provingEvents = [
  z.strictObject({ type: z.literal('leg-pushed'), terminal, firm: z.boolean() }),
  /** Two points of the target, or one of it and where its track goes, measured without power; a number, or what the meter said. */
  z.strictObject({
    type: z.literal('proved'),
    kind: z.enum(['apart', 'through']),
    terminal,
    to: z.strictObject({ partId: id, terminal }),
    read: z.union([
      z.strictObject({ ohm: measured, simulated: z.literal(true).optional() }),
      z.strictObject({ said: z.enum(['beeps', 'silent']) }),
    ]),
  }),
  z.strictObject({ type: z.literal('neighbour-looked'), partId: id, state: z.enum(NEIGHBOUR_STATES) }),
  z.strictObject({
    type: z.literal('power-stopped'),
    stop: z.enum(STOP_IDS),
    why: z.string().trim().max(400),
    startUpId: z.uuid().optional(),
    /** The rail that was watched. */
    rail: z.string().trim().max(120).optional(),
    simulated: z.literal(true).optional(),
  }),
] as const;
export type ProvingEvent = z.infer<(typeof provingEvents)[number]>;
