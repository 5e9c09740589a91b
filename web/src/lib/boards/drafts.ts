/**
 * Drafts of boards that the server does not have yet, kept by this browser: in IndexedDB, on the disk before a write counts, one entry for every
 * page that edits, so that no page overwrites another's.
 */
import type { BoardModel } from '@orthos/core/board';
import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import { v7 } from 'uuid';

/** A draft, and the version of the server's that it began from. */
export interface Kept {
  base: number;
  doc: BoardModel;
}

export interface DraftEntry extends Kept {
  boardId: string;
  /** The page that keeps it. */
  page: string;
  /** UTC ms. */
  at: number;
}

/** Where entries lie; every call rejects when the browser refuses or is full. */
export interface DraftStore {
  of(boardId: string): Promise<DraftEntry[]>;
  /** Keeps an entry, and lets another go in the same breath. */
  put(entry: DraftEntry, instead?: DraftEntry): Promise<void>;
  remove(boardId: string, page: string): Promise<void>;
}

interface Schema extends DBSchema {
  drafts: { key: [boardId: string, page: string]; value: DraftEntry };
}
const STRICT = { durability: 'strict' } as const;

class DiskDrafts implements DraftStore {
  private readonly db: Promise<IDBPDatabase<Schema>>;

  constructor() {
    this.db = openDB<Schema>('orthos-drafts', 1, {
      upgrade: (db) => void db.createObjectStore('drafts', { keyPath: ['boardId', 'page'] }),
    });
    // said by every call that needs it
    this.db.catch(() => undefined);
  }

  async of(boardId: string): Promise<DraftEntry[]> {
    return (await this.db).getAll('drafts', IDBKeyRange.bound([boardId], [boardId, []]));
  }
  async put(entry: DraftEntry, instead?: DraftEntry): Promise<void> {
    const tx = (await this.db).transaction('drafts', 'readwrite', STRICT);
    const gone = instead ? tx.store.delete([instead.boardId, instead.page]) : undefined;
    await Promise.all([tx.store.put(entry), gone, tx.done]);
  }
  async remove(boardId: string, page: string): Promise<void> {
    await (await this.db).delete('drafts', [boardId, page]);
  }
}

/** Under this name an older version kept a board's draft in localStorage. */
const oldKey = (boardId: string): string => `orthos-draft:${boardId}`;

/** A page's own draft of one board. */
export class Draft {
  /** What an earlier page left here and the server never had; null without. */
  readonly found: Kept | null;
  private pending: Kept | null = null;
  private writing: Promise<void> | null = null;
  private readonly release: () => void;
  private readonly store: DraftStore;
  private readonly boardId: string;
  private readonly page: string;

  constructor(store: DraftStore, boardId: string, page: string, found: Kept | null, release: () => void) {
    [this.store, this.boardId, this.page, this.found, this.release] = [store, boardId, page, found, release];
  }

  /** Keeps the draft as it is now; of several in a row the last. Rejects when this browser keeps nothing. */
  keep(kept: Kept): Promise<void> {
    this.pending = kept;
    this.writing ??= this.write().finally(() => (this.writing = null));
    return this.writing;
  }
  private async write(): Promise<void> {
    while (this.pending) {
      const kept = this.pending;
      this.pending = null;
      await this.store.put({ ...kept, boardId: this.boardId, page: this.page, at: Date.now() });
    }
  }

  /** The server has it, or nobody wants it any more. */
  async drop(): Promise<void> {
    this.pending = null;
    await this.writing?.catch(() => undefined);
    await this.store.remove(this.boardId, this.page).catch(() => undefined);
  }

  end(): void {
    this.release();
  }
}

/**
 * Opens a page's draft: what a page that is gone left here is taken over, the latest of several; pages that are still open keep theirs. A browser
 * that keeps nothing gives an empty one.
 */
export async function openDraft(boardId: string, store: DraftStore = new DiskDrafts()): Promise<Draft> {
  const page = v7();
  const { open, release } = await pagesOpen(page);
  try {
    const old = adopted(boardId);
    if (old) {
      await store.put({ ...old, boardId, page: 'older', at: 0 });
      localStorage.removeItem(oldKey(boardId));
    }
    const left = (await store.of(boardId)).filter((e) => !open.has(e.page)).sort((a, b) => b.at - a.at);
    const [last] = left;
    if (!last) return new Draft(store, boardId, page, null, release);
    await store.put({ ...last, page }, last);
    return new Draft(store, boardId, page, { base: last.base, doc: last.doc }, release);
  } catch {
    return new Draft(store, boardId, page, null, release);
  }
}

function adopted(boardId: string): Kept | null {
  try {
    return JSON.parse(localStorage.getItem(oldKey(boardId)) ?? 'null') as Kept | null;
  } catch {
    return null;
  }
}

/** Pages with a draft open, told by a lock that each holds as long as it lives; none are known where the browser has no locks. */
async function pagesOpen(page: string): Promise<{ open: Set<string>; release: () => void }> {
  const PREFIX = 'orthos.draft.';
  const locks = (navigator as Partial<Navigator>).locks;
  if (!locks) return { open: new Set(), release: () => undefined };
  const { held = [] } = await locks.query();
  const open = new Set(held.flatMap((l) => (l.name?.startsWith(PREFIX) ? [l.name.slice(PREFIX.length)] : [])));
  let release = () => {};
  const done = new Promise<void>((resolve) => (release = resolve));
  await new Promise<void>((taken) => {
    void locks.request(`${PREFIX}${page}`, () => {
      taken();
      return done;
    });
  });
  return { open, release };
}
