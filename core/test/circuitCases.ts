/** Circuits whose readings an independent simulator has computed (see `circuitReferences.json`). */
import { netlistSchema, statesOf, type Fault, type Netlist } from '../src/circuit/netlist.ts';
import type { CircuitReading } from '../src/circuit/circuitSolve.ts';
import { TEMPLATES } from '../src/circuit/templates.ts';

export interface CircuitCase {
  name: string;
  netlist: Netlist;
  faults: Fault[];
  readings: CircuitReading[];
}

const FAULTS: Record<string, Fault[]> = {
  buck: [
    { ref: 'C7', mode: 'short' },
    { ref: 'R2', mode: 'open' },
    { ref: 'U1', mode: 'dead' },
    { ref: 'U2', mode: 'leaky' },
    { ref: 'R1', mode: 'drift', factor: 1.5 },
  ],
  boost: [
    { ref: 'D1', mode: 'short' },
    { ref: 'D2', mode: 'open' },
    { ref: 'U1', mode: 'dead' },
    { ref: 'C3', mode: 'leaky' },
  ],
  'half-bridge': [
    { ref: 'M1', mode: 'short', pins: ['D', 'S'] },
    { ref: 'M2', mode: 'short', pins: ['G', 'S'] },
    { ref: 'D1', mode: 'short' },
    { ref: 'R2', mode: 'open' },
  ],
  ldo: [
    { ref: 'U1', mode: 'dead' },
    { ref: 'FB1', mode: 'open' },
    { ref: 'C3', mode: 'short' },
    { ref: 'U1', mode: 'bridge', pins: ['PG', 'VOUT'] },
  ],
  can: [
    { ref: 'D1', mode: 'short', r: 8 },
    { ref: 'L1', mode: 'open' },
    { ref: 'U1', mode: 'bridge', pins: ['H', 'L'] },
  ],
  'data-pair': [
    { ref: 'U2', mode: 'short', pins: ['1', '2'] },
    { ref: 'FB1', mode: 'open' },
    { ref: 'U1', mode: 'open', pin: 'GND' },
  ],
  relay: [
    { ref: 'D1', mode: 'short' },
    { ref: 'Q1', mode: 'short', pins: ['B', 'E'] },
    { ref: 'K1', mode: 'open' },
    { ref: 'U1', mode: 'dead' },
  ],
  sensor: [
    { ref: 'R3', mode: 'open' },
    { ref: 'D1', mode: 'leaky', r: 2000 },
    { ref: 'R4', mode: 'drift', factor: 0.5 },
    { ref: 'U1', mode: 'dead' },
  ],
  'class-d': [
    { ref: 'C4', mode: 'short' },
    { ref: 'L1', mode: 'open' },
    { ref: 'U1', mode: 'short', pins: ['OP', 'GND'] },
  ],
  feed: [
    { ref: 'F1', mode: 'open' },
    { ref: 'M1', mode: 'open', pin: 'G' },
    { ref: 'D1', mode: 'short' },
    { ref: 'FB1', mode: 'missing' },
  ],
};

