import { describe, expect, it } from 'vitest';
import type { BoardModel, PlacedPart } from '../src/board/index.ts';
import { packageById } from '../src/packages/index.ts';
import { property } from '../src/materials/property.ts';
import { DEFAULT_STATION } from '../src/rework/station.ts';
import { stintsOf } from '../src/rework/stints.ts';
import { buildLumps } from '../src/rework/bench/buildLumps.ts';
import { phaseFor } from './plans.ts';
import type { PlanInput } from '../src/rework/planForm.ts';
import { meshBoard, overlapOnMesh, sheetConductance, targetBox } from '../src/thermal/boardMesh.ts';

const target: PlacedPart = { partId: 't', package: 'QFP-44', x_mm: 40, y_mm: 30, rotation_deg: 0, side: 'top' };
const board = (change: Partial<BoardModel> = {}): BoardModel => ({
  v: 1,
  name: 'test',
  outline_mm: [
    [0, 0],
    [80, 0],
    [80, 60],
    [0, 60],
  ],
  thickness_mm: 1.6,
  stack: [
    { name: 'top', foil_um: 35, coverage: 0.3 },
    { name: 'bottom', foil_um: 35, coverage: 0.6 },
  ],
  copper: [],
  vias: [],
  holes: [],
  parts: [target],
  landmarks: [],
  flipAxis_mm: 40,
  powerSources: [],
  jointAlloy: 'SAC305',
  ...change,
});
const at = (mesh: ReturnType<typeof meshBoard>, x_mm: number, y_mm: number) => {
  let found = -1;
  overlapOnMesh(mesh, { x0: x_mm, x1: x_mm + 1e-3, y0: y_mm, y1: y_mm + 1e-3 }, (c) => (found = c));
  return found;
};

