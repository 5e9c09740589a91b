import type { Composition } from './elements.ts';
import { property, type Property } from '../materials/index.ts';

/** A joint alloy as the thermal model sees it. Volumes in m³, heats per m³. */
export interface SolderAlloy {
  id: string;
  /** Composition in weight percent: the only name an alloy has. */
  composition: string;
  wt: Composition;
  lead: boolean;
  Ts: Property;
  Tl: Property;
  cs: Property;
  cl: Property;
  latent: Property;
}

const heats = (density: number, cs: number, cl: number, latent: number) => {
  const source = 'density × specific heat of the mixture, textbook values';
  return {
    cs: property(density * cs, 'J/(m³·K)', 0.1 * density * cs, source),
    cl: property(density * cl, 'J/(m³·K)', 0.1 * density * cl, source),
    latent: property(density * latent, 'J/m³', 0.1 * density * latent, source),
  };
};
const melt = (value: number, plusMinus: number, source = 'published melting range') =>
  property(value, '°C', plusMinus, source);

const rows: SolderAlloy[] = [
  {
    id: 'Sn63Pb37',
    composition: 'Sn63 Pb37',
    wt: { Sn: 63, Pb: 37 },
    lead: true,
    Ts: melt(183, 1),
    Tl: melt(183, 1),
    ...heats(8400, 176, 190, 42e3),
  },
  {
    id: 'SAC305',
    composition: 'Sn96.5 Ag3 Cu0.5',
    wt: { Sn: 96.5, Ag: 3, Cu: 0.5 },
    lead: false,
    Ts: melt(217, 1),
    Tl: melt(220, 2),
    ...heats(7380, 232, 250, 60e3),
  },
  {
    id: 'SnCu',
    composition: 'Sn99.3 Cu0.7',
    wt: { Sn: 99.3, Cu: 0.7 },
    lead: false,
    Ts: melt(227, 1),
    Tl: melt(227, 1),
    ...heats(7300, 230, 250, 60e3),
  },
  {
    id: 'SnBi',
    composition: 'Bi58 Sn42',
    wt: { Bi: 58, Sn: 42 },
    lead: false,
    Ts: melt(138, 1),
    Tl: melt(140, 2),
    ...heats(8560, 167, 176, 45e3),
  },
];

export const SOLDER_ALLOYS: ReadonlyMap<string, SolderAlloy> = new Map(rows.map((r) => [r.id, r]));
