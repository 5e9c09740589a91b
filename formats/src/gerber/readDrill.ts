/** One drill file (Excellon form): holes and slots with their tools. */
import { BoardFileError } from '../fileError.ts';

export interface DrillFile {
  /** mm, y down (negated). */
  holes: { x: number; y: number; d: number; via: boolean }[];
  plated: boolean | undefined;
  notes: string[];
}

export function readDrill(text: string): DrillFile {
  const out: DrillFile = { holes: [], plated: undefined, notes: [] };
  const tools = new Map<number, { d: number; via: boolean }>();
  let [unit, header, ended] = [0, false, false];
  let [whole, decimal] = [0, 0];
  let leadingKept = true;
  let tool: { d: number; via: boolean } | undefined;
  let [x, y] = [0, 0];
  let use = '';
  let routing = false;
  let seen = false;
  const lines = text.split(/\r\n|\r|\n/);
  const fail = (message: string, n: number) => new BoardFileError(message, n + 1);
  const coordinate = (t: string, n: number): number => {
    if (!unit) throw fail('coordinates come before the unit (METRIC or INCH) is said', n);
    let v: number;
    if (t.includes('.')) v = Number(t);
    else {
      const digits = t.replace(/^[+-]/, '');
      if (digits.length > 10) throw fail(`"${t.slice(0, 20)}" has too many digits`, n);
      const [w, d] = [whole || (unit === 1 ? 3 : 2), decimal || (unit === 1 ? 3 : 4)];
      // "LZ" keeps leading zeros: digits count from the left; else from the right
      const padded = leadingKept ? digits.padEnd(w + d, '0') : digits;
      v = ((t.startsWith('-') ? -1 : 1) * Number(padded)) / 10 ** d;
    }
    v *= unit;
    if (!Number.isFinite(v) || Math.abs(v) > 5000) throw fail(`"${t.slice(0, 20)}" is out of all reason`, n);
    return v;
  };
  const hole = (n: number) => {
    if (!tool) throw fail('drills before a tool is chosen', n);
    if (out.holes.length >= 200_000) throw fail('more than 200,000 holes', n);
    out.holes.push({ x, y, ...tool });
  };
  for (const [n, raw] of lines.entries()) {
    const line = raw.trim();
    if (line === '') continue;
    if (line.startsWith(';')) {
      const said = /FileFunction,(NonPlated|Plated)|TYPE=(NON_PLATED|PLATED)/.exec(line);
      if (said) out.plated = said[0].includes('NonPlated') || said[0].includes('NON_PLATED') ? false : true;
      const aper = /TA\.AperFunction,(.*)$/.exec(line);
      if (aper) use = aper[1];
      const format = /FILE_FORMAT=(\d):(\d)/.exec(line) ?? /FORMAT=\{(\d):(\d)/.exec(line);
      if (format) [whole, decimal] = [Number(format[1]), Number(format[2])];
      continue;
    }
    if (line === 'M48') {
      header = seen = true;
      continue;
    }
    if (line === '%' || line === 'M95') {
      header = false;
      continue;
    }
    if (line === 'M30' || line === 'M00') {
      ended = true;
      break;
    }
    const units = /^(METRIC|INCH)(?:,(LZ|TZ))?(?:,(0+)\.(0+))?/.exec(line);
    if (units) {
      unit = units[1] === 'METRIC' ? 1 : 25.4;
      // the word tells which zeros are there
      if (units[2]) leadingKept = units[2] === 'LZ';
      if (units[3]) [whole, decimal] = [units[3].length, units[4].length];
      seen = true;
      continue;
    }
    if (line === 'M71' || line === 'M72') {
      unit = line === 'M71' ? 1 : 25.4;
      continue;
    }
    const definition = /^T(\d+)(?:[FSBH]\d*\.?\d*)*C(\d*\.?\d+)/.exec(line);
    if (definition) {
      if (!unit) throw fail('tools come before the unit (METRIC or INCH) is said', n);
      const d = Number(definition[2]) * unit;
      if (!(d > 0) || d > 100) throw fail(`tool T${definition[1]} is ${d} mm wide`, n);
      tools.set(Number(definition[1]), { d, via: use.includes('ViaDrill') });
      use = '';
      continue;
    }
    if (header) continue;
    const choice = /^T(\d+)$/.exec(line);
    if (choice) {
      if (Number(choice[1]) === 0) continue;
      tool = tools.get(Number(choice[1]));
      if (!tool) throw fail(`tool T${choice[1]} is used before it is defined`, n);
      continue;
    }
    if (/^G05|^G81/.test(line)) {
      routing = false;
      continue;
    }
    const repeat = /^R(\d+)(?:X([+-]?[\d.]+))?(?:Y([+-]?[\d.]+))?$/.exec(line);
    if (repeat) {
      const times = Number(repeat[1]);
      if (times > 10_000) throw fail(`repeats ${times} times: too often`, n);
      for (let k = 0; k < times; k++) {
        x += repeat[2] ? coordinate(repeat[2], n) : 0;
        y -= repeat[3] ? coordinate(repeat[3], n) : 0;
        hole(n);
      }
      continue;
    }
    const move =
      /^(G00|G01|G0|G1|M15|M16)?(?:X([+-]?[\d.]+))?(?:Y([+-]?[\d.]+))?(?:G85(?:X([+-]?[\d.]+))?(?:Y([+-]?[\d.]+))?)?$/.exec(
        line,
      );
    if (move && (move[1] || move[2] || move[3])) {
      if (move[1] === 'G00' || move[1] === 'G0') routing = true;
      const [fromX, fromY] = [x, y];
      if (move[2]) x = coordinate(move[2], n);
      if (move[3]) y = -coordinate(move[3], n);
      if (move[4] || move[5] || (routing && (move[1] === 'G01' || move[1] === 'G1'))) {
        // a slot: a hole at each end and as many between as touch
        const [ax, ay] = routing ? [fromX, fromY] : [x, y];
        if (!routing) {
          if (move[4]) x = coordinate(move[4], n);
          if (move[5]) y = -coordinate(move[5], n);
        }
        const [bx, by] = [x, y];
        const steps = Math.min(200, Math.ceil(Math.hypot(bx - ax, by - ay) / Math.max(0.2, tool?.d ?? 1)));
        for (let k = 0; k <= steps; k++) {
          [x, y] = [ax + ((bx - ax) * k) / Math.max(1, steps), ay + ((by - ay) * k) / Math.max(1, steps)];
          hole(n);
        }
        [x, y] = [bx, by];
      } else if (move[2] || move[3]) {
        if (!routing) hole(n);
      }
      continue;
    }
    if (/^(G\d+|M\d+|FMAT|ICI|VER|DETECT|ATC|S\d|F\d)/.test(line)) continue;
    throw fail(`"${line.slice(0, 40)}" is not understood`, n);
  }
  if (!seen) throw new BoardFileError('is no drill file: neither M48 nor a unit in it');
  if (!ended) throw new BoardFileError('the file ends without M30: it was cut off', lines.length);
  return out;
}
