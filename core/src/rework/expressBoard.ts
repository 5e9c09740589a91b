/**
 * The express job's board: no model, four answers. A board of the usual size for its kind, the part in
 * the middle, the nearest plastic at the distance given.
 */
import { z } from 'zod';
import type { BoardModel } from '../board/index.ts';
import { packageById, type PackageModel, readPackage, type Rect } from '../packages/index.ts';

export const BOARD_KINDS = {
  thin: {
    label: 'thin two-layer, 0.8 mm',
    thickness_mm: 0.8,
    size_mm: 45,
    alloy: 'SAC305',
    stack: [
      ['top', 35, 0.35],
      ['bottom', 35, 0.5],
    ],
  },
  'two-layer': {
    label: 'two-layer, 1.6 mm',
    thickness_mm: 1.6,
    size_mm: 60,
    alloy: 'SAC305',
    stack: [
      ['top', 35, 0.35],
      ['bottom', 35, 0.5],
    ],
  },
  'two-layer-leaded': {
    label: 'two-layer, 1.6 mm, leaded',
    thickness_mm: 1.6,
    size_mm: 60,
    alloy: 'Sn63Pb37',
    stack: [
      ['top', 35, 0.35],
      ['bottom', 35, 0.5],
    ],
  },
  'four-layer': {
    label: 'four-layer, 1.6 mm',
    thickness_mm: 1.6,
    size_mm: 70,
    alloy: 'SAC305',
    stack: [
      ['top', 45, 0.4],
      ['inner 1', 35, 0.85],
      ['inner 2', 35, 0.85],
      ['bottom', 45, 0.4],
    ],
  },
  heavy: {
    label: 'thick with heavy copper',
    thickness_mm: 2,
    size_mm: 100,
    alloy: 'SAC305',
    stack: [
      ['top', 50, 0.45],
      ['inner 1', 70, 0.85],
      ['inner 2', 70, 0.85],
      ['bottom', 50, 0.5],
    ],
  },
  phone: {
    label: 'thin with many layers, phone-like',
    thickness_mm: 0.8,
    size_mm: 50,
    alloy: 'SAC305',
    stack: [
      ['top', 18, 0.5],
      ['inner 1', 18, 0.85],
      ['inner 2', 18, 0.7],
      ['inner 3', 18, 0.7],
      ['inner 4', 18, 0.85],
      ['bottom', 18, 0.5],
    ],
  },
  console: {
    label: 'heavy, planes right at the pads, console-like',
    thickness_mm: 1.6,
    size_mm: 140,
    alloy: 'SAC305',
    pour: true,
    stack: [
      ['top', 45, 0.5],
      ['inner 1', 70, 0.85],
      ['inner 2', 70, 0.85],
      ['inner 3', 70, 0.85],
      ['inner 4', 70, 0.85],
      ['bottom', 45, 0.5],
    ],
  },
  thick: {
    label: 'thick main board, 2.4 mm',
    thickness_mm: 2.4,
    size_mm: 140,
    alloy: 'SAC305',
    pour: true,
    stack: [
      ['top', 45, 0.45],
      ['inner 1', 35, 0.85],
      ['inner 2', 35, 0.85],
      ['inner 3', 35, 0.85],
      ['inner 4', 35, 0.85],
      ['bottom', 45, 0.45],
    ],
  },
  aluminium: {
    label: 'aluminium core, LED or power board',
    thickness_mm: 1.6,
    size_mm: 80,
    alloy: 'SAC305',
    // the core as the copper that conducts like it: 1.5 mm at 170 W/(m·K)
    stack: [
      ['top', 70, 0.6],
      ['core', 320, 1],
      ['core below', 320, 1],
    ],
  },
  paper: {
    label: 'old paper laminate, one layer, leaded',
    thickness_mm: 1.6,
    size_mm: 120,
    alloy: 'Sn63Pb37',
    laminate: 'phenolic-paper',
    stack: [['copper side', 35, 0.3]],
  },
} as const satisfies Record<
  string,
  {
    label: string;
    thickness_mm: number;
    size_mm: number;
    alloy: string;
    stack: readonly (readonly [string, number, number])[];
    laminate?: BoardModel['laminate'];
    /** Copper lies solid on one side of the part, as it does in life: its rows do not melt alike. */
    pour?: boolean;
  }
>;

