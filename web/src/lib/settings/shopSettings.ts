/** How a shop reads, writes and works. */
import { FLOODS } from '@orthos/core/hands';
import { methodIdSchema, shopLimitsSchema } from '@orthos/core/rework';
import { z } from 'zod';

/** How the shop reads and writes values. */
export const shopSettingsSchema = z.strictObject({
  v: z.literal(1),
  name: z.string().trim().min(1, 'give the shop a name').max(100),
  temperature: z.enum(['C', 'F']),
  length: z.enum(['mm', 'mil', 'in']),
  /** What an hour at the bench costs, minor units. */
  rate_minor_h: z.int('an amount from 0 up').min(0).max(10_000_000).default(6000),
  currency: z
    .string()
    .regex(/^[A-Z]{3}$/, 'three capital letters, e.g. EUR')
    .default('EUR'),
  /** Given on clean work. */
  warrantyMonths: z.int('a whole number of months').min(0).max(120).default(6),
  /** What lands are cleaned with. */
  flood: z.enum(FLOODS).default('leaded'),
  /** What kinds of part stand in this shop's own judgement. */
  limits: shopLimitsSchema.optional(),
  /** Methods that this shop does not work by. */
  never: z.array(methodIdSchema).max(60).optional(),
  /** Where phones and microscopes put pictures, on the machine that serves the shop. */
  photoFolder: z
    .string()
    .trim()
    .max(500)
    .regex(/^(\/|[A-Za-z]:[\\/])/, 'the whole path, from its beginning')
    .optional(),
  timeZone: z.string().refine(isTimeZone, { error: 'is not a time zone, e.g. Europe/Lisbon' }),
});
export type ShopSettings = z.infer<typeof shopSettingsSchema>;

/** Zones that were asked for: the settings are read with every page. */
const zones = new Map<string, boolean>();
function isTimeZone(zone: string): boolean {
  let known = zones.get(zone);
  if (known === undefined) {
    try {
      new Intl.DateTimeFormat('en', { timeZone: zone });
      known = true;
    } catch {
      known = false;
    }
    if (zones.size < 1000) zones.set(zone, known);
  }
  return known;
}
