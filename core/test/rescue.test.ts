// Ways out: found where there is one, told apart, and what to buy where this bench has none; what a dial does while it is dragged.
import { beforeAll, describe, expect, it } from 'vitest';
import { axesOf, covered, passes, setAs } from '../src/compare/free.ts';
import {
  type Along,
  aroundInput,
  type Near,
  nearRow,
  type Rescue,
  rescue,
  rescueInput,
  rescuePlan,
  rescuePlanInput,
  rowsAround,
  searchInput,
  searchSettings,
} from '../src/compare/index.ts';
import { caseOf, methodsFor, methodsOn, pieceOn, reworkPlaceSchema } from '../src/rework/index.ts';

const context = { now: () => 0 };
const kit = [
  { tool: 'air', set_C: [100, 480], flow_L_min: [5, 120], nozzles: [{ round_mm: 5 }, { round_mm: 8 }] },
  { tool: 'flux' },
  { tool: 'cover', kind: 'foil' },
];
/** A small part with a plastic plug at its side. */
const place = (tools: unknown[] = kit, plastic_mm = 9) => ({
  board: {
    kind: 'two-layer',
    lx_mm: 44,
    ly_mm: 36,
    parts: [
      { id: 'u1', package: 'SOIC-8', x_mm: 22, y_mm: 18 },
      { id: 'j1', package: 'CONN-PBT-8', x_mm: 22, y_mm: 18 + plastic_mm },
    ],
  },
  target: 'u1',
  seed: 1,
  kit: tools,
});
const air = methodsFor('SOIC-8').find((m) => m.method.id === 'air-fast')?.method;
if (!air) throw new Error('no air');

describe('a way out', () => {
  let found: Rescue;
  const told: unknown[] = [];
  beforeAll(async () => {
    found = await rescue(rescueInput.parse({ case: place() }), {
      ...context,
      progress: (_, ways) => told.push(ways),
    });
  }, 120_000);

  it('is a change that the bench can make, and works with everything that is uncertain', () => {
    expect(found.open).toBe(false);
    expect(found.why).toMatch(/j1 is hurt/);
    const [first] = found.ways;
    expect(first.changes).toContainEqual(expect.objectContaining({ what: 'cover', partId: 'j1' }));
    expect(first.row.verdict).toBe('works');
    expect(first.row.window?.p_open).toBeGreaterThanOrEqual(0.9);
    expect(first.row.procedure?.surroundings?.covers).toContainEqual({ partId: 'j1', kind: 'foil-off' });
  });
  it('comes the cheapest first, none of them more of another', () => {
    for (const [n, way] of found.ways.entries()) {
      expect(way.minutes).toBeGreaterThanOrEqual(found.ways[n - 1]?.minutes ?? 0);
      const same = found.ways.filter((o) => o !== way && o.row.id === way.row.id && o.minutes <= way.minutes);
      for (const other of same)
        expect(other.changes.every((c) => way.changes.some((w) => w.what === c.what && w.partId === c.partId))).toBe(
          false,
        );
    }
  });
  it('is told as soon as it is found', () => expect(told.flat().length).toBeGreaterThan(0));
  it('is worked as it was computed: the same settings give the same row', async () => {
    const [{ row }] = found.ways;
    const { phases, surroundings } = row.procedure ?? { phases: [], surroundings: undefined };
    const plan = { ...caseOf(reworkPlaceSchema.parse({ ...place(), surroundings })), phases };
    const { known } = await rowsAround(aroundInput.parse({ ...plan, as: row.id, at: [{ set_C: 300 }] }), context);
    expect(known.window?.p_open).toBeCloseTo(row.window?.p_open ?? NaN, 1);
    expect(known.verdict).toBe('works');
  }, 60_000);
  it('is not looked for where something works as it is', async () => {
    const out = await rescue(rescueInput.parse({ case: place(kit, 16) }), context);
    expect(out).toEqual({ open: true, ways: [] });
  }, 60_000);
  it('says what another bench would need where this one has nothing', async () => {
    const bare = [{ tool: 'iron' }, { tool: 'flux' }];
    const out = await rescue(rescueInput.parse({ case: place(bare) }), context);
    expect(out).toMatchObject({ open: false, ways: [], why: expect.any(String) });
    expect(out.elsewhere?.map((e) => e.tool)).toContain('low-melt alloy wire');
  }, 120_000);
  it('of a plan keeps what it finds at the bench', async () => {
    const { kit: tools, ...rest } = reworkPlaceSchema.parse(place());
    const found = caseOf(rest);
    const part = found.board.parts[0];
    const choices = methodsOn(part.package, pieceOn(found.board, part), { kit: tools, dials: found.station })
      .filter((c) => c.method.id === 'air-fast')
      .map(({ method }) => ({ method }));
    const bare = { ...found, covers: [{ partId: 'j1', kind: 'thick' as const }], quality: 'coarse' as const };
    const out = await rescuePlan(rescuePlanInput.parse({ ...bare, choices, kit: tools }), context);
    // covered already, it works as it is
    expect(out.open).toBe(true);
  }, 60_000);
  it('stops at once when it is called off', async () => {
    const abort = new AbortController();
    const going = rescue(rescueInput.parse({ case: place() }), {
      ...context,
      signal: abort.signal,
      progress: () => abort.abort(),
    });
    await expect(going).rejects.toMatchObject({ name: 'CancelledError' });
  }, 30_000);
});

