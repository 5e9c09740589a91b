/**
 * What an expert would say of readings from life: worked out by hand on the circuits of the templates, verdicts and accepted next steps written down
 * before the ranking was tried on them. Nothing here is fitted to it.
 */
import { templateById } from '../src/circuit/templates.ts';

type Value = number | 'OL';
interface Reading {
  type: 'ohm' | 'diode' | 'dcv' | 'isup';
  red?: string;
  black?: string;
  state?: string;
  value: Value;
  good?: Value;
}
export interface ExpertCase {
  name: string;
  netlist: unknown;
  readings: Reading[];
  more?: Record<string, unknown>;
  verdict: {
    /** One of these stands first. */
    first?: string[];
    /** All of these are in the first group or among the first so many suspects. */
    among?: string[];
    /** Share of the first part: at least, at most. */
    least?: number;
    most?: number;
    power?: 'allowed' | 'blocked';
    /** Whether the first part may be convicted now. */
    convict?: boolean;
  };
  /** Accepted next steps, as `ohm 3V3`, `ohm VIN-VINF`, or `unpowered`, `powered`, `none`. */
  next: string[];
}

const circuit = (id: string) => templateById(id)?.netlist;
const ohm = (red: string, value: Value, good?: Value): Reading => {
  const [a, black = 'GND'] = red.split('-');
  return { type: 'ohm', red: a, black, value, ...(good === undefined ? {} : { good }) };
};
const diode = (red: string, black: string, value: Value, good?: Value): Reading => ({
  ...{ type: 'diode', red, black, value },
  ...(good === undefined ? {} : { good }),
});
const volts = (red: string, value: number, state = 'awake'): Reading => ({
  ...{ type: 'dcv', red, black: 'GND', state, value },
});
const amps = (value: number, state = 'awake'): Reading => ({ type: 'isup', state, value });

