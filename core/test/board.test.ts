import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boardModelSchema, layerName, type PlacedPart, toBoard, toLocal } from '../src/board/index.ts';
import { packageById, PACKAGES, type Rect, terminalSides } from '../src/packages/index.ts';
import { canonicalJson, contentHash } from '../src/ground/canonical.ts';
import { LIMITS } from '../src/materials/limits.ts';
import { BOARD_KINDS, expressBoard, expressSchema, PLASTICS } from '../src/rework/expressBoard.ts';
import { looseEnds } from '../src/board/loose.ts';
import { workSide } from '../src/hands/workSide.ts';
import { boardScene, partAt, terminalAt } from '../src/scene/index.ts';
import { seeded } from './diagnosisSimulation.ts';
import { air, vacuum } from './plans.ts';

const part = (change: Partial<PlacedPart> = {}): PlacedPart => ({
  partId: 'u1',
  ref: 'U1',
  package: 'SOIC-8',
  x_mm: 10,
  y_mm: 20,
  rotation_deg: 0,
  side: 'top',
  ...change,
});

describe('packages', () => {
  it.each([...PACKAGES.values()])('$id is drawn and heated with sane numbers', (p) => {
    expect(p.C_J_K).toBeGreaterThan(0);
    expect(p.source).not.toBe('');
    expect(LIMITS.has(p.limit)).toBe(true);
    expect(new Set(p.terminals.map((t) => t.id)).size).toBe(p.terminals.length);
    for (const t of p.terminals) {
      expect(t.volume_mm3).toBeGreaterThan(0);
      expect(t.G_W_K).toBeGreaterThan(0);
      expect(Math.min(t.land.w, t.land.h)).toBeGreaterThan(0.1);
    }
  });
  it('numbers pins counter-clockwise from top left, at true pitch', () => {
    const at = (id: string, pkg: string) =>
      PACKAGES.get(pkg)?.terminals.find((t) => t.id === id)?.land ?? { x: NaN, y: NaN };
    expect(at('1', 'SOIC-8').x).toBeLessThan(0);
    expect(at('2', 'SOIC-8').y - at('1', 'SOIC-8').y).toBeCloseTo(1.27);
    expect(at('5', 'SOIC-8').x).toBeGreaterThan(0);
    expect(at('5', 'SOIC-8').y).toBeCloseTo(at('4', 'SOIC-8').y);
    expect(at('12', 'QFP-44').y).toBeGreaterThan(at('11', 'QFP-44').y);
    expect(at('23', 'QFP-44').x).toBeGreaterThan(0);
    expect(at('44', 'QFP-44').y).toBeLessThan(0);
    expect(PACKAGES.get('SOT-23')?.terminals.map((t) => t.id)).toEqual(['1', '2', '3']);
    expect([at('2', 'SOT-23').x < 0, at('3', 'SOT-23').x > 0]).toEqual([true, true]);
  });
  it('counts sides', () => {
    for (const [id, n] of [
      ['SOIC-8', 2],
      ['QFP-44', 4],
      ['C0603', 2],
    ] as const) {
      const p = PACKAGES.get(id);
      expect(p && terminalSides(p)).toBe(n);
    }
  });
});

describe('placement', () => {
  it('turns counter-clockwise as seen from the top, y pointing down', () => {
    const [x, y] = toBoard(part({ rotation_deg: 90 }), 1, 0);
    expect([x, y].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([10, 19]);
  });
  it('negates local x on the bottom before turning', () => {
    expect(toBoard(part({ side: 'bottom' }), 1, 2)).toEqual([9, 22]);
  });
  it('finds any terminal again under its own point, on both sides and at any angle', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...PACKAGES.keys()),
        fc.integer({ min: -180, max: 180 }),
        fc.constantFrom('top' as const, 'bottom' as const),
        fc.nat(60),
        (id, rotation_deg, side, n) => {
          const terminals = PACKAGES.get(id)?.terminals ?? [];
          if (terminals.length === 0) return;
          const p = part({ package: id, rotation_deg, side });
          const t = terminals[n % terminals.length];
          const [x, y] = toBoard(p, t.land.x, t.land.y);
          expect(terminalAt(p, x, y)).toBe(t.id);
        },
      ),
    );
  });
});

