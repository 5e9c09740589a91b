/** Hot air as it drives a run: one field of air per stage of the setting, made when it comes. */
import type { AirOn, Drive, LastJoint, Scene } from '../../bench/drive.ts';
import { Wind } from '../../bench/wind.ts';
import { airOver, blows, jetTables, settingAt, stageOf } from './field.ts';
import type { AirSettings } from './settings.ts';

export class AirDrive implements Drive {
  readonly settled_s = 0;
  readonly down = false;
  readonly moved_s = -Infinity;
  readonly brisk = false;
  readonly wind: Wind;
  readonly steadyFrom_s?: number;
  private readonly fields = new Map<number, AirOn>();
  private readonly make: (setting: AirSettings) => AirOn;
  private readonly settings: AirSettings;

  constructor(settings: AirSettings, { input, mesh, lumps, at }: Scene) {
    this.settings = settings;
    const jets = jetTables();
    this.make = (setting) => airOver(setting, input, mesh, lumps, at, jets);
    if (!settings.pulse) this.steadyFrom_s = Math.max(0, ...(settings.stages ?? []).map((s) => s.from_s));
    const stages = (settings.stages ?? []).map((s) => ({ ...settings, ...s }));
    this.wind = new Wind(input, [settings, ...stages], { x: 1000 * at.x, y: 1000 * at.y });
  }

  airAt(t: number): AirOn | undefined {
    const { settings, fields } = this;
    if (!blows(settings, t)) return undefined;
    const stage = stageOf(settings, t);
    const known = fields.get(stage) ?? this.make(settingAt(settings, t));
    fields.set(stage, known);
    return known;
  }

  lastBecause({ far_mm, others_mm }: LastJoint): string {
    if (far_mm > 1.05 * others_mm)
      return `it lies ${far_mm.toFixed(1)} mm from the nozzle's axis, the others ${others_mm.toFixed(1)} mm`;
    return 'the board round it is coldest; the others are close behind';
  }
}
