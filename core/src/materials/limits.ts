/**
 * What bodies stand besides their solder. A temperature alone is the wrong model for most of them: creep, seals, films and mould are
 * hurt by a dose (`dose.ts`), magnets and one-shot fuses by a threshold, ceramics by how fast they are heated. All figures are
 * remembered from standards and makers' soldering data, none was measured; the letters in `source` say which. A shop, or a part with
 * figures of its own, overrides them. Names of older boards are read through `limitAliases.ts`.
 */
import { z } from 'zod';
import type { Law } from './dose.ts';

/** A figure from a datasheet, or of a shop: °C, and for how many seconds where that is said. */
export const ownLimitSchema = z.strictObject({
  C: z.number().min(30).max(500),
  s: z.number().min(0.5).max(600).optional(),
});
export type OwnLimit = z.infer<typeof ownLimitSchema>;

/** Where a temperature is read: middle of the body, its face towards the nozzle, hottest land on the board. */
type ReadAt = 'body' | 'face' | 'land';

/** What a law is derived from where the row itself cannot say. */
export type Derived =
  /** Solidus of its balls (an alloy of the solder table), or of the board's solder, less so many kelvin. */
  | { from: 'solidus'; below_K: number; alloy?: string; swells?: true }
  /** Moulded bodies: class by thickness and volume. */
  | { from: 'class' }
  /** What is printed on it, less so many kelvin; `unknown_C` where nothing is. */
  | { from: 'rating'; below_K: number; unknown_C: number };

export interface LimitRow {
  id: string;
  what: string;
  at: ReadAt;
  law: Law | Derived;
  /** Taken off where a moisture-sensitive part was not baked, K. */
  damp_K: number;
  /** Uncertainty of the whole law, K. */
  plusMinus_K: number;
  /** What happens beyond it. */
  why: string;
  source: string;
  /** No plan works with one within reach. */
  takeOut?: true;
  /** What no temperature tells: a word of care near it. */
  care?: string;
}

const SOURCES = {
  S: 'standard classes',
  M: 'makers’ soldering data',
  P: 'polymer data',
  E: 'electrochemistry',
  J: 'judgement',
} as const;

type More = Partial<Pick<LimitRow, 'damp_K' | 'takeOut' | 'care'>>;

const row = (
  id: string,
  what: string,
  at: ReadAt,
  law: Law | Derived,
  plusMinus_K: number,
  why: string,
  from: string,
  more: More = {},
): LimitRow => ({
  id,
  what,
  at,
  law,
  plusMinus_K,
  why,
  damp_K: 0,
  source: [...from].map((letter) => SOURCES[letter as keyof typeof SOURCES]).join(', '),
  ...more,
});

/** `short` °C for `short_s` seconds at most, `long` °C for `long_s`. */
const dose = (short: number, short_s: number, long: number, long_s: number): Law => ({
  kind: 'dose',
  Tp_C: short,
  t2_s: short_s,
  T1_C: long,
  t1_s: long_s,
});
const threshold = (Tp_C: number): Law => ({ kind: 'threshold', Tp_C });
const NOTHING: Law = { kind: 'none' };

const TAKE_OUT = { takeOut: true } as const;