/** Solid copper from the middle of a part to one side of it, on the face it stands on, with vias into the planes; mm. */
const POUR_MM = 14;
function pourBeside(kind: object, x_mm: number, y_mm: number) {
  if (!('pour' in kind)) return { copper: [], vias: [] };
  const area = { x_mm, y_mm: y_mm - POUR_MM, w_mm: POUR_MM, h_mm: 2 * POUR_MM };
  return { copper: [{ ...area, layer: 0, coverage: 1 }], vias: [{ ...area, per_mm2: 0.25 }] };
}

/** Plastic kinds asked for, with the connector that stands for them. */
export const PLASTICS = {
  none: { label: 'no plastic within 25 mm', package: null },
  unknown: { label: 'plastic, kind unknown', package: 'CONN-4' },
  pbt: { label: 'PBT', package: 'CONN-PBT-8' },
  pa66: { label: 'PA66', package: 'CONN-PA66-4' },
  lcp: { label: 'LCP', package: 'CONN-LCP-6' },
} as const;

export const expressSchema = z.strictObject({
  /** As it is typed. */
  package: z.string().transform((text, ctx) => {
    const named = readPackage(text);
    if ('id' in named && packageById(named.id).terminals.length > 0) return named.id;
    ctx.addIssue({ code: 'custom', message: 'id' in named ? `${named.id} has no joints` : named.problem });
    return z.NEVER;
  }),
  boardKind: z.enum(Object.keys(BOARD_KINDS) as [keyof typeof BOARD_KINDS]),
  plastic: z.enum(Object.keys(PLASTICS) as [keyof typeof PLASTICS]),
  distance_mm: z.number({ error: 'give millimetres, 0.5 to 30' }).min(0.5, 'at least 0.5 mm').max(30, 'at most 30 mm'),
});
export type ExpressAnswers = z.infer<typeof expressSchema>;

/**
 * Copper that a pad or a tab under a package has to itself, mm: a tab sits on an area larger than its land, a centre pad on little more than itself.
 * `place` puts a rectangle of the package on the board.
 */
export function hotCopper(
  { terminals }: PackageModel,
  place: (land: Rect) => { x0: number; x1: number; y0: number; y1: number },
): { x_mm: number; y_mm: number; w_mm: number; h_mm: number }[] {
  const hot = terminals.find((t) => t.kind === 'pad' || t.kind === 'tab');
  if (!hot) return [];
  const margin = hot.kind === 'tab' ? 3 : 1;
  const { x0, x1, y0, y1 } = place(hot.land);
  return [{ x_mm: x0 - margin, y_mm: y0 - margin, w_mm: x1 - x0 + 2 * margin, h_mm: y1 - y0 + 2 * margin }];
}

export function expressBoard(a: ExpressAnswers): BoardModel {
  const kind = BOARD_KINDS[a.boardKind];
  const target = packageById(a.package);
  const size = kind.size_mm;
  const centre = size / 2;
  const plasticId = PLASTICS[a.plastic].package;
  const [under] = hotCopper(target, ({ x, y, w, h }) => ({
    x0: centre + x - w / 2,
    x1: centre + x + w / 2,
    y0: centre + y - h / 2,
    y1: centre + y + h / 2,
  }));
  const plastic = plasticId ? packageById(plasticId) : undefined;
  const poured = pourBeside(kind, centre, centre);
  return {
    v: 1,
    name: `${target.label} on ${kind.label}`,
    outline_mm: [
      [0, 0],
      [size, 0],
      [size, size],
      [0, size],
    ],
    thickness_mm: kind.thickness_mm,
    stack: kind.stack.map(([name, foil_um, coverage]) => ({ name, foil_um, coverage })),
    copper: [
      ...poured.copper,
      ...(under
        ? [
            { ...under, layer: 0, coverage: 1 },
            { ...under, layer: kind.stack.length - 1, coverage: 0.9 },
          ]
        : []),
    ],
    vias: [...poured.vias, ...(under ? [{ ...under, per_mm2: 0.5 }] : [])],
    ...('laminate' in kind ? { laminate: kind.laminate } : {}),
    holes: [],
    parts: [
      {
        partId: 'target',
        package: target.id,
        x_mm: centre,
        y_mm: centre,
        rotation_deg: 0,
        side: 'top',
        what: target.label,
      },
      ...(plastic
        ? [
            {
              partId: 'plastic',
              package: plastic.id,
              // turned upright, its long side facing the part
              x_mm: centre + target.body.l / 2 + a.distance_mm + plastic.body.w / 2,
              y_mm: centre,
              rotation_deg: 90,
              side: 'top' as const,
              what: PLASTICS[a.plastic].label,
            },
          ]
        : []),
    ],
    landmarks: [],
    flipAxis_mm: centre,
    powerSources: [],
    jointAlloy: kind.alloy,
  };
}
