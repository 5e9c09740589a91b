import { FLOODS, shopLimitsSchema } from '@orthos/core';
import { and, eq, sql } from 'drizzle-orm';
import { z } from 'zod';
import type { Database } from '../db/connect.ts';
import { settings } from '../db/schema.ts';
import { ConflictError } from './conflict.ts';

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

const DEFAULTS = shopSettingsSchema.parse({
  v: 1,
  name: 'My bench',
  temperature: 'C',
  length: 'mm',
  timeZone: 'UTC',
});
/** Key of the shop's settings. */
export const SHOP = 'shop';

/** The shop's settings and the version to save against (0: never saved). */
export async function shopSettings(db: Database): Promise<{ value: ShopSettings; version: number }> {
  const [row] = await db.select().from(settings).where(eq(settings.key, SHOP));
  return row ? { value: shopSettingsSchema.parse(row.value), version: row.version } : { value: DEFAULTS, version: 0 };
}

export async function saveShopSettings(db: Database, value: ShopSettings, version: number): Promise<void> {
  const saved =
    version === 0
      ? await db.insert(settings).values({ key: SHOP, value }).onConflictDoNothing().returning()
      : await db
          .update(settings)
          .set({ value, version: sql`${settings.version} + 1` })
          .where(and(eq(settings.key, SHOP), eq(settings.version, version)))
          .returning();
  if (saved.length === 0) throw new ConflictError('The settings', (await shopSettings(db)).value);
}
