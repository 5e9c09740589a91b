import { describe, expect, it } from 'vitest';
import { kitSchema } from '../src/rework/kitForm.ts';
import {
  BENCHES,
  type BenchKind,
  isDoable,
  kindOf,
  type KitItem,
  methodsOn,
  mainPhase,
  phaseOf,
  USUAL,
} from '../src/rework/index.ts';

const bench = (kind: BenchKind): KitItem[] => BENCHES[kind].items.map((i) => i.spec);
const on = (kit: KitItem[] | undefined, pkg = 'SOIC-8', more = {}) => methodsOn(pkg, {}, { kit, dials: {}, ...more });
const doable = (kit: KitItem[] | undefined, pkg?: string) =>
  on(kit, pkg)
    .filter(isDoable)
    .map((c) => c.method.id);

describe('benches', () => {
  it('are lists that a calculation takes', () => {
    for (const kind of Object.keys(BENCHES) as BenchKind[]) expect(kitSchema.parse(bench(kind))).toEqual(bench(kind));
    for (const [tool, { spec }] of Object.entries(USUAL)) expect(spec.tool).toBe(tool);
  });
  it('with everything do all that fits, set as recipes set it', () => {
    for (const pkg of ['SOIC-8', 'QFP-44', 'R0603', 'DIP-40']) {
      const [all, full] = [on(undefined, pkg), on(bench('full'), pkg)];
      expect(doable(bench('full'), pkg)).toEqual(doable(undefined, pkg));
      for (const [n, { method, unfit }] of full.entries())
        if (!unfit) for (const [k, p] of method.phases.entries()) expect(p.kind).toBe(all[n].method.phases[k].kind);
    }
  });
  it('without hot air offer nothing that blows, and say what it would take', () => {
    for (const kind of ['irons', 'bare'] as const)
      for (const pkg of ['SOIC-8', 'QFP-44', 'QFN-24', 'R0603'])
        for (const choice of on(bench(kind), pkg).filter(isDoable))
          expect(
            choice.method.phases.map((p) => kindOf(p).tool),
            choice.method.id,
          ).not.toContain('air');
    expect(on(bench('irons')).find((c) => c.method.id === 'air-slow')?.lacks).toEqual(['hot-air station']);
  });
  it('with one iron have no second', () => {
    expect(on(bench('bare')).find((c) => c.method.id === 'irons2')?.lacks).toContain('2 × soldering iron');
    expect(doable(bench('irons'))).toContain('irons2');
  });
  it('set what they do as their tools go', () => {
    const small: KitItem[] = [
      ...bench('bare'),
      { tool: 'air', set_C: [100, 350], flow_L_min: [10, 30], nozzles: [{ round_mm: 6 }] },
    ];
    for (const { method } of on(small).filter(isDoable)) {
      const air = phaseOf(method, 'air')?.settings;
      if (!air) continue;
      expect(air.nozzle_mm).toBe(6);
      expect(air.set_C).toBeLessThanOrEqual(350);
      expect(air.flow_L_min).toBeLessThanOrEqual(30);
    }
    const own = { Sn: 42, Bi: 58 };
    const lowMelt: KitItem = { tool: 'wire', wt: own, dia_mm: 0.5 };
    const laid = on([...bench('air').filter((i) => i.tool !== 'wire'), lowMelt])
      .map((c) => phaseOf(c.method, 'alloy')?.settings)
      .find(Boolean);
    expect(laid).toMatchObject({ alloy: own, wire_mm: 0.5 });
  });
  it('bring no lead to a board that has none, and speak of no other tool’s dial', () => {
    const sac = { jointAlloy: 'SAC305', leadFree: true };
    const laid = (kit: KitItem[], id: string) =>
      methodsOn('SOIC-8', sac, { kit, dials: {} }).find((c) => c.method.id === id);
    // both kinds lie there: the one without lead is taken, whichever comes first
    const eutectic: KitItem = { tool: 'wire', wt: { Bi: 58, Sn: 42 }, dia_mm: 0.8 };
    const both = laid([...bench('full'), eutectic], 'alloy-then-air');
    expect(both && isDoable(both)).toBe(true);
    expect(both && phaseOf(both.method, 'alloy')?.settings.alloy).toEqual(eutectic.wt);
    const flooded = laid(bench('full'), 'irons2');
    expect((flooded && phaseOf(flooded.method, 'alloy')?.settings.alloy?.Pb) ?? 0).toBe(0);
    // leaded wire alone is no solder for it
    expect(laid(bench('irons'), 'irons2')?.lacks).toContain('lead-free solder wire');
    expect(laid(bench('irons'), 'bead')?.lacks).toContain('low-melt alloy wire');

    const panel = { temperature: 'C', length: 'mm', dials: { iron: { offset_K: -20 } } } as const;
    const line = (pkg: string, id: string) => {
      const phase = on(undefined, pkg).find((c) => c.method.id === id)?.method.phases[0];
      return phase && kindOf(phase).line(phase.settings, panel);
    };
    expect(line('R0603', 'tweezers')).toMatch(/^350 °C/);
    expect(line('R0603', 'pool')).toMatch(/^350 °C/);
  });
  it('leave out what a housing is in the way of', () => {
    const housed = (pkg: string) => on(undefined, pkg, { housed: true });
    expect(housed('SOIC-8').find((c) => c.method.id === 'preheat-air')).toMatchObject({
      unfit: 'its housing is under the board',
      cheapest: 'Out of its housing it can be done',
    });
    expect(isDoable(housed('SOIC-8')[0])).toBe(true);
    // pins are reached from below
    for (const { method, unfit } of housed('DIP-14'))
      if (!unfit) for (const p of method.phases) expect(kindOf(p).fromAbove, method.id).toBe(true);
    expect(housed('DIP-14').find((c) => c.method.id === 'vacuum')?.unfit).toMatch(/worked from below/);
  });
  it('leave out what the shop does not work by', () => {
    const [first] = on(undefined, 'SOIC-8', { never: ['air-slow'] });
    expect(first).toMatchObject({ method: { id: 'air-slow' }, unfit: 'this shop does not work that way' });
    expect(mainPhase(first.method).kind).toBe('air');
  });
});
