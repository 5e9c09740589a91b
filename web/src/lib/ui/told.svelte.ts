/** What is said in passing: something was done that nobody looked at. It goes by itself; what it did can be taken back while it stands. */
interface Told {
  id: number;
  text: string;
  tone: 'good' | 'stop';
  undo?: (() => Promise<void>) | undefined;
}

/** Long enough to be read and reached, ms; what went wrong stays until it is sent away. */
const STAYS_MS = 8000;

class Telling {
  list = $state.raw<readonly Told[]>([]);
  private next = 0;

  tell(text: string, { tone = 'good', undo }: { tone?: Told['tone']; undo?: () => Promise<void> } = {}): void {
    const told = { id: this.next++, text, tone, undo };
    this.list = [...this.list, told];
    if (tone === 'good') setTimeout(() => this.drop(told.id), STAYS_MS);
  }
  drop(id: number): void {
    this.list = this.list.filter((t) => t.id !== id);
  }
}

export const telling = new Telling();
