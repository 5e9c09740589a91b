/** A bead of solder dragged along each row with one tip. */
import { setText } from '../../dials.ts';
import { definePhase } from '../declaration.ts';
import { atJoints } from '../joint/declared.ts';
import { type DragSettings, dragSettings } from './settings.ts';

export const drag = definePhase<'drag', DragSettings>({
  ...atJoints,
  kind: 'drag',
  name: 'Dragged along the rows',
  settings: dragSettings,
  onBench: (s, bench) => bench.tip(s),
  line: ({ set_C, mm_s }, panel) => `${setText(set_C, 'iron', panel)}, ${mm_s} mm a second`,
});
