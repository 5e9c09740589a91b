/** What other processes write to jobs, heard over one connection to the database and passed on to who asked for that job. */
import pg from 'pg';

const CHANNEL = 'orthos_job';
/** A lost connection is tried again after this, ms. */
const AGAIN_MS = 1000;

/** `what`: id of the row that was written, version of the ticket that was changed; empty when anything may have been missed. */
type Hearer = (what: string) => void;

export class News {
  private readonly url: string;
  private readonly hearers = new Map<string, Set<Hearer>>();
  private client: pg.Client | undefined;
  private ended = false;
  /** The first try to listen is over, well or not. */
  readonly begun: Promise<void>;

  constructor(url: string) {
    this.url = url;
    this.begun = this.listen();
  }

  /** Calls `hearer` whenever something of the job was written, by whatever process; gives back how to stop that. */
  of(ticketId: string, hearer: Hearer): () => void {
    const set = this.hearers.get(ticketId) ?? new Set();
    this.hearers.set(ticketId, set.add(hearer));
    return () => {
      set.delete(hearer);
      if (set.size === 0) this.hearers.delete(ticketId);
    };
  }

  private async listen(): Promise<void> {
    if (this.ended) return;
    const client = new pg.Client({ connectionString: this.url, keepAlive: true });
    let lost = false;
    const again = () => {
      if (lost) return;
      lost = true;
      client.end().catch(() => undefined);
      if (!this.ended) setTimeout(() => void this.listen(), AGAIN_MS).unref();
    };
    client.on('error', again);
    client.on('end', again);
    client.on('notification', ({ payload }) => this.pass(payload ?? ''));
    try {
      await client.connect();
      await client.query(`listen ${CHANNEL}`);
      this.client = client;
      // what was written while nobody listened
      for (const id of [...this.hearers.keys()]) this.pass(id);
    } catch {
      again();
    }
  }

  private pass(payload: string): void {
    const [ticketId, what = ''] = payload.split(' ');
    for (const hearer of this.hearers.get(ticketId) ?? []) hearer(what);
  }

  async close(): Promise<void> {
    this.ended = true;
    await this.client?.end().catch(() => undefined);
  }
}
