/** Kit and settings of the shop, which every job is judged by: read again only when something of them was written. */
import type { ShopSettings } from '../../settings/shopSettings.ts';
import type { Database } from '../db/connect.ts';
import { Kept } from '../kept.ts';
import { listKit, type KitItem } from './kit.ts';
import { shopSettings } from './settings.ts';

export interface Shop {
  kit: KitItem[];
  settings: ShopSettings;
}

const kept = new Kept<Shop>(4);

/** The shop by its stamp, as `lockTicket` and `ticketById` read it. */
export async function shopAt(db: Database, stamp: string): Promise<Shop> {
  return kept.get(stamp) ?? kept.set(stamp, { kit: await listKit(db), settings: (await shopSettings(db)).value });
}
