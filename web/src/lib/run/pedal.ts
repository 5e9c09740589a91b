/** One pedal (any key that it sends, or a big button): a short press goes on, a long one says something is wrong. */

export const PEDAL_KEYS = [' ', 'Enter', 'PageDown'];
/** Longer than this is a hold, ms. */
export const HOLD_MS = 650;
/** Told so much later, the page was busy, and a release may wait to be told, ms. */
const LATE_MS = 100;

export class Pedal {
  private down = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;

  private readonly tap: (at: number) => void;
  private readonly hold: () => void;

  /** `tap` is told when the pedal went down, UTC ms: that is when it happened. */
  constructor(tap: (at: number) => void, hold: () => void) {
    this.tap = tap;
    this.hold = hold;
  }

  get pressed(): boolean {
    return this.down !== 0;
  }

  /** Repeats of a held key change nothing. */
  press(): void {
    if (this.down !== 0) return;
    this.down = Date.now();
    const held = () => {
      this.down = -1;
      this.hold();
    };
    this.timer = setTimeout(() => {
      if (Date.now() - this.down < HOLD_MS + LATE_MS) held();
      else this.timer = setTimeout(held, LATE_MS);
    }, HOLD_MS);
  }

  release(): void {
    clearTimeout(this.timer);
    const at = this.down;
    this.down = 0;
    if (at > 0) this.tap(at);
  }

  /** The page lost sight of the pedal. */
  forget(): void {
    clearTimeout(this.timer);
    this.down = 0;
  }
}
