import { z } from 'zod';
import { tipShape } from '../tip.ts';

export const tweezersSettings = z.strictObject(tipShape);
export type TweezersSettings = z.infer<typeof tweezersSettings>;
