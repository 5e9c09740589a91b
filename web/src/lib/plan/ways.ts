/** Ways of working as the comparison shows them: what counts how much, lengths of bars, short words. */
import type { Row, Weights } from '@orthos/core/compare';
import { partName, type BoardModel } from '@orthos/core/board';

/** What counts in a comparison, in the order of its columns. */
export const COUNTS = ['pads', 'neighbours', 'part', 'minutes'] as const;
export const COUNT_NAMES: Record<keyof Weights, string> = {
  pads: 'Pads',
  neighbours: 'Neighbours',
  part: 'Part',
  minutes: 'Min',
};
/** How much something may count: nothing to three times. */
export const nextWeight = (w: number): number => (w >= 3 ? 0 : w + 1);

/** How far a bar goes, 0 to 1; short is kind. */
export interface Bar {
  part: number;
  tone: 'good' | 'caution' | 'stop';
  word: string;
}

const bar = (part: number, word: string, [caution, stop]: readonly [number, number]): Bar => {
  const tone = part >= stop ? 'stop' : part >= caution ? 'caution' : 'good';
  return { part: Math.min(1, Math.max(0.04, part)), tone, word };
};
const percent = (p: number): string => (p > 0 && p < 0.01 ? `${(100 * p).toFixed(1)} %` : `${Math.round(100 * p)} %`);

/** Chance of a torn land: a bar is full at one in five. */
export const padsBar = ({ land }: Row): Bar | null =>
  land && bar(Math.sqrt(land.p_torn / 0.2), percent(land.p_torn), [0.5, 1]);

/** The worst neighbour: full where it is hurt, empty from 150 K off. */
export function neighboursBar({ worst }: Row, board: BoardModel): Bar {
  if (!worst || worst.margin_K === null) return bar(0, 'nobody', [0.8, 1]);
  const part = board.parts.find((p) => p.partId === worst.partId);
  const name = part ? partName(part) : worst.partId;
  const left = Math.round(worst.margin_K);
  const hurt = worst.word === 'hurts' ? 1 : worst.word === 'may hurt' ? 0.85 : Math.min(0.75, 1 - worst.margin_K / 150);
  return bar(hurt, `${name} ${left} K`, [0.8, 1]);
}

/** What the part itself goes through. */
export function partBar({ part }: Row): Bar | null {
  if (!part) return null;
  if (part.p_hurt >= 1) return bar(1, 'dies', [0.5, 1]);
  const words = { hurts: 1, 'may hurt': 0.85, near: 0.6, clear: 0.2 } as const;
  return bar(words[part.word], part.word, [0.8, 1]);
}

/** Marks of verdicts, everywhere the same. */
export const VERDICT = {
  works: { mark: '●', tone: 'good' },
  tight: { mark: '◆', tone: 'caution' },
  no: { mark: '▲', tone: 'stop' },
  'not here': { mark: '○', tone: 'ink2' },
} as const;

/** "4.4 min" from two minutes on, seconds below. */
export const lasts = (s: number): string => (s < 120 ? `${Math.round(s)} s` : `${(s / 60).toFixed(1)} min`);

/** How long it takes at the bench, and how much of it is heat. */
export function atBench({ loose_s, heat_s }: Row): string {
  if (!loose_s?.p50) return '';
  const range = loose_s.p5 && loose_s.p95 ? `, ${lasts(loose_s.p5)} to ${lasts(loose_s.p95)}` : '';
  const heat = heat_s?.p50 ?? 0;
  const hands = loose_s.p50 - heat > 2;
  return `All loose after about ${lasts(loose_s.p50)} at the bench${range}${hands ? `; of it ${heat < 1 ? 'no' : lasts(heat)} heat` : ''}.`;
}
