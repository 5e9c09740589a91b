import { type Step, STEPS } from '@orthos/core/hands';

export const match = (value: string): value is Step => (STEPS as readonly string[]).includes(value);
