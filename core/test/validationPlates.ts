/** Plates and blocks with a closed-form answer: spreading, fins, a heated disc, layered and anisotropic copper. */
import { solve, type ValidationCase } from './validationSolve.ts';

async function pointEnergy(): Promise<ValidationCase> {
  const [k, rhoc, d, J] = [30, 2.3e6, 1.6e-3, 12];
  const lx = 0.0805;
  const board = { lx, ly: lx, nx: 161, ny: 161, layers: [{ dz: d, kx: k, ky: k, kz: k, rhoc }] };
  const probes = [
    [2, 0],
    [2, 5e-3],
    [5, 0],
    [5, 10e-3],
  ];
  const name = (t: number, r: number) => `${r * 1000} mm, ${t} s`;
  const { value, energy } = await solve(
    {
      initial: 0,
      initial_energy: { x: lx / 2, y: lx / 2, J },
      board,
      dt_max: 0.05,
      probes: probes.map(([t, r]) => ({ name: name(t, r), t, x: lx / 2 + r, y: lx / 2, layer: 0 })),
    },
    J,
  );
  const rows = probes.map(([t, r]) => {
    const centre = J / (4 * Math.PI * k * d * t);
    return {
      probe: name(t, r),
      computed: value(name(t, r)),
      exact: centre * Math.exp((-r * r * rhoc) / (4 * k * t)),
      scale: centre,
    };
  });
  return { name: 'Plate, energy put into one point', formula: 'T = Q/(4π k d t) · exp(−r²/4αt)', rows, energy };
}

/** Modified Bessel function K0 by its integral. */
function besselK0(x: number): number {
  let sum = 0;
  const n = 4000;
  for (let i = 0; i < n; i++) sum += Math.exp(-x * Math.cosh((8 * (i + 0.5)) / n));
  return (sum * 8) / n;
}

async function plateSource(): Promise<ValidationCase> {
  const [k, d, h, P] = [20, 1.6e-3, 25, 2];
  const lx = 0.1405;
  const m = Math.sqrt((2 * h) / (k * d));
  const face = { h, Tinf: 0 };
  const radii = [5e-3, 10e-3, 20e-3];
  const { value, energy } = await solve({
    initial: 0,
    board: { lx, ly: lx, nx: 281, ny: 281, layers: [{ dz: d, kx: k, ky: k, kz: k, rhoc: 1e5 }] },
    boundary: { top: face, bottom: face },
    sources: [{ P, x: lx / 2, y: lx / 2 }],
    dt_max: 0.1,
    probes: radii.map((r) => ({ name: `${r * 1000} mm`, t: 40, x: lx / 2 + r, y: lx / 2, layer: 0 })),
  });
  const exact = (r: number) => (P / (2 * Math.PI * k * d)) * besselK0(m * r);
  return {
    name: 'Plate with a steady point source',
    formula: 'T = P/(2π k d) · K₀(r √(2h/kd))',
    rows: radii.map((r) => ({
      probe: `${r * 1000} mm`,
      computed: value(`${r * 1000} mm`),
      exact: exact(r),
      scale: exact(5e-3),
    })),
    energy,
  };
}

async function cosineMode(): Promise<ValidationCase> {
  const [k, rhoc, lx] = [15, 2.2e6, 0.06];
  const { value, energy } = await solve(
    {
      initial_field: '100 + 50*cos(pi*x/lx)*cos(pi*y/ly)',
      board: { lx, ly: lx / 2, nx: 120, ny: 61, layers: [{ dz: 1e-3, kx: k, ky: k, kz: k, rhoc }] },
      dt_max: 0.2,
      probes: [5, 20].map((t) => ({ name: `${t} s`, t, x: 0.00025, y: 0.00025, layer: 'mean', interpolate: true })),
    },
    50 * rhoc * lx * (lx / 2) * 1e-3,
  );
  const shape = Math.cos((Math.PI * 0.00025) / lx) * Math.cos((Math.PI * 0.00025) / (lx / 2));
  const rate = (k / rhoc) * Math.PI ** 2 * (1 / lx ** 2 + 4 / lx ** 2);
  return {
    name: 'Decay of a cosine field',
    formula: 'exp(−α π² (1/lx² + 1/ly²) t)',
    rows: [5, 20].map((t) => ({
      probe: `${t} s`,
      computed: value(`${t} s`),
      exact: 100 + 50 * shape * Math.exp(-rate * t),
      scale: 50,
    })),
    energy,
  };
}

