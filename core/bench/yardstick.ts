/** The C program of the same uniform case, for developers who have it compiled. */
import { spawnSync } from 'node:child_process';

/** ns per cell-step of one run of the program at `path`, if there is one. */
export function yardstick(path: string | undefined): number | undefined {
  if (!path) return undefined;
  const out = spawnSync(path, ['0.05', '1'], { encoding: 'utf8' }).stdout;
  return (JSON.parse(out.trim().split('\n').at(-1) ?? '{}') as { ns_per_cell_step?: number }).ns_per_cell_step;
}
