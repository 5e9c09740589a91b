import type { BoardModel } from '@orthos/core/board';
import { names, part, roundedOutline, row } from './place.ts';

/**
 * Heating thermostat: castellated metering module beside a plastic terminal block, soldered flex tail of the
 * membrane panel, mains primary, supply passives that crack when the board is bent.
 */
export const bramble: BoardModel = {
  v: 1,
  name: 'Bramble',
  outline_mm: roundedOutline(90, 80, 3),
  thickness_mm: 1.6,
  stack: [
    { name: 'top', foil_um: 35, coverage: 0.4 },
    { name: 'bottom', foil_um: 35, coverage: 0.5 },
  ],
  copper: [
    { x_mm: 50, y_mm: 30, w_mm: 18, h_mm: 22, layer: 0, coverage: 0.6 },
    { x_mm: 46, y_mm: 26, w_mm: 40, h_mm: 48, layer: 1, coverage: 0.85 },
    { x_mm: 4, y_mm: 4, w_mm: 34, h_mm: 20, layer: 1, coverage: 0.5 },
  ],
  vias: [{ x_mm: 50, y_mm: 30, w_mm: 18, h_mm: 22, per_mm2: 0.1 }],
  holes: [
    { x_mm: 4, y_mm: 4, d_mm: 3.2 },
    { x_mm: 86, y_mm: 4, d_mm: 3.2 },
    { x_mm: 4, y_mm: 76, d_mm: 3.2 },
    { x_mm: 86, y_mm: 76, d_mm: 3.2 },
  ],
  landmarks: [
    { id: 'hole-nw', x_mm: 4, y_mm: 4, label: 'hole by J1' },
    { id: 'hole-se', x_mm: 86, y_mm: 76, label: 'hole by the flex tail' },
  ],
  flipAxis_mm: 45,
  jointAlloy: 'SAC305',
  powerSources: [
    { id: 'mains', label: '230 V on J1', kind: 'lead' },
    { id: 'bulk', label: 'can C1, 10 µF 400 V', kind: 'capacitor' },
  ],
  rails: [
    { id: '5v', label: '5 V', partId: 'c3', terminal: '2', good_ohm: 820 },
    { id: '3v3', label: '3.3 V', partId: 'u3', terminal: 'TAB', good_ohm: 1300 },
  ],
  loads: [{ id: 'panel', label: 'membrane panel' }],
  service: ['mains'],
  opening: [
    { id: 'o1', kind: 'screw', what: 'two, under the cover' },
    { id: 'o2', kind: 'clip', what: 'four, along the long sides' },
    { id: 'o3', kind: 'cable', what: 'flex tail stays soldered: lift panel and board together' },
  ],
  parts: [
    part('J1', 'TERM-6', 28, 10, { what: 'mains and load terminals' }),
    part('U1', 'MOD-24', 59, 41, {
      what: 'energy metering module',
      nets: { '1': '3V3', '12': 'GND', '13': 'LINE', '24': 'TX' },
    }),
    part('J2', 'TERM-3', 58, 9, { what: 'sensor terminals' }),
    part('K1', 'RELAY-15', 18, 31, { what: 'boiler relay', nets: { '1': 'COIL' } }),
    part('F1', 'RES-AXIAL', 10, 20, { what: 'fusible resistor' }),
    part('C6', 'FILM-15', 36, 22, { what: 'X2 capacitor 100 nF', nets: { '1': 'L', '2': 'N' } }),
    part('T1', 'TRAFO-EE16', 38, 38, { what: 'transformer' }),
    part('C1', 'RADIAL-10', 14, 50, { what: 'can 10 µF 400 V', blocksIron: true }),
    part('C2', 'RADIAL-8', 26, 50, { what: 'can 220 µF' }),
    part('C3', 'RADIAL-8', 36, 55, { what: 'can 470 µF', nets: { '1': 'GND', '2': '5V' } }),
    part('U4', 'DIP-4', 26.5, 62, { what: 'feedback opto-coupler' }),
    part('U5', 'SOIC-8', 14, 64, { what: 'off-line switcher', nets: { '1': 'DRAIN', '5': 'GND' } }),
    part('D1', 'SMA', 8, 41, { rotation_deg: 90, what: 'rectifier' }),
    part('D2', 'SMA', 7, 60, { rotation_deg: 90, what: 'rectifier' }),
    part('D3', 'SMB', 38, 66, { what: 'output Schottky', nets: { '1': '5V', '2': 'SEC' } }),
    part('U3', 'SOT-223', 48, 60, { what: '3.3 V regulator', nets: { '1': 'GND', '2': '3V3', '3': '5V', TAB: '3V3' } }),
    part('U2', 'QFP-32', 74, 58, { what: 'controller', nets: { '4': '3V3', '5': 'GND' } }),
    part('U6', 'SOIC-8', 72, 26, { what: 'settings memory' }),
    part('Y1', 'XTAL-5032', 84, 56, { rotation_deg: 90, what: 'crystal 8 MHz' }),
    part('FT1', 'FLEX-8', 62, 71, { rotation_deg: 180, what: 'membrane tail' }),
    part('Q1', 'SOT-23', 27.8, 28, { what: 'relay driver', nets: { '1': 'RLY', '2': 'GND', '3': 'COIL' } }),
    part('D4', 'SOD-123', 27.8, 33, { rotation_deg: 90, what: 'flyback diode' }),
    part('BZ1', 'BUZZER-12', 78, 40, { what: 'buzzer' }),
    part('S1', 'SWITCH-6', 80, 68, { what: 'reset key' }),
    part('L1', 'IND-5', 46, 70, { what: 'output coil' }),
    ...row(names('C', 10, 13), 'C0805', [44, 50], [2.4, 0], {
      rotation_deg: 90,
      value: '10 µF',
      nets: { '1': '5V', '2': 'GND' },
    }),
    ...row(names('C', 14, 19), 'C0603', [67, 51], [2.4, 0], {
      rotation_deg: 90,
      value: '100 nF',
      nets: { '1': '3V3', '2': 'GND' },
    }),
    ...row(names('R', 1, 6), 'R0805', [44, 27], [2.4, 0], { rotation_deg: 90, value: '330 kΩ' }),
    ...row(names('R', 7, 12), 'R0603', [66, 30.6], [2, 0], { rotation_deg: 90, value: '10 kΩ' }),
    ...row(names('R', 13, 16), 'R0603', [82, 22], [0, 2], { value: '1 kΩ' }),
    ...row(names('D', 5, 7), 'LED-0603', [80, 14], [0, 2.4], { what: 'lamp' }),
    ...row(names('C', 20, 25), 'C0603', [52, 34], [3, 0], { side: 'bottom', rotation_deg: 90, value: '100 nF' }),
    ...row(names('R', 20, 27), 'R0603', [50, 46], [3, 0], { side: 'bottom', rotation_deg: 90, value: '4.7 kΩ' }),
    part('U7', 'OPTO-SMD-4', 32, 46, { side: 'bottom', what: 'zero crossing' }),
  ],
};
