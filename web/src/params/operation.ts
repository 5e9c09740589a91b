import { type Operation, OPERATIONS } from '@orthos/core/rework';

export const match = (value: string): value is Operation => (OPERATIONS as readonly string[]).includes(value);