describe('planning mesh', () => {
  it('covers the board, keeps the budget, is fine under the target and coarse at the rim', () => {
    for (const budget of [3000, 14_000]) {
      const { grid, ex, ey } = meshBoard(board(), target, budget);
      expect(grid.dx.length * grid.dy.length * 4).toBeLessThanOrEqual(budget);
      expect(ex[ex.length - 1] - ex[0]).toBeCloseTo(0.08, 9);
      expect(ey[ey.length - 1] - ey[0]).toBeCloseTo(0.06, 9);
    }
    const fine = meshBoard(board(), target, 14_000).grid;
    expect(Math.min(...fine.dx)).toBeLessThan(0.8e-3);
    expect(Math.max(...fine.dx)).toBeGreaterThan(3 * Math.min(...fine.dx));
  });
  it('takes measured copper from its grid, cell by cell, and lets patches win over it', () => {
    // left half bare, right half full, on 2 mm cells
    const bytes = Uint8Array.from({ length: 40 * 30 }, (_, i) => (i % 40 < 20 ? 0 : 255));
    const grid = { layer: 0, x_mm: 0, y_mm: 0, cell_mm: 2, nx: 40, ny: 30, data: btoa(String.fromCharCode(...bytes)) };
    const measured = meshBoard(board({ coverage: [grid] }), target, 14_000);
    const plain = meshBoard(board(), target, 14_000);
    expect(sheetConductance(measured, at(measured, 10, 10))).toBeLessThan(sheetConductance(plain, at(plain, 10, 10)));
    expect(sheetConductance(measured, at(measured, 70, 10))).toBeGreaterThan(
      2 * sheetConductance(measured, at(measured, 10, 10)),
    );
    const patched = meshBoard(
      board({ coverage: [grid], copper: [{ x_mm: 0, y_mm: 0, w_mm: 20, h_mm: 20, layer: 0, coverage: 1 }] }),
      target,
      14_000,
    );
    expect(sheetConductance(patched, at(patched, 10, 10))).toBeCloseTo(
      sheetConductance(measured, at(measured, 70, 10)),
      6,
    );
  });
  it('cuts a very large board off far from the target and says on which sides', () => {
    const large = board({
      outline_mm: [
        [0, 0],
        [400, 0],
        [400, 60],
        [0, 60],
      ],
    });
    const { cut, ex } = meshBoard(large, target, 14_000);
    expect(cut).toEqual({ west: false, east: true, north: false, south: false });
    expect(ex[ex.length - 1]).toBeLessThan(0.13);
  });
  it('puts foils into the right slabs: outer ones outside, none in the middle of a two-layer board', () => {
    const { grid, columns } = meshBoard(board(), target, 3000);
    const k = [0, 1, 2, 3].map((l) => grid.kx[l * columns]);
    expect(k[0]).toBeGreaterThan(4 * k[1]);
    expect(k[1]).toBeCloseTo(0.85, 9);
    expect(k[2]).toBeCloseTo(0.85, 9);
    expect(k[3]).toBeGreaterThan(k[0]);
  });
  it('turns the stack over for work on the bottom', () => {
    const bottom = { ...target, side: 'bottom' as const };
    const top = meshBoard(board(), target, 3000);
    const turned = meshBoard(board({ parts: [bottom] }), bottom, 3000);
    expect(turned.grid.kx[0]).toBeCloseTo(top.grid.kx[3 * top.columns], 9);
  });
  it('a copper patch and vias count where they lie, the later patch wins', () => {
    const patch = { x_mm: 30, y_mm: 20, w_mm: 20, h_mm: 20, layer: 0 };
    const mesh = meshBoard(
      board({
        copper: [
          { ...patch, coverage: 1 },
          { ...patch, x_mm: 40, coverage: 0.1 },
        ],
        vias: [{ x_mm: 34, y_mm: 24, w_mm: 4, h_mm: 4, per_mm2: 1 }],
      }),
      target,
      14_000,
    );
    const [inside, later, outside] = [at(mesh, 33, 30), at(mesh, 45, 30), at(mesh, 10, 30)];
    expect(sheetConductance(mesh, inside)).toBeGreaterThan(sheetConductance(mesh, outside));
    expect(sheetConductance(mesh, later)).toBeLessThan(sheetConductance(mesh, outside));
    // foil takes its thickness off the laminate's way: 35 µm of a slab of 0.2 mm, all of it under the patch
    const through = (coverage: number) => 0.32 / (1 - (0.035 / 0.2) * coverage);
    expect(mesh.grid.kz[at(mesh, 36, 26)]).toBeCloseTo(through(1) + 8.4, 6);
    expect(mesh.grid.kz[outside]).toBeCloseTo(through(board().stack[0].coverage), 9);
    // the middle of two layers is laminate alone
    expect(mesh.grid.kz[outside + mesh.columns]).toBeCloseTo(0.32, 9);
  });
  it('knows the box of body and lands, turned with the part', () => {
    const tab: PlacedPart = { ...target, package: 'DPAK' };
    const [upright, turned] = [targetBox(tab), targetBox({ ...tab, rotation_deg: 90 })];
    expect(turned.x1 - turned.x0).toBeCloseTo(upright.y1 - upright.y0, 9);
  });
});

