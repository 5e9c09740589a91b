/** Classes of parts: what a part is, as far as it matters for how it fails and how it stands being worked at. */
import { packageById } from '../packages/index.ts';
import type { PlacedPart } from './boardModel.ts';

/** In words. */
export const PART_CLASSES = {
  mlcc: 'small ceramic',
  mlccbig: 'big ceramic',
  elko: 'electrolytic',
  tant: 'tantalum',
  film: 'film capacitor',
  res: 'resistor',
  pres: 'power resistor',
  shunt: 'shunt',
  coil: 'coil',
  ferrite: 'ferrite',
  fuse: 'fuse',
  relay: 'relay coil',
  // a closed contact is drawn as its few milliohms: burnt, or under a film; an open one as a resistor of megohms: welded
  contact: 'relay or switch contact',
  crystal: 'crystal',
  diode: 'diode',
  schottky: 'Schottky diode',
  tvs: 'clamp diode',
  led: 'LED',
  mosfet: 'MOSFET',
  bjt: 'transistor',
  power: 'power IC',
  load: 'IC',
  esd: 'clamp array',
  conn: 'plug',
} as const satisfies Record<string, string>;
export type PartClass = keyof typeof PART_CLASSES;
export const CLASS_NAMES = Object.keys(PART_CLASSES) as [PartClass, ...PartClass[]];

/** Class of a placed part by its reference, value and package. */
export function classOfPart(part: PlacedPart): PartClass {
  const letter = /^[a-z]+/i.exec(part.ref ?? '')?.[0].toUpperCase() ?? '';
  const what = `${part.what ?? ''} ${part.value ?? ''}`.toLowerCase();
  if (letter === 'C') {
    if (/can|electrolyt|polymer/.test(what) || /^(POLY|ALU|CAN|RADIAL)/.test(part.package)) return 'elko';
    if (/tantal/.test(what)) return 'tant';
    if (/film|foil/.test(what)) return 'film';
    return /\d\s*µf/.test(what) ? 'mlccbig' : 'mlcc';
  }
  if (letter === 'R') return /mω|shunt/.test(what) ? 'shunt' : 'res';
  if (letter === 'L') return 'coil';
  if (letter === 'FB') return 'ferrite';
  if (letter === 'F') return 'fuse';
  if (letter === 'K') return 'relay';
  if (letter === 'D')
    return /tvs|protection|clamp/.test(what)
      ? 'tvs'
      : /led/.test(what)
        ? 'led'
        : /schottky/.test(what)
          ? 'schottky'
          : 'diode';
  if (letter === 'Q' || letter === 'M')
    return /switch|mos/.test(what) || packageById(part.package).terminals.some((t) => t.id === 'TAB')
      ? 'mosfet'
      : 'bjt';
  if (letter === 'Y' || (letter === 'X' && /crystal|resonator|\d\s*[km]hz/.test(what)))
    return /oscillator/.test(what) ? 'load' : 'crystal';
  if (letter === 'S' || letter === 'SW') return 'contact';
  if (letter === 'J' || letter === 'X') return 'conn';
  if (letter === 'U' && /regulator|driver|converter|amplifier/.test(what)) return 'power';
  return letter === 'U' ? 'load' : 'res';
}

/** Classes that have a right way round whatever their package shows: an axial body may be a diode. */
const POLAR = new Set<PartClass>(['diode', 'schottky', 'tvs', 'led', 'elko', 'tant', 'mosfet', 'bjt', 'power', 'load']);

/** Whether a part can go on the wrong way round: by its package's mark, its class, or what it is called. */
export function isPolarised(part: PlacedPart): boolean {
  if (packageById(part.package).polarity !== 'none') return true;
  if (part.ref && POLAR.has(classOfPart(part))) return true;
  return /oscillator|diode|electrolyt|tantal|\bled\b|opto|battery|cell/i.test(`${part.what ?? ''} ${part.value ?? ''}`);
}
