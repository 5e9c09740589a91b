/** One board that is heated from below, with a neighbour of every kind on either side far outside of what the air reaches: who is hurt, and why. */
import type { BoardModel, PlacedPart } from '../src/board/index.ts';
import type { Harm } from '../src/materials/dose.ts';
import { air, boardOf, planOf } from './plans.ts';
import { runPlan } from '../src/rework/planRun.ts';

export interface NeighbourCase {
  package: string;
  limit?: string;
  /** What three minutes over a preheater do to it: its upper side gets to 95 °C, its lower side to 104, both for about a minute. */
  top: Harm | 'take out';
  bottom: Harm | 'take out';
  why: string;
}

/** Expected from the table of limits alone: what each allows at 95 and at 104 °C. */
export const NEIGHBOUR_CASES: NeighbourCase[] = [
  { package: 'DISPLAY-30', top: 'take out', bottom: 'take out', why: 'polariser fails from 75 °C' },
  { package: 'CELL-20', top: 'take out', bottom: 'take out', why: 'seal of a coin cell gives from 70 °C' },
  { package: 'CELL-POUCH', top: 'take out', bottom: 'take out', why: 'lithium gives off gas from 80 °C' },
  { package: 'CAMERA-8', top: 'hurts', bottom: 'hurts', why: 'lens and glue stand 75 °C for a minute' },
  { package: 'GUIDE-12', top: 'hurts', bottom: 'hurts', why: 'acrylic stands 85 °C for a minute' },
  { package: 'box:l=8,w=4,h=5,limit=abs', top: 'hurts', bottom: 'hurts', why: 'ABS stands 85 °C for a minute' },
  { package: 'box:l=8,w=4,h=5,limit=pvc', top: 'hurts', bottom: 'hurts', why: 'PVC stands 100 °C for 15 s' },
  { package: 'box:l=8,w=4,h=5,limit=mic-electret', top: 'hurts', bottom: 'hurts', why: 'charge leaks from 70 °C' },
  { package: 'SUPERCAP-11', top: 'hurts', bottom: 'hurts', why: 'electrolyte stands 85 °C for a minute' },
  { package: 'GLUE-6', top: 'hurts', bottom: 'hurts', why: 'hot-melt runs at 65 °C' },
  { package: 'MAGNET-6', top: 'hurts', bottom: 'hurts', why: 'the weakest grade loses its strength at 80 °C' },
  { package: 'TFUSE', top: 'hurts', bottom: 'hurts', why: 'an unread cut-off may open at 72 °C' },
  {
    package: 'FILM-10',
    top: 'may hurt',
    bottom: 'hurts',
    why: 'polypropylene shrinks: 100 °C for a minute and a half',
  },
  { package: 'BUZZER-12', top: 'may hurt', bottom: 'hurts', why: 'membrane stands 100 °C for a minute' },
  {
    package: 'radial:l=5,w=5,h=8,pitch=2.5,limit=led-tht',
    top: 'may hurt',
    bottom: 'hurts',
    why: 'epoxy stands 105 °C for a minute',
  },
  { package: 'CONN-4', top: 'may hurt', bottom: 'hurts', why: 'may be PVC or ABS: 110 °C for a minute at most' },
  {
    package: 'RELAY-15',
    top: 'may hurt',
    bottom: 'may hurt',
    why: 'sealed relays stand 110 °C for a minute and a half',
  },
  {
    package: 'RADIAL-10',
    top: 'clear',
    bottom: 'may hurt',
    why: 'seal stands 110 °C for two minutes, give or take 12 K',
  },
  {
    package: 'box:l=8,w=4,h=5,limit=pc',
    top: 'clear',
    bottom: 'clear',
    why: 'polycarbonate stands 120 °C for a minute',
  },
  { package: 'FLEX-8', top: 'may hurt', bottom: 'hurts', why: 'PET stands 105 °C for a minute' },
  { package: 'SWITCH-6', top: 'clear', bottom: 'may hurt', why: 'dome stands 120 °C for a minute, give or take 15 K' },
  {
    package: 'POT-10',
    top: 'clear',
    bottom: 'may hurt',
    why: 'wiper carrier stands 120 °C for a minute, give or take 15 K',
  },
  {
    package: 'pin-rows:pins=6,limit=relay-open',
    top: 'clear',
    bottom: 'clear',
    why: 'open relays stand 120 °C for two minutes, give or take 15 K',
  },
  {
    package: 'radial:l=5,w=5,h=8,pitch=2.5,limit=ptc-tht',
    top: 'clear',
    bottom: 'may hurt',
    why: 'trips, comes back: 125 °C for a minute',
  },
  {
    package: 'radial:l=7,w=3,h=7,pitch=5,limit=film-pet',
    top: 'clear',
    bottom: 'clear',
    why: 'polyester stands 125 °C for a minute and a half',
  },
  { package: 'box:l=8,w=4,h=5,limit=pom', top: 'clear', bottom: 'clear', why: 'POM stands 130 °C for a minute' },
  {
    package: 'radial:l=3,w=3,h=8,pitch=1,limit=crystal-can',
    top: 'clear',
    bottom: 'clear',
    why: 'inner solder stands 125 °C for a minute',
  },
  { package: 'TRAFO-EE16', top: 'clear', bottom: 'clear', why: 'tape and bobbin stand 140 °C for four minutes' },
  { package: 'LABEL-20', top: 'clear', bottom: 'may hurt', why: 'paper browns from 130 °C' },
  { package: 'COAT-20', top: 'clear', bottom: 'clear', why: 'acrylic coating stands 125 °C for three minutes' },
  { package: 'CONN-PBT-8', top: 'clear', bottom: 'clear', why: 'PBT with glass stands 175 °C' },
  { package: 'CONN-PA66-4', top: 'clear', bottom: 'clear', why: 'PA66 with glass stands 200 °C' },
  { package: 'TERM-2', top: 'clear', bottom: 'clear', why: 'PA66 without glass stands 170 °C' },
  { package: 'CONN-LCP-6', top: 'clear', bottom: 'clear', why: 'LCP stands reflow' },
  { package: 'connector:mount=flat', top: 'clear', bottom: 'clear', why: 'soldered flat: it has been through an oven' },
  { package: 'SOIC-16', top: 'clear', bottom: 'clear', why: 'moulded bodies stand reflow' },
  { package: 'DIP-8', top: 'clear', bottom: 'clear', why: 'on pins, 200 °C for a minute' },
  { package: 'DIP-4', top: 'clear', bottom: 'clear', why: 'opto-couplers stand 183 °C' },
  { package: 'BGA-64', top: 'clear', bottom: 'clear', why: 'nothing happens to balls below their solidus' },
  { package: 'C1206', top: 'clear', bottom: 'clear', why: 'ceramic stands any heat that comes slowly' },
  { package: 'R2512', top: 'clear', bottom: 'clear', why: 'its own joints melt first' },
  { package: 'IND-8', top: 'clear', bottom: 'clear', why: 'reflow coils stand 217 °C for a minute' },
  { package: 'CAN-8', top: 'clear', bottom: 'clear', why: 'flat cans stand 217 °C for 50 s' },
  { package: 'POLY-8', top: 'clear', bottom: 'clear', why: 'polymer cans stand reflow' },
  { package: 'TANT-D', top: 'clear', bottom: 'clear', why: 'tantalum stands reflow' },
  { package: 'XTAL-3225', top: 'clear', bottom: 'clear', why: 'flat crystals stand reflow' },
  { package: 'XTAL-HC49', top: 'clear', bottom: 'clear', why: 'the mount stands 180 °C' },
  { package: 'LED-3528', top: 'clear', bottom: 'clear', why: 'flat LEDs stand reflow' },
  { package: 'DISC-5', top: 'clear', bottom: 'clear', why: 'inner solder of discs holds to 160 °C' },
  { package: 'RES-AXIAL', top: 'clear', bottom: 'clear', why: 'lacquer stands reflow' },
  { package: 'SHIELD-14', top: 'clear', bottom: 'clear', why: 'its solder is solid' },
  { package: 'MIC-4', top: 'clear', bottom: 'clear', why: 'MEMS microphones stand reflow' },
];

