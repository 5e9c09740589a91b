/** Packages of the library beside published figures: across, pitch, number of lands, mass. */
import { packageById } from '../src/packages/index.ts';
import published from './published-lands.json' with { type: 'json' };

export interface LandRow {
  package: string;
  standard: string;
  /** Centre to centre across the part, mm: published, ours. */
  across: readonly [number, number];
  pitch?: readonly [number, number];
  lands: readonly [number, number];
  /** Mass, mg, where it is published: ours from the heat capacity. */
  mass?: readonly [number, number];
}

/** Heat capacity of a body with its metal, J/(g·K): moulded silicon and copper alloy, alumina, tantalum in its mould. */
const HEAT = { mould: 0.9, ceramic: 0.85, tantalum: 0.5 } as const;

export const LAND_ROWS: LandRow[] = published.rows.map((row) => {
  const { terminals, texture, C_J_K, limit } = packageById(row.package);
  const land = (id: string) => {
    const found = terminals.find((t) => t.id === id);
    if (!found) throw new Error(`${row.package} has no ${id}`);
    return found.land;
  };
  const [a, b, first, next] = [row.a, row.b, terminals[0].id, terminals[1].id].map(land);
  // lands of a row may be offset along it (SOT-23)
  const along = row.package.startsWith('SOT-23') ? 0 : Math.abs(a.y - b.y);
  const metal = terminals.reduce((sum, t) => sum + t.C_add_J_K, 0);
  const heat = limit === 'tantalum' ? HEAT.tantalum : texture === 'ceramic' ? HEAT.ceramic : HEAT.mould;
  return {
    package: row.package,
    standard: row.standard,
    across: [row.c, Math.max(Math.abs(a.x - b.x), along)],
    ...(row.pitch === undefined ? {} : { pitch: [row.pitch, Math.hypot(next.x - first.x, next.y - first.y)] as const }),
    lands: [row.terminals, terminals.length],
    ...(row.mass_mg === undefined ? {} : { mass: [row.mass_mg, (1000 * (C_J_K + metal)) / heat] as const }),
  };
});
