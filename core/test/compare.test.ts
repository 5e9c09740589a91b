/** Suspects without a circuit, by readings beside a good board's: what an expert would say, written down before it was tried. */
import { describe, expect, it } from 'vitest';
import type { PlacedPart } from '../src/board/boardModel.ts';
import { rankByComparison, unplugFirst, type Compared } from '../src/diagnosis/compare.ts';

const part = (ref: string, pack: string, nets: Record<string, string>, what?: string): PlacedPart => ({
  ...{ partId: ref.toLowerCase(), ref, package: pack, x_mm: 10, y_mm: 10, rotation_deg: 0, side: 'top' as const, nets },
  ...(what === undefined ? {} : { what }),
});
const parts = [
  part('J1', 'SOIC-8', { 1: 'VBUS', 2: 'DP', 3: 'DM', 4: 'CC', 5: 'GND' }),
  part('U2', 'SOIC-8', { 1: 'DP', 2: 'DM', 3: 'CC', 4: 'GND' }, 'clamp array'),
  part('U1', 'QFP-44', { 1: 'DP', 2: 'DM', 3: 'CC', 4: '3V3', 5: 'GND', 6: 'SDA' }, 'port chip'),
  part('U3', 'SOIC-8', { 8: '3V3', 4: 'GND', 5: 'SDA' }, 'memory'),
  part('C1', 'C0603', { 1: '3V3', 2: 'GND' }),
  part('C2', 'C0603', { 1: 'VBUS', 2: 'GND' }),
  part('F1', 'R1206', { 1: 'VBUS', 2: 'VIN' }),
  part('D4', 'SMB', { 1: 'VIN', 2: 'GND' }, 'input TVS'),
];
const board = { parts };
const ohm = (net: string, value: Compared['value'], good: Compared['good']): Compared => ({
  net,
  quantity: 'ohm',
  value,
  good,
});
const first = (readings: Compared[], many = 1) =>
  rankByComparison(board, readings)
    .slice(0, many)
    .map((s) => s.ref);

describe('without a circuit', () => {
  it('several lines low that meet on two parts: one of these, the plug pulled first', () => {
    const lows = [ohm('DP', 30, 500e3), ohm('DM', 45, 500e3), ohm('CC', 21, 80e3), ohm('3V3', 1400, 1500)];
    expect(first(lows, 2).sort()).toEqual(['U1', 'U2']);
    expect(unplugFirst(board, lows)).toBe('J1');
  });
  it('lines low together and their supply as well: the chip that has all of them', () => {
    const lows = [ohm('DP', 30, 500e3), ohm('DM', 45, 500e3), ohm('3V3', 6, 1500)];
    expect(first(lows)).toEqual(['U1']);
  });
  it('a few of its lines spared speak less against a chip than for what stands on one line alone', () => {
    const lows = [ohm('DP', 30, 500e3), ohm('DM', 45, 500e3), ohm('CC', 79e3, 80e3), ohm('3V3', 1450, 1500)];
    expect(first(lows, 2).sort()).toEqual(['U1', 'U2']);
  });
  it('one line on no plug: nothing to unplug, its chips', () => {
    const lows = [ohm('SDA', 4, 4700), ohm('3V3', 1450, 1500)];
    expect(first(lows, 2).sort()).toEqual(['U1', 'U3']);
    expect(unplugFirst(board, lows)).toBeNull();
  });
  it('nothing behind the fuse: the fuse; a supply that reads low behind it: the clamp', () => {
    expect(first([ohm('VIN', 'OL', 20e3), ohm('VBUS', 40e3, 40e3)], 2)).toContain('F1');
    expect(first([ohm('VIN', 0.6, 20e3), ohm('VBUS', 0.8, 40e3)])).toEqual(['D4']);
  });
});
