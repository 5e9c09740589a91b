/** What a plan computes from, changed: each stored before it is computed with. */
import { sendPlanSettings } from '$lib/jobs/send';
import type { JobView } from '$lib/jobs/view';
import type { Tuned, Way } from '@orthos/core/compare';
import type { Method, Surroundings } from '@orthos/core/rework';

interface Asked {
  view: () => JobView;
  /** What was computed from the old ones goes. */
  onKept: () => void;
  onProblem: (message: string) => void;
}

type Inputs = NonNullable<JobView['inputs']>;

/** Every change says whether the server has it. */
export class Edits {
  private readonly asked: Asked;
  /** Settings on their way: what is asked for meanwhile is computed from them. */
  storing: Promise<unknown> = Promise.resolve();
  constructor(asked: Asked) {
    this.asked = asked;
  }

  /** Stores the settings as they are with `change`; `method` is set by somebody from now on. */
  private async keep(change: (inputs: Inputs) => Partial<Inputs['settings']>, method?: Method): Promise<boolean> {
    const { ticket, inputs } = this.asked.view();
    if (!inputs) return false;
    // the ways that nobody set go along with the bench
    const set = inputs.settings.methods.filter((m) => inputs.edited.includes(m.id) && m.id !== method?.id);
    const methods = method ? [...set, method] : set;
    const sent = sendPlanSettings(ticket.id, ticket.version, { ...inputs.settings, methods, ...change(inputs) });
    this.storing = sent.catch(() => undefined);
    try {
      await sent;
    } catch (e) {
      this.asked.onProblem((e as Error).message);
      return false;
    }
    this.asked.onKept();
    return true;
  }

  method(next: Method): Promise<boolean> {
    return this.keep(() => ({}), next);
  }
  surroundings(next: Surroundings): Promise<boolean> {
    return this.keep(() => ({ surroundings: Object.keys(next).length > 0 ? next : undefined }));
  }
  /** A way of putting it on, as somebody set it. */
  fit(next: Method): Promise<boolean> {
    return this.keep(({ settings: { fits = [] } }) => ({ fits: [...fits.filter((m) => m.id !== next.id), next] }));
  }
  fitBy(id: string): Promise<boolean> {
    return this.keep(() => ({ fitBy: id }));
  }
  /** Worked on another bench: as its tools can be set, with what lies there. */
  bench(bench: string): Promise<boolean> {
    return this.keep(() => ({ bench, stationId: '', ironId: '' }));
  }
  /** The part is off the board meanwhile. */
  takenOut(partId: string): Promise<boolean> {
    const { absent = [], ...rest } = this.asked.view().inputs?.settings.surroundings ?? {};
    return this.surroundings({ ...rest, absent: [...new Set([...absent, partId])] });
  }
  /** Settings that a search found, with the covers it laid. */
  found(next: Method, covers: Tuned['covers']): Promise<boolean> {
    return this.keep(
      ({ settings: { surroundings } }) => (covers.length > 0 ? { surroundings: { ...surroundings, covers } } : {}),
      next,
    );
  }
  /** What opens a window: dials and surroundings. */
  way({ method: id, phases, surroundings }: NonNullable<Way['row']['procedure']>): Promise<boolean> {
    return this.keep(({ settings }) => ({ surroundings: { ...settings.surroundings, ...surroundings } }), {
      id,
      phases,
    });
  }
}
