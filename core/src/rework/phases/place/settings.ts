import { z } from 'zod';

export const placeSettings = z.strictObject({
  /** Onto lands that are molten, with the heat still on; onto cold ones where nothing is said. */
  molten: z.literal(true).optional(),
  /** It stands on its lands already: fluxed, and heated again. */
  again: z.literal(true).optional(),
  /** A socket instead of the part, which goes into it cold. */
  socket: z.literal(true).optional(),
});
export type PlaceSettings = z.infer<typeof placeSettings>;
