/** The calculator of one joint's solder: its form, and volume with mass. */
import { z } from 'zod';
import { hole_mm3, printed_mm3 } from '../materials/index.ts';
import { compositionSchema, density_g_cm3 } from './elements.ts';

const size = z.number().positive().max(100);
const fraction = z.number().min(0).max(1);

const pasteSchema = z.strictObject({
  aperture_mm: z.tuple([size, size]),
  stencil_mm: z.number().positive().max(2),
  transferTimesCoverage: z.number().positive().max(1.5),
  metalVolumeFraction: fraction,
});
const holeSchema = z.strictObject({
  drill_mm: size,
  lead_mm: z.number().nonnegative().max(100),
  board_mm: size,
  fill: fraction,
  pad_mm: size,
  fillet_mm: z.number().nonnegative().max(20),
  k: z.number().min(0).max(1),
  fillets: z.int().min(0).max(2),
});

export const jointVolumeInput = z
  .strictObject({
    paste: pasteSchema.optional(),
    hole: holeSchema.optional(),
    wt: compositionSchema,
  })
  .superRefine((v, ctx) => {
    if ((v.paste === undefined) === (v.hole === undefined))
      ctx.addIssue({
        code: 'custom',
        path: [v.paste === undefined ? 'paste' : 'hole'],
        message: 'give either paste or hole',
      });
    if (v.hole && v.hole.lead_mm > v.hole.drill_mm)
      ctx.addIssue({ code: 'custom', path: ['hole', 'lead_mm'], message: 'does not fit the drill' });
    if (v.hole && v.hole.pad_mm < v.hole.drill_mm)
      ctx.addIssue({ code: 'custom', path: ['hole', 'pad_mm'], message: 'is smaller than the drill' });
  });
export type JointVolumeInput = z.infer<typeof jointVolumeInput>;

export const jointVolumeOutput = z.strictObject({ volume_mm3: z.number(), mass_mg: z.number() });

export function jointVolume({ paste, hole, wt }: JointVolumeInput): z.infer<typeof jointVolumeOutput> {
  const volume_mm3 = paste ? printed_mm3(paste) : hole ? hole_mm3(hole) : 0;
  // mm³ × g/cm³ is milligrams
  return { volume_mm3, mass_mg: volume_mm3 * density_g_cm3(wt) };
}
