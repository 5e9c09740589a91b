/** The temperature field of the working side over time, as pictures of equal distance. */
import type { BoardMesh } from '../../thermal/index.ts';
import type { FieldFrames } from './runForm.ts';

const FRAME_COUNT = 60;

export function frameRecorder(mesh: BoardMesh, limit_s: number) {
  const { grid } = mesh;
  const [nx, ny] = [grid.dx.length, grid.dy.length];
  const every = limit_s / FRAME_COUNT;
  const times: number[] = [];
  const values: Float32Array[] = [];
  return {
    take(t: number, T: Float64Array) {
      if (t < times.length * every - 1e-9) return;
      times.push(t);
      const frame = new Float32Array(nx * ny);
      for (let j = 0; j < ny; j++) for (let i = 0; i < nx; i++) frame[j * nx + i] = T[j * grid.stride + i];
      values.push(frame);
    },
    frames(): FieldFrames {
      const all = new Float32Array(values.length * nx * ny);
      for (const [n, frame] of values.entries()) all.set(frame, n * nx * ny);
      const mm = (edges: Float64Array) => Array.from(edges, (v) => v * 1000);
      return { x_mm: mm(mesh.ex), y_mm: mm(mesh.ey), times_s: [...times], values: all };
    },
  };
}
