/** What a hot-air jet does at a distance from its axis, and whether it blows a loose small part away. */
import { z } from 'zod';
import { ZERO_CELSIUS_K } from '../ground/index.ts';
import { HAND_FACTOR, jetOf, martinShape, type Jet } from './jet.ts';

const jetFields = {
  /** Station flow at 20 °C. */
  Q_L_min: z.number().positive().max(300),
  D_mm: z.number().min(1).max(60),
  H_mm: z.number().min(1).max(300),
  Tset_C: z.number().min(0).max(600),
  Tamb_C: z.number().min(-40).max(80),
  /** Part of the set rise that reaches the mouth. */
  efficiency: z.number().min(0.3).max(1),
};
const EFFICIENCY = 0.85;
const radii = z.array(z.number().min(0).max(500)).min(1).max(500);

export const jetProfileInput = z
  .strictObject({
    Q_L_min: jetFields.Q_L_min.optional(),
    D_mm: jetFields.D_mm.optional(),
    H_mm: jetFields.H_mm.optional(),
    Tset_C: jetFields.Tset_C.optional(),
    Tamb_C: jetFields.Tamb_C.default(22),
    efficiency: jetFields.efficiency.default(EFFICIENCY),
    /** Part of the ideal heat transfer that a hand-held nozzle reaches. */
    handFactor: z.number().min(0.2).max(1.5).default(HAND_FACTOR),
    r_mm: radii.optional(),
    Re: z.number().positive().max(1e6).optional(),
    H_over_D: z.number().positive().max(100).optional(),
    r_over_D: z.array(z.number().min(0).max(100)).min(1).max(500).optional(),
    Pr: z.number().min(0.1).max(100).default(0.7),
  })
  .superRefine((v, ctx) => {
    const missing = (fields: (keyof typeof v)[]) =>
      fields
        .filter((f) => v[f] === undefined)
        .forEach((f) => ctx.addIssue({ code: 'custom', path: [f], message: 'is needed here' }));
    if (v.Re !== undefined || v.r_over_D !== undefined || v.H_over_D !== undefined)
      missing(['Re', 'H_over_D', 'r_over_D']);
    else missing(['Q_L_min', 'D_mm', 'H_mm', 'Tset_C', 'r_mm']);
  });
type JetProfileInput = z.infer<typeof jetProfileInput>;

export const jetProfileOutput = z.union([
  z.strictObject({
    Re: z.number(),
    exit_C: z.number(),
    exit_m_s: z.number(),
    points: z.array(z.strictObject({ r_mm: z.number(), h: z.number(), Taw_C: z.number() })),
    mean: z.array(z.strictObject({ r_mm: z.number(), h: z.number() })),
    /** Outside of what the correlation was measured for. */
    notes: z.array(z.string()),
  }),
  z.strictObject({ meanNu: z.array(z.number()) }),
]);

/** Where the correlation is more than an extrapolation. */
function jetNotes(Re: number, H_over_D: number): string[] {
  const notes: string[] = [];
  if (Re < 2000) notes.push(`Re ${Re.toFixed(0)} is below 2000: extrapolated`);
  if (H_over_D < 2 || H_over_D > 12) notes.push(`H/D ${H_over_D.toFixed(1)} is outside of 2 to 12: extrapolated`);
  return notes;
}

export function jetProfile(input: JetProfileInput): z.infer<typeof jetProfileOutput> {
  const { Re, H_over_D, r_over_D, Pr, r_mm = [], D_mm = 0, H_mm = 0 } = input;
  if (Re !== undefined) {
    const shape = martinShape(Re, H_over_D ?? 0, Pr);
    return { meanNu: (r_over_D ?? []).map((x) => shape.mean(Math.max(x, 1e-9))) };
  }
  const jet = jetOf({
    flow_L_min: input.Q_L_min ?? 0,
    nozzle_mm: D_mm,
    standoff_mm: H_mm,
    set_C: input.Tset_C ?? 0,
    ambient_C: input.Tamb_C,
    efficiency: input.efficiency,
    handFactor: input.handFactor,
  });
  return {
    Re: jet.Re,
    exit_C: jet.exit_C,
    exit_m_s: jet.exit_m_s,
    points: r_mm.map((r) => ({ r_mm: r, h: jet.h(r / 1000), Taw_C: jet.wall_C(r / 1000) })),
    mean: r_mm.map((r) => ({ r_mm: r, h: jet.hMean(r / 1000) })),
    notes: jetNotes(jet.Re, H_mm / D_mm),
  };
}

