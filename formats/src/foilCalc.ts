/** `protect.foil` and `protect.cover` as public calculations: foil with a window, a cover for one part, and the files to print them. */
import {
  type CoverInput,
  coverInput,
  coverSheet,
  coverSheetSchema,
  type FoilInput,
  foilInput,
  foilSheet,
  foilSheetSchema,
} from '@orthos/core/foil';
import { CalcInputError, defineCalc } from '@orthos/core/ground';
import { z } from 'zod';
import { coverDrawing, type FoilDrawing, foilDrawing } from './foil/drawing.ts';
import { foilPdf } from './foil/foilPdf.ts';
import { foilSvg } from './foil/foilSvg.ts';

const FILES = { svg: z.string(), pdf_base64: z.base64() };
const filesOf = async (drawing: FoilDrawing) => ({ svg: foilSvg(drawing), pdf_base64: await foilPdf(drawing) });

/** What cannot be cut is a fault of the outline. */
function cut<T>(sheet: () => T): T {
  try {
    return sheet();
  } catch (error) {
    throw new CalcInputError([{ field: 'outline_mm', message: (error as Error).message }]);
  }
}

export const foilCalc = defineCalc({
  name: 'protect.foil',
  summary: 'Foil with a window over a part: where to cut and fold, drawn 1:1 as SVG and PDF',
  input: foilInput,
  output: foilSheetSchema.extend(FILES),
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
    const sheet = cut(() => foilSheet(input));
    return { ...sheet, ...(await filesOf(foilDrawing(sheet, input))) };
  },
});

export const coverCalc = defineCalc({
  name: 'protect.cover',
  summary: 'A cover of foil for one part or an area: where to cut and fold, drawn 1:1 as SVG and PDF',
  input: coverInput,
  output: coverSheetSchema.extend(FILES),
  example: { package: 'CONN-12', x_mm: 10, y_mm: 20, height_mm: 6 },
  async run(input: CoverInput) {
    const sheet = cut(() => coverSheet(input));
    return { ...sheet, ...(await filesOf(coverDrawing(sheet, input))) };
  },
});
