/** Kinds of tool as the kit lists them. */
import type { KitTool } from '@orthos/core/rework';

/** One field of a tool's form. */
export interface ToolField {
  key: string;
  label: string;
  value: string;
  unit?: string;
  hint?: string;
  choices?: Record<string, string>;
  /** Takes two columns. */
  wide?: true;
}

/** One tool as a page has it. */
export interface ToolView {
  id: string;
  kind: KitTool;
  name: string;
  bench: string;
  version: number;
  outOfOrder: boolean;
  calibrated: boolean;
  /** Past the day it is good until. */
  expired: boolean;
  line: string;
  fields: ToolField[];
}

/** Groups of a bench, in the order in which they are asked for, with what may be added to each. */
export const GROUPS: readonly { title: string; kinds: Partial<Record<KitTool, string>> }[] = [
  { title: 'Air', kinds: { air: 'air station' } },
  {
    title: 'Irons',
    kinds: { iron: 'iron', tweezers: 'hot tweezers', vacuum: 'vacuum iron', pump: 'solder pump' },
  },
  { title: 'From below', kinds: { below: 'plate, infrared or warm air' } },
  { title: 'Solder and flux', kinds: { wire: 'wire', paste: 'paste', flux: 'flux', braid: 'braid' } },
  {
    title: 'Covers and hand tools',
    kinds: { cover: 'tape, foil, strip', blade: 'blade', pliers: 'cutters and pliers', spring: 'light spring' },
  },
  { title: 'Holding and looking', kinds: { fixture: 'frame or props', camera: 'microscope camera' } },
];

/** How a tool stands, in a word with its shape; nothing to say of most. */
export function standingOf({ outOfOrder, expired, kind, calibrated }: ToolView): { text: string; tone: string } | null {
  if (outOfOrder) return { text: '▲ out of order', tone: 'text-stop' };
  if (expired) return { text: '◆ past its date', tone: 'text-caution' };
  if (kind !== 'air' && kind !== 'iron') return null;
  return calibrated ? { text: '● calibrated', tone: 'text-good' } : { text: '◆ uncalibrated', tone: 'text-caution' };
}