describe('what lies over a neighbour', () => {
  const bare = {};
  it('is a setting like others', () => {
    const values = new Map([['cover.j1', 'foil']]);
    expect(covered(bare, values)).toEqual({ covers: [{ partId: 'j1', kind: 'foil' }] });
    expect(setAs(air, covered(bare, values), 'cover.j1')).toBe('foil');
    expect(covered({ covers: [{ partId: 'j1', kind: 'foil' }] }, new Map([['cover.j1', 'none']]))).toEqual({
      covers: [],
    });
  });
  it('is found by a search that may lay it', async () => {
    const free = { set_C: [450], 'cover.j1': ['none', 'foil-off'] };
    const out = await searchSettings(searchInput.parse({ case: place(), method: 'air-fast', free }), context);
    expect(out.settings['cover.j1']).toBe('foil-off');
    expect(out.row.procedure?.surroundings?.covers).toEqual([{ partId: 'j1', kind: 'foil-off' }]);
  }, 60_000);
  it('is refused where it is no cover', () => expect(() => axesOf({ 'cover.j1': ['none', 'blanket'] }, air)).toThrow());
});

describe('settings that belong together', () => {
  it('are turned together: a second stage, a lean', () => {
    const free = {
      'stages.0.standoff_mm': ['', 8],
      'stages.0.from_s': [20, 40, 60],
      tilt_deg: ['', 30],
      approach_deg: [0, 90, 180],
    };
    expect(axesOf(free, air).map((a) => a.values)).toEqual([
      ['', 8],
      [20, 40, 60],
      ['', 30],
      [0, 90, 180],
    ]);
  });
  it('come through the nozzle', () => {
    const blown = (nozzle_mm: number, flow_L_min: number) =>
      passes(
        air.phases.map((p) => ({ ...p, settings: { ...p.settings, nozzle_mm, flow_L_min } })) as typeof air.phases,
      );
    expect(blown(5, 25)).toBe(true);
    expect(blown(5, 60)).toBe(false);
    expect(blown(10, 100)).toBe(true);
  });
});

describe('rows round a plan', () => {
  it('say which way each setting goes', async () => {
    const plan = { ...caseOf(reworkPlaceSchema.parse(place(kit, 14))), phases: air.phases };
    const at = [{ set_C: 350 }, { set_C: 480 }, { 'cover.j1': 'thick' }];
    const { known, rows } = await rowsAround(aroundInput.parse({ ...plan, as: 'air-fast', at }), context);
    const [cold, hot, safe] = rows;
    expect(cold.loose_s?.p50).toBeGreaterThan(known.loose_s?.p50 ?? NaN);
    expect(hot.loose_s?.p50).toBeLessThan(known.loose_s?.p50 ?? NaN);
    expect(safe.worst?.margin_K ?? 500).toBeGreaterThan(known.worst?.margin_K ?? NaN);
  }, 60_000);
});

describe('a row while it is dragged', () => {
  const row = (loose_s: number | null, margin_K = 20): Near => ({ loose_s, margin_K, p_torn: 0.02, p_open: 0.9 });
  const along: Along = [
    { value: 300, row: row(null, 40) },
    { value: 350, row: row(80, 30) },
    { value: 400, row: row(40, 20) },
  ];
  it('is the row as set where nothing moved', () =>
    expect(nearRow(row(40), [{ known: along, from: 400, to: 400 }])).toEqual(row(40)));
  it('takes times by their ratio and margins by their difference', () => {
    const near = nearRow(row(60, 10), [{ known: along, from: 400, to: 350 }]);
    expect(near.loose_s).toBeCloseTo(120, 9);
    expect(near.margin_K).toBeCloseTo(20, 9);
  });
  it('adds what two settings do', () => {
    const two = [1, 2].map(() => ({ known: along, from: 400, to: 350 }));
    expect(nearRow(row(40), two).loose_s).toBeCloseTo(160, 9);
  });
  it('is solid beyond where it was seen to be', () => {
    expect(nearRow(row(40), [{ known: along, from: 400, to: 310 }]).loose_s).toBeNull();
    expect(nearRow(row(40), [{ known: along, from: 400, to: 340 }]).loose_s).not.toBeNull();
  });
  it('stays among chances', () => {
    const sure: Along = [
      { value: 0, row: { ...row(40), p_open: 0 } },
      { value: 1, row: { ...row(40), p_open: 1 } },
    ];
    expect(nearRow({ ...row(40), p_open: 0.5 }, [{ known: sure, from: 0, to: 1 }]).p_open).toBe(1);
  });
});
