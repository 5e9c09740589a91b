import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runCalc } from '../src/calc/index.ts';
import {
  doubtId,
  type HiddenTruth,
  ANY_SUPPLIES,
  FOIL_CLEARANCE_MM,
  foilWindow,
  plannedCovers,
  saidIn,
  suppliesOf,
  surroundingsDone,
  cautionsFor,
  layOutFor,
  operationFor,
  SLIP_KINDS,
  SLIPS,
} from '../src/hands/index.ts';
import { boardBounds } from '../src/board/index.ts';
import { extentOf, packageById, PACKAGES } from '../src/packages/index.ts';
import {
  DEFAULT_STATION,
  expressBoard,
  methodsFor,
  type PlanInput,
  type PlanResult,
  planResultSchema,
  type Guide,
  type Instruction,
  type Kit,
  kitItemSchema,
  guideOf,
  inTurn,
  latestSafe,
  meltOrder,
  OPERATIONS,
  windowPhase,
  type Method,
  type Phase,
  phaseOf,
  type Panel,
  type Surroundings,
} from '../src/rework/index.ts';
import type { Said } from '../src/hands/laps.ts';
import type { FluxAtHand } from '../src/hands/supplies.ts';
import type { Work } from '../src/hands/work.ts';
import { roundsFor } from '../src/hands/prepare.ts';
import { air, bead, beadFor, changed } from './plans.ts';

const words = (text: string) => text.split(/\s+/).filter(Boolean).length;
const context = { now: () => 0 };

const guide: Guide = {
  joints: [
    { terminal: '1', wet_s: 31 },
    { terminal: '2', wet_s: 24 },
    { terminal: '3', wet_s: null },
  ],
  last: '3',
  allWet_s: 40,
  allWetFrom_s: 36,
  allWetTo_s: 47,
  closes_s: 58,
  closesFrom_s: 52,
  closesTo_s: null,
  closedBy: 'J2',
};

