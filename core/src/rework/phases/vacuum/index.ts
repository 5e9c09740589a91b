/** Pin by pin: each hole melted through by a hollow tip, then sucked empty. */
import { formatTemperature } from '../../../ground/index.ts';
import { packageById } from '../../../packages/index.ts';
import type { Workpiece } from '../../bench/drive.ts';
import { RANGES } from '../../ranges.ts';
import { definePhase } from '../declaration.ts';
import { COUNT, fluxIt, heatOff, heatOn, type Instruction, lift, type Workplace } from '../instruction.ts';
import { filmAfter, tipField, tipFields, uncertainTip } from '../tip.ts';
import { NOTHING, TipDrive, type Touch } from '../tipDrive.ts';
import { type VacuumSettings, vacuumSettings } from './settings.ts';

const { dwell_s, most_s } = RANGES.iron;

/** On one pin where nothing is said, s. */
const MOST_S = 8;

/** So much of the solder stays on the walls of a hole and the pin, as a share (estimate). */
const LEFT = 0.1;

class SuckDrive extends TipDrive<VacuumSettings> {
  readonly empties = true;
  private readonly empty = this.joints.map(() => false);
  private pin = 0;
  private pinSince = 0;
  private moltenSince: number | null = null;

  get done(): boolean {
    return this.empty.every(Boolean);
  }

  protected touchAt(_: number, t: number, work: Workpiece): Touch {
    const { empty } = this;
    if (work.isLiquid(this.pin)) this.moltenSince ??= t;
    else this.moltenSince = null;
    if (this.moltenSince !== null && t - this.moltenSince >= this.settings.dwell_s && !empty[this.pin]) {
      empty[this.pin] = true;
      work.empty(this.pin);
    }
    if (empty[this.pin] || t - this.pinSince >= (this.settings.most_s ?? MOST_S)) {
      const n = empty.length;
      const next = Array.from({ length: n }, (_pin, i) => (this.pin + 1 + i) % n).find((i) => !empty[i]);
      if (next === undefined) return NOTHING;
      [this.pin, this.pinSince, this.moltenSince] = [next, t, null];
    }
    const { land } = this.joints[this.pin].terminal;
    // a ring of the tip sits on the land
    const ring = Math.PI * Math.min(this.settings.tip_mm, land.w, land.h);
    return this.contact.over(this.pin, [this.pin], ring, filmAfter(t - this.pinSince));
  }

  /** What was sucked out goes with the iron. */
  override end(work: Workpiece): void {
    super.end(work);
    for (const [i, gone] of this.empty.entries()) if (gone) work.take(i, LEFT);
  }

  lastBecause(): string {
    return 'the iron comes to it last';
  }
}

function say({ set_C, dwell_s: stays_s }: VacuumSettings, work: Workplace): Instruction[] {
  return [
    fluxIt(work, 'On both faces.'),
    {
      id: 'feed',
      say: 'Feed fresh solder into every hole.',
      watch: 'Old solder alone does not carry the heat through.',
      tap: 'fed',
      mark: 'done',
    },
    heatOn(`Vacuum iron at ${set_C} °C on the first pin.`),
    {
      id: 'pins',
      say: 'Molten through? Wait, turn the tip, then suck.',
      watch: `${stays_s} s more once it is molten. Ground pins last longest.`,
      tap: 'this pin empty',
      mark: 'done',
      walk: packageById(work.target.package).terminals.map((t) => t.id),
    },
    {
      id: 'all-wet',
      say: 'Push every pin. Do all of them move?',
      watch: 'One that holds: fresh solder, once more, or a breath of air.',
      tap: 'all free',
      mark: 'all-wet',
    },
    lift('Lift it out straight. No prying.', 'A pin that holds pulls the plating out of its hole.'),
    heatOff('Vacuum iron into its stand.', 'Empty its chamber.', 'iron away'),
    COUNT,
  ];
}

export const vacuum = definePhase<'vacuum', VacuumSettings>({
  kind: 'vacuum',
  name: 'Vacuum iron',
  settings: vacuumSettings,
  form: {
    usual: [
      ...tipFields('Power of a tip'),
      { key: 'dwell_s', label: 'Stays once molten', unit: 's', range: dwell_s },
      { key: 'most_s', label: 'on to the next after', unit: 's', range: most_s, optional: true },
    ],
    moreTitle: 'Tip and way of working',
    more: [tipField],
  },
  line: ({ set_C }, panel) => `${formatTemperature(set_C, panel)}, pin by pin`,
  irons: ({ power_W, set_C }) => [{ power_W, set_C }],
  fromAbove: false,
  bridges: false,
  drive: (settings, scene) => new SuckDrive(settings, scene),
  inTurn: true,
  opensHoles: true,
  uncertain: uncertainTip,
  needs: ({ set_C, tip_mm }) => ({
    tools: ['vacuum iron', `tip ${tip_mm} mm`],
    setPoints: [{ id: 'iron', label: 'iron temperature', value: set_C, unit: '°C', tolerance: 5 }],
  }),
  change_s: 5,
  say,
  cautions: [],
  wayOut: 'Longer on each pin, a wider tip or warming from below would change that.',
  spare: 'Cover it,',
});
