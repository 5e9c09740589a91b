import { describe, expect, it } from 'vitest';
import type { Command } from '../../src/lib/ui/palette.svelte.ts';
import { fits, ordered } from '../../src/lib/ui/paletteOrder.ts';

const command = (group: Command['group'], title: string, words = ''): Command => ({
  group,
  title,
  words,
  run: () => {},
});
const U3 = command('part', 'U3 motor driver', 'QFP-44');
const C1 = command('part', 'C1 bulk', 'CAN-8');
const C14 = command('part', 'C14 4.7 µF', 'C0805');
const KIT = command('place', 'Kit');
const MELT = command('calculator', 'Melt time');
const JOB = command('job', 'No. 12 Quillon 12 V module', 'motor dead 12');
const all = [MELT, JOB, KIT, C1, C14, U3];
const titles = (search: string) => ordered(all, search).flatMap((g) => g.commands.map((c) => c.title));

describe('what the palette finds', () => {
  it('shows the board on the bench first, whatever fits better elsewhere', () => {
    expect(ordered(all, '').map((g) => g.title)).toEqual(['On this board', 'Places', 'Jobs', 'Calculators']);
    expect(titles('m')).toEqual(['U3 motor driver', 'No. 12 Quillon 12 V module', 'Melt time']);
  });
  it('puts the very part before one that begins like it', () => {
    expect(titles('c1')).toEqual(['C1 bulk', 'C14 4.7 µF']);
    expect(titles('C14')[0]).toBe('C14 4.7 µF');
  });
  it('finds parts by their package as people type it', () => {
    for (const said of ['qfp 44', 'qfp44', 'QFP-44', '44 qfp']) expect(titles(said), said).toEqual(['U3 motor driver']);
    expect(titles('0805')).toEqual(['C14 4.7 µF']);
  });
  it('asks for every word', () => {
    expect(fits(U3, 'motor dead')).toBe(0);
    expect(fits(JOB, 'dead motor')).toBeGreaterThan(0);
    expect(titles('zz99')).toEqual([]);
  });
  it('keeps a list short', () => {
    const many = Array.from({ length: 50 }, (_, n) => command('part', `R${n + 1}`));
    expect(ordered(many, 'r')[0].commands).toHaveLength(12);
  });
});
