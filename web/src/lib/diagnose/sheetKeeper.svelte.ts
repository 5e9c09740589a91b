/** Where what a sheet reads goes: to this job, or to the references of its board while a good one lies there. */
import { reload, send } from '$lib/jobs/send';
import { isPowered, type Netlist, rangeOf } from '@orthos/core/circuit';
import type { Measured, Place } from '@orthos/core/ground';
import type { JobEventBody } from '@orthos/core/job';
import { v7 } from 'uuid';
import { placeOfProbe, type Probe, QUANTITY_OF } from './probes';
import type { DiagnoseView } from './view';

/** What a sheet is about now. */
interface About {
  view: DiagnoseView;
  netlist: Netlist | null;
  /** Where the board was clicked last. */
  clicked: Place | null;
  record: (body: JobEventBody) => Promise<boolean>;
}

export class SheetKeeper {
  /** A good board is read, not this one. */
  goodBoard = $state(false);
  /** Which good board. */
  unit = $state('');
  /** What went wrong, or how much was stored. */
  message = $state('');
  private readonly about: () => About;

  constructor(about: () => About) {
    this.about = about;
  }

  /** Stores one reading; false when it was refused, and `message` or the page says why. */
  async store(
    probe: Probe,
    value: Measured,
    good: Measured | null,
    by: { meter?: string; simulated?: true } = {},
  ): Promise<boolean> {
    if (this.goodBoard) return this.storeGood([{ probe, value }]);
    const { view, netlist, clicked, record } = this.about();
    const { type, red, black, state } = probe;
    return record({
      type: 'reading',
      place: placeOfProbe(probe, view.board, netlist, clicked),
      quantity: QUANTITY_OF[type],
      value,
      good,
      ...(good === null ? {} : { goodFrom: 'good board' as const }),
      powered: isPowered(type),
      probe: { type, red, black, state, range: rangeOf(type, value), ...by },
    });
  }

  /** Stores what a good board shows. */
  async storeGood(list: { probe: Probe; value: Measured }[]): Promise<boolean> {
    const unit = this.unit.trim();
    if (!unit) {
      this.message = 'Say which good board this is: its serial or a nickname.';
      return false;
    }
    const readings = list.map(({ probe: { type, red, black, state }, value }) => ({
      id: v7(),
      unit,
      type,
      red,
      black,
      state: state ?? '',
      value,
    }));
    try {
      await send('POST', `/api/boards/${this.about().view.modelId}/references`, { readings });
      await reload('job:model');
      this.message = '';
      return true;
    } catch (e) {
      this.message = (e as Error).message;
      return false;
    }
  }
}
