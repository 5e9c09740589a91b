/** What lies on parts and board at the bench: covers against the air, and metal that takes heat unasked. */
import { bodyRect, boxOnBoard, type PlacedPart } from '../../board/index.ts';
import { packageById } from '../../packages/index.ts';
import { type BoardMesh, overlapOnMesh } from '../../thermal/index.ts';
import { exposedBody, linkToBoard, throughGap, type Lumps } from './lumps.ts';
import type { ReworkCase } from './caseForm.ts';

/** What a cover leaves of the jet's heat transfer, and its own heat, J/(m²·K). Estimates. */
const COVERS = {
  tape: { leaves: 0.7, heat: 93 },
  foil: { leaves: 0.5, heat: 39 },
  'foil-off': { leaves: 0.12, heat: 39 },
  strip: { leaves: 0.3, heat: 1035 },
  thick: { leaves: 0.08, heat: 2500 },
} as const;

/** Body nodes of a part as far as it is in the run. */
function bodiesOf(lumps: Lumps, target: PlacedPart, partId: string | undefined): number[] {
  if (partId === target.partId) return [lumps.body];
  return lumps.neighbours.find((n) => n.part.partId === partId)?.nodes ?? [];
}

function cover(lumps: Lumps, nodes: readonly number[], leaves: number): void {
  for (const e of lumps.exposed) if (nodes.includes(e.node)) e.cover = Math.min(leaves, e.cover ?? 1);
}

/** Covers cut the jet's transfer and add their own mass: over a part, or over a piece of board. */
export function layCovers(lumps: Lumps, { covers = [] }: ReworkCase, mesh: BoardMesh, target: PlacedPart): void {
  for (const c of covers) {
    const { leaves, heat } = COVERS[c.kind];
    if (c.area) {
      const { x_mm, y_mm, w_mm, h_mm } = c.area;
      overlapOnMesh(mesh, { x0: x_mm, y0: y_mm, x1: x_mm + w_mm, y1: y_mm + h_mm }, (column) => {
        lumps.covered.set(column, Math.min(leaves, lumps.covered.get(column) ?? 1));
      });
      continue;
    }
    const nodes = bodiesOf(lumps, target, c.partId);
    cover(lumps, nodes, leaves);
    for (const e of lumps.exposed) {
      const node = lumps.nodes[e.node];
      if (nodes.includes(e.node) && node.type === 'body') node.C += heat * (e.top + e.sides);
    }
  }
}

/**
 * Metal on a part: usual mass, g; contact with the body, W/(m²·K); its own surface against the body's top; what the air still finds
 * of the body; height over it, mm. Estimates.
 */
const SINKS = {
  heatsink: { mass_g: 10, contact: 8000, surface: 5, leaves: 0.05, over_mm: 8 },
  clip: { mass_g: 2, contact: 800, surface: 1, leaves: 0.6, over_mm: 2 },
  shield: { mass_g: 1.5, contact: 60, surface: 1.4, leaves: 0.08, over_mm: 0.5 },
} as const;
/** Glue under a body: filled part of its base, W/(m·K), thinnest seam, mm, J/(m³·K). Estimates. */
const GLUE = { share: 0.5, conductivity: 0.25, least_mm: 0.1, heat: 1.8e6 };
/** A paper or film label, 0.15 mm: what it leaves of the jet on the body under it (0.15 W/(m·K) in series with 300 W/(m²·K)), its own heat, J/(m²·K). Estimates. */
const LABEL = { leaves: 0.77, heat: 210 };
/** A clip's jaw on a lead, W/K: 1 mm² of contact at 2e4 W/(m²·K) in series with 2 mm of lead of 0.3 mm² at 250 W/(m·K). Its own faces, m². Estimates. */
const CLIP_ON_LEAD = { G: 0.013, face: 6e-5 };
/** Metal, J/(g·K): between aluminium and copper alloys. */
const METAL_HEAT = 0.6;
/** A soldered rim of sheet hands heat to the board, W/K per metre (0.2 mm of steel over 2 mm). */
const RIM = 5;

type Sink = NonNullable<ReworkCase['sinks']>[number];

/** Each piece of metal is a lump of its own on the part, a shield soldered to the board round it as well; glue ties the body to the board. */
export function addSinks(lumps: Lumps, input: ReworkCase, mesh: BoardMesh, target: PlacedPart): void {
  for (const s of input.sinks ?? []) {
    const part = input.board.parts.find((p) => p.partId === s.partId);
    const bodies = bodiesOf(lumps, target, s.partId);
    if (!part || bodies.length === 0 || s.kind === 'coating') continue;
    if (s.kind === 'glue') addGlue(lumps, input, mesh, part, bodies);
    else if (s.kind === 'label') addLabel(lumps, bodies);
    else if (s.terminals) addClip(lumps, input, part, s);
    else addMetal(lumps, input, mesh, part, bodies, { ...s, kind: s.kind });
  }
}

