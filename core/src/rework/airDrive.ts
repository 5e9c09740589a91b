/** Hot air as it drives a run: one field of air per stage of the method, made when it comes. */
import type { BoardMesh } from '../thermal/index.ts';
import { airOver, blows, jetTables, settingAt, stageOf, type AirOn } from './air.ts';
import type { Drive } from './drive.ts';
import type { Lumps } from './lumps.ts';
import type { AirMethod } from './method.ts';
import type { PlanInput } from './planForm.ts';
import { Wind } from './wind.ts';

export class AirDrive implements Drive {
  readonly settled_s = 0;
  readonly mixes = false;
  readonly down = false;
  readonly moved_s = -Infinity;
  readonly brisk = false;
  readonly wind: Wind;
  private readonly fields = new Map<number, AirOn>();
  private readonly make: (setting: AirMethod) => AirOn;
  private readonly method: AirMethod;

  /** `at`: where the hand aims, m on the board. */
  constructor(method: AirMethod, input: PlanInput, mesh: BoardMesh, lumps: Lumps, at: { x: number; y: number }) {
    this.method = method;
    const jets = jetTables();
    this.make = (setting) => airOver(setting, input, mesh, lumps, at, jets);
    this.wind = new Wind(input, method, { x: 1000 * at.x, y: 1000 * at.y });
  }

  airAt(t: number): AirOn | undefined {
    const { method, fields } = this;
    if (!blows(method, t)) return undefined;
    const stage = stageOf(method, t);
    const known = fields.get(stage) ?? this.make(settingAt(method, t));
    fields.set(stage, known);
    return known;
  }

  act(): void {
    // air is a boundary of the board, nothing moves in the run
  }
}
