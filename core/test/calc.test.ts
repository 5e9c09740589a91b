import { describe, expect, it } from 'vitest';
import { CALCS, runCalc } from '../src/calc/index.ts';
import { type CalcContext, CalcInputError } from '../src/ground/index.ts';
import { describeCalc } from '../src/calc/describeCalc.ts';
import { CancelledError } from '../src/ground/calc.ts';

const context: CalcContext = { now: () => performance.now() };

async function refusal(name: string, input: unknown): Promise<CalcInputError> {
  const error: unknown = await runCalc(name, input, context).then(
    () => undefined,
    (e: unknown) => e,
  );
  if (!(error instanceof CalcInputError)) throw new Error(`${name} did not refuse: ${String(error)}`);
  return error;
}

/** Paths of all numbers in a value. */
function numberPaths(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value === 'number') return [path];
  if (value === null || typeof value !== 'object') return [];
  return Object.entries(value).flatMap(([k, v]) => numberPaths(v, [...path, Array.isArray(value) ? Number(k) : k]));
}
function withValue(input: unknown, path: (string | number)[], value: unknown): unknown {
  const copy = structuredClone(input) as Record<string | number, unknown>;
  let at = copy;
  for (const key of path.slice(0, -1)) at = at[key] as Record<string | number, unknown>;
  at[path[path.length - 1]] = value;
  return copy;
}

describe.each([...CALCS.values()].filter((c) => c.name !== 'heat.bench'))('$name', (calc) => {
  it('runs its example and keeps its output form', async () => {
    const output = await runCalc(calc.name, calc.example, context);
    expect(calc.output.safeParse(output).success).toBe(true);
  });
  it('says what it takes and gives as JSON Schema that its example fits', () => {
    const told = describeCalc(calc) as { input: Record<string, unknown>; output: { type?: string }; example: object };
    expect(JSON.parse(JSON.stringify(told))).toMatchObject({ name: calc.name, example: calc.example });
    const { properties = {}, anyOf } = told.input as { properties?: object; anyOf?: unknown[] };
    if (!anyOf) expect(Object.keys(properties)).toEqual(expect.arrayContaining(Object.keys(told.example)));
  });
  it('names an unknown key', async () => {
    const error = await refusal(calc.name, { ...(calc.example as object), surprise: 1 });
    expect(error.message).toContain('surprise');
  });
  it('refuses what is no object', async () => {
    for (const value of [null, 3, 'x', []]) await refusal(calc.name, value);
  });
  it('names the field when a number is not one', async () => {
    for (const path of numberPaths(calc.example).slice(0, 12))
      for (const bad of [NaN, Infinity, 'much', null]) {
        const error = await refusal(calc.name, withValue(calc.example, path, bad));
        const fields = error.issues.map((i) => i.field);
        expect(fields.some((f) => f.startsWith(String(path[0])))).toBe(true);
      }
  });
  it('refuses or survives huge numbers, never returns nonsense', async () => {
    for (const path of numberPaths(calc.example).slice(0, 12)) {
      const input = withValue(calc.example, path, 1e30);
      const parsed = calc.input.safeParse(input);
      if (!parsed.success || (calc.cost?.(parsed.data) ?? 0) > 5) continue;
      const output = await runCalc(calc.name, input, context).catch((e: unknown) => e);
      expect(output instanceof CalcInputError || calc.output.safeParse(output).success).toBe(true);
    }
  });
});

describe('the registry', () => {
  it('refuses an unknown name and lists the known ones', async () => {
    await expect(runCalc('heat.magic', {}, context)).rejects.toThrow(/heat\.field/);
  });
  it('refuses what costs more than the host allows', async () => {
    const input = {
      board: { lx: 1, ly: 1, nx: 600, ny: 600, layers: [{ dz: 1e-3, kx: 1, ky: 1, kz: 1, rhoc: 1e6 }] },
      probes: [{ name: 'a', t: 1000, x: 0, y: 0, layer: 0 }],
    };
    await expect(runCalc('heat.field', input, context, { maxCost_s: 10 })).rejects.toThrow(/limit here is 10 s/);
  });
});

