/**
 * A bench meter that is not there: speaks SCPI on a loopback port and reads whatever `probes` says the probes
 * are on. Ships with the application so that everything about meters can be tried without one.
 */
import type { MeterType } from '@orthos/core/circuit';
import type { Measured } from '@orthos/core/ground';
import { nr3, ScpiServer, type Command, type Reply } from './scpiServer.ts';

const IDENTITY = 'Saltmarsh,Bench meter simulator,0001,1.0';
/** Over range, SCPI-99. */
const OVER = '+9.90000000E+37';

const FUNCTIONS: Record<string, MeterType> = {
  RES: 'ohm',
  RESISTANCE: 'ohm',
  FRES: 'ohm',
  CONT: 'cont',
  CONTINUITY: 'cont',
  DIOD: 'diode',
  DIODE: 'diode',
  'VOLT:DC': 'dcv',
  VOLT: 'dcv',
  'VOLTAGE:DC': 'dcv',
  'CURR:DC': 'isup',
  CURR: 'isup',
  'CURRENT:DC': 'isup',
};

export class SimulatedMeter {
  /** What the meter reads with its probes where they are; null: they hang in the air. */
  probes: ((type: MeterType) => Measured) | null = null;
  private server!: ScpiServer;

  private constructor() {}

  /** Listens on a free loopback port. */
  static async start(): Promise<SimulatedMeter> {
    const meter = new SimulatedMeter();
    meter.server = await ScpiServer.start(IDENTITY, () => meter.connected());
    return meter;
  }

  get port(): number {
    return this.server.port;
  }

  stop(): void {
    this.server.stop();
  }

  private connected(): (command: Command) => Reply {
    let mode: MeterType = 'dcv';
    const read = (type: MeterType): string => {
      const value = this.probes?.(type) ?? (type === 'dcv' || type === 'isup' ? 0 : 'OL');
      return value === 'OL' ? OVER : nr3(value);
    };
    return ({ head, words }) => {
      if (head === '*RST') {
        mode = 'dcv';
        return null;
      }
      if (head === 'READ?' || head === 'FETC?') return read(mode);
      const measure = /^(MEAS|MEASURE|CONF|CONFIGURE):(.+?)(\?)?$/.exec(head);
      const type = measure && FUNCTIONS[measure[2]];
      if (!measure || !type || words.length > 1) return 'unknown';
      if (measure[3]) return measure[1].startsWith('MEAS') ? read(type) : 'unknown';
      if (!measure[1].startsWith('CONF')) return 'unknown';
      mode = type;
      return null;
    };
  }
}
