// Nothing of a plan is kept from the hands: every setting changes a word that is told, or something on the lay-out.
import { describe, expect, it } from 'vitest';
import { layOutFor, operationFor } from '../src/hands/index.ts';
import type { Work } from '../src/hands/work.ts';
import {
  expressBoard,
  formOf,
  kindOf,
  methodsFor,
  type Method,
  type Panel,
  type Phase,
  wordsAt,
} from '../src/rework/index.ts';
import { KIND_NAMES } from '../src/rework/phases/schema.ts';

const PANEL: Panel = { temperature: 'C', length: 'mm' };

/** A part for each kind of work, and settings with every one of them given. */
const CASES: Record<Phase['kind'], { packageId: string; settings: object }> = {
  air: {
    packageId: 'SOIC-8',
    settings: {
      set_C: 391,
      flow_L_min: 44,
      nozzle_mm: 9,
      standoff_mm: 13,
      sweep_mm: 3.5,
      sweep_deg: 60,
      stages: [{ from_s: 22, set_C: 402, flow_L_min: 51, standoff_mm: 6, sweep_mm: 2 }],
      pulse: { on_s: 3, off_s: 2 },
      tilt_deg: 25,
      approach_deg: 180,
      mouth: { kind: 'rim', w_mm: 12, h_mm: 4 },
    },
  },
  alloy: { packageId: 'SOIC-8', settings: { ...tip(), bead_mm3_mm: 0.5, alloy: { Bi: 58, Sn: 42 }, wire_mm: 0.8 } },
  stroke: {
    packageId: 'SOIC-8',
    settings: {
      ...{ ...tip(), bead_mm3_mm: 0.5, alloy: { Bi: 58, Sn: 42 }, irons: 1 },
      ...{ stroke_s: 33, pass_s: 1.5, rest_s: 0.3 },
    },
  },
  irons2: {
    packageId: 'SOIC-8',
    settings: {
      ...{ ...tip(), bead_mm3_mm: 0.5, alloy: { Sn: 63, Pb: 37 } },
      ...{ stroke_s: 33, pass_s: 1.5, rest_s: 0.3 },
    },
  },
  tweezers: { packageId: 'R0805', settings: tip() },
  vacuum: { packageId: 'DIP-8', settings: { ...hollow(), dwell_s: 1.2, most_s: 9, fresh: true } },
  spike: { packageId: 'SOIC-8', settings: { ...tip(), alloy: { Sn: 60, Pb: 40 }, ratio: 1.3, most_s: 5 } },
  below: {
    packageId: 'SOIC-8',
    settings: { source: 'infrared', T_C: 310, window: { x_mm: 10, y_mm: 12, w_mm: 20, h_mm: 22 } },
  },
  pool: { packageId: 'R0805', settings: { ...tip(), pool_mm3: 7, alloy: { Sn: 60, Pb: 40 } } },
  cut: { packageId: 'SOIC-8', settings: { with: 'cutters' } },
  'lift-legs': { packageId: 'SOIC-8', settings: tip() },
  twist: { packageId: 'CAN-8', settings: {} },
  peel: { packageId: 'FLEX-8', settings: { set_C: 381, flow_L_min: 26, nozzle_mm: 4, standoff_mm: 9 } },
  rest: { packageId: 'SOIC-8', settings: { below: 'stays' } },
  lift: { packageId: 'SOIC-8', settings: { stays_s: 6 } },
  soften: {
    packageId: 'SOIC-8',
    settings: {
      ...{ what: 'glue', soft_C: 118, set_C: 205, flow_L_min: 31, nozzle_mm: 8 },
      ...{ standoff_mm: 21, sweep_mm: 4 },
    },
  },
  tin: {
    packageId: 'QFN-24',
    settings: { ...tip(), share: 0.7, pad_share: 0.3, alloy: { Sn: 60, Pb: 40 } },
  },
  paste: { packageId: 'SOIC-8', settings: { share: 0.9, alloy: { Sn: 60, Pb: 40 } } },
  place: { packageId: 'DIP-8', settings: {} },
  tack: { packageId: 'SOIC-8', settings: { ...tip(), share: 0.9, most_s: 7, alloy: { Sn: 60, Pb: 40 } } },
  joint: { packageId: 'SOIC-8', settings: { ...tip(), share: 0.9, most_s: 7, alloy: { Sn: 60, Pb: 40 } } },
  fill: { packageId: 'DIP-8', settings: { ...tip(), share: 0.9, most_s: 7, alloy: { Sn: 60, Pb: 40 } } },
  drag: { packageId: 'SOIC-8', settings: { ...tip(), share: 0.9, most_s: 7, mm_s: 3, alloy: { Sn: 60, Pb: 40 } } },
  press: { packageId: 'QFN-24', settings: { stays_s: 4 } },
};
/** Kinds that put a part on. */
const FIT: Phase['kind'][] = ['tin', 'paste', 'place', 'tack', 'joint', 'fill', 'drag', 'press'];
const PLACE: Phase = { id: 'place', kind: 'place', settings: {}, until: { told: true }, giveUp_s: 60 };
function tip() {
  return { set_C: 352, tip_mm: 2.5, tip: 'chisel', contact: 1, power_W: 71 };
}
function hollow() {
  return { set_C: 382, tip_mm: 2.5, contact: 1, power_W: 81 };
}
/** What nobody can set: how well a hand holds its tip, and what only another lap would say. */
const NOT_SET = ['contact'];

