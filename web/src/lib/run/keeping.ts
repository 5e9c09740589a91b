/**
 * Where this browser keeps events until the server has them: IndexedDB, each write on the disk before it counts, so that a browser killed a moment
 * later has them still. Entries are numbered as they are written; the order is that number's, whatever the clock says.
 */
import type { JobEventBody } from '@orthos/core/job';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';

/** Not yet on the server; on it, kept until a page knows; refused by it, kept until a human has read why. */
export type Shelf = 'waiting' | 'sent' | 'refused';

export interface Entry {
  id: string;
  ticketId: string;
  /** When it happened, UTC ms by this machine's clock. */
  at: number;
  body: JobEventBody;
  shelf: Shelf;
  /** Why it was refused. */
  message?: string | undefined;
}
export type Numbered = Entry & { n: number };

export interface Keeping {
  /** All entries in their order. */
  all(): Promise<Numbered[]>;
  /** Keeps an entry and gives its number; rejects when the browser refuses or is full. */
  add(entry: Entry): Promise<number>;
  /** Puts an entry in the place of the one of its number. */
  put(entry: Numbered): Promise<void>;
  remove(n: number): Promise<void>;
}

interface Schema extends DBSchema {
  entries: { key: number; value: Entry & { n?: number } };
}
const STRICT = { durability: 'strict' } as const;

export class DiskKeeping implements Keeping {
  private readonly db: Promise<IDBPDatabase<Schema>>;

  constructor(name = 'orthos-outbox') {
    this.db = openDB<Schema>(name, 1, {
      upgrade: (db) => void db.createObjectStore('entries', { keyPath: 'n', autoIncrement: true }),
    });
    // said by every call that needs it
    this.db.catch(() => undefined);
  }

  async all(): Promise<Numbered[]> {
    return (await (await this.db).getAll('entries')) as Numbered[];
  }
  async add(entry: Entry): Promise<number> {
    const tx = (await this.db).transaction('entries', 'readwrite', STRICT);
    const [n] = await Promise.all([tx.store.add(entry), tx.done]);
    return n;
  }
  async put(entry: Numbered): Promise<void> {
    const tx = (await this.db).transaction('entries', 'readwrite', STRICT);
    await Promise.all([tx.store.put(entry), tx.done]);
  }
  async remove(n: number): Promise<void> {
    await (await this.db).delete('entries', n);
  }
}

/** Prefixes under which older versions kept entries in localStorage, one by one. */
const OLD: [prefix: string, shelf: Shelf][] = [
  ['orthos.outbox.', 'waiting'],
  ['orthos.sent.', 'sent'],
  ['orthos.refused.', 'refused'],
];

/** Takes over what an older version left in localStorage; a thing is taken out there only when it is kept here. */
export async function adopt(store: Storage, keeping: Keeping): Promise<void> {
  const keys = Array.from({ length: store.length }, (_, i) => store.key(i) ?? '').sort();
  for (const key of keys) {
    const shelf = OLD.find(([prefix]) => key.startsWith(prefix))?.[1];
    if (!shelf) continue;
    let old: Omit<Entry, 'shelf'>;
    try {
      old = JSON.parse(store.getItem(key) ?? '') as Omit<Entry, 'shelf'>;
    } catch {
      // half a thing is left where it is
      continue;
    }
    await keeping.add({ ...old, shelf });
    store.removeItem(key);
  }
}
