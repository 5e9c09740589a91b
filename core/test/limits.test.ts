/** What bodies stand: the law of dose against its definition, the table, whom it judges how, and names of before. */
import { describe, expect, it } from 'vitest';
import { boardModelSchema, type PlacedPart } from '../src/board/boardModel.ts';
import { allowed_s, Exposure, judge, rate, type Law } from '../src/materials/dose.ts';
import { delaminates_s, LAMINATES } from '../src/materials/laminate.ts';
import { currentLimit, isLimit, OLD_LIMITS, type Outer } from '../src/materials/limitAliases.ts';
import { LIMITS, mouldLaw, solidusLaw } from '../src/materials/limits.ts';
import { packageById, PACKAGES } from '../src/packages/index.ts';
import { limitOf, limitRowOf, type LimitFacts } from '../src/rework/bench/limitOf.ts';
import { NEIGHBOUR_CASES, neighbourVerdicts } from './neighbourCases.ts';
import { expectNote, limitsNote } from './notes.ts';
import boardsBefore from './boardsBefore.json' with { type: 'json' };

const law: Extract<Law, { kind: 'dose' }> = { kind: 'dose', Tp_C: 250, t2_s: 10, T1_C: 217, t1_s: 90 };
const history = (...at: [C: number, s: number][]) => {
  const e = new Exposure();
  for (const [C, s] of at) e.add(C, s);
  return e;
};

it('the table is what the note says', () => expectNote('limits', limitsNote()));

describe('the law of dose', () => {
  it('allows t₁ at T₁, t₂ at Tp, the geometric mean half way', () => {
    expect(allowed_s(law, 217)).toBeCloseTo(90, 9);
    expect(allowed_s(law, 250)).toBeCloseTo(10, 9);
    expect(allowed_s(law, 233.5)).toBeCloseTo(Math.sqrt(900), 9);
  });
  it('counts nothing 20 K below T₁, and harms at once 10 K over Tp', () => {
    expect(rate(law, 197)).toBe(0);
    expect(rate(law, 197.1)).toBeGreaterThan(0);
    expect(rate(law, 259.9)).toBeLessThan(1);
    expect(rate(law, 260)).toBe(Infinity);
  });
  it('adds up over temperatures, phases and attempts', () => {
    const [a, b] = [history([221, 30]), history([241, 5])];
    const both = history([221, 30], [241, 5]);
    expect(both.dose(law)).toBeCloseTo(a.dose(law) + b.dose(law), 12);
    // bins of 2 K: their middle is read
    expect(a.dose(law)).toBeCloseTo(30 / allowed_s(law, 221), 12);
  });
  it.each([
    [[[150, 300]], 'clear'],
    // at T₁ for a third of its time
    [[[217, 30]], 'near'],
    [[[217, 91]], 'hurts'],
    [[[251, 11]], 'hurts'],
    [[[261, 0.2]], 'hurts'],
    // 6 K hotter and it would be harmed
    [[[217, 66]], 'may hurt'],
  ] as [[number, number][], string][])('%j is %s', (at, says) => expect(judge(history(...at), law, 8).says).toBe(says));
  it('the margin is by how much all could have been hotter', () => {
    for (const at of [
      [[217, 30]],
      [
        [230, 12],
        [200, 60],
      ],
      [[120, 40]],
      [[245, 30]],
    ] as [number, number][][]) {
      const { margin_K } = judge(history(...at), law, 0);
      const hotter = history(...at.map(([C, s]): [number, number] => [C + (margin_K as number), s]));
      // the other history falls into other bins
      const dose = hotter.dose(law);
      expect(dose === Infinity ? 1 : dose).toBeCloseTo(1, 0);
    }
    expect(judge(history([251, 20]), law, 8).margin_K).toBeLessThan(0);
  });
  it('a threshold knows no time', () => {
    const magnet: Law = { kind: 'threshold', Tp_C: 80 };
    expect(judge(history([79.9, 1000]), magnet, 0).says).toBe('near');
    expect(judge(history([80, 0.01]), magnet, 0).says).toBe('hurts');
    expect(judge(history([55, 1000]), magnet, 10)).toMatchObject({ says: 'clear' });
    expect(judge(history([55, 1000]), magnet, 10).margin_K).toBeCloseTo(25, 1);
  });
  it('nothing harms what no temperature harms', () =>
    expect(judge(history([400, 100]), { kind: 'none' }, 0)).toEqual({ says: 'clear', dose: 0, margin_K: null }));
  it('laminate delaminates by its Arrhenius law: published times at 288 and 260 °C', () => {
    expect(delaminates_s('standard', 288)).toBeCloseTo(50, 0);
    expect(delaminates_s('standard', 260)).toBeGreaterThan(280);
    expect(delaminates_s('standard', 260)).toBeLessThan(320);
    expect(delaminates_s('phenolic-paper', 240)).toBeCloseTo(5, 0);
    for (const laminate of LAMINATES) {
      const at: Law = { kind: 'laminate', laminate, damp_K: 0 };
      expect(judge(history([301, delaminates_s(laminate, 301) * 1.02]), at, 0).says).toBe('hurts');
      expect(judge(history([301, delaminates_s(laminate, 301) * 0.9]), at, 0).says).toBe('near');
    }
    const damp: Law = { kind: 'laminate', laminate: 'standard', damp_K: 25 };
    expect(history([261, 60]).dose(damp)).toBeGreaterThan(history([261, 60]).dose({ ...damp, damp_K: 0 }) * 3);
  });
});

