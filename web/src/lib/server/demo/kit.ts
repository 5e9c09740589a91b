/** Two benches: a full one, and a bare one with an iron, a cheap air station without numbers on its dial, and a meter. */
import {
  BENCHES,
  DEFAULT_STATION,
  type KitItem,
  kitItemSchema,
  type KitTool,
  type StationModel,
  USUAL,
} from '@orthos/core/rework';

interface Tool {
  kind: KitTool;
  name: string;
  bench: string;
  spec: KitItem;
  doc: StationModel;
}

/** What the full bench calls its own. */
const NAMES: Partial<Record<string, string>> = {
  'Air station': 'Air station, left bench',
  Iron: 'Iron 70 W, 3 mm bevel',
  'Second iron': 'Iron 70 W, 5 mm knife',
  'Heat from below': 'Warm air from below',
};

export function demoKit(): Tool[] {
  const full = BENCHES.full.items.map(({ name, spec }): Tool => {
    const own = NAMES[name] ?? name;
    return { kind: spec.tool, name: own, bench: 'full bench', spec, doc: DEFAULT_STATION };
  });
  const bare = (['iron', 'pump', 'wire', 'flux', 'braid', 'cover', 'pliers'] as const).map((kind): Tool => {
    const { name, spec } = USUAL[kind];
    return {
      kind,
      name: spec.tool === 'iron' ? 'Iron 60 W' : name,
      bench: 'bare bench',
      spec: spec.tool === 'iron' ? { ...spec, power_W: 60 } : spec,
      doc: DEFAULT_STATION,
    };
  });
  const unmarked: Tool = {
    kind: 'air',
    name: 'Air station, unmarked dials',
    bench: 'bare bench',
    spec: USUAL.air.spec,
    doc: {
      ...DEFAULT_STATION,
      efficiency: 0.76,
      efficiencyPlusMinus: 0.1,
      handFactorPlusMinus: 0.12,
      air: 'unmarked',
    },
  };
  const more = (
    [
      ['Infrared plate', { tool: 'below', kind: 'infrared', T_C: [100, 400] }],
      ['Metal strips', { tool: 'cover', kind: 'strip' }],
      ['Thick cover', { tool: 'cover', kind: 'thick' }],
    ] as const
  ).map(([name, spec]): Tool => ({
    kind: spec.tool,
    name,
    bench: 'full bench',
    spec: kitItemSchema.parse(spec),
    doc: DEFAULT_STATION,
  }));
  return [...full, ...more, unmarked, ...bare];
}
