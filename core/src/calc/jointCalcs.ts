import { defineCalc } from '../ground/index.ts';
import { jointVolume, jointVolumeInput, jointVolumeOutput } from '../alloys/index.ts';

export const jointVolumeCalc = defineCalc({
  name: 'joint.volume',
  summary: 'Solder volume and mass of one printed or plated-hole joint.',
  input: jointVolumeInput,
  output: jointVolumeOutput,
  example: {
    paste: { aperture_mm: [0.6, 1.5], stencil_mm: 0.12, transferTimesCoverage: 0.9, metalVolumeFraction: 0.5 },
    wt: { Sn: 96.5, Ag: 3, Cu: 0.5 },
  },
  run: jointVolume,
});