describe('the table', () => {
  it('has no row that allows less time where it is colder, or more where it is hotter', () => {
    for (const { id, law: l } of LIMITS.values()) {
      if ('from' in l || l.kind !== 'dose') continue;
      expect(l.Tp_C, id).toBeGreaterThan(l.T1_C);
      expect(l.t1_s, id).toBeGreaterThan(l.t2_s);
    }
  });
  it('names every row once, says what happens and where that is from', () => {
    for (const r of LIMITS.values())
      expect(
        [r.what, r.why, r.source].every((text) => text.length > 2),
        r.id,
      ).toBe(true);
    expect(new Set([...LIMITS.values()].map((r) => r.what)).size).toBe(LIMITS.size);
  });
  it('is what every package of the library points into', () => {
    for (const p of PACKAGES.values()) expect(LIMITS.has(p.limit), p.id).toBe(true);
  });
});

const part = (pkg: string, more: Partial<PlacedPart> = {}): PlacedPart => ({
  partId: 'x',
  package: pkg,
  x_mm: 0,
  y_mm: 0,
  rotation_deg: 0,
  side: 'top',
  ...more,
});
const facts: LimitFacts = { board: { jointAlloy: 'SAC305' }, moisture: 'baked' };

/** Which row judges a part of which nobody said more, and why that one. */
const KINDS: [pkg: string, row: string, why: string][] = [
  ['C0402', 'mlcc', 'ceramic cracks by its ramp, no peak hurts it'],
  ['R0603', 'bare', 'its own joints melt first'],
  ['FB0603', 'coil-chip', 'a bead has been through an oven'],
  ['MELF-0204', 'axial', 'lacquer and caps of glass bodies'],
  ['TANT-B', 'tantalum', 'plus stripe on a moulded body'],
  ['SMA', 'ic', 'moulded diode'],
  ['SOD-123', 'ic', 'moulded diode'],
  ['CAN-5', 'elko-smd-s', 'flat can up to 6.3 mm'],
  ['CAN-6.3', 'elko-smd-s', 'flat can up to 6.3 mm'],
  ['CAN-8', 'elko-smd-m', 'flat can of 8 or 10 mm'],
  ['CAN-10', 'elko-smd-m', 'flat can of 8 or 10 mm'],
  ['CAN-12.5', 'elko-smd-l', 'flat can from 12.5 mm'],
  ['POLY-8', 'polymer-smd', 'soldered flat'],
  ['RADIAL-10', 'elko-radial', 'seals of cans on pins never see an oven'],
  ['IND-6', 'coil-smd-glued', 'reflow part; glued shield is the careful guess'],
  ['XTAL-3225', 'crystal-smd', 'soldered flat'],
  ['XTAL-HC49S', 'crystal-hc49', 'a tall can, even flat'],
  ['XTAL-HC49', 'crystal-hc49', 'a tall can on pins'],
  ['LED-3528', 'led-smd', 'soldered flat'],
  ['SOIC-8', 'ic', 'moulded, flat'],
  ['QFN-24', 'ic', 'moulded, flat'],
  ['DPAK', 'ic', 'moulded, flat'],
  ['DIP-8', 'ic-tht', 'on pins, never moisture-classed'],
  ['DIP-4', 'opto-dip', 'four pins: an opto-coupler'],
  ['TO-220', 'ic-tht', 'on pins'],
  ['BGA-64', 'bga-sac', 'balls, judged at their lands'],
  ['FILM-10', 'film-pp', 'PP unless somebody knows'],
  ['DISC-5', 'disc-coated', 'dipped, on pins'],
  ['RES-AXIAL', 'axial', 'lacquer'],
  ['TFUSE', 'cutoff', 'opens for good'],
  ['RELAY-15', 'relay-sealed', 'sealed is the careful guess'],
  ['TRAFO-EE16', 'trafo-tht', 'bobbin and safety tape'],
  ['CONN-PBT-8', 'pbt-gf', 'said so'],
  ['CONN-PA66-4', 'pa66-gf', 'said so'],
  ['TERM-3', 'pa66-plain', 'terminal blocks are without glass'],
  ['CONN-4', 'plastic-tht', 'unknown on pins may be PVC'],
  ['connector:mount=flat', 'plastic-flat', 'unknown, but was in an oven'],
  ['CONN-LCP-6', 'lcp', 'said so'],
  ['FLEX-8', 'flex-pet', 'PET film'],
  ['FLEX-PI-20', 'flex-pi', 'polyimide film'],
  ['SHIELD-14', 'shield', 'its own solder'],
  ['CELL-20', 'cell-coin', 'a button'],
  ['CELL-POUCH', 'cell-li', 'rechargeable'],
  ['SUPERCAP-11', 'supercap', 'not said to be for reflow'],
  ['DISPLAY-30', 'display', 'polariser'],
  ['CAMERA-8', 'camera', 'plastic lens'],
  ['SWITCH-6', 'switch-tht', 'no joints said: the careful one'],
  ['BUZZER-12', 'buzzer-tht', 'case and membrane'],
  ['MAGNET-6', 'magnet-ndfeb', 'grade unknown'],
  ['castellated:pins=24', 'module', 'lid and inner parts'],
];
describe('whom it judges how', () => {
  it.each(KINDS)('%s by %s: %s', (pkg, row) => expect(limitRowOf(part(pkg)).id).toBe(row));
  it('a reflow coil is not hurt by reflow, a relay on pins is', () => {
    const reflow = history([225, 15], [190, 60]);
    expect(judge(reflow, limitOf(part('IND-8'), facts).law, 10).says).not.toMatch(/hurt/);
    expect(judge(reflow, limitOf(part('RELAY-15'), facts).law, 15).says).toBe('hurts');
  });
  it('moulded bodies by thickness and volume, balls by their solder', () => {
    expect(limitOf(part('SOIC-8'), facts).law).toEqual(mouldLaw(260));
    expect(limitOf(part('D2PAK'), facts).law).toEqual(mouldLaw(245));
    expect(limitOf(part('BGA-64'), facts).law).toEqual({ kind: 'threshold', Tp_C: 205 });
    expect(limitOf(part('BGA-64', { limit: 'bga-leaded' }), facts).law).toEqual({ kind: 'threshold', Tp_C: 171 });
    expect(limitOf(part('BGA-64', { limit: 'bga-underfill' }), facts).law).toEqual(
      solidusLaw(217, { below_K: 12, swells: true }),
    );
    expect(limitOf(part('SHIELD-14'), { ...facts, board: { jointAlloy: 'Sn63Pb37' } }).law).toEqual({
      kind: 'threshold',
      Tp_C: 178,
    });
  });
  it('as a target a ball grid is judged by its body: its balls are to melt', () =>
    expect(limitOf(part('BGA-64'), facts, true)).toMatchObject({ id: 'ic', at: 'body' }));
  it('dampness takes its part off what is moisture-sensitive, half of it when nobody knows', () => {
    const at = (moisture: LimitFacts['moisture'], pkg = 'SOIC-8') => limitOf(part(pkg), { ...facts, moisture }).law;
    expect(at('damp')).toMatchObject({ Tp_C: 235, T1_C: 192 });
    expect(at('unknown')).toMatchObject({ Tp_C: 247.5, T1_C: 204.5 });
    expect(at(undefined)).toEqual(at('unknown'));
    expect(at('damp', 'RADIAL-10')).toEqual(at('baked', 'RADIAL-10'));
  });
  it('its own figure wins over the shop’s, the shop’s over the table', () => {
    const shop = { ...facts, limits: { 'elko-radial': { C: 140 } } };
    expect(limitOf(part('RADIAL-10'), shop).law).toMatchObject({ Tp_C: 140, T1_C: 120, t2_s: 30 });
    const own = limitOf(part('RADIAL-10', { ownLimit: { C: 150, s: 15 } }), shop);
    expect(own.law).toMatchObject({ Tp_C: 150, T1_C: 130, t2_s: 15 });
    expect(own.plusMinus_K).toBe(5);
    // what is printed on a cut-off is its rating, not what it may reach
    expect(limitOf(part('TFUSE', { ownLimit: { C: 133 } }), facts).law).toEqual({ kind: 'threshold', Tp_C: 121 });
    expect(limitOf(part('TFUSE'), facts).law).toEqual({ kind: 'threshold', Tp_C: 72 });
    expect(limitOf(part('R0603', { ownLimit: { C: 200, s: 10 } }), facts).law).toMatchObject({
      kind: 'dose',
      Tp_C: 200,
    });
  });
});

