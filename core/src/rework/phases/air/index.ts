/** Hot air from above: slow or fast, from afar, in stages, pulses, lines or circles, leaning. */
import { dialOf, flowText, setText, UNMARKED_DIAL } from '../../dials.ts';
import { RANGES, within } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { type AirSettings, airSettings } from './settings.ts';

/** What flow may be off by where no station says it, as a share, and how far a hand wavers, mm (estimates). */
const FLOW = 0.1;
const WOBBLE_MM = 2;

/** The settings with one of them changed, in every stage that sets it. */
function throughout(
  settings: AirSettings,
  key: 'flow_L_min' | 'standoff_mm',
  change: (value: number) => number,
): Partial<AirSettings> {
  const { stages } = settings;
  return {
    [key]: change(settings[key]),
    ...(stages ? { stages: stages.map((s) => ({ ...s, ...(s[key] ? { [key]: change(s[key]) } : {}) })) } : {}),
  };
}

/** Air as a dial without L/min can be set: to its end and no further. */
export const upTo = (full_L_min: number, settings: AirSettings): AirSettings => ({
  ...settings,
  ...throughout(settings, 'flow_L_min', (flow) => Math.min(flow, full_L_min)),
});

type Mouth = NonNullable<AirSettings['mouth']>;
/** Nozzles that are no round hole, as they lie in the drawer. */
const MOUTHS: Record<Mouth['kind'], (mouth: Mouth, bore_mm: number) => string> = {
  slot: ({ w_mm, h_mm }) => `nozzle with an open mouth of ${w_mm} × ${h_mm} mm`,
  rim: ({ w_mm, h_mm }, bore_mm) => `nozzle with holes of ${bore_mm} mm round a rim of ${w_mm} × ${h_mm} mm`,
};

export const air = definePhase<'air', AirSettings>({
  kind: 'air',
  name: 'Air',
  settings: airSettings,
  tool: 'air',
  wants: () => [
    { tool: 'air', name: 'hot-air station' },
    { tool: 'flux', name: 'flux' },
  ],
  onBench: (s, bench) => bench.air(s),
  limbs: () => ({ left: 'tweezers, open, beside the part', right: 'air handle' }),
  line(m, panel) {
    const then = (m.stages ?? []).map(
      (s) =>
        `, ${[
          s.standoff_mm === undefined ? '' : `${s.standoff_mm} mm`,
          s.set_C === undefined ? '' : setText(s.set_C, 'air', panel),
          s.flow_L_min === undefined ? '' : flowText(s.flow_L_min, panel),
          s.sweep_mm === undefined ? '' : `circling ${s.sweep_mm} mm`,
        ]
          .filter(Boolean)
          .join(' ')} from ${s.from_s} s`,
    );
    const more = [
      m.sweep_deg === undefined ? '' : 'in a line',
      m.pulse ? 'pulsed' : '',
      m.tilt_deg ? `leaning ${m.tilt_deg}°` : '',
      m.mouth ? `${m.mouth.kind}` : '',
    ];
    const rest = more.filter(Boolean).join(', ');
    return `${setText(m.set_C, 'air', panel)}, ${flowText(m.flow_L_min, panel)}, ${m.standoff_mm} mm${then.join('')}${rest ? `, ${rest}` : ''}`;
  },
  irons: () => [],
  fromAbove: true,
  bridges: false,
  uncertain: [
    {
      name: 'temperature of the station',
      station: (s, z) => ({
        efficiency: within(s.efficiency + z * s.efficiencyPlusMinus, RANGES.station.efficiency),
      }),
    },
    {
      name: 'flow of the station',
      settings: (s, z, station) => {
        const by = station.air === 'unmarked' ? UNMARKED_DIAL.within ** z : 1 + z * (station.flowPlusMinus ?? FLOW);
        return throughout(s, 'flow_L_min', (flow) => within(flow * by, RANGES.air.flow_L_min));
      },
    },
    {
      name: 'hand on the nozzle',
      station: (s, z) => ({
        handFactor: within(s.handFactor + z * s.handFactorPlusMinus, RANGES.station.handFactor),
      }),
    },
    {
      name: 'distance of the nozzle',
      settings: (s, z) => throughout(s, 'standoff_mm', (mm) => within(mm + z * WOBBLE_MM, RANGES.air.standoff_mm)),
    },
  ],
  needs({ set_C, flow_L_min, nozzle_mm, mouth }, station) {
    const flow = dialOf(flow_L_min, station);
    return {
      tools: [mouth ? MOUTHS[mouth.kind](mouth, nozzle_mm) : `nozzle ${nozzle_mm} mm`],
      setPoints: [
        { id: 'air', label: 'air temperature', value: set_C, unit: '°C', tolerance: 5, dial: 'air' },
        { id: 'flow', label: 'air flow', ...flow, tolerance: Math.max(2, 0.05 * flow.value) },
      ],
    };
  },
  // handle out of its stand and over the part; the station runs since the lay-out
  change_s: 5,
  cautions: [
    {
      steps: ['remove', 'fit'],
      text: 'Hot air burns skin and lights alcohol: cap bottles, keep freeze and duster spray away.',
    },
    {
      steps: ['remove', 'prepare', 'fit'],
      text: 'Fluoropolymer sleeves and wire give off fumes from 300 °C that make you ill a day later: out of the air with them.',
    },
  ],
  wayOut: 'More air, a higher set-point or a shorter distance would change that, warming from below most of all.',
  spare: 'Cover it, turn the nozzle away from it,',
});
