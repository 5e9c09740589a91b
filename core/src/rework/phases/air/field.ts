/**
 * Hot air over board and lumps: the jet of `thermal/jet`, averaged over the moving hand and the mouth of the nozzle, leaning
 * where the nozzle leans, changing where the setting changes it.
 */
import { type BoardMesh, type Jet, jetOf, type JetSetting, tabulated } from '../../../thermal/index.ts';
import type { Exposed, Lumps } from '../../bench/lumps.ts';
import type { AirSettings } from './settings.ts';
import type { AirOn } from '../../bench/drive.ts';
import type { ReworkCase } from '../../bench/caseForm.ts';

/** Under a body only this part of the jet's heat transfer reaches the board (estimate). */
const UNDER_BODY = 0.12;
/** How far a leaning nozzle stretches its field down the wind, per sine of the angle (estimate). */
const LEAN = 0.6;

/** What the tool is set to at a time: as its stages have changed it by then. */
export function settingAt(settings: AirSettings, t: number): AirSettings {
  let at = settings;
  for (const s of settings.stages ?? [])
    if (s.from_s <= t + 1e-9)
      at = {
        ...at,
        set_C: s.set_C ?? at.set_C,
        flow_L_min: s.flow_L_min ?? at.flow_L_min,
        standoff_mm: s.standoff_mm ?? at.standoff_mm,
        sweep_mm: s.sweep_mm ?? at.sweep_mm,
      };
  return at;
}

/** Times at which the setting changes, and whether air flows at all. */
export const stageOf = (settings: AirSettings, t: number): number =>
  (settings.stages ?? []).filter((s) => s.from_s <= t + 1e-9).length;

/** Pulsed air is off between the pulses. */
export function blows({ pulse }: AirSettings, t: number): boolean {
  return !pulse || t % (pulse.on_s + pulse.off_s) < pulse.on_s - 1e-9;
}

/** Twelve places of the hand: round a circle, or spread evenly along a line (y points down on the board). */
function path(sweep: number, along_deg: number | undefined): [number, number][] {
  return Array.from({ length: 12 }, (_, n) => {
    const turn = along_deg === undefined ? (Math.PI * n) / 6 : (-Math.PI * along_deg) / 180;
    const out = along_deg === undefined ? sweep : (sweep * (2 * n - 11)) / 12;
    return [out * Math.cos(turn), out * Math.sin(turn)];
  });
}

/** Offsets of the jet's axis from where the hand aims, m: the path of the hand, and the mouth when it is no round hole. */
function offsets(settings: AirSettings): [number, number][] {
  const sweep = settings.sweep_mm / 1000;
  const hand = sweep > 0 ? path(sweep, settings.sweep_deg) : [[0, 0] as [number, number]];
  const { mouth } = settings;
  if (!mouth) return hand;
  const [w, h] = [mouth.w_mm / 2000, mouth.h_mm / 2000];
  const face: [number, number][] = [];
  for (const u of [-1, -1 / 3, 1 / 3, 1])
    for (const v of [-1, -1 / 3, 1 / 3, 1])
      if (mouth.kind === 'slot' || Math.max(Math.abs(u), Math.abs(v)) === 1) face.push([u * w, v * h]);
  // the mouth turns with nothing: its places and the hand's are averaged together
  return hand.flatMap(([a, b]) => face.map(([c, d]): [number, number] => [a + c, b + d]));
}

/** Heat transfer and driving temperature at a place relative to the aim, m, averaged over the offsets. */
function averaged(jet: Jet, places: readonly [number, number][], settings: AirSettings, x: number, y: number) {
  const lean = LEAN * Math.sin(((settings.tilt_deg ?? 0) * Math.PI) / 180);
  const from = ((settings.approach_deg ?? 0) * Math.PI) / 180;
  // the wind blows away from where the nozzle leans (y points down on the board)
  const [dx, dy] = [-Math.cos(from), Math.sin(from)];
  let [h, hT] = [0, 0];
  for (const [px, py] of places) {
    const [a, b] = [x - px, y - py];
    let r = Math.hypot(a, b);
    if (lean > 0 && r > 0) r *= 1 - (lean * (a * dx + b * dy)) / r;
    const local = jet.h(r);
    h += local / places.length;
    hT += (local * jet.wall_C(r)) / places.length;
  }
  return { h, wall_C: hT / h };
}

/** Jets as tables, each made once for a setting: where the jet moves, they stay. */
export type Jets = (setting: JetSetting) => Jet;

export function jetTables(): Jets {
  const known = new Map<string, Jet>();
  return (setting) => {
    const key = Object.values(setting).join();
    const jet = known.get(key) ?? tabulated(jetOf(setting));
    known.set(key, jet);
    return jet;
  };
}

/** The air of a setting with its middle over `at`, m on the board. */
export function airOver(
  settings: AirSettings,
  input: ReworkCase,
  mesh: BoardMesh,
  lumps: Lumps,
  at: { x: number; y: number },
  jets: Jets,
): AirOn {
  const setting = {
    flow_L_min: settings.flow_L_min,
    nozzle_mm: settings.nozzle_mm,
    set_C: settings.set_C,
    ambient_C: input.ambient_C,
    efficiency: input.station.efficiency,
    handFactor: input.station.handFactor,
  };
  const places = offsets(settings);
  const onBoard = jets({ ...setting, standoff_mm: settings.standoff_mm });
  const { grid } = mesh;
  const h = new Float64Array(mesh.columns);
  const wall = new Float64Array(mesh.columns).fill(input.ambient_C);
  for (let j = 0; j < grid.dy.length; j++)
    for (let i = 0; i < grid.dx.length; i++) {
      const c = j * grid.stride + i;
      const s = averaged(
        onBoard,
        places,
        settings,
        (mesh.ex[i] + mesh.ex[i + 1]) / 2 - at.x,
        (mesh.ey[j] + mesh.ey[j + 1]) / 2 - at.y,
      );
      h[c] = s.h * (1 - (1 - UNDER_BODY) * (lumps.shaded.get(c) ?? 0)) * (lumps.covered.get(c) ?? 1);
      wall[c] = s.wall_C;
    }
  const lumpAir = lumps.exposed.map((e) => {
    if (e.far) return { h: 0, wall: input.ambient_C, hSide: 0 };
    const jet = jets({ ...setting, standoff_mm: Math.max(2, settings.standoff_mm - e.height) });
    return footprintMean(jet, places, settings, e, at);
  });
  return { h, wall, lumps: lumpAir };
}

/** Mean over an exposed face, 5 × 5 places; h·T is averaged, as for the moving hand. */
function footprintMean(
  jet: Jet,
  places: readonly [number, number][],
  settings: AirSettings,
  e: Exposed,
  at: { x: number; y: number },
) {
  const n = e.half[0] > 0 ? 5 : 1;
  let [h, hT] = [0, 0];
  for (let a = 0; a < n; a++)
    for (let b = 0; b < n; b++) {
      const x = (e.x + (n > 1 ? ((a + 0.5) / n - 0.5) * 2 * e.half[0] : 0)) / 1000 - at.x;
      const y = (e.y + (n > 1 ? ((b + 0.5) / n - 0.5) * 2 * e.half[1] : 0)) / 1000 - at.y;
      const s = averaged(jet, places, settings, x, y);
      h += s.h / (n * n);
      hT += (s.h * s.wall_C) / (n * n);
    }
  const cover = (e.cover ?? 1) * (e.label ?? 1);
  return { h: h * e.factor * cover, wall: hT / h, hSide: 0.7 * h * cover };
}
