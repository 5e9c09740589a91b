import { describe, expect, it } from 'vitest';
import {
  dialOf,
  flowAt,
  heatAt,
  heatOnDial,
  type Panel,
  readHeatDial,
  setText,
  writeHeatDial,
} from '../src/rework/index.ts';

const C: Panel = { temperature: 'C', length: 'mm' };
const F: Panel = { temperature: 'F', length: 'mm' };
const table = readHeatDial('1=200 5=350 10=480') ?? undefined;

describe('temperature dials', () => {
  it('say what is set in the user’s degrees where they tell the truth', () => {
    expect(setText(390, 'air', C)).toBe('390 °C');
    expect(setText(390, 'iron', F)).toBe('734 °F');
  });
  it('that read so much beside the truth are turned to what they read', () => {
    const panel = { ...C, dials: { iron: readHeatDial('−10') ?? undefined } };
    expect(setText(350, 'iron', panel)).toBe('340 °C');
    expect(heatAt(340, 'iron', panel)).toBe(350);
    // 10 K are 18 °F
    expect(setText(350, 'iron', { ...panel, temperature: 'F' })).toBe('644 °F');
    // the other tool has a dial of its own
    expect(setText(350, 'air', panel)).toBe('350 °C');
  });
  it('with numbers of their own go straight between them, and on beyond', () => {
    const panel = { ...F, dials: { air: table } };
    expect(heatOnDial(350, 'air', panel)).toEqual({ value: 5, unit: 'of its dial' });
    expect(setText(275, 'air', panel)).toBe('dial 3');
    expect(setText(500, 'air', panel)).toBe('dial 10.8');
    expect(heatAt(0, 'air', panel)).toBeCloseTo(162.5, 9);
    for (let set = 120; set <= 540; set += 7) {
      const { value } = heatOnDial(set, 'air', panel);
      // a dial is read to a tenth
      expect(Math.abs(heatAt(value, 'air', panel) - set)).toBeLessThan(0.05 * 37.5 + 1e-9);
    }
  });
  it('are read as typed, and written the same', () => {
    for (const text of ['', '-10', '+7.5', '1=200 5=350 10=480'])
      expect(writeHeatDial(readHeatDial(text) ?? undefined)).toBe(text);
    expect(readHeatDial('0')).toBeUndefined();
    expect(readHeatDial('1 = 200; 10 = 480')).toEqual({
      table: [
        [1, 200],
        [10, 480],
      ],
    });
    for (const bad of ['ten', '1=200', '1=200 1=300', '1=300 2=200', '+500', '1=200 2', '1=900 2=950'])
      expect(readHeatDial(bad), bad).toBeNull();
  });
});

describe('air dials', () => {
  it('without L/min are in percent of their full end, known or not', () => {
    expect(dialOf(45, {})).toEqual({ value: 45, unit: 'L/min' });
    expect(dialOf(45, { air: 'unmarked' })).toEqual({ value: 75, unit: '%' });
    expect(dialOf(45, { air: 90 })).toEqual({ value: 50, unit: '%' });
    expect(flowAt(50, { air: 90 })).toBe(45);
  });
});