describe('what no bench has is refused with its field', () => {
  const field = CALCS.get('heat.field')?.example;
  const layer = { dz: 1e-3, kx: 1, ky: 1, kz: 1, rhoc: 1e6 };
  const board = (change: object) => ({ lx: 0.1, ly: 0.1, nx: 20, ny: 20, layers: [layer], ...change });
  it.each<[string, string, unknown]>([
    ['heat.simulate', 'method.set_C', 2000],
    ['heat.simulate', 'method.flow_L_min', 10_000],
    ['heat.simulate', 'method.nozzle_mm', 0],
    ['heat.simulate', 'method.standoff_mm', NaN],
    ['heat.simulate', 'method.limit_s', 1e9],
    ['heat.simulate', 'board.thickness_mm', 0],
    ['heat.simulate', 'board.outline_mm.0.0', 1e9],
    ['heat.simulate', 'station.efficiency', 20],
    ['heat.simulate', 'ambient_C', -300],
    ['heat.simulate', 'draught', 1e6],
    ['heat.simulate', 'under', { kind: 'preheater', T_C: 2000 }],
    ['heat.simulate', 'held', { kind: 'frame', width_mm: -1 }],
    ['heat.simulate', 'joints', { volume: 0 }],
    ['heat.simulate', 'joints', { with: { alloy: { Sn: 120 }, ratio: 1 } }],
    ['heat.simulate', 'sinks', [{ partId: 'target', kind: 'anvil' }]],
    ['plan.heat', 'method.set_C', 2000],
    ['jet.profile', 'Q_L_min', 10_000],
    ['jet.profile', 'Tset_C', 2000],
    ['jet.profile', 'D_mm', 0],
    ['blowaway.check', 'part.h_mm', 0],
    ['joint.volume', 'paste.stencil_mm', -1],
  ])('%s: %s = %j', async (name, path, value) => {
    const error = await refusal(name, withValue(CALCS.get(name)?.example, path.split('.'), value));
    const fields = error.issues.map((i) => i.field);
    expect(
      fields.some((f) => f.startsWith(path)),
      fields.join(),
    ).toBe(true);
  });
  it.each([
    ['ten million cells', board({ nx: 2000, ny: 2000, layers: [layer, layer, layer] }), 'board.nx'],
    ['a layer of no thickness', board({ layers: [{ ...layer, dz: 0 }] }), 'board.layers.0.dz'],
    ['a board of no length', board({ lx: 0 }), 'board.lx'],
  ])('heat.field: %s', async (_, given, path) => {
    const error = await refusal('heat.field', { ...(field as object), board: given });
    expect(error.issues.map((i) => i.field)).toEqual([path]);
  });
});

describe('heat.field', () => {
  const body = { id: 'b', type: 'body', C: 1 };
  const probe = { name: 'p', t: 1, node: 'b' };
  const board = { lx: 0.02, ly: 0.01, nx: 20, ny: 10, layers: [{ dz: 1e-3, kx: 1, ky: 1, kz: 1, rhoc: 2e6 }] };
  it.each<[string, object, string]>([
    ['a node without capacity', { nodes: [{ id: 'b', type: 'body' }], probes: [probe] }, 'nodes.0.C'],
    ['a node of unknown type', { nodes: [{ id: 'b', type: 'ghost', C: 1 }], probes: [probe] }, 'nodes.0.type'],
    ['no probes', { nodes: [body] }, 'probes'],
    ['a probe without time', { nodes: [body], probes: [{ name: 'p', node: 'b' }] }, 'probes.0.t'],
    ['a probe on a node that is not there', { nodes: [body], probes: [{ ...probe, node: 'c' }] }, 'probes.0.node'],
    ['a link to nowhere', { nodes: [body], links: [{ a: 'b', b: 'c', G: 1 }], probes: [probe] }, 'links.0.b'],
    [
      'a link without G',
      { nodes: [body, { ...body, id: 'c' }], links: [{ a: 'b', b: 'c' }], probes: [probe] },
      'links.0.G',
    ],
    [
      'a region without a board',
      {
        nodes: [body],
        links: [{ a: 'b', region: { x0: 0, x1: 1, y0: 0, y1: 1 }, layer: 0, G_per_area: 1 }],
        probes: [probe],
      },
      'links.0.region',
    ],
    ['an id used twice', { nodes: [body, body], probes: [probe] }, 'nodes.1.id'],
    ['neither board nor nodes', { probes: [{ name: 'p', t: 1, what: 'stored_J' }] }, 'board'],
    [
      'a bad formula',
      { board, initial_field: '2 +', probes: [{ name: 'p', t: 1, x: 0, y: 0, layer: 0 }] },
      'initial_field',
    ],
    ['a layer the board has not', { board, probes: [{ name: 'p', t: 1, x: 0, y: 0, layer: 3 }] }, 'probes.0.layer'],
    [
      'a source without power',
      { board, sources: [{ x: 0, y: 0 }], probes: [{ name: 'p', t: 1, x: 0, y: 0, layer: 0 }] },
      'sources.0.P',
    ],
    [
      'liquidus below solidus',
      {
        nodes: [{ id: 'b', type: 'joint', V: 1e-9, alloy: { Ts: 200, Tl: 100, cs: 1e6, cl: 1e6, L: 1e8 } }],
        probes: [probe],
      },
      'nodes.0.alloy.Tl',
    ],
  ])('names the field for %s', async (_, input, field) => {
    expect((await refusal('heat.field', input)).issues.map((i) => i.field)).toContain(field);
  });

  it('reads a probe on a step boundary, at t = 0, and says null for what never melts', async () => {
    const result = (await runCalc(
      'heat.field',
      {
        nodes: [
          { ...body, P: 1 },
          { id: 'j', type: 'joint', V: 1e-9, alloy: { Ts: 183, Tl: 183, cs: 1e6, cl: 1e6, L: 1e8 } },
        ],
        dt_max: 0.1,
        probes: [
          { name: 'start', t: 0, node: 'b' },
          { name: 'end', t: 60, node: 'b' },
          { name: 'never', what: 't_liquidus', node: 'j' },
        ],
      },
      context,
    )) as { probes: { value: number | null }[] };
    expect(result.probes[0].value).toBe(20);
    expect(result.probes[1].value).toBeCloseTo(80, 6);
    expect(result.probes[2].value).toBeNull();
  });

  it('switches sources at the moment asked for, whatever the step', async () => {
    const result = (await runCalc(
      'heat.field',
      {
        board,
        sources: [{ P: 2, x: 0.01, y: 0.005, t_on: 0.37, t_off: 1.03 }],
        dt_max: 0.25,
        probes: [{ name: 'stored', t: 3, what: 'stored_J' }],
      },
      context,
    )) as { probes: { value: number }[]; energy: { input_J: number } };
    expect(result.energy.input_J).toBeCloseTo(2 * 0.66, 9);
    expect(result.probes[0].value).toBeCloseTo(2 * 0.66, 9);
  });

  it('patches win over the face they lie on', async () => {
    const loss = async (patches: object[]) =>
      (
        (await runCalc(
          'heat.field',
          {
            initial: 100,
            board,
            boundary: { top: { h: 10, Tinf: 20, patches } },
            probes: [{ name: 'w', t: 0, what: 'loss_W' }],
            t_end: 0.1,
          },
          context,
        )) as { probes: { value: number }[] }
      ).probes[0].value;
    const area = 0.02 * 0.01;
    expect(await loss([])).toBeCloseTo(10 * area * 80, 9);
    expect(await loss([{ x0: 0, x1: 0.01, y0: 0, y1: 0.01, h: 100, Tinf: 20 }])).toBeCloseTo(
      (10 + 100) * 0.5 * area * 80,
      9,
    );
  });

  it('stops when cancelled', async () => {
    await expect(
      runCalc(
        'heat.field',
        { nodes: [body], probes: [{ ...probe, t: 100 }] },
        { ...context, signal: { aborted: true } },
      ),
    ).rejects.toThrow(CancelledError);
  });
});

