/** Ties an element's gestures and a picture's lie together, both ways. Loaded by `zoomable`, and used by nobody else. */
import { type D3ZoomEvent, select, zoom, zoomIdentity, zoomTransform } from 'd3';
import type { Zoomed } from './zoom';

export function followZoom(element: HTMLElement | SVGSVGElement, { get, set, scales, leaves }: Zoomed): () => void {
  const behaviour = zoom<HTMLElement | SVGSVGElement, unknown>()
    .scaleExtent(scales)
    // a touch screen may be plugged in later
    .touchable(true)
    // two fingers on a pad come as small turns of a wheel with Ctrl; a wheel's own notch is large enough
    .wheelDelta((e) => -e.deltaY * (e.deltaMode ? 0.05 : 0.002) * (e.ctrlKey && Math.abs(e.deltaY) < 50 ? 10 : 1))
    .filter((event: MouseEvent) => (event.type === 'wheel' || !event.button) && !leaves?.(event))
    .on('zoom', ({ sourceEvent, transform: { k, x, y } }: D3ZoomEvent<HTMLElement | SVGSVGElement, unknown>) => {
      // moved by hand, not by the line below
      if (sourceEvent) set({ k, x, y });
    });
  const selection = select(element).call(behaviour).on('dblclick.zoom', null);
  const stop = $effect.root(() => {
    $effect(() => {
      const { k, x, y } = get();
      const now = zoomTransform(element);
      if (now.k !== k || now.x !== x || now.y !== y)
        behaviour.transform(selection, zoomIdentity.translate(x, y).scale(k));
    });
  });
  return () => {
    stop();
    selection.on('.zoom', null);
  };
}
