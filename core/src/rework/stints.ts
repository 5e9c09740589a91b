/** A phase as a run sees it: what its kind declares, with the physics that drives it. */
import type { Drive, Scene, Stint } from './bench/drive.ts';
import { AirDrive } from './phases/air/drive.ts';
import { AlloyDrive } from './phases/alloy/drive.ts';
import { BelowDrive } from './phases/below/drive.ts';
import { CutDrive } from './phases/cut/drive.ts';
import { HandDrive } from './phases/handDrive.ts';
import { kindOf } from './phases/index.ts';
import type { KindName, Phase, SettingsOf } from './phases/schema.ts';
import { LiftLegsDrive } from './phases/liftLegs/drive.ts';
import { PeelDrive } from './phases/peel/drive.ts';
import { PoolDrive } from './phases/pool/drive.ts';
import { SoftenDrive } from './phases/soften/drive.ts';
import { SpikeDrive } from './phases/spike/drive.ts';
import { StrokeDrive } from './phases/stroke/drive.ts';
import { GripDrive } from './phases/tweezers/drive.ts';
import { TwistDrive } from './phases/twist/drive.ts';
import { DragDrive } from './phases/drag/drive.ts';
import { JointDrive } from './phases/joint/drive.ts';
import { PlaceDrive } from './phases/place/drive.ts';
import { PressDrive } from './phases/press/drive.ts';
import { LayDrive } from './phases/tin/drive.ts';
import { SuckDrive } from './phases/vacuum/drive.ts';

const DRIVES: { [K in KindName]: (settings: SettingsOf<K>, scene: Scene) => Drive } = {
  air: (settings, scene) => new AirDrive(settings, scene),
  stroke: (settings, scene) => new StrokeDrive(settings, scene),
  tweezers: (settings, scene) => new GripDrive(settings, scene),
  vacuum: (settings, scene) => new SuckDrive(settings, scene),
  spike: (settings, scene) => new SpikeDrive(settings, scene),
  alloy: (settings, scene) => new AlloyDrive(settings, scene),
  below: (settings, scene) => new BelowDrive(settings, scene),
  irons2: (settings, scene) => new StrokeDrive(settings, scene),
  pool: (settings, scene) => new PoolDrive(settings, scene),
  cut: (_, scene) => new CutDrive(scene),
  'lift-legs': (settings, scene) => new LiftLegsDrive(settings, scene),
  twist: (_, scene) => new TwistDrive(scene),
  peel: (settings, scene) => new PeelDrive(settings, scene),
  soften: (settings, scene) => new SoftenDrive(settings, scene),
  rest: (_, scene) => new HandDrive(scene),
  lift: (_, scene) => new HandDrive(scene),
  tin: (settings, scene) => new LayDrive(settings, scene),
  paste: (settings, scene) => new LayDrive(settings, scene),
  place: (settings, scene) => new PlaceDrive(settings, scene),
  // two corners hold it
  tack: (settings, scene) => new JointDrive(settings, scene, 2),
  joint: (settings, scene) => new JointDrive(settings, scene),
  fill: (settings, scene) => new JointDrive(settings, scene),
  drag: (settings, scene) => new DragDrive(settings, scene),
  press: (settings, scene) => new PressDrive(settings, scene),
};

/** Phases as a run sees them; going on with the tool in hand takes no change of tools. */
export const stintsOf = (phases: readonly Phase[]): Stint[] => phases.map((p, n) => stintOf(p, phases[n - 1]));

function stintOf(phase: Phase, before: Phase | undefined): Stint {
  const kind = kindOf(phase);
  const { settings } = phase;
  const driveOf = DRIVES[phase.kind] as (settings: Phase['settings'], scene: Scene) => Drive;
  const goesOn = before !== undefined && kindOf(before).tool === kind.tool;
  const stays_s = kind.stays_s?.(settings);
  return {
    id: phase.id,
    until: phase.until,
    giveUp_s: phase.giveUp_s,
    ...(phase.else === undefined ? {} : { else: phase.else }),
    change_s: goesOn ? 0 : kind.change_s,
    tips: kind.irons(settings),
    bridges: kind.bridges,
    ...(kind.lays?.(settings) ? { lays: true } : {}),
    ...(kind.cools?.(settings) ? { cools: true } : {}),
    ...(stays_s === undefined ? {} : { stays_s }),
    hottest_C: kind.irons(settings).length > 0 || kind.tool !== 'iron' ? hottestOf(settings) : -Infinity,
    drive: (scene) => driveOf(settings, scene),
  };
}

/** What is hottest of its tools, °C; work without heat has none. */
function hottestOf(settings: Phase['settings']): number {
  if ('set_C' in settings) return settings.set_C;
  return 'T_C' in settings ? settings.T_C : -Infinity;
}
