/**
 * Events made with busy hands go here first: kept in this browser before anything else, then sent to the server in
 * their order until it has them. The id is made here and stored once, so sending twice does no harm; a reload, a
 * closed tab or a dead server loses nothing. What was sent stays here too until a page has been loaded that knows of
 * it: the same page, opened again while the server is away, must not be behind.
 */
import { send, SendError } from '$lib/jobs/send';
import type { GateResult, JobEvent, JobEventBody } from '@orthos/core';
import { v7 } from 'uuid';

export interface Pending {
  id: string;
  ticketId: string;
  at: number;
  body: JobEventBody;
}
export interface Refused extends Pending {
  message: string;
}

const WAITING = 'orthos.outbox.';
const SENT = 'orthos.sent.';
/** What was sent is of no use after two days, ms. */
const SENT_FOR = 48 * 3_600_000;
const REFUSED = 'orthos.refused.';
const RETRY_MS = [500, 1000, 2000, 5000];

/** What the server answers to an event: the job's gates as they are now. */
export interface Answer {
  gates: GateResult[];
}
type Post = (event: Pending) => Promise<Answer>;

/** Sends one event; throws `SendError`. */
export const postEvent: Post = async ({ ticketId, id, at, body }) =>
  (await send('POST', `/api/jobs/${ticketId}/events`, { id, at, body })) as Answer;

/** What is kept below `prefix`, oldest first (ids rise with time). */
function kept<T>(store: Storage, prefix: string): T[] {
  const keys = Array.from({ length: store.length }, (_, i) => store.key(i) ?? '').filter((k) => k.startsWith(prefix));
  return keys.sort().flatMap((key) => {
    try {
      return [JSON.parse(store.getItem(key) ?? '') as T];
    } catch {
      return [];
    }
  });
}

export class Outbox {
  /** Not yet on the server. */
  waiting = $state.raw<Pending[]>([]);
  /** The server said no; nobody can mend that but a human. */
  refused = $state.raw<Refused[]>([]);
  /** Made in this visit, sent or not: what the page shows before the server has told. */
  made = $state.raw<Pending[]>([]);
  /** Gates of jobs as the server judged them when it was last told something from here, by ticket. */
  gates = $state.raw<Record<string, GateResult[]>>({});
  /** The server does not answer at present. */
  away = $state(false);
  /** Milliseconds from making an event until the server had it, of the last one sent. */
  delay = $state<number | null>(null);
  /** This browser keeps nothing (private window, full disk): marks live only as long as the page. */
  unkept = $state(false);
  private sending = false;
  private failures = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  private readonly store: Storage;
  private readonly post: Post;

  constructor(store: Storage, post: Post = postEvent) {
    this.store = store;
    this.post = post;
    this.read();
    const sent = kept<Pending>(store, SENT).filter((e) => {
      const fresh = e.at > Date.now() - SENT_FOR;
      if (!fresh) store.removeItem(SENT + e.id);
      return fresh;
    });
    this.made = [...sent, ...this.waiting].sort((a, b) => (a.id < b.id ? -1 : 1));
  }

  /** Takes up what another tab or an earlier visit left. */
  read(): void {
    this.waiting = kept<Pending>(this.store, WAITING);
    this.refused = kept<Refused>(this.store, REFUSED);
  }

  /** Keeps an event and begins to send it. `at` is when it happened, UTC ms. */
  put(ticketId: string, body: JobEventBody, at = Date.now()): Pending {
    const event: Pending = { id: v7(), ticketId, at, body };
    this.keep(WAITING, event);
    this.waiting = [...this.waiting, event];
    this.made = [...this.made, event];
    void this.flush();
    return event;
  }

  /** An event that the server has already, by another way. */
  sent(event: Pending, { gates }: Answer): void {
    this.keep(SENT, event);
    this.gates = { ...this.gates, [event.ticketId]: gates };
    this.made = [...this.made, event];
  }

  /**
   * A page of this ticket was loaded whose log has these events: they need not be kept any longer, and what was answered to them says no more than
   * the page, unless the page is older.
   */
  settle(ticketId: string, ids: Iterable<string>): void {
    const there = new Set(ids);
    for (const id of there) this.store.removeItem(SENT + id);
    const waiting = new Set(this.waiting.map((e) => e.id));
    const older = this.made.some((e) => e.ticketId === ticketId && !there.has(e.id) && !waiting.has(e.id));
    if (older) return;
    this.gates = Object.fromEntries(Object.entries(this.gates).filter(([id]) => id !== ticketId));
  }

  private keep(prefix: string, event: Pending | Refused): void {
    try {
      this.store.setItem(prefix + event.id, JSON.stringify(event));
    } catch {
      this.unkept = true;
    }
  }

  /** Events of a ticket made here, as the job's log will have them. */
  of(ticketId: string): JobEvent[] {
    return this.made
      .filter((e) => e.ticketId === ticketId)
      .map(({ id, at, body }) => ({ id, at, actor: 'unsigned', v: 1, body }));
  }

  /** Sends what waits, one after the other. */
  async flush(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    clearTimeout(this.timer);
    try {
      while (this.waiting.length > 0) {
        const [event] = this.waiting;
        try {
          this.gates = { ...this.gates, [event.ticketId]: (await this.post(event)).gates };
          this.delay = Date.now() - event.at;
          this.keep(SENT, event);
        } catch (e) {
          const status = e instanceof SendError ? e.status : 0;
          if (status === 0 || status >= 500) {
            this.away = true;
            this.timer = setTimeout(() => void this.flush(), RETRY_MS[Math.min(this.failures++, RETRY_MS.length - 1)]);
            return;
          }
          this.refuse(event, (e as Error).message);
        }
        this.away = false;
        this.failures = 0;
        this.store.removeItem(WAITING + event.id);
        this.waiting = this.waiting.filter((w) => w.id !== event.id);
      }
    } finally {
      this.sending = false;
    }
  }

  /** The human has read why. */
  dismiss(id: string): void {
    this.store.removeItem(REFUSED + id);
    this.refused = this.refused.filter((r) => r.id !== id);
  }

  private refuse(event: Pending, message: string): void {
    const refused = { ...event, message };
    this.keep(REFUSED, refused);
    this.refused = [...this.refused, refused];
    this.made = this.made.filter((m) => m.id !== event.id);
  }
}

let shared: Outbox | undefined;
/** The outbox of this browser; in the browser only. */
export function outbox(): Outbox {
  if (shared) return shared;
  const box = new Outbox(localStorage);
  window.addEventListener('online', () => void box.flush());
  window.addEventListener('storage', () => box.read());
  void box.flush();
  shared = box;
  return box;
}
