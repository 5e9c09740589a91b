import { addPart, blankBoard, type BoardModel } from '@orthos/core/board';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { openDraft, type DraftEntry, type DraftStore } from '../../src/lib/boards/drafts.ts';

class SendError extends Error {
  readonly status: number;
  constructor(status: number, message: string) {
    super(message);
    this.status = status;
  }
}
const send = vi.fn<(method: string, path: string, body: { version: number; doc: BoardModel }) => Promise<unknown>>();
vi.mock('$lib/jobs/send', () => ({ SendError, send }));

let shelf: DraftEntry[] = [];
let full = false;
const store: DraftStore = {
  of: (boardId) => Promise.resolve(shelf.filter((e) => e.boardId === boardId)),
  put: (entry, instead) => {
    if (full) return Promise.reject(new Error('full'));
    shelf = [...shelf.filter((e) => e.page !== entry.page && e.page !== instead?.page), entry];
    return Promise.resolve();
  },
  remove: (_, page) => {
    shelf = shelf.filter((e) => e.page !== page);
    return Promise.resolve();
  },
};
const old = new Map<string, string>();
vi.stubGlobal('localStorage', {
  getItem: (k: string) => old.get(k) ?? null,
  removeItem: (k: string) => old.delete(k),
});
/** Pages that live, as their locks tell. */
const held = new Set<string>();
vi.stubGlobal('navigator', {
  locks: {
    query: () => Promise.resolve({ held: [...held].map((name) => ({ name })) }),
    request: (name: string, work: () => Promise<void>) => {
      held.add(name);
      return work().then(() => held.delete(name));
    },
  },
});
const { Editor } = await import('../../src/lib/boards/editor.svelte.ts');
const opened = async (version: number, doc: BoardModel) => new Editor('a', version, doc, await openDraft('a', store));

const empty = blankBoard('Heron', 60, 40, 2, 1.6);
let made = 0;
const more = (doc: BoardModel) =>
  addPart(doc, { partId: `p${made++}`, package: 'R0603', x_mm: made, y_mm: 5, rotation_deg: 0, side: 'top' });
const parts = (doc: BoardModel) => doc.parts.length;

beforeEach(() => {
  vi.useFakeTimers();
  shelf = [];
  old.clear();
  held.clear();
  full = false;
  send.mockReset();
  let version = 1;
  send.mockImplementation(() => Promise.resolve({ version: ++version }));
});
afterEach(() => void vi.useRealTimers());
const settle = () => vi.advanceTimersByTimeAsync(2000);

