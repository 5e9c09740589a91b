/** One drill file (Excellon form): holes and slots with their tools. */
import { BoardFileError } from '../fileError.ts';

export interface DrillFile {
  /** mm, y down (negated). */
  holes: { x: number; y: number; d: number; via: boolean }[];
  plated: boolean | undefined;
  notes: string[];
}

const MOST_HOLES = 200_000;
const MOST_REPEATS = 10_000;
/** A slot is as many holes as touch, at most. */
const MOST_IN_SLOT = 200;
/** What a reader may pass over: it moves nothing and drills nothing. */
const HARMLESS = /^(G\d+|M\d+|FMAT|ICI|VER|DETECT|ATC|S\d|F\d)/;
const MOVE =
  /^(G00|G01|G0|G1|M15|M16)?(?:X([+-]?[\d.]+))?(?:Y([+-]?[\d.]+))?(?:G85(?:X([+-]?[\d.]+))?(?:Y([+-]?[\d.]+))?)?$/;

/** Throws `BoardFileError` with the line where the file is no drill file, is cut off, or drills what nobody drills. */
export function readDrill(text: string): DrillFile {
  const lines = text.split(/\r\n|\r|\n/);
  const reader = new DrillReader();
  for (const [n, raw] of lines.entries()) {
    const line = raw.trim();
    if (line !== '') reader.read(line, n + 1);
    if (reader.ended) break;
  }
  if (!reader.seen) throw new BoardFileError('is no drill file: neither M48 nor a unit in it');
  if (!reader.ended) throw new BoardFileError('the file ends without M30: it was cut off', lines.length);
  return reader.out;
}

/** The machine that the file speaks to: unit, tool and place as the lines before have left them. */
class DrillReader {
  readonly out: DrillFile = { holes: [], plated: undefined, notes: [] };
  ended = false;
  /** Something in it was of a drill file. */
  seen = false;
  private readonly tools = new Map<number, { d: number; via: boolean }>();
  private tool: { d: number; via: boolean } | undefined;
  /** mm; 0 before it is said. */
  private unit = 0;
  /** Digits before and behind the point that is not written; 0 where nothing says it. */
  private digits = { whole: 0, decimal: 0 };
  private leadingKept = true;
  private x = 0;
  private y = 0;
  private header = false;
  private routing = false;
  /** What the tool defined next is for. */
  private use = '';
  private line = 0;

  read(line: string, number: number): void {
    this.line = number;
    if (line.startsWith(';')) return this.comment(line);
    if (this.control(line) || this.define(line) || this.header) return;
    if (this.choose(line) || this.repeat(line) || this.move(line) || HARMLESS.test(line)) return;
    throw this.fail(`"${line.slice(0, 40)}" is not understood`);
  }

  private fail(message: string): BoardFileError {
    return new BoardFileError(message, this.line);
  }

