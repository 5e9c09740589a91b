/** What a bare land can be found to be: one key each, and its words. */
import type { LandMark } from '@orthos/core/hands';

interface LandWords {
  key: string;
  label: string;
  /** What to look for. */
  hint: string;
  tone: 'good' | 'caution' | 'stop';
}
export const LAND_WORDS: Record<LandMark, LandWords> = {
  good: { key: ' ', label: 'Clean', hint: 'flat, shiny, firm', tone: 'good' },
  dirty: { key: 's', label: 'Solder left', hint: 'a hump, a hair, a ball', tone: 'caution' },
  lifted: { key: 'l', label: 'Lifted', hint: 'gives under a needle', tone: 'caution' },
  torn: { key: 't', label: 'Torn', hint: 'gone, its track ends', tone: 'stop' },
  'mask-gone': { key: 'm', label: 'Mask gone', hint: 'bare copper beside it', tone: 'caution' },
  burnt: { key: 'u', label: 'Burnt', hint: 'brown, soft laminate', tone: 'stop' },
  plugged: { key: 'p', label: 'Plugged', hint: 'no daylight through it', tone: 'caution' },
  'no-copper': { key: 'n', label: 'None by design', hint: 'never had a track', tone: 'good' },
};
export const LAND_ORDER: LandMark[] = ['good', 'dirty', 'lifted', 'torn', 'mask-gone', 'burnt', 'no-copper', 'plugged'];
/** Of a hole alone. */
export const isOfHoles = (state: LandMark): boolean => state === 'plugged';
