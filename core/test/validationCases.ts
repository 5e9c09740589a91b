/**
 * Heat cases with a closed-form answer. The tests assert the errors; docs/physics/validation.md is
 * written from the same rows. Error = |computed - exact| / temperature rise of the case.
 */
import { plateCases } from './validationPlates.ts';
import { solve, type ValidationCase } from './validationSolve.ts';

async function lumpedBody(): Promise<ValidationCase> {
  const { value, energy } = await solve({
    nodes: [{ id: 'b', type: 'body', C: 0.4, hA: 0.02, Tinf: 20, P: 4 }],
    probes: [5, 20, 60].map((t) => ({ name: `${t} s`, t, node: 'b' })),
  });
  return {
    name: 'Lumped body, power and convection',
    formula: 'T = T∞ + P/hA · (1 − exp(−hA t/C))',
    rows: [5, 20, 60].map((t) => ({
      probe: `${t} s`,
      computed: value(`${t} s`),
      exact: 20 + 200 * (1 - Math.exp(-t / 20)),
      scale: 200,
    })),
    energy,
  };
}

/** First roots of z·tan z = Bi. */
function slabRoots(Bi: number, count: number): number[] {
  return Array.from({ length: count }, (_, n) => {
    let [lo, hi] = [n * Math.PI + 1e-9, n * Math.PI + Math.PI / 2 - 1e-9];
    for (let i = 0; i < 100; i++) {
      const mid = (lo + hi) / 2;
      if (mid * Math.tan(mid) > Bi) hi = mid;
      else lo = mid;
    }
    return (lo + hi) / 2;
  });
}

async function slab(): Promise<ValidationCase> {
  const [k, rhoc, L, h, hot] = [0.32, 2.15e6, 0.8e-3, 400, 300];
  const layers = Array.from({ length: 20 }, () => ({ dz: (2 * L) / 20, kx: k, ky: k, kz: k, rhoc }));
  const board = { lx: 1e-3, ly: 1e-3, nx: 1, ny: 1, layers };
  const face = { h, Tinf: hot, surface_half_cell: true };
  const times = [1, 3, 8];
  const { value, energy } = await solve({
    initial: 20,
    board,
    boundary: { top: face, bottom: face },
    dt_max: 0.01,
    probes: times.flatMap((t) => [
      { name: `face ${t} s`, t, x: 0, y: 0, layer: 0 },
      { name: `middle ${t} s`, t, x: 0, y: 0, layer: 9 },
    ]),
  });
  const roots = slabRoots((h * L) / k, 12);
  const exact = (x: number, t: number) =>
    hot +
    (20 - hot) *
      roots.reduce((s, z) => {
        const c = (4 * Math.sin(z)) / (2 * z + Math.sin(2 * z));
        return s + c * Math.exp((-z * z * k * t) / (rhoc * L * L)) * Math.cos((z * x) / L);
      }, 0);
  // the probes are cell centres: half a cell below the face, half a cell off the middle
  const rows = times.flatMap((t) => [
    { probe: `face ${t} s`, computed: value(`face ${t} s`), exact: exact(L - L / 20, t), scale: 280 },
    { probe: `middle ${t} s`, computed: value(`middle ${t} s`), exact: exact(L / 20, t), scale: 280 },
  ]);
  return { name: 'Slab heated from both faces', formula: 'Fourier series, z tan z = Bi', rows, energy };
}

