import { z } from 'zod';

/** Nothing to set: it is turned, never tilted. */
export const twistSettings = z.strictObject({});
export type TwistSettings = z.infer<typeof twistSettings>;
