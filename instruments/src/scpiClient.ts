/**
 * A SCPI instrument on a raw TCP socket (IEEE 488.2 lines ended by a newline). One question at a time; every
 * failure is a sentence for the bench.
 */
import { connect, type Socket } from 'node:net';

export class InstrumentError extends Error {
  constructor(message: string) {
    super(message);
    this.name = 'InstrumentError';
  }
}

export interface Address {
  host: string;
  port: number;
}

/** Longest line that is taken for an answer. */
const MOST_LINE = 4096;

export class ScpiClient {
  private readonly socket: Socket;
  private readonly timeout_ms: number;
  private rest = '';
  private waiting: { done: (line: string) => void; fail: (error: Error) => void } | null = null;
  private broken: InstrumentError | null = null;

  private constructor(socket: Socket, timeout_ms: number) {
    this.socket = socket;
    this.timeout_ms = timeout_ms;
    socket.setEncoding('latin1');
    socket.on('data', (chunk: string) => this.take(chunk));
    socket.on('error', () => this.fail(new InstrumentError('the connection to the instrument broke')));
    socket.on('close', () => this.fail(new InstrumentError('the instrument closed the connection')));
  }

  /** Connects; rejects with an `InstrumentError` when nobody is there in time. */
  static open({ host, port }: Address, timeout_ms = 3000): Promise<ScpiClient> {
    return new Promise((done, fail) => {
      const socket = connect({ host, port });
      const late = setTimeout(() => {
        socket.destroy();
        fail(new InstrumentError(`no instrument answers at ${host}:${port}`));
      }, timeout_ms);
      socket.once('connect', () => {
        clearTimeout(late);
        socket.removeAllListeners('error');
        done(new ScpiClient(socket, timeout_ms));
      });
      socket.once('error', () => {
        clearTimeout(late);
        fail(new InstrumentError(`no instrument answers at ${host}:${port}`));
      });
    });
  }

  /** Sends a command that has no answer. */
  send(command: string): void {
    if (this.broken) throw this.broken;
    this.socket.write(`${command}\n`);
  }

  /** Sends a question and gives its answer, without the line's end. */
  ask(question: string): Promise<string> {
    if (this.broken) return Promise.reject(this.broken);
    if (this.waiting)
      return Promise.reject(new InstrumentError('the instrument has not answered the last question yet'));
    return new Promise((done, fail) => {
      const late = setTimeout(() => {
        this.waiting = null;
        fail(new InstrumentError(`the instrument did not answer ${question} within ${this.timeout_ms / 1000} s`));
      }, this.timeout_ms);
      const settle = (work: () => void) => {
        clearTimeout(late);
        work();
      };
      this.waiting = {
        done: (line) => settle(() => done(line)),
        fail: (error) => settle(() => fail(error)),
      };
      this.socket.write(`${question}\n`);
    });
  }

  close(): void {
    this.broken ??= new InstrumentError('the connection is closed');
    this.socket.destroy();
  }

  private take(chunk: string): void {
    this.rest += chunk;
    if (this.rest.length > MOST_LINE) {
      this.fail(new InstrumentError('what answers there is no instrument'));
      this.socket.destroy();
      return;
    }
    const end = this.rest.indexOf('\n');
    if (end < 0) return;
    const line = this.rest.slice(0, end).replace(/\r$/, '');
    this.rest = this.rest.slice(end + 1);
    const { waiting } = this;
    this.waiting = null;
    waiting?.done(line);
  }

  private fail(error: InstrumentError): void {
    this.broken ??= error;
    const { waiting } = this;
    this.waiting = null;
    waiting?.fail(error);
  }
}