describe('lumps of a plan', () => {
  const near: PlacedPart = { partId: 'r1', package: 'R0603', x_mm: 50, y_mm: 30, rotation_deg: 0, side: 'top' };
  const plug: PlacedPart = { partId: 'j1', package: 'CONN-PBT-8', x_mm: 40, y_mm: 50, rotation_deg: 0, side: 'top' };
  const lumpsOf = (parts: PlacedPart[], recipe = 'air-slow', aim = target) => {
    const b = board({ parts: [aim, ...parts] });
    const input: PlanInput = {
      board: b,
      target: 't',
      phases: [phaseFor('QFP-44', recipe)],
      station: DEFAULT_STATION,
      ambient_C: 20,
      quality: 'plan',
      frames: false,
    };
    const mesh = meshBoard(b, aim, 14_000);
    return { lumps: buildLumps(input, stintsOf(input.phases), mesh, aim), mesh };
  };

  it('one joint per terminal, linked to the body and to its own land', () => {
    const { lumps } = lumpsOf([]);
    expect(lumps.joints).toHaveLength(44);
    for (const j of lumps.joints) {
      expect(lumps.links.some((l) => 'node' in l && l.a === j.node && l.node === lumps.body)).toBe(true);
      const land = lumps.links.filter((l) => 'cell' in l && l.a === j.node).reduce((s, l) => s + l.G, 0);
      expect(land).toBeCloseTo(2e5 * j.terminal.land.w * j.terminal.land.h * 1e-6, 6);
    }
  });
  it('has no joint where a land is missing by design', () => {
    const { lumps } = lumpsOf([], 'air-slow', { ...target, noLand: ['3', '17'] });
    expect(lumps.joints).toHaveLength(42);
    expect(lumps.joints.some((j) => j.terminal.id === '3')).toBe(false);
  });
  it('links no node twice to one cell', () => {
    const { lumps } = lumpsOf([near, plug]);
    const pairs = lumps.links.flatMap((l) => ('cell' in l ? [`${l.a}:${l.cell}`] : []));
    expect(new Set(pairs).size).toBe(pairs.length);
  });
  it('cuts a long plug into pieces, so that its near end is seen', () => {
    const { lumps } = lumpsOf([plug]);
    expect(lumps.neighbours[0].nodes.length).toBe(5);
    expect(lumps.neighbours[0].distance_mm).toBeCloseTo(50 - 4.5 - 35, 6);
    const heat = lumps.neighbours[0].nodes.reduce((s, n) => {
      const node = lumps.nodes[n];
      return s + (node.type === 'body' ? node.C : 0);
    }, 0);
    expect(heat).toBeCloseTo(packageById('CONN-PBT-8').C_J_K, 9);
  });
  it('counts delicate neighbours from further off than sturdy ones, on either side', () => {
    const of = (parts: PlacedPart[]) => lumpsOf(parts).lumps.neighbours;
    const ids = (parts: PlacedPart[]) => of(parts).map((n) => n.part.partId);
    const away = { x_mm: 64, y_mm: 30 };
    expect(ids([{ ...near, ...away }])).toEqual([]);
    expect(ids([{ ...near, ...away, limit: 'cell' }])).toEqual(['r1']);
    // what is light on the other side is as warm as the board
    expect(of([{ ...near, side: 'bottom' }])).toMatchObject([{ far: true, nodes: [] }]);
    expect(ids([{ ...near, ...away, limit: 'cell', side: 'bottom' }])).toEqual(['r1']);
  });
  it('shades the board under bodies', () => {
    const { lumps, mesh } = lumpsOf([]);
    expect(lumps.shaded.get(at(mesh, 40, 30))).toBeCloseTo(1, 6);
    expect(lumps.shaded.has(at(mesh, 60, 30))).toBe(false);
  });
  it('the iron can reach every joint, the bead joins neighbours of a row', () => {
    const { lumps } = lumpsOf([], 'bead');
    expect(lumps.tips[0][0].contact).toHaveLength(44);
    const contact = lumps.tips[0][0].contact;
    expect(contact.every((i) => lumps.links[i].a === lumps.tips[0][0].node)).toBe(true);
    const bead = lumps.links.filter((l) => 'node' in l && l.a !== lumps.tips[0][0].node && l.node !== lumps.body);
    // eleven pins a side: ten gaps, four sides; the corners are further apart than a bead bridges
    expect(bead).toHaveLength(40);
  });
  it('a limit that is not in the table is an error, not a guess', () => {
    expect(() => lumpsOf([{ ...near, limit: 'magic' }])).toThrow(/No limit "magic"/);
  });
});

describe('data rows', () => {
  it('refuse what cannot be a property', () => {
    expect(() => property(NaN, 'K', 1, 'book')).toThrow();
    expect(() => property(1, 'K', -1, 'book')).toThrow();
    expect(() => property(1, '', 1, 'book')).toThrow();
    expect(() => property(1, 'K', 1, '')).toThrow();
    expect(property(1, 'K', 0.1, 'book').value).toBe(1);
  });
});
