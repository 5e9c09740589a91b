/**
 * A bench supply that is not there: one output with a voltage and a current limit, over SCPI on a loopback port. What hangs on it, and how
 * that draws as time goes on, is told by `load`.
 */
import { nr3, ScpiServer, type Command, type Reply } from './scpiServer.ts';

const IDENTITY = 'Saltmarsh,Bench supply simulator,0001,1.0';
/** What it can give. */
const MOST = { volts: 60, amps: 10 };

/** What an output shows. */
export interface Output {
  volts: number;
  current_A: number;
}

export class SimulatedSupply {
  /** What the output shows with these settings, so many seconds after it came on; null: nothing is connected. */
  load: ((volts: number, limit_A: number, on_s: number) => Output) | null = null;
  private set = { volts: 0, limit_A: 0.1 };
  private onSince: number | null = null;
  private server!: ScpiServer;

  private constructor() {}

  /** Listens on a free loopback port. */
  static async start(): Promise<SimulatedSupply> {
    const supply = new SimulatedSupply();
    supply.server = await ScpiServer.start(IDENTITY, () => (command) => supply.obey(command));
    return supply;
  }

  get port(): number {
    return this.server.port;
  }

  get on(): boolean {
    return this.onSince !== null;
  }

  /** How it is set, and for how long it is on, s; null while its output is off. */
  get given(): { volts: number; limit_A: number; on_s: number } | null {
    return this.onSince === null ? null : { ...this.set, on_s: (performance.now() - this.onSince) / 1000 };
  }

  stop(): void {
    this.server.stop();
  }

  private shows(): Output {
    if (this.onSince === null) return { volts: 0, current_A: 0 };
    const { volts, limit_A } = this.set;
    return this.load?.(volts, limit_A, (performance.now() - this.onSince) / 1000) ?? { volts, current_A: 0 };
  }

  private obey({ head, words }: Command): Reply {
    const [, name, ask] = /^(?:SOUR(?:CE)?:)?([A-Z:*]+?)(\?)?$/.exec(head) ?? [];
    const number = words.length === 1 ? Number(words[0]) : NaN;
    switch (`${name ?? ''}${ask ?? ''}`) {
      case '*RST':
        this.set = { volts: 0, limit_A: 0.1 };
        this.onSince = null;
        return null;
      case 'VOLT':
      case 'VOLTAGE':
        if (!(number >= 0 && number <= MOST.volts)) return 'unknown';
        this.set.volts = number;
        return null;
      case 'CURR':
      case 'CURRENT':
        if (!(number > 0 && number <= MOST.amps)) return 'unknown';
        this.set.limit_A = number;
        return null;
      case 'VOLT?':
        return nr3(this.set.volts);
      case 'CURR?':
        return nr3(this.set.limit_A);
      case 'OUTP':
      case 'OUTPUT':
        if (words[0] === 'ON' || words[0] === '1') this.onSince ??= performance.now();
        else if (words[0] === 'OFF' || words[0] === '0') this.onSince = null;
        else return 'unknown';
        return null;
      case 'OUTP?':
        return this.on ? '1' : '0';
      case 'MEAS:VOLT?':
        return nr3(this.shows().volts);
      case 'MEAS:CURR?':
        return nr3(this.shows().current_A);
      default:
        return 'unknown';
    }
  }
}
