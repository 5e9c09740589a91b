/** A part of a circuit as something else: of another class, or an IC that works as a regulator, converter, amplifier or driver. */
import { classOf } from './classOf.ts';
import type { PartClass } from '../board/index.ts';
import { BLOCK_ROLES, ROLES, type Role } from './devices.ts';
import { circuitPartSchema, KIND_PINS, netlistSchema, type Block, type CircuitPart, type PartOf } from './netlist.ts';

const KIND_OF: Record<PartClass, CircuitPart['kind']> = {
  ...{ mlcc: 'C', mlccbig: 'C', elko: 'C', tant: 'C', film: 'C', crystal: 'C' },
  ...{ res: 'R', pres: 'R', shunt: 'R', contact: 'R', coil: 'L', ferrite: 'FB', fuse: 'F', relay: 'RLY' },
  ...{ diode: 'D', schottky: 'D', led: 'D', tvs: 'ZB', mosfet: 'M', bjt: 'Q' },
  ...{ power: 'IC', load: 'IC', esd: 'IC', conn: 'J' },
};

/** Figures a kind begins with until somebody knows better. */
const BEGINS: Partial<Record<CircuitPart['kind'], Record<string, unknown>>> = {
  R: { value: 10e3 },
  C: { value: 1e-7 },
  L: { r: 0.1 },
  FB: { r: 0.2 },
  F: { r: 0.05 },
  RLY: { r: 300 },
  ZB: { bv: 24 },
  M: { type: 'N', vto: 2.5, kp: 10 },
  Q: { type: 'N' },
};
const DIODE_OF: Partial<Record<PartClass, string>> = { diode: 'si', schottky: 'sch', led: 'led' };

/** The part as one of class `cls`: of the kind that goes with it, on the same nets. */
export function asClass(part: CircuitPart, cls: PartClass, ground: string): CircuitPart {
  const kind = KIND_OF[cls];
  // clamps come in two kinds
  if (kind === part.kind || (cls === 'tvs' && part.kind === 'Z')) return { ...part, cls };
  const nets = Object.values(part.pins);
  const names = KIND_PINS[kind];
  const pins =
    names.length === 0 ? part.pins : Object.fromEntries(names.map((pin, i) => [pin, nets[i] ?? `${part.ref}.${pin}`]));
  const { ref, partId, what } = part;
  const base = { ref, ...(partId === undefined ? {} : { partId }), ...(what === undefined ? {} : { what }) };
  const more = kind === 'D' ? { model: DIODE_OF[cls] ?? 'si' } : (BEGINS[kind] ?? {});
  const raw = { ...base, kind, cls, pins, ...more };
  const holder = { ref: '·', kind: 'J', pins: { 1: ground } };
  return netlistSchema.parse({ ground, parts: [raw, holder] }).parts[0];
}

export const BLOCK_NAMES: Record<Block['type'], string> = {
  ldo: 'linear regulator',
  buck: 'step-down converter',
  boost: 'step-up converter',
  opamp: 'amplifier',
  buf: 'driver or logic output',
};

export const CONVERTER = { vuv: 2, ven: 1, a: 200, dmax: 0.95, rout: 0.08, iq: 5e-4 };
export const LINEAR = { vuv: 1.5, vdo: 0.2, ilim: 0.5, rout: 0.05, iq: 6e-5 };
const FIGURES: { [T in Block['type']]: Omit<Extract<Block, { type: T }>, 'type' | 'pins'> } = {
  ldo: { ...LINEAR, vset: 3.3 },
  buck: { ...CONVERTER, ilim: 3, vref: 0.8 },
  boost: { ...CONVERTER, vref: 0.8, vovp: 30 },
  opamp: { a: 1e4, vmin: 2, ilim: 0.02, rout: 30 },
  buf: { vth: 1.6, inv: false, vmin: 2, ilim: 0.03, rout: 40 },
};

/** The figure that matters of each block, and what it is. */
export const BLOCK_FIGURE: Record<Block['type'], { key: 'vset' | 'vref' | 'rout' | 'vth'; label: string }> = {
  ldo: { key: 'vset', label: 'Holds, V' },
  buck: { key: 'vref', label: 'Feedback at, V' },
  boost: { key: 'vref', label: 'Feedback at, V' },
  opamp: { key: 'rout', label: 'Output, Ω' },
  buf: { key: 'vth', label: 'Switches at, V' },
};

/** Roles of a block's ends that it cannot do without, and those it can. */
export const rolesOf = (type: Block['type']): { needed: readonly Role[]; optional: readonly Role[] } =>
  BLOCK_ROLES[type];

/** Pin of an IC for a role: called so, else on a net called so. */
function pinFor(part: PartOf<'IC'>, role: Role, taken: ReadonlySet<string>): string | undefined {
  const names: readonly string[] = ROLES[role];
  const free = Object.keys(part.pins).filter((pin) => !taken.has(pin));
  const called = (text: string) => names.includes(text.toUpperCase());
  return free.find(called) ?? free.find((pin) => called(part.pins[pin]));
}

/**
 * The IC as something that works so (null: of which nothing is known), its pins guessed by their names and nets. A role that nothing says
 * gets a pin that is left, so that the form has something to correct; null where the IC has too few pins.
 */
export function worksAs(part: PartOf<'IC'>, type: Block['type'] | null): PartOf<'IC'> | null {
  if (type === null) return { ...part, blocks: [] };
  const { needed, optional } = BLOCK_ROLES[type];
  const pins: Record<string, string> = {};
  const taken = new Set<string>();
  const take = (role: Role, pin: string | undefined) => {
    if (pin === undefined) return false;
    pins[role.toUpperCase()] = pin;
    return taken.add(pin);
  };
  const open = needed.filter((role) => !take(role, pinFor(part, role, taken)));
  for (const role of open)
    if (
      !take(
        role,
        Object.keys(part.pins).find((pin) => !taken.has(pin)),
      )
    )
      return null;
  for (const role of optional) take(role, pinFor(part, role, taken));
  const regulates = type === 'ldo' || type === 'buck' || type === 'boost';
  const supply = pins.VIN ?? pins.VCC;
  const made = circuitPartSchema.parse({
    ...part,
    ...(regulates ? { cls: 'power' } : {}),
    ...(supply === undefined ? {} : { rail: [supply] }),
    blocks: [{ type, ...FIGURES[type], pins }],
  });
  return made.kind === 'IC' ? made : null;
}

/** True where class and kind of a part go together. */
export const agrees = (part: CircuitPart): boolean => {
  const kind = KIND_OF[classOf(part)];
  return kind === part.kind || (kind === 'ZB' && part.kind === 'Z');
};
