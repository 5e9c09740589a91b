import { kindOf, type Method, type Panel } from '@orthos/core/rework';

/** A method's settings in one line, phase by phase. */
export const settingLine = ({ phases }: Method, panel: Panel): string =>
  phases
    .map((p) => kindOf(p).line(p.settings, panel))
    .filter((line, n, all) => line !== '' && line !== all[n - 1])
    .join('; then ');
