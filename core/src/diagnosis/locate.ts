/**
 * Where on a rail a short sits, from millivolts along it while a current is injected. The drop between the
 * injection and a pad does not depend on the short's own resistance, only on the copper in between; every
 * place on the copper is tried as the place of the short.
 *
 * The copper is a resistive sheet on a square grid (ρ/t per square); by reciprocity one solution per
 * measured pad gives the drop there for a short anywhere. Ground is taken as one node.
 */
import { z } from 'zod';

const mm = z.number().min(-2000).max(2000);
const point = { x_mm: mm, y_mm: mm };

export const locateInput = z.strictObject({
  /** What is injected, A. */
  current_A: z.number().positive().max(50),
  /** Where it goes into the rail. */
  injection: z.strictObject(point),
  copper: z
    .strictObject({
      foil_um: z.number().positive().max(500).default(35),
      /** Rectangles of copper of this rail. */
      areas: z
        .array(
          z.strictObject({ ...point, w_mm: z.number().positive().max(2000), h_mm: z.number().positive().max(2000) }),
        )
        .max(2000)
        .default([]),
      tracks: z
        .array(z.strictObject({ x0_mm: mm, y0_mm: mm, x1_mm: mm, y1_mm: mm, w_mm: z.number().positive().max(50) }))
        .max(5000)
        .default([]),
    })
    .refine((c) => c.areas.length + c.tracks.length > 0, { error: 'name the copper of the rail: areas or tracks' }),
  /** Millivolts between the injection and each pad. */
  points: z
    .array(z.strictObject({ ...point, label: z.string().max(60).optional(), mV: z.number().min(-5000).max(5000) }))
    .min(3, 'three pads at least')
    .max(40),
  /** Parts that may be the short, at their pad on this rail. */
  candidates: z
    .array(z.strictObject({ ...point, ref: z.string().min(1).max(60), weight: z.number().positive().default(1) }))
    .max(500)
    .default([]),
  /** What the millivoltmeter is good for, mV. */
  noise_mV: z.number().positive().max(100).default(0.05),
});
export type LocateInput = z.infer<typeof locateInput>;

export const locateOutput = z.strictObject({
  best: z.strictObject({
    ...point,
    chi2: z.number(),
    /** The places that fit nearly as well lie within this, mm. */
    radius_mm: z.number(),
  }),
  candidates: z.array(z.strictObject({ ref: z.string(), p: z.number(), chi2: z.number() })),
  /** What the pads would read with the short at the best place, mV. */
  fitted_mV: z.array(z.number()),
  cell_mm: z.number(),
  notes: z.array(z.string()),
  /** Why the first candidate is not to be convicted yet; null where nothing stands against it. */
  doubt: z.string().nullable(),
});

export type Located = z.infer<typeof locateOutput>;

/** Resistivity of copper at room temperature, Ω·m. */
const RHO = 1.72e-8;
/** Share by which copper and contacts may differ from the model. */
const COPPER_ERROR = 0.12;
const MOST_CELLS = 12_000;
/** A pad was read when a point lies this near. */
const SAME_PAD_MM = 0.5;
/** Δχ² within which two coordinates are still likely (68 %). */
const NEAR = 2.3;

interface Sheet {
  cell_mm: number;
  nx: number;
  ny: number;
  x0: number;
  y0: number;
  /** Cells that are copper. */
  filled: Uint8Array;
}

