import { formatTemperature, type Method, type UnitSettings } from '@orthos/core';

/** A method's settings in one line. */
export function settingLine(m: Method, units: UnitSettings): string {
  if (m.kind === 'air') return `${formatTemperature(m.set_C, units)}, ${m.flow_L_min} L/min, ${m.standoff_mm} mm`;
  return `${formatTemperature(m.set_C, units)}, ${m.bead_ratio} × alloy, ${m.stroke_s} s`;
}

interface Knob {
  key: string;
  label: string;
  unit: 'temperature' | 'L/min' | 'mm' | 's' | '×' | 'W';
  min: number;
  max: number;
}

/** What can be set per kind of method, with the range the model accepts (°C, mm, s). */
export const KNOBS: Record<Method['kind'], Knob[]> = {
  air: [
    { key: 'set_C', label: 'Set-point', unit: 'temperature', min: 100, max: 550 },
    { key: 'flow_L_min', label: 'Air', unit: 'L/min', min: 2, max: 200 },
    { key: 'nozzle_mm', label: 'Nozzle', unit: 'mm', min: 2, max: 40 },
    { key: 'standoff_mm', label: 'Distance', unit: 'mm', min: 3, max: 120 },
    { key: 'sweep_mm', label: 'Circling', unit: 'mm', min: 0, max: 40 },
    { key: 'limit_s', label: 'Give up after', unit: 's', min: 5, max: 300 },
  ],
  'low-melt': [
    { key: 'set_C', label: 'Iron', unit: 'temperature', min: 150, max: 480 },
    { key: 'bead_ratio', label: 'Alloy, times the solder', unit: '×', min: 0.2, max: 20 },
    { key: 'tip_mm', label: 'Tip width', unit: 'mm', min: 0.5, max: 10 },
    { key: 'power_W', label: 'Iron power', unit: 'W', min: 10, max: 500 },
    { key: 'stroke_s', label: 'Stroking', unit: 's', min: 2, max: 120 },
    { key: 'limit_s', label: 'Give up after', unit: 's', min: 5, max: 300 },
  ],
};
