/**
 * Events made with busy hands go here first: kept in this browser, then sent to the server in their order until it has them. The id is made here and
 * stored once, so sending twice does no harm; a reload, a killed browser or a dead server loses nothing that was shown as kept. What was sent stays
 * here too until a page has been loaded that knows of it: the same page, opened again while the server is away, must not be behind. Windows of one
 * browser share what is kept, send one at a time and tell each other.
 */
import { isWell, send, SendError } from '$lib/jobs/send';
import { EVENT_VERSION, type GateResult, type JobEvent, type JobEventBody } from '@orthos/core/job';
import { v7 } from 'uuid';
import { adopt, DiskKeeping, type Entry, type Keeping, type Shelf } from './keeping';

export interface Pending {
  id: string;
  ticketId: string;
  at: number;
  body: JobEventBody;
}
/** An event as the page holds it; `n` once it is kept. */
type Held = Entry & { n?: number };

/** What was sent is of no use after two days, ms. */
const SENT_FOR = 48 * 3_600_000;
/** What another window made is sent from here when it has not done so by then, ms. */
const OTHERS_MS = 3000;
const RETRY_MS = [500, 1000, 2000, 5000];
/** An event that a server in good health fails on so often is set aside. */
const MOST_FAILURES = 3;

/** What the server answers to an event: the job's gates as they are now. */
export interface Answer {
  gates: GateResult[];
}
/** What windows tell each other: how an event stands now, and the gates that were answered with it. */
interface News {
  entry: Held;
  gone?: boolean;
  gates?: GateResult[];
}

/** The world outside of the outbox. */
export interface Outside {
  keeping: Keeping;
  /** Sends one event; throws `SendError`. */
  post: (event: Pending) => Promise<Answer>;
  /** Whether server and database are well. */
  healthy: () => Promise<boolean>;
  /** Runs work while no other window does. */
  alone: (work: () => Promise<void>) => Promise<void>;
  /** Tells the other windows. */
  tell: (news: News) => void;
}

export const postEvent = async ({ ticketId, id, at, body }: Pending): Promise<Answer> =>
  (await send('POST', `/api/jobs/${ticketId}/events`, { id, at, body })) as Answer;

/** By the number they were kept under; what is not yet kept comes last. */
const inOrder = (entries: Held[]): Held[] => entries.toSorted((a, b) => (a.n ?? Infinity) - (b.n ?? Infinity) || 0);

export class Outbox {
  /** In the order of making. */
  private entries = $state.raw<Held[]>([]);
  /** Gates of jobs as the server judged them when it was last told something from here, by ticket. */
  gates = $state.raw<Record<string, GateResult[]>>({});
  /** The server does not answer at present. */
  away = $state(false);
  /** Milliseconds from making an event until the server had it, of the last one sent. */
  delay = $state<number | null>(null);
  /** This browser keeps nothing (private window, full disk): marks live only as long as the page. */
  unkept = $state(false);
  /** What an earlier visit left has been taken up. */
  readonly ready: Promise<void>;
  private sending = false;
  private failures = 0;
  private troubled: { id: string; times: number } | undefined;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private readonly outside: Outside;

  constructor(outside: Outside, before: (keeping: Keeping) => Promise<void> = () => Promise.resolve()) {
    this.outside = outside;
    this.ready = this.takeUp(before);
  }

  private async takeUp(before: (keeping: Keeping) => Promise<void>): Promise<void> {
    const { keeping } = this.outside;
    try {
      await before(keeping);
      const all = await keeping.all();
      const old = (e: Entry) => e.shelf === 'sent' && e.at < Date.now() - SENT_FOR;
      for (const e of all.filter(old)) await keeping.remove(e.n);
      const made = new Set(this.entries.map((e) => e.id));
      this.entries = [...all.filter((e) => !old(e) && !made.has(e.id)), ...this.entries];
    } catch {
      this.unkept = true;
    }
    void this.flush();
  }

  /** Not yet on the server. */
  get waiting(): Held[] {
    return this.entries.filter((e) => e.shelf === 'waiting');
  }
  /** Of those that wait, how many would outlive this browser. */
  get keptHere(): number {
    return this.waiting.filter((e) => e.n !== undefined).length;
  }
  /** The server said no; nobody can mend that but a human. */
  get refused(): Held[] {
    return this.entries.filter((e) => e.shelf === 'refused');
  }
  /** Events of a ticket made here and not refused, sent or not, as the job's log will have them. */
  of(ticketId: string): JobEvent[] {
    return this.entries
      .filter((e) => e.ticketId === ticketId && e.shelf !== 'refused')
      .map(({ id, at, body }) => ({ id, at, actor: 'unsigned', v: EVENT_VERSION, body }));
  }

  /** Keeps an event and begins to send it. `at` is when it happened, UTC ms. */
  put(ticketId: string, body: JobEventBody, at = Date.now()): Pending {
    const event = { id: v7(), ticketId, at, body };
    void this.keep({ ...event, shelf: 'waiting' }).then(() => this.flush());
    return event;
  }

  /** An event that the server has already, by another way. */
  sent(event: Pending, { gates }: Answer): void {
    this.judged(event.ticketId, gates);
    void this.keep({ ...event, shelf: 'sent' }, gates);
  }

  /** The server told how a job's gates stand. */
  judged(ticketId: string, gates: GateResult[]): void {
    this.gates = { ...this.gates, [ticketId]: gates };
  }

