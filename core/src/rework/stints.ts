/** A phase as a run sees it: what its kind declares, with the physics that drives it. */
import type { Drive, Scene, Stint } from './bench/drive.ts';
import { AirDrive } from './phases/air/drive.ts';
import { kindOf, type KindName, type Phase, type SettingsOf } from './phases/index.ts';
import { SpikeDrive } from './phases/spike/drive.ts';
import { StrokeDrive } from './phases/stroke/drive.ts';
import { GripDrive } from './phases/tweezers/drive.ts';
import { SuckDrive } from './phases/vacuum/drive.ts';

const DRIVES: { [K in KindName]: (settings: SettingsOf<K>, scene: Scene) => Drive } = {
  air: (settings, scene) => new AirDrive(settings, scene),
  stroke: (settings, scene) => new StrokeDrive(settings, scene),
  tweezers: (settings, scene) => new GripDrive(settings, scene),
  vacuum: (settings, scene) => new SuckDrive(settings, scene),
  spike: (settings, scene) => new SpikeDrive(settings, scene),
};

export function stintOf(phase: Phase): Stint {
  const kind = kindOf(phase);
  const { settings } = phase;
  const driveOf = DRIVES[phase.kind] as (settings: Phase['settings'], scene: Scene) => Drive;
  return {
    id: phase.id,
    until: phase.until,
    giveUp_s: phase.giveUp_s,
    ...(phase.else === undefined ? {} : { else: phase.else }),
    change_s: kind.change_s,
    tips: kind.irons(settings),
    bridges: kind.bridges,
    hottest_C: settings.set_C,
    drive: (scene) => driveOf(settings, scene),
  };
}