async function fin(): Promise<ValidationCase> {
  const [k, d, h, P, L, w] = [20, 1.6e-3, 25, 0.4, 0.05, 0.01];
  const n = 200;
  const face = { h, Tinf: 0 };
  const places = [5e-3, 15e-3, 35e-3];
  const { value, energy } = await solve({
    initial: 0,
    board: { lx: L, ly: w, nx: n, ny: 1, layers: [{ dz: d, kx: k, ky: k, kz: k, rhoc: 1e5 }] },
    boundary: { top: face, bottom: face },
    sources: [{ P, x: 0, y: w / 2 }],
    dt_max: 0.1,
    probes: places.map((x) => ({ name: `${x * 1000} mm`, t: 60, x, y: w / 2, layer: 0, interpolate: true })),
  });
  const m = Math.sqrt((2 * h) / (k * d));
  const exact = (x: number) => ((P / (k * w * d * m)) * Math.cosh(m * (L - x))) / Math.sinh(m * L);
  return {
    name: 'Strip heated at its end',
    formula: 'T = P/(k A m) · cosh(m(L − x))/sinh(mL), m² = 2h/kd',
    rows: places.map((x) => ({
      probe: `${x * 1000} mm`,
      computed: value(`${x * 1000} mm`),
      exact: exact(x),
      scale: exact(0),
    })),
    energy,
  };
}

/** First integral of the complementary error function. */
function ierfc(x: number): number {
  let tail = 0;
  const [n, reach] = [4000, 8];
  for (let i = 0; i < n; i++) tail += Math.exp(-((x + (reach * (i + 0.5)) / n) ** 2));
  const erfc = (2 / Math.sqrt(Math.PI)) * tail * (reach / n);
  return Math.exp(-x * x) / Math.sqrt(Math.PI) - x * erfc;
}

async function discOnBlock(): Promise<ValidationCase> {
  const [k, rhoc, a, q, size, dz] = [1, 1e6, 2e-3, 2e4, 0.0205, 0.2e-3];
  const times = [0.5, 1, 2];
  const { value, energy } = await solve({
    initial: 0,
    board: {
      lx: size,
      ly: size,
      nx: 82,
      ny: 82,
      layers: Array.from({ length: 40 }, () => ({ dz, kx: k, ky: k, kz: k, rhoc })),
    },
    sources: [{ flux: q, disc: { x: size / 2, y: size / 2, r: a }, layer: 0 }],
    dt_max: 0.02,
    probes: times.map((t) => ({ name: `${t} s`, t, x: size / 2, y: size / 2, layer: 0, interpolate: true })),
  });
  // the probe lies in the middle of the first layer
  const exact = (t: number) => {
    const reach = 2 * Math.sqrt((k / rhoc) * t);
    return ((q * reach) / k) * (ierfc(dz / 2 / reach) - ierfc(Math.hypot(dz / 2, a) / reach));
  };
  return {
    name: 'Disc of heat on a deep block',
    formula: 'T = 2q√(αt)/k · (ierfc(z/2√αt) − ierfc(√(z² + a²)/2√αt)) on the axis',
    rows: times.map((t) => ({ probe: `${t} s`, computed: value(`${t} s`), exact: exact(t), scale: exact(2) })),
    energy,
  };
}

/** Layers of unlike copper, well coupled: the sheet decays with their mean, each way with its own. */
async function layeredSheet(): Promise<ValidationCase> {
  const [lx, ly, rhoc] = [0.06, 0.04, 2.4e6];
  const kx = [40, 1, 13];
  const ky = [8, 1, 3];
  const { value, energy } = await solve(
    {
      initial_field: '80 + 40*cos(pi*x/lx)*cos(pi*y/ly)',
      board: {
        lx,
        ly,
        nx: 120,
        ny: 80,
        layers: kx.map((k, i) => ({ dz: 0.4e-3, kx: k, ky: ky[i], kz: 60, rhoc })),
      },
      dt_max: 0.1,
      probes: [5, 15].map((t) => ({ name: `${t} s`, t, x: 0.00025, y: 0.00025, layer: 'mean', interpolate: true })),
    },
    40 * rhoc * lx * ly * 1.2e-3,
  );
  const mean = (k: number[]) => k.reduce((a, b) => a + b, 0) / k.length;
  const rate = (Math.PI ** 2 / rhoc) * (mean(kx) / lx ** 2 + mean(ky) / ly ** 2);
  const shape = Math.cos((Math.PI * 0.00025) / lx) * Math.cos((Math.PI * 0.00025) / ly);
  return {
    name: 'Layered sheet, unlike along and across',
    formula: 'exp(−π² (k̄x/lx² + k̄y/ly²)/ρc · t)',
    rows: [5, 15].map((t) => ({
      probe: `${t} s`,
      computed: value(`${t} s`),
      exact: 80 + 40 * shape * Math.exp(-rate * t),
      scale: 40,
    })),
    energy,
  };
}

export const plateCases = [pointEnergy, plateSource, cosineMode, fin, discOnBlock, layeredSheet];
