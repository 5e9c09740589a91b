import { OPERATIONS, type Operation } from '@orthos/core';

export const match = (value: string): value is Operation => (OPERATIONS as readonly string[]).includes(value);
