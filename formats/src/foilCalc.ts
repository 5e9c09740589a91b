/** `protect.foil` as a public calculation: a sheet of foil with a window, and the files to print it. */
import { type FoilInput, foilInput, foilSheet, foilSheetSchema } from '@orthos/core/foil';
import { CalcInputError, defineCalc } from '@orthos/core/ground';
import { z } from 'zod';
import { foilDrawing } from './foil/drawing.ts';
import { foilPdf } from './foil/foilPdf.ts';
import { foilSvg } from './foil/foilSvg.ts';

export const foilCalc = defineCalc({
  name: 'protect.foil',
  summary: 'Foil with a window over a part: where to cut and fold, drawn 1:1 as SVG and PDF',
  input: foilInput,
  output: foilSheetSchema.extend({ svg: z.string(), pdf_base64: z.base64() }),
  example: {
    package: 'QFP-44',
    x_mm: 30,
    y_mm: 20,
    landmarks: [
      { x_mm: 4, y_mm: 4 },
      { x_mm: 56, y_mm: 36 },
    ],
  },
  async run(input: FoilInput) {
    const sheet = sheetOf(input);
    const drawing = foilDrawing(sheet, input);
    return { ...sheet, svg: foilSvg(drawing), pdf_base64: await foilPdf(drawing) };
  },
});

function sheetOf(input: FoilInput) {
  try {
    return foilSheet(input);
  } catch (error) {
    throw new CalcInputError([{ field: 'outline_mm', message: (error as Error).message }]);
  }
}
