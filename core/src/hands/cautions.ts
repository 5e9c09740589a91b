/** Usual cautions, shown at the step and for the board where they apply. */
import type { BoardModel, PlacedPart, SourceKind } from '../board/index.ts';
import { packageById } from '../packages/index.ts';
import { kindOf, limitRowOf, type Method } from '../rework/index.ts';
import type { Step } from './forms.ts';

interface CautionFacts {
  board: BoardModel;
  target?: PlacedPart;
  /** The method of the plan in use. */
  method?: Method;
  /** An alloy is in the joints, or worked into them, whatever the method. */
  alloyed?: boolean;
  sources: readonly SourceKind[];
}

interface CautionRule {
  steps: readonly Step[];
  when?: (facts: CautionFacts) => boolean;
  text: string;
}

const HANDS: Step[] = ['remove', 'prepare', 'fit'];
const hasLimit = (like: RegExp) => (f: CautionFacts) => f.board.parts.some((p) => like.test(limitRowOf(p).id));
const feeds = (kind: SourceKind) => (f: CautionFacts) => f.sources.includes(kind);
const serves = (what: 'mains' | 'vehicle' | 'industrial') => (f: CautionFacts) =>
  f.board.service?.includes(what) ?? false;

/** Where the cautions of the tools in hand stand among all others. */
const OF_THE_PHASES = 'of the phases';

/** Most dangerous first. */
const RULES: (CautionRule | typeof OF_THE_PHASES)[] = [
  {
    steps: ['intake', 'protect', 'verify'],
    when: (f) => serves('mains')(f) || feeds('mains')(f),
    text: 'Mains: qualified people only. Bleed, wait, measure again, prove the meter before and after. Wrist strap off. Behind an isolating transformer no residual-current device protects you.',
  },
  {
    steps: ['protect', 'verify'],
    when: feeds('capacitor'),
    text: 'Charged capacitors: discharge through a resistor, wait a minute, measure again. Strap off until they are empty.',
  },
  {
    steps: ['protect'],
    when: (f) => feeds('cell')(f) || hasLimit(/^cell-/)(f),
    text: 'Cells: take them out before heat. Never puncture, short or warm one; a cover is a last resort.',
  },
  { steps: ['protect'], text: 'Wrist strap through its 1 MΩ; off wherever mains or a charged bank is live.' },
  {
    steps: ['protect'],
    text: 'Foil and metal strips only on a board that has no power, and nowhere left behind.',
  },
  OF_THE_PHASES,
  { steps: HANDS, text: 'Hot surfaces and fumes: extraction on, face out of the flux. Rosin can sensitise.' },
  {
    steps: ['remove', 'prepare', 'fit', 'release'],
    text: 'Lead: wash hands, no food or drink at the bench, sweepings into the lead bin.',
  },
  {
    steps: ['remove', 'prepare'],
    when: (f) => f.alloyed === true || (f.method?.phases.some((p) => kindOf(p).bridges) ?? false),
    text: 'Low-melt alloy: only one without cadmium. Its residue must leave lands and legs, above all where lead is present.',
  },
  {
    steps: ['protect', ...HANDS],
    when: (f) => f.board.coating === 'polyurethane' || f.board.coating === 'unknown',
    text: 'Polyurethane coating gives off isocyanates when heated: take it off first, extraction on, sensitised people stay away.',
  },
  {
    steps: HANDS,
    when: hasLimit(/^elko-/),
    text: 'Cans can vent: eyes covered. Leaked electrolyte off the skin at once, with water.',
  },
  {
    steps: ['remove', 'fit'],
    when: (f) => f.target !== undefined && ['mould', 'plastic'].includes(packageById(f.target.package).texture),
    text: 'A damp moulded part can burst when heated fast. If it is to live, bake it: 125 °C for a day, or 90 °C for two, tapes and plugs off.',
  },
  {
    steps: ['protect', ...HANDS],
    when: (f) => f.target !== undefined && packageById(f.target.package).terminals.some((t) => t.kind === 'ball'),
    text: 'Balls under the body: fitting one wants a machine that shows both faces at once, and a look inside afterwards. By hand only to take it off for good.',
  },
  {
    steps: HANDS,
    when: hasLimit(/^(pvc|pom)$/),
    text: 'PVC gives off acid from 180 °C, POM formaldehyde from 220: extraction on, heat away from them.',
  },
  {
    steps: ['remove', 'prepare'],
    when: (f) =>
      f.target !== undefined &&
      packageById(f.target.package).texture === 'ceramic' &&
      packageById(f.target.package).body.l > 6,
    text: 'Large white ceramic of power and radio parts may be beryllia: never break, file or grind it.',
  },
  { steps: ['prepare'], text: 'Alcohol only when iron and air are off the bench; let it dry before power or heat.' },
  {
    steps: ['fit'],
    when: (f) => /memory|controller/i.test(f.target?.what ?? ''),
    text: 'Stored data (calibration, immobiliser, counters) may be protected by law: keep a copy, restore the original, never alter it.',
  },
  { steps: ['verify'], text: 'First power: supply limited, hand on the switch, eyes covered, nothing metal near.' },
  {
    steps: ['intake', 'verify', 'release'],
    when: serves('vehicle'),
    text: 'Vehicle safety functions: repair may need licensed people. Local rules and licensed practice come first.',
  },
  {
    steps: ['intake', 'verify', 'release'],
    when: serves('industrial'),
    text: 'Industrial safety functions: repair may need licensed people. Local rules and licensed practice come first.',
  },
];

/** The cautions that apply at a step, most dangerous first. */
export function cautionsFor(step: Step, facts: CautionFacts): string[] {
  const phases = (facts.method?.phases ?? []).flatMap((p): CautionRule[] => [...kindOf(p).cautions]);
  const rules = RULES.flatMap((r) => (r === OF_THE_PHASES ? phases : [r]));
  return [...new Set(rules.filter((r) => r.steps.includes(step) && (r.when?.(facts) ?? true)).map((r) => r.text))];
}
