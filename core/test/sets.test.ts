import { describe, expect, it } from 'vitest';
import { columnAt, meshBoard, meshWhole } from '../src/thermal/index.ts';
import { caseOf, methodsFor, ReworkRun, stintsOf, WholeBoard } from '../src/rework/index.ts';
import { shortBoard, shortBoardSchema } from '../src/rework/shortBoard.ts';
import { runCalc } from '../src/calc/index.ts';
import { heatLeg } from '../src/sets/heat.ts';
import { legOf } from '../src/sets/legs.ts';
import { setInput, SetPlan, type SetOrder } from '../src/sets/index.ts';

const context = { now: () => 0 };
const board = (parts: object[], lx_mm = 80, ly_mm = 60, kind = 'four-layer') =>
  shortBoard(shortBoardSchema.parse({ kind, lx_mm, ly_mm, parts }));
const wayOf = (packageId: string, id: string) => {
  const found = methodsFor(packageId).find((c) => c.method.id === id);
  if (!found) throw new Error(`no way ${id}`);
  return found.method;
};
const benchOf = (b: ReturnType<typeof board>, target: string) => ({
  ...caseOf({ board: b, target, op: 'remove', mustLive: false, ambient_C: 22 }),
  quality: 'coarse' as const,
});

describe('the whole board between runs', () => {
  const b = board([
    { id: 'a', package: 'SOIC-8', x_mm: 30, y_mm: 30 },
    { id: 'q', package: 'QFP-44', x_mm: 45, y_mm: 30 },
    { id: 'c', package: 'SOIC-8', x_mm: 60, y_mm: 40, side: 'bottom' },
  ]);
  const bench = benchOf(b, 'a');
  const run = () => {
    const r = new ReworkRun({ ...bench, books: true }, stintsOf(wayOf('SOIC-8', 'air-slow').phases));
    while (r.joints.allLoose_s === null && r.time < 120) r.step();
    return r;
  };

  it('takes over the heat that a run leaves, and loses none of it to another mesh', () => {
    const r = run();
    const whole = new WholeBoard(bench);
    whole.take(r);
    // all but what the target's small body and its solder hold
    expect(whole.heat_J() / r.heat.stored_J()).toBeGreaterThan(0.98);
    expect(whole.heat_J() / r.heat.stored_J()).toBeLessThan(1.001);
  });

  it('hands it on: a run that starts from it begins where the last one ended', () => {
    const r = run();
    const whole = new WholeBoard(bench);
    whole.take(r);
    const next = new ReworkRun({ ...bench, target: 'q' }, stintsOf(wayOf('QFP-44', 'air-slow').phases), {
      start: whole.state('q'),
    });
    for (const [x, y] of [
      [40, 30],
      [50, 36],
      [20, 20],
    ]) {
      const before = r.heat.cells_C[columnAt(r.mesh, x, y)];
      const after = next.heat.cells_C[columnAt(next.mesh, x, y)];
      expect(Math.abs(after - before)).toBeLessThan(6);
    }
  });

  it('cools, to the room in the end, without ringing', () => {
    const whole = new WholeBoard(bench);
    whole.take(run());
    let last = whole.heat_J();
    for (const s of [10, 30, 60, 300, 900]) {
      whole.cool(s);
      expect(whole.heat_J()).toBeLessThan(last);
      last = whole.heat_J();
    }
    expect(whole.riseAt(30, 30)).toBeLessThan(6);
  });

  it('what is worked from the other side finds its warmth on the right face', () => {
    // two layers, air from above: the upper face stays the warmer one for a while
    const two = board(
      [
        { id: 'a', package: 'SOIC-8', x_mm: 40, y_mm: 30 },
        { id: 'c', package: 'SOIC-8', x_mm: 44, y_mm: 30, side: 'bottom' },
      ],
      80,
      60,
      'two-layer',
    );
    const found = benchOf(two, 'a');
    const r = new ReworkRun(found, stintsOf(wayOf('SOIC-8', 'air-slow').phases));
    while (r.time < 15) r.step();
    const whole = new WholeBoard(found);
    whole.take(r);
    const below = new ReworkRun({ ...found, target: 'c' }, stintsOf(wayOf('SOIC-8', 'air-slow').phases), {
      start: whole.state('c'),
    });
    const column = columnAt(below.mesh, 40, 30);
    const [near, far] = [below.heat.cells_C[column], below.heat.cells_C[column + 3 * below.mesh.columns]];
    expect(far).toBeGreaterThan(near + 1);
  });

  it('a part that has come off takes its heat along and no longer holds any', () => {
    const whole = new WholeBoard(bench);
    whole.take(run());
    const before = whole.heat_J();
    whole.change('q', false);
    expect(whole.heat_J()).toBeLessThan(before);
    whole.change('q', true);
    expect(whole.temperatureOf(b.parts[1])).toBeGreaterThan(30);
  });
});

