/**
 * A bench meter that is not there: speaks SCPI on a loopback port and reads whatever `probes` says the probes
 * are on. Ships with the application so that everything about meters can be tried without one.
 */
import type { Measured, MeterType } from '@orthos/core';
import { createServer, type Server, type Socket } from 'node:net';

const IDENTITY = 'Saltmarsh,Bench meter simulator,0001,1.0';
/** Over range, SCPI-99. */
const OVER = '+9.90000000E+37';
const MOST_LINE = 512;

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
  private readonly server: Server;
  private readonly sockets = new Set<Socket>();

  private constructor(server: Server) {
    this.server = server;
  }

  /** Listens on a free loopback port. */
  static start(): Promise<SimulatedMeter> {
    const server = createServer();
    const meter = new SimulatedMeter(server);
    server.on('connection', (socket) => meter.serve(socket));
    return new Promise((done, fail) => {
      server.once('error', fail);
      server.listen(0, '127.0.0.1', () => {
        server.unref();
        done(meter);
      });
    });
  }

  get port(): number {
    const address = this.server.address();
    return typeof address === 'object' && address ? address.port : 0;
  }

  stop(): void {
    for (const socket of this.sockets) socket.destroy();
    this.server.close();
  }

  private serve(socket: Socket): void {
    this.sockets.add(socket);
    socket.unref();
    socket.on('close', () => this.sockets.delete(socket));
    socket.on('error', () => socket.destroy());
    socket.setEncoding('latin1');
    const errors: string[] = [];
    let mode: MeterType = 'dcv';
    let rest = '';
    const say = (line: string): void => {
      socket.write(`${line}\n`);
    };
    const number = (value: Measured): string =>
      value === 'OL' ? OVER : `${value < 0 ? '' : '+'}${value.toExponential(8).replace('e', 'E')}`;
    const read = (type: MeterType) =>
      say(number(this.probes?.(type) ?? (type === 'dcv' || type === 'isup' ? 0 : 'OL')));
    const answer = (command: string): void => {
      const [head, ...words] = command.trim().toUpperCase().replace(/^:/, '').split(/\s+/);
      if (head === '') return;
      if (head === '*IDN?') return void say(IDENTITY);
      if (head === '*OPC?') return void say('1');
      if (head === '*RST') return void (mode = 'dcv');
      if (head === '*CLS') return void errors.splice(0);
      if (head === 'SYST:ERR?' || head === 'SYSTEM:ERROR?') return void say(errors.shift() ?? '0,"No error"');
      if (head === 'READ?' || head === 'FETC?') return read(mode);
      const measure = /^(MEAS|MEASURE|CONF|CONFIGURE):(.+?)(\?)?$/.exec(head);
      const type = measure && FUNCTIONS[measure[2]];
      if (measure && type && words.length <= 1) {
        if (measure[3] && measure[1].startsWith('MEAS')) return read(type);
        if (!measure[3] && measure[1].startsWith('CONF')) return void (mode = type);
      }
      errors.push(`-113,"Undefined header; ${head.slice(0, 40)}"`);
    };
    socket.on('data', (chunk: string) => {
      rest += chunk;
      for (let end = rest.indexOf('\n'); end >= 0; end = rest.indexOf('\n')) {
        const line = rest.slice(0, end);
        rest = rest.slice(end + 1);
        for (const command of line.split(';')) answer(command);
      }
      if (rest.length > MOST_LINE) rest = '';
    });
  }
}
