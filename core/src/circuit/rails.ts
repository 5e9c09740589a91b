/** Nets of a circuit that feed others. */
import type { Netlist } from './netlist.ts';

/** Nets where power comes in. */
export function sourcesOf({ power, alias }: Netlist): string[] {
  const supplies = [power?.sources ?? [], ...Object.values(power?.states ?? {}).map((s) => s.sources)];
  return [...new Set(supplies.flat().map(({ p }) => alias[p] ?? p))];
}

/** Nets that feed something: where power comes in and the rails of ICs. */
export function railsOf(netlist: Netlist): string[] {
  const rails = new Set(sourcesOf(netlist));
  for (const part of netlist.parts)
    if (part.kind === 'IC')
      for (const rail of part.rail ?? []) rails.add(netlist.alias[part.pins[rail] ?? rail] ?? part.pins[rail] ?? rail);
  rails.delete(netlist.ground);
  return [...rails];
}
