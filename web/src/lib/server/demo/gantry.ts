import type { BoardModel } from '@orthos/core/board';
import { importBoard } from '@orthos/formats';
import file from './gantry.kicad_pcb?raw';

/**
 * Drive gate board, read from its board file as any other would be: six layers of 70 µm, 2 mm. What a file does not
 * say is added as a technician would.
 */
export function gantry(): { doc: BoardModel; drawingText: string } {
  const { board, drawingText } = importBoard([{ name: 'gantry.kicad_pcb', bytes: new TextEncoder().encode(file) }]);
  return {
    drawingText,
    doc: {
      ...board,
      name: 'Gantry',
      landmarks: [
        { id: 'hole-nw', x_mm: 5, y_mm: 5, label: 'hole by C30' },
        { id: 'hole-se', x_mm: 145, y_mm: 95, label: 'hole by J1' },
      ],
      powerSources: [
        { id: 'bus', label: '600 V on J1', kind: 'lead' },
        { id: 'bulk', label: 'cans C1 and C2, 560 V', kind: 'capacitor' },
        { id: 'control', label: '24 V on J2', kind: 'lead' },
      ],
      rails: [
        { id: '3v3', label: '3.3 V', partId: 'u4', terminal: 'TAB', good_ohm: 740 },
        { id: '24v', label: '24 V', partId: 'c4', terminal: '2', good_ohm: 3600 },
      ],
      loads: [{ id: 'motor', label: 'motor' }],
      service: ['mains', 'industrial'],
      opening: [
        { id: 'o1', kind: 'screw', what: 'six, cover' },
        { id: 'o2', kind: 'heatsink', what: 'bar over Q1 and Q2, four screws, paste' },
      ],
      parts: board.parts.map((p) => (p.partId === 'c1' || p.partId === 'c2' ? { ...p, blocksIron: true } : p)),
    },
  };
}
