/** Of the windows of one browser that show a run, one leads it; the others follow until they take over or it is closed. */
export class Lead {
  /** Unknown until asked. */
  state = $state<'asking' | 'leads' | 'follows'>('asking');
  private readonly name: string;
  private release: () => void = () => undefined;
  private waiting = new AbortController();
  private ended = false;

  constructor(run: string) {
    this.name = `orthos.run.${run}`;
  }

  /** Leads if nobody does, else follows and leads when the other is closed. */
  ask(): void {
    navigator.locks
      .request(this.name, { ifAvailable: true }, (lock) => {
        if (lock) return this.hold();
        this.follow();
        return undefined;
      })
      .catch(() => this.lost());
  }

  private follow(): void {
    this.state = 'follows';
    this.waiting = new AbortController();
    navigator.locks.request(this.name, { signal: this.waiting.signal }, () => this.hold()).catch(() => this.lost());
  }

  /** Another window took over; or this one gave up waiting. */
  private lost(): void {
    if (this.state === 'leads' && !this.ended) this.follow();
  }

  private hold(): Promise<void> {
    // granted after the page was left
    if (this.ended) return Promise.resolve();
    this.state = 'leads';
    return new Promise((done) => (this.release = done));
  }

  /** Leads from now on; the other window follows. */
  takeOver(): void {
    this.waiting.abort();
    navigator.locks.request(this.name, { steal: true }, () => this.hold()).catch(() => this.lost());
  }

  end(): void {
    this.ended = true;
    this.waiting.abort();
    this.release();
  }
}
