/**
 * Texts of docs/physics that are made of computed figures. Each is a snapshot of the test that computes and asserts them: a figure that moves fails there,
 * `npx vitest run --root core -u` writes it anew. Figures are rounded, so engines may differ in the last bits.
 */
import { expect } from 'vitest';
import { lawWords, LIMITS } from '../src/materials/limits.ts';
import { type AlloyRow, errorsOf, meanOf, medianOf } from './alloyErrors.ts';
import type { BenchTime, Figure } from './benchTimes.ts';
import type { Order } from './convergence.ts';
import type { Coverage } from './coverage.ts';
import { INDEPENDENT_BOARDS, pixelsOf, type Reading } from './independentBoards.ts';
import { LAND_ROWS } from './landsTable.ts';
import { NEIGHBOUR_CASES } from './neighbourCases.ts';
import type { ValidationCase } from './validationSolve.ts';

/** That a text is what stands in docs/physics. */
export const expectNote = (name: string, text: string): Promise<void> =>
  expect(text).toMatchFileSnapshot(`../../docs/physics/${name}.md`);

const WRITTEN = 'Written by `npx vitest run --root core -u`';

const percent = (v: number) => `${(100 * v).toFixed(2)} %`;

export function heatNote(cases: readonly ValidationCase[], orders: readonly Order[]): string {
  const lines = [
    '# Heat against closed forms',
    '',
    `${WRITTEN} from the cases in \`core/test/validationCases.ts\` and \`validationPlates.ts\`, which the tests`,
    'assert (2 % of the temperature rise, energy 1e-6). Error is |computed − exact| over the rise of the case, or over the exact',
    'time for melting times. These cases check integrator, kernel and coupling; they say nothing about the tool parameters, which',
    'are fitted (see parts.md).',
    '',
  ];
  for (const c of cases) {
    lines.push(
      `## ${c.name}`,
      '',
      `${c.formula}. Energy balance better than ${c.energy < 1e-9 ? '1e-9' : '1e-6'} of the heat.`,
      '',
    );
    lines.push('| probe | computed | exact | error |', '|---|---|---|---|');
    for (const r of c.rows)
      lines.push(
        `| ${r.probe} | ${r.computed.toFixed(2)} | ${r.exact.toFixed(2)} | ${percent(Math.abs(r.computed - r.exact) / r.scale)} |`,
      );
    lines.push('');
  }
  lines.push(
    '## Convergence',
    '',
    'A cosine field decays on any grid with a known rate: errors of the time step against the decay on that grid, errors of the cell against the',
    'decay in the continuum (at 20 ms). Both fall with the square.',
    '',
    '| | size | error, K |',
    '|---|---|---|',
  );
  for (const { of, rows, order } of orders) {
    for (const r of rows) lines.push(`| ${of} | ${r.size} | ${r.error.toExponential(1)} |`);
    lines.push(`| order | | ${order.toFixed(1)} |`);
  }
  lines.push('');
  return lines.join('\n');
}