const CELSIUS: Panel = { temperature: 'C', length: 'mm' };
const targets = [...PACKAGES.values()].filter((p) => p.terminals.length > 0);
const workOn = (pkg: string, id = 'air-slow') => {
  const board = expressBoard({ package: pkg, boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
  const method = methodsFor(pkg).find((m) => m.method.id === id)?.method;
  if (!method) throw new Error(`no ${id}`);
  const target = board.parts.find((p) => p.partId === 'target');
  if (!target) throw new Error('no target');
  return { board, target, method, guide, nearest: 'J2', panel: CELSIUS };
};

describe('instructions for busy hands', () => {
  it.each(targets.map((p) => p.id))('%s: every sentence has at most twelve words, each id is there once', (pkg) => {
    const taking = methodsFor(pkg).map(({ method, unfit }) => ({ method, unfit, ops: OPERATIONS }));
    const putting = methodsFor(pkg, {}, 'fit').map(({ method, unfit }) => ({ method, unfit, ops: ['fit'] as const }));
    for (const { method, ops } of [...taking, ...putting].filter((m) => !m.unfit))
      for (const op of ops) {
        const list = operationFor(op, { ...workOn(pkg), method });
        expect(list.length).toBeGreaterThan(2);
        expect(new Set(list.map((i) => i.id)).size).toBe(list.length);
        for (const i of list)
          for (const w of [i, ...Object.values(i.phases ?? {})]) {
            expect(words(w.say), w.say).toBeLessThanOrEqual(12);
            expect(w.say).not.toBe('');
            expect(w.watch).not.toBe('');
          }
      }
  });
  it('"lift" appears only behind the technician\'s own "all wet", never by the clock', () => {
    for (const pkg of ['SOIC-8', 'QFN-24', 'DPAK', 'QFP-44'])
      for (const m of ['air-slow', 'air-fast', 'bead', 'alloy-then-air', 'preheat-air', 'lift-legs', 'below-opening']) {
        const list = operationFor('remove', workOn(pkg, m));
        const wet = list.findIndex((i) => i.mark === 'all-wet');
        for (const i of list.slice(0, wet + 1))
          for (const w of [i, ...Object.values(i.phases ?? {})]) expect(w.say).not.toMatch(/lift/i);
        expect(list[wet + 1].say).toMatch(/lift/i);
      }
  });
  it('clean-up rounds grow with what was worked in, by bead, spike or an earlier repair', () => {
    const beaded = (bead_mm3_mm: number, place: 'lands' | 'holes' = 'lands') => {
      const work = workOn('SOIC-8', 'bead');
      const phases = [changed(beadFor('SOIC-8'), { bead_mm3_mm })];
      return roundsFor({ ...work, method: { id: 'bead', phases } }, place);
    };
    expect(beaded(0.05)).toBe(3);
    expect(beaded(1.2)).toBe(4);
    expect(beaded(1.2, 'holes')).toBe(5);
    fc.assert(
      fc.property(fc.double({ min: 0.05, max: 6, noNaN: true }), (bead) => {
        expect(beaded(bead * 1.5)).toBeGreaterThanOrEqual(beaded(bead));
      }),
      { numRuns: 20 },
    );
    const air = workOn('SOIC-8');
    expect(roundsFor(air, 'lands')).toBe(1);
    const spiked = { ...air, joints: [{ terminals: ['3'], with: [{ alloy: { Bi: 58, Sn: 42 }, ratio: 2 }] }] };
    expect(roundsFor(spiked, 'lands')).toBeGreaterThan(2);
    // without lead on the board two per cent of bismuth may stay
    expect(roundsFor({ ...spiked, flood: 'own' }, 'lands')).toBeLessThan(roundsFor(spiked, 'lands'));
    const steps = operationFor('remove', spiked).map((i) => i.say);
    expect(steps[0]).toBe('Work Sn42Bi58 into joint 3.');
    expect(layOutFor(spiked, {}).tools).toContain('Sn42Bi58 to work in, and an iron for it');
    const facts = { board: air.board, target: air.target, method: air.method, sources: [] };
    const minds = (alloyed: boolean) =>
      cautionsFor('remove', { ...facts, alloyed }).some((c) => /^Low-melt alloy/.test(c));
    expect([minds(true), minds(false)]).toEqual([true, false]);
    const own = operationFor('prepare', { ...workOn('SOIC-8', 'bead'), flood: 'own' });
    expect(own.find((i) => i.id === 'flood-1')?.say).toMatch(/^Round 1 of \d: flood with fresh SAC305\.$/);
    expect(own.some((i) => /leaded/.test(i.say))).toBe(false);
    const prepared = operationFor('prepare', workOn('SOIC-8', 'bead'));
    expect(prepared.filter((i) => i.id.startsWith('flood'))).toHaveLength(4);
  });
  it('holes that were sucked empty are looked through, not flooded again', () => {
    const work = workOn('DIP-8', 'vacuum');
    const list = operationFor('prepare', work);
    expect(list.some((i) => i.id.startsWith('flood'))).toBe(false);
    expect(list.some((i) => i.id === 'through')).toBe(true);
    const spiked = { ...work, joints: [{ with: [{ alloy: { Bi: 58, Sn: 42 }, ratio: 1 }] }] };
    // hole by hole, fresh solder into each, never flooded
    const again = operationFor('prepare', spiked);
    expect(again.some((i) => i.id.startsWith('flood'))).toBe(false);
    const holes = again.filter((i) => i.id.startsWith('braid'));
    expect(holes.length).toBeGreaterThan(1);
    for (const i of holes) {
      expect(i.walk).toHaveLength(8);
      expect(i.watch).toMatch(/leaded solder into each/);
    }
  });
  it('lands are prepared by what lies there: alloy gathered first, stains proven, a pad left flat, legs where it goes on again', () => {
    const ids = (work: Work) => operationFor('prepare', work).map((i) => i.id);
    expect(ids(workOn('SOIC-8'))).toEqual(['scan', 'flood-1', 'braid-1', 'lands']);
    const beaded = ids(workOn('SOIC-8', 'bead'));
    expect(beaded.slice(0, 3)).toEqual(['scan', 'bulk', 'flood-1']);
    // its flux is of another kind: washed before the part comes, else once at the end
    expect(beaded.slice(-2)).toEqual(['wash', 'lands']);
    expect(operationFor('fit', workOn('SOIC-8')).at(-1)?.id).toBe('wash');
    expect(ids(workOn('QFN-24'))).toContain('film');
    const leaking = { ...workOn('SOIC-8'), joints: [{ leaking: true }] };
    expect(ids(leaking).slice(-5)).toEqual(['stain', 'retin', 'prove', 'wash', 'lands']);
    const wired = { ...leaking, target: { ...leaking.target, nets: { 1: 'LINE' } } };
    expect(operationFor('prepare', wired).find((i) => i.id === 'prove')?.watch).toMatch(/1 to LINE/);
    const kept = { ...workOn('SOIC-8'), surroundings: { reused: true } };
    expect(operationFor('prepare', kept).find((i) => i.id === 'legs')?.walk).toHaveLength(8);
    const chip = { ...workOn('C0805'), fitBy: 'fit-one-land' };
    expect(operationFor('prepare', chip).find((i) => i.id === 'braid-1')?.say).toMatch(/one land clean/);
  });
  it('pins that hold come round again, and nothing is lifted until each is said free', () => {
    const work = workOn('DIP-8', 'vacuum');
    const told = (walked: Said['walked'], doubts = 0) => operationFor('remove', { ...work, said: { walked, doubts } });
    const walk = (instruction: string, terminals: string[], ...held: string[]): Said['walked'] =>
      terminals.map((terminal) => ({ instruction, terminal, state: held.includes(terminal) ? 'stuck' : 'done' }));
    const pins = ['1', '2', '3', '4', '5', '6', '7', '8'];
    const walks = (list: Instruction[]) => list.flatMap((i) => (i.walk ? [[i.id, i.walk.join(' ')]] : []));
    expect(walks(told([]))).toEqual([['pins', pins.join(' ')]]);
    // one is skipped, one stuck: both hold
    const first = [...walk('pins', pins, '3'), { instruction: 'pins', terminal: '7', state: 'skipped' }];
    expect(walks(told(first)).at(-1)).toEqual(['pins-2', '3 7']);
    const second = [...first, ...walk('pins-2', ['3', '7'], '7')];
    expect(walks(told(second)).at(-1)).toEqual(['pins-3', '7']);
    const third = [...second, ...walk('pins-3', ['7'])];
    expect(walks(told(third))).toHaveLength(3);
    // all were said free, and one turns out to hold
    const tried = [...third, ...walk('try-1', pins, '2')];
    const list = told(tried, 1);
    expect(walks(list).map(([id]) => id)).toEqual(['pins', 'pins-2', 'pins-3', 'try-1', 'try-1-2']);
    expect(list.findIndex((i) => i.id === 'try-1-2')).toBeLessThan(list.findIndex((i) => i.mark === 'all-wet'));
    for (const i of list.slice(
      0,
      list.findIndex((j) => j.mark === 'all-wet'),
    ))
      expect(i.say).not.toMatch(/lift/i);
    // logs of old do not say where
    expect(walks(told(first.map(({ terminal, state }) => ({ terminal, state })))).at(-1)).toEqual(['pins-2', '3 7']);
  });
  it('what a lap leaves is told to the next tool, which has nothing to do where nothing is left', () => {
    const work = workOn('DIP-8', 'vacuum-then-air');
    const lap = (...held: string[]) =>
      ['1', '2', '3', '4', '5', '6', '7', '8'].map((terminal) => ({
        instruction: 'pins',
        terminal,
        state: held.includes(terminal) ? 'stuck' : 'done',
      }));
    const say = (walked: Said['walked']) => operationFor('remove', { ...work, said: { walked, doubts: 0 } });
    expect(say([]).some((i) => i.phase === 'air')).toBe(true);
    expect(say(lap('4', '5')).find((i) => i.mark === 'all-wet')?.say).toBe('Air on what still holds: 4, 5.');
    expect(say(lap('4', '5')).filter((i) => i.walk)).toHaveLength(1);
    const free = say(lap());
    expect(free.some((i) => i.phase === 'air')).toBe(false);
    expect(free.find((i) => i.mark === 'all-wet')?.say).toBe('Push every pin. Do all of them move?');
  });
  it('goes on with ordinary solder, whatever it came off with', () => {
    const list = operationFor('fit', workOn('SOIC-8', 'bead'));
    expect(list[0].say).toBe('Place SOIC-8. Check its mark once more.');
    expect(list.find((i) => i.id === 'heat-on')?.say).toMatch(/350 °C/);
    expect(list.find((i) => i.id === 'solder')?.watch).toMatch(/Sn63Pb37/);
    const own = operationFor('fit', { ...workOn('SOIC-8', 'bead'), flood: 'own' });
    expect(own.find((i) => i.id === 'solder')?.watch).not.toMatch(/Pb/);
  });
  it('asks nobody what nobody sees', () => {
    const pad = { ...guide, joints: [{ terminal: 'EP', wet_s: 40 }], last: 'EP' };
    const list = operationFor('remove', { ...workOn('QFN-24'), guide: pad });
    const all = list.flatMap((i) => [i, ...Object.values(i.phases ?? {})]);
    expect(all.some((w) => /pad under the body shiny/.test(w.say))).toBe(false);
    expect(all.some((w) => /spring back/.test(w.say))).toBe(true);
  });
  it('each way of putting on says its own, and ends held until it is solid', () => {
    const fitted = (pkg: string, id: string, more: Partial<Guide> = {}) => {
      const method = methodsFor(pkg, {}, 'fit').find((m) => m.method.id === id)?.method;
      if (!method) throw new Error(`no ${id}`);
      return operationFor('fit', { ...workOn(pkg), method, guide: { ...guide, ...more } });
    };
    const ids = (list: readonly Instruction[]) => list.map((i) => i.id);
    expect(ids(fitted('SOIC-8', 'fit-joints'))).toEqual([
      'place',
      'heat-on',
      'tack',
      'solder',
      'heat-off',
      'cool',
      'wash',
    ]);
    expect(fitted('SOIC-8', 'fit-joints').find((i) => i.walk)?.walk).toHaveLength(8);
    expect(ids(fitted('SOIC-8', 'fit-air'))).toEqual([
      'tin',
      'flux',
      'place',
      'heat-on',
      'first-wet',
      'all-wet',
      'heat-off',
      'cool',
      'wash',
    ]);
    // onto molten lands the part comes with the air on, and its clock begins there
    const molten = fitted('QFN-24', 'fit-molten');
    expect(ids(molten).slice(2, 5)).toEqual(['heat-on', 'lands-wet', 'place']);
    expect(molten.find((i) => i.id === 'place')?.mark).toBe('heat-on');
    expect(ids(fitted('QFN-24', 'fit-press')).slice(-4)).toEqual(['press', 'heat-off', 'cool', 'wash']);
    const held = fitted('SOIC-8', 'fit-air', { hold_s: 3.2 }).find((i) => i.id === 'cool');
    expect([held?.say, held?.lasts_s]).toEqual(['Hold still 4 s at least, until it is dull.', 4]);
  });
  it('bare copper that was seen beside lands is varnished once the part is on', () => {
    const list = operationFor('fit', { ...workOn('SOIC-8'), bare: ['3', '4'] });
    expect(list.at(-1)).toMatchObject({ id: 'varnish', watch: expect.stringMatching(/^Beside 3, 4:/) });
    expect(operationFor('fit', workOn('SOIC-8')).some((i) => i.id === 'varnish')).toBe(false);
  });
  it('a run begun before fitting had ways of its own is told to its end', () => {
    const list = operationFor('fit', workOn('SOIC-8'));
    expect(list.some((i) => i.walk)).toBe(false);
    expect(list.map((i) => i.id)).toContain('all-wet');
    expect(operationFor('fit', workOn('DIP-8', 'vacuum')).find((i) => i.walk)?.walk).toHaveLength(8);
  });
  it('lay-out names the set-points of the plan', () => {
    const [{ method }] = methodsFor('SOIC-8');
    const air = phaseOf(method, 'air')?.settings;
    const { tools, setPoints } = layOutFor(workOn('SOIC-8'), {});
    expect(tools).toContain(`nozzle ${air?.nozzle_mm} mm`);
    expect(setPoints.map((p) => p.value)).toEqual([air?.set_C, air?.flow_L_min]);
    expect(layOutFor(workOn('SOIC-8', 'vacuum'), {}).setPoints.map((p) => p.id)).toEqual(['vacuum']);
  });
  it('asks for nothing that does not lie on the bench, and clears with what does', () => {
    const kit = (...items: unknown[]): Kit => items.map((i) => kitItemSchema.parse(i));
    const bare = kit({ tool: 'iron' }, { tool: 'pump' }, { tool: 'flux', kind: 'rosin' });
    const smd = workOn('SOIC-8');
    const on = (work: Work, list: Kit) => ({ ...work, supplies: suppliesOf(list, work.board, work.flood) });
    const tools = layOutFor(on(smd, bare), {}).tools;
    expect(tools).toContain('solder pump');
    for (const absent of ['braid', 'flux', 'leaded solder']) expect(tools).not.toContain(absent);
    expect(tools).toContain('rosin flux');
    expect(layOutFor(smd, {}).tools).toEqual(expect.arrayContaining(['flux', 'braid', 'leaded solder']));
    const said = (work: Work) => operationFor('prepare', work).map((i) => i.say);
    // nothing to flood with: cleared once, with what is there
    expect(said(on(workOn('SOIC-8', 'bead'), bare)).filter((s) => /pump/.test(s))).toHaveLength(1);
    expect(said(on(smd, bare)).some((s) => /braid|flood/i.test(s))).toBe(false);
    const wire = { tool: 'wire', wt: { Sn: 63, Pb: 37 } };
    expect(said(on(smd, kit(wire, { tool: 'braid' })))).toContain('Flood the lands with leaded solder.');
    expect(said(on(smd, kit(wire)))).toContain('Draw the solder off with a clean, tinned tip.');
    // holes: suction before braid, lands: braid before suction
    const both = kit(wire, { tool: 'braid' }, { tool: 'vacuum' });
    expect(said(on(workOn('DIP-8'), both)).some((s) => /Vacuum iron on each hole/.test(s))).toBe(true);
    expect(said(on(smd, both)).some((s) => /^Braid on/.test(s))).toBe(true);
    // leaded wire is nothing to flood a board with that stays without lead
    expect(said(on({ ...smd, flood: 'own' }, kit(wire))).some((s) => /flood/i.test(s))).toBe(false);
    for (const list of [bare, both, kit()])
      for (const pkg of ['SOIC-8', 'DIP-8', 'QFN-24'])
        for (const s of said(on(workOn(pkg), list))) expect(words(s)).toBeLessThanOrEqual(12);
  });
  it('takes the flux that works where the solder melts, and little of it where parts swim or are open', () => {
    const fluxes = (...list: FluxAtHand[]) => ({ ...ANY_SUPPLIES, fluxes: list });
    const watch = (work: Work) => operationFor('remove', work).find((i) => i.id === 'flux')?.watch ?? '';
    const jars = fluxes({ kind: 'rosin' }, { kind: 'low-temperature' });
    expect(watch({ ...workOn('SOIC-8'), supplies: jars })).toMatch(/of rosin flux\./);
    expect(watch({ ...workOn('SOIC-8', 'bead'), supplies: jars })).toMatch(/^Plenty of low-temperature flux\./);
    const own = { kind: 'no-clean', active_C: [80, 260] as const };
    expect(watch({ ...workOn('SOIC-8', 'bead'), supplies: fluxes({ kind: 'rosin' }, own) })).toMatch(/no-clean flux/);
    expect(watch({ ...workOn('SOIC-8'), supplies: fluxes({ kind: 'low-temperature' }) })).toMatch(
      /No flux here works at 21\d °C/,
    );
    const dated = fluxes({ kind: 'rosin', expires: '2026-01-31' });
    const on = (today: string) => watch({ ...workOn('SOIC-8'), supplies: dated, today });
    expect([on('2026-01-31'), on('2026-02-01')].map((w) => /past its date/.test(w))).toEqual([false, true]);
    // the amount: by what stands round it and how it is heated
    const near = (pkg: string, id = 'air-slow', away_mm = 2): Work => {
      const work = workOn('SOIC-8', id);
      const part = { ...work.target, partId: 'c9', ref: 'C9', package: pkg, x_mm: work.target.x_mm, rotation_deg: 0 };
      const y_mm = work.target.y_mm + 2 + packageById(pkg).body.w / 2 + away_mm;
      return { ...work, board: { ...work.board, parts: [...work.board.parts, { ...part, y_mm }] } };
    };
    expect(watch(near('C0402'))).toMatch(/^A trace of flux\. C9 swim/);
    expect(watch(near('C0402', 'air-slow', 4))).toMatch(/^A thin film/);
    expect(watch(near('C0402', 'bead'))).toMatch(/^Plenty/);
    expect(watch(near('MIC-4', 'bead', 4))).toMatch(/^A trace of flux\. None may run into C9\./);
  });
  it('what the plan counts on lies ready and is told: heat from below as the clock starts, covers, frame', () => {
    const under = { kind: 'preheater' as const, T_C: 150, h: 40 };
    const surroundings = {
      under,
      held: { kind: 'frame' as const, width_mm: 3 },
      covers: [
        { kind: 'foil' as const, partId: 'j2' },
        { kind: 'tape' as const, partId: 'c9' },
      ],
    };
    const work = { ...workOn('SOIC-8'), surroundings };
    const { tools, setPoints } = layOutFor(work, {});
    expect(tools).toEqual(expect.arrayContaining(['foil', 'heat tape', 'preheater', 'board frame']));
    expect(setPoints[0]).toMatchObject({ label: 'preheater', value: 150, unit: '°C' });
    const list = operationFor('remove', work);
    expect(list[0].say).toBe('Set the preheater to 150 °C, beside the board.');
    expect(list.find((i) => i.mark === 'heat-on')?.watch).toMatch(/^Board over the preheater now\./);
    expect(operationFor('remove', workOn('SOIC-8')).some((i) => i.id === 'under')).toBe(false);
    // where an iron comes before the air, it comes with the iron
    const chain = operationFor('remove', { ...workOn('QFP-44', 'spike-then-air'), surroundings });
    const over = chain.filter((i) => i.watch.startsWith('Board over the preheater now.'));
    expect(over.map((i) => [i.phase, i.id])).toEqual([['spike', 'work-in-1']]);
    const infrared = layOutFor({ ...work, surroundings: { under: { kind: 'infrared', flux_W_m2: 6000 } } }, {});
    expect(infrared.setPoints[0]).toMatchObject({ value: 6, unit: 'kW/m²' });
  });
  it('knows the surroundings as hands left them, and who is not as planned', () => {
    const planned: Surroundings = {
      draught: 3,
      covers: [
        { kind: 'foil', partId: 'j2' },
        { kind: 'tape', partId: 'c9' },
        { kind: 'strip', area: { x_mm: 1, y_mm: 1, w_mm: 5, h_mm: 5 } },
      ],
      absent: ['bt1'],
    };
    expect(plannedCovers(planned).map((c) => `${c.partId} ${c.how}`)).toEqual([
      'j2 foil',
      'c9 heat tape',
      'bt1 taken out',
    ]);
    const covered = (how: string) => ({ type: 'neighbour-covered' as const, how });
    const asPlanned = new Map([
      ['j2', covered('foil')],
      ['c9', covered('heat tape')],
      ['bt1', covered('taken out')],
    ]);
    const all = surroundingsDone(planned, asPlanned);
    expect(all.differs).toEqual([]);
    expect(all.surroundings.draught).toBe(3);
    expect(all.surroundings.covers).toHaveLength(3);
    expect(all.surroundings.absent).toEqual(['bt1']);
    // one skipped, one accepted as it is, one covered in another way, one covered that was not planned
    const other = surroundingsDone(
      planned,
      new Map<string, ReturnType<typeof covered> | { type: 'neighbour-accepted' }>([
        ['j2', covered('metal strip')],
        ['c9', { type: 'neighbour-accepted' }],
        ['l1', covered('taken out')],
      ]),
    );
    expect(other.differs.sort()).toEqual(['bt1', 'c9', 'j2', 'l1']);
    expect(other.surroundings.covers?.map((c) => c.kind).sort()).toEqual(['strip', 'strip']);
    expect(other.surroundings.absent).toEqual(['l1']);
    // a cover on the target itself is nobody's neighbour
    const own = surroundingsDone({ covers: [{ kind: 'foil', partId: 'u1' }] }, new Map(), 'u1');
    expect([own.differs, own.surroundings.covers?.length]).toEqual([[], 1]);
    // words of their own do what was planned
    expect(surroundingsDone(planned, new Map([...asPlanned, ['j2', covered('two layers of foil')]])).differs).toEqual(
      [],
    );
    expect(surroundingsDone({}, new Map([['j2', { type: 'neighbour-accepted' as const }]])).differs).toEqual([]);
  });
  it('foil with a window covers all but the target, and says who stands in the window with it', () => {
    const work = workOn('QFP-44');
    const { body } = packageById('C0603');
    const chip = (partId: string, dx: number, dy = 0, side: 'top' | 'bottom' = 'top') => ({
      ...work.target,
      ...{ partId, package: 'C0603', side, x_mm: work.target.x_mm + dx, y_mm: work.target.y_mm + dy },
    });
    const e = extentOf(packageById('QFP-44'));
    const edge = e.x1 + FOIL_CLEARANCE_MM + body.l / 2;
    const parts = [chip('in', edge - 0.2), chip('out', edge + 0.2), chip('far', 60), chip('below', 12, 0, 'bottom')];
    const board = { ...work.board, parts: [work.target, ...parts] };
    const foil = foilWindow(board, work.target);
    expect(foil.open.map((p) => p.partId)).toEqual(['in']);
    expect(foil.under.map((p) => p.partId)).toEqual(['out']);
    // the board round the window, without the window
    const area = foil.covers.reduce((sum, c) => sum + (c.area ? c.area.w_mm * c.area.h_mm : 0), 0);
    const { x0, x1, y0, y1 } = boardBounds(board);
    const window = (e.x1 - e.x0 + 2 * FOIL_CLEARANCE_MM) * (e.y1 - e.y0 + 2 * FOIL_CLEARANCE_MM);
    expect(area).toBeCloseTo((x1 - x0) * (y1 - y0) - window, 6);
    // wider, it takes in both
    expect(foilWindow(board, work.target, 3).open.map((p) => p.partId)).toEqual(['in', 'out']);
    // twenty small parts round it are under it in one act
    const ring = Array.from({ length: 20 }, (_, i) => chip(`c${i}`, 11 * Math.cos(i / 3.2), 11 * Math.sin(i / 3.2)));
    expect(foilWindow({ ...board, parts: [work.target, ...ring] }, work.target).under).toHaveLength(20);
    // at the edge of a board nothing of it lies outside
    const corner = { ...work.target, x_mm: x0 + 2, y_mm: y0 + 2 };
    for (const { area: a } of foilWindow({ ...board, parts: [corner] }, corner).covers) {
      expect(a?.x_mm).toBeGreaterThanOrEqual(x0);
      expect((a?.x_mm ?? 0) + (a?.w_mm ?? 0)).toBeLessThanOrEqual(x1 + 1e-9);
    }
  });
  it('an unmarked air dial is spoken of in percent of the dial, in lay-out and run', () => {
    const work = { ...workOn('SOIC-8'), panel: { ...CELSIUS, air: 'unmarked' as const } };
    const flow = layOutFor(work, work.panel).setPoints.find((p) => p.id === 'flow');
    expect([flow?.value, flow?.unit]).toEqual([75, '%']);
    for (const op of ['remove', 'fit'] as const) {
      const say = operationFor(op, work).find((i) => i.id === 'heat-on')?.say ?? '';
      expect(say).toMatch(/dial at 75 %/);
      expect(say).not.toMatch(/litre/);
      expect(words(say)).toBeLessThanOrEqual(12);
    }
  });
  it('every slip has something to do at once and a check of its own', () => {
    expect(new Set(SLIP_KINDS.map((k) => SLIPS[k].check)).size).toBe(SLIP_KINDS.length);
    expect(SLIPS.bumped.now).toMatch(/^Still liquid: set it back/);
    for (const k of SLIP_KINDS) expect(words(SLIPS[k].now)).toBeLessThanOrEqual(12);
  });
});

describe('the window', () => {
  it('is early, then to look, then late by the earliest closing', () => {
    expect([10, 35.9, 36, 51.9, 52, 200].map((t) => windowPhase(guide, t))).toEqual([
      'early',
      'early',
      'look',
      'look',
      'late',
      'late',
    ]);
    expect(latestSafe(guide)).toBe(52);
  });
  it('never opens when nothing melts, never closes when nobody gets hurt', () => {
    const cold = { ...guide, allWet_s: null, allWetFrom_s: null, allWetTo_s: null };
    expect(windowPhase(cold, 45)).toBe('early');
    const open = { ...guide, closes_s: null, closesFrom_s: null };
    expect([windowPhase(open, 500), latestSafe(open)]).toEqual(['look', null]);
  });
  it('gives each joint its own time where the tool goes from one to the next', () => {
    const joints = [
      { terminal: '1', wet_s: 2 },
      { terminal: '2', wet_s: null },
      { terminal: '3', wet_s: 14.5 },
      { terminal: '4', wet_s: 16 },
    ];
    expect([...inTurn(joints)]).toEqual([
      ['1', 2],
      ['2', null],
      ['3', 12.5],
      ['4', 1.5],
    ]);
  });
  it('orders joints by melting, those that stay solid last', () => {
    expect(meltOrder(guide)).toEqual(['2', '1', '3']);
  });
});

describe('cautions', () => {
  const board = expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
  const base = { board, sources: [] as const };
  const by = (...phases: Phase[]): Method => ({ id: 'some', phases });
  const said = (...args: Parameters<typeof cautionsFor>) => cautionsFor(...args).join(' ');
  it('appear where they apply and nowhere else', () => {
    expect(said('protect', { ...base, sources: ['mains'] })).toMatch(/qualified people/);
    expect(said('protect', base)).not.toMatch(/qualified people/);
    expect(said('protect', { ...base, sources: ['capacitor'] })).toMatch(/measure again/);
    expect(said('remove', { ...base, method: by(air()) })).toMatch(/alcohol/);
    expect(said('remove', { ...base, method: by(bead()) })).toMatch(/cadmium/);
    expect(said('remove', { ...base, method: by(air()) })).not.toMatch(/cadmium/);
    expect(said('remove', { ...base, board: { ...board, coating: 'polyurethane' } })).toMatch(/isocyanates/);
    expect(said('release', { ...base, board: { ...board, service: ['vehicle'] } })).toMatch(/licensed practice/);
    expect(said('fit', { ...base, target: { ...board.parts[0], what: 'position memory' } })).toMatch(/law/);
  });
});

describe('the hidden bench', () => {
  const board = expressBoard({ package: 'SOIC-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
  const plan: PlanInput = {
    board,
    target: 'target',
    phases: methodsFor('SOIC-8')[0].method.phases,
    station: DEFAULT_STATION,
    ambient_C: 22,
    quality: 'search',
    frames: false,
  };
  const play = (seed: number) => runCalc('plan.bench', { plan, seed }, context) as Promise<HiddenTruth>;
  it('is the same for a seed, another for another, and not what the plan says', async () => {
    const [a, b, c] = [await play(1), await play(1), await play(2)];
    expect(a).toEqual(b);
    expect(a.allWet_s).not.toBe(c.allWet_s);
    const result = planResultSchema.parse(await runCalc('plan.heat', plan, context)) as PlanResult;
    const predicted = guideOf(result, board, plan);
    expect(predicted.joints).toHaveLength(8);
    for (const truth of [a, c]) {
      expect(truth.allWet_s).not.toBe(predicted.allWet_s);
      // off by a station, not by a world
      expect(Math.abs((truth.allWet_s ?? 0) / (predicted.allWet_s ?? 1) - 1)).toBeLessThan(0.5);
      for (const j of truth.joints) expect(j.wet_s).toBeLessThanOrEqual(truth.allWet_s ?? 0);
    }
  });
  it('answers pin by pin, also where another tool comes after the lap', async () => {
    const dip = expressBoard({ package: 'DIP-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
    const of = (id: string) => methodsFor('DIP-8').find((m) => m.method.id === id)?.method.phases ?? [];
    const told = async (id: string, seed: number) => {
      const input = { ...plan, board: dip, phases: of(id) };
      return (await runCalc('plan.bench', { plan: input, seed }, context)) as HiddenTruth;
    };
    for (const id of ['vacuum', 'vacuum-then-air']) {
      const truths = await Promise.all([1, 2, 3, 4, 5, 6].map((seed) => told(id, seed)));
      for (const { pins = [] } of truths) {
        expect(pins.map((p) => p.terminal)).toHaveLength(8);
        for (const p of pins) expect(p.takes_s).toBeGreaterThan(1);
      }
      // some stay plugged, by no means all
      const plugged = truths.flatMap((t) => t.pins ?? []).filter((p) => p.stuck).length;
      expect(plugged).toBeGreaterThan(0);
      expect(plugged).toBeLessThan(24);
    }
    expect((await told('air-slow', 1)).pins).toBeUndefined();
    expect((await told('cut-legs', 1)).pins?.some((p) => p.stuck)).toBe(false);
  });
  it('counts how often one was found to hold', () => {
    const marks = [doubtId(0), 'try-1', doubtId(1)].map((instruction) => ({ instruction }));
    expect(marks.map((m) => m.instruction)).toEqual(['one-holds-1', 'try-1', 'one-holds-2']);
    expect(saidIn({ walked: [], marks }).doubts).toBe(2);
  });
  it('keeps the order of pins done one after another, each with at least half a second of its own', async () => {
    const pins = expressBoard({ package: 'DIP-8', boardKind: 'two-layer', plastic: 'pbt', distance_mm: 6 });
    const vacuum = methodsFor('DIP-8').find((m) => m.method.id === 'vacuum')?.method;
    if (!vacuum) throw new Error('no vacuum iron');
    for (let seed = 0; seed < 12; seed++) {
      const input = { plan: { ...plan, board: pins, phases: vacuum.phases }, seed };
      const { joints } = (await runCalc('plan.bench', input, context)) as HiddenTruth;
      const times = joints.map((j) => j.wet_s ?? NaN).sort((a, b) => a - b);
      expect(times).toHaveLength(8);
      times.forEach((t, i) => expect(t - (times[i - 1] ?? 0)).toBeGreaterThanOrEqual(0.5 - 1e-9));
    }
  });
  it('spreads over seeds roughly as the station is uncertain', async () => {
    const wet: number[] = [];
    for (let seed = 10; seed < 22; seed++) wet.push((await play(seed)).allWet_s ?? NaN);
    const mean = wet.reduce((s, t) => s + t, 0) / wet.length;
    const deviation = Math.sqrt(wet.reduce((s, t) => s + (t - mean) ** 2, 0) / wet.length);
    expect(deviation / mean).toBeGreaterThan(0.03);
    expect(deviation / mean).toBeLessThan(0.35);
  });
});
