/** A bench's tools and consumables as a calculation is told them. */
import { z } from 'zod';
import { compositionSchema } from '../alloys/index.ts';
import { RANGES, type Range } from './ranges.ts';

const span = ([min, max]: Range) =>
  z
    .tuple([z.number().min(0).max(max), z.number().min(min).max(1000)])
    .refine(([lo, hi]) => lo <= hi, { error: 'from low to high' });
const mm = z.number().positive().max(100);
const id = z.string().min(1).max(60).optional();
const nozzle = z.union([
  z.strictObject({ round_mm: mm }),
  z.strictObject({ slot_mm: z.tuple([mm, mm]) }),
  z.strictObject({ rim_mm: z.tuple([mm, mm]), bore_mm: mm }),
]);
const heated = <T extends string>(tool: T) =>
  z.strictObject({
    id,
    tool: z.literal(tool),
    set_C: span(RANGES.iron.set_C).default([150, 450]),
    power_W: z.number().min(5).max(500).default(70),
    tips_mm: z.array(mm).min(1).max(60).default([1, 2.5, 3, 5]),
  });

/** The last day something keeps its word, as 2026-11-30. */
const expires = z.iso.date().optional();

/** One tool or consumable of a bench. */
export const kitItemSchema = z.discriminatedUnion('tool', [
  z.strictObject({
    id,
    tool: z.literal('air'),
    set_C: span(RANGES.air.set_C),
    flow_L_min: z.union([span(RANGES.air.flow_L_min), z.literal('unmarked')]),
    nozzles: z.array(nozzle).min(1).max(60),
  }),
  heated('iron'),
  heated('tweezers'),
  heated('vacuum'),
  z.strictObject({
    id,
    tool: z.literal('pump'),
    tips_mm: z.array(mm).max(60).optional(),
    set_C: z.unknown().optional(),
    power_W: z.unknown().optional(),
  }),
  z.strictObject({
    id,
    tool: z.literal('below'),
    kind: z.enum(['plate', 'infrared', 'air']),
    T_C: span(RANGES.below.T_C),
  }),
  z.strictObject({
    id,
    tool: z.enum(['wire', 'paste']),
    wt: compositionSchema,
    dia_mm: z.number().min(0.1).max(5).optional(),
    expires,
  }),
  z.strictObject({
    id,
    tool: z.enum(['flux', 'braid', 'cover', 'blade', 'pliers', 'spring', 'fixture', 'camera']),
    kind: z.string().max(40).optional(),
    /** Between what a flux works, °C. */
    active_C: span([20, 500]).optional(),
    expires,
  }),
]);
export type KitItem = z.infer<typeof kitItemSchema>;

export const kitSchema = z.array(kitItemSchema).max(200);
