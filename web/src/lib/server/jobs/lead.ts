/** Whether lead came onto a board: pages are told, and do without what every tool brings. */
import type { Flood } from '@orthos/core/hands';
import type { JobState, Run } from '@orthos/core/job';
import { bringsLead } from '@orthos/core/rework';

/** Lands were flooded, or a part tinned, with leaded solder, where the shop does so; or an alloy with lead was laid or worked in. `packageId`: of the part worked on. */
export function leadWasUsed(
  { attempts }: Pick<JobState, 'attempts'>,
  packageId: string | undefined,
  flood: Flood | undefined,
): boolean {
  const leaded = ({ phases = [], marks }: Run) =>
    marks.some(({ instruction, phase }) => {
      if (flood !== 'own' && /^(flood|tin)/.test(instruction)) return true;
      const now = phases.find((p) => p.id === phase);
      return packageId !== undefined && now !== undefined && instruction !== 'flux' && bringsLead(now, packageId);
    });
  return attempts.some((a) => a.runs.some(leaded));
}