  private async keep(entry: Entry, gates?: GateResult[]): Promise<void> {
    this.entries = [...this.entries, entry];
    let kept: Held = entry;
    try {
      const n = await this.outside.keeping.add(entry);
      kept = { ...entry, n };
      const now = this.entries.find((e) => e.id === entry.id);
      // it may have been refused, or be needed no longer, before it was written down
      if (now) this.stands({ ...now, n }, now.shelf !== entry.shelf);
      else this.forget(kept);
    } catch {
      this.unkept = true;
    }
    this.outside.tell({ entry: kept, ...(gates ? { gates } : {}) });
  }

  /** How an event stands now: here, and if `kept` on the disk. */
  private stands(entry: Held, kept = true): void {
    this.entries = inOrder(this.entries.map((e) => (e.id === entry.id ? entry : e)));
    const { n } = entry;
    if (kept && n !== undefined) void this.outside.keeping.put({ ...entry, n }).catch(() => (this.unkept = true));
  }

  private forget(entry: Held): void {
    this.entries = this.entries.filter((e) => e.id !== entry.id);
    if (entry.n !== undefined) void this.outside.keeping.remove(entry.n).catch(() => undefined);
    this.outside.tell({ entry, gone: true });
  }

  /** Another window told how an event stands. */
  hear({ entry, gone, gates }: News): void {
    const known = this.entries.find((e) => e.id === entry.id);
    const others = this.entries.filter((e) => e !== known);
    this.entries = gone ? others : inOrder([...others, { ...known, ...entry }]);
    if (gates) this.judged(entry.ticketId, gates);
    // the window that made it may be gone before it has sent it
    if (this.waiting.length > 0 && !this.sending) this.later(OTHERS_MS);
  }

  private later(ms: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.flush(), ms);
  }

  /**
   * A page of this ticket was loaded whose log has these events: they need not be kept any longer, and what was answered to them says no more than
   * the page, unless the page is older.
   */
  settle(ticketId: string, ids: Iterable<string>): void {
    const there = new Set(ids);
    const mine = this.entries.filter((e) => e.ticketId === ticketId);
    const older = mine.some((e) => e.shelf === 'sent' && !there.has(e.id));
    for (const e of mine) if (e.shelf === 'sent' && there.has(e.id)) this.forget(e);
    if (older) return;
    this.gates = Object.fromEntries(Object.entries(this.gates).filter(([id]) => id !== ticketId));
  }

  /** Sends what waits, one after the other. */
  async flush(): Promise<void> {
    if (this.sending || this.waiting.length === 0) return;
    this.sending = true;
    clearTimeout(this.timer);
    try {
      await this.outside.alone(() => this.sendAll());
    } finally {
      this.sending = false;
    }
  }

  private async sendAll(): Promise<void> {
    for (let next = this.waiting.at(0); next; next = this.waiting.at(0)) {
      const moved = (shelf: Shelf, more: { message?: string; gates?: GateResult[] } = {}) => {
        const { gates, ...rest } = more;
        const now = this.entries.find((e) => e.id === next?.id) ?? next;
        if (!now) return;
        const entry = { ...now, shelf, ...rest };
        this.stands(entry);
        this.outside.tell({ entry, ...(gates ? { gates } : {}) });
      };
      try {
        const { gates } = await this.outside.post(next);
        this.judged(next.ticketId, gates);
        this.delay = Date.now() - next.at;
        moved('sent', { gates });
      } catch (e) {
        const status = e instanceof SendError ? e.status : 0;
        const message = (e as Error).message;
        if (status >= 400 && status < 500) moved('refused', { message });
        else if (await this.failsAlone(next, status))
          moved('refused', { message: `the server cannot take it: ${message}` });
        else {
          this.away = true;
          this.later(RETRY_MS[Math.min(this.failures++, RETRY_MS.length - 1)]);
          return;
        }
      }
      this.away = false;
      this.failures = 0;
    }
  }

  /** Whether it is this one event that a server, well otherwise, fails on: it must not hold up the rest for ever. */
  private async failsAlone({ id }: Held, status: number): Promise<boolean> {
    if (status < 500) return false;
    // what failed while nothing went well says nothing about the event
    if (!(await this.outside.healthy())) this.troubled = undefined;
    else this.troubled = { id, times: this.troubled?.id === id ? this.troubled.times + 1 : 1 };
    return (this.troubled?.times ?? 0) >= MOST_FAILURES;
  }

  /** Sends a refused event once more: what it waited for may be there now. */
  again(id: string): void {
    const entry = this.refused.find((r) => r.id === id);
    if (!entry) return;
    this.troubled = undefined;
    this.stands({ ...entry, shelf: 'waiting', message: undefined });
    void this.flush();
  }

  /** The human has read why. */
  dismiss(id: string): void {
    const entry = this.refused.find((r) => r.id === id);
    if (entry) this.forget(entry);
  }
}

let shared: Outbox | undefined;
/** The outbox of this browser; in the browser only. */
export function outbox(): Outbox {
  if (shared) return shared;
  const channel = new BroadcastChannel('orthos.outbox');
  const box = new Outbox(
    {
      keeping: new DiskKeeping(),
      post: postEvent,
      healthy: isWell,
      alone: async (work) => {
        await navigator.locks.request('orthos.outbox', work);
      },
      tell: (news) => channel.postMessage(news),
    },
    (keeping) => adopt(localStorage, keeping),
  );
  channel.onmessage = (message) => box.hear(message.data as News);
  window.addEventListener('online', () => void box.flush());
  shared = box;
  return box;
}
