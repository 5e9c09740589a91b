import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { jointVolume } from '../src/alloys/jointVolume.ts';
import { type BoardModel, boardModelSchema } from '../src/board/index.ts';
import {
  extentOf,
  FAMILIES,
  findPackages,
  gripOf,
  packageById,
  packagesByLegs,
  packageDesignation,
  PackageParamError,
  PACKAGES,
  packageTrouble,
  readDesignation,
  readPackage,
  solderVolume,
  type Terminal,
} from '../src/packages/index.ts';
import { LIMITS } from '../src/materials/limits.ts';
import { expressBoard } from '../src/rework/expressBoard.ts';
import { LAND_ROWS } from './landsTable.ts';
import { expectNote, landsNote } from './notes.ts';

const terminal = (pkg: string, id: string) => {
  const found = packageById(pkg).terminals.find((t) => t.id === id);
  if (!found) throw new Error(`${pkg} has no ${id}`);
  return found.land;
};

describe('lands against published patterns', () => {
  it('are what the note says', () => expectNote('lands', landsNote()));
  it('are at least eighty, each with its standard', () => {
    expect(LAND_ROWS.length).toBeGreaterThanOrEqual(80);
    expect(LAND_ROWS.filter((r) => r.mass).length).toBeGreaterThanOrEqual(40);
    for (const r of LAND_ROWS) expect(r.standard.length, r.package).toBeGreaterThan(3);
  });
  it.each(LAND_ROWS.map((r) => [r.package, r] as const))('%s', (_, { across, pitch, lands, mass }) => {
    expect(Math.abs(across[1] - across[0])).toBeLessThanOrEqual(0.21);
    expect(lands[1]).toBe(lands[0]);
    if (pitch) expect(pitch[1]).toBeCloseTo(pitch[0], 6);
    if (mass) {
      expect(mass[1] / mass[0]).toBeGreaterThan(0.7);
      expect(mass[1] / mass[0]).toBeLessThan(1.4);
    }
  });
});

describe('families', () => {
  it.each([...FAMILIES.values()])('$id draws its initial values', (family) => {
    const id = packageDesignation(family.id, {});
    const p = packageById(id);
    expect(p.family).toBe(family.id);
    expect(p.C_J_K).toBeGreaterThan(0);
    expect(LIMITS.has(p.limit)).toBe(true);
    expect(new Set(p.terminals.map((t) => t.id)).size).toBe(p.terminals.length);
    const e = extentOf(p);
    expect(e.x1 - e.x0).toBeGreaterThanOrEqual(p.body.l - 1e-9);
  });
  it('write any fitting values down and read the same package back', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...FAMILIES.values()),
        fc.array(fc.double({ min: 0, max: 1, noNaN: true }), { minLength: 12, maxLength: 12 }),
        (family, draws) => {
          const raw: Record<string, number | string> = {};
          for (const [n, [key, p]] of Object.entries(family.params).entries()) {
            const d = draws[n % draws.length];
            if ('choices' in p) raw[key] = p.choices[Math.min(p.choices.length - 1, Math.floor(d * p.choices.length))];
            else {
              const v = p.min + d * (p.max - p.min);
              raw[key] = p.whole ? Math.round(v) : Math.round(v * 1000) / 1000;
            }
          }
          let id: string;
          try {
            id = packageDesignation(family.id, raw);
          } catch (error) {
            expect(error).toBeInstanceOf(PackageParamError);
            return;
          }
          const p = packageById(id);
          expect(packageDesignation(family.id, readDesignation(id)?.raw ?? {})).toBe(id);
          expect(new Set(p.terminals.map((t) => t.id)).size).toBe(p.terminals.length);
          for (const t of p.terminals) {
            for (const v of [t.land.x, t.land.y, t.land.w, t.land.h, t.volume_mm3, t.G_W_K])
              expect(Number.isFinite(v)).toBe(true);
            expect(Math.min(t.land.w, t.land.h, t.volume_mm3, t.G_W_K)).toBeGreaterThan(0);
          }
        },
      ),
      { numRuns: 400 },
    );
  });
  it('are symmetric: turned by half a turn, the lands of rows and sides lie on lands', () => {
    for (const id of ['SOIC-16W', 'QFP-144', 'QFN-56', 'PLCC-28', 'DIP-24', 'MOD-40', 'BGA-64', 'SON-8']) {
      const lands = packageById(id).terminals.map((t) => t.land);
      for (const a of lands)
        expect(lands.some((b) => Math.hypot(a.x + b.x, a.y + b.y) < 1e-9 && Math.abs(a.w - b.w) < 1e-9)).toBe(true);
    }
  });
  it('pin 1 of a PLCC is the middle of a side', () => {
    expect(Math.abs(terminal('PLCC-44', '1').y)).toBeLessThan(0.01);
    expect(terminal('PLCC-44', '2').y).toBeGreaterThan(0);
  });
  it.each([
    ['gull-four', { pins: 43 }, /multiple of four/],
    ['gull-rows', { span: 3 }, /span larger than the body/],
    ['leadless-four', { pad: 3.9 }, /no room/],
    ['gull-four', { pins: 100, pitch: 1 }, /longer than the body/],
    ['gull-rows', { pins: 8.5 }, /whole number/],
    ['gull-rows', { h: 'tall' }, /h: is a number/],
    ['gull-rows', { colour: 3 }, /colour: is not a parameter/],
    ['box', { limit: 'jelly' }, /one of/],
    ['teapot', {}, /no package family/],
  ])('%s %j is refused', (family, raw, message) => {
    expect(() => packageDesignation(family, raw)).toThrow(message);
  });
});