describe('scene', () => {
  const board = expressBoard({ package: 'QFN-24', boardKind: 'four-layer', plastic: 'pbt', distance_mm: 4 });
  it('shows a side with its parts, lands under bodies, of the other side pins only', () => {
    const top = boardScene(board, 'top');
    const styles = top.shapes.map((s) => s.style);
    expect(styles[0]).toBe('board');
    expect(styles.lastIndexOf('land')).toBeLessThan(styles.indexOf('mould'));
    expect(top.labels.map((l) => l.partId)).toEqual(expect.arrayContaining(['target', 'plastic']));
    // the plug's pins come through, the QFN shows nothing
    const under = boardScene(board, 'bottom');
    expect(under.labels.map((l) => l.partId)).toEqual(['plastic']);
    const pins = under.shapes.filter((shape) => shape.partId === 'plastic' && shape.style === 'land');
    const plug = board.parts.find((p) => p.partId === 'plastic') as PlacedPart;
    const wanted = packageById(plug.package).terminals.map((t) => toBoard(plug, t.land.x, t.land.y));
    expect(pins.map((p) => p.points[0])).toEqual(wanted);
    const [x, y] = wanted[0];
    expect(partAt(board, 'bottom', x, y)?.partId).toBe('plastic');
    expect(partAt(board, 'bottom', plug.x_mm, plug.y_mm + 3.5)).toBeNull();
  });
  it('is worked on from the solder side where all joints are pins, except by air', () => {
    const dip = part({ package: 'DIP-8', side: 'top' });
    const sides = [workSide(dip, 'remove'), workSide(dip, 'remove', [vacuum()]), workSide(dip, 'remove', [air()])];
    expect(sides).toEqual(['bottom', 'bottom', 'top']);
    // whatever took it off, its holes are cleared, and its pins soldered, from there
    expect([workSide(dip, 'prepare', [air()]), workSide(dip, 'fit', [air()])]).toEqual(['bottom', 'bottom']);
    expect(workSide({ ...dip, side: 'bottom' }, 'fit')).toBe('top');
    expect(workSide(part({ package: 'SOIC-8', side: 'bottom' }), 'remove')).toBe('bottom');
  });
  it('calls layers as people do', () => {
    expect([0, 1, 2, 3].map((l) => layerName(l, 4))).toEqual(['top', 'inner 1', 'inner 2', 'bottom']);
    expect([layerName(0, 1), layerName(1, 2)]).toEqual(['top', 'bottom']);
  });
  it('names rails and nets that lead nowhere', () => {
    const rail = { id: 'r', label: '5 V', partId: 'target', terminal: '1' };
    expect(looseEnds({ ...board, rails: [rail] })).toEqual([]);
    expect(looseEnds({ ...board, rails: [{ ...rail, terminal: '99' }] })[0]).toMatch(/^rail 5 V: .*no terminal 99$/);
    expect(looseEnds({ ...board, rails: [{ ...rail, partId: 'ghost' }] })[0]).toMatch(/no part "ghost"/);
    const [first, ...rest] = board.parts;
    expect(looseEnds({ parts: [{ ...first, nets: { '77': '3V3' } }, ...rest] })[0]).toMatch(
      /^net 3V3: .*no terminal 77$/,
    );
  });
  it('picks the part under a point, the smaller one where two overlap', () => {
    const stacked = {
      ...board,
      parts: [part({ partId: 'big', package: 'QFP-64' }), part({ partId: 'small', package: 'R0603' })],
    };
    expect(partAt(stacked, 'top', 10, 20)?.partId).toBe('small');
    expect(partAt(stacked, 'top', 14, 20)?.partId).toBe('big');
    expect(partAt(stacked, 'top', 40, 40)).toBeNull();
    expect(partAt(stacked, 'bottom', 10, 20)).toBeNull();
    expect(partAt({ ...board, parts: [] }, 'top', 10, 20)).toBeNull();
  });
  it('picks as a look at every part does, whichever way they are turned', () => {
    const random = seeded(11);
    const kinds = ['QFP-64', 'R0603', 'DIP-8', 'SOT-23', 'CONN-PBT-8'];
    const many = Array.from({ length: 200 }, (_, n) =>
      part({
        partId: `p${n}`,
        package: kinds[n % kinds.length],
        side: n % 3 === 0 ? 'bottom' : 'top',
        x_mm: 100 * random(),
        y_mm: 80 * random(),
        rotation_deg: 360 * random(),
      }),
    );
    const all = { ...board, parts: many };
    let hits = 0;
    for (let n = 0; n < 400; n++) {
      const [x, y, slack] = [100 * random(), 80 * random(), n % 2 ? 0 : 0.5];
      const side = n % 4 < 2 ? 'top' : 'bottom';
      const under = many.filter((p) => {
        const [lx, ly] = toLocal(p, x, y);
        const covers = (r: Rect) => Math.abs(lx - r.x) <= r.w / 2 + slack && Math.abs(ly - r.y) <= r.h / 2 + slack;
        const { body, terminals } = packageById(p.package);
        const here = p.side === side;
        return (
          (here && covers({ x: 0, y: 0, w: body.l, h: body.w })) ||
          terminals.some((t) => (here || t.drill_mm) && covers(t.land))
        );
      });
      const size = (p: (typeof many)[number]) => {
        const { l, w } = packageById(p.package).body;
        return l * w;
      };
      const least = Math.min(...under.map(size));
      expect(partAt(all, side, x, y, slack)?.partId).toBe(under.find((p) => size(p) === least)?.partId);
      hits += under.length > 0 ? 1 : 0;
    }
    expect(hits).toBeGreaterThan(100);
  });
});

