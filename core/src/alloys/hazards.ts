/** What in an alloy can hurt, and whether it may be chosen at all. */
import { normalised, type Composition, type Element } from './elements.ts';

export interface Hazard {
  element: Element;
  says: string;
  /** Such an alloy is never offered. */
  refused: boolean;
}

interface Rule {
  element: Element;
  /** From this share, wt%. */
  from: number;
  says: string;
  refused?: true;
}

/** Limits of content are guides from legislation and bath standards, from memory. */
const RULES: readonly Rule[] = [
  {
    element: 'Cd',
    from: 0.002,
    says: 'Cadmium: its fume is highly toxic and causes cancer. Not to be used at the bench.',
    refused: true,
  },
  {
    element: 'Pb',
    from: 0.1,
    says: 'Lead: wash hands, no food at the bench, extraction. It goes on the record and on the label of a lead-free board.',
  },
  { element: 'In', from: 0.1, says: 'Indium: dust harms the lung. Do not grind or scrape it dry.' },
  { element: 'Sb', from: 1, says: 'Antimony: extraction over the joint.' },
  { element: 'Zn', from: 1, says: 'Zinc: needs a strong flux; its white fume makes feverish. Extraction.' },
];

export function hazardsOf(wt: Composition): Hazard[] {
  const share = normalised(wt);
  return RULES.filter((r) => (share[r.element] ?? 0) >= r.from).map(({ element, says, refused = false }) => ({
    element,
    says,
    refused,
  }));
}

export const isRefused = (wt: Composition): boolean => hazardsOf(wt).some((h) => h.refused);