const rows: LimitRow[] = [
  // coils, transformers, relays
  row(
    'coil-smd-pressed',
    'power coil, pressed, flat',
    'body',
    dose(260, 10, 217, 90),
    8,
    'binder and end welds give',
    'MS',
  ),
  row(
    'coil-smd-glued',
    'power coil, glued shield or open, flat',
    'body',
    dose(250, 10, 217, 70),
    10,
    'shield comes off, wire ends leave their terminals',
    'M',
  ),
  row('coil-chip', 'chip coil or bead', 'body', dose(260, 10, 217, 120), 8, 'drifts', 'M'),
  row(
    'choke-smd',
    'common-mode choke or small transformer, flat',
    'body',
    dose(245, 10, 217, 70),
    8,
    'core glue and wire ends give',
    'M',
  ),
  row('coil-tht', 'coil on pins', 'body', dose(180, 60, 155, 180), 15, 'sleeve and varnish soften', 'PJ'),
  row(
    'trafo-tht',
    'transformer on a bobbin',
    'body',
    dose(170, 60, 140, 240),
    15,
    'tape shrinks, bobbin creeps: safety insulation',
    'PJ',
  ),
  row(
    'relay-sealed',
    'sealed relay on pins',
    'body',
    dose(130, 30, 110, 90),
    15,
    'trapped air lifts the seal, contacts shift',
    'MJ',
  ),
  row('relay-open', 'open relay on pins', 'body', dose(150, 30, 120, 120), 15, 'case warps, armature binds', 'MP'),
  row('relay-smd', 'relay, flat', 'body', dose(240, 10, 217, 60), 8, 'bobbin and vent seal give', 'M', { damp_K: 10 }),
  // plastics
  row('lcp', 'LCP plastic', 'face', dose(275, 10, 240, 60), 10, 'warps, blisters', 'P', { damp_K: 10 }),
  row('pps', 'PPS plastic', 'face', dose(265, 10, 240, 90), 10, 'softens', 'P'),
  row('pa6t-9t', 'high-temperature polyamide', 'face', dose(265, 10, 240, 60), 10, 'blisters when damp', 'PM', {
    damp_K: 15,
  }),
  row('pa46', 'PA46 plastic', 'face', dose(260, 10, 230, 60), 10, 'blisters when damp', 'PM', { damp_K: 25 }),
  row('pa66-gf', 'PA66 with glass', 'face', dose(225, 10, 200, 45), 12, 'loaded pins lean', 'P', { damp_K: 15 }),
  row('pa66-plain', 'PA66 without glass', 'face', dose(205, 10, 170, 45), 15, 'pins lean', 'P', { damp_K: 15 }),
  row('pbt-gf', 'PBT with glass', 'face', dose(200, 10, 175, 45), 12, 'softens, pins lean', 'P'),
  row('pom', 'POM', 'face', dose(150, 15, 130, 60), 8, 'gears bind; formaldehyde from 220 °C', 'P'),
  row('pc', 'polycarbonate', 'face', dose(135, 10, 120, 60), 8, 'softens, cracks under flux or alcohol', 'P'),
  row('abs', 'ABS', 'face', dose(95, 10, 85, 60), 8, 'softens', 'P'),
  row('acrylic', 'acrylic light guide or lens', 'face', dose(95, 10, 85, 60), 8, 'softens, clouds', 'P'),
  row('pvc', 'PVC', 'face', dose(100, 15, 80, 120), 12, 'softens, shrinks; acid fume from 180 °C', 'P'),
  row(
    'plastic-flat',
    'plastic unknown, soldered flat',
    'face',
    dose(245, 10, 217, 60),
    12,
    'has been through an oven once, but by how much?',
    'J',
    { damp_K: 10 },
  ),
  row(
    'plastic-tht',
    'plastic unknown, on pins',
    'face',
    dose(150, 15, 110, 60),
    30,
    'may be PVC or ABS: find out',
    'J',
  ),
  // capacitors
  row('film-pp', 'film capacitor, PP or unknown', 'body', dose(110, 30, 100, 90), 8, 'film shrinks, value drops', 'PM'),
  row('film-pet', 'film capacitor, PET', 'body', dose(150, 20, 125, 90), 10, 'film shrinks', 'PM'),
  row('film-pen', 'film chip, PEN', 'body', dose(230, 10, 217, 30), 8, 'film shrinks', 'M'),
  row('film-pps', 'film chip, PPS', 'body', dose(245, 10, 217, 50), 8, 'film shrinks', 'M'),
  row('elko-smd-s', 'aluminium can, flat, up to 6.3 mm', 'face', dose(250, 5, 217, 60), 8, 'dries out, bulges', 'M'),
  row('elko-smd-m', 'aluminium can, flat, 8 or 10 mm', 'face', dose(240, 5, 217, 50), 8, 'dries out, bulges', 'M'),
  row(
    'elko-smd-l',
    'aluminium can, flat, from 12.5 mm',
    'face',
    dose(230, 5, 217, 30),
    8,
    'dries out, vent opens',
    'M',
  ),
  row(
    'elko-radial',
    'aluminium can on pins',
    'body',
    dose(130, 30, 110, 120),
    12,
    'seal softens, vapour; the sleeve shrinks at 105 °C',
    'EJ',
  ),
  row('polymer-smd', 'polymer can, flat', 'face', dose(250, 10, 220, 50), 8, 'leaks more current', 'M', { damp_K: 5 }),
  row('polymer-radial', 'polymer can on pins', 'body', dose(150, 30, 125, 120), 10, 'seal softens', 'MJ'),
  row('tantalum', 'tantalum', 'body', dose(260, 10, 217, 90), 5, 'cracks; weak at the next power-on', 'S', {
    damp_K: 10,
  }),
  row(
    'tantalum-polymer',
    'polymer tantalum or aluminium, moulded',
    'body',
    dose(255, 10, 217, 75),
    5,
    'delaminates, leaks',
    'SM',
    { damp_K: 25 },
  ),
  row('mlcc', 'ceramic capacitor', 'body', NOTHING, 0, 'cracks when heated fast, not when hot', 'SM'),
  row(
    'disc-coated',
    'disc, varistor or NTC, dipped',
    'body',
    dose(200, 10, 160, 60),
    15,
    'inner solder melts, coating cracks',
    'MJ',
  ),
  row('supercap', 'double-layer capacitor', 'body', dose(95, 10, 85, 60), 8, 'seal and electrolyte give', 'ME'),
  row('supercap-smd', 'double-layer capacitor for reflow', 'body', dose(250, 10, 217, 40), 8, 'seal gives', 'M'),
  // what is bare, or nearly
  row('bare', 'bare ceramic or metal', 'body', NOTHING, 0, 'stands more than solder', 'S'),
  row('axial', 'axial resistor, fuse or diode', 'body', dose(250, 10, 217, 60), 15, 'lacquer and caps give', 'M'),
  // clocks and light
  row('crystal-smd', 'crystal or oscillator, flat', 'body', dose(260, 10, 217, 90), 8, 'drifts', 'M'),
  row('resonator-smd', 'resonator or filter with a lid', 'body', dose(250, 10, 217, 60), 8, 'lid comes off', 'M'),
  row(
    'crystal-can',
    'tuning-fork cylinder',
    'body',
    dose(150, 10, 125, 60),
    10,
    'inner solder melts, vacuum is lost',
    'M',
  ),
  row('crystal-hc49', 'crystal in a tall can', 'body', dose(210, 10, 180, 60), 15, 'mount lets go', 'MJ'),
  row('led-smd', 'LED, flat', 'face', dose(250, 10, 217, 60), 8, 'lens and bond give', 'SM', {
    damp_K: 20,
    care: 'never touch a silicone lens while it is hot',
  }),
  row(
    'led-tht',
    'LED, photo-transistor or receiver on pins',
    'body',
    dose(125, 10, 105, 60),
    10,
    'epoxy softens, a leg moves, the bond breaks',
    'P',
  ),
  row('opto-smd', 'opto-coupler, flat', 'body', dose(250, 10, 217, 60), 8, 'gel moves, body cracks', 'S', {
    damp_K: 20,
  }),
  row('opto-dip', 'opto-coupler on pins', 'body', dose(220, 10, 183, 60), 15, 'gel moves, body cracks', 'SJ', {
    damp_K: 20,
  }),
  row('display', 'display', 'face', dose(85, 10, 75, 60), 6, 'polariser or emitter fails', 'M', TAKE_OUT),
  row('camera', 'camera or plastic lens', 'face', dose(85, 10, 75, 60), 6, 'lens, glue and focus give', 'M'),
  // what moves or sounds
  row('switch-smd', 'switch, flat', 'face', dose(245, 10, 217, 50), 8, 'dome film gives', 'M', {
    damp_K: 10,
    care: 'no flux into it',
  }),
  row('switch-tht', 'switch on pins', 'face', dose(140, 15, 120, 60), 15, 'dome and guide give', 'PJ'),
  row('pot-smd', 'trimmer, flat', 'face', dose(250, 10, 217, 50), 8, 'wiper carrier creeps', 'M'),
  row('pot-tht', 'trimmer or pot on pins', 'face', dose(150, 15, 120, 60), 15, 'wiper carrier creeps', 'MP'),
  row('buzzer-smd', 'sounder, flat', 'face', dose(245, 10, 217, 50), 8, 'case and membrane give', 'M'),
  row('buzzer-tht', 'sounder on pins', 'face', dose(115, 15, 100, 60), 12, 'case, magnet and membrane give', 'PM'),
  row('mic-mems', 'microphone with a port', 'body', dose(255, 10, 217, 60), 8, 'membrane and lid give', 'M', {
    damp_K: 10,
    care: 'no jet, no flux, no washing into its port',
  }),
  row('sensor-port', 'pressure or humidity sensor', 'body', dose(255, 10, 217, 60), 8, 'membrane and gel give', 'M', {
    damp_K: 10,
    care: 'no jet, no flux, no washing into its port',
  }),
  row('mic-electret', 'electret capsule', 'body', dose(85, 10, 70, 60), 8, 'charge leaks away', 'M'),
  row('magnet-ndfeb', 'magnet, grade unknown', 'body', threshold(80), 10, 'loses its strength', 'M'),
  // cells
  row('cell-coin', 'coin cell', 'body', dose(85, 10, 70, 60), 8, 'seal gives', 'E', TAKE_OUT),
  row('cell-li', 'lithium cell', 'body', dose(60, 30, 50, 300), 5, 'gas from 80 °C, fire from 130 °C', 'E', TAKE_OUT),
  // fuses
  row(
    'cutoff',
    'one-shot thermal fuse',
    'body',
    { from: 'rating', below_K: 12, unknown_C: 84 },
    6,
    'opens for good',
    'S',
  ),
  row('ptc-smd', 'resettable fuse, flat', 'body', dose(255, 10, 217, 90), 8, 'trips; measure it after an hour', 'M'),
  row('ptc-tht', 'resettable fuse on pins', 'body', dose(160, 20, 125, 60), 12, 'trips; measure it after an hour', 'M'),
  // glued on, poured over
  row('tape-sink', 'heatsink on tape', 'body', dose(150, 30, 120, 120), 15, 'tape lets go', 'P'),
  row('epoxy-sink', 'heatsink or part on epoxy', 'body', dose(200, 20, 150, 60), 20, 'glue softens from 100 °C', 'P'),
  row('label-paper', 'paper label', 'face', dose(160, 20, 130, 60), 20, 'browns, glue creeps', 'J'),
  row('label-pi', 'polyimide label', 'face', dose(300, 20, 260, 60), 20, 'browns', 'J'),
  row('hotmelt', 'bead of hot-melt', 'face', dose(75, 5, 65, 30), 12, 'runs', 'P'),
  row('rtv', 'silicone bead or pad', 'face', dose(230, 60, 200, 300), 20, 'chars; otherwise unharmed', 'P'),
  row('coat-acrylic', 'acrylic coating', 'face', dose(150, 30, 125, 180), 15, 'blisters', 'PJ'),
  row('coat-pu', 'polyurethane coating', 'face', dose(140, 30, 125, 180), 15, 'blisters; isocyanate from 150 °C', 'PJ'),
  row('coat-silicone', 'silicone coating or potting', 'face', dose(220, 60, 200, 300), 20, 'chars', 'P'),
  row('coat-parylene', 'parylene', 'face', dose(150, 60, 125, 300), 20, 'cracks', 'P'),
  row('coat-epoxy', 'epoxy coating or potting', 'face', dose(170, 60, 140, 300), 20, 'cracks', 'P'),
  // packages
  row(
    'bga-sac',
    'ball grid, lead-free balls',
    'land',
    { from: 'solidus', below_K: 12, alloy: 'SAC305' },
    6,
    'balls melt and shift',
    'SJ',
  ),
  row(
    'bga-leaded',
    'ball grid, leaded balls',
    'land',
    { from: 'solidus', below_K: 12, alloy: 'Sn63Pb37' },
    6,
    'balls melt and shift',
    'SJ',
  ),
  row(
    'bga-bi',
    'ball grid, bismuth balls',
    'land',
    { from: 'solidus', below_K: 12, alloy: 'Bi58Sn42' },
    6,
    'balls melt and shift',
    'SJ',
  ),
  row(
    'bga-underfill',
    'ball grid, underfilled',
    'land',
    { from: 'solidus', below_K: 12, swells: true },
    15,
    'swells, squeezes solder out',
    'J',
  ),
  row(
    'pop',
    'stacked package',
    'body',
    { from: 'solidus', below_K: 15, alloy: 'SAC305' },
    10,
    'upper balls shift',
    'J',
    { damp_K: 20 },
  ),
  row('ic', 'moulded package, flat', 'body', { from: 'class' }, 5, 'delaminates, bursts when damp', 'S', {
    damp_K: 25,
  }),
  row('ic-tht', 'moulded package on pins', 'body', dose(230, 20, 200, 60), 15, 'delaminates', 'J', { damp_K: 15 }),
  row('shield', 'soldered shield can', 'land', { from: 'solidus', below_K: 5 }, 8, 'shifts', 'J'),
  row(
    'module',
    'module with castellations',
    'body',
    dose(240, 20, 217, 60),
    10,
    'lid and inner parts shift: keep it level',
    'MJ',
    { damp_K: 20 },
  ),
  // flat and flexible
  row('flex-pet', 'PET flex or membrane', 'face', dose(130, 20, 105, 60), 15, 'shrinks, tracks lift', 'P'),
  row('flex-pi', 'polyimide flex', 'face', dose(250, 10, 200, 60), 15, 'delaminates', 'PM', { damp_K: 30 }),
];

