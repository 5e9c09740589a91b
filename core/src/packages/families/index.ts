import type { Family } from '../family.ts';
import { box, flexTail, shieldCan } from './body.ts';
import { mouldedEnds, twoEnds, vChipCan } from './ends.ts';
import { gullFour, gullRows, jLeads } from './gull.ts';
import { ballGrid, castellated, leadlessFour, leadlessRows } from './leadless.ts';
import { tabbed } from './power.ts';
import { connector, pinRows, radial, upright } from './through.ts';

export const FAMILIES: ReadonlyMap<string, Family> = new Map(
  [
    gullRows,
    gullFour,
    jLeads,
    leadlessFour,
    leadlessRows,
    twoEnds,
    mouldedEnds,
    vChipCan,
    tabbed,
    upright,
    radial,
    pinRows,
    connector,
    castellated,
    ballGrid,
    flexTail,
    shieldCan,
    box,
  ].map((f) => [f.id, f]),
);
