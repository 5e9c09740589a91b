/**
 * Methods as they were said before procedures: one tool with its settings and a label. Calculations go on taking them, and what jobs kept in this
 * form is read as procedures of one phase; nothing writes it any more.
 */
import { z } from 'zod';
import { airSettings } from '../phases/air/settings.ts';
import { strokeSettings } from '../phases/stroke/settings.ts';
import { vacuumSettings } from '../phases/vacuum/settings.ts';
import type { Phase } from '../phases/schema.ts';
import type { Method } from './method.ts';

const LONGEST_S = 300;
const limit_s = z.number().min(5).max(LONGEST_S);
const label = z.string().max(60);

/**
 * Beads were said as multiples of the joint's own solder, when that was taken for five times as much as paste leaves; six of those, the usual
 * ones, are 1.2 mm³ per mm of a row.
 */
const PER_RATIO = 0.2;
function beadByRow(given: unknown): unknown {
  if (typeof given !== 'object' || given === null || !('bead_ratio' in given)) return given;
  const { bead_ratio, ...rest } = given;
  if (typeof bead_ratio !== 'number' || 'bead_mm3_mm' in rest) return given;
  return { ...rest, bead_mm3_mm: Math.round(bead_ratio * PER_RATIO * 1000) / 1000 };
}

const bead = z.strictObject({
  kind: z.literal('low-melt'),
  label,
  ...strokeSettings.shape,
  // it was always laid before the iron came
  bead_mm3_mm: strokeSettings.shape.bead_mm3_mm.unwrap(),
  limit_s,
});
const iron = z.strictObject({
  kind: z.literal('iron'),
  label,
  ...vacuumSettings.shape,
  tool: z.enum(['tweezers', 'vacuum']),
  limit_s,
});
const air = z.strictObject({ kind: z.literal('air'), label, ...airSettings.shape, limit_s });

export const givenMethodSchema = z.preprocess(beadByRow, z.discriminatedUnion('kind', [air, bead, iron]));
export type GivenMethod = z.infer<typeof givenMethodSchema>;

/** Ids of the recipes by the labels that once stood for them. */
const ID_OF_LABEL: Readonly<Record<string, string>> = {
  'Air, slow': 'air-slow',
  'Air, fast': 'air-fast',
  'Low-melt + iron': 'bead',
  'Vacuum iron': 'vacuum',
  'Hot tweezers': 'tweezers',
};

/** The id of what went by a label: a recipe's, or one made of the words. */
export function idOfLabel(text: string): string {
  const fitting = text.replace(/, fitting$/, '');
  const words = fitting
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return ID_OF_LABEL[fitting] ?? (words || 'method');
}

/** One tool with its settings, as the phase it is. */
export function phaseOfGiven(given: GivenMethod): Phase {
  const common = { until: { loose: 'all' as const }, giveUp_s: given.limit_s };
  if (given.kind === 'air') {
    const { kind, label, limit_s, ...settings } = given;
    return { id: kind, kind, settings, ...common };
  }
  if (given.kind === 'low-melt') {
    const { kind, label, limit_s, ...settings } = given;
    return { id: 'stroke', kind: 'stroke', settings, ...common };
  }
  const { kind, label, limit_s, tool, dwell_s, most_s, ...tip } = given;
  if (tool === 'tweezers') return { id: tool, kind: tool, settings: tip, ...common };
  return {
    id: tool,
    kind: tool,
    settings: { ...tip, dwell_s, ...(most_s === undefined ? {} : { most_s }) },
    ...common,
  };
}

export const methodOfGiven = (given: GivenMethod): Method => ({
  id: idOfLabel(given.label),
  phases: [phaseOfGiven(given)],
});

/** A method of one phase as it was said before procedures; undefined for what nobody could say then. */
export function givenOf({ id, phases }: Method): GivenMethod | undefined {
  const [phase, ...more] = phases;
  const found = Object.entries(ID_OF_LABEL).find(([, known]) => known === id);
  if (more.length > 0 || !found || phase.giveUp_s > LONGEST_S) return undefined;
  const common = { label: found[0], limit_s: phase.giveUp_s };
  if (phase.kind === 'air') return { kind: 'air', ...phase.settings, ...common };
  const { settings } = phase;
  if (phase.kind === 'stroke' && 'bead_mm3_mm' in settings && settings.bead_mm3_mm !== undefined)
    return { kind: 'low-melt', ...phase.settings, bead_mm3_mm: settings.bead_mm3_mm, ...common };
  if (phase.kind === 'vacuum') return { kind: 'iron', tool: 'vacuum', ...phase.settings, ...common };
  if (phase.kind === 'tweezers') return { kind: 'iron', tool: 'tweezers', dwell_s: 0, ...phase.settings, ...common };
  return undefined;
}