/** `ours` and `theirs` by the names of the boards. */
export function independentNote(ours: Record<string, Reading[]>, theirs: Record<string, Reading[]>): string {
  const lines = [
    '# Against a general-purpose finite-element program',
    '',
    `${WRITTEN} from \`core/test/independentBoards.ts\`, which the tests assert (5 % of the rise), and the stored values of`,
    '`core/test/independent.json`, computed by `core/scripts/independent.ts`: linear tetrahedra, every foil a layer of elements, copper pixel by pixel of 0.25 mm,',
    'laminate orthotropic, Crank–Nicolson with half a second, solved directly. Boards of 50 × 40 mm, no parts; the jet (45 L/min, nozzle 8 mm, 14 mm above, 390 °C) stands',
    'still over the middle, 14 and 12 W/(m²·K) elsewhere above and below. Ours is the mesh and step of a plan, with coverage read from the same copper as an import does.',
    'Places are on the nozzle’s axis and 10 mm beside it; errors against the rise there.',
    '',
    '| board | after | beside | top: ours | theirs | error | bottom: ours | theirs | error |',
    '|---|---|---|---|---|---|---|---|---|',
  ];
  for (const { name } of INDEPENDENT_BOARDS) {
    for (const [n, reading] of ours[name].entries()) {
      const cell = (key: 'top_C' | 'bottom_C') => {
        const [a, b] = [reading[key], theirs[name][n][key]];
        return `${a.toFixed(0)} °C | ${b.toFixed(0)} °C | ${((100 * (a - b)) / (b - 22)).toFixed(1)} %`;
      };
      lines.push(
        `| ${n === 0 ? name : ''} | ${reading.t_s} s | ${reading.x_mm} mm | ${cell('top_C')} | ${cell('bottom_C')} |`,
      );
    }
  }
  const shares = INDEPENDENT_BOARDS.map(({ name, layers }) => {
    const share = (pixels: Uint8Array) => (pixels.reduce((sum, p) => sum + p, 0) / pixels.length).toFixed(2);
    return `${name}: ${layers.map((l) => `${l.foil_um} µm × ${share(pixelsOf(l))}`).join(', ')}`;
  });
  lines.push(
    '',
    `Foils and their share of the board, from the top: ${shares.join('; ')}.`,
    '',
    '## What it changed',
    '',
    'The outer slab’s temperature is that of its foil. Half a slab between air and foil made everything 5 to 8 % slow; leaving it out alone would have shortened the way',
    'through the board by as much, and the bottom came out up to 5 % too hot: heat now crosses the whole outer slab on its way in. Inner copper is met',
    '0.18 of the thickness below the faces (0.2 to 0.36 mm in usual builds of 1.6 mm), not in the middle of a slab, and foil takes its thickness off the laminate’s',
    'way: six layers of heavy copper were 8 to 10 % off before. Broken tracks conduct',
    'half of φ/2 + φ⁴/2 by their copper alone (0.09 and 0.05 along and across at 0.4 were seen), but the laminate below bridges gaps of a quarter of a millimetre: together',
    'they come to φ/4 + 0.6 φ², a tenth below the old figure at 0.4. With copper alone the two-layer board spread too little and was 4 to 8 % too hot.',
    '',
  );
  return lines.join('\n');
}

const seconds = (v: number | null) => (v === null ? 'never' : v.toFixed(0));

export function benchNote(
  times: readonly (BenchTime & { found: Figure[] })[],
  coverage: readonly { name: string; found: Coverage }[],
): string {
  const lines = [
    '# Times at the bench',
    '',
    `${WRITTEN} from the cases in \`core/test/benchTimes.ts\` and \`coverage.ts\`, which the tests assert.`,
    '',
    '## What the default figures give',
    '',
    'The band is what a bench shows for such a case, taken from experience; the figures of parts and tools are chosen so that plausible inputs give',
    'plausible times. That shows that such inputs exist; it is no prediction of one board. Joints are of the board’s solder, from 22 °C.',
    '',
    '| case | tool and board | figure | model | band |',
    '|---|---|---|---|---|',
  ];
  for (const c of times)
    for (const [n, { what, value, from, to, unit }] of c.found.entries())
      lines.push(
        `| ${n === 0 ? c.name : ''} | ${n === 0 ? c.inputs : ''} | ${what} | ${value.toFixed(value < 20 ? 1 : 0)} ${unit} | ${from} to ${to} ${unit} |`,
      );
  lines.push(
    '',
    '### What moved with engine 4',
    '',
    'Air meets the foil itself, not half a slab further in: 5 to 12 % sooner on boards without planes (SOIC-8 28 s before, SOIC-16W 28, alu can 10.0, 0603 12.5), less',
    'where planes take the heat (QFP-48 80). Inner copper is met where it lies and foil shortens the laminate’s way, so heavy boards warm through sooner: the tab',
    'of the D2PAK at 197 s before, its legs at 149. The QFN took 106 L/min for its 107 s; that flow now gives 80, below the band, so its case is stated at the',
    'other end of the flows noted for it, 98. Joints count when all of their melting heat is in them, not 0.7 of it: one to three percent later by itself. Beads',
    'move by their short steps after a touch (3.7 and 11.5 s before). No band was changed.',
    '',
    '## Ranges against simulated benches',
    '',
    'Each bench draws a station, a hand, a flow, a board thickness and a copper of its own from the spreads that a plan assumes (normal, not only the',
    'two levels of the design), and is computed alone; a bench is inside when all its joints are wet within the range promised for 19 of 20. Benches',
    'and plan share their equations: this tests the arithmetic of the ranges, not the model. More than 95 % fall inside, because a range is never narrower',
    'than 4 % and a second to either side, and the two levels of the design stand for tails that rarely come together.',
    '',
    'A bead lies there before its iron comes; until engine 8 these rows were computed without it and said nothing. With it 33 of 40 were inside on two layers: sixteen',
    'joints turn together, and each is seen up to a second off, so the last of them is seen later than one alone would be. The end of a range counts that since.',
    '',
    '| case | range promised, s | benches inside |',
    '|---|---|---|',
  );
  const all = { inside: 0, benches: 0 };
  for (const { name, found } of coverage) {
    const { plan, inside, benches } = found;
    all.inside += inside;
    all.benches += benches;
    const { from, to } = plan.allWetRange_s;
    lines.push(`| ${name} | ${seconds(from)} to ${seconds(to)} | ${inside} of ${benches} |`);
  }
  lines.push(`| all | | ${all.inside} of ${all.benches}, ${Math.round((100 * all.inside) / all.benches)} % |`, '');
  return lines.join('\n');
}

