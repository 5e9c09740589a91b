/** What has to lie within reach before heat, and what each tool must be set to. */
import { writeComposition } from '../alloys/index.ts';
import type { LayOut } from './forms.ts';
import { dialOf, type JointState, type Method, type StationModel } from '../rework/index.ts';

/** `solder`: what lands are flooded with (`floodSolder`); `joints`: what the plan says is worked into them. */
export function layOutFor(
  method: Method,
  station: Pick<StationModel, 'air'>,
  solder = 'leaded solder',
  joints: readonly JointState[] = [],
): LayOut {
  const alloys = [...new Set(joints.flatMap((j) => (j.with ?? []).map((w) => writeComposition(w.alloy))))];
  const common = [
    ...alloys.map((name) => `${name} to work in, and an iron for it`),
    'flux',
    'tweezers',
    'braid',
    solder,
    'alcohol and wipes',
    'heat-proof rest for the part',
  ];
  if (method.kind === 'air') {
    const flow = dialOf(method.flow_L_min, station);
    return {
      tools: [...common, `nozzle ${method.nozzle_mm} mm`],
      setPoints: [
        { id: 'air', label: 'air temperature', value: method.set_C, unit: '°C', tolerance: 5 },
        { id: 'flow', label: 'air flow', ...flow, tolerance: Math.max(2, 0.05 * flow.value) },
      ],
    };
  }
  const own: string[] =
    method.kind === 'low-melt'
      ? ['alloy of the bead and its flux', ...(method.irons === 2 ? ['a second iron'] : [])]
      : [method.tool === 'tweezers' ? 'hot tweezers' : 'vacuum iron'];
  return {
    tools: [...common, ...own, `tip ${method.tip_mm} mm`],
    setPoints: [{ id: 'iron', label: 'iron temperature', value: method.set_C, unit: '°C', tolerance: 5 }],
  };
}
