/**
 * The form of `heat.field`: a heat case stated in plain numbers (uniform grid, boundaries, sources, lumped
 * nodes, links, probes), so that anybody can compare it with a textbook. SI units, °C.
 */
import { z } from 'zod';
import { kernelBytes, MEMORY_LIMIT } from './gridKernel.ts';

const number = z.number();
const positive = z.number().positive();
const notNegative = z.number().nonnegative();
const celsius = z.number().min(-273.15).max(1e5);

const exchange = { h: notNegative.max(1e9), Tinf: celsius.default(20), contact_R: notNegative.optional() };
const rectangle = { x0: number, x1: number, y0: number, y1: number };
const faceSchema = z.strictObject({
  ...exchange,
  surface_half_cell: z.boolean().optional(),
  patches: z
    .array(z.strictObject({ ...rectangle, ...exchange }))
    .max(200)
    .optional(),
});
export const edgeSchema = faceSchema.omit({ patches: true });

export const boardSchema = z
  .strictObject({
    lx: positive.max(10),
    ly: positive.max(10),
    nx: z.int().min(1).max(2000),
    ny: z.int().min(1).max(2000),
    layers: z
      .array(
        z.strictObject({
          dz: positive.max(1),
          kx: positive.max(1e5),
          ky: positive.max(1e5),
          kz: positive.max(1e5),
          rhoc: positive.max(1e9),
        }),
      )
      .min(1)
      .max(60),
  })
  .superRefine(({ nx, ny, layers }, ctx) => {
    const bytes = kernelBytes(nx, ny, layers.length);
    if (bytes > MEMORY_LIMIT)
      ctx.addIssue({
        code: 'custom',
        path: ['nx'],
        message: `${nx * ny * layers.length} cells take ${Math.round(bytes / 1e6)} MB, at most ${MEMORY_LIMIT / 1e6}: fewer of them`,
      });
  });

const switching = { t_on: notNegative.optional(), t_off: notNegative.optional() };
const sourceSchema = z
  .strictObject({
    P: number.optional(),
    x: number.optional(),
    y: number.optional(),
    flux: number.optional(),
    disc: z.strictObject({ x: number, y: number, r: positive }).optional(),
    layer: z.int().nonnegative().optional(),
    ...switching,
  })
  .superRefine((s, ctx) => {
    const wanted = s.flux === undefined ? (['P', 'x', 'y'] as const) : (['disc', 'layer'] as const);
    for (const key of wanted)
      if (s[key] === undefined)
        ctx.addIssue({ code: 'custom', path: [key], message: 'is needed: P, x, y or flux, disc, layer' });
  });

const nodeCommon = {
  id: z.string().min(1).max(100),
  T0: celsius.optional(),
  hA: notNegative.default(0),
  Tinf: celsius.default(20),
  P: number.default(0),
  ...switching,
};
const nodeSchema = z.discriminatedUnion('type', [
  z.strictObject({
    type: z.literal('body'),
    ...nodeCommon,
    C: positive,
    eps: notNegative.max(1).optional(),
    area_rad: notNegative.optional(),
    Tsur: celsius.optional(),
  }),
  z.strictObject({ type: z.literal('fixed'), id: nodeCommon.id, T: celsius }),
  z.strictObject({
    type: z.literal('joint'),
    ...nodeCommon,
    V: positive,
    C_add: notNegative.default(0),
    alloy: z.strictObject({
      Ts: celsius,
      Tl: celsius,
      cs: positive,
      cl: positive,
      L: positive,
    }),
  }),
  z.strictObject({
    type: z.literal('iron'),
    ...nodeCommon,
    C: positive,
    Pmax: positive,
    Tset: celsius,
    T0: celsius,
    gain: positive.default(5),
  }),
]);

const linkSchema = z
  .strictObject({
    a: z.string(),
    b: z.string().optional(),
    G: notNegative.optional(),
    region: z.strictObject(rectangle).optional(),
    layer: z.int().nonnegative().optional(),
    G_per_area: notNegative.optional(),
  })
  .superRefine((l, ctx) => {
    const wanted = l.region === undefined ? (['b', 'G'] as const) : (['layer', 'G_per_area'] as const);
    for (const key of wanted)
      if (l[key] === undefined)
        ctx.addIssue({ code: 'custom', path: [key], message: 'is needed: b, G or region, layer, G_per_area' });
  });

const probeSchema = z
  .strictObject({
    name: z.string().max(200),
    t: notNegative.optional(),
    node: z.string().optional(),
    x: number.optional(),
    y: number.optional(),
    layer: z.union([z.int().nonnegative(), z.literal('mean')]).optional(),
    interpolate: z.boolean().optional(),
    what: z.enum(['stored_J', 'loss_W', 't_solidus', 't_liquidus']).optional(),
  })
  .superRefine((p, ctx) => {
    const need = (key: 't' | 'node' | 'x' | 'y' | 'layer') => {
      if (p[key] === undefined)
        ctx.addIssue({ code: 'custom', path: [key], message: 'is needed for this kind of probe' });
    };
    if (p.what === 't_solidus' || p.what === 't_liquidus') return need('node');
    need('t');
    if (p.what === undefined && p.node === undefined) (['x', 'y', 'layer'] as const).forEach(need);
  });

export const heatFieldInput = z.strictObject({
  initial: celsius.default(20),
  initial_field: z.string().optional(),
  initial_energy: z.strictObject({ x: number, y: number, J: number }).optional(),
  dt_start: positive.optional(),
  dt_max: positive.default(0.05),
  t_end: positive.max(1e6).optional(),
  board: boardSchema.optional(),
  boundary: z
    .strictObject({
      top: faceSchema.optional(),
      bottom: faceSchema.optional(),
      edges: edgeSchema.optional(),
    })
    .optional(),
  sources: z.array(sourceSchema).max(200).default([]),
  nodes: z.array(nodeSchema).max(500).default([]),
  links: z.array(linkSchema).max(2000).default([]),
  probes: z.array(probeSchema).min(1).max(5000),
});
export type HeatFieldInput = z.infer<typeof heatFieldInput>;

export const heatFieldOutput = z.strictObject({
  probes: z.array(z.strictObject({ name: z.string(), t: z.number().nullable(), value: z.number().nullable() })),
  energy: z.strictObject({ input_J: z.number(), stored_J: z.number(), lost_J: z.number() }),
  steps: z.number(),
  dt: z.number(),
});
export type HeatFieldOutput = z.infer<typeof heatFieldOutput>;
