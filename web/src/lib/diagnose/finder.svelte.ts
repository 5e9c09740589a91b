/** The ranking of one job: a question goes to a worker, suspects and next readings come back. */
import type { DiagnoseInput, Diagnosis } from '@orthos/core/diagnosis';
import { proxy, type Remote, wrap } from 'comlink';
import type { DiagnoseWorker } from '../../workers/diagnose.worker';
import DiagnoseWorkerScript from '../../workers/diagnose.worker?worker';

export class Finder {
  result = $state.raw<Diagnosis | null>(null);
  /** Fraction done; null when idle. */
  progress = $state<number | null>(null);
  problem = $state<string | null>(null);
  private worker: Worker | null = null;
  private api: Remote<DiagnoseWorker> | null = null;
  private turn = 0;

  /** Asks anew; an answer that was overtaken is dropped. */
  async ask(question: DiagnoseInput | null): Promise<void> {
    const turn = ++this.turn;
    if (!question) {
      this.result = null;
      this.progress = null;
      return;
    }
    const api = (this.api ??= this.begin());
    this.progress ??= 0;
    try {
      const result = await api.diagnose(
        question,
        proxy((done: number) => {
          // progress comes by a way of its own and may arrive after the result
          if (turn === this.turn && this.progress !== null) this.progress = done;
        }),
      );
      if (turn !== this.turn) return;
      this.result = result;
      this.problem = null;
    } catch (e) {
      if (turn !== this.turn) return;
      this.problem = (e as Error).message;
      this.result = null;
    }
    this.progress = null;
  }

  private begin(): Remote<DiagnoseWorker> {
    this.worker = new DiagnoseWorkerScript();
    // one that cannot be loaded answers nothing: the next question starts another
    this.worker.addEventListener('error', (e) => {
      this.end();
      this.progress = null;
      this.problem = e.message || 'its worker could not be loaded';
    });
    return wrap<DiagnoseWorker>(this.worker);
  }

  end(): void {
    this.turn++;
    this.worker?.terminate();
    this.worker = null;
    this.api = null;
  }
}
