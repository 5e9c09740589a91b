/** Boards, parts, tools and surroundings as chance has them: what no run may come to grief on. */
import type { BoardModel, PlacedPart } from '../src/board/boardModel.ts';
import { encodeBytes } from '../src/copper/bytes.ts';
import { boxOnBoard } from '../src/board/index.ts';
import { packageById, type PackageModel } from '../src/packages/index.ts';
import { DEFAULT_STATION } from '../src/rework/station.ts';
import { methodsFor } from '../src/rework/methods/choose.ts';
import { mainPhase } from '../src/rework/methods/method.ts';
import { reachOf } from '../src/rework/phases/rows.ts';
import { stintsOf } from '../src/rework/stints.ts';
import { randomOf } from '../src/ground/numerics/random.ts';
import type { Phase } from '../src/rework/phases/schema.ts';
import { changed, spike } from './plans.ts';
import type { PlanInput } from '../src/rework/planForm.ts';

const CHIPS = ['0201', '0402', '0603', '0805', '1206', '2512'].flatMap((s) => [`C${s}`, `R${s}`]);
const NEIGHBOURS = [
  ...CHIPS,
  ...CHIPS,
  'LED-0603',
  'SOT-23',
  'SOIC-8',
  'QFN-24',
  'CAN-6.3',
  'IND-5',
  'CONN-PBT-8',
  'CONN-LCP-6',
  'BGA-64',
  'XTAL-3225',
  'SHIELD-14',
  'DIP-8',
];
const TARGETS = [
  'SOIC-8',
  'SOIC-16',
  'C0402',
  'C0805',
  'R2512',
  'QFP-48',
  'QFN-32',
  'DPAK',
  'D2PAK',
  'BGA-64',
  'DIP-8',
  'DIP-16',
  'CONN-12',
  'CAN-8',
  'PLCC-28',
  'SOT-223',
  'FLEX-8',
  'MOD-16',
];

/** Copper in lumps: runs of tracks, pours, bare laminate, on 1 mm cells. */
function patchy(random: () => number, layer: number, size: number): NonNullable<BoardModel['coverage']>[number] {
  const n = Math.ceil(size);
  const kind = random();
  const bytes = Uint8Array.from({ length: n * n }, () => {
    const r = random();
    if (kind < 0.4) return Math.round(255 * r);
    if (kind < 0.7) return r < 0.5 ? 0 : 255;
    return Math.round(255 * (0.25 + 0.3 * r));
  });
  return { layer, x_mm: 0, y_mm: 0, cell_mm: 1, nx: n, ny: n, data: encodeBytes(bytes) };
}

const gapOf = (a: PlacedPart, b: PlacedPart) => {
  const box = (p: PlacedPart) => {
    const pkg: PackageModel = packageById(p.package);
    const rects = [{ x: 0, y: 0, w: pkg.body.l, h: pkg.body.w }, ...pkg.terminals.map((t) => t.land)];
    const boxes = rects.map((r) => boxOnBoard(p, r));
    return {
      x0: Math.min(...boxes.map((q) => q.x0)),
      x1: Math.max(...boxes.map((q) => q.x1)),
      y0: Math.min(...boxes.map((q) => q.y0)),
      y1: Math.max(...boxes.map((q) => q.y1)),
    };
  };
  const [p, q] = [box(a), box(b)];
  return Math.max(p.x0 - q.x1, q.x0 - p.x1, p.y0 - q.y1, q.y0 - p.y1);
};

