import { z } from 'zod';
import { tipShape } from '../tip.ts';

export const liftLegsSettings = z.strictObject(tipShape);
export type LiftLegsSettings = z.infer<typeof liftLegsSettings>;
