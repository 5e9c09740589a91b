/** What a part holds that cannot be bought: data, firmware, settings. Read before it is heated, brought back after. */
import type { PlacedPart } from '../board/index.ts';
import type { Holding, StoredEvent } from './storedForms.ts';

interface Read {
  id: string;
  checksum: string;
  bytes?: number | undefined;
  file?: string | undefined;
}
/** Of one part, over all attempts. */
export interface Stored {
  /** Undefined while nobody said. */
  holds?: readonly Holding[];
  before: Read[];
  after: Read[];
  firmware?: string;
  settings?: string;
}

export function applyStored(stored: Map<string, Stored>, eventId: string, body: StoredEvent): void {
  const of: Stored = stored.get(body.partId) ?? { before: [], after: [] };
  stored.set(body.partId, of);
  if (body.type === 'part-holds') of.holds = body.holds;
  else if (body.type === 'stored-read')
    of[body.when].push({ id: eventId, checksum: body.checksum, bytes: body.bytes, file: body.file });
  else if (body.type === 'firmware-loaded') of.firmware = body.version;
  else of.settings = body.note;
}

/** What a part of this name may hold, so that it is asked; empty where nothing speaks for it. */
export function mayHold({ what, value }: Pick<PlacedPart, 'what' | 'value'>): Holding[] {
  const words = `${what ?? ''} ${value ?? ''}`;
  if (/\b(e?eprom|nvram|f-?ram|memory|flash|serial rom)\b/i.test(words)) return ['data'];
  if (/\b(micro-?controller|controller|processor|mcu|soc|cpu|fpga)\b/i.test(words)) return ['firmware', 'settings'];
  return /\b(real-time clock|rtc|clock chip)\b/i.test(words) ? ['settings'] : [];
}

/** Two reads one after the other that agree; anything else is no copy. */
export function copyOf({ before }: Pick<Stored, 'before'>): {
  state: 'none' | 'once' | 'differ' | 'copy';
  read?: Read;
} {
  const [a, b] = [before.at(-2), before.at(-1)];
  if (!b) return { state: 'none' };
  if (!a) return { state: 'once', read: b };
  const same = a.checksum === b.checksum && (a.bytes === undefined || b.bytes === undefined || a.bytes === b.bytes);
  return { state: same ? 'copy' : 'differ', read: b };
}

/** As it is told: the first and last of a long one. */
export const shortSum = (sum: string): string => (sum.length > 14 ? `${sum.slice(0, 6)}…${sum.slice(-6)}` : sum);