function sheetOf({ areas, tracks }: LocateInput['copper']): Sheet {
  const boxes = [
    ...areas.map((a) => [a.x_mm, a.y_mm, a.x_mm + a.w_mm, a.y_mm + a.h_mm]),
    ...tracks.map((t) => [
      Math.min(t.x0_mm, t.x1_mm) - t.w_mm / 2,
      Math.min(t.y0_mm, t.y1_mm) - t.w_mm / 2,
      Math.max(t.x0_mm, t.x1_mm) + t.w_mm / 2,
      Math.max(t.y0_mm, t.y1_mm) + t.w_mm / 2,
    ]),
  ];
  const [x0, y0] = [Math.min(...boxes.map((b) => b[0])), Math.min(...boxes.map((b) => b[1]))];
  const [x1, y1] = [Math.max(...boxes.map((b) => b[2])), Math.max(...boxes.map((b) => b[3]))];
  const narrow = Math.min(...tracks.map((t) => t.w_mm), ...areas.map((a) => Math.min(a.w_mm, a.h_mm)));
  // four cells across the narrowest copper, half a millimetre at most, as far as the count allows
  const cell_mm = Math.max(Math.min(narrow / 4, 0.5), Math.sqrt(((x1 - x0) * (y1 - y0)) / MOST_CELLS), 0.02);
  const nx = Math.max(1, Math.round((x1 - x0) / cell_mm));
  const ny = Math.max(1, Math.round((y1 - y0) / cell_mm));
  const filled = new Uint8Array(nx * ny);
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++) {
      const [x, y] = [x0 + (i + 0.5) * cell_mm, y0 + (j + 0.5) * cell_mm];
      const inArea = areas.some((a) => x >= a.x_mm && x <= a.x_mm + a.w_mm && y >= a.y_mm && y <= a.y_mm + a.h_mm);
      if (inArea || tracks.some((t) => onTrack(t, x, y))) filled[j * nx + i] = 1;
    }
  return { cell_mm, nx, ny, x0, y0, filled };
}

function onTrack(t: LocateInput['copper']['tracks'][number], x: number, y: number): boolean {
  const [dx, dy] = [t.x1_mm - t.x0_mm, t.y1_mm - t.y0_mm];
  const length2 = dx * dx + dy * dy;
  const along = length2 > 0 ? Math.min(1, Math.max(0, ((x - t.x0_mm) * dx + (y - t.y0_mm) * dy) / length2)) : 0;
  return Math.hypot(x - t.x0_mm - along * dx, y - t.y0_mm - along * dy) <= t.w_mm / 2;
}

/** Cell of copper nearest to a place, and how far it is, mm. */
function cellAt(sheet: Sheet, x: number, y: number): { cell: number; off_mm: number } {
  let cell = -1;
  let off_mm = Infinity;
  for (let j = 0; j < sheet.ny; j++)
    for (let i = 0; i < sheet.nx; i++) {
      if (!sheet.filled[j * sheet.nx + i]) continue;
      const d = Math.hypot(sheet.x0 + (i + 0.5) * sheet.cell_mm - x, sheet.y0 + (j + 0.5) * sheet.cell_mm - y);
      if (d < off_mm) [cell, off_mm] = [j * sheet.nx + i, d];
    }
  return { cell, off_mm };
}

/**
 * Potentials when one unit of current enters at `at` and leaves at `reference` (where the potential is 0),
 * in units of the sheet resistance. Conjugate gradients with the diagonal as preconditioner.
 */
