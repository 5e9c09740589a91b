/** An iron joint by joint: on open lands, or pins in their holes until both faces are wet. */
import { definePhase } from '../declaration.ts';
import { atJoints } from './declared.ts';
import type { JointSettings } from './settings.ts';

export const joint = definePhase<'joint', JointSettings>({ kind: 'joint', name: 'Iron, joint by joint', ...atJoints });
export const fill = definePhase<'fill', JointSettings>({ kind: 'fill', name: 'Holes filled', ...atJoints });
