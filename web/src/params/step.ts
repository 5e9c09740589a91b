import { STEPS, type Step } from '@orthos/core';

export const match = (value: string): value is Step => (STEPS as readonly string[]).includes(value);