function potentials(sheet: Sheet, reference: number, at: number): Float64Array {
  const { nx, ny, filled } = sheet;
  const n = nx * ny;
  const inside = (i: number, j: number) => i >= 0 && j >= 0 && i < nx && j < ny && filled[j * nx + i] === 1;
  const diagonal = new Float64Array(n);
  for (let j = 0; j < ny; j++)
    for (let i = 0; i < nx; i++)
      if (inside(i, j))
        diagonal[j * nx + i] =
          Number(inside(i - 1, j)) + Number(inside(i + 1, j)) + Number(inside(i, j - 1)) + Number(inside(i, j + 1));
  const free = (k: number) => diagonal[k] > 0 && k !== reference;
  const apply = (x: Float64Array, out: Float64Array) => {
    for (let j = 0; j < ny; j++)
      for (let i = 0; i < nx; i++) {
        const k = j * nx + i;
        if (!free(k)) {
          out[k] = 0;
          continue;
        }
        let sum = diagonal[k] * x[k];
        if (inside(i - 1, j)) sum -= x[k - 1];
        if (inside(i + 1, j)) sum -= x[k + 1];
        if (inside(i, j - 1)) sum -= x[k - nx];
        if (inside(i, j + 1)) sum -= x[k + nx];
        out[k] = sum;
      }
  };
  const x = new Float64Array(n);
  if (at === reference) return x;
  const r = new Float64Array(n);
  r[at] = 1;
  const p = new Float64Array(n);
  const q = new Float64Array(n);
  let rho = 0;
  for (let k = 0; k < n; k++)
    if (free(k)) {
      p[k] = r[k] / diagonal[k];
      rho += r[k] * p[k];
    }
  const stop = rho * 1e-14;
  for (let turn = 0; turn < 4000 && rho > stop; turn++) {
    apply(p, q);
    let pq = 0;
    for (let k = 0; k < n; k++) pq += p[k] * q[k];
    if (!(pq > 0)) break;
    const alpha = rho / pq;
    let next = 0;
    for (let k = 0; k < n; k++) {
      x[k] += alpha * p[k];
      r[k] -= alpha * q[k];
      if (free(k)) next += (r[k] * r[k]) / diagonal[k];
    }
    const beta = next / rho;
    rho = next;
    for (let k = 0; k < n; k++) p[k] = free(k) ? r[k] / diagonal[k] + beta * p[k] : 0;
  }
  return x;
}

/** Cells that hang together with the injection. */
function reached(sheet: Sheet, from: number): Uint8Array {
  const { nx, ny, filled } = sheet;
  const seen = new Uint8Array(nx * ny);
  const stack = [from];
  seen[from] = 1;
  while (stack.length) {
    const k = stack.pop() as number;
    const [i, j] = [k % nx, Math.floor(k / nx)];
    for (const [a, b] of [
      [i - 1, j],
      [i + 1, j],
      [i, j - 1],
      [i, j + 1],
    ]) {
      const to = b * nx + a;
      if (a < 0 || b < 0 || a >= nx || b >= ny || !filled[to] || seen[to]) continue;
      seen[to] = 1;
      stack.push(to);
    }
  }
  return seen;
}

/** Whether no place on the copper explains so many millivolts: the least χ² is three times what chance makes of it. */
export const fitsNowhere = (chi2: number, points: number): boolean => chi2 > 3 * Math.max(1, points - 2);

