/**
 * Computes the circuits of `test/circuitCases.ts` with ngspice (a general circuit simulator, Debian package
 * `ngspice`) and stores the values for the tests: npx tsx core/scripts/circuit-references.ts
 *
 * The decks are written from the netlist's meaning, not from the product's network: series resistances
 * get nodes of their own, offsets are voltage sources, blocks are expressions.
 */
import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { statesOf, type Block, type CircuitPart, type Fault, type Netlist } from '../src/circuit/netlist.ts';
import { assemble } from '../src/circuit/network.ts';
import { NetworkSolver } from '../src/circuit/solver.ts';
import { CIRCUIT_CASES } from '../test/circuitCases.ts';

const DIODES: Record<string, [number, number, number]> = {
  si: [2.52e-9, 1.752, 0.57],
  rect: [1e-9, 1.8, 0.05],
  sch: [3e-6, 1.05, 0.04],
  schs: [2e-7, 1.02, 3],
  esd: [2e-12, 1.05, 5],
  esdup: [1e-12, 1.05, 8],
  tvs: [1e-13, 1, 0.5],
  body: [1e-11, 1.05, 0.02],
  led: [1e-18, 2, 5],
  wled6: [5e-25, 13, 10],
  edge: [1e-6, 0.05, 0],
  clamp: [1e-15, 0.05, 0],
};
const RANGES = [
  [600, 1e3],
  [6e3, 1e4],
  [6e4, 1e5],
  [6e5, 1e6],
  [6e6, 1e7],
  [6e7, 1e7],
];

