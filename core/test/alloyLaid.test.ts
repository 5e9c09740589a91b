import { describe, expect, it } from 'vitest';
import { alloyAmount, density_g_cm3, SOLDER_ALLOYS } from '../src/alloys/index.ts';
import { alloyLaid, methodsFor, phaseOf, rowsOf, solderOf } from '../src/rework/index.ts';

const SAC = SOLDER_ALLOYS.get('SAC305')?.wt ?? {};
const way = (pkg: string, id: string) => {
  const found = methodsFor(pkg).find((m) => m.method.id === id);
  if (!found) throw new Error(id);
  return found.method;
};

describe('alloy in hands’ units', () => {
  it('is a bead of wire along every row, with the mass that the calculator gives the same bead', () => {
    for (const pkg of ['SOIC-8', 'QFP-44', 'SOIC-28W']) {
      const method = way(pkg, 'alloy-then-air');
      const bead = phaseOf(method, 'alloy')?.settings.bead_mm3_mm ?? NaN;
      const laid = alloyLaid(method, pkg, SAC, 230);
      if (!laid) throw new Error(pkg);
      expect(laid.rows_mm).toHaveLength(rowsOf(pkg).length);
      const [first] = rowsOf(pkg);
      expect(laid.rows_mm[0]).toBeCloseTo((first.length_mm * bead) / (Math.PI / 4), 9);
      const told = alloyAmount(laid.asked);
      if (!told.reachable) throw new Error(told.why);
      expect(told.bead?.mass_mg).toBeCloseTo(laid.mass_mg, 6);
      // and the length of wire weighs what the bead does
      const wire_mm3 = laid.rows_mm.reduce((a, b) => a + b, 0) * (Math.PI / 4);
      expect(wire_mm3 * density_g_cm3(laid.alloy)).toBeCloseTo(laid.mass_mg, 6);
      expect(laid.asked.joint.mass_mg).toBeCloseTo(solderOf(pkg, SAC).mass_mg, 9);
    }
  });
  it('speaks of the wire that lies on the bench', () => {
    const method = structuredClone(way('SOIC-8', 'alloy-then-air'));
    const phase = phaseOf(method, 'alloy');
    if (!phase) throw new Error('no alloy');
    const thick = alloyLaid(method, 'SOIC-8', SAC, 230);
    phase.settings.wire_mm = 0.5;
    const thin = alloyLaid(method, 'SOIC-8', SAC, 230);
    expect(thin?.mass_mg).toBe(thick?.mass_mg);
    expect((thin?.rows_mm[0] ?? 0) / (thick?.rows_mm[0] ?? 1)).toBeCloseTo(4, 9);
  });
  it('is nothing where none is laid', () => {
    expect(alloyLaid(way('SOIC-8', 'air-slow'), 'SOIC-8', SAC, 230)).toBeNull();
    expect(alloyLaid(way('SOIC-8', 'spike-then-air'), 'SOIC-8', SAC, 230)).toBeNull();
  });
});