/** Finds the place of a short from a millivolt profile. */
export function locateShort(input: LocateInput): Located {
  const sheet = sheetOf(input.copper);
  const { nx, cell_mm, x0, y0 } = sheet;
  const perSquare_mV = (RHO / (input.copper.foil_um * 1e-6)) * input.current_A * 1e3;
  const notes: string[] = [];
  const source = cellAt(sheet, input.injection.x_mm, input.injection.y_mm);
  if (source.off_mm > 2 + cell_mm) notes.push(`the injection lies ${source.off_mm.toFixed(1)} mm off the copper`);
  const connected = reached(sheet, source.cell);
  const pads = input.points.map((p) => {
    const { cell, off_mm } = cellAt(sheet, p.x_mm, p.y_mm);
    if (off_mm > 2 + cell_mm || !connected[cell])
      notes.push(`${p.label ?? `the pad at ${p.x_mm}, ${p.y_mm}`} is not on the copper that the current flows in`);
    return { ...p, cell, phi: potentials(sheet, source.cell, cell) };
  });
  const used = pads.filter((p) => connected[p.cell]);
  const chi2At = (cell: number): number =>
    used.reduce((sum, { mV, phi }) => {
      const w = perSquare_mV * phi[cell];
      const s2 = input.noise_mV ** 2 + (COPPER_ERROR * w) ** 2 + (COPPER_ERROR * mV) ** 2;
      return sum + (mV - w) ** 2 / s2;
    }, 0);
  let best = source.cell;
  let least = Infinity;
  const chi2 = new Float64Array(sheet.filled.length).fill(Infinity);
  for (let k = 0; k < chi2.length; k++) {
    if (!connected[k]) continue;
    chi2[k] = chi2At(k);
    if (chi2[k] < least) [best, least] = [k, chi2[k]];
  }
  const place = (k: number) => ({
    x_mm: x0 + ((k % nx) + 0.5) * cell_mm,
    y_mm: y0 + (Math.floor(k / nx) + 0.5) * cell_mm,
  });
  const at = place(best);
  let radius_mm = cell_mm / 2;
  for (let k = 0; k < chi2.length; k++)
    if (chi2[k] <= least + NEAR)
      radius_mm = Math.max(radius_mm, Math.hypot(place(k).x_mm - at.x_mm, place(k).y_mm - at.y_mm));
  const judged = input.candidates.map(({ ref, x_mm, y_mm, weight }) => {
    const { cell } = cellAt(sheet, x_mm, y_mm);
    return { ref, weight, chi2: connected[cell] ? chi2[cell] : 1e6 };
  });
  const bestCandidate = Math.min(...judged.map((c) => c.chi2), Infinity);
  const total = judged.reduce((sum, c) => sum + c.weight * Math.exp((bestCandidate - c.chi2) / 2), 0);
  const largest = Math.max(...input.points.map((p) => Math.abs(p.mV)));
  const faint = largest < 8 * input.noise_mV;
  if (faint)
    notes.push(
      `the largest drop is only ${largest} mV: inject about ${Number(((input.current_A * 8 * input.noise_mV) / Math.max(largest, 1e-3)).toPrecision(2))} A`,
    );
  const misfit = fitsNowhere(least, used.length);
  if (misfit) notes.push('no place on this copper fits the readings well: copper missing here, or more than one short');
  const candidates = judged
    .map((c) => ({ ref: c.ref, chi2: c.chi2, p: (c.weight * Math.exp((bestCandidate - c.chi2) / 2)) / total }))
    .sort((a, b) => b.p - a.p);
  const [first] = candidates;
  const probed = input.candidates.some(
    (c) =>
      c.ref === first?.ref &&
      [input.injection, ...input.points].some((p) => Math.hypot(p.x_mm - c.x_mm, p.y_mm - c.y_mm) <= SAME_PAD_MM),
  );
  return {
    best: { ...at, chi2: least, radius_mm },
    candidates,
    doubt: misfit
      ? 'the millivolts fit no place on this copper'
      : faint
        ? 'the drops are too small to say'
        : first && !probed
          ? `no millivolts were read at ${first.ref} yet`
          : null,
    fitted_mV: pads.map(({ phi }) => perSquare_mV * phi[best]),
    cell_mm,
    notes,
  };
}

/** Kelvin per watt of parts that warm up in still air. */
const WARMTH_K_W: Record<string, number> = { mlcc: 80, mlccbig: 50, ic: 35, other: 60 };
/** Warmer than this is no search any more, K. */
const STOP_K = 60;

/**
 * What a current injected into a rail does to the short: `limit_A`, `volts` (never above the rail's nominal
 * voltage, nor above 1 V) through `wires_ohm` into `short_ohm`. Rise in K; `current_A` for a rise that stays
 * below 60 K.
 */
export function injectionWarmth(
  shape: string,
  { limit_A, volts, wires_ohm, short_ohm }: { limit_A: number; volts: number; wires_ohm: number; short_ohm: number },
): { rise_K: number; current_A: number; power_W: number } {
  const theta = WARMTH_K_W[shape] ?? WARMTH_K_W.other;
  const free = Math.min(limit_A, Math.min(volts, 1) / (short_ohm + wires_ohm));
  const current_A = Math.min(free, Math.sqrt(STOP_K / (theta * Math.max(short_ohm, 1e-6))));
  const power_W = current_A * current_A * short_ohm;
  return { rise_K: power_W * theta, current_A, power_W };
}