export function alloysNote(rows: readonly AlloyRow[]): string {
  const summary = (['liquidus', 'solidus'] as const).map((key) => {
    const errors = errorsOf(rows, key);
    const within = (most: number) => errors.filter((e) => e <= most).length;
    return `| ${key} | ${medianOf(errors).toFixed(1)} | ${meanOf(errors).toFixed(1)} | ${Math.max(...errors).toFixed(0)} | ${within(4)} of ${errors.length} | ${within(8)} of ${errors.length} |`;
  });
  const whole = (v: number) => v.toFixed(0);
  return [
    '# Alloys against published melting ranges',
    '',
    `${WRITTEN}; the tests assert the summary. A phase-diagram model after the CALPHAD method (Saunders &`,
    'Miodownik 1998): pure liquids as reference, Redlich–Kister excess of liquid and crystals (Redlich & Kister 1948), ternary terms, compounds as line',
    'phases, heat capacities of solid and liquid taken as equal. Liquidus by driving force, equilibrium by column generation (a linear program over',
    'compositions that each phase proposes), freezing without diffusion in the solid after Scheil (1942). Parameters were fitted to these rows, so the',
    'errors are those of the fit: what was not fitted can be farther off, which is why every figure carries a confidence.',
    '',
    'The matrix liquidus leaves hard grains of silver and copper compounds out: half a percent of copper keeps a few crystals to 250 °C in a joint that is',
    'long fluid at 160 °C. Published ranges of leaded solder with silver or copper do the same.',
    '',
    '| | median, K | mean | worst | within 4 | within 8 |',
    '|---|---|---|---|---|---|',
    ...summary,
    '',
    '| wt% | published (A sure, B ± 5, C rough) | model | confidence |',
    '|---|---|---|---|',
    ...rows.map(
      (r) =>
        `| ${r.name} | ${r.published.solidus} to ${r.published.liquidus}, ${r.published.sure} | ${whole(r.model.solidus)} to ${whole(r.model.liquidus)} | ${r.confidence} |`,
    ),
    '',
    '## Not modelled',
    '',
    'Gold, nickel and anything beside Sn, Pb, Bi, In, Ag, Cu, Sb, Cd, Zn (refused). Dissolution of lands and leads into the joint, undercooling, flux.',
    'Mixing is a factor, not a process. Residue limits are those of solder baths and new alloys, from memory, as a guide; hold times assume one cooling',
    'constant. Indium beside two of tin, lead and bismuth: the liquidus may be 20 °C off, the solidus is indicative only.',
    '',
  ].join('\n');
}

