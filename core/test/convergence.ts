/** How the error of the grid solver falls with step and cell: a cosine field, whose decay is known on any grid. */
import { solve } from './validationSolve.ts';

export interface Order {
  of: string;
  rows: { size: number; error: number }[];
  /** Exponent with which the error falls, between the last two. */
  order: number;
}

const [K, RHOC, LX] = [15, 2.2e6, 0.06];
const TIME = 20;

/** Temperature left of a field of 50 K at the first cell, by computing, and exactly: in space and time, or in time alone. */
async function decay(nx: number, dt_max: number) {
  const dx = LX / nx;
  const { value } = await solve({
    initial_field: '50*cos(pi*x/lx)',
    board: { lx: LX, ly: LX, nx, ny: 1, layers: [{ dz: 1e-3, kx: K, ky: K, kz: K, rhoc: RHOC }] },
    dt_max,
    dt_start: dt_max,
    probes: [{ name: 'end', t: TIME, x: dx / 2, y: LX / 2, layer: 0 }],
  });
  const start = 50 * Math.cos((Math.PI * dx) / 2 / LX);
  // the cosine is an eigenvector of the grid as well, with its own rate
  const onGrid = (K / RHOC) * (4 / dx ** 2) * Math.sin((Math.PI * dx) / (2 * LX)) ** 2;
  const everywhere = (K / RHOC) * (Math.PI / LX) ** 2;
  return {
    inTime: Math.abs(value('end') - start * Math.exp(-onGrid * TIME)),
    inAll: Math.abs(value('end') - start * Math.exp(-everywhere * TIME)),
  };
}

function orderOf(of: string, rows: Order['rows']): Order {
  const [a, b] = rows.slice(-2);
  return { of, rows, order: Math.log(a.error / b.error) / Math.log(a.size / b.size) };
}

export async function convergence(): Promise<Order[]> {
  const steps = [];
  for (const dt of [1, 0.5, 0.25]) steps.push({ size: dt, error: (await decay(60, dt)).inTime });
  const cells = [];
  for (const nx of [6, 12, 24]) cells.push({ size: (1000 * LX) / nx, error: (await decay(nx, 0.02)).inAll });
  return [orderOf('time step, s', steps), orderOf('cell, mm', cells)];
}
