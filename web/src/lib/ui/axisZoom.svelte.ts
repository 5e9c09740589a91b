/** The upright-lined axis of a chart, drawn out: Ctrl and wheel or two fingers stretch it, dragging moves it, a double click shows all of it again. */
import type { ScaleLinear } from 'd3';
import type { Attachment } from 'svelte/attachments';
import { type Lie, zoomable } from './zoom';

const WHOLE: Lie = { k: 1, x: 0, y: 0 };
const CLOSEST = 40;

export class AxisZoom {
  private lie = $state.raw(WHOLE);
  private readonly ends: () => readonly [number, number];

  /** `ends`: where the axis begins and ends in the drawing. */
  constructor(ends: () => readonly [number, number]) {
    this.ends = ends;
  }

  /** Less than all of it is seen. */
  get close(): boolean {
    return this.lie.k > 1;
  }

  /** The part of a scale that is seen, over the whole axis. */
  seen(scale: ScaleLinear<number, number>): ScaleLinear<number, number> {
    const { k, x } = this.lie;
    const [from, to] = this.ends();
    return scale.copy().domain([from, to].map((px) => scale.invert((px - x) / k)));
  }

  whole(): void {
    this.lie = WHOLE;
  }

  /** Of the drawing. A page is scrolled over it as anywhere; what is whole cannot be moved. */
  readonly gestures: Attachment<SVGSVGElement> = (svg) => {
    const whole = () => this.whole();
    svg.addEventListener('dblclick', whole);
    const end = zoomable({
      get: () => this.lie,
      set: ({ k, x }) => {
        const [from, to] = this.ends();
        this.lie = { k, x: Math.min(from * (1 - k), Math.max(to * (1 - k), x)), y: 0 };
      },
      scales: [1, CLOSEST],
      leaves: (event) => {
        if (event.type === 'wheel') return !(event as WheelEvent).ctrlKey;
        return !this.close && !((event as TouchEvent).touches?.length > 1);
      },
    })(svg);
    return () => {
      svg.removeEventListener('dblclick', whole);
      end?.();
    };
  };
}