class Deck {
  private readonly lines: string[] = [];
  private readonly nodes = new Map<string, string>();
  private count = 0;
  hint?: (net: string) => number | undefined;
  private readonly ground: string;
  constructor(ground: string) {
    this.ground = ground;
  }
  node(net: string): string {
    if (net === this.ground) return '0';
    let n = this.nodes.get(net);
    if (!n) {
      this.nodes.set(net, (n = `n${this.nodes.size + 1}`));
      this.lines.push(`Rg${n} ${n} 0 1e12`);
    }
    return n;
  }
  add(kind: string, rest: string): void {
    this.lines.push(`${kind}x${++this.count} ${rest}`);
  }
  raw(line: string): void {
    this.lines.push(line);
  }
  resistor(a: string, b: string, r: number): void {
    if (this.node(a) !== this.node(b)) this.add('R', `${this.node(a)} ${this.node(b)} ${Math.max(r, 1e-6)}`);
  }
  /** Diode a → k behind `bv` volts. */
  diode(a: string, k: string, model: string, bv = 0): void {
    if (bv === 0) return this.add('D', `${this.node(a)} ${this.node(k)} ${model}`);
    const inner = `inner${++this.count}`;
    this.add('D', `${this.node(a)} ${inner} ${model}`);
    this.add('V', `${inner} ${this.node(k)} DC ${bv}`);
  }
  /** Node voltages by net: tight tolerances first, then looser ones, then with a hint; none when nothing helps. */
  run(folder: string): Map<string, number> {
    const hints = this.hint ? [...this.nodes].map(([net, n]) => `.nodeset v(${n})=${this.hint?.(net) ?? 0}`) : [];
    const tries = [
      ['reltol=1e-7 abstol=1e-14 vntol=1e-10'],
      ['reltol=1e-6 abstol=1e-13 vntol=1e-8'],
      ['reltol=1e-6 abstol=1e-13 vntol=1e-8', ...hints],
      ['reltol=1e-5 abstol=1e-12 vntol=1e-6', ...hints],
    ];
    for (const [tolerances, ...more] of tries) {
      const values = this.attempt(folder, tolerances, more);
      if (values) return values;
    }
    return new Map();
  }
  private attempt(folder: string, tolerances: string, more: string[]): Map<string, number> | null {
    const models = Object.entries(DIODES).map(([name, [is, n, rs]]) => `.model ${name} D(IS=${is} N=${n} RS=${rs})`);
    const wanted = [...this.nodes.values()];
    const file = join(folder, 'deck.cir');
    const text = [
      'orthos reference',
      ...this.lines,
      ...models,
      ...more,
      `.options ${tolerances} gmin=1e-12 itl1=2000 temp=27 tnom=27`,
      '.control',
      'set numdgt=14',
      'op',
      ...wanted.map((n) => `print v(${n})`),
      'quit 0',
      '.endc',
      '.end',
    ].join('\n');
    writeFileSync(file, text);
    const out = execFileSync('ngspice', ['-b', file], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
    const values = new Map<string, number>([[this.ground, 0]]);
    for (const [net, n] of this.nodes) {
      const match = new RegExp(`v\\(${n}\\) = (\\S+)`).exec(out);
      if (!match) return null;
      values.set(net, Number(match[1]));
    }
    return values;
  }
}

const step = (x: string, w: number | string) => `((1+tanh((${x})/(${w})))/2)`;
const soft = (x: string, w: number) => `(((${x})+sqrt((${x})*(${x})+${w * w}))/2)`;

function addBlock(deck: Deck, part: Extract<CircuitPart, { kind: 'IC' }>, block: Block, pin: (name: string) => string) {
  const find = (...names: string[]): string | null => {
    for (const name of names) {
      const stated = block.pins?.[name];
      if (stated !== undefined) return deck.node(pin(stated));
    }
    for (const name of names) if (name in part.pins) return deck.node(pin(name));
    return null;
  };
  const need = (...names: string[]) => {
    const n = find(...names);
    if (n === null) throw new Error(`${part.ref}: ${names[0]}`);
    return n;
  };
  const v = (a: string, b: string) =>
    a === b ? '0' : a === '0' ? `(-v(${b}))` : b === '0' ? `v(${a})` : `(v(${a})-v(${b}))`;
  /** Current out of the block into a node, returned through another. */
  const into = (node: string, back: string, expression: string) => {
    if (node !== back) deck.add('B', `${back} ${node} I=${expression}`);
  };
  if (block.type === 'ldo') {
    const [vin, out, gnd] = [need('VIN', 'IN', 'VCC'), need('VOUT', 'OUT'), need('GND')];
    const en = step(`${v(vin, gnd)}-(${block.vuv})`, 0.1);
    const top = `(${v(vin, gnd)}-(${block.vdo}))`;
    const vt = `(((${block.vset})+${top}-sqrt((${block.vset}-${top})*(${block.vset}-${top})+4e-4))/2*${en})`;
    const i = `(${block.ilim}*tanh(${soft(`${vt}-${v(out, gnd)}`, 1e-3)}/(${block.rout * block.ilim})))`;
    into(out, gnd, i);
    into(gnd, vin, `${i}+${block.iq}*${en}`);
  } else if (block.type === 'buck') {
    const [vin, sw, fb, gnd, en0] = [need('VIN'), need('SW'), need('FB'), need('GND'), find('EN')];
    const en = `${step(`${v(vin, gnd)}-(${block.vuv})`, 0.1)}${en0 ? `*${step(`${v(en0, gnd)}-(${block.ven})`, 0.05)}` : ''}`;
    const d = `(${block.dmax}*${step(`${block.vref}-${v(fb, gnd)}`, 1 / block.a)}*${en})`;
    const i = `(${block.ilim}*tanh(${soft(`${d}*${v(vin, gnd)}-${v(sw, gnd)}`, 1e-3)}/(${block.rout * block.ilim})))`;
    into(sw, gnd, i);
    into(gnd, vin, `${d}*${i}+${block.iq}*${en}`);
  } else if (block.type === 'boost') {
    const [vin, sw, swx, fb, gnd] = [need('VIN'), need('SW'), need('SWX'), need('FB'), need('GND')];
    const [en0, ovp] = [find('EN'), find('OVP')];
    const en = `${step(`${v(vin, gnd)}-(${block.vuv})`, 0.1)}${en0 ? `*${step(`${v(en0, gnd)}-(${block.ven})`, 0.05)}` : ''}`;
    const guard = ovp ? `*${step(`${block.vovp}-${v(ovp, gnd)}`, 0.2)}` : '';
    const d = `(${block.dmax}*${step(`${block.vref}-${v(fb, gnd)}`, 1 / block.a)}*${en}${guard})`;
    const m = `(1/(1-${d}))`;
    const i = `((${m}*${v(sw, gnd)}-${v(swx, gnd)})/(${block.rout}))`;
    into(swx, gnd, i);
    into(gnd, sw, `${m}*${i}`);
    into(gnd, vin, `${block.iq}*${en}`);
  } else if (block.type === 'opamp') {
    const [vcc, vee, p, n, out] = [need('VCC'), need('VEE'), need('P', 'INP'), need('N', 'INN'), need('OUT')];
    const span = v(vcc, vee);
    const ss = soft(span, 0.1);
    const vt = `(${v(vee, '0')}+${ss}/2*(1+tanh(2*${block.a}*${v(p, n)}/${ss})))`;
    const i = `(${block.ilim}*${step(`${span}-(${block.vmin})`, 0.1)}*tanh((${vt}-${v(out, '0')})/(${block.rout * block.ilim})))`;
    into(out, vcc, `max(${i},0)`);
    into(out, vee, `min(${i},0)`);
  } else {
    const [vcc, gnd, input, out] = [need('VCC'), need('GND', 'VS'), need('IN', 'A'), need('OUT', 'Y')];
    const high = step(`${v(input, gnd)}-(${block.vth})`, 0.05);
    const vt = `(${v(vcc, gnd)}*${block.inv ? `(1-${high})` : high})`;
    const i = `(${block.ilim}*${step(`${v(vcc, gnd)}-(${block.vmin})`, 0.1)}*tanh((${vt}-${v(out, gnd)})/(${block.rout * block.ilim})))`;
    into(out, vcc, `max(${i},0)`);
    into(out, gnd, `min(${i},0)`);
  }
}

function deckOf(netlist: Netlist, faults: Fault[], state: string | null): Deck {
  const deck = new Deck(netlist.ground);
  const of = (mode: Fault['mode'], ref: string) => faults.find((f) => f.mode === mode && f.ref === ref);
  for (const part of netlist.parts) {
    const pin = (name: string): string => {
      const open = of('open', part.ref);
      const first = Object.keys(part.pins)[0];
      if (of('missing', part.ref) || (open && (open.pin ?? first) === name)) return `${part.ref}.${name}`;
      return part.pins[name] ?? name;
    };
    const f = of('drift', part.ref)?.factor ?? 1;
    switch (part.kind) {
      case 'R':
        deck.resistor(pin('1'), pin('2'), part.value * f);
        break;
      case 'F':
      case 'FB':
      case 'L':
      case 'RLY':
        deck.resistor(pin('1'), pin('2'), part.r * f);
        break;
      case 'C':
        deck.resistor(pin('1'), pin('2'), part.leak);
        break;
      case 'D':
        deck.diode(pin('A'), pin('K'), part.model);
        break;
      case 'Z':
        deck.diode(pin('A'), pin('K'), part.model);
        deck.diode(pin('K'), pin('A'), 'tvs', part.bv);
        break;
      case 'ZB':
        deck.diode(pin('1'), pin('2'), 'tvs', part.bv);
        deck.diode(pin('2'), pin('1'), 'tvs', part.bv);
        break;
      case 'M': {
        const [d, g, s] = [pin('D'), pin('G'), pin('S')];
        const kind = part.type === 'N' ? 'NMOS' : 'PMOS';
        const model = `m${part.ref}`.toLowerCase();
        deck.add('M', `${deck.node(d)} ${deck.node(g)} ${deck.node(s)} ${deck.node(s)} ${model} L=1u W=1u`);
        // a bulk junction of its own would double the body diode
        deck.raw(
          `.model ${model} ${kind}(LEVEL=1 VTO=${part.vto} KP=${part.kp} LAMBDA=${part.lambda} IS=1e-25 GAMMA=0)`,
        );
        if (part.type === 'N') deck.diode(s, d, 'body');
        else deck.diode(d, s, 'body');
        deck.resistor(g, s, 1e9);
        break;
      }
      case 'Q': {
        const model = `q${part.ref}`.toLowerCase();
        deck.add('Q', `${deck.node(pin('C'))} ${deck.node(pin('B'))} ${deck.node(pin('E'))} ${model}`);
        deck.raw(`.model ${model} ${part.type === 'N' ? 'NPN' : 'PNP'}(IS=${part.is} BF=${part.bf} BR=${part.br})`);
        break;
      }
      case 'IC':
        for (const [a, k, model] of part.esd) deck.diode(pin(a), pin(k), model);
        for (const [a, b, off, on = off] of part.res) deck.resistor(pin(a), pin(b), state === null ? off : on);
        for (const block of part.blocks)
          if (state !== null && !of('dead', part.ref)) addBlock(deck, part, block, pin);
          else if (block.type === 'boost') deck.resistor(pin('SW'), pin('SWX'), block.rout);
        break;
      case 'J':
        break;
    }
    for (const fault of faults) {
      if (fault.ref !== part.ref || !['short', 'leaky', 'bridge'].includes(fault.mode)) continue;
      const ic = part.kind === 'IC';
      const r = fault.r ?? (fault.mode === 'short' ? (ic ? 3 : 0.5) : fault.mode === 'leaky' ? (ic ? 60 : 300) : 0.1);
      const names = Object.keys(part.pins);
      const rail = ic ? (part.rail?.[0] ?? names[0]) : '';
      const own: [string, string] = ic
        ? [rail, names.find((n) => part.pins[n] === netlist.ground) ?? names[1]]
        : part.kind === 'M'
          ? ['D', 'S']
          : part.kind === 'Q'
            ? ['C', 'E']
            : [names[0], names[1]];
      const [a, b] = fault.pins ?? own;
      deck.resistor(pin(a), pin(b), r);
    }
  }
  if (state !== null) {
    const named = netlist.power?.states[state];
    const sources = [...(netlist.power?.sources ?? []), ...(named?.sources ?? [])];
    sources.forEach((s, n) => {
      const o = `supply ${n}`;
      deck.add('I', `0 ${deck.node(o)} DC ${s.ilim}`);
      deck.diode(o, netlist.ground, 'edge', s.v);
      deck.resistor(o, s.p, s.rout);
    });
    for (const load of [...(netlist.power?.loads ?? []), ...(named?.loads ?? [])]) {
      const n = load.n ?? netlist.ground;
      if ('r' in load) deck.resistor(load.p, n, load.r);
      else deck.add('I', `${deck.node(load.p)} ${deck.node(n)} DC ${load.i}`);
    }
  }
  if (state !== null) {
    const network = assemble(netlist, faults, state);
    const { v } = new NetworkSolver(network).solve();
    deck.hint = (net) => v[network.node(net) ?? network.size];
  }
  return deck;
}

/** Null where the simulator found no operating point. */
const round = (x: number) => (Number.isFinite(x) ? Number(x.toPrecision(10)) : null);

function main(): void {
  const folder = mkdtempSync(join(tmpdir(), 'circuit-'));
  const cases = CIRCUIT_CASES.map(({ name, netlist, faults, readings }) => {
    const across = (v: Map<string, number>, red: string, black: string) => (v.get(red) ?? NaN) - (v.get(black) ?? NaN);
    const values = readings.map((r): number | 'OL' | null => {
      const [red, black] = [r.red ?? netlist.ground, r.black ?? netlist.ground];
      const state = r.type === 'dcv' || r.type === 'isup' ? (r.state ?? statesOf(netlist)[0]) : null;
      if (r.type === 'ohm') {
        for (const [full, behind] of RANGES) {
          const deck = deckOf(netlist, faults, null);
          deck.raw(`Vmeter meterp ${deck.node(black)} DC 0.6`);
          deck.raw(`Rmeter meterp ${deck.node(red)} ${behind}`);
          const v = across(deck.run(folder), red, black);
          if (Number.isNaN(v)) return null;
          const ohms = (behind * v) / (0.6 - v);
          if (v < 0.6 && ohms <= full) return round(ohms);
        }
        return 'OL';
      }
      const deck = deckOf(netlist, faults, state);
      if (r.type === 'diode') {
        deck.raw(`Imeter ${deck.node(black)} ${deck.node(red)} DC 1m`);
        deck.diode(red, black, 'clamp', 3);
        const v = across(deck.run(folder), red, black);
        return v > 2.8 ? 'OL' : round(v);
      }
      if (r.type === 'dcv') {
        deck.resistor(red, black, 1e7);
        return round(across(deck.run(folder), red, black));
      }
      const v = deck.run(folder);
      const own = netlist.power?.states[state ?? '']?.sources ?? [];
      const sources = [...(netlist.power?.sources ?? []), ...own];
      return round(sources.reduce((sum, s, n) => sum + across(v, `supply ${n}`, s.p) / s.rout, 0));
    });
    const voltages = Object.fromEntries(
      statesOf(netlist).map((state) => {
        const v = deckOf(netlist, faults, state).run(folder);
        const nets = [...new Set(netlist.parts.flatMap((p) => Object.values(p.pins)))];
        return [state, Object.fromEntries(nets.filter((n) => v.has(n)).map((n) => [n, round(v.get(n) ?? NaN)]))];
      }),
    );
    process.stderr.write(`${name}\n`);
    return { name, values, voltages };
  });
  rmSync(folder, { recursive: true });
  const version = /ngspice-(\S+)/.exec(execFileSync('ngspice', ['-v'], { encoding: 'utf8' }))?.[1] ?? 'unknown';
  const made = `ngspice ${version}, operating points, reltol 1e-7, vntol 1e-10 (looser, and with node sets, where it does not converge otherwise), gmin 1e-12, 27 °C; decks by core/scripts/circuit-references.ts`;
  const body = cases.map((c) => `    ${JSON.stringify(c)}`).join(',\n');
  writeFileSync(
    new URL('../test/circuitReferences.json', import.meta.url),
    `{\n  "made": ${JSON.stringify(made)},\n  "cases": [\n${body}\n  ]\n}\n`,
  );
}

main();