describe('packages on boards', () => {
  const board = (pkg: string): BoardModel => {
    const b = expressBoard({ package: 'SOIC-8', boardKind: 'thin', plastic: 'none', distance_mm: 5 });
    return { ...b, parts: b.parts.map((p) => ({ ...p, package: pkg })) };
  };
  it('may be of one’s own', () => {
    expect(boardModelSchema.safeParse(board('gull-four:pins=80,pitch=0.5,body=12,span=14')).success).toBe(true);
    expect(packageById('gull-four:pins=80,pitch=0.5,body=12,span=14').terminals).toHaveLength(80);
  });
  it.each(['gull-four:pins=81', 'gull-four:pins=80,pins=44', 'warp', 'gull-four:pins', 'box:l=1e999', '__proto__'])(
    'refuse %s with a sentence',
    (id) => {
      const parsed = boardModelSchema.safeParse(board(id));
      expect(parsed.success).toBe(false);
      expect(packageTrouble(id)).toMatch(/\w+/);
    },
  );
});

/** Gap between two lands of a package, mm; negative where they overlap. */
function landGap(a: Terminal, b: Terminal): number {
  const [dx, dy] = [Math.abs(a.land.x - b.land.x), Math.abs(a.land.y - b.land.y)];
  if (a.round && b.round) return Math.hypot(dx, dy) - (a.land.w + b.land.w) / 2;
  return Math.max(dx - (a.land.w + b.land.w) / 2, dy - (a.land.h + b.land.h) / 2);
}

