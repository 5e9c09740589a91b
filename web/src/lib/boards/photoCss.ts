/** A photo on the stage: its homography to board mm and the view's to screen pixels, as one CSS transform. */
import type { StageView } from '$lib/stage/view';
import { type Homography, multiplyHomographies } from '@orthos/core/board';

export function photoTransform(view: StageView, toBoard: Homography): string {
  const s = view.scale;
  const toScreen = view.mirrored
    ? [-s, 0, view.ox + s * 2 * view.axis, 0, s, view.oy, 0, 0, 1]
    : [s, 0, view.ox, 0, s, view.oy, 0, 0, 1];
  const [a, b, c, d, e, f, g, h, i] = multiplyHomographies(toScreen, toBoard);
  return `matrix3d(${[a, d, 0, g, b, e, 0, h, 0, 0, 1, 0, c, f, 0, i].join(',')})`;
}
