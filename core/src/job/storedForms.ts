/** What is said of what a part holds. */
import { z } from 'zod';
import { id, text } from './eventForms.ts';

export const HOLDINGS = ['data', 'firmware', 'settings'] as const;
export type Holding = (typeof HOLDINGS)[number];

/** A checksum as the reader or this app tells it; compared without regard to case and gaps. */
const checksum = z
  .string()
  .trim()
  .min(4, 'a checksum has at least four characters')
  .max(128)
  .regex(/^[0-9a-zA-Z:+/=_ -]+$/, 'letters and digits only')
  .transform((s) => s.replace(/[\s:-]/g, '').toLowerCase());

export const storedEvents = [
  /** What a part holds; empty: nothing. */
  z.strictObject({ type: z.literal('part-holds'), partId: id, holds: z.array(z.enum(HOLDINGS)).max(HOLDINGS.length) }),
  z.strictObject({
    type: z.literal('stored-read'),
    partId: id,
    when: z.enum(['before', 'after']),
    checksum,
    bytes: z.int().positive().max(1e12).optional(),
    /** Where the file is kept. */
    file: z.string().trim().max(200).optional(),
  }),
  z.strictObject({ type: z.literal('firmware-loaded'), partId: id, version: text.max(200) }),
  z.strictObject({ type: z.literal('settings-again'), partId: id, note: z.string().trim().max(400) }),
] as const;
export type StoredEvent = z.infer<(typeof storedEvents)[number]>;
