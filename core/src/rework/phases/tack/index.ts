/** Two corners tacked: the part stays where it is. */
import { definePhase } from '../declaration.ts';
import { atJoints } from '../joint/declared.ts';
import type { JointSettings } from '../joint/settings.ts';

export const tack = definePhase<'tack', JointSettings>({ kind: 'tack', name: 'Tacked at two corners', ...atJoints });