describe('what an audit found', () => {
  it('no two lands of any package touch, but a power DFN’s drain fingers grow from its pad', () => {
    for (const p of PACKAGES.values())
      p.terminals.forEach((a, i) => {
        for (const b of p.terminals.slice(i + 1))
          if (p.id === 'PDFN-8' && Number(a.id) > 4 && b.id === 'EP') expect(landGap(a, b)).toBeCloseTo(0, 9);
          else expect(landGap(a, b), `${p.id} ${a.id} ${b.id}`).toBeGreaterThan(0.1);
      });
  });
  it('coils stand on pads far smaller than themselves', () => {
    const area = (id: string) => packageById(id).terminals.reduce((sum, t) => sum + t.land.w * t.land.h, 0);
    expect(area('IND-12')).toBeGreaterThan(25);
    expect(area('IND-12')).toBeLessThan(40);
    expect(area('IND-5')).toBeLessThan(12);
  });
  it('bodies weigh what they are made of', () => {
    const per_mm3 = (id: string) => {
      const { C_J_K, body } = packageById(id);
      return (1000 * C_J_K) / (body.l * body.w * body.h);
    };
    expect(per_mm3('FILM-15')).toBeCloseTo(2, 1);
    expect(per_mm3('RELAY-15')).toBeCloseTo(1.7, 1);
    expect(per_mm3('IND-8')).toBeCloseTo(3.4, 1);
    expect(per_mm3('XTAL-HC49')).toBeCloseTo(0.8, 1);
    expect(packageById('C2220').body.h).toBe(2.5);
    expect(per_mm3('TO-220')).toBeLessThan(1.6);
  });
  it('balls and legs are as many as the name says, on sides of their own length', () => {
    expect(packageById('BGA-153').terminals).toHaveLength(153);
    // three rows round, the middle empty
    expect(packageById('BGA-153').terminals.some((t) => Math.hypot(t.land.x, t.land.y) < 0.4)).toBe(false);
    for (const [id, along, over] of [
      ['PLCC-32', 9, 7],
      ['QFP-100-14x20', 30, 20],
      ['QFP-64-14x20', 19, 13],
      ['PLCC-44', 11, 11],
    ] as const) {
      const { terminals, body } = packageById(id);
      const left = terminals.filter((t) => t.land.x < -body.l / 2 + 1.2 && t.land.h < t.land.w);
      const top = terminals.filter((t) => t.land.y < -body.w / 2 + 1.2 && t.land.w < t.land.h);
      expect([left.length, top.length], id).toEqual([along, over]);
    }
    // counter-clockwise as seen from the top, from the middle of the upper side
    const first = packageById('PLCC-32').terminals[0].land;
    expect(first.x).toBeCloseTo(0, 9);
    expect(first.y).toBeLessThan(0);
  });
  it('what was missing is there, with joints, so that it can be a target', () => {
    for (const id of [
      ...['PLCC-32', 'QFP-100-14x20', 'SOIC-8W', 'TSOP-48', 'QSOP-16', 'SWITCH-SMD-6', 'SWITCH-THT-6', 'POT-SMD-4'],
      ...['BUZZER-SMD-9', 'BUZZER-THT-12', 'MIC-THT-10', 'L0603', 'CHOKE-SMD-4', 'HOLDER-20-FLAT', 'HOLDER-20-PINS'],
    ])
      expect(packageById(id).terminals.length, id).toBeGreaterThan(1);
  });
  it.each([
    ['SOIC-8', '1', 0.048],
    ['C0603', '1', 0.042],
    ['QFP-48', '1', 0.02],
    ['D2PAK', '1', 0.3],
    ['DIP-8', '1', 1.34],
  ])('%s %s holds what a stencil of 125 µm or its hole gives it: %d mm³', (id, terminal, mm3) => {
    const { volume_mm3 = NaN } = packageById(id).terminals.find((t) => t.id === terminal) ?? {};
    expect(volume_mm3 / mm3).toBeCloseTo(1, 1);
  });
  it('every printed joint is what joint.volume says of its land, whatever the package', () => {
    for (const { id, terminals } of PACKAGES.values())
      for (const { kind, land, volume_mm3 } of terminals) {
        if (kind === 'pin' || kind === 'ball') continue;
        const print = { stencil_mm: 0.125, transferTimesCoverage: 0.95, metalVolumeFraction: 0.5 };
        const said = jointVolume({ paste: { aperture_mm: [land.w, land.h], ...print }, wt: { Sn: 100 } }).volume_mm3;
        const open = kind === 'pad' || kind === 'tab' ? 0.7 : 1;
        expect(volume_mm3, `${id} ${kind}`).toBeCloseTo(open * said, 12);
      }
  });
  it('relays stand on their usual patterns: coil apart from the contacts, the common one alone at the end', () => {
    const at = (id: string) => packageById(id).terminals.map(({ land }) => [land.x, land.y]);
    const [coil, open, closed, coil2, common] = at('RELAY-15');
    expect([coil2[0] - coil[0], open[1] - coil[1], closed[0] - open[0]]).toEqual([12, 12.2, 12]);
    expect(coil[1] - common[1]).toBeCloseTo(2, 9);
    expect(common[0]).toBe(0);
    const steps = at('RELAY-29')
      .slice(0, 4)
      .map(([, y]) => y);
    expect(steps).toEqual([-12.5, 2.5, 7.5, 12.5]);
  });
  it('shells and frames stand on anchors of their own, which hold more than a signal', () => {
    const { terminals } = packageById('CONN-USB');
    const anchors = terminals.filter((t) => t.id.startsWith('S'));
    expect(anchors).toHaveLength(4);
    expect(Math.min(...anchors.map((t) => t.volume_mm3))).toBeGreaterThan(3 * terminals[0].volume_mm3);
  });
  it('a hole is as deep as its board', () => {
    const [hole] = packageById('DIP-8').terminals;
    expect(hole.volume_mm3).toBeCloseTo(1.34, 1);
    expect(solderVolume(hole, 1.6)).toBeCloseTo(hole.volume_mm3, 12);
    expect(solderVolume(hole, 0.8)).toBeCloseTo(0.65 * hole.volume_mm3, 12);
    expect(solderVolume(packageById('SOIC-8').terminals[0], 0.8)).toBe(packageById('SOIC-8').terminals[0].volume_mm3);
    const [block] = packageById('TERM-2').terminals;
    expect(block.volume_mm3).toBeGreaterThan(2.3);
  });
});

