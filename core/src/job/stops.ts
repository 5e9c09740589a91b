/** What ends a first power before its time. */

export const STOPS = {
  'over-voltage': 'too much voltage on a rail',
  'too much': 'more than a good unit draws, and it stays so',
  'at the limit': 'the limit holds it',
  warm: 'something gets warm, smokes or smells',
  'called off': 'called off by hand',
} as const;
export type Stop = keyof typeof STOPS;
export const STOP_IDS = Object.keys(STOPS) as [Stop, ...Stop[]];
