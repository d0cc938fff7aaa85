import { Agent, type IncomingHttpHeaders, request } from 'node:http';
import { Readable } from 'node:stream';
import { seedDemo } from '@practice/scenario/seed';
import { formatInstant } from '@/core/time';
import { serve } from '../../bin/support/app';
import type { PartLog } from '../../bin/support/logs';
import { freePort } from '../../bin/support/postgres';
import { emptyLedger, TEST_KEY, type TestLedger, TODAY } from '../database/ledger';

export interface Answer {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly text: string;
}

export interface Question {
  readonly method?: string;
  readonly headers?: Readonly<Record<string, string>>;
  readonly body?: string | Buffer | AsyncIterable<Buffer>;
}

/** The started program, and everything that it says to its log. */
export interface Program {
  readonly ledger: TestLedger;
  readonly port: number;
  readonly log: Record<string, unknown>[];
  /** Asks as an attacker can: any headers, any target, any body. */
  ask(target: string, question?: Question): Promise<Answer>;
  close(): Promise<void>;
}

/** Sends one request to a port of this machine, with exactly these headers. */
export function ask(port: number, target: string, { method = 'GET', headers = {}, body }: Question = {}) {
  return new Promise<Answer>((resolve, reject) => {
    const isStream = body !== undefined && typeof body !== 'string' && !Buffer.isBuffer(body);
    const length =
      body === undefined || isStream ? {} : { 'content-length': String(Buffer.byteLength(body as string)) };
    const agent = new Agent({ keepAlive: true });
    const sent = request(
      // A connection of its own, which asks to be kept: one on which a body was cut off before is closed by the server at any time, one
      // that is not to be kept is closed with the answer, before the body is through.
      {
        host: '127.0.0.1',
        port,
        path: target,
        method,
        headers: { ...length, ...headers },
        timeout: 60_000,
        agent,
      },
      (answer) => {
        const pieces: Buffer[] = [];
        answer.on('data', (piece: Buffer) => pieces.push(piece));
        answer.on('end', () => {
          agent.destroy();
          resolve({
            status: answer.statusCode ?? 0,
            headers: answer.headers,
            text: Buffer.concat(pieces).toString('utf8'),
          });
        });
        answer.on('error', reject);
      },
    );
    let isAnswered = false;
    sent.on('response', () => {
      isAnswered = true;
    });
    // A server that refuses a body need not read it to its end.
    sent.on('error', (error) => (isAnswered ? undefined : reject(error)));
    if (isStream)
      Readable.from(body as AsyncIterable<Buffer>)
        .on('error', () => undefined)
        .pipe(sent);
    else sent.end(body);
  });
}

/** A log that keeps its lines. */
export function listening(): { readonly log: PartLog; readonly lines: Record<string, unknown>[] } {
  const lines: Record<string, unknown>[] = [];
  const log: PartLog = {
    follow(stream) {
      let rest = '';
      stream?.setEncoding('utf8').on('data', (piece: string) => {
        const parts = (rest + piece).split('\n');
        rest = parts.pop() ?? '';
        for (const line of parts)
          if (line.startsWith('{')) lines.push(JSON.parse(line) as Record<string, unknown>);
          else if (line.trim() !== '') lines.push({ level: 50, msg: line });
      });
    },
    say: () => undefined,
    close: async () => undefined,
  };
  return { log, lines };
}

export async function startProgram(demo: boolean, more: Record<string, string> = {}): Promise<Program> {
  const ledger = await emptyLedger();
  if (demo) await seedDemo(ledger.database, TODAY);
  const { log, lines } = listening();
  const port = await freePort();
  const env = { DATABASE_URL: ledger.url, NAME_LEDGER_TODAY: formatInstant(TODAY), NAME_LEDGER_KEY: TEST_KEY, ...more };
  const app = await serve(port, env, log);
  return {
    ledger,
    port,
    log: lines,
    ask: (target, question) => ask(port, target, question),
    close: async () => {
      await app.stop();
      await ledger.close();
    },
  };
}
