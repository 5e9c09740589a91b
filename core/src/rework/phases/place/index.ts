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
  line: ({ molten, socket }) => (molten ? 'set down, heat on' : socket ? 'a socket' : ''),
  irons: () => [],
  paced: true,
  fromAbove: true,
  bridges: false,
  lays: ({ molten }) => molten === true,
  stays_s: ({ molten }) => (molten ? SET_DOWN_S : undefined),
  uncertain: [],
  needs: ({ socket }) => ({ tools: [socket ? 'the socket' : 'tweezers'], setPoints: [] }),
  change_s: 0,
  cautions: [],
  wayOut: '',
  spare: '',
});
