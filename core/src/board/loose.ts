/** Names in a board model that lead nowhere: rails and nets on parts or terminals that are not there. */
import { packageById } from '../packages/index.ts';
import { type BoardModel } from './boardModel.ts';
import { partName } from './partName.ts';

/** One sentence each; empty where everything hangs together. */
export function looseEnds({ parts, rails = [] }: Pick<BoardModel, 'parts' | 'rails'>): string[] {
  const byId = new Map(parts.map((p) => [p.partId, p]));
  const has = (pkg: string, terminal: string) => packageById(pkg).terminals.some((t) => t.id === terminal);
  const ofRails = rails.flatMap(({ label, partId, terminal }) => {
    const part = byId.get(partId);
    if (!part) return [`rail ${label}: there is no part "${partId}"`];
    return has(part.package, terminal)
      ? []
      : [`rail ${label}: ${partName(part)} (${part.package}) has no terminal ${terminal}`];
  });
  const ofNets = parts.flatMap((part) =>
    Object.keys(part.nets ?? {})
      .filter((terminal) => !has(part.package, terminal))
      .map(
        (terminal) => `net ${part.nets?.[terminal]}: ${partName(part)} (${part.package}) has no terminal ${terminal}`,
      ),
  );
  return [...ofRails, ...ofNets];
}