describe('a board draft', () => {
  it('goes back and forth step by step, a new step forgets what was undone', async () => {
    const editor = await opened(1, empty);
    for (let n = 0; n < 60; n++) editor.commit(`part ${n}`, more(editor.doc));
    for (let n = 0; n < 55; n++) editor.undo();
    expect(parts(editor.doc)).toBe(5);
    expect([editor.undoLabel, editor.redoLabel]).toEqual(['part 4', 'part 5']);
    for (let n = 0; n < 55; n++) editor.redo();
    expect(parts(editor.doc)).toBe(60);
    editor.undo();
    editor.commit('another', more(editor.doc));
    editor.redo();
    expect([parts(editor.doc), editor.redoLabel]).toEqual([60, undefined]);
    for (let n = 0; n < 99; n++) editor.undo();
    expect(editor.doc).toBe(empty);
  });
  it('amends the last step instead of making one', async () => {
    const editor = await opened(1, empty);
    editor.commit('place', more(editor.doc));
    editor.amend({ ...editor.doc, name: 'slid' });
    editor.undo();
    expect(editor.doc).toBe(empty);
  });
  it('is kept here at once and on the server after a pause, several steps in one go', async () => {
    const editor = await opened(1, empty);
    for (let n = 0; n < 3; n++) editor.commit('part', more(editor.doc));
    await vi.advanceTimersByTimeAsync(0);
    expect(shelf.map((e) => parts(e.doc))).toEqual([3]);
    expect(send).not.toHaveBeenCalled();
    await settle();
    expect(send).toHaveBeenCalledTimes(1);
    expect([editor.state, shelf.length]).toEqual(['saved', 0]);
    editor.commit('part', more(editor.doc));
    await settle();
    expect(send.mock.calls.map(([, , body]) => body.version)).toEqual([1, 2]);
  });
  it('is tried again while nobody answers, and comes back after a reload', async () => {
    send.mockRejectedValueOnce(new SendError(0, 'away'));
    const editor = await opened(1, empty);
    editor.commit('part', more(editor.doc));
    await settle();
    expect(editor.state).toBe('away');
    // the browser was killed and the page is loaded anew
    held.clear();
    const again = await opened(1, empty);
    expect(parts(again.doc)).toBe(1);
    await vi.advanceTimersByTimeAsync(6000);
    expect(editor.state).toBe('saved');
  });
  it('says why the server refuses it, and is saved once that is mended', async () => {
    send.mockRejectedValueOnce(new SendError(400, 'doc.name: too long'));
    const editor = await opened(1, empty);
    editor.commit('part', more(editor.doc));
    expect(await editor.flush()).toBe(false);
    expect([editor.state, editor.trouble]).toEqual(['refused', 'doc.name: too long']);
    editor.commit('part', more(editor.doc));
    expect(await editor.flush()).toBe(true);
    expect([editor.state, editor.trouble]).toEqual(['saved', '']);
  });
  it.each([true, false])('meets another draft: keeps mine %s', async (mine) => {
    const theirs = { ...empty, name: 'theirs' };
    send.mockRejectedValueOnce(new SendError(409, 'conflict'));
    send.mockResolvedValueOnce({ version: 7, doc: theirs });
    const editor = await opened(1, empty);
    editor.commit('part', more(editor.doc));
    await settle();
    expect([editor.state, editor.other?.version]).toEqual(['conflict', 7]);
    editor.settle(mine);
    await settle();
    expect(editor.state).toBe('saved');
    expect([editor.doc.name, parts(editor.doc)]).toEqual(mine ? ['Heron', 1] : ['theirs', 0]);
    if (mine) expect(send.mock.calls.at(-1)?.[2].version).toBe(7);
    // theirs taken, mine is one step back
    else {
      editor.undo();
      expect(parts(editor.doc)).toBe(1);
    }
  });
  it('kept from an older version than the stored one is not saved over it unasked', async () => {
    old.set('orthos-draft:a', JSON.stringify({ base: 1, doc: more(empty) }));
    const editor = await opened(3, { ...empty, name: 'newer' });
    await settle();
    expect([editor.state, editor.other?.doc.name, send.mock.calls.length]).toEqual(['conflict', 'newer', 0]);
    // from where an older build kept it, it has moved
    expect([old.size, shelf.length]).toEqual([0, 1]);
  });
  it('of a page that is still open is left to that page', async () => {
    send.mockRejectedValue(new SendError(0, 'away'));
    const first = await opened(1, empty);
    first.commit('part', more(first.doc));
    await settle();
    const second = await opened(1, empty);
    expect(parts(second.doc)).toBe(0);
    second.commit('two parts', more(more(second.doc)));
    await settle();
    expect(shelf.map((e) => parts(e.doc)).sort()).toEqual([1, 2]);
    // both are gone: the later one comes back, the other is not lost
    held.clear();
    const third = await opened(1, empty);
    expect([parts(third.doc), shelf.length]).toEqual([2, 2]);
  });
  it('goes on without the browser’s store when that is full, and forgets when told', async () => {
    full = true;
    const editor = await opened(1, empty);
    editor.commit('part', more(editor.doc));
    await vi.advanceTimersByTimeAsync(0);
    expect(editor.kept).toBe('never');
    await settle();
    expect(editor.state).toBe('saved');
    full = false;
    editor.commit('part', more(editor.doc));
    editor.forget();
    await settle();
    expect([send.mock.calls.length, shelf.length]).toEqual([1, 0]);
  });
});
