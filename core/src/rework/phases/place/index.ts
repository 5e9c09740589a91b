/** The part set down on its lands: cold, or onto molten ones with the heat still on. */
import { definePhase } from '../declaration.ts';
import { SET_DOWN_S } from '../../handTimes.ts';
import { type PlaceSettings, placeSettings } from './settings.ts';

export const place = definePhase<'place', PlaceSettings>({
  kind: 'place',
  name: 'Placed',
  settings: placeSettings,
  tool: 'hand',
  wants: () => [],
  limbs: ({ molten }) => ({ left: molten ? 'the heat stays on' : 'free', right: 'tweezers on the part' }),
  line: ({ molten, socket, again }) => (molten ? 'set down, heat on' : socket ? 'a socket' : again ? 'fresh flux' : ''),
  irons: () => [],
  paced: true,
  fromAbove: true,
  bridges: false,
  lays: ({ molten }) => molten === true,
  stays_s: ({ molten }) => (molten ? SET_DOWN_S : undefined),
  uncertain: [],
  needs: ({ socket, again }) => ({ tools: [socket ? 'the socket' : again ? 'flux' : 'tweezers'], setPoints: [] }),
  change_s: 0,
  cautions: [],
  wayOut: '',
  spare: '',
});
