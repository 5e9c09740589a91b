/**
 * Solder in one joint. Paste: aperture × stencil × transfer × metal fraction. Plated hole: the barrel
 * round the lead plus fillets of cone shape, hollowed by k (0.4 to 0.6).
 */
import { z } from 'zod';
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
  let volume_mm3 = 0;
  if (paste) {
    const [a, b] = paste.aperture_mm;
    volume_mm3 = a * b * paste.stencil_mm * paste.transferTimesCoverage * paste.metalVolumeFraction;
  } else if (hole) {
    const [R, r, h] = [hole.pad_mm / 2, hole.lead_mm / 2, hole.fillet_mm];
    const barrel = (Math.PI / 4) * (hole.drill_mm ** 2 - hole.lead_mm ** 2) * hole.board_mm * hole.fill;
    const cone = ((Math.PI * h) / 3) * (R * R + R * r + r * r) - Math.PI * r * r * h;
    volume_mm3 = barrel + hole.fillets * hole.k * cone;
  }
  // mm³ × g/cm³ is milligrams
  return { volume_mm3, mass_mg: volume_mm3 * density_g_cm3(wt) };
}
