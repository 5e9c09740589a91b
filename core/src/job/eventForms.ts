/** Forms shared by the events of a job. */
import { z } from 'zod';

export const text = z.string().trim().min(1, 'say it in a few words').max(2000);
export const id = z.string().min(1).max(60);
export const place = z.strictObject({
  x_mm: z.number().min(-2000).max(2000),
  y_mm: z.number().min(-2000).max(2000),
  side: z.enum(['top', 'bottom']),
  /** The part or terminal there, if any. */
  partId: z.string().max(60).optional(),
  terminal: z.string().max(20).optional(),
});
export type Place = z.infer<typeof place>;

export const measured = z.union([z.number(), z.literal('OL')]);
export type Measured = z.infer<typeof measured>;

/** What can feed a board; `none` says that nothing can. */
export const SOURCE_KINDS = ['lead', 'cell', 'capacitor', 'mains', 'none'] as const;
export type SourceKind = (typeof SOURCE_KINDS)[number];

/** What comes off, or is undone, before a board can be worked on; `pry` is a spot where a lever does no harm. */
export const OPENING_KINDS = ['screw', 'clip', 'pry', 'cable', 'frame', 'shield', 'heatsink', 'glue', 'other'] as const;
export type OpeningKind = (typeof OPENING_KINDS)[number];
