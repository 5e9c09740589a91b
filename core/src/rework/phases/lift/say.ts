/** What hands are told: nudged and lifted, with the heat of the phase before still on. */
import { lift as lifted, LIFT_LATE, NO_FORCE, type Say } from '../instruction.ts';
import type { LiftSettings } from './settings.ts';

export const say: Say<LiftSettings> = ({ stays_s }) => [
  lifted(
    'Nudge it. It springs back? Lift, hold it clear.',
    `Heat stays on ${stays_s} s from the first movement. ${NO_FORCE} Hold it level until it has frozen.`,
    LIFT_LATE,
  ),
];