describe('a carried field against one fine mesh for the whole sequence', () => {
  it('the next part’s time is within 10 % in the median', async () => {
    const places = [
      ['a', 'SOIC-8', 20, 20, 'top'],
      ['b', 'SOIC-8', 30, 21, 'top'],
      ['c', 'C1206', 26, 29, 'top'],
      ['d', 'SOIC-8', 34, 30, 'bottom'],
      ['e', 'SOIC-8', 24, 36, 'bottom'],
    ] as const;
    const b = board(
      places.map(([id, pkg, x_mm, y_mm, side]) => ({ id, package: pkg, x_mm, y_mm, side })),
      50,
      50,
    );
    const bench = benchOf(b, 'a');
    const whole = new WholeBoard(bench);
    // one mesh of half a millimetre for all of them, turned with the side; what one run leaves is what the next one finds, cell by cell
    let fine: ReturnType<ReworkRun['state']> | undefined;
    const off: string[] = [];
    const apart: number[] = [];
    const sooner: number[] = [];
    for (const [n, [id, pkg, , , side]] of places.entries()) {
      const part = b.parts[n];
      const method = wayOf(pkg, 'air-fast');
      const leg = legOf(part, 'remove', { method, side, pace: 1 });
      // ten seconds of rest, five until the tool is there
      if (n > 0) whole.cool(15);
      const start = n > 0 ? whole.state(id) : undefined;
      const { run, loose_s } = await heatLeg(bench, leg, { start, absent: off, lives: false }, context);
      const mesh = meshWhole(b, 0.5, side);
      const rest = { id: 'rest', kind: 'rest', settings: {}, until: { s: 10 }, giveUp_s: 10 } as const;
      const phases = n > 0 ? [rest, ...method.phases] : method.phases;
      const one = new ReworkRun({ ...bench, target: id, absent: off }, stintsOf(phases), { start: fine, mesh });
      while (one.joints.allLoose_s === null && one.time < 120) if (one.step()) one.goesOn();
      const heat_on = one.phases.at(-1)?.from_s ?? 0;
      const true_s = (one.joints.allLoose_s ?? Infinity) - heat_on;
      while (one.time < heat_on + true_s + 3) one.step();
      fine = one.state();
      apart.push(Math.abs((loose_s ?? Infinity) / true_s - 1));
      const cold = await heatLeg(bench, leg, { absent: off, lives: false }, context);
      sooner.push((loose_s ?? Infinity) / (cold.loose_s ?? 0));
      whole.take(run);
      whole.change(id, false);
      off.push(id);
    }
    apart.sort((x, y) => x - y);
    expect(apart[2]).toBeLessThan(0.05);
    expect(apart[4]).toBeLessThan(0.1);
    // and warmth matters: later ones are sooner loose than from cold
    expect(Math.min(...sooner)).toBeLessThan(0.85);
  }, 120_000);
});

/** A set as benches meet it: both sides, three kinds of part, listed as their names go. */
function generated(seed: number, count: number) {
  let state = seed * 2654435761 + 1;
  const random = () => {
    state = (Math.imul(state ^ (state >>> 15), 2246822519) + 3266489917) >>> 0;
    return state / 2 ** 32;
  };
  const packages = ['SOIC-8', 'C1206', 'R1206'] as const;
  const ways = { 'SOIC-8': 'air-fast', C1206: 'tweezers', R1206: 'tweezers' } as const;
  const parts = Array.from({ length: count }, (_, n) => ({
    id: `p${n}`,
    package: packages[Math.floor(3 * random())],
    x_mm: 12 + 18 * (n % 5) + 4 * random(),
    y_mm: 12 + 20 * Math.floor(n / 5) + 6 * random(),
    side: random() < 0.5 ? 'top' : 'bottom',
  }));
  return setInput.parse({
    board: { kind: 'four-layer', lx_mm: 105, ly_mm: 70, parts },
    set: parts.map((p) => ({ partId: p.id, do: 'renew', method: ways[p.package] })),
    stage: 'off',
    finalists: 0,
  });
}

const idsOf = ({ order }: SetOrder) => order.map((l) => l.partId);

