/** A picture that is moved and zoomed: by wheel, by dragging, by two fingers. */
import type { Attachment } from 'svelte/attachments';

/** Where a picture lies: its scale, and where its origin is in the element, px. */
export interface Lie {
  k: number;
  x: number;
  y: number;
}

export interface Zoomed {
  get: () => Lie;
  set: (lie: Lie) => void;
  /** Least and greatest scale. */
  scales: [number, number];
  /** A press that is somebody else's: a tool's, the ruler's. */
  leaves?: (event: Event) => boolean;
}

/** Makes an element zoom; what does it comes when the page is there, and is no part of what a page waits for. */
export const zoomable =
  (zoomed: Zoomed): Attachment<HTMLElement | SVGSVGElement> =>
  (element) => {
    let end: (() => void) | undefined;
    let gone = false;
    import('./followZoom.svelte').then(
      ({ followZoom }) => {
        if (!gone) end = followZoom(element, zoomed);
      },
      // without a server keys still move and zoom
      () => {},
    );
    return () => {
      gone = true;
      end?.();
    };
  };
