/**
 * The listening half of a simulated instrument: SCPI lines on a free loopback port (IEEE 488.2 common commands, SCPI-99 error queue). What
 * the instrument is, it says by `obey`.
 */
import { createServer, type Server, type Socket } from 'node:net';

const MOST_LINE = 512;

/** A command in capitals without its leading colon, and its words. */
export interface Command {
  head: string;
  words: readonly string[];
}

/** What an instrument does with a command: an answer, nothing to say, or a command it does not know. */
export type Reply = string | null | 'unknown';

/** A number as instruments write it, `<NR3>`. */
export const nr3 = (value: number): string => `${value < 0 ? '' : '+'}${value.toExponential(8).replace('e', 'E')}`;

export class ScpiServer {
  private readonly server: Server;
  private readonly sockets = new Set<Socket>();

  private constructor(server: Server) {
    this.server = server;
  }

  /** Listens on a free loopback port. `obey` is made anew for every connection. */
  static start(identity: string, connected: () => (command: Command) => Reply): Promise<ScpiServer> {
    const server = createServer();
    const made = new ScpiServer(server);
    server.on('connection', (socket) => made.serve(socket, identity, connected()));
    return new Promise((done, fail) => {
      server.once('error', fail);
      server.listen(0, '127.0.0.1', () => {
        server.unref();
        done(made);
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

  private serve(socket: Socket, identity: string, obey: (command: Command) => Reply): void {
    this.sockets.add(socket);
    socket.unref();
    socket.on('close', () => this.sockets.delete(socket));
    socket.on('error', () => socket.destroy());
    socket.setEncoding('latin1');
    const errors: string[] = [];
    let rest = '';
    const say = (line: string): void => void socket.write(`${line}\n`);
    const answer = (command: string): void => {
      const [head, ...words] = command.trim().toUpperCase().replace(/^:/, '').split(/\s+/);
      if (head === '') return;
      if (head === '*IDN?') return say(identity);
      if (head === '*OPC?') return say('1');
      if (head === '*CLS') return void errors.splice(0);
      if (head === 'SYST:ERR?' || head === 'SYSTEM:ERROR?') return say(errors.shift() ?? '0,"No error"');
      const reply = obey({ head, words });
      if (reply === 'unknown') errors.push(`-113,"Undefined header; ${head.slice(0, 40)}"`);
      else if (reply !== null) say(reply);
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
