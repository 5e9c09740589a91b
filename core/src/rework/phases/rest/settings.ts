import { z } from 'zod';

/** Nothing to set: how far it cools is what hands it over. */
export const restSettings = z.strictObject({});
export type RestSettings = z.infer<typeof restSettings>;
