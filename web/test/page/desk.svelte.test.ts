import { flushSync } from 'svelte';
import { describe, expect, it } from 'vitest';
import { type Callout, Desk } from '../../src/lib/jobs/desk.svelte.ts';

const callout = (id: string): Callout => ({
  id,
  x_mm: 1,
  y_mm: 2,
  side: 'top',
  title: id,
  detail: '',
  tone: 'hot',
});
const ids = (desk: Desk) => desk.over.callouts.map((c) => c.id);

describe('what panels lay over the board', () => {
  it('is seen from the topmost that has any, and the one below comes back when it goes', () => {
    const desk = new Desk();
    const panel = desk.over.add();
    const tab = desk.over.add();
    panel.sheet = { callouts: [callout('reading')], marked: { partId: 'u1', terminal: '4' } };
    expect(ids(desk)).toEqual(['reading']);
    tab.sheet = { callouts: [callout('short')] };
    expect(ids(desk)).toEqual(['short']);
    expect(desk.over.marked).toEqual({ partId: 'u1', terminal: '4' });
    // what lies below may change without coming up
    panel.sheet = { callouts: [callout('newer')] };
    expect(ids(desk)).toEqual(['short']);
    expect(desk.over.marked).toBeUndefined();
    desk.over.remove(tab);
    expect(ids(desk)).toEqual(['newer']);
    desk.over.remove(panel);
    expect(ids(desk)).toEqual([]);
  });
  it('tells whoever looks when it changes', () => {
    const desk = new Desk();
    const slot = desk.over.add();
    const seen: number[] = [];
    const stop = $effect.root(() => {
      $effect(() => {
        seen.push(desk.over.callouts.length);
      });
    });
    flushSync();
    slot.sheet = { callouts: [callout('a'), callout('b')] };
    flushSync();
    desk.over.remove(slot);
    flushSync();
    stop();
    expect(seen).toEqual([0, 2, 0]);
  });
  it('a part is shown on its side', () => {
    const desk = new Desk();
    desk.show({ partId: 'c9', side: 'bottom' });
    expect([desk.side, desk.selected]).toEqual(['bottom', 'c9']);
  });
});