async function plateau(): Promise<ValidationCase> {
  const [V, G, hot] = [1e-8, 0.01, 300];
  const alloy = { Ts: 183, Tl: 183, cs: 1.5e6, cl: 1.6e6, L: 4e8 };
  const { value, energy } = await solve({
    nodes: [
      { id: 'tip', type: 'fixed', T: hot },
      { id: 'j', type: 'joint', V, alloy, T0: 20 },
    ],
    links: [{ a: 'tip', b: 'j', G }],
    t_end: 12,
    probes: [
      { name: 'begins', what: 't_solidus', node: 'j' },
      { name: 'ends', what: 't_liquidus', node: 'j' },
      { name: 'half way', node: 'j', t: 3 },
      { name: 'after', node: 'j', t: 6 },
    ],
  });
  const begins = ((alloy.cs * V) / G) * Math.log((hot - 20) / (hot - 183));
  const ends = begins + (alloy.L * V) / (G * (hot - 183));
  return {
    name: 'Melting plateau',
    formula: 't = C/G ln(ΔT₀/ΔT), then L V/(G ΔT)',
    rows: [
      { probe: 'begins, s', computed: value('begins'), exact: begins, scale: begins },
      { probe: 'ends, s', computed: value('ends'), exact: ends, scale: ends },
      { probe: '3 s', computed: value('half way'), exact: 183, scale: 280 },
      {
        probe: '6 s',
        computed: value('after'),
        exact: hot - (hot - 183) * Math.exp((-(6 - ends) * G) / (alloy.cl * V)),
        scale: 280,
      },
    ],
    energy,
  };
}

async function twoNodes(): Promise<ValidationCase> {
  const [C1, C2, G, P] = [0.3, 0.8, 0.05, 3];
  const { value, energy } = await solve({
    nodes: [
      { id: 'a', type: 'body', C: C1, P, T0: 20 },
      { id: 'b', type: 'body', C: C2, T0: 20 },
    ],
    links: [{ a: 'a', b: 'b', G }],
    probes: [3, 15].flatMap((t) => ['a', 'b'].map((node) => ({ name: `${node} ${t} s`, t, node }))),
  });
  const tau = (C1 * C2) / (C1 + C2) / G;
  const spread = (t: number) => (P / C1) * tau * (1 - Math.exp(-t / tau));
  const mean = (t: number) => 20 + (P * t) / (C1 + C2);
  const exact = {
    a: (t: number) => mean(t) + (C2 / (C1 + C2)) * spread(t),
    b: (t: number) => mean(t) - (C1 / (C1 + C2)) * spread(t),
  };
  return {
    name: 'Two nodes, one heated',
    formula: 'mean P t/(C₁+C₂), difference P/C₁ τ (1 − exp(−t/τ))',
    rows: [3, 15].flatMap((t) =>
      (['a', 'b'] as const).map((n) => ({
        probe: `${n} ${t} s`,
        computed: value(`${n} ${t} s`),
        exact: exact[n](t),
        scale: exact.a(t) - 20,
      })),
    ),
    energy,
  };
}

async function wall(): Promise<ValidationCase> {
  const layers = [
    { dz: 0.5e-3, kx: 1, ky: 1, kz: 0.3, rhoc: 1e5 },
    { dz: 0.5e-3, kx: 1, ky: 1, kz: 0.3, rhoc: 1e5 },
    { dz: 1e-3, kx: 1, ky: 1, kz: 8, rhoc: 1e5 },
    { dz: 1e-3, kx: 1, ky: 1, kz: 8, rhoc: 1e5 },
  ];
  const { value, energy } = await solve({
    initial: 20,
    board: { lx: 1e-3, ly: 1e-3, nx: 2, ny: 2, layers },
    boundary: {
      top: { h: 500, Tinf: 250, contact_R: 5e-3, surface_half_cell: true },
      bottom: { h: 100, Tinf: 20, surface_half_cell: true },
    },
    dt_max: 0.02,
    probes: [0, 1, 2, 3].map((layer) => ({ name: `layer ${layer}`, t: 60, x: 0, y: 0, layer })),
  });
  const total = 1 / 500 + 5e-3 + 1e-3 / 0.3 + 2e-3 / 8 + 1 / 100;
  const q = (250 - 20) / total;
  const to = [
    1 / 500 + 5e-3 + 0.25e-3 / 0.3,
    1 / 500 + 5e-3 + 0.75e-3 / 0.3,
    1 / 500 + 5e-3 + 1e-3 / 0.3 + 0.5e-3 / 8,
    1 / 500 + 5e-3 + 1e-3 / 0.3 + 1.5e-3 / 8,
  ];
  return {
    name: 'Wall of two materials, steady',
    formula: 'resistances in series',
    rows: to.map((R, layer) => ({
      probe: `layer ${layer}`,
      computed: value(`layer ${layer}`),
      exact: 250 - q * R,
      scale: 230,
    })),
    energy,
  };
}

