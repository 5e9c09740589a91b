/**
 * Names that rows of the limits table had before: boards, drafts and packages written then are read as what they meant, by how the part
 * is mounted. No name has changed its meaning: what was `magnet` (enamelled wire) and `pa66` (with or without glass) is read so for
 * ever, the new rows are called `magnet-ndfeb` and `pa66-plain`.
 */
import { LIMITS } from './limits.ts';

/** Soldered flat, on pins through the board, or only standing there. */
export type Mount = 'flat' | 'pins' | 'none';

export interface Outer {
  mount: Mount;
  round: boolean;
  /** Larger side and height of the body, mm; number of joints. */
  l: number;
  h: number;
  joints: number;
}

const byMount =
  (flat: string, pins: string, none = pins) =>
  ({ mount }: Outer): string =>
    ({ flat, pins, none })[mount];
const always = (id: string) => () => id;

/** Aluminium can soldered flat, by its diameter in mm. */
export const flatCan = (d: number): string => (d < 7.2 ? 'elko-smd-s' : d < 11.2 ? 'elko-smd-m' : 'elko-smd-l');

/** A button, or anything else that may be rechargeable. */
const cellOf = ({ round, l, h }: Outer) => (round && l <= 32 && h <= 8 ? 'cell-coin' : 'cell-li');
/** Enamelled wire. */
const wound = ({ mount, l, joints }: Outer) => {
  if (mount === 'flat') return l <= 3.2 ? 'coil-chip' : 'coil-smd-glued';
  return joints > 2 ? 'trafo-tht' : 'coil-tht';
};

const OLD: Readonly<Record<string, (outer: Outer) => string>> = {
  pa66: always('pa66-gf'),
  pbt: always('pbt-gf'),
  'unknown-plastic': byMount('plastic-flat', 'plastic-tht'),
  lcd: always('display'),
  'elko-smd': ({ l }) => flatCan(l),
  polymer: byMount('polymer-smd', 'polymer-radial'),
  film: byMount('film-pen', 'film-pp'),
  cell: cellOf,
  crystal: byMount('crystal-smd', 'crystal-hc49'),
  led: byMount('led-smd', 'led-tht'),
  magnet: wound,
  relay: byMount('relay-smd', 'relay-sealed'),
  'permanent-magnet': always('magnet-ndfeb'),
  'thermal-fuse': byMount('ptc-smd', 'cutoff'),
  mems: always('mic-mems'),
  pet: always('flex-pet'),
  polyimide: always('flex-pi'),
  label: always('label-paper'),
  glue: always('hotmelt'),
  coating: always('coat-acrylic'),
  'ic-body': byMount('ic', 'ic-tht', 'ic'),
  ceramic: always('bare'),
};

export const OLD_LIMITS: readonly string[] = Object.keys(OLD);

/** Whether a row is, or once was, called so. */
export const isLimit = (id: string): boolean => LIMITS.has(id) || Object.hasOwn(OLD, id);

/** Today's name of a row for a part like this. Throws when there never was one called `id`. */
export function currentLimit(id: string, outer: Outer): string {
  if (LIMITS.has(id)) return id;
  if (!Object.hasOwn(OLD, id)) throw new Error(`No limit "${id}"; known: ${[...LIMITS.keys()].join(', ')}`);
  return OLD[id](outer);
}