  private comment(line: string): void {
    const said = /FileFunction,(NonPlated|Plated)|TYPE=(NON_PLATED|PLATED)/.exec(line);
    if (said) this.out.plated = !said[0].includes('NonPlated') && !said[0].includes('NON_PLATED');
    const aperture = /TA\.AperFunction,(.*)$/.exec(line);
    if (aperture) this.use = aperture[1];
    const format = /FILE_FORMAT=(\d):(\d)/.exec(line) ?? /FORMAT=\{(\d):(\d)/.exec(line);
    if (format) this.digits = { whole: Number(format[1]), decimal: Number(format[2]) };
  }

  /** Beginning, end, unit. */
  private control(line: string): boolean {
    if (line === 'M48') this.header = this.seen = true;
    else if (line === '%' || line === 'M95') this.header = false;
    else if (line === 'M30' || line === 'M00') this.ended = true;
    else if (line === 'M71' || line === 'M72') this.unit = line === 'M71' ? 1 : 25.4;
    else return this.units(line);
    return true;
  }

  private units(line: string): boolean {
    const said = /^(METRIC|INCH)(?:,(LZ|TZ))?(?:,(0+)\.(0+))?/.exec(line);
    if (!said) return false;
    this.unit = said[1] === 'METRIC' ? 1 : 25.4;
    // the word tells which zeros are there
    if (said[2]) this.leadingKept = said[2] === 'LZ';
    if (said[3]) this.digits = { whole: said[3].length, decimal: said[4].length };
    this.seen = true;
    return true;
  }

  private define(line: string): boolean {
    const said = /^T(\d+)(?:[FSBH]\d*\.?\d*)*C(\d*\.?\d+)/.exec(line);
    if (!said) return false;
    if (!this.unit) throw this.fail('tools come before the unit (METRIC or INCH) is said');
    const d = Number(said[2]) * this.unit;
    if (!(d > 0) || d > 100) throw this.fail(`tool T${said[1]} is ${d} mm wide`);
    this.tools.set(Number(said[1]), { d, via: this.use.includes('ViaDrill') });
    this.use = '';
    return true;
  }

  private choose(line: string): boolean {
    if (/^G05|^G81/.test(line)) {
      this.routing = false;
      return true;
    }
    const said = /^T(\d+)$/.exec(line);
    if (!said) return false;
    if (Number(said[1]) === 0) return true;
    this.tool = this.tools.get(Number(said[1]));
    if (!this.tool) throw this.fail(`tool T${said[1]} is used before it is defined`);
    return true;
  }

  private repeat(line: string): boolean {
    const said = /^R(\d+)(?:X([+-]?[\d.]+))?(?:Y([+-]?[\d.]+))?$/.exec(line);
    if (!said) return false;
    const times = Number(said[1]);
    if (times > MOST_REPEATS) throw this.fail(`repeats ${times} times: too often`);
    for (let k = 0; k < times; k++) {
      this.x += said[2] ? this.coordinate(said[2]) : 0;
      this.y -= said[3] ? this.coordinate(said[3]) : 0;
      this.drill();
    }
    return true;
  }

  private move(line: string): boolean {
    const said = MOVE.exec(line);
    if (!said || !(said[1] || said[2] || said[3])) return false;
    const [, code, toX, toY, endX, endY] = said;
    if (code === 'G00' || code === 'G0') this.routing = true;
    const from = { x: this.x, y: this.y };
    this.goTo(toX, toY);
    if (this.routing && (code === 'G01' || code === 'G1')) this.slot(from);
    else if (endX || endY) {
      const start = this.routing ? from : { x: this.x, y: this.y };
      if (!this.routing) this.goTo(endX, endY);
      this.slot(start);
    } else if ((toX || toY) && !this.routing) this.drill();
    return true;
  }

  private goTo(x: string | undefined, y: string | undefined): void {
    if (x) this.x = this.coordinate(x);
    if (y) this.y = -this.coordinate(y);
  }

  /** From a place to where it stands now: a hole at each end and as many between as touch. */
  private slot(from: { x: number; y: number }): void {
    const to = { x: this.x, y: this.y };
    const length = Math.hypot(to.x - from.x, to.y - from.y);
    const steps = Math.min(MOST_IN_SLOT, Math.ceil(length / Math.max(0.2, this.tool?.d ?? 1)));
    for (let k = 0; k <= steps; k++) {
      this.x = from.x + ((to.x - from.x) * k) / Math.max(1, steps);
      this.y = from.y + ((to.y - from.y) * k) / Math.max(1, steps);
      this.drill();
    }
    [this.x, this.y] = [to.x, to.y];
  }

  private drill(): void {
    const { x, y, tool, out } = this;
    if (!tool) throw this.fail('drills before a tool is chosen');
    if (out.holes.length >= MOST_HOLES) throw this.fail('more than 200,000 holes');
    out.holes.push({ x, y, ...tool });
  }

  /** A coordinate, mm. */
  private coordinate(text: string): number {
    const { unit } = this;
    if (!unit) throw this.fail('coordinates come before the unit (METRIC or INCH) is said');
    const mm = unit * (text.includes('.') ? Number(text) : this.withoutPoint(text));
    if (!Number.isFinite(mm) || Math.abs(mm) > 5000) throw this.fail(`"${text.slice(0, 20)}" is out of all reason`);
    return mm;
  }

  private withoutPoint(text: string): number {
    const digits = text.replace(/^[+-]/, '');
    if (digits.length > 10) throw this.fail(`"${text.slice(0, 20)}" has too many digits`);
    const metric = this.unit === 1;
    const whole = this.digits.whole || (metric ? 3 : 2);
    const decimal = this.digits.decimal || (metric ? 3 : 4);
    // "LZ" keeps leading zeros: digits count from the left; else from the right
    const padded = this.leadingKept ? digits.padEnd(whole + decimal, '0') : digits;
    return ((text.startsWith('-') ? -1 : 1) * Number(padded)) / 10 ** decimal;
  }
}
