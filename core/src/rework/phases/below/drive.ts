/** Heat from below: it comes on with its phase, and stays under the board until the board is left to cool. */
import type { Scene } from '../../bench/drive.ts';
import type { ReworkCase } from '../../bench/caseForm.ts';
import { HandDrive } from '../handDrive.ts';
import type { BelowSettings } from './settings.ts';
import { infrared_W_m2, USUAL_H } from './source.ts';

/** What stands under the board for these settings. */
function underOf({ source, T_C, h, flux_W_m2, window }: BelowSettings): NonNullable<ReworkCase['under']> {
  const where = window ? { window } : {};
  if (source === 'infrared') return { kind: 'infrared', flux_W_m2: flux_W_m2 ?? infrared_W_m2(T_C), ...where };
  return { kind: 'preheater', T_C, h: h ?? USUAL_H[source], ...where };
}

export class BelowDrive extends HandDrive {
  readonly under: ReworkCase['under'];

  constructor(settings: BelowSettings, scene: Scene) {
    super(scene);
    this.under = underOf(settings);
  }

  override lastBecause(): string {
    return 'the board round it is coldest; the others are close behind';
  }
}