export const EXPERT_CASES: readonly ExpertCase[] = [
  {
    name: 'a rail a third too high, the feedback pin at its reference: the divider, and no more power',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 155_000), ohm('3V3', 2270), volts('3V3', 4.35), volts('FB', 0.8)],
    verdict: { first: ['R1', 'R2'], power: 'blocked' },
    next: ['unpowered'],
  },
  {
    name: 'a rail of fifteen ceramics shorted: nobody is named, the way on is a profile',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 155_000), ohm('3V3', 0.4)],
    verdict: {
      first: ['C3', 'C4', 'C5', 'C6', 'C7', 'C8', 'C9', 'C10', 'C11', 'C12', 'C13', 'U2'],
      most: 0.4,
      power: 'blocked',
    },
    next: ['unpowered', 'none'],
  },
  {
    name: 'fuse open, nothing behind it shorted',
    netlist: circuit('buck'),
    readings: [ohm('VIN-VINF', 'OL', 0.1), ohm('VINF', 155_000), ohm('3V3', 2270)],
    verdict: { first: ['F1'], least: 0.9 },
    next: ['unpowered', 'none', 'powered'],
  },
  {
    name: 'fuse open and the clamp behind it shorted: a surge took both',
    netlist: circuit('buck'),
    readings: [ohm('VIN-VINF', 'OL', 0.1), ohm('VINF', 0.9)],
    verdict: { first: ['D1 + F1', 'F1 + D1', 'D1'], power: 'blocked' },
    next: ['unpowered', 'none'],
  },
  {
    name: 'converter not enabled: its pull-up is open',
    netlist: circuit('buck'),
    readings: [
      ohm('VIN', 180_000),
      ohm('VINF', 180_000),
      ohm('3V3', 2270),
      ohm('VINF-EN', 1_180_000),
      volts('VINF', 12),
      volts('EN', 0.02),
      volts('3V3', 0),
    ],
    verdict: { first: ['R3'], least: 0.5, power: 'allowed' },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'everything reads right and the device is silent: controller or software, nobody convicted',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 155_000), ohm('3V3', 2270), volts('3V3', 3.3), volts('RST', 3.3), amps(0.028)],
    more: { software: 'possible' },
    verdict: { first: ['U2', 'software', 'none of these'], most: 0.9 },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'both lines of a port low behind their ferrites: the port chip, not two clamps',
    netlist: circuit('data-pair'),
    readings: [ohm('PP', 38), ohm('PM', 52), ohm('DP', 38.4), ohm('DM', 52.4), ohm('3V3', 1400), ohm('VBUS', 40_000)],
    verdict: { first: ['U1', 'U2'], among: ['U1'], most: 0.95 },
    next: ['unpowered', 'none'],
  },
  {
    name: 'supply and both lines of a port chip low together',
    netlist: circuit('data-pair'),
    readings: [ohm('PP', 14), ohm('PM', 21), ohm('3V3', 6), ohm('DP', 14.4), ohm('DM', 21.4)],
    verdict: { first: ['U1'], least: 0.6, power: 'blocked' },
    next: ['unpowered', 'none'],
  },
  {
    name: 'two neighbouring pins of a plug read alike and nothing across them: something lies in the plug',
    netlist: circuit('data-pair'),
    readings: [
      ohm('DP-DM', 0.4, 500_000),
      ohm('DP-PP', 0.5),
      ohm('DM-PM', 0.5),
      ohm('3V3', 14_600),
      ohm('VBUS', 40_000),
    ],
    verdict: { first: ['J1', 'U1', 'U2'], among: ['J1'], most: 0.95 },
    next: ['unpowered', 'none'],
  },
  {
    name: 'flyback diode and its switch both shorted',
    netlist: circuit('relay'),
    readings: [ohm('12V-COIL', 0.3, 400), ohm('COIL', 0.5), ohm('12V', 0.8)],
    verdict: { first: ['D1 + Q1', 'Q1 + D1'], power: 'blocked' },
    next: ['unpowered', 'none'],
  },
  {
    name: 'half of the ohms of a relay coil are gone: its turns, or the diode across it leaks',
    netlist: circuit('relay'),
    readings: [ohm('12V-COIL', 215, 400), ohm('12V', 'OL'), ohm('COIL', 'OL')],
    verdict: { first: ['K1', 'D1'], among: ['K1', 'D1'], most: 0.9 },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'upper switch of a bridge shorted',
    netlist: circuit('half-bridge'),
    readings: [ohm('VBUS-OUT', 0.2, 47_000), ohm('OUT', 'OL'), ohm('GL-SHUNT', 10_000)],
    verdict: { first: ['M1'], least: 0.9 },
    next: ['unpowered', 'none'],
  },
  {
    name: 'upper switch shorted with its gate: the driver is asked next, not power',
    netlist: circuit('half-bridge'),
    readings: [ohm('VBUS-OUT', 0.3, 47_000), ohm('GH-OUT', 1.2, 9600)],
    verdict: { first: ['M1', 'M1 + U1', 'U1 + M1'], power: 'blocked' },
    next: ['unpowered'],
  },
  {
    name: 'reverse-polarity switch runs on its body diode: its gate is held at its source',
    netlist: circuit('feed'),
    readings: [
      ohm('VBAT', 'OL'),
      ohm('V12', 10_900),
      volts('VBAT', 12),
      volts('VPROT', 11.3),
      volts('GATE', 11.2),
      volts('V12', 11.3),
    ],
    // with its pull-down open the gate would float, and ten megohms of the meter would pull it low
    verdict: { first: ['M1', 'D2'], among: ['M1', 'D2'] },
    next: ['unpowered', 'powered'],
  },
  {
    name: 'a regulator passes its input through: loads are saved first',
    netlist: circuit('ldo'),
    readings: [ohm('5V', 300_000), ohm('1V8', 890), volts('5V', 5), volts('1V8', 4.9)],
    verdict: { first: ['U1'], least: 0.6, power: 'blocked' },
    next: ['unpowered'],
  },
  {
    name: 'input shorted behind a ferrite: tantalum first, not yet alone',
    netlist: circuit('ldo'),
    readings: [ohm('5VF', 1.1), ohm('5V', 1.25), ohm('1V8', 890)],
    verdict: { first: ['C1'], among: ['C1', 'U1'], most: 0.9, power: 'blocked' },
    next: ['unpowered', 'none'],
  },
  {
    name: 'amplifier at its stop, its inverting input at nothing: the feedback is open',
    netlist: circuit('sensor'),
    readings: [ohm('5V', 4000), volts('INP', 0.455), volts('INN', 0.0), volts('AOUT', 4.9)],
    verdict: { first: ['R3'], least: 0.4 },
    next: ['ohm INN-AOUT', 'unpowered'],
  },
  {
    name: 'amplifier works at the wrong gain: a resistor of its feedback is another one',
    netlist: circuit('sensor'),
    readings: [ohm('5V', 4000), volts('INP', 0.455), volts('INN', 0.455), volts('AOUT', 0.64)],
    verdict: { first: ['R4', 'R3'], among: ['R4'] },
    next: ['ohm INN-AOUT', 'unpowered'],
  },
  {
    name: 'bus without its termination',
    netlist: circuit('can'),
    readings: [ohm('HX-LX', 60_000, 120), ohm('BUSH-BUSL', 60_000, 122), ohm('5V', 2200)],
    verdict: { first: ['R1', 'R2'], among: ['R1', 'R2'] },
    next: ['unpowered', 'none'],
  },
  {
    name: 'one bus line leaks to ground',
    netlist: circuit('can'),
    readings: [ohm('BUSH', 300, 15_000), ohm('BUSL', 420, 15_000), ohm('BUSH-BUSL', 120, 122)],
    verdict: { first: ['D1', 'U1', 'C4'], among: ['D1', 'U1'], most: 0.9 },
    next: ['unpowered', 'none'],
  },
  {
    name: 'ohms say shorted, volts say well: one of both is wrong and nobody is convicted',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 155_000), volts('3V3', 3.31), volts('FB', 0.8), ohm('3V3', 0.5)],
    verdict: { convict: false, power: 'blocked' },
    next: ['unpowered', 'none'],
  },
  {
    name: 'the rail is drawn down by something the circuit does not hold',
    netlist: circuit('ldo'),
    readings: [ohm('5V', 60, 300_000), ohm('5VF', 300_000), ohm('5V-5VF', 'OL', 0.2), ohm('1V8', 890)],
    verdict: { convict: false },
    next: ['unpowered', 'none'],
  },
  {
    name: 'an output pin shorted to the supply inside the amplifier',
    netlist: circuit('class-d'),
    readings: [ohm('VP', 44_000), ohm('OP', 44_000), ohm('ON', 168_000), diode('OP', 'VP', 0.01, 0.5)],
    verdict: { first: ['U1'], least: 0.8 },
    next: ['unpowered', 'none'],
  },
  {
    name: 'backlight at its overvoltage stop, no current in its sense resistor: the string is open',
    netlist: circuit('boost'),
    readings: [ohm('VBAT', 154_000), ohm('VLED', 2_000_000), volts('VBAT', 3.8), volts('VLED', 26), volts('FB', 0)],
    verdict: { first: ['D2', 'J1'], among: ['D2'] },
    next: ['unpowered', 'powered'],
  },
  {
    name: 'seen burnt, and its rail is shorted: found',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 155_000), ohm('3V3', 0.5)],
    more: { seen: [{ ref: 'C7', sign: 'burnt' }] },
    verdict: { first: ['C7'], least: 0.9, convict: true, power: 'blocked' },
    next: ['unpowered', 'none'],
  },
  {
    name: 'a part that is missing is found, whatever else reads right',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 155_000), ohm('3V3', 2270)],
    more: { seen: [{ ref: 'L1', sign: 'missing' }] },
    verdict: { first: ['L1'], least: 0.95, convict: true },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'the fault went along with the chip that was swapped',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 155_000), ohm('3V3', 2270), volts('3V3', 3.3)],
    more: { swapped: [{ ref: 'U2', followed: true }] },
    verdict: { first: ['U2'], least: 0.9 },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'taken off, well, and the line still shorted: what stands beside it is asked',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 155_000), ohm('3V3', 0.5)],
    more: { off_board: [{ ref: 'C7', result: 'good', recovered: false }] },
    verdict: {
      first: ['C3', 'C4', 'C5', 'C6', 'C8', 'C9', 'C10', 'C11', 'C12', 'C13', 'U2'],
      most: 0.5,
      power: 'blocked',
    },
    next: ['unpowered', 'none'],
  },
  {
    name: 'a regulator that gives a fifth too little, and is asked for no more than usual',
    netlist: circuit('ldo'),
    readings: [ohm('5V', 300_000), ohm('1V8', 890), volts('5VF', 5), volts('1V8', 1.42), amps(0.065)],
    verdict: { first: ['U1'], least: 0.5 },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'a regulator that gives a sixth too much: its loads are saved first',
    netlist: circuit('ldo'),
    readings: [ohm('5V', 300_000), ohm('1V8', 890), volts('5VF', 5), volts('1V8', 2.08)],
    verdict: { first: ['U1'], least: 0.5, power: 'blocked' },
    next: ['unpowered', 'none'],
  },
  {
    name: 'a port that is high whatever it is told',
    netlist: circuit('relay'),
    readings: [
      ohm('12V', 'OL'),
      ohm('5V', 6000),
      volts('CMD', 0, 'released'),
      volts('PORT', 4.98, 'released'),
      volts('BASE', 0.746, 'released'),
    ],
    verdict: { first: ['U1'], least: 0.7 },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'the output of a driver lies at its supply: both read alike, asleep and awake',
    netlist: circuit('half-bridge'),
    readings: [ohm('VDRV', 9010, 90_000), ohm('GL', 9000, 10_000), diode('GL', 'VDRV', 0.001, 0.5)],
    verdict: { first: ['U1'], least: 0.8 },
    next: ['unpowered', 'none'],
  },
  {
    name: 'an input leaks two kilohms: nobody is named alone',
    netlist: circuit('sensor'),
    readings: [ohm('INP', 1870, 12_570), ohm('SENS', 4850, 8040), ohm('5V', 4000)],
    verdict: { first: ['U1', 'C1', 'D1', 'D2'], among: ['C1', 'U1'], most: 0.85 },
    next: ['unpowered', 'none'],
  },
  {
    name: 'a rail a sixth too low, its feedback at the reference: the divider again',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 155_000), ohm('3V3', 2270), volts('3V3', 2.76), volts('FB', 0.803), amps(0.0174)],
    verdict: { first: ['R1', 'R2'], among: ['R1', 'R2'], most: 0.9 },
    next: ['unpowered'],
  },
  {
    name: 'well in ohms, and the supply goes into its limit at ten volts: something there breaks down under voltage',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 154_700), ohm('3V3', 2270), volts('VINF', 9.76), volts('3V3', 3.34), amps(1)],
    verdict: { first: ['D1', 'C1', 'C2', 'U1'], among: ['D1'], most: 0.95 },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'worked on before, and a clamp that conducts the wrong way: it is fitted reversed',
    netlist: circuit('sensor'),
    readings: [
      diode('INP', 'GND', 0.227, 'OL'),
      diode('GND', 'INP', 0.55, 0.227),
      ohm('INP', 500, 12_570),
      ohm('5V', 4000),
    ],
    more: { history: ['rework'] },
    verdict: { first: ['D2'], least: 0.6 },
    next: ['unpowered', 'none'],
  },
  {
    name: 'held in reset with its supply right: the line is read asleep before a chip is named',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 154_700), ohm('3V3', 2270), volts('3V3', 3.34), volts('RST', 0.01)],
    verdict: { first: ['R4', 'U2'], among: ['R4', 'U2'] },
    next: ['ohm RST', 'ohm 3V3-RST', 'unpowered'],
  },
  {
    name: 'one line of a clamp array low, the chip behind its ferrite a little less so',
    netlist: circuit('data-pair'),
    readings: [ohm('DP', 4), ohm('PP', 4.35), ohm('DM', 494_000), ohm('PM', 494_000), ohm('3V3', 1370)],
    verdict: { first: ['U2', 'U1', 'J1'], among: ['U2'], most: 0.95 },
    next: ['unpowered', 'none'],
  },
  {
    name: 'seen lifted from its lands: found',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 154_700), ohm('3V3', 2270)],
    more: { seen: [{ ref: 'R3', sign: 'lifted' }] },
    verdict: { first: ['R3'], least: 0.9, convict: true },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'seen the wrong way round on a rail that is shorted: found',
    netlist: circuit('ldo'),
    readings: [ohm('5VF', 3), ohm('5V', 3.15), ohm('1V8', 890)],
    more: { seen: [{ ref: 'C1', sign: 'reversed' }] },
    verdict: { first: ['C1'], least: 0.95, convict: true, power: 'blocked' },
    next: ['unpowered', 'none'],
  },
  {
    name: 'shorted behind a ferrite, and a capacitor of the board stands there that the circuit lacks',
    netlist: circuit('ldo'),
    readings: [ohm('5VF', 1.1), ohm('5V', 1.25), ohm('1V8', 890)],
    more: { beside: [{ net: '5VF', parts: [{ ref: 'C9', cls: 'mlccbig' }] }] },
    verdict: { most: 0.7, convict: false, power: 'blocked' },
    next: ['unpowered', 'none'],
  },
  {
    name: 'the controller takes nothing and its reset has not been looked at: nobody is convicted yet',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 154_700), ohm('3V3', 2270), volts('3V3', 3.34), amps(0.0019)],
    verdict: { first: ['U2'], convict: false },
    next: ['powered', 'unpowered'],
  },
  {
    name: 'no way through from the coil to its rail',
    netlist: circuit('buck'),
    readings: [ohm('VINF', 154_700), ohm('3V3', 2270), ohm('SW-3V3', 'OL', 0.1), volts('3V3', 0)],
    verdict: { first: ['L1'], least: 0.9 },
    next: ['unpowered', 'powered', 'none'],
  },
  {
    name: 'shorted where nothing of the circuit can be short: it is not in the circuit',
    netlist: circuit('sensor'),
    readings: [ohm('SENS', 0.8, 8040), ohm('INP', 10_000, 12_570), ohm('5V', 4000)],
    // a sensor, its cable or a capacitor that nobody drew; the resistor across it fails so only once in a lifetime
    verdict: { first: ['none of these', 'R6', 'J1'], most: 0.9 },
    next: ['unpowered', 'none'],
  },
];