/** A seam between body and board; on the target it can come off. */
function addGlue(lumps: Lumps, input: ReworkCase, mesh: BoardMesh, part: PlacedPart, bodies: readonly number[]): void {
  const rect = bodyRect(part);
  const seam_mm = Math.max(GLUE.least_mm, packageById(part.package).body.gap);
  const filled = throughGap(seam_mm / 2, GLUE.conductivity);
  const half = (area: number) => (GLUE.share * filled(area)) / bodies.length;
  const area = rect.w * rect.h * 1e-6;
  for (const body of bodies) {
    const C = (GLUE.heat * GLUE.share * area * seam_mm * 1e-3) / bodies.length;
    const node = lumps.nodes.push({ id: `glue:${part.partId}:${body}`, type: 'body', C, T0: input.ambient_C }) - 1;
    const link = lumps.links.push({ a: node, node: body, G: half(area) }) - 1;
    if (body === lumps.body) lumps.glue.push(link);
    linkToBoard(lumps, mesh, node, boxOnBoard(part, rect), half);
  }
}

function addLabel(lumps: Lumps, bodies: readonly number[]): void {
  for (const e of lumps.exposed) {
    const node = lumps.nodes[e.node];
    if (!bodies.includes(e.node) || node.type !== 'body') continue;
    e.label = LABEL.leaves;
    node.C += LABEL.heat * e.top;
  }
}

/** Metal clipped to leads of the target: heat goes into it instead of into the joint. */
function addClip(lumps: Lumps, input: ReworkCase, part: PlacedPart, { kind, mass_g, terminals = [] }: Sink): void {
  const held = lumps.joints.filter((j) => terminals.includes(j.terminal.id));
  if (held.length === 0) return;
  const C = (mass_g ?? SINKS.clip.mass_g) * METAL_HEAT;
  const node = lumps.nodes.push({ id: `${kind}:${terminals.join(' ')}`, type: 'body', C, T0: input.ambient_C }) - 1;
  for (const joint of held) {
    joint.clipped = true;
    lumps.links.push({ a: node, node: joint.node, G: CLIP_ON_LEAD.G });
  }
  const [x, y] = ['x', 'y'].map((k) => held.reduce((sum, j) => sum + j[k as 'x' | 'y'], 0) / held.length);
  const { face } = CLIP_ON_LEAD;
  const height = packageById(part.package).body.h + SINKS.clip.over_mm;
  lumps.exposed.push({ node, x, y, height, top: face, sides: face, half: [2, 2], factor: 1 });
}

function addMetal(
  lumps: Lumps,
  input: ReworkCase,
  mesh: BoardMesh,
  part: PlacedPart,
  bodies: readonly number[],
  s: Sink & { kind: keyof typeof SINKS },
): void {
  const kind = SINKS[s.kind];
  const rect = bodyRect(part);
  const node =
    lumps.nodes.push({
      id: `${s.kind}:${s.partId}`,
      type: 'body',
      C: (s.mass_g ?? kind.mass_g) * METAL_HEAT,
      T0: input.ambient_C,
    }) - 1;
  const area = rect.w * rect.h * 1e-6;
  for (const body of bodies) lumps.links.push({ a: node, node: body, G: (kind.contact * area) / bodies.length });
  cover(lumps, bodies, kind.leaves);
  const pkg = packageById(part.package);
  const face = exposedBody(node, part, pkg, rect);
  lumps.exposed.push({ ...face, height: pkg.body.h + kind.over_mm, sides: face.top * (kind.surface - 1) });
  if (s.kind === 'shield') solderRim(lumps, mesh, node, boxOnBoard(part, rect));
}

/** The rim of a sheet stands on a millimetre of board all round. */
function solderRim(
  lumps: Lumps,
  mesh: BoardMesh,
  node: number,
  { x0, x1, y0, y1 }: ReturnType<typeof boxOnBoard>,
): void {
  const along = (area: number) => (RIM * area) / 1e-3;
  linkToBoard(lumps, mesh, node, { x0: x0 - 1, x1: x1 + 1, y0: y0 - 1, y1: y0 }, along);
  linkToBoard(lumps, mesh, node, { x0: x0 - 1, x1: x1 + 1, y0: y1, y1: y1 + 1 }, along);
  linkToBoard(lumps, mesh, node, { x0: x0 - 1, x1: x0, y0, y1 }, along);
  linkToBoard(lumps, mesh, node, { x0: x1, x1: x1 + 1, y0, y1 }, along);
}
