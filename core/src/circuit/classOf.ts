/** Class of a part of a circuit. */
import { PART_CLASSES, type PartClass } from '../board/index.ts';
import type { CircuitPart } from './netlist.ts';

/** Other names people give the classes. */
const OTHER_NAMES: Record<string, PartClass> = {
  cer: 'mlcc',
  ceramic: 'mlcc',
  mlcc_small: 'mlcc',
  mlcc_big: 'mlccbig',
  mlccb: 'mlccbig',
  bigmlcc: 'mlccbig',
  bulk: 'mlccbig',
  electrolytic: 'elko',
  alu: 'elko',
  tantalum: 'tant',
  foil: 'film',
  resistor: 'res',
  r: 'res',
  rpow: 'pres',
  rpower: 'pres',
  res_power: 'pres',
  inductor: 'coil',
  ind: 'coil',
  bead: 'ferrite',
  fb: 'ferrite',
  rly: 'relay',
  relay_contact: 'contact',
  contacts: 'contact',
  switch: 'contact',
  xtal: 'crystal',
  quartz: 'crystal',
  resonator: 'crystal',
  d: 'diode',
  sch: 'schottky',
  zener: 'tvs',
  fet: 'mosfet',
  mos: 'mosfet',
  transistor: 'bjt',
  ic_power: 'power',
  icp: 'power',
  powic: 'power',
  pic: 'power',
  pmic: 'power',
  ic_load: 'load',
  icl: 'load',
  lic: 'load',
  ic: 'load',
  mcu: 'load',
  esdarray: 'esd',
  connector: 'conn',
  plug: 'conn',
};

const KIND_CLASS: Record<CircuitPart['kind'], PartClass> = {
  R: 'res',
  F: 'fuse',
  FB: 'ferrite',
  L: 'coil',
  RLY: 'relay',
  C: 'mlcc',
  D: 'diode',
  Z: 'tvs',
  ZB: 'tvs',
  M: 'mosfet',
  Q: 'bjt',
  IC: 'load',
  J: 'conn',
};

/** Class of a part: the one it names, else what its kind and values suggest. */
export function classOf(part: CircuitPart): PartClass {
  const stated = part.cls?.toLowerCase().replace(/[\s-]+/g, '_') ?? '';
  if (stated in PART_CLASSES) return stated as PartClass;
  const other = OTHER_NAMES[stated] ?? OTHER_NAMES[stated.replace(/_/g, '')];
  if (other) return other;
  if (part.kind === 'C' && (part.value ?? 0) >= 2e-6) return 'mlccbig';
  if (part.kind === 'D' && part.model.startsWith('sch')) return 'schottky';
  if (part.kind === 'D' && part.model.includes('led')) return 'led';
  if (part.kind === 'R' && part.value < 0.2) return 'shunt';
  if (part.kind === 'IC' && part.blocks.some((b) => b.type !== 'opamp' && b.type !== 'buf')) return 'power';
  return KIND_CLASS[part.kind];
}
