/** `board.import` as a public calculation. The command line turns its `file` into `bytes`; others send them. */
import { boardModelSchema } from '@orthos/core/board';
import { CalcInputError, defineCalc } from '@orthos/core/ground';
import { z } from 'zod';
import { BoardFileError } from './fileError.ts';
import { importBoard } from './importBoard.ts';

const inputSchema = z.strictObject({
  name: z.string().max(300),
  /** The file, base64. */
  bytes: z.base64().max(90_000_000),
});

const fractions = z.record(z.string(), z.number().min(0).max(1));

const outputSchema = z.strictObject({
  board: boardModelSchema,
  counts: z.strictObject({
    footprints: z.number(),
    pads: z.number(),
    nets: z.number(),
    top: z.number(),
    bottom: z.number(),
  }),
  bbox_mm: z.strictObject({
    x0: z.number(),
    y0: z.number(),
    x1: z.number(),
    y1: z.number(),
    w: z.number(),
    h: z.number(),
  }),
  area_mm2: z.number(),
  coverage: fractions,
  matches: z.array(
    z.strictObject({
      key: z.string(),
      footprint: z.string(),
      package: z.string(),
      by: z.enum(['library', 'family', 'box', 'chosen']),
      off_mm: z.number(),
      partIds: z.array(z.string()),
    }),
  ),
  format: z.string(),
  ignored: z.record(z.string(), z.number()),
  notes: z.array(z.string()),
});

const EXAMPLE = `(kicad_pcb (version 20240108) (general (thickness 1.6))
(layers (0 "F.Cu" signal) (31 "B.Cu" signal)) (net 0 "") (net 1 "GND")
(segment (start 2 5) (end 18 5) (width 1) (layer "F.Cu") (net 1))
(gr_rect (start 0 0) (end 20 10) (layer "Edge.Cuts") (width 0.1)))`;

export const boardImportCalc = defineCalc({
  name: 'board.import',
  summary: 'Board file to board model with counts, coverage and what was not read',
  input: inputSchema,
  output: outputSchema,
  example: { name: 'strip.kicad_pcb', bytes: btoa(EXAMPLE) },
  cost: (input) => input.bytes.length / 5e6,
  run(input, { progress }) {
    const bytes = Uint8Array.from(atob(input.bytes), (c) => c.charCodeAt(0));
    try {
      const { board, counts, bbox_mm, area_mm2, coverage, matches, format, ignored, notes } = importBoard(
        [{ name: input.name, bytes }],
        { progress },
      );
      return { board, counts, bbox_mm, area_mm2, coverage, matches, format, ignored, notes };
    } catch (error) {
      if (error instanceof BoardFileError) throw new CalcInputError([{ field: 'file', message: error.sentence }]);
      throw error;
    }
  },
});
