/** How hot air is set, as a form asks for it. */
import { RANGES } from '../../ranges.ts';
import type { Form } from '../declaration.ts';

const { air } = RANGES;

/** What changes with a stage. */
const STAGE = ['stages.0.standoff_mm', 'stages.0.set_C', 'stages.0.flow_L_min'];

export const form: Form = {
  usual: [
    { key: 'set_C', label: 'Set-point', unit: 'temperature', dial: 'air', range: air.set_C },
    { key: 'flow_L_min', label: 'Air', unit: 'L/min', range: air.flow_L_min },
    { key: 'nozzle_mm', label: 'Nozzle', unit: 'mm', range: air.nozzle_mm },
    { key: 'standoff_mm', label: 'Distance', unit: 'mm', range: air.standoff_mm },
    { key: 'sweep_mm', label: 'Hand moves', unit: 'mm', range: air.sweep_mm },
    { key: 'stages.0.from_s', label: 'Stage 2 from', unit: 's', range: air.from_s, optional: true },
    { key: 'stages.0.standoff_mm', label: 'Stage 2 at', unit: 'mm', range: air.standoff_mm, optional: true },
  ],
  moreTitle: 'Path, stage 2, lean, mouth, pulses',
  more: [
    { key: 'sweep_deg', label: 'in a line at', unit: '°', range: air.sweep_deg, optional: true, hint: 'in a circle' },
    {
      key: 'stages.0.set_C',
      label: 'Stage 2 set-point',
      unit: 'temperature',
      dial: 'air',
      range: air.set_C,
      optional: true,
    },
    { key: 'stages.0.flow_L_min', label: 'Stage 2 air', unit: 'L/min', range: air.flow_L_min, optional: true },
    { key: 'tilt_deg', label: 'Nozzle leans', unit: '°', range: air.tilt_deg, optional: true },
    {
      key: 'approach_deg',
      label: 'leaning from',
      unit: '°',
      range: air.approach_deg,
      optional: true,
      hint: '0 right, 90 up',
    },
    {
      key: 'mouth.kind',
      label: 'Mouth',
      choices: [
        ['', 'round'],
        ['slot', 'wide open'],
        ['rim', 'holes round its rim'],
      ],
    },
    { key: 'mouth.w_mm', label: 'Mouth, wide', unit: 'mm', range: air.mouth_mm, optional: true },
    { key: 'mouth.h_mm', label: 'Mouth, high', unit: 'mm', range: air.mouth_mm, optional: true },
    { key: 'pulse.on_s', label: 'Pulses: on', unit: 's', range: air.pulse_s, optional: true },
    { key: 'pulse.off_s', label: 'Pulses: off', unit: 's', range: air.pulse_s, optional: true },
  ],
  missing(texts) {
    const empty = (key: string) => (texts[key] ?? '').trim() === '';
    const issues: Record<string, string> = {};
    const all = (keys: string[], words: string) => {
      for (const key of keys.filter(empty)) issues[key] = words;
    };
    const pulse = ['pulse.on_s', 'pulse.off_s'];
    if (!pulse.every(empty)) all(pulse, 'both, or both empty');
    if (!empty('mouth.kind')) all(['mouth.w_mm', 'mouth.h_mm'], 'its size');
    if (!STAGE.every(empty)) all(['stages.0.from_s'], 'when it begins');
    else if (!empty('stages.0.from_s')) issues[STAGE[0]] = 'what changes then: distance, set-point or air';
    return issues;
  },
  tidy(settings) {
    const stages = (settings.stages as object[] | undefined)?.filter((s) => Object.keys(s).length > 1);
    if (stages?.length) settings.stages = stages;
    else delete settings.stages;
    if (settings.pulse && Object.keys(settings.pulse).length === 0) delete settings.pulse;
    if (!settings.tilt_deg) delete settings.approach_deg;
    if (settings.mouth && !('kind' in (settings.mouth as object))) delete settings.mouth;
  },
};
