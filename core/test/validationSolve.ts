/** Runs a heat case and reads its probes and its energy balance. */
import { parseInput } from '../src/ground/calc.ts';
import { runHeatField } from '../src/thermal/field.ts';
import { heatFieldInput } from '../src/thermal/fieldForm.ts';

interface ValidationRow {
  probe: string;
  computed: number;
  exact: number;
  /** What an error is compared with: the case's temperature rise, or the exact time. */
  scale: number;
}
export interface ValidationCase {
  name: string;
  formula: string;
  rows: ValidationRow[];
  /** (input - stored - lost) / larger of input and stored. */
  energy: number;
}

/** `content_J`: heat in the case at the start, for closed cases without input. */
export async function solve(input: unknown, content_J = 0) {
  const result = await runHeatField(parseInput(heatFieldInput, input), { now: () => 0 });
  const value = (name: string) => {
    const probe = result.probes.find((p) => p.name === name);
    if (probe?.value === null || probe?.value === undefined) throw new Error(`no value for ${name}`);
    return probe.value;
  };
  const { input_J, stored_J, lost_J } = result.energy;
  const energy = Math.abs(input_J - stored_J - lost_J) / Math.max(Math.abs(input_J), Math.abs(stored_J), content_J);
  return { value, energy };
}
