/**
 * A suspect tested alone after it came off: how, by its class, and what the four outcomes mean. The test of
 * the part and the board's line without it answer different questions; only both together convict.
 */
import type { PartClass } from '../board/index.ts';

/** How a part of a class is tested alone. */
const RECIPES: Record<PartClass, string> = {
  mlcc: 'Ohms across it: open. Then its capacitance; warm it gently once and read again.',
  mlccbig: 'Ohms across it: open. Then its capacitance; warm it gently once and read again.',
  elko: 'Discharge it. Capacitance and ESR against its print, then leakage at rated voltage.',
  tant: 'Discharge it. Ohms both ways after it has charged, then its capacitance.',
  film: 'Capacitance against its print; a shrunk film reads low.',
  res: 'Ohms on the range that fits, leads taken off.',
  pres: 'Ohms cold, and again after it has been loaded to half its power for a minute.',
  shunt: 'Four wires: volts across it at a known ampere.',
  coil: 'Ohms, then ring it or measure its inductance: shorted turns read well in ohms.',
  ferrite: 'Ohms across it: below one.',
  fuse: 'Ohms across it. If it is open, look for what blew it before fitting another.',
  relay: 'Coil ohms; pull it with its voltage and read the contact both ways under a load.',
  contact: 'Ohms across it open and closed, leads taken off; closed once more under an ampere.',
  crystal: 'Ohms across it: open. Then in a circuit that makes it swing; a meter does not.',
  diode: 'Diode mode both ways; a dual one half by half. Then leakage in reverse at rated voltage.',
  schottky: 'Diode mode both ways; then leakage in reverse at rated voltage, it grows with heat.',
  tvs: 'Ohms both ways: open. Then raise a limited supply to its stand-off voltage: no current.',
  led: 'A milliampere from a limited supply, LED by LED.',
  mosfet: 'Ohms G–S and G–D: open. Charge the gate, read D–S low; discharge it, read D–S open.',
  bjt: 'Diode mode B–E and B–C both ways, C–E open; then a milliampere into the base.',
  power: 'Ohms from every supply pin to ground beside a new one; then in a proven good board, if there is one.',
  load: 'Ohms and diode mode pin by pin beside a new one. A memory is read in a programmer, its contents kept.',
  esd: 'Diode mode from ground to each line, both ways, all lines alike.',
  conn: 'Each contact end to end in ohms, wiggled; then neighbours against each other.',
};

export const recipeFor = (cls: PartClass): string => RECIPES[cls];

export interface OffBoardVerdict {
  title: string;
  next: string;
  tone: 'good' | 'caution' | 'stop';
}

/** Parts that a failure of this class tends to take along, or to come from. */
const VICTIMS: Partial<Record<PartClass, string>> = {
  mosfet: 'its driver, gate resistor, shunt, fuse and its twin',
  bjt: 'the diode across its load and the pin that drives it',
  diode: 'the transistor and the port pin behind it',
  tvs: 'the fuse and the diode before it',
  esd: 'the port pin behind it and the plug before it',
  power: 'its feedback divider, its coil and every load on its rail',
  fuse: 'what blew it: clamp, switch, bulk capacitor',
};

/** What the test of the part and the line without it say together. */
export function offBoardVerdict(cls: PartClass, result: 'bad' | 'good', recovered: boolean): OffBoardVerdict {
  if (result === 'bad' && recovered) {
    const victims = VICTIMS[cls];
    return {
      title: 'Culprit found',
      next: `Before a new one goes on: what killed it${victims ? `, and did it take along ${victims}` : ''}?`,
      tone: 'good',
    };
  }
  if (result === 'good' && recovered)
    return {
      title: 'Good, and the line came back',
      next: 'Look for a bridge, debris or a joint that the heat opened; test the part at its rated voltage, then again.',
      tone: 'caution',
    };
  if (result === 'bad')
    return {
      title: 'Bad, but the line is still wrong',
      next: 'There is a second fault on this line: read on before anything is fitted.',
      tone: 'stop',
    };
  return {
    title: 'Good, and the line is still wrong',
    next: 'It is cleared of a short, of nothing else. What stands on the line beside it is suspect now; this stays as an attempt.',
    tone: 'caution',
  };
}