export function limitsNote(): string {
  const at = { body: 'body', face: 'face', land: 'land' } as const;
  return [
    '# What parts stand',
    '',
    `${WRITTEN} from \`core/src/materials/limits.ts\`. Remembered from standard classes, makers’ soldering data, polymer`,
    'data and electrochemistry; none was measured here. A figure of the part’s own papers wins over the shop’s, the shop’s over this table.',
    '',
    '**Dose.** A body that stands T₁ for t₁ and Tp for t₂ is allowed t₁·(t₂/t₁)^((T − T₁)/(Tp − T₁)) seconds at T; every second uses up its share from 20 K below T₁ on.',
    'Harmed at a sum of one, or at once 10 K over Tp. *Hurts* is said when it is so at the nominal figures, *may hurt* when it would be with the row’s ± K off to',
    'the worse, *near* from a third of the dose. The margin is by how many kelvin everything could have been hotter. It counts until the part is off: all wet plus three',
    'seconds for the lift. Doses are for one more heating.',
    '',
    '**Read at.** Body: the hottest of its segments. Face: that and a tenth of its rise, at most 10 K, until bodies have a skin. Land: the hottest cell of the board under',
    'its lands on its own side. What is light on the other side, and everything further than 12 mm (25 mm for what solder would hurt), takes the temperature of the board',
    'beside it; heat from below reaches the whole board, and what hangs into it has the heater round it. A board that is heated all over loses nothing at the rim of a mesh',
    'that ends before the board does.',
    '',
    '**Damp.** Taken off both temperatures where parts were not baked; half of it when nobody knows.',
    '',
    '**Lands.** What was called an index is a probability: that a joint is still solid at the lift (2 % where all are seen, 5 % with hidden ones, 8 % in holes; four times',
    'that when the window closes before the last joint is sure) times that a pull of 0.25 N, spread 1.8, is more than the land holds: 4 ± 1.6 N per mm of width, 1.0 ± 0.4',
    'above the glass transition, weaker by 1/e in 60 000 K·s and by half at most. A bead at 120 °C leaves lands below the transition, so it is some ten times kinder than air',
    'to a 0.3 mm land. Plating, hot tips and pins add their own. All judgement.',
    '',
    '**Laminate.** Delamination by t₂₈₈·exp(19 100·(1/T − 1/561)) at the hottest land, T in K: 50 s at 288 °C for standard glass epoxy gives five minutes at 260, as published.',
    '',
    '## What changed with engine 5',
    '',
    'Endurance classes stood for short times: reflow coils “hurt” at 155 °C, radial cans at 125, relays at 118. Polymers that stand 230 °C for ten seconds but lean at 200',
    'for a minute were judged by the melting point. The other side was judged by its solder alone; displays and cells there vanished. Neighbours came loose when their',
    'body was warm, now when their lands are. Cells and displays are no longer compared: they come out first.',
    '',
    '## Table',
    '',
    '| row | what | read at | stands | damp, K | ± K | what happens | from |',
    '|---|---|---|---|---|---|---|---|',
    ...[...LIMITS.values()].map(
      (l) =>
        `| ${l.id} | ${l.what}${l.takeOut ? ' (take it out)' : ''} | ${at[l.at]} | ${lawWords(l.law)} | ${l.damp_K} | ${l.plusMinus_K} | ${l.why}${l.care ? `; ${l.care}` : ''} | ${l.source} |`,
    ),
    '',
    '## Three minutes over a preheater',
    '',
    'Board of 1.6 mm on air of 165 °C: its upper side gets to 95 °C, its lower to 104. The tests assert every line, and that without heat from below none is reached.',
    '',
    '| part | on the upper side | on the lower | why |',
    '|---|---|---|---|',
    ...NEIGHBOUR_CASES.map((c) => `| ${c.package} | ${c.top} | ${c.bottom} | ${c.why} |`),
    '',
  ].join('\n');
}

export function landsNote(): string {
  const change = ([published, ours]: readonly [number, number]) =>
    `${published} | ${ours.toFixed(2)} | ${(ours - published).toFixed(2)}`;
  return [
    '# Lands, pins and masses against published figures',
    '',
    `${WRITTEN}; the tests assert every line. Published figures are from memory of the named outline and land-pattern`,
    'standards (nominal density), or of makers’ recommended patterns and data sheets where these are named. Across: centre to centre of the lands, mm, within 0.2.',
    'Pitch and number of lands are exact. Masses are ours by heat capacity (0.9 J/(g·K) for moulded bodies with their metal, 0.85 for alumina, 0.5 for tantalum), within 0.7 to 1.4. Chip resistors became thinner by this table.',
    '',
    '| package | standard | across | ours | off | pitch | lands | mass, mg | ours | off |',
    '|---|---|---|---|---|---|---|---|---|---|',
    ...LAND_ROWS.map(
      (r) =>
        `| ${r.package} | ${r.standard} | ${change(r.across)} | ${r.pitch ? r.pitch[0] : ''} | ${r.lands[0]} | ${
          r.mass
            ? `${r.mass[0]} | ${r.mass[1].toPrecision(2)} | ${Math.round(100 * (r.mass[1] / r.mass[0] - 1))} %`
            : ' | | '
        } |`,
    ),
    '',
  ].join('\n');
}