describe('the order of a set', () => {
  it('is 15 % shorter than the list, and never longer than always the nearest next, on twenty sets', async () => {
    const gains: number[] = [];
    for (let seed = 1; seed <= 20; seed++) {
      const input = generated(seed, 5 + (seed % 3));
      const plan = await SetPlan.of(input, context);
      const told = await plan.best({ finalists: 0 }, context);
      expect(told.minutes).toBeLessThanOrEqual(told.nearest_minutes + 1e-9);
      expect(new Set(idsOf(told)).size).toBe(input.set.length);
      gains.push(1 - told.minutes / told.list_minutes);
    }
    expect(gains.reduce((a, b) => a + b, 0) / gains.length).toBeGreaterThan(0.15);
  }, 240_000);

  it('is the same again, runs through what it told, and keeps what has to come first', async () => {
    const input = generated(3, 6);
    const set = input.set.map((s) => (s.partId === 'p0' ? { ...s, after: ['p5'] } : s));
    const plan = await SetPlan.of({ ...input, set }, context);
    const [first, again] = [await plan.best({ finalists: 0 }, context), await plan.best({ finalists: 0 }, context)];
    expect(idsOf(again)).toEqual(idsOf(first));
    expect(idsOf(first).indexOf('p5')).toBeLessThan(idsOf(first).indexOf('p0'));
    const ran = await plan.best({ order: idsOf(first), finalists: 1 }, context);
    // what adding up told is near what running through tells
    expect(Math.abs(ran.minutes / first.minutes - 1)).toBeLessThan(0.1);
    for (const leg of ran.order) expect(leg.guide?.allWet_s).toBeGreaterThan(0);
    await expect(plan.best({ order: ['p0', 'p5'], finalists: 0 }, context)).rejects.toThrow(/p5 has to come before p0/);
  }, 120_000);

  it('goes on from what was done: as it went, and colder after a pause', async () => {
    const input = generated(5, 5);
    const plan = await SetPlan.of(input, context);
    const best = await plan.best({ finalists: 0 }, context);
    const [a] = best.order;
    const did = [{ partId: a.partId, start_s: 0, loose_s: (a.loose_s ?? 0) + 5 }];
    const soon = await plan.best({ did, order: idsOf(best), finalists: 1 }, context);
    const late = await plan.best({ did, order: idsOf(best), resume_s: 1500, finalists: 1 }, context);
    expect(idsOf(soon)[0]).toBe(a.partId);
    expect(soon.order[0].loose_s).toBe(did[0].loose_s);
    expect(late.order[1].start_s).toBeGreaterThanOrEqual(1500);
    expect(late.order[1].start_C).toBeLessThanOrEqual(soon.order[1].start_C + 0.5);
  }, 120_000);

  it('waits for a neighbour that a warm board would hurt', async () => {
    // two chips beside a plastic socket: from cold it is clear, right after the first it is not
    const input = setInput.parse({
      board: {
        kind: 'two-layer',
        lx_mm: 60,
        ly_mm: 40,
        parts: [
          { id: 'u1', package: 'SOIC-8', x_mm: 20, y_mm: 20 },
          { id: 'u2', package: 'SOIC-8', x_mm: 34, y_mm: 20 },
          { id: 'j', package: 'R0805', x_mm: 27, y_mm: 20, limit: { C: 125, s: 10, K: 3 } },
        ],
      },
      set: ['u1', 'u2'].map((partId) => ({ partId, do: 'renew', method: 'air-fast' })),
      stage: 'off',
    });
    const plan = await SetPlan.of(input, context);
    const told = await plan.best({ finalists: 1 }, context);
    const second = told.order[1];
    expect(second.restFor.map((r) => r.partId)).toContain('j');
    expect(second.rest_s).toBeGreaterThan(0);
  }, 120_000);

  it('what went quicker than computed leaves less warmth for the next', async () => {
    const input = generated(5, 3);
    const plan = await SetPlan.of(input, context);
    const best = await plan.best({ finalists: 0 }, context);
    const [a] = best.order;
    const second = async (share: number) => {
      const did = [{ partId: a.partId, start_s: 0, loose_s: share * (a.loose_s ?? 0) }];
      return (await plan.best({ did, order: idsOf(best), finalists: 1 }, context)).order[1];
    };
    const [usual, quick] = [await second(1), await second(0.4)];
    expect(quick.start_C).toBeLessThan(usual.start_C - 0.2);
  }, 120_000);

  it('takes what works at all with more heat where nothing usual does, and puts on what never stood there', async () => {
    const input = setInput.parse({
      board: { kind: 'thick', lx_mm: 120, ly_mm: 90, parts: [{ id: 'u1', package: 'QFN-32', x_mm: 60, y_mm: 45 }] },
      set: [{ partId: 'u1', do: 'place' }],
      stage: 'each',
    });
    const told = await (await SetPlan.of(input, context)).best({ finalists: 1 }, context);
    expect(told.cannot).toEqual([]);
    expect(told.order.map((l) => l.op)).toEqual(['prepare', 'fit']);
    expect(told.order[1].loose_s).toBeGreaterThan(0);
    const air = told.methods[0].method.phases.find((p) => p.kind === 'air');
    // more than what calm air is set to where it does
    expect((air?.settings as { set_C: number }).set_C).toBeGreaterThan(390);
  }, 120_000);

  it('lands and part by part: work without a clock of heat has its minutes too, and comes in its order', async () => {
    const input = generated(2, 3);
    const prepared = await (await SetPlan.of({ ...input, stage: 'prepared' }, context)).best({ finalists: 0 }, context);
    expect(prepared.order.every((l) => l.op === 'prepare' && l.loose_s === null && l.minutes > 0)).toBe(true);
    const each = await (await SetPlan.of({ ...input, stage: 'each' }, context)).best({ finalists: 0 }, context);
    for (const { partId } of input.set)
      expect(each.order.filter((l) => l.partId === partId).map((l) => l.op)).toEqual(['remove', 'prepare', 'fit']);
  }, 120_000);
});