describe('express boards', () => {
  it('are valid models with the plastic at the distance asked for', () => {
    for (const boardKind of Object.keys(BOARD_KINDS) as (keyof typeof BOARD_KINDS)[])
      for (const plastic of Object.keys(PLASTICS) as (keyof typeof PLASTICS)[])
        expect(
          boardModelSchema.safeParse(expressBoard({ package: 'SOIC-8', boardKind, plastic, distance_mm: 3 })).success,
        ).toBe(true);
    const b = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'pbt', distance_mm: 3 });
    const [ic, plug] = b.parts;
    expect(plug.x_mm - 9 / 2 - (ic.x_mm + 3.9 / 2)).toBeCloseTo(3, 9);
  });
  it('refuse with a sentence', () => {
    const parsed = expressSchema.safeParse({ package: 'WARP-9', boardKind: 'thin', plastic: 'pbt', distance_mm: 99 });
    expect(parsed.error?.issues.map((i) => i.path[0])).toEqual(['package', 'distance_mm']);
  });
});

describe('content hash', () => {
  it('does not depend on the order of keys, nor on the sign of zero', () => {
    expect(contentHash({ a: 1, b: [0, { c: -0, d: undefined }] })).toBe(contentHash({ b: [-0, { c: 0 }], a: 1 }));
  });
  it('changes with any value', () => {
    fc.assert(
      fc.property(fc.jsonValue(), fc.jsonValue(), (a, b) => {
        expect(contentHash(a) === contentHash(b)).toBe(canonicalJson(a) === canonicalJson(b));
      }),
    );
    expect(contentHash({ a: 1 })).not.toBe(contentHash({ a: 2 }));
  });
  it('is the SHA-256 of the text', () => {
    expect(contentHash({})).toBe('44136fa355b3678a1146ad16f7e8649e94fb4fc21fe77e8310c060f61caaff8a');
  });
});