const OWN: { name: string; netlist: Record<string, unknown>; readings: CircuitReading[] }[] = [
  {
    name: 'ladder of resistors',
    netlist: {
      parts: Array.from({ length: 12 }, (_, i) => [
        { ref: `R${i}`, kind: 'R', pins: { 1: `N${i}`, 2: `N${i + 1}` }, value: 100 * (i + 1) },
        { ref: `S${i}`, kind: 'R', pins: { 1: `N${i + 1}`, 2: 'GND' }, value: 4700 * (i + 1) },
      ]).flat(),
      power: { sources: [{ p: 'N0', v: 24, ilim: 0.5 }] },
    },
    readings: [
      { type: 'ohm', red: 'N0' },
      { type: 'ohm', red: 'N3', black: 'N9' },
      { type: 'dcv', red: 'N12' },
    ],
  },
  {
    name: 'supply in its limit',
    netlist: {
      parts: [
        { ref: 'R1', kind: 'R', pins: { 1: 'VIN', 2: 'GND' }, value: 4 },
        { ref: 'D1', kind: 'D', pins: { A: 'VIN', K: 'N1' }, model: 'rect' },
        { ref: 'R2', kind: 'R', pins: { 1: 'N1', 2: 'GND' }, value: 100 },
      ],
      power: { sources: [{ p: 'VIN', v: 12, ilim: 0.5 }] },
    },
    readings: [{ type: 'isup' }, { type: 'dcv', red: 'N1' }],
  },
  {
    name: 'every diode model in series with 1 kΩ',
    netlist: {
      parts: ['si', 'rect', 'sch', 'schs', 'esd', 'esdup', 'tvs', 'body', 'led', 'wled6'].flatMap((model, i) => [
        { ref: `R${i}`, kind: 'R', pins: { 1: 'VIN', 2: `N${i}` }, value: 1000 },
        { ref: `D${i}`, kind: 'D', pins: { A: `N${i}`, K: 'GND' }, model },
      ]),
      power: { sources: [{ p: 'VIN', v: 30, ilim: 1 }] },
    },
    readings: Array.from({ length: 10 }, (_, i): CircuitReading[] => [
      { type: 'dcv', red: `N${i}` },
      { type: 'diode', red: `N${i}` },
      { type: 'ohm', red: 'GND', black: `N${i}` },
    ]).flat(),
  },
  {
    name: 'bridge rectifier on a load',
    netlist: {
      parts: [
        { ref: 'D1', kind: 'D', pins: { A: 'P', K: 'X' }, model: 'rect' },
        { ref: 'D2', kind: 'D', pins: { A: 'GND', K: 'P' }, model: 'rect' },
        { ref: 'D3', kind: 'D', pins: { A: 'GND', K: 'Q' }, model: 'rect' },
        { ref: 'D4', kind: 'D', pins: { A: 'Q', K: 'X' }, model: 'rect' },
        { ref: 'R1', kind: 'R', pins: { 1: 'X', 2: 'GND' }, value: 470 },
      ],
      power: { sources: [{ p: 'P', v: 15, ilim: 1 }] },
    },
    readings: [
      { type: 'diode', red: 'P', black: 'X' },
      { type: 'diode', red: 'P', black: 'Q' },
      { type: 'dcv', red: 'X' },
    ],
  },
  {
    name: 'zener regulator with pass transistor',
    netlist: {
      parts: [
        { ref: 'R1', kind: 'R', pins: { 1: 'VIN', 2: 'B' }, value: 680 },
        { ref: 'D1', kind: 'Z', pins: { A: 'GND', K: 'B' }, bv: 5.6, model: 'si' },
        { ref: 'Q1', kind: 'Q', type: 'NPN', pins: { C: 'VIN', B: 'B', E: 'OUT' }, bf: 120 },
        { ref: 'R2', kind: 'R', pins: { 1: 'OUT', 2: 'GND' }, value: 100 },
      ],
      power: { sources: [{ p: 'VIN', v: 12, ilim: 0.5 }] },
    },
    readings: [
      { type: 'dcv', red: 'OUT' },
      { type: 'diode', red: 'B', black: 'OUT' },
      { type: 'ohm', red: 'B' },
    ],
  },
  {
    name: 'current mirror and PNP switch',
    netlist: {
      parts: [
        { ref: 'R1', kind: 'R', pins: { 1: 'VCC', 2: 'M' }, value: 10e3 },
        { ref: 'Q1', kind: 'Q', type: 'N', pins: { C: 'M', B: 'M', E: 'GND' } },
        { ref: 'Q2', kind: 'Q', type: 'N', pins: { C: 'X', B: 'M', E: 'GND' } },
        { ref: 'R2', kind: 'R', pins: { 1: 'VCC', 2: 'X' }, value: 2.2e3 },
        { ref: 'R3', kind: 'R', pins: { 1: 'X', 2: 'PB' }, value: 10e3 },
        { ref: 'Q3', kind: 'Q', type: 'PNP', pins: { C: 'Y', B: 'PB', E: 'VCC' }, bf: 80 },
        { ref: 'R4', kind: 'R', pins: { 1: 'Y', 2: 'GND' }, value: 1e3 },
      ],
      power: { sources: [{ p: 'VCC', v: 5, ilim: 0.5 }] },
    },
    readings: [{ type: 'dcv', red: 'X' }, { type: 'dcv', red: 'Y' }, { type: 'isup' }, { type: 'diode', red: 'M' }],
  },
  {
    name: 'MOSFETs in every region',
    netlist: {
      parts: [
        { ref: 'R1', kind: 'R', pins: { 1: 'VCC', 2: 'A' }, value: 1e3 },
        { ref: 'M1', kind: 'M', type: 'N', pins: { D: 'A', G: 'VCC', S: 'GND' }, vto: 1.5, kp: 0.4 },
        { ref: 'R2', kind: 'R', pins: { 1: 'VCC', 2: 'B' }, value: 1e3 },
        { ref: 'M2', kind: 'M', type: 'N', pins: { D: 'B', G: 'B', S: 'GND' }, vto: 1.5, kp: 0.02, lambda: 0.05 },
        { ref: 'R3', kind: 'R', pins: { 1: 'C', 2: 'GND' }, value: 1e3 },
        { ref: 'M3', kind: 'M', type: 'P', pins: { D: 'C', G: 'B', S: 'VCC' }, vto: -1, kp: 0.01 },
        { ref: 'R4', kind: 'R', pins: { 1: 'VCC', 2: 'D' }, value: 1e3 },
        { ref: 'M4', kind: 'M', type: 'N', pins: { D: 'GND', G: 'VCC', S: 'D' }, vto: 2, kp: 0.3 },
      ],
      power: { sources: [{ p: 'VCC', v: 6, ilim: 0.5 }] },
    },
    readings: [
      ...['A', 'B', 'C', 'D'].map((red): CircuitReading => ({ type: 'dcv', red })),
      { type: 'diode', red: 'GND', black: 'A' },
      { type: 'ohm', red: 'A' },
    ],
  },
  {
    name: 'clamp both ways beyond its voltage',
    netlist: {
      parts: [
        { ref: 'R1', kind: 'R', pins: { 1: 'VIN', 2: 'X' }, value: 470 },
        { ref: 'D1', kind: 'ZB', pins: { 1: 'X', 2: 'GND' }, bv: 6.8 },
        { ref: 'D2', kind: 'Z', pins: { A: 'X', K: 'Y' }, bv: 3.3, model: 'si' },
        { ref: 'R2', kind: 'R', pins: { 1: 'Y', 2: 'GND' }, value: 1e3 },
      ],
      power: { sources: [{ p: 'VIN', v: 15, ilim: 1 }] },
    },
    readings: [
      { type: 'dcv', red: 'X' },
      { type: 'dcv', red: 'Y' },
      { type: 'diode', red: 'X' },
      { type: 'ohm', red: 'X' },
    ],
  },
  {
    name: 'linear regulator in drop-out and overloaded',
    netlist: {
      parts: [
        {
          ref: 'U1',
          kind: 'IC',
          pins: { VIN: 'VIN', OUT: 'OUT', GND: 'GND' },
          blocks: [{ type: 'ldo', vuv: 2, vset: 5, vdo: 0.4, ilim: 0.2, rout: 0.1, iq: 1e-4 }],
        },
        { ref: 'R1', kind: 'R', pins: { 1: 'OUT', 2: 'GND' }, value: 50 },
      ],
      power: {
        states: {
          low: { sources: [{ p: 'VIN', v: 4.5, ilim: 1 }] },
          full: { sources: [{ p: 'VIN', v: 9, ilim: 1 }] },
          overload: { sources: [{ p: 'VIN', v: 9, ilim: 1 }], loads: [{ p: 'OUT', r: 10 }] },
          tired: { sources: [{ p: 'VIN', v: 9, ilim: 0.05 }] },
        },
      },
    },
    readings: ['low', 'full', 'overload', 'tired'].map((state): CircuitReading => ({ type: 'dcv', red: 'OUT', state })),
  },
  {
    name: 'inverting buffer and follower',
    netlist: {
      parts: [
        {
          ref: 'U1',
          kind: 'IC',
          pins: { VCC: 'V', GND: 'GND', A: 'A', Y: 'Y' },
          blocks: [{ type: 'buf', vth: 1.5, inv: true, vmin: 2, ilim: 0.03, rout: 25 }],
        },
        {
          ref: 'U2',
          kind: 'IC',
          pins: { VCC: 'V', VEE: 'GND', P: 'A', N: 'F', OUT: 'F' },
          blocks: [{ type: 'opamp', a: 1e5, vmin: 2, ilim: 0.02, rout: 30 }],
        },
        { ref: 'R1', kind: 'R', pins: { 1: 'V', 2: 'A' }, value: 20e3 },
        { ref: 'R2', kind: 'R', pins: { 1: 'A', 2: 'GND' }, value: 5e3 },
        { ref: 'R3', kind: 'R', pins: { 1: 'Y', 2: 'GND' }, value: 330 },
        { ref: 'R4', kind: 'R', pins: { 1: 'F', 2: 'GND' }, value: 1e3 },
      ],
      power: { sources: [{ p: 'V', v: 5, ilim: 0.5 }] },
    },
    readings: [{ type: 'dcv', red: 'Y' }, { type: 'dcv', red: 'F' }, { type: 'dcv', red: 'A' }, { type: 'isup' }],
  },
  {
    name: 'current drawn and floating capacitor',
    netlist: {
      parts: [
        { ref: 'R1', kind: 'R', pins: { 1: 'V', 2: 'X' }, value: 10 },
        { ref: 'C1', kind: 'C', pins: { 1: 'X', 2: 'Z' }, value: 1e-6, leak: 1e8 },
        { ref: 'R2', kind: 'R', pins: { 1: 'Z', 2: 'GND' }, value: 1e6 },
      ],
      power: { sources: [{ p: 'V', v: 3.3, ilim: 1 }], loads: [{ p: 'X', i: 0.12 }] },
    },
    readings: [
      { type: 'dcv', red: 'X' },
      { type: 'dcv', red: 'Z' },
      { type: 'ohm', red: 'X' },
      { type: 'ohm', red: 'Z' },
    ],
  },
];