describe('set.order', () => {
  const parts = [
    { id: 'r1', package: 'R0805', x_mm: 10, y_mm: 15 },
    { id: 'r2', package: 'R0805', x_mm: 20, y_mm: 15 },
  ];
  const asked = (changes: object) =>
    runCalc(
      'set.order',
      {
        board: { kind: 'two-layer', lx_mm: 40, ly_mm: 30, parts },
        set: [
          { partId: 'r1', do: 'renew', method: 'tweezers' },
          { partId: 'r2', do: 'leave', method: 'tweezers' },
        ],
        stage: 'off',
        finalists: 0,
        ...changes,
      },
      context,
    );
  it.each([
    ['a part that is not there', { set: [{ partId: 'zz', do: 'renew' }] }, /no part "zz"/],
    [
      'the same part twice',
      {
        set: [
          { partId: 'r1', do: 'renew' },
          { partId: 'r1', do: 'renew' },
        ],
      },
      /twice/,
    ],
    [
      'something first that is not in the set',
      { set: [{ partId: 'r1', do: 'renew', after: ['r2'] }] },
      /not in the set/,
    ],
    [
      'a circle',
      {
        set: [
          { partId: 'r1', do: 'renew', method: 'tweezers', after: ['r2'] },
          { partId: 'r2', do: 'renew', method: 'tweezers', after: ['r1'] },
        ],
      },
      /circle/,
    ],
    ['an order with strangers', { order: ['x'] }, /not in the set/],
    ['a fate that is none', { set: [{ partId: 'r1', do: 'burn' }] }, /set/],
  ])('refuses %s', async (_, changes, message) => {
    await expect(asked(changes)).rejects.toThrow(message);
  });
  it('says of a part what cannot be done to it, and does the others', async () => {
    const told = (await asked({
      set: [
        { partId: 'r1', do: 'renew', method: 'vacuum' },
        { partId: 'r2', do: 'renew', method: 'tweezers' },
      ],
    })) as SetOrder;
    expect(told.cannot).toMatchObject([{ partId: 'r1', op: 'remove' }]);
    expect(idsOf(told)).toEqual(['r2']);
  });
});

it('an even mesh of the whole board holds the same copper as one made for a target', () => {
  const b = board([{ id: 'a', package: 'SOIC-8', x_mm: 30, y_mm: 30 }]);
  const heat = ({ grid, columns }: ReturnType<typeof meshWhole>) => {
    let sum = 0;
    for (let l = 0; l < grid.dz.length; l++)
      for (let j = 0; j < grid.dy.length; j++)
        for (let i = 0; i < grid.dx.length; i++)
          sum += grid.rhoc[l * columns + j * grid.stride + i] * grid.dx[i] * grid.dy[j] * grid.dz[l];
    return sum;
  };
  expect(heat(meshWhole(b, 2.5)) / heat(meshBoard(b, b.parts[0], 14_000))).toBeCloseTo(1, 6);
});