/** Plan number `n` of a fixed sequence, lasting `least_s` to three times that. */
export function randomPlan(n: number, quality: PlanInput['quality'] = 'search', least_s = 5): PlanInput {
  const random = randomOf(7919 * n + 13);
  const among = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const between = (a: number, b: number) => a + (b - a) * random();
  const size = between(30, 110);
  const layers = among([1, 2, 2, 4, 4, 6]);
  const target: PlacedPart = {
    partId: 'target',
    package: among(TARGETS),
    x_mm: between(0.35, 0.65) * size,
    y_mm: between(0.35, 0.65) * size,
    rotation_deg: among([0, 90, 45, 180]),
    side: among(['top', 'top', 'bottom']),
  };
  const parts = [target];
  for (let k = 0; k < 60 && parts.length < 25; k++) {
    const away = between(1, 16);
    const turn = between(0, 2 * Math.PI);
    const part: PlacedPart = {
      partId: `n${k}`,
      package: among(NEIGHBOURS),
      x_mm: target.x_mm + away * Math.cos(turn),
      y_mm: target.y_mm + away * Math.sin(turn),
      rotation_deg: among([0, 90, 45]),
      side: random() < 0.85 ? target.side : target.side === 'top' ? 'bottom' : 'top',
    };
    if (parts.every((p) => p.side !== part.side || gapOf(p, part) > 0.2)) parts.push(part);
  }
  const around = () => ({
    x_mm: target.x_mm + between(-12, 4),
    y_mm: target.y_mm + between(-12, 4),
    w_mm: between(2, 14),
    h_mm: between(2, 14),
  });
  const foil = () => among([18, 35, 35, 70, 105]);
  const board: BoardModel = {
    v: 1,
    name: `board ${n}`,
    outline_mm: [
      [0, 0],
      [size, 0],
      [size, size],
      [0, size],
    ],
    thickness_mm: among([0.4, 0.6, 0.8, 1, 1.6, 1.6, 2.4]),
    stack: Array.from({ length: layers }, (_, i) => ({
      name: `L${i + 1}`,
      foil_um: foil(),
      coverage: between(0.1, 0.95),
    })),
    ...(random() < 0.6 ? { coverage: Array.from({ length: layers }, (_, i) => patchy(random, i, size)) } : {}),
    copper: Array.from({ length: Math.floor(between(0, 6)) }, () => ({
      ...around(),
      layer: Math.floor(random() * layers),
      coverage: among([0, 0.5, 1]),
    })),
    vias: Array.from({ length: Math.floor(between(0, 3)) }, () => ({ ...around(), per_mm2: between(0.1, 4) })),
    holes: [],
    parts,
    landmarks: [],
    flipAxis_mm: size / 2,
    powerSources: [],
    jointAlloy: among(['SAC305', 'Sn63Pb37']),
  };
  const phases = phasesOf(target.package, random, Math.round(between(least_s, 3 * least_s)));
  const under = among([
    undefined,
    undefined,
    { kind: 'preheater', T_C: between(80, 200), h: between(20, 800) },
    { kind: 'infrared', flux_W_m2: between(2000, 20_000) },
    { kind: 'mat', contact_R: 2e-3, h: 60 },
  ] as const);
  const cover = () => ({
    kind: among(['tape', 'foil', 'foil-off', 'strip', 'thick'] as const),
    partId: among(parts).partId,
  });
  return {
    board,
    target: 'target',
    phases,
    station: DEFAULT_STATION,
    ambient_C: 22,
    quality,
    frames: false,
    ...(under ? { under } : {}),
    ...(random() < 0.3 ? { held: { kind: 'frame' as const, width_mm: 4 } } : {}),
    ...(random() < 0.4 ? { covers: [cover(), cover(), cover()] } : {}),
    ...(random() < 0.3
      ? { sinks: [{ kind: among(['heatsink', 'clip', 'shield', 'glue'] as const), partId: among(parts).partId }] }
      : {}),
    ...(random() < 0.2 ? { joints: [{ corroded: true }] } : {}),
  };
}

/** One of the methods that suit the package, driven harder than anybody would; some after a spike. */
function phasesOf(pkg: string, random: () => number, limit_s: number): Phase[] {
  const between = (a: number, b: number) => a + (b - a) * random();
  const choices = methodsFor(pkg).filter((m) => !m.unfit && m.method.phases.length === 1);
  // every third by air, as far as there is a choice
  const irons = choices.filter((m) => mainPhase(m.method).kind !== 'air');
  const pool = irons.length > 0 && random() < 0.67 ? irons : choices;
  const phase = mainPhase(pool[Math.floor(random() * pool.length)].method);
  if (phase.kind !== 'air') {
    const tip_mm = between(0.8, 6);
    const set_C = Math.round(between(280, 450));
    if (phase.kind !== 'stroke') return [changed(phase, { set_C, tip_mm, limit_s })];
    const two = reachOf(pkg).sides > 1 && random() < 0.4;
    const stroke_s = limit_s / 2;
    return [changed(phase, { set_C, tip_mm, stroke_s, limit_s, ...(two ? { irons: 2 as const } : {}) })];
  }
  const blown = changed(phase, {
    set_C: Math.round(between(250, 520)),
    flow_L_min: Math.round(between(8, 110)),
    nozzle_mm: Math.round(between(4, 12)),
    standoff_mm: Math.round(between(4, 30)),
    sweep_mm: between(0, 8),
    limit_s,
    ...(random() < 0.3 ? { stages: [{ from_s: 10, standoff_mm: Math.round(between(4, 12)) }] } : {}),
    ...(random() < 0.2 ? { pulse: { on_s: between(0.5, 5), off_s: between(0.5, 5) } } : {}),
    ...(random() < 0.2 ? { tilt_deg: between(5, 50), approach_deg: between(0, 360) } : {}),
  });
  if (random() > 0.3) return [blown];
  return [spike({ ratio: between(0.1, 3), most_s: between(1, 8), limit_s }), blown];
}

/** The hottest thing anything on the board could meet, °C; infrared has its own balance. */
export function hottestSource_C({ phases, under }: PlanInput): number {
  if (under?.kind === 'infrared') return 900;
  return Math.max(...stintsOf(phases).map((s) => s.hottest_C), under?.kind === 'preheater' ? under.T_C : 0);
}
