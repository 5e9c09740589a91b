import { shopSettingsSchema, type ShopSettings } from '../../settings/shopSettings.ts';
import { and, eq, sql } from 'drizzle-orm';
import type { Database } from '../db/connect.ts';
import { settings } from '../db/schema.ts';
import { ConflictError } from './conflict.ts';

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

/** How long pages show what was read of the settings, ms: every page wants them, they change once a month. */
const SHOWN_MS = 1000;
const shown = new WeakMap<Database, { value: ShopSettings; until: number }>();

/** The settings as pages show them; a change made by another process may take a second. */
export async function shownSettings(db: Database): Promise<ShopSettings> {
  const known = shown.get(db);
  if (known && performance.now() < known.until) return known.value;
  const { value } = await shopSettings(db);
  shown.set(db, { value, until: performance.now() + SHOWN_MS });
  return value;
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
  shown.delete(db);
  if (saved.length === 0) throw new ConflictError('The settings', (await shopSettings(db)).value);
}
