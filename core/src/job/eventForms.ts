/** Forms shared by the events of a job. */
import { z } from 'zod';

export const text = z.string().trim().min(1, 'say it in a few words').max(2000);
export const id = z.string().min(1).max(60);
