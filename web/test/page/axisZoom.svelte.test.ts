// The axis of a chart, drawn out: what is seen, how far it goes, and which gestures stay the page's.
import { scaleLinear } from 'd3';
import { describe, expect, it, vi } from 'vitest';
import type { Zoomed } from '../../src/lib/ui/zoom';

let zoomed!: Zoomed;
vi.mock('../../src/lib/ui/zoom', () => ({ zoomable: (z: Zoomed) => ((zoomed = z), () => {}) }));
const { AxisZoom } = await import('../../src/lib/ui/axisZoom.svelte.ts');

const wheel = (ctrlKey: boolean) => new WheelEvent('wheel', { ctrlKey });
const touch = (fingers: number) => Object.assign(new Event('touchstart'), { touches: Array.from({ length: fingers }) });

describe('the axis of a chart', () => {
  const axis = () => {
    const zoom = new AxisZoom(() => [50, 450]);
    const svg = document.createElementNS('http://www.w3.org/2000/svg', 'svg');
    zoom.gestures(svg);
    return { zoom, svg, seen: () => zoom.seen(scaleLinear([0, 100], [50, 450])).domain() };
  };
  it('shows all of it at first, then the part that was drawn out', () => {
    const { zoom, seen } = axis();
    expect([seen(), zoom.close]).toEqual([[0, 100], false]);
    // about the middle: 250 stays where it is
    zoomed.set({ k: 4, x: 250 - 4 * 250, y: 7 });
    expect([seen(), zoom.close]).toEqual([[37.5, 62.5], true]);
  });
  it('never goes beyond its ends', () => {
    const { seen } = axis();
    zoomed.set({ k: 2, x: 9999, y: 0 });
    expect(seen()).toEqual([0, 50]);
    zoomed.set({ k: 2, x: -9999, y: 0 });
    expect(seen()).toEqual([50, 100]);
  });
  it('is whole again after a double click', () => {
    const { svg, seen } = axis();
    zoomed.set({ k: 5, x: -400, y: 0 });
    svg.dispatchEvent(new MouseEvent('dblclick'));
    expect(seen()).toEqual([0, 100]);
  });
  it('leaves the plain wheel to the page, and one finger until it is close', () => {
    axis();
    const leaves = (event: Event) => zoomed.leaves?.(event);
    expect([wheel(false), wheel(true), touch(1), touch(2), new MouseEvent('mousedown')].map(leaves)).toEqual([
      ...[true, false, true, false, true],
    ]);
    zoomed.set({ k: 3, x: -200, y: 0 });
    expect([touch(1), new MouseEvent('mousedown'), wheel(false)].map(leaves)).toEqual([false, false, true]);
  });
});