describe('finding a package as it is typed', () => {
  it.each([
    ['soic 8', 'SOIC-8'],
    ['soic8', 'SOIC-8'],
    ['SO-8', 'SOIC-8'],
    ['qfp44', 'QFP-44'],
    ['lqfp 64', 'QFP-64'],
    ['0603 res', 'R0603'],
    ['c0402', 'C0402'],
    ['can 6.3', 'CAN-6.3'],
    ['to-252', 'DPAK'],
    ['coin', 'CELL-16'],
    ['elko 10', 'CAN-10'],
  ])('%s', (text, id) => {
    expect(
      findPackages(text)
        .slice(0, 3)
        .map((p) => p.id),
    ).toContain(id);
  });
  it('puts a name that was turned round first', () => {
    for (const said of ['0402 c', 'c 0402', 'C0402', '0402c']) expect(findPackages(said)[0].id).toBe('C0402');
  });
  it('finds a part by its legs and size where nobody knows its name', () => {
    const first = (...counted: Parameters<typeof packagesByLegs>) => packagesByLegs(...counted)[0]?.id;
    expect(first({ legs: 11, sides: 4, body_mm: [10, 10] })).toBe('QFP-44');
    expect(first({ legs: 2, sides: 2, body_mm: [1.3, 2.9] })).toBe('SOT-23');
    expect(first({ legs: 4, sides: 2, body_mm: [3.9, 4.9] })).toBe('SOIC-8');
    expect(first({ legs: 4, sides: 2, body_mm: [9.4, 6.4] })).toBe('DIP-8');
    expect(packagesByLegs({ legs: 3, sides: 1 }).map((p) => p.id)).toContain('TO-220');
    expect(packagesByLegs({ legs: 977, sides: 4 })).toEqual([]);
    // without a size all that have as many, and no ball grid by its outer rows
    for (const p of packagesByLegs({ legs: 4, sides: 2 })) expect(p.terminals.length).toBeGreaterThanOrEqual(5);
  });
  it('makes a neighbour of a typed box', () => {
    const [p] = findPackages('box 12 4 3 pbt');
    expect([p.body.l, p.body.w, p.body.h, p.limit]).toEqual([12, 4, 3, 'pbt-gf']);
    expect(findPackages('round 10 16 cell')[0]).toMatchObject({ shape: 'round', texture: 'metal', limit: 'cell-li' });
    expect(findPackages('box')).not.toHaveLength(0);
  });
  it('finds every row by its own name, first or second', () => {
    for (const p of PACKAGES.values())
      expect(
        findPackages(p.id)
          .slice(0, 2)
          .map((q) => q.id),
      ).toContain(p.id);
  });
  it.each([
    ['qfp 44', 'QFP-44'],
    ['QFP44', 'QFP-44'],
    ['0402 c', 'C0402'],
    ['r0603', 'R0603'],
    ['soic-8', 'SOIC-8'],
    ['sot 23', 'SOT-23'],
  ])('takes %s as %s', (text, id) => {
    expect(readPackage(text)).toEqual({ id });
  });
  it.each(['SOIC-20', 'warp 9', '', 'qf'])('takes "%s" as nothing, and says what is near', (text) => {
    const said = readPackage(text);
    expect('problem' in said && said.problem).toMatch(text ? /Near: .+/ : /Which package/);
  });
  it('finds nothing for nonsense', () => {
    expect(findPackages('zzz 99')).toEqual([]);
  });
});

describe('grip', () => {
  it.each([
    ['SOIC-8', 'both ends', 'tweezers'],
    ['R0402', 'both sides', 'fine tweezers'],
    ['QFP-44', 'top only', 'vacuum cup'],
    ['DPAK', 'both sides', 'tweezers'],
  ])('%s: %s by %s', (id, faces, tool) => {
    const grip = gripOf(packageById(id));
    expect([faces === 'both sides' ? ['both sides', 'both ends'] : [faces]].flat()).toContain(grip.faces);
    expect(grip.tool).toBe(tool);
    expect(grip.height_mm).toBeGreaterThan(0);
  });
});
