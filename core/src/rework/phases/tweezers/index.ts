/** Both ends of a part gripped at once by two heated tips. */
import { z } from 'zod';
import { formatTemperature } from '../../../ground/index.ts';
import { definePhase } from '../declaration.ts';
import { COUNT, fluxIt, heating, heatOff, heatOn, lift, LIFT_LATE, NO_FORCE } from '../instruction.ts';
import { filmAfter, tipField, tipFields, tipShape, uncertainTip } from '../tip.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';

export const tweezersSettings = z.strictObject(tipShape);
export type TweezersSettings = z.infer<typeof tweezersSettings>;

class GripDrive extends TipDrive<TweezersSettings> {
  protected touchAt(k: number, t: number): Touch {
    const row = this.sides[k];
    return row ? this.contact.around(k, row, row[Math.floor(row.length / 2)], filmAfter(t)) : NOTHING;
  }
  lastBecause(): string {
    return 'both tips heat alike; the other is close behind';
  }
}

export const tweezers = definePhase<'tweezers', TweezersSettings>({
  kind: 'tweezers',
  name: 'Hot tweezers',
  settings: tweezersSettings,
  form: { usual: tipFields('Power of a tip'), moreTitle: 'Tip and way of working', more: [tipField] },
  line: ({ set_C }, panel) => `${formatTemperature(set_C, panel)}, both ends at once`,
  irons: ({ power_W, set_C }) => [0, 1].map(() => ({ power_W, set_C })),
  fromAbove: false,
  bridges: false,
  drive: (settings, scene) => new GripDrive(settings, scene),
  uncertain: uncertainTip,
  needs: ({ set_C, tip_mm }) => ({
    tools: ['hot tweezers', `tip ${tip_mm} mm`],
    setPoints: [{ id: 'iron', label: 'iron temperature', value: set_C, unit: '°C', tolerance: 5 }],
  }),
  change_s: 5,
  say: ({ set_C }, work) => [
    fluxIt(work, 'A thin, even film.'),
    {
      id: 'feed',
      say: 'Fresh solder on both ends.',
      watch: 'It wets the tips and carries their heat.',
      tap: 'fed',
      mark: 'done',
    },
    heatOn(
      `Hot tweezers at ${set_C} °C. Grip both ends.`,
      'Both tips flat on their joints. The clock starts with your tap.',
    ),
    ...heating(work, 'Hold both ends. Do not squeeze.'),
    lift('It turns freely? Lift it straight up.', NO_FORCE, LIFT_LATE),
    heatOff('Tweezers into their stand.', 'Tin both tips.', 'tweezers away'),
    COUNT,
  ],
  cautions: [],
  wayOut: 'Wider or hotter tips would change that, warming from below most of all.',
  spare: 'Cover it,',
});
