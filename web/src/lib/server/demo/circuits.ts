/** Circuits of the demo boards, by board name: names and references are those of the board models. */
import { netlistSchema, type Netlist } from '@orthos/core';

type Raw = Record<string, unknown>;
const c = (ref: string, net: string, value: number, cls = 'mlcc'): Raw => ({
  ref,
  kind: 'C',
  cls,
  value,
  pins: { 1: net, 2: 'GND' },
});
const r = (ref: string, a: string, b: string, value: number, cls = 'res'): Raw => ({
  ref,
  kind: 'R',
  cls,
  value,
  pins: { 1: a, 2: b },
});

/** Tern T2: 36 V down to 5 V, 3.3 V behind it with eleven ceramics, controller, driver and memory on it. */
const ternSupply: Raw = {
  ground: 'GND',
  tp: ['36V', 'SW', '5V', '3V3', 'RESET', 'VLED', 'SDA'],
  pairs: [
    ['SW', '5V'],
    ['5V', '3V3'],
  ],
  jopen: ['36V'],
  parts: [
    { ref: 'J2', kind: 'J', cls: 'conn', pins: { 1: '36V', 2: 'GND' } },
    { ref: 'D2', kind: 'Z', cls: 'tvs', what: 'input clamp', pins: { A: 'GND', K: '36V' }, bv: 48 },
    c('C14', '36V', 4.7e-6, 'mlccbig'),
    {
      ref: 'U4',
      kind: 'IC',
      cls: 'power',
      what: 'step-down driver',
      pins: { VIN: '36V', SW: 'SW', FB: 'FB5', GND: 'GND' },
      rail: ['VIN'],
      esd: [
        ['GND', 'VIN', 'esd'],
        ['SW', 'VIN', 'body'],
        ['GND', 'FB', 'esdup'],
      ],
      res: [
        ['VIN', 'GND', 240e3, 30e3],
        ['FB', 'GND', 4e6],
      ],
      blocks: [{ type: 'buck', vuv: 6, vref: 0.9, a: 200, dmax: 0.9, ilim: 0.8, rout: 0.4, iq: 4e-4 }],
      adjacent: [['VIN', 'SW']],
    },
    { ref: 'D1', kind: 'D', cls: 'schottky', model: 'sch', pins: { A: 'GND', K: 'SW' } },
    { ref: 'L1', kind: 'L', cls: 'coil', r: 0.18, value: 2.2e-5, pins: { 1: 'SW', 2: '5V' } },
    r('R18', '5V', 'FB5', 100e3),
    r('R19', 'FB5', 'GND', 22e3),
    c('C15', '5V', 2.2e-5, 'mlccbig'),
    c('C16', '5V', 1e-6),
    {
      ref: 'U3',
      kind: 'IC',
      cls: 'power',
      what: '3.3 V regulator',
      pins: { 1: '5V', 2: 'GND', 5: '3V3' },
      rail: ['1'],
      esd: [
        ['2', '1', 'esd'],
        ['5', '1', 'body'],
      ],
      res: [
        ['1', '2', 2500, 2500],
        ['5', '2', 200e3],
      ],
      blocks: [
        {
          type: 'ldo',
          pins: { VIN: '1', GND: '2', OUT: '5' },
          vuv: 2.5,
          vset: 3.3,
          vdo: 0.3,
          ilim: 0.4,
          rout: 0.06,
          iq: 6e-5,
        },
      ],
      adjacent: [['1', '2']],
    },
    ...Array.from({ length: 9 }, (_, i) => c(`C${i + 1}`, '3V3', 1e-7)),
    c('C10', '3V3', 1e-5, 'mlccbig'),
    c('C11', '3V3', 1e-5, 'mlccbig'),
    {
      ref: 'U2',
      kind: 'IC',
      cls: 'load',
      what: 'controller',
      pins: { 1: '3V3', 6: 'RESET', 12: 'SDA', EP: 'GND' },
      rail: ['1'],
      esd: [
        ['EP', '1', 'esd'],
        ['EP', '6', 'esd'],
        ['6', '1', 'esdup'],
        ['EP', '12', 'esd'],
        ['12', '1', 'esdup'],
      ],
      res: [['1', 'EP', 4100, 90]],
    },
    r('R1', '3V3', 'RESET', 10e3),
    r('R2', '3V3', 'SDA', 10e3),
    {
      ref: 'U5',
      kind: 'IC',
      cls: 'load',
      what: 'settings memory',
      pins: { 8: '3V3', 5: 'SDA', 4: 'GND' },
      rail: ['8'],
      esd: [
        ['4', '8', 'esd'],
        ['4', '5', 'esd'],
      ],
      res: [['8', '4', 30e3, 3e3]],
      adjacent: [['5', '4']],
    },
    {
      ref: 'U1',
      kind: 'IC',
      cls: 'load',
      what: 'display driver',
      pins: { 1: '3V3', 10: 'GND', 20: 'VLED' },
      rail: ['1'],
      esd: [
        ['10', '1', 'esd'],
        ['10', '20', 'esd'],
      ],
      res: [
        ['1', '10', 9000, 400],
        ['20', '10', 80e3],
      ],
    },
  ],
  power: { states: { awake: { sources: [{ p: '36V', v: 36, ilim: 0.25 }] } } },
};

