/** What the demo shop has learnt to do first, and what good units draw while they start. */
import type { BoardModel } from '@orthos/core/board';
import type { RoutineStep } from '@orthos/core/diagnosis';
import type { SupplyPoint } from '@orthos/core/job';
import { lodestar } from './lodestar.ts';
import { quillon } from './quillon.ts';
import { ternT2 } from './ternT2.ts';

export const goodStartUps: { board: BoardModel; unit: string; stages: SupplyPoint[] }[] = [
  {
    board: ternT2,
    unit: 'T2-30002',
    stages: [
      { stage: 'connected', at_s: 0, current_A: 0.004, limit_A: 0.25 },
      { stage: 'switched on', at_s: 3, current_A: 0.061, limit_A: 0.25 },
      { stage: 'running', at_s: 6, current_A: 0.038, limit_A: 0.25 },
      { stage: 'asleep', at_s: 20, current_A: 0.003, limit_A: 0.25 },
    ],
  },
  {
    board: quillon,
    unit: 'Q-90001',
    stages: [
      { stage: 'connected', at_s: 0, current_A: 0.011, limit_A: 0.5 },
      { stage: 'bus awake', at_s: 2, current_A: 0.085, limit_A: 0.5 },
      { stage: 'asleep', at_s: 30, current_A: 0.002, limit_A: 0.5 },
    ],
  },
];

const ohms = (red: string, least: number | null, most: number | null): RoutineStep['reading'] => ({
  type: 'ohm',
  red,
  black: '',
  state: null,
  least,
  most,
});

export const demoRoutines: { name: string; boards: BoardModel[]; steps: RoutineStep[] }[] = [
  {
    name: 'Display, first look',
    boards: [ternT2],
    steps: [
      { id: 'glass', says: 'Unplug the glass, look under J3' },
      { id: 'r36', says: '36 V rail', reading: ohms('36V', 2000, null) },
      { id: 'r5', says: '5 V rail', reading: ohms('5V', 1000, null) },
      { id: 'r33', says: '3.3 V rail', reading: ohms('3V3', 800, null) },
      {
        id: 'v33',
        says: '3.3 V awake, glass unplugged',
        reading: { type: 'dcv', red: '3V3', black: '', state: 'awake', least: 3.2, most: 3.4 },
      },
      { id: 'keys', says: 'Each button clicks and closes' },
    ],
  },
  {
    name: 'Car modules, first look',
    boards: [quillon, lodestar],
    steps: [
      { id: 'green', says: 'Green crust in the plug, under the coating' },
      { id: 'in', says: '12 V behind the input diode', reading: ohms('12V', 500, null) },
      { id: 'five', says: '5 V rail', reading: ohms('5V', 300, null) },
      { id: 'earth', says: 'Plug pins to ground: two alike mean a track, not a part' },
    ],
  },
];