/** Every net to ground in ohms, every second one in diode mode both ways, volts at half of them, supply currents. */
function readingsOf(netlist: Netlist): CircuitReading[] {
  const tp = netlist.tp ?? [];
  const states = statesOf(netlist);
  return [
    ...tp.map((red): CircuitReading => ({ type: 'ohm', red })),
    ...netlist.pairs.map(([red, black]): CircuitReading => ({ type: 'ohm', red, black })),
    ...tp.flatMap((net, i): CircuitReading[] =>
      i % 2
        ? []
        : [
            { type: 'diode', red: net },
            { type: 'diode', red: netlist.ground, black: net },
          ],
    ),
    ...states.flatMap((state): CircuitReading[] => [
      ...tp.filter((_, i) => i % 2 === 1).map((red): CircuitReading => ({ type: 'dcv', red, state })),
      { type: 'isup', state },
    ]),
  ];
}

export const CIRCUIT_CASES: CircuitCase[] = [
  ...TEMPLATES.flatMap((t) =>
    [null, ...(FAULTS[t.id] ?? [])].map((fault) => ({
      name: `${t.id}, ${fault ? `${fault.ref} ${fault.mode}${fault.pins ? ` ${fault.pins.join('-')}` : ''}` : 'healthy'}`,
      netlist: t.netlist,
      faults: fault ? [fault] : [],
      readings: readingsOf(t.netlist),
    })),
  ),
  ...OWN.map(({ name, netlist, readings }) => ({
    name,
    netlist: netlistSchema.parse({ ground: 'GND', ...netlist }),
    faults: [],
    readings,
  })),
];
