/** Millivolts along a rail in the ranking: parts that read alike are told apart by where the drop ends. */
import { describe, expect, it } from 'vitest';
import { templateById } from '../src/circuit/templates.ts';
import { diagnose } from '../src/diagnosis/diagnose.ts';
import { diagnoseInput } from '../src/diagnosis/diagnoseForm.ts';
import { NONE } from '../src/diagnosis/priors.ts';
import { locateInput, locateShort } from '../src/diagnosis/locate.ts';

const { netlist } = templateById('buck') ?? { netlist: null };
if (!netlist) throw new Error('buck');
/** Ceramics across the buck's output: nothing else tells them apart. */
const ALIKE = netlist.parts
  .filter((p) => p.kind === 'C' && Object.values(p.pins).includes('3V3') && Object.values(p.pins).includes('GND'))
  .map((p) => p.ref);
const low = [{ type: 'ohm', red: '3V3', black: 'GND', value: 0.4, good: 900 }];
const ask = (more: object = {}) => diagnose(diagnoseInput.parse({ netlist, readings: low, ...more }));
const share = (d: ReturnType<typeof ask>, ref: string) => d.parts.find((p) => p.ref === ref)?.p ?? 0;

/** Parts of the rail ten millimetres apart on a strip, the short at the one named. */
function profile(refs: readonly string[], at: string) {
  const perMm_mV = (1e3 * 1.72e-8) / 35e-6;
  const places = refs.map((ref, i) => ({ ref, x_mm: 10 * (i + 1), y_mm: 0 }));
  const short_mm = places.find((p) => p.ref === at)?.x_mm ?? 0;
  return locateShort(
    locateInput.parse({
      current_A: 1,
      injection: { x_mm: 0, y_mm: 0 },
      copper: { foil_um: 35, tracks: [{ x0_mm: 0, y0_mm: 0, x1_mm: 10 * (refs.length + 1), y1_mm: 0, w_mm: 1 }] },
      points: places.map(({ x_mm, y_mm }) => ({ x_mm, y_mm, mV: perMm_mV * Math.min(x_mm, short_mm) })),
      candidates: places,
    }),
  );
}

describe('millivolts along a rail', () => {
  const [first, second] = ALIKE;
  const onRail = (at: string, drawn = true) => ({
    on_rails: [{ net: '3V3', drawn, places: profile(ALIKE, at).candidates.map(({ ref, p }) => ({ ref, p })) }],
  });
  it('name the one of those that read alike', () => {
    const blind = ask();
    expect(blind.groups[0]).toEqual(expect.arrayContaining([first, second]));
    expect(share(blind, second) / share(blind, first)).toBeLessThan(2);
    const told = ask(onRail(second));
    expect(told.parts[0].ref).toBe(second);
    expect(share(told, second)).toBeGreaterThan(10 * share(told, first));
  });
  it('say less where the copper was only assumed', () => {
    const [drawn, assumed] = [ask(onRail(second)), ask(onRail(second, false))];
    expect(share(assumed, second)).toBeGreaterThan(share(ask(), second));
    expect(share(assumed, second) / share(assumed, first)).toBeLessThan(share(drawn, second) / share(drawn, first));
  });
  it('say nothing of another net, and are not asked for twice', () => {
    const { on_rails } = onRail(second);
    const elsewhere = ask({ on_rails: [{ ...on_rails[0], net: 'VIN' }] });
    expect(share(elsewhere, second)).toBeCloseTo(share(ask(), second), 6);
    const ways = (d: ReturnType<typeof ask>) => d.group_shares[0].splits.map((s) => s.how);
    expect(ways(ask())).toContain('profile');
    expect(ways(ask(onRail(second)))).not.toContain('profile');
  });
  it('blame none of the circuit when the place is a part that it lacks', () => {
    const places = [...ALIKE.map((ref) => ({ ref, p: 0.01 })), { ref: 'C99', p: 1 - 0.01 * ALIKE.length }];
    const beside = [{ net: '3V3', parts: [{ ref: 'C99', cls: 'mlcc' }] }];
    const before = ask({ beside });
    const told = ask({ beside, on_rails: [{ net: '3V3', drawn: true, places }] });
    expect(share(told, NONE)).toBeGreaterThan(share(before, NONE));
    expect(share(told, NONE)).toBeGreaterThan(0.5);
  });
});
