/** A method for a part on a board, as it can or cannot be done. */
import type { Method } from './method.ts';

export interface MethodChoice {
  method: Method;
  /** Why this method is not for this part; absent when it is. */
  unfit?: string;
  /** The cheapest thing that would make it one. */
  cheapest?: string;
  /** Computed only when somebody asks for it. */
  asked?: true;
  /** Of a part that stands on its lands already. */
  again?: true;
  /** What of it the bench has not, as it is called there; absent where nothing is missing. */
  lacks?: string[];
}

/** Whether it can be done: it fits the part, and all of it is there. */
export const isDoable = ({ unfit, lacks: missing }: MethodChoice): boolean => !unfit && !missing;
