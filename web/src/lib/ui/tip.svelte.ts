import type { Attachment } from 'svelte/attachments';

/** Whose words show, and which. */
export interface Tip {
  at: HTMLElement;
  words: string;
}
let shown = $state.raw<Tip | null>(null);

/** What shows now: one at a time, drawn by the page's frame. */
export const tipShown = (): Tip | null => shown;
export const hideTip = (): void => {
  shown = null;
};

/** ms that a pointer rests before words show; the focus shows them at once. */
const REST_MS = 500;

/** Words about a control, shown while a pointer rests on it or it has the focus; none where there are none to say. */
export function tip(words: string | undefined): Attachment<HTMLElement> {
  return (at) => {
    if (!words) return;
    let resting: ReturnType<typeof setTimeout> | undefined;
    const show = () => (shown = { at, words });
    const hide = () => {
      clearTimeout(resting);
      if (shown?.at === at) shown = null;
    };
    const handlers: [keyof HTMLElementEventMap, (e: Event) => void][] = [
      // a finger has no way to rest
      ['pointerenter', (e) => (e as PointerEvent).pointerType !== 'touch' && (resting = setTimeout(show, REST_MS))],
      ['pointerleave', hide],
      ['pointerdown', hide],
      ['focusin', (e) => (e.target as Element).matches(':focus-visible') && show()],
      ['focusout', hide],
    ];
    for (const [name, handle] of handlers) at.addEventListener(name, handle);
    return () => {
      hide();
      for (const [name, handle] of handlers) at.removeEventListener(name, handle);
    };
  };
}