describe('neighbours on either side of a board over a preheater', async () => {
  const found = await neighbourVerdicts();
  it.each(NEIGHBOUR_CASES.map((c, i) => [c.package, c.top, c.bottom, c.why, i] as const))(
    '%s: %s above, %s below, for %s',
    (_, top, bottom, __, i) => {
      for (const [side, says] of [
        ['top', top],
        ['bottom', bottom],
      ]) {
        const { below = 'clear', without } = found.get(`${i}-${side}`) ?? {};
        expect(below, side).toBe(says);
        // the air of the nozzle does not come so far
        expect(without, side).toBeUndefined();
      }
    },
  );
});

interface Before {
  rows: string[];
  packages: Record<string, string>;
  parts: { package: string; limit?: string; was: string }[];
  tern: unknown;
}
const before = boardsBefore as Before;

describe('boards, drafts and packages of before', () => {
  it('every row that there ever was is understood', () => {
    const outers: Outer[] = (['flat', 'pins', 'none'] as const).map((mount) => ({
      mount,
      round: true,
      l: 8,
      h: 5,
      joints: 2,
    }));
    for (const id of before.rows)
      for (const o of outers) expect(LIMITS.has(currentLimit(id, o)), `${id} ${o.mount}`).toBe(true);
    for (const id of [...before.rows, ...OLD_LIMITS, ...LIMITS.keys()]) expect(isLimit(id), id).toBe(true);
    expect(isLimit('toString')).toBe(false);
    expect(() => currentLimit('magic', outers[0])).toThrow(/No limit "magic"/);
  });
  it('two names that could have been mistaken still mean what they meant', () => {
    expect(currentLimit('magnet', { mount: 'flat', round: false, l: 8, h: 4, joints: 2 })).toBe('coil-smd-glued');
    expect(currentLimit('magnet', { mount: 'pins', round: false, l: 17, h: 14, joints: 8 })).toBe('trafo-tht');
    expect(currentLimit('pa66', { mount: 'pins', round: false, l: 10, h: 6, joints: 4 })).toBe('pa66-gf');
  });
  it('the demo’s display board as it was stored loads unchanged, its display plug is a display', () => {
    const board = boardModelSchema.parse(before.tern);
    expect(board).toEqual(before.tern);
    const j3 = board.parts.find((p) => p.ref === 'J3') as PlacedPart;
    expect(j3.limit).toBe('lcd');
    expect(limitOf(j3, { board })).toMatchObject({ id: 'display', takeOut: true });
    for (const p of board.parts) expect(() => limitOf(p, { board })).not.toThrow();
  });
  it('every part of the demo’s boards and every package is judged by some row, written either way', () => {
    for (const { package: pkg, limit } of before.parts)
      expect(LIMITS.has(limitRowOf(part(pkg, { limit })).id)).toBe(true);
    for (const [id, was] of Object.entries(before.packages))
      expect(LIMITS.has(limitRowOf(part(id, { limit: was })).id), `${id} ${was}`).toBe(true);
  });
  it.each([
    ['box:l=12,w=4,h=3,limit=pbt', 'pbt-gf'],
    ['box:l=18,w=18,h=5,outline=round,limit=cell', 'cell-coin'],
    ['box:l=40,w=30,h=5,limit=cell', 'cell-li'],
    ['box:l=12,w=4,h=3', 'plastic-tht'],
    ['two-ends:l=8,w=8,h=4,cap=2,stuff=metal,limit=magnet', 'coil-smd-glued'],
    ['radial:limit=film', 'film-pp'],
    ['pin-rows:pins=4,limit=led', 'led-tht'],
    ['connector:plastic=pa66', 'pa66-gf'],
    ['connector:plastic=unknown-plastic,mount=flat', 'plastic-flat'],
    ['v-chip-can:d=10,h=10', 'elko-smd-m'],
    ['ball-grid:balls=bga-leaded', 'bga-leaded'],
  ])('%s, typed in before, is %s', (id, row) => expect(packageById(id).limit).toBe(row));
});
