/** Where and how a part can be gripped once every joint is wet. */
import { extentOf, type PackageModel } from './packageModel.ts';

export interface Grip {
  /** Faces without legs, or all faces. */
  faces: 'both ends' | 'both sides' | 'any two opposite' | 'top only';
  /** Between those faces, mm. */
  width_mm: number;
  /** Height that the jaws can hold, mm. */
  height_mm: number;
  tool: 'fine tweezers' | 'tweezers' | 'wide tweezers or pliers' | 'vacuum cup';
}

/** Widest that bench tweezers open without letting the tips lean, mm. */
const TWEEZERS_MM = 16;

/** Faces, width and height for the grip; leadless and flat bodies are lifted by vacuum. */
export function gripOf(p: PackageModel): Grip {
  const e = extentOf(p);
  const freeX = Math.max(e.x1, -e.x0) <= p.body.l / 2 + 0.05;
  const freeY = Math.max(e.y1, -e.y0) <= p.body.w / 2 + 0.05;
  const height_mm = Math.max(0, p.body.h - p.body.gap);
  const [faces, width_mm]: [Grip['faces'], number] =
    p.shape === 'round' || (freeX && freeY)
      ? ['any two opposite', Math.min(p.body.l, p.body.w)]
      : freeY
        ? ['both ends', p.body.w]
        : freeX
          ? ['both sides', p.body.l]
          : ['top only', Math.min(p.body.l, p.body.w)];
  const tool =
    faces === 'top only' || (height_mm < 0.7 && width_mm > 3)
      ? 'vacuum cup'
      : width_mm > TWEEZERS_MM
        ? 'wide tweezers or pliers'
        : width_mm < 2
          ? 'fine tweezers'
          : 'tweezers';
  return { faces, width_mm, height_mm, tool };
}