async function radiating(): Promise<ValidationCase> {
  const [C, eps, area, T0] = [0.5, 0.9, 2e-3, 300];
  const { value, energy } = await solve({
    nodes: [{ id: 'b', type: 'body', C, eps, area_rad: area, Tsur: -273.15, T0 }],
    probes: [30, 120].map((t) => ({ name: `${t} s`, t, node: 'b' })),
  });
  const K0 = T0 + 273.15;
  const exact = (t: number) => K0 * (1 + (3 * eps * area * 5.670374419e-8 * K0 ** 3 * t) / C) ** (-1 / 3) - 273.15;
  return {
    name: 'Body radiating to cold space',
    formula: 'T = T₀ (1 + 3 εσA T₀³ t/C)^(−1/3)',
    rows: [30, 120].map((t) => ({ probe: `${t} s`, computed: value(`${t} s`), exact: exact(t), scale: T0 - exact(t) })),
    energy,
  };
}

async function regulatedIron(): Promise<ValidationCase> {
  const { value, energy } = await solve({
    nodes: [{ id: 'i', type: 'iron', C: 1.2, Pmax: 60, Tset: 350, T0: 20, hA: 0.05, Tinf: 20 }],
    probes: [
      { name: 'heating, 3 s', t: 3, node: 'i' },
      { name: 'regulating, 60 s', t: 60, node: 'i' },
    ],
  });
  return {
    name: 'Iron at full power, then regulating',
    formula: 'Pmax/hA (1 − exp(−hA t/C)); (g Tset + hA T∞)/(g + hA)',
    rows: [
      {
        probe: 'heating, 3 s',
        computed: value('heating, 3 s'),
        exact: 20 + 1200 * (1 - Math.exp((-0.05 * 3) / 1.2)),
        scale: 330,
      },
      {
        probe: 'regulating, 60 s',
        computed: value('regulating, 60 s'),
        exact: (5 * 350 + 0.05 * 20) / 5.05,
        scale: 330,
      },
    ],
    energy,
  };
}

/** Heated and cooled at once, through a melting range. */
async function meltingRange(): Promise<ValidationCase> {
  const [V, hA, P] = [2e-8, 4e-3, 1.5];
  const alloy = { Ts: 183, Tl: 215, cs: 1.5e6, cl: 1.6e6, L: 4e8 };
  const { value, energy } = await solve({
    nodes: [{ id: 'j', type: 'joint', V, alloy, P, hA, Tinf: 20, T0: 20 }],
    t_end: 16,
    probes: [
      { name: 'begins', what: 't_solidus', node: 'j' },
      { name: 'ends', what: 't_liquidus', node: 'j' },
      { name: '15 s', node: 'j', t: 15 },
    ],
  });
  const end = 20 + P / hA;
  const time = (C: number, from: number, to: number) => (C / hA) * Math.log((end - from) / (end - to));
  const begins = time(alloy.cs * V, 20, alloy.Ts);
  const ends = begins + time((alloy.L * V) / (alloy.Tl - alloy.Ts), alloy.Ts, alloy.Tl);
  return {
    name: 'Melting over a range, heated and losing heat',
    formula: 't = C/hA ln((T_e − T₁)/(T_e − T₂)) branch by branch, T_e = T∞ + P/hA',
    rows: [
      { probe: 'begins, s', computed: value('begins'), exact: begins, scale: begins },
      { probe: 'ends, s', computed: value('ends'), exact: ends, scale: ends },
      {
        probe: '15 s',
        computed: value('15 s'),
        exact: end - (end - alloy.Tl) * Math.exp((-(15 - ends) * hA) / (alloy.cl * V)),
        scale: end - 20,
      },
    ],
    energy,
  };
}

export const validationCases = [
  lumpedBody,
  slab,
  plateau,
  twoNodes,
  wall,
  radiating,
  regulatedIron,
  meltingRange,
  ...plateCases,
];
