/** What a source of heat from below gives a board. */
import { LAMINATE } from '../../../materials/index.ts';
import { STEFAN_BOLTZMANN, ZERO_CELSIUS_K } from '../../../ground/index.ts';

/** A plate meets a board of parts and joints over a thin layer of air; an air heater streams, W/(m²·K) (estimates). */
export const USUAL_H = { plate: 120, air: 40 } as const;
/** What a heater some centimetres below fills of the board's view (estimate). */
const VIEW = 0.6;

/** Infrared of a heater that glows at a temperature, W/m², as the laminate takes it up. */
export const infrared_W_m2 = (T_C: number): number =>
  VIEW * LAMINATE.emissivity.value * STEFAN_BOLTZMANN * (T_C + ZERO_CELSIUS_K) ** 4;

/** What a source is called. */
export const SOURCES = { plate: 'hot plate', infrared: 'infrared heater', air: 'preheater with air' } as const;
