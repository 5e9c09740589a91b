import { routineStepSchema } from '@orthos/core/diagnosis';
import { z } from 'zod';

/** A routine as it is sent. */
export const routineBody = z.strictObject({
  name: z.string().trim().min(1, 'give the routine a name').max(80),
  steps: z.array(routineStepSchema).max(100),
  modelIds: z.array(z.uuid()).min(1, 'for which kind of board?').max(200),
});