/** A law in a few words: "250 °C for 10 s, 217 °C for 60 s". */
export function lawWords(law: Law | Derived): string {
  if ('from' in law) return { solidus: 'its solder', class: 'its class', rating: 'what is printed on it' }[law.from];
  if (law.kind === 'dose') return `${law.Tp_C} °C for ${law.t2_s} s, ${law.T1_C} °C for ${law.t1_s} s`;
  return law.kind === 'threshold' ? `${law.Tp_C} °C at most` : 'more than solder';
}

export const LIMITS: ReadonlyMap<string, LimitRow> = new Map(rows.map((r) => [r.id, r]));

/** Body classes by thickness and volume, °C, lead-free (standard classes); `l`, `w`, `h` in mm. */
export function bodyClass_C({ l, w, h }: { l: number; w: number; h: number }): number {
  const volume = l * w * h;
  const column = volume < 350 ? 0 : volume <= 2000 ? 1 : 2;
  const classes = h < 1.6 ? [260, 260, 260] : h <= 2.5 ? [260, 250, 245] : [250, 245, 245];
  return classes[column];
}

/** A moulded body: its class for 20 s, or two minutes of molten solder. */
export const mouldLaw = (class_C: number): Law => dose(class_C, 20, 217, 120);

/** What lies so far below `solidus_C`; underfill swells before. */
export function solidusLaw(solidus_C: number, { below_K, swells }: { below_K: number; swells?: true }): Law {
  const Tp_C = solidus_C - below_K;
  return swells ? dose(Tp_C, 1, Math.min(160, Tp_C - 30), 60) : threshold(Tp_C);
}

/** Flux that runs into it spoils it. */
export const takesNoFlux = ({ care }: Pick<LimitRow, 'care'>): boolean => care?.includes('no flux') ?? false;
