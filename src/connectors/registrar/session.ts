import { connect as connectPlain, isIP, type Socket } from 'node:net';
import { connect as connectTls } from 'node:tls';
import * as commands from '@/formats/epp/commands';
import { frame, frameReader } from '@/formats/epp/frames';
import { type EppResponse, type Greeting, readGreeting, readResponse } from '@/formats/epp/responses';
import { mayAsk, publicLookup } from '../http/addresses';
import type { LinkAddress } from './port';

/** Why no usable answer came. `sent`: whether the command may have reached the server. */
export class NoAnswer extends Error {
  constructor(
    message: string,
    readonly sent: boolean,
  ) {
    super(message);
    this.name = 'NoAnswer';
  }
}

/** The server refused the login. */
export class LoginRefused extends Error {
  constructor(
    readonly code: number,
    message: string,
  ) {
    super(message);
    this.name = 'LoginRefused';
  }
}

const OBJECTS = ['urn:ietf:params:xml:ns:domain-1.0'];
const EXTENSIONS = ['urn:ietf:params:xml:ns:rgp-1.0', 'urn:ietf:params:xml:ns:epp:fee-1.0', commands.HOLDING];

/** Loopback is this machine; everywhere else the session is encrypted (RFC 5734 section 9). */
export function isLoopback(host: string): boolean {
  return host === 'localhost' || host === '::1' || (isIP(host) === 4 && host.startsWith('127.'));
}

let counter = 0;

/** A transaction identifier of our own for commands that change nothing. */
export function questionId(): string {
  counter += 1;
  return `NL-${Date.now().toString(36)}-${counter}`;
}

/** One EPP session (RFC 5730 over RFC 5734): one command at a time, each answered or failed. */
export class Session {
  private readonly waiting: { readonly take: (xml: string) => void; readonly fail: (error: NoAnswer) => void }[] = [];
  private readonly early: string[] = [];
  private ended: string | null = null;

  private constructor(
    private readonly socket: Socket,
    private readonly timeoutMs: number,
  ) {
    const read = frameReader();
    socket.setNoDelay(true);
    socket.on('data', (piece: Buffer) => {
      try {
        for (const xml of read(piece)) {
          const next = this.waiting.shift();
          if (next) next.take(xml);
          else if (this.early.length < 2) this.early.push(xml);
        }
      } catch (error) {
        this.end(error instanceof Error ? error.message : 'an unreadable answer');
      }
    });
    socket.on('error', (error) => this.end(error.message));
    socket.on('close', () => this.end('the connection was closed'));
  }

  /** Connects, reads the greeting and logs in. Throws `NoAnswer` or `LoginRefused`. */
  static async open(address: LinkAddress, timeoutMs: number): Promise<{ session: Session; greeting: Greeting }> {
    const socket = await connected(address, timeoutMs);
    const session = new Session(socket, timeoutMs);
    try {
      const greeting = readGreeting(await session.next(false));
      const offered = (wanted: readonly string[], served: readonly string[]) =>
        wanted.filter((uri) => served.includes(uri));
      const objects = greeting.objects.filter((uri) => OBJECTS.includes(uri) || uri === commands.HOLDING);
      const services = { objects, extensions: offered(EXTENSIONS, greeting.extensions) };
      const id = questionId();
      const answer = await session.command(commands.login(address, services, id), id);
      if (answer.code !== 1000) throw new LoginRefused(answer.code, answer.reason ?? answer.message);
      return { session, greeting };
    } catch (error) {
      session.close();
      if (error instanceof LoginRefused || error instanceof NoAnswer) throw error;
      throw new NoAnswer(error instanceof Error ? error.message : 'an unreadable greeting', false);
    }
  }

  get usable(): boolean {
    return this.ended === null;
  }

  /**
   * Sends one command and answers its response. A response that belongs to another command ends the session: from then on
   * nothing that comes can be trusted.
   */
  async command(xml: string, clTRID: string): Promise<EppResponse> {
    if (this.ended !== null) throw new NoAnswer(this.ended, false);
    // What came unasked (an answer sent twice) belongs to no question.
    if (this.early.length > 0) {
      this.end('an answer came that nobody had asked for');
      throw new NoAnswer('an answer came that nobody had asked for', false);
    }
    const answer = this.next(true);
    this.socket.write(frame(xml));
    let response: EppResponse;
    try {
      response = readResponse(await answer);
    } catch (error) {
      this.end('an unreadable answer');
      throw error instanceof NoAnswer ? error : new NoAnswer('an unreadable answer', true);
    }
    if (response.clTRID !== null && response.clTRID !== clTRID) {
      this.end('an answer to another command');
      throw new NoAnswer('an answer to another command', true);
    }
    return response;
  }

  private next(sent: boolean): Promise<string> {
    const early = this.early.shift();
    if (early !== undefined) return Promise.resolve(early);
    return new Promise((resolve, reject) => {
      const timer = setTimeout(() => this.end(`no answer within ${this.timeoutMs / 1000} seconds`), this.timeoutMs);
      this.waiting.push({
        take: (xml) => {
          clearTimeout(timer);
          resolve(xml);
        },
        fail: (error) => {
          clearTimeout(timer);
          reject(new NoAnswer(error.message, sent));
        },
      });
    });
  }

  private end(cause: string): void {
    if (this.ended !== null) return;
    this.ended = cause;
    for (const { fail } of this.waiting.splice(0)) fail(new NoAnswer(cause, true));
    this.socket.destroy();
  }

  /** Ends the session; the server notices by itself. */
  close(): void {
    this.end('the session was ended');
  }
}

function connected(address: LinkAddress, timeoutMs: number): Promise<Socket> {
  return new Promise((resolve, reject) => {
    const { host, port, allowedHosts } = address;
    if (!mayAsk(host, allowedHosts)) return reject(new NoAnswer(`${host} is not at a public address`, false));
    const plain = isLoopback(host);
    const lookup = publicLookup(allowedHosts) as never;
    const socket: Socket = plain
      ? connectPlain({ host, port, lookup })
      : connectTls({ host, port, lookup, servername: isIP(host) ? '' : host });
    const fail = (cause: string) => {
      socket.destroy();
      reject(new NoAnswer(cause, false));
    };
    const timer = setTimeout(() => fail('no connection'), timeoutMs);
    socket.once('error', (error) => {
      clearTimeout(timer);
      fail(error.message);
    });
    socket.once(plain ? 'connect' : 'secureConnect', () => {
      clearTimeout(timer);
      socket.removeAllListeners('error');
      resolve(socket);
    });
  });
}
