/** Solder that goes onto lands when a part is put on: how much a joint lacks of what it should have. */
import { packageById, solderVolume } from '../../packages/index.ts';
import type { JointLump } from '../bench/lumps.ts';

/** Mm³ that a joint lacks of `share` of its usual solder. */
export function lacking_mm3({ terminal, metal }: JointLump, thickness_mm: number, share: number): number {
  const there = metal.own_mm3 * (1 + metal.with.reduce((sum, w) => sum + w.ratio, 0));
  return Math.max(0, share * solderVolume(terminal, thickness_mm) - there);
}

/** Wire that joints are fed with, mm. */
export const WIRE_MM = 0.7;

/** Less than this nobody measures off, mm. */
const LEAST_WIRE_MM = 1;

/** How much wire a usual joint of a package takes, in words; `share` of what it usually has. Joints of one size are one figure. */
export function wireWords(
  packageId: string,
  thickness_mm: number,
  share: number,
  kinds?: (kind: string) => boolean,
): string {
  const { terminals } = packageById(packageId);
  const mm = terminals
    .filter((t) => kinds?.(t.kind) ?? true)
    .map((t) => (share * solderVolume(t, thickness_mm)) / ((Math.PI / 4) * WIRE_MM ** 2))
    .sort((a, b) => a - b);
  const middle = mm.at(Math.floor(mm.length / 2)) ?? 0;
  if (middle < LEAST_WIRE_MM) return `a touch of wire, ${share} of a joint’s solder`;
  return `${middle < 10 ? middle.toFixed(1) : Math.round(middle)} mm of ${WIRE_MM} mm wire`;
}
