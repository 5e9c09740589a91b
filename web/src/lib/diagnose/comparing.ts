/** Suspects by comparison with a good board alone, where no circuit reaches. */
import { stateOf } from '$lib/jobs/stateOf';
import { isGroundNet } from '@orthos/core/board';
import { netAt } from '@orthos/core/circuit';
import { type Compared, type ComparedSuspect, rankByComparison } from '@orthos/core/diagnosis';
import { compareReading } from '@orthos/core/ground';
import type { JobState } from '@orthos/core/job';
import { probeOfReading } from './probes';
import { referenceFor, standing } from './question';
import type { Circuit, DiagnoseView } from './view';

/** A reading beside what a good board shows there, on its net or at its part. */
type ComparedReading = Compared & { reading: JobState['readings'][number] };

function comparedReadings(view: DiagnoseView, job: JobState): ComparedReading[] {
  return standing(job).flatMap((r) => {
    const net = r.probe?.red ?? netAt(view.board, null, r.place) ?? r.place.partId;
    if (net === undefined || isGroundNet(net)) return [];
    const probe = probeOfReading(r, view.board, null);
    const good = r.good ?? (probe && referenceFor(view, null, probe)?.value) ?? null;
    return good === null ? [] : [{ net, quantity: r.quantity, value: r.value, good, reading: r }];
  });
}

/** Suspects from good-board readings alone. */
export function compared(view: DiagnoseView): { readings: Compared[]; suspects: ComparedSuspect[] } {
  const job = stateOf(view.events);
  const readings = comparedReadings(view, job);
  const seen = job.observations.flatMap((o) =>
    o.sign && o.place?.partId ? [{ partId: o.place.partId, sign: o.sign }] : [],
  );
  return { readings, suspects: rankByComparison(view.board, readings, seen) };
}

/** Whether something that is off lies where the circuit does not reach: then it alone ranks nothing. */
export function isOffOutside(view: DiagnoseView, { netlist }: Circuit): boolean {
  return comparedReadings(view, stateOf(view.events)).some(
    (r) =>
      ['low', 'high'].includes(compareReading(r.value, r.good, r.quantity) ?? '') &&
      probeOfReading(r.reading, view.board, netlist) === null,
  );
}