describe('joint.volume', () => {
  const volume = async (input: object) =>
    (await runCalc('joint.volume', input, context)) as { volume_mm3: number; mass_mg: number };
  it('paste: aperture × stencil × transfer × metal', async () => {
    const { volume_mm3, mass_mg } = await volume({
      paste: { aperture_mm: [2, 1], stencil_mm: 0.1, transferTimesCoverage: 0.9, metalVolumeFraction: 0.5 },
      wt: { Sn: 63, Pb: 37 },
    });
    expect(volume_mm3).toBeCloseTo(0.09, 12);
    expect(mass_mg / volume_mm3).toBeCloseTo(100 / (63 / 7.29 + 37 / 11.34), 9);
  });
  it('plated hole: the published example, drill 1.0, lead 0.64, board 1.6: 0.74 mm³ without fillets', async () => {
    const hole = { drill_mm: 1, lead_mm: 0.64, board_mm: 1.6, fill: 1, pad_mm: 2, fillet_mm: 0.6, k: 0.5, fillets: 0 };
    expect((await volume({ hole, wt: { Sn: 100 } })).volume_mm3).toBeCloseTo(0.742, 3);
    const cone = ((Math.PI * 0.6) / 3) * (1 + 0.32 + 0.32 ** 2) - Math.PI * 0.32 ** 2 * 0.6;
    expect((await volume({ hole: { ...hole, fillets: 2 }, wt: { Sn: 100 } })).volume_mm3).toBeCloseTo(0.742 + cone, 3);
  });
  it('wants exactly one joint, a lead that fits, elements it knows', async () => {
    const hole = { drill_mm: 1, lead_mm: 1.2, board_mm: 1.6, fill: 1, pad_mm: 2, fillet_mm: 0.6, k: 0.5, fillets: 2 };
    expect((await refusal('joint.volume', { wt: { Sn: 1 } })).issues[0].message).toMatch(/paste or hole/);
    expect((await refusal('joint.volume', { hole, wt: { Sn: 1 } })).issues[0].field).toBe('hole.lead_mm');
    expect((await refusal('joint.volume', { hole, wt: { Au: 1 } })).message).toMatch(/Au/);
    expect((await refusal('joint.volume', { hole: { ...hole, lead_mm: 0.6 }, wt: { Sn: 0 } })).issues[0].field).toBe(
      'wt',
    );
  });
});
