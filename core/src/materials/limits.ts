/**
 * What a neighbour stands, °C. Remembered classes of published standards and makers' data, with our
 * uncertainty; a part on a board may carry its own value instead. `why` is shown to the technician.
 */
import { property, type Property } from './property.ts';

export interface NeighbourLimit {
  id: string;
  what: string;
  limit: Property;
  why: string;
}

const row = (
  id: string,
  what: string,
  value: number,
  plusMinus: number,
  why: string,
  source: string,
): NeighbourLimit => ({
  id,
  what,
  why,
  limit: property(value, '°C', plusMinus, source),
});

const rows: NeighbourLimit[] = [
  row('lcp', 'LCP plastic', 270, 15, 'melts; blisters lower when damp', 'melting range'),
  row('pa46', 'PA46 or 9T plastic', 245, 15, 'melts; blisters lower when damp', 'melting range'),
  row('pa66', 'PA66 plastic', 230, 15, 'melts; blisters lower when damp', 'melting range'),
  row('pbt', 'PBT plastic', 200, 10, 'softens, pins lean', 'softening range'),
  row('pvc', 'PVC', 110, 20, 'softens', 'softening range'),
  row('acrylic', 'acrylic, ABS or PC', 110, 20, 'softens and yellows', 'softening range 90 to 140'),
  row('unknown-plastic', 'plastic, kind unknown', 180, 30, 'may soften: taken on the careful side', 'judgement'),
  row('lcd', 'display', 80, 10, 'polariser fails', 'storage class'),
  row('elko-smd', 'aluminium can', 240, 10, 'vents, dries out', 'reflow class, 10 s'),
  row('elko-radial', 'radial can', 125, 10, 'seal and electrolyte', 'rated plus 20'),
  row('polymer', 'polymer can', 250, 10, '40 s above 220 at most', 'reflow class'),
  row('film', 'film capacitor', 105, 10, 'film shrinks', 'film softening, PP 105 to PET 125'),
  row('cell', 'cell', 60, 5, 'take it out before heat', 'electrochemistry'),
  row('crystal', 'crystal', 240, 10, 'drifts', 'reflow class'),
  row('led', 'LED', 260, 10, 'lens and bond', 'reflow class, 10 s'),
  row('magnet', 'enamelled wire', 155, 15, 'insulation class', 'class'),
  row('relay', 'relay', 118, 12, 'housing and coil', 'class 105 to 130'),
  row('permanent-magnet', 'permanent magnet', 110, 30, 'loses its strength', 'grade 80 to 150'),
  row('thermal-fuse', 'thermal or resettable fuse', 90, 20, 'trips for good or drifts', 'rated less 20'),
  row('supercap', 'supercapacitor', 85, 10, 'electrolyte', 'rating'),
  row('mems', 'microphone or sensor port', 260, 10, 'no jet into the port', 'reflow class, 10 s'),
  row('pom', 'POM', 150, 10, 'softens, gears bind', 'softening range'),
  row('pet', 'PET flex or membrane', 150, 20, 'shrinks, tracks lift', 'softening range'),
  row('polyimide', 'polyimide flex', 280, 20, 'adhesive lets go', 'judgement'),
  row('label', 'paper label', 160, 20, 'browns, glue creeps', 'judgement'),
  row('glue', 'hot-melt or silicone bead', 80, 20, 'lets go or runs', 'softening of hot-melt'),
  row('coating', 'coating', 125, 20, 'yellows, gives off fumes', 'service class of acrylic and urethane'),
  row('bga-sac', 'ball grid, lead-free balls', 205, 5, 'balls soften and squeeze out', 'below the solidus 217'),
  row('bga-leaded', 'ball grid, leaded balls', 170, 5, 'balls soften and squeeze out', 'below the solidus 183'),
  row('bga-bi', 'ball grid, bismuth balls', 125, 5, 'balls soften and squeeze out', 'below the solidus 138'),
  row('bga-underfill', 'ball grid, underfilled', 150, 10, 'underfill swells and tears lands', 'judgement'),
  row('ic-body', 'chip body', 245, 10, 'body class by size', 'J-STD-020-style class'),
  row('ceramic', 'ceramic body', 300, 30, 'ramp, not peak, cracks it', 'judgement'),
];

export const NEIGHBOUR_LIMITS: ReadonlyMap<string, NeighbourLimit> = new Map(rows.map((r) => [r.id, r]));