/** Quillon: the two bus lines with clamp, termination, transceiver and controller. */
const quillonBus: Raw = {
  ground: 'GND',
  tp: ['12V', '5V', 'CANH', 'CANL', 'TXD', 'RXD'],
  pairs: [['CANH', 'CANL']],
  jopen: ['CANH', 'CANL'],
  parts: [
    { ref: 'J2', kind: 'J', cls: 'conn', pins: { 1: 'CANH', 2: 'CANL', 3: '12V', 4: 'GND' } },
    { ref: 'D3', kind: 'ZB', cls: 'tvs', what: 'CAN protection', pins: { 1: 'CANH', 2: 'GND' }, bv: 27 },
    r('R15', 'CANH', 'CANL', 120),
    {
      ref: 'U7',
      kind: 'IC',
      cls: 'load',
      what: 'CAN transceiver',
      pins: { 1: 'TXD', 2: 'GND', 3: '5V', 4: 'RXD', 6: 'CANL', 7: 'CANH' },
      rail: ['3'],
      esd: [
        ['2', '3', 'esd'],
        ['2', '1', 'esd'],
        ['2', '4', 'esd'],
        ['4', '3', 'esdup'],
      ],
      res: [
        ['3', '2', 9000, 700],
        ['7', '2', 9200, 9200],
        ['6', '2', 9200, 9200],
        ['7', '3', 1e7, 9200],
        ['6', '3', 1e7, 9200],
        ['1', '3', 60e3, 30e3],
      ],
      adjacent: [
        ['6', '7'],
        ['1', '2'],
        ['3', '4'],
      ],
    },
    {
      ref: 'U4',
      kind: 'IC',
      cls: 'load',
      what: 'controller',
      pins: { 39: 'GND', 17: '5V', 25: 'TXD', 26: 'RXD' },
      rail: ['17'],
      esd: [
        ['39', '17', 'esd'],
        ['39', '25', 'esd'],
        ['25', '17', 'esdup'],
        ['39', '26', 'esd'],
        ['26', '17', 'esdup'],
      ],
      res: [['17', '39', 2600, 60]],
      adjacent: [['25', '26']],
    },
    {
      ref: 'U3',
      kind: 'IC',
      cls: 'power',
      what: '5 V regulator',
      pins: { 1: '12V', 2: 'GND', 5: '5V' },
      rail: ['1'],
      esd: [
        ['2', '1', 'esd'],
        ['5', '1', 'body'],
      ],
      res: [
        ['1', '2', 3600, 3600],
        ['5', '2', 150e3],
      ],
      blocks: [
        {
          type: 'ldo',
          pins: { VIN: '1', GND: '2', OUT: '5' },
          vuv: 4,
          vset: 5,
          vdo: 0.5,
          ilim: 0.5,
          rout: 0.05,
          iq: 1e-4,
        },
      ],
    },
    c('C24', '5V', 1e-5, 'mlccbig'),
    { ref: 'C5', kind: 'C', cls: 'elko', value: 1e-4, pins: { 1: 'GND', 2: '5V' } },
    ...Array.from({ length: 9 }, (_, i) => c(`C${i + 10}`, '5V', 1e-7)),
    { ref: 'C3', kind: 'C', cls: 'elko', value: 2.2e-4, pins: { 1: 'GND', 2: '12V' } },
  ],
  power: { states: { awake: { sources: [{ p: '12V', v: 12, ilim: 0.5 }] } } },
};

export const demoCircuits: Record<string, { name: string; netlist: Netlist }> = {
  'Tern T2': { name: 'Supplies', netlist: netlistSchema.parse(ternSupply) },
  Quillon: { name: 'Bus lines and 5 V', netlist: netlistSchema.parse(quillonBus) },
};