const POSITIONS = ['approach_deg', 'sweep_deg'];

/** Every value in settings, by its path. */
function leaves(value: unknown, path: (string | number)[] = []): (string | number)[][] {
  if (typeof value !== 'object' || value === null) return [path];
  if (path.at(-1) === 'alloy') return [path];
  return Object.entries(value).flatMap(([k, v]) => leaves(v, [...path, Array.isArray(value) ? Number(k) : k]));
}
const OTHER: Record<string, unknown> = {
  knife: 'chisel',
  chisel: 'cone',
  rim: 'slot',
  cutters: 'blade',
  infrared: 'plate',
  stays: undefined,
  glue: 'coating',
};
/** The same settings with one value another. */
function changed(settings: object, path: readonly (string | number)[]): object {
  const copy = structuredClone(settings);
  const [last, ...before] = [...path].reverse();
  const holder = before.reduceRight((at, key) => at[key] as Record<string, unknown>, copy as Record<string, unknown>);
  const was = holder[last];
  const key = String(last);
  if (key === 'alloy') holder[last] = { Sn: 42, Bi: 57, Ag: 1 };
  else if (key === 'irons') holder[last] = 2;
  else if (typeof was === 'number') holder[last] = POSITIONS.includes(key) ? was + 60 : was * 1.4;
  else if (typeof was === 'boolean') holder[last] = !was;
  else holder[last] = OTHER[String(was)];
  expect(holder[last], key).not.toEqual(was);
  return copy;
}

function workOn(packageId: string, method: Method): Work {
  const board = expressBoard({ package: packageId, boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
  const target = board.parts.find((p) => p.partId === 'target');
  if (!target) throw new Error('no target');
  return { board, target, method, guide: null, nearest: null, panel: PANEL };
}
function withOne(kind: Phase['kind'], settings = CASES[kind].settings): Work {
  const phase = { id: 'one', kind, settings, until: { loose: 'all' }, giveUp_s: 100 } as Phase;
  const phases = FIT.includes(kind) && kind !== 'place' ? [PLACE, phase] : [phase];
  return workOn(CASES[kind].packageId, { id: 'one', phases });
}
const opOf = ({ method }: Work) => (method.phases.some((p) => FIT.includes(p.kind)) ? 'fit' : 'remove');
const told = (kind: Phase['kind']) => operationFor(opOf(withOne(kind)), withOne(kind));
const all = (work: Work) => JSON.stringify([operationFor(opOf(work), work), layOutFor(work, PANEL)]);

describe('nothing of a plan is kept from the hands', () => {
  for (const kind of KIND_NAMES) {
    const { settings } = CASES[kind];
    it(`${kind}: the settings tried are all that its form asks for, and its schema takes them`, () => {
      const phase = { kind, settings } as Phase;
      const [form, { settings: schema }] = [formOf(phase), kindOf(phase)];
      expect(schema.safeParse(settings).error?.issues).toBeUndefined();
      const paths = leaves(settings).map((p) => p.join('.'));
      const asked = [...form.usual, ...form.more].map((f) => f.key);
      expect(asked.filter((key) => !paths.includes(key))).toEqual([]);
    });
    for (const path of leaves(settings).filter((p) => p.length > 0 && !NOT_SET.includes(String(p.at(-1)))))
      it(`${kind}: ${path.join('.')} is told`, () => {
        expect(all(withOne(kind, changed(settings, path)))).not.toBe(all(withOne(kind)));
      });
  }

  it.each(['SOIC-8', 'QFP-44', 'DIP-8', 'R0805', 'CAN-8', 'FLEX-8'])(
    '%s: each hand is told what it does while tools are at work',
    (packageId) => {
      for (const { method } of methodsFor(packageId).filter((m) => !m.unfit))
        for (const i of operationFor('remove', workOn(packageId, method))) {
          if (i.walk || ['heat-on', 'first-wet', 'all-wet', 'lifted'].includes(i.mark))
            expect(i.limbs, `${method.id} ${i.id}`).toEqual(
              expect.objectContaining({ left: expect.any(String), right: expect.any(String) }),
            );
          if (i.mark === 'heat-off') expect(i.limbs).toBeUndefined();
        }
    },
  );
  it('what changes on the way is told as its time comes, and a window has the last word', () => {
    const [i] = told('air').filter((w) => w.mark === 'first-wet');
    expect(wordsAt(i, 'early', 5).say).toMatch(/^To and fro/);
    expect(wordsAt(i, 'early', 23).say).toBe('From 22 s: 6 mm above it, 402 °C, 51 L/min, moving 2 mm.');
    expect(wordsAt(i, 'look', 23).say).toMatch(/^Look now/);
  });
});
