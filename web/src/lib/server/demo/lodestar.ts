import type { BoardModel } from '@orthos/core/board';
import { names, part, roundedOutline, row } from './place.ts';

/**
 * Window-lift module: reverse-polarity diode, LQFP-64, position memory whose learnt end-stops move with the part,
 * relays and motor outputs that are low-ohmic when healthy.
 */
export const lodestar: BoardModel = {
  v: 1,
  name: 'Lodestar',
  outline_mm: roundedOutline(96, 62, 2),
  thickness_mm: 1.6,
  stack: [
    { name: 'top', foil_um: 70, coverage: 0.45 },
    { name: 'bottom', foil_um: 70, coverage: 0.5 },
  ],
  copper: [
    { x_mm: 4, y_mm: 4, w_mm: 40, h_mm: 26, layer: 0, coverage: 0.85 },
    { x_mm: 4, y_mm: 4, w_mm: 40, h_mm: 30, layer: 1, coverage: 0.8 },
    { x_mm: 52, y_mm: 16, w_mm: 30, h_mm: 28, layer: 1, coverage: 0.85 },
  ],
  vias: [{ x_mm: 8, y_mm: 30, w_mm: 10, h_mm: 10, per_mm2: 0.3 }],
  holes: [
    { x_mm: 4, y_mm: 58, d_mm: 3.4 },
    { x_mm: 92, y_mm: 4, d_mm: 3.4 },
    { x_mm: 92, y_mm: 58, d_mm: 3.4 },
  ],
  landmarks: [
    { id: 'hole-sw', x_mm: 4, y_mm: 58, label: 'hole by D1' },
    { id: 'hole-ne', x_mm: 92, y_mm: 4, label: 'hole by U5' },
  ],
  flipAxis_mm: 48,
  jointAlloy: 'SAC305',
  powerSources: [
    { id: 'harness', label: '12 V harness', kind: 'lead' },
    { id: 'bulk', label: 'can C1, 470 µF', kind: 'capacitor' },
  ],
  rails: [
    { id: '12v', label: '12 V behind D1', partId: 'c1', terminal: '2', good_ohm: 2900 },
    { id: '5v', label: '5 V', partId: 'u3', terminal: 'TAB', good_ohm: 1100 },
    {
      id: 'motor',
      label: 'motor output',
      partId: 'k1',
      terminal: '3',
      nature: { why: 'a motor winding and a closed relay contact are low by nature', least_ohm: 0.4 },
    },
  ],
  loads: [{ id: 'motor', label: 'window motor' }],
  service: ['vehicle'],
  parts: [
    part('K1', 'RELAY-15', 15, 16, { what: 'up relay', nets: { '1': 'UP', '3': 'MOTA' } }),
    part('K2', 'RELAY-15', 34, 16, { what: 'down relay', nets: { '1': 'DOWN', '3': 'MOTB' } }),
    part('D1', 'DPAK', 13, 41, { what: 'reverse-polarity diode', nets: { '1': '12VIN', '3': '12VIN', TAB: '12V' } }),
    part('C1', 'CAN-10', 27, 40, { what: 'can 470 µF', nets: { '1': 'GND', '2': '12V' } }),
    part('C2', 'CAN-6.3', 38, 38, { what: 'can 47 µF', nets: { '1': 'GND', '2': '5V' } }),
    part('U3', 'DPAK', 49, 41, { what: '5 V regulator', nets: { '1': '12V', '3': 'GND', TAB: '5V' } }),
    part('U1', 'QFP-64', 66, 30, { what: 'controller', nets: { '1': '5V', '16': 'GND', '33': 'SDA', '34': 'SCL' } }),
    part('U2', 'SOIC-8', 84, 32, { what: 'position memory', nets: { '4': 'GND', '5': 'SDA', '6': 'SCL', '8': '5V' } }),
    part('U4', 'SOIC-14', 52, 12, { rotation_deg: 90, what: 'relay driver', nets: { '1': 'UP', '2': 'DOWN' } }),
    part('U5', 'SOIC-8', 84, 14, { what: 'LIN transceiver', nets: { '6': 'LIN', '7': '12V' } }),
    part('D2', 'SMC', 28, 53, { what: 'load-dump TVS', nets: { '1': '12V', '2': 'GND' } }),
    part('D3', 'SMA', 74, 8, { what: 'LIN protection', nets: { '1': 'LIN', '2': 'GND' } }),
    part('Y1', 'XTAL-3225', 66, 44, { what: 'crystal 16 MHz' }),
    part('J1', 'CONN-12', 52, 55, { what: 'harness plug' }),
    part('J2', 'HEADER-6', 76, 55, { what: 'hall sensors' }),
    part('L1', 'IND-8', 37, 48, { what: 'input choke' }),
    part('Q1', 'SOT-23', 62, 6, { what: 'wake transistor' }),
    part('R1', 'R2512', 44, 30, { rotation_deg: 90, what: 'shunt 5 mΩ' }),
    ...row(names('C', 10, 15), 'C0603', [56, 20], [3, 0], {
      rotation_deg: 90,
      value: '100 nF',
      nets: { '1': '5V', '2': 'GND' },
    }),
    ...row(names('C', 16, 20), 'C0603', [75.5, 26], [0, 2.2], { value: '100 nF', nets: { '1': '5V', '2': 'GND' } }),
    ...row(names('R', 2, 7), 'R0603', [58, 40.6], [2.2, 0], { rotation_deg: 90, value: '10 kΩ' }),
    ...row(names('R', 8, 13), 'R0603', [73, 42], [2.2, 0], { rotation_deg: 90, value: '1 kΩ' }),
    ...row(names('R', 14, 17), 'R0805', [6, 50], [2.8, 0], { rotation_deg: 90, value: '2.2 kΩ' }),
    ...row(names('C', 21, 24), 'C0805', [80, 22], [2.8, 0], { rotation_deg: 90, value: '1 µF' }),
    ...row(names('R', 20, 29), 'R0603', [56, 26], [2.6, 0], { side: 'bottom', rotation_deg: 90, value: '10 kΩ' }),
    ...row(names('C', 30, 39), 'C0603', [56, 34], [2.6, 0], { side: 'bottom', rotation_deg: 90, value: '10 nF' }),
    part('Q2', 'SOT-23', 40, 24, { side: 'bottom', what: 'sense transistor' }),
  ],
};
