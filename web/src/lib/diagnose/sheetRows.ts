/** What a sheet of readings lists: the tests of a circuit, or the places that are worth one where nobody has drawn any. */
import { isGroundNet } from '@orthos/core/board';
import type { Netlist } from '@orthos/core/circuit';
import { probeWalk, testsOf } from '@orthos/core/diagnosis';
import type { Place } from '@orthos/core/ground';
import { standing } from './question';
import { stateOf } from '$lib/jobs/stateOf';
import { groundOf, modeName, placeOfProbe, probeOfReading, type Probe } from './probes';
import { railsOfBoard } from './rails';
import type { DiagnoseView } from './view';

export interface SheetRow {
  probe: Probe;
  place: Place;
}

/** What the meter is on; `state` of power where the circuit has several. */
type SheetMode = Pick<Probe, 'type' | 'state'>;

const MOST_RAILS = 24;
const PLAIN: SheetMode[] = [
  { type: 'ohm', state: null },
  { type: 'diode', state: null },
  { type: 'dcv', state: null },
];

const modeKey = ({ type, state }: SheetMode): string => `${type}|${state ?? ''}`;

/** Probes of the sheet in every mode. `added`: nets or places named by hand, without a circuit. */
export function probesOf(view: DiagnoseView, netlist: Netlist | null, added: readonly string[]): Probe[] {
  if (netlist) return testsOf(netlist);
  const black = groundOf(view.board, null);
  return PLAIN.flatMap((mode) => netsWorthReading(view, added).map((red) => ({ ...mode, red, black })));
}

/** Rails of the board, then every net or place that good boards or this job were read at. */
function netsWorthReading(view: DiagnoseView, added: readonly string[]): string[] {
  const rails = railsOfBoard(view.board)
    .slice(0, MOST_RAILS)
    .map((r) => r.net);
  const read = [...view.history.good, ...standing(stateOf(view.events))].flatMap(
    (r) => probeOfReading(r, view.board, null)?.red ?? [],
  );
  const good = view.goodReadings.flatMap((g) => (g.type === 'isup' ? [] : [g.red]));
  return [...new Set([...rails, ...good, ...read, ...added])].filter((net) => net !== '' && !isGroundNet(net));
}

export function modesOf(view: DiagnoseView, netlist: Netlist | null): { key: string; name: string }[] {
  const modes = new Map(probesOf(view, netlist, []).map((p) => [modeKey(p), modeName(p)]));
  for (const mode of netlist ? [] : PLAIN) modes.set(modeKey(mode), modeName(mode));
  return [...modes].map(([key, name]) => ({ key, name }));
}

/** Rows in one mode, in the order that moves the probe least. */
export function rowsOf(
  view: DiagnoseView,
  netlist: Netlist | null,
  mode: string,
  added: readonly string[] = [],
): SheetRow[] {
  const rows = probesOf(view, netlist, added)
    .filter((p) => modeKey(p) === mode)
    .map((probe) => ({ probe, place: placeOfProbe(probe, view.board, netlist, null) }));
  return probeWalk(rows.map((r) => r.place)).map((i) => rows[i]);
}
