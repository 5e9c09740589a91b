/**
 * One board draft being edited: every change is a step that can be undone, is kept in this browser at once and
 * saved on the server a moment later.
 */
import { send, SendError } from '$lib/jobs/send';
import type { StageTool } from '$lib/stage/view';
import type { BoardModel } from '@orthos/core/board';
import type { Draft } from './drafts';

/** Drawn over the board while a tool works, in board mm. */
export interface Sketch {
  polygons?: { points: (readonly [number, number])[]; tone: 'ghost' | 'draft' | 'patch'; open?: boolean }[];
  dots?: { x: number; y: number; label?: string }[];
  /** Said beside the last dot or polygon. */
  note?: { x: number; y: number; text: string };
}

type SaveState = 'saved' | 'waiting' | 'saving' | 'away' | 'refused' | 'conflict';

const STEPS_KEPT = 500;
/** A pause in editing after which the draft goes to the server, ms. */
const PAUSE_MS = 600;
const RETRY_MS = 5000;

export class Editor {
  readonly id: string;
  doc = $state.raw<BoardModel>() as BoardModel;
  /** Takes the pointer on the stage; the open panel sets it. */
  tool = $state.raw<StageTool | undefined>(undefined);
  sketch = $state.raw<Sketch>({});
  state = $state<SaveState>('saved');
  /** Whether this browser has the last step on its disk. */
  kept = $state<'yes' | 'not yet' | 'never'>('yes');
  /** Why the server refused the draft. */
  trouble = $state('');
  /** Another draft was saved meanwhile. */
  other = $state.raw<{ version: number; doc: BoardModel } | null>(null);
  private past = $state.raw<{ label: string; doc: BoardModel }[]>([]);
  private future = $state.raw<{ label: string; doc: BoardModel }[]>([]);
  private version: number;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private sending: Promise<void> | undefined;
  private stored: BoardModel;
  private ended = false;
  private readonly draft: Draft;

  constructor(id: string, version: number, doc: BoardModel, draft: Draft) {
    this.id = id;
    this.draft = draft;
    this.version = version;
    this.doc = doc;
    this.stored = doc;
    const kept = draft.found;
    if (!kept) return;
    if (JSON.stringify(kept.doc) === JSON.stringify(doc)) {
      void draft.drop();
      return;
    }
    if (kept.base === version) {
      // what had not reached the server when the page was left
      this.doc = kept.doc;
      this.later(0);
    } else {
      this.doc = kept.doc;
      this.other = { version, doc };
      this.state = 'conflict';
    }
  }

  get undoLabel(): string | undefined {
    return this.past[this.past.length - 1]?.label;
  }
  get redoLabel(): string | undefined {
    return this.future[this.future.length - 1]?.label;
  }

  /** One step forward. */
  commit(label: string, next: BoardModel): void {
    if (next === this.doc) return;
    this.past = [...this.past.slice(-STEPS_KEPT + 1), { label, doc: this.doc }];
    this.future = [];
    this.set(next);
  }

  /** Goes on with the last step instead of making another: a part sliding home after it was put down. */
  amend(next: BoardModel): void {
    if (next !== this.doc) this.set(next);
  }

  undo(): void {
    const step = this.past[this.past.length - 1];
    if (!step) return;
    this.past = this.past.slice(0, -1);
    this.future = [...this.future, { label: step.label, doc: this.doc }];
    this.set(step.doc);
  }

  redo(): void {
    const step = this.future[this.future.length - 1];
    if (!step) return;
    this.future = this.future.slice(0, -1);
    this.past = [...this.past, { label: step.label, doc: this.doc }];
    this.set(step.doc);
  }

  private set(next: BoardModel): void {
    this.doc = next;
    this.keep();
    if (this.state !== 'conflict') this.later(PAUSE_MS);
  }

  private keep(): void {
    this.kept = 'not yet';
    this.draft.keep({ base: this.version, doc: this.doc }).then(
      () => (this.kept = 'yes'),
      // full or forbidden: the server's copy a moment later has to do
      () => (this.kept = 'never'),
    );
  }

  private later(ms: number): void {
    clearTimeout(this.timer);
    this.state = 'waiting';
    this.timer = setTimeout(() => void this.save(), ms);
  }

  /** Saves now what has not been saved; resolves when the server has it or has said why not. */
  async flush(): Promise<boolean> {
    clearTimeout(this.timer);
    while (this.state !== 'conflict' && this.doc !== this.stored) {
      await this.save();
      if (this.state === 'away' || this.state === 'refused') return false;
    }
    return this.state !== 'conflict';
  }

  private async save(): Promise<void> {
    if (this.sending) return this.sending;
    this.sending = this.put();
    await this.sending;
    this.sending = undefined;
    if (this.state === 'waiting' && !this.ended) this.later(PAUSE_MS);
  }

  private async put(): Promise<void> {
    const { doc } = this;
    this.state = 'saving';
    try {
      const answer = (await send('PUT', `/api/boards/${this.id}/draft`, { version: this.version, doc })) as {
        version: number;
      };
      this.version = answer.version;
      this.stored = doc;
      this.trouble = '';
      if (this.doc === doc) {
        this.state = 'saved';
        void this.draft.drop();
      } else {
        this.keep();
        this.state = 'waiting';
      }
    } catch (e) {
      if (!(e instanceof SendError)) throw e;
      if (e.status === 0 || e.status >= 500) {
        this.state = 'away';
        if (!this.ended) this.timer = setTimeout(() => void this.save(), RETRY_MS);
      } else if (e.status === 409) await this.meet();
      else {
        this.state = 'refused';
        this.trouble = e.message;
      }
    }
  }

  private async meet(): Promise<void> {
    this.state = 'conflict';
    const other = await send('GET', `/api/boards/${this.id}/draft`).catch(() => null);
    if (other) this.other = other as { version: number; doc: BoardModel };
  }

  /** Ends a conflict: with one's own draft, or with the one that was saved meanwhile (one's own can be undone to). */
  settle(mine: boolean): void {
    if (!this.other) return;
    this.version = this.other.version;
    const theirs = this.other.doc;
    this.other = null;
    this.state = 'waiting';
    if (mine) this.set(this.doc);
    else {
      this.stored = theirs;
      this.commit('take the other draft', theirs);
    }
  }

  /** The draft is gone: nothing more is saved, here or there. */
  forget(): void {
    clearTimeout(this.timer);
    this.ended = true;
    this.stored = this.doc;
    this.state = 'saved';
    void this.draft.drop();
  }

  end(): void {
    if (this.ended) return;
    this.ended = true;
    void this.flush().finally(() => this.draft.end());
  }
}
