/** Air follows the row; under a light spring each way clicks up as it melts, never faster than the hand goes. */
import type { AirOn, Drive, Scene, Workpiece } from '../../bench/drive.ts';
import { Wind } from '../../bench/wind.ts';
import { PEEL } from '../../handTimes.ts';
import { airOver, jetTables } from '../air/field.ts';
import type { AirSettings } from '../air/settings.ts';
import type { PeelSettings } from './settings.ts';

/** The nozzle is moved by this much at a time, mm. */
const STEP_MM = 1;

export class PeelDrive implements Drive {
  readonly settled_s = 0;
  readonly down = false;
  readonly moved_s = -Infinity;
  readonly brisk = true;
  readonly frees = true;
  readonly wind: Wind;
  private readonly order: readonly number[];
  private readonly pace: number;
  private readonly scene: Scene;
  private readonly make: (place: number) => AirOn;
  private readonly fields = new Map<number, AirOn>();
  private head = 0;
  private up_s = 0;

  constructor(settings: PeelSettings, scene: Scene) {
    const { input, mesh, lumps } = scene;
    const { joints } = lumps;
    this.scene = scene;
    this.pace = input.pace ?? 1;
    const along = spread(joints, 'x') >= spread(joints, 'y') ? 'x' : 'y';
    this.order = joints.map((_, i) => i).sort((a, b) => joints[a][along] - joints[b][along]);
    const air: AirSettings = { ...settings, sweep_mm: 0 };
    const jets = jetTables();
    this.make = (place) => {
      const { x, y } = joints[place];
      return airOver(air, input, mesh, lumps, { x: x / 1000, y: y / 1000 }, jets);
    };
    const middle = joints[this.order[this.order.length >> 1]];
    this.wind = new Wind(input, [air], { x: middle.x, y: middle.y });
  }

  get done(): boolean {
    return this.head >= this.order.length;
  }

  airAt(): AirOn | undefined {
    const joint = this.order[this.head];
    if (joint === undefined) return undefined;
    const place = this.nearestPlace(joint);
    const known = this.fields.get(place) ?? this.make(place);
    this.fields.set(place, known);
    return known;
  }

  act(work: Workpiece, t: number): void {
    const joint = this.order[this.head];
    if (joint === undefined || !work.isLiquid(joint)) return;
    const before = this.head === 0 ? null : this.order[this.head - 1];
    const due_s =
      before === null ? this.pace * PEEL.start_s : this.up_s + (this.pace * this.gap_mm(before, joint)) / PEEL.mm_s;
    if (t < due_s) return;
    work.free(joint);
    this.up_s = t;
    this.head++;
  }

  lastBecause(): string {
    return 'the air comes to it last';
  }

  private gap_mm(a: number, b: number): number {
    const { joints } = this.scene.lumps;
    return Math.hypot(joints[a].x - joints[b].x, joints[a].y - joints[b].y);
  }

  /** Fields are made for every millimetre of the row, not for every way. */
  private nearestPlace(joint: number): number {
    const first = this.order[0];
    const steps = Math.floor(this.gap_mm(first, joint) / STEP_MM);
    return this.order.find((i) => Math.floor(this.gap_mm(first, i) / STEP_MM) === steps) ?? joint;
  }
}

function spread(joints: readonly { x: number; y: number }[], key: 'x' | 'y'): number {
  const at = joints.map((j) => j[key]);
  return Math.max(...at) - Math.min(...at);
}