/** Verdict on each case on either side, with heat from below and without; `undefined` where it is not even listed. */
export async function neighbourVerdicts(): Promise<Map<string, { below?: string; without?: string; peak_C?: number }>> {
  const target = boardOf('SOIC-8', 'two-layer').parts[0];
  const parts: PlacedPart[] = [{ ...target, x_mm: 30, y_mm: 60 }];
  NEIGHBOUR_CASES.forEach((c, i) => {
    for (const side of ['top', 'bottom'] as const)
      parts.push({
        partId: `${i}-${side}`,
        package: c.package,
        ...(c.limit ? { limit: c.limit } : {}),
        x_mm: 90 + 30 * (i % 8),
        y_mm: 10 + 16 * Math.floor(i / 8),
        rotation_deg: 0,
        side,
      });
  });
  const board: BoardModel = {
    ...boardOf('SOIC-8', 'two-layer'),
    outline_mm: [
      [0, 0],
      [320, 0],
      [320, 120],
      [0, 120],
    ],
    parts,
  };
  const found = new Map<string, { below?: string; without?: string; peak_C?: number }>();
  for (const [key, under] of [
    ['below', { kind: 'preheater', T_C: 165, h: 40 }],
    ['without', undefined],
  ] as const) {
    // air that melts nothing: the whole time counts
    const blown = air({ set_C: 180, limit_s: 180 });
    const run = await runPlan(planOf(board, blown, { under, moisture: 'baked' }), { now: () => 0 });
    for (const n of run.neighbours)
      found.set(n.partId, {
        ...found.get(n.partId),
        [key]: n.takeOut ? 'take out' : n.says,
        ...(under ? { peak_C: n.peak_C } : {}),
      });
  }
  return found;
}
