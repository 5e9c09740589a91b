/** A shop's own ordered tests for a family of boards. */
import { z } from 'zod';
import { METER_TYPES } from '../circuit/index.ts';
import type { Measured } from '../ground/index.ts';

const net = z.string().trim().max(80);

export const routineStepSchema = z
  .strictObject({
    id: z.string().min(1).max(60),
    says: z.string().trim().min(1, 'say what is done').max(300),
    /** A reading; without it the step is looked at or tried. */
    reading: z
      .strictObject({
        type: z.enum(METER_TYPES),
        red: net,
        black: net,
        state: net.nullable(),
        /** What it should read at least and at most; null: no bound. OL is above every bound. */
        least: z.number().nullable(),
        most: z.number().nullable(),
      })
      .optional(),
  })
  .refine(({ reading: r }) => !r || r.least === null || r.most === null || r.least <= r.most, {
    error: 'the least is above the most',
  });
export type RoutineStep = z.infer<typeof routineStepSchema>;

/** Whether a reading is what the step asks for. */
export function meetsRoutine({ least, most }: NonNullable<RoutineStep['reading']>, value: Measured): boolean {
  if (value === 'OL') return most === null;
  return (least === null || value >= least) && (most === null || value <= most);
}
