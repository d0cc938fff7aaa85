import type { IncomingMessage, ServerResponse } from 'node:http';
import type { ShownState } from '@/usecases/names/ledger';

/** An answer as it went out. */
interface Answer {
  readonly headers: Readonly<Record<string, string | number | string[]>>;
  readonly body: Buffer;
}

/** An answer that somebody is making: of which state, and what came of it; `null` for none that others may have. */
interface Making {
  readonly version: string;
  readonly made: Promise<Answer | null>;
  readonly settle: (answer: Answer | null) => void;
}

/** What only the state of the ledger decides: pages of names, and the whole ledger and its offers for a window. */
const DECIDED_BY_STATE = /^\/(api\/v1\/names|ledger\/data|prospects\/data)$/;
/** Taken anew for each answer. */
const OWN_HEADERS = new Set([
  'date',
  'connection',
  'keep-alive',
  'transfer-encoding',
  'x-request-id',
  'content-length',
  'ledger-behind',
]);

/** The whole of 250,000 names for a window is 21 MB: made for each window that asks, one would wait for the other. */
const LARGEST = 32 * 1024 * 1024;
const MOST_BYTES = 64 * 1024 * 1024;
const KEPT_MS = 30_000;

/**
 * Answers that were given in one state of the ledger, as whoever asks next may have them too: computed once, however many ask.
 * `stateOf` names the state; it is asked after a request has come, so that nobody gets less than what was there at that moment.
 */
export class KeptAnswers {
  private version = '';
  private answers = new Map<string, Answer>();
  /** Answers that are being made, one at a time for each question, with those who wait for the same. */
  private readonly making = new Map<string, Making>();
  private bytes = 0;
  private forget: NodeJS.Timeout | undefined;
  private asking: Promise<ShownState> | null = null;

  constructor(private readonly stateOf: () => Promise<ShownState>) {}

  /** Whether an answer to this request may be kept. */
  static mayKeep(method: string | undefined, path: string): boolean {
    return method === 'GET' && DECIDED_BY_STATE.test(path);
  }

  /** The state of now. Those who ask in the same moment share one question, which is sent after all of them have come. */
  private now(): Promise<ShownState> {
    this.asking ??= new Promise<void>((go) => setImmediate(go)).then(() => {
      this.asking = null;
      return this.stateOf();
    });
    return this.asking;
  }

  /**
   * Answers from what is kept; `true` when it did. Else what is written to `response` from now on is kept for this state, and given
   * to those who ask the same of the same state meanwhile.
   */
  async answer(request: IncomingMessage, response: ServerResponse): Promise<boolean> {
    clearTimeout(this.forget);
    this.forget = setTimeout(() => this.drop(''), KEPT_MS).unref();
    const key = request.url ?? '';
    // The state names the answer (RFC 9110 section 8.8.3): who has it already is told so, and nothing is made.
    const { version, isBehind } = await this.now();
    // Told with what was kept as well: a window asks again soon.
    if (isBehind) response.setHeader('ledger-behind', 'true');
    const tag = `"${version}"`;
    response.setHeader('etag', tag);
    if (request.headers['if-none-match'] === tag) {
      response.writeHead(304).end();
      return true;
    }
    const kept = await this.find(key, version);
    if ('settle' in kept) {
      // Who has gone meanwhile tells nobody that he is done: whoever waited for his answer would wait for ever.
      if (response.closed) this.settle(key, kept, null);
      else this.keep(kept, key, response);
      return response.closed;
    }
    for (const [name, value] of Object.entries(kept.headers)) response.setHeader(name, value);
    response.writeHead(200, { 'content-length': kept.body.byteLength }).end(kept.body);
    return true;
  }

  /**
   * An answer of no earlier state than the present one, or the leave to make it. While the answer of an earlier state is still
   * being made it is waited for, so that a ledger that changes all the time is not answered from for each of its states at once.
   */
  private async find(key: string, present: string): Promise<Answer | Making> {
    for (let version = present; ; version = (await this.now()).version) {
      if (version !== this.version) this.drop(version);
      const kept = this.answers.get(key);
      if (kept) return kept;
      const other = this.making.get(key);
      if (!other) {
        const mine = makingOf(version);
        this.making.set(key, mine);
        return mine;
      }
      const made = await other.made;
      if (made && other.version === version) return made;
    }
  }

  private drop(version: string): void {
    this.version = version;
    this.answers = new Map();
    this.bytes = 0;
  }

  /** Tells those who wait what came of it. */
  private settle(key: string, mine: Making, answer: Answer | null): void {
    if (this.making.get(key) === mine) this.making.delete(key);
    mine.settle(answer);
  }

  private keep(mine: Making, key: string, response: ServerResponse): void {
    const pieces: Uint8Array[] = [];
    let size = 0;
    const hear = (piece: unknown) => {
      if (size > LARGEST || piece === undefined || piece === null || typeof piece === 'function') return;
      const octets = typeof piece === 'string' ? Buffer.from(piece) : (piece as Uint8Array);
      size += octets.byteLength;
      if (size <= LARGEST) pieces.push(octets);
      else pieces.length = 0;
    };
    const write = response.write.bind(response) as (...args: unknown[]) => boolean;
    const end = response.end.bind(response) as (...args: unknown[]) => ServerResponse;
    const over = (answer: Answer | null) => this.settle(key, mine, answer);
    response.write = ((...args: unknown[]) => {
      hear(args[0]);
      // Made at full speed, not at that of whoever asked first: others wait for it, and he may read slowly or not at all.
      return write(...args) || size <= LARGEST;
    }) as typeof response.write;
    response.end = ((...args: unknown[]) => {
      hear(args[0]);
      if (response.statusCode === 200 && size <= LARGEST) {
        const answer = { headers: headersOf(response), body: Buffer.concat(pieces) };
        over(answer);
        if (this.version === mine.version && this.bytes + size <= MOST_BYTES) {
          this.answers.set(key, answer);
          this.bytes += size;
        }
      }
      return end(...args);
    }) as typeof response.end;
    // Refused, failed, or its asker has gone: the next one asks for himself.
    response.once('close', () => over(null));
  }
}

function headersOf(response: ServerResponse): Answer['headers'] {
  return Object.fromEntries(
    Object.entries(response.getHeaders()).filter(([name, value]) => value !== undefined && !OWN_HEADERS.has(name)),
  ) as Answer['headers'];
}

function makingOf(version: string): Making {
  let settle: Making['settle'] = () => undefined;
  const made = new Promise<Answer | null>((resolve) => {
    settle = resolve;
  });
  return { version, made, settle };
}
