/** Settings to begin with, by size of the part; the technician changes them in the plan. */
import { LOW_MELT_LEAD_FREE } from '../alloys/index.ts';
import { HAND_FACTOR } from '../thermal/index.ts';
import { packageById, terminalSides } from '../packages/index.ts';
import { reachOf, rowsOf } from './irons.ts';
import {
  UNMARKED_DIAL,
  type AirMethod,
  type IronMethod,
  type LowMeltMethod,
  type Method,
  type StationModel,
} from './method.ts';

/** A station nobody has measured yet. */
export const DEFAULT_STATION: StationModel = {
  efficiency: 0.85,
  efficiencyPlusMinus: 0.05,
  handFactor: HAND_FACTOR,
  handFactorPlusMinus: 0.08,
  ironPlusMinus_K: 15,
  calibrated: false,
};

/** Slow and fast school for a part of this size. */
export function defaultAirMethods(packageId: string): AirMethod[] {
  const { body } = packageById(packageId);
  const size = Math.max(body.l, body.w);
  const nozzle_mm = size < 4 ? 5 : size < 8 ? 8 : 10;
  const common = { kind: 'air' as const, nozzle_mm, sweep_mm: Math.round(size * 0.5 * 10) / 10, limit_s: 150 };
  const wide = size >= 4 ? 1 : 0.45;
  return [
    { ...common, label: 'Air, slow', set_C: 390, flow_L_min: Math.round(45 * wide), standoff_mm: 14 },
    { ...common, label: 'Air, fast', set_C: 450, flow_L_min: Math.round(70 * wide), standoff_mm: 9 },
  ];
}

/** A bead that covers the lands of its row, mm² by the square of their depth; a hand lays no more than so much. */
const BEAD = { perDepth2: 0.6, least: 0.2, most: 1.2 };

/** Round four sides a narrow tip comes back too late: what it left has frozen again. */
function defaultLowMelt(packageId: string, leadFree: boolean): LowMeltMethod {
  const around = terminalSides(packageById(packageId)) > 2;
  const deepest = Math.max(...rowsOf(packageId).map((row) => row.depth_mm), 0);
  return {
    kind: 'low-melt',
    label: 'Low-melt + iron',
    set_C: 320,
    bead_mm3_mm: Math.round(Math.min(BEAD.most, Math.max(BEAD.least, BEAD.perDepth2 * deepest ** 2)) * 100) / 100,
    ...(leadFree ? { alloy: LOW_MELT_LEAD_FREE } : {}),
    tip_mm: around ? 5 : 3,
    contact: 1,
    power_W: 70,
    stroke_s: around ? 40 : 25,
    limit_s: 150,
  };
}

/** Tools for joints as they are, without a bead; none where another is plainly better. */
function defaultIron(packageId: string): IronMethod | undefined {
  const common = { kind: 'iron' as const, contact: 1, tip: 'chisel' as const };
  const { sides, pins } = reachOf(packageId);
  if (pins)
    return {
      ...common,
      label: 'Vacuum iron',
      tool: 'vacuum',
      set_C: 380,
      tip_mm: 2.5,
      power_W: 80,
      dwell_s: 1,
      most_s: 8,
      limit_s: 150,
    };
  if (sides !== 2 || packageById(packageId).terminals.length > 2) return undefined;
  return {
    ...common,
    label: 'Hot tweezers',
    tool: 'tweezers',
    set_C: 350,
    tip_mm: 3,
    power_W: 40,
    dwell_s: 0,
    limit_s: 60,
  };
}

export interface MethodChoice {
  method: Method;
  /** Why this method is not for this part; absent when it is. */
  unfit?: string;
}

/** A method as this station can be set: an unmarked dial goes to its end and no further. */
export function onDial(method: Method, { air }: Pick<StationModel, 'air'>): Method {
  if (method.kind !== 'air' || air !== 'unmarked') return method;
  const within = (flow: number) => Math.min(flow, UNMARKED_DIAL.full_L_min);
  return {
    ...method,
    flow_L_min: within(method.flow_L_min),
    ...(method.stages
      ? { stages: method.stages.map((s) => (s.flow_L_min ? { ...s, flow_L_min: within(s.flow_L_min) } : s)) }
      : {}),
  };
}

/** The methods computed for a part, with the reason where one does not apply; `leadFree`: no lead may come into the joints. */
export function methodsFor(packageId: string, leadFree = false): MethodChoice[] {
  const { terminals } = packageById(packageId);
  const hidden = terminals.some((t) => t.kind === 'ball')
    ? 'the balls under the body'
    : terminals.some((t) => t.kind === 'pad')
      ? 'the pad under the body'
      : undefined;
  const iron = defaultIron(packageId);
  return [
    ...defaultAirMethods(packageId).map((method) => ({ method })),
    ...(iron ? [{ method: iron }] : []),
    {
      method: defaultLowMelt(packageId, leadFree),
      ...(hidden ? { unfit: `an iron cannot reach ${hidden}` } : {}),
    },
  ];
}