const side = z.number().min(0.1).max(50);
export const blowAwayInput = z.strictObject({
  Q_L_min: jetFields.Q_L_min,
  D_mm: jetFields.D_mm,
  H_mm: jetFields.H_mm,
  Tset_C: jetFields.Tset_C,
  Tamb_C: jetFields.Tamb_C.default(22),
  efficiency: jetFields.efficiency.default(EFFICIENCY),
  part: z.strictObject({ l_mm: side, w_mm: side, h_mm: side }),
  /** From the axis of the nozzle to the part. */
  r_mm: z.number().min(0).max(300),
  /** How much of its ends molten solder holds: 1 both, 0 it lies loose. */
  wet: z.union([z.boolean().transform(Number), z.number().min(0).max(1)]),
  /** Lands that it lies on in flux, mm²: a thin film draws it down. */
  fluxed_mm2: z.number().min(0).max(1e5).default(0),
});
type BlowAwayInput = z.infer<typeof blowAwayInput>;

export const blowAwayOutput = z.strictObject({
  /** Speed of the air at the part. */
  u_m_s: z.number(),
  /** Drag over what holds it. */
  N: z.number(),
  verdict: z.enum(['stays', 'skews', 'flies']),
});

const GRAVITY = 9.81;
/** Typical of a ceramic part, kg/m³. */
const PART_DENSITY = 5000;
/** Surface tension of molten solder, N/m. */
const TENSION = 0.5;
/** What a film of hot flux draws down by, Pa: twice its surface tension of some 0.03 N/m over a gap of 50 µm (estimate). */
const FILM_PULL = 1200;
/** Part of the wetted edges that pulls against the wind, friction of a loose part, drag of a block, gusts on top of the mean. */
const [PULL, FRICTION, DRAG, GUST] = [0.7, 0.3, 0.8, 1.25];

/** Speed of the wall jet near the board, m/s: core, then decay with distance, less within the boundary layer. */
function wallSpeed(
  jet: Jet,
  { D, H, r, h, ambient_C }: { D: number; H: number; r: number; h: number; ambient_C: number },
) {
  const thinning = Math.sqrt((ambient_C + ZERO_CELSIUS_K) / (jet.exit_C + ZERO_CELSIUS_K));
  const at = Math.max(r, D, 0.15 * H);
  const axis = jet.exit_m_s * Math.min(1, (6.2 * thinning * D) / H);
  const along = 1.17 * jet.exit_m_s * thinning * (D / at) ** 1.1 * (Math.max(H, 2 * D) / D) ** 0.1;
  return Math.min(axis, along) * Math.min(1, (h / (0.02 * at)) ** (1 / 7));
}

/** Weak model: it agrees with "close and strong flies, far or weak stays"; its trend with size is unproven. */
export function blowAway(input: BlowAwayInput): z.infer<typeof blowAwayOutput> {
  const jet = jetOf({
    flow_L_min: input.Q_L_min,
    nozzle_mm: input.D_mm,
    standoff_mm: input.H_mm,
    set_C: input.Tset_C,
    ambient_C: input.Tamb_C,
    efficiency: input.efficiency,
    handFactor: HAND_FACTOR,
  });
  const [l, w, h] = [input.part.l_mm, input.part.w_mm, input.part.h_mm].map((v) => v / 1000);
  const r = input.r_mm / 1000;
  const u = wallSpeed(jet, { D: input.D_mm / 1000, H: input.H_mm / 1000, r, h, ambient_C: input.Tamb_C });
  const density = 353.1 / (jet.wall_C(r) + ZERO_CELSIUS_K);
  const drag = 0.5 * density * (GUST * u) ** 2 * DRAG * 0.5 * (l + w) * h;
  const weight = PART_DENSITY * l * w * h * GRAVITY;
  const held = input.wet * 2 * TENSION * w * PULL;
  const drawn = FILM_PULL * input.fluxed_mm2 * 1e-6;
  const N = drag / (held + FRICTION * (weight + drawn));
  return { u_m_s: u, N, verdict: N < 0.5 ? 'stays' : N <= 1 ? 'skews' : 'flies' };
}
