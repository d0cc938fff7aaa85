import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { createServer as createTlsServer, type Server as TlsServer } from 'node:https';
import { setTimeout as wait } from 'node:timers/promises';
import type { SecureContext } from 'node:tls';
import { callerAddress } from '@/core/people';
import { loadClock } from '@/usecases/clock';
import { type Deps, deps } from '@/usecases/deps';
import { VisitCounter } from '@/usecases/shop/visits';
import { Shop } from './answer';
import { SecureContexts } from './contexts';

const CLOCK_EVERY_MS = 5000;
/** What a buyer writes is a few lines. */
const MOST_BYTES = 10_000;

/** Reads a form that was sent; `null` for what is none, or too large. */
async function formOf(request: IncomingMessage): Promise<string | null> {
  const isForm = /^application\/x-www-form-urlencoded\b/i.test(request.headers['content-type'] ?? '');
  if (!isForm || Number(request.headers['content-length'] ?? 0) > MOST_BYTES) return null;
  const pieces: Buffer[] = [];
  let length = 0;
  for await (const piece of request as AsyncIterable<Buffer>) {
    length += piece.length;
    if (length > MOST_BYTES) return null;
    pieces.push(piece);
  }
  return Buffer.concat(pieces).toString('utf8');
}

/** Answers one request of a buyer. `addressOf` tells from where it comes. */
export async function answerBuyer(
  shop: Shop,
  request: IncomingMessage,
  response: ServerResponse,
  addressOf: (request: IncomingMessage) => string,
): Promise<void> {
  const { method = 'GET', url = '/', headers } = request;
  const body = method === 'POST' ? await formOf(request) : '';
  // Nobody has anything else to send here.
  request.resume();
  if (body === null) {
    response.writeHead(413, { 'content-type': 'text/plain; charset=utf-8', connection: 'close' });
    response.end('That is too much.\n');
    return;
  }
  const answer = await shop.answer({
    method,
    url,
    host: headers.host ?? '',
    acceptLanguage: headers['accept-language'],
    body,
    address: addressOf(request),
    agent: headers['user-agent'] ?? '',
    purpose: String(headers['sec-purpose'] ?? headers.purpose ?? ''),
  });
  response.writeHead(answer.status, { ...answer.headers, 'content-length': Buffer.byteLength(answer.body) });
  response.end(method === 'HEAD' ? undefined : answer.body);
}

/** What a server of the windows goes by besides. */
export interface ServedBy {
  /** From where a request comes. */
  readonly addressOf?: (request: IncomingMessage) => string;
  /** Whether the process has been told to end. */
  readonly isEnding?: () => boolean;
  /** Where a host is shown over TLS instead; `null` for one without a certificate. */
  readonly secureOrigin?: (host: string) => Promise<string | null>;
}

/** What is asked of the shop, taken by whatever server listens. */
function takerOf(own: Deps, shop: Shop, { addressOf = remote, isEnding, secureOrigin }: ServedBy) {
  return (request: IncomingMessage, response: ServerResponse): void => {
    if (isEnding?.()) {
      // Whoever shares requests out among several sends this process none any more; what has come is answered.
      response.setHeader('connection', 'close');
      if (request.url === '/robots.txt') return void response.writeHead(503).end();
    }
    const work = async () => {
      const origin = isReading(request) && secureOrigin ? await secureOrigin(request.headers.host ?? '') : null;
      if (origin === null) return answerBuyer(shop, request, response, addressOf);
      response.writeHead(308, { location: `${origin}${request.url ?? '/'}`, 'cache-control': 'no-store' }).end();
    };
    work().catch((error: unknown) => {
      own.log.error({ err: error }, 'a window could not be shown');
      if (response.headersSent) return void response.destroy();
      response.writeHead(503, { 'content-type': 'text/plain; charset=utf-8', 'retry-after': '5' });
      response.end('Try again in a moment.\n');
    });
  };
}

/** What may be asked again elsewhere; servers that give certificates look without TLS (RFC 8555 section 8.3). */
const isReading = ({ method, url = '/' }: IncomingMessage) =>
  (method === 'GET' || method === 'HEAD') && !url.startsWith('/.well-known/') && url.startsWith('/');

/** Headers come at once, and a form is short: what trickles in ties up nothing. */
function bound<S extends Server>(server: S): S {
  server.headersTimeout = 10_000;
  server.requestTimeout = 20_000;
  server.maxConnections = 5000;
  return server;
}

const remote = ({ socket }: IncomingMessage) => callerAddress(socket.remoteAddress, undefined, null);

/** A server of the windows without TLS: on this machine, behind a proxy, and for whatever first asks without. */
export function shopServer(own: Deps, shop: Shop, by: ServedBy = {}): Server {
  return bound(createServer(takerOf(own, shop, by)));
}

/** A server of the windows over TLS, each host by its own certificate; a host without one gets no answer. */
export function shopTlsServer(
  own: Deps,
  shop: Shop,
  by: ServedBy = {},
  contexts: SecureContexts = new SecureContexts(own),
): TlsServer {
  const take = takerOf(own, shop, by);
  const serverName = (host: string, done: (error: Error | null, context?: SecureContext) => void) =>
    contexts.of(host).then(
      (context) => (context ? done(null, context) : done(new Error(`no certificate for ${host}`))),
      (error: unknown) => {
        own.log.error({ err: error, host }, 'a certificate could not be read');
        done(error instanceof Error ? error : new Error('no certificate'));
      },
    );
  const options = {
    minVersion: 'TLSv1.2',
    SNICallback: (...asked: Parameters<typeof serverName>) => void serverName(...asked),
  } as const;
  return bound(
    createTlsServer(options, (request, response) => {
      response.setHeader('strict-transport-security', 'max-age=31536000');
      take(request, response);
    }),
  );
}

/** Where a host is shown over TLS, as far as it has a certificate. */
export function secureOriginBy(contexts: SecureContexts, tlsPort: number) {
  return async (asked: string): Promise<string | null> => {
    const host = asked.toLowerCase().replace(/:\d{1,5}$/, '');
    if (!/^[a-z0-9.-]{1,253}$/.test(host) || (await contexts.of(host)) === null) return null;
    return `https://${host}${tlsPort === 443 ? '' : `:${tlsPort}`}`;
  };
}

/** A shop that counts how often its windows are opened. */
export function shopWith(own: Deps, visits: VisitCounter): Shop {
  return new Shop(own, (nameId, { method, address = '', agent = '', purpose = '' }) => {
    if (method === 'GET') visits.opened({ nameId, address, agent, purpose });
  });
}

/** Where the shop listens, as the start command has said it. */
export interface ShopPlace {
  readonly port: number;
  /** The address of this machine that it listens on: loopback, unless it is reached from elsewhere. */
  readonly listen: string;
  /** The port for TLS by the office's own certificates; `null` for none. */
  readonly tlsPort: number | null;
  /** The address of the proxy in front, whose word on where a request came from is believed; `null` for none. */
  readonly proxy: string | null;
  /** So long it goes on answering once it is told to end. */
  readonly drainMs: number;
}

/** Where the shop listens by its environment. */
export function shopPlace(env: Readonly<Record<string, string | undefined>>): ShopPlace {
  const { PORT, NAME_LEDGER_SHOP_LISTEN, NAME_LEDGER_SHOP_TLS_PORT, NAME_LEDGER_SHOP_PROXY } = env;
  const { NAME_LEDGER_DRAIN_SECONDS } = env;
  return {
    port: Number(PORT),
    listen: NAME_LEDGER_SHOP_LISTEN || '127.0.0.1',
    tlsPort: NAME_LEDGER_SHOP_TLS_PORT ? Number(NAME_LEDGER_SHOP_TLS_PORT) : null,
    proxy: NAME_LEDGER_SHOP_PROXY || null,
    drainMs: Number(NAME_LEDGER_DRAIN_SECONDS ?? 0) * 1000,
  };
}

/** Serves the windows of names that are for sale: for anybody, without sign-in, by a pool of its own. Ends with what `stop` answers. */
export async function serveShop({
  port,
  listen,
  tlsPort,
  proxy,
  drainMs,
}: ShopPlace): Promise<{ stop(): Promise<void> }> {
  const own = deps({ part: 'shop', connections: CONNECTIONS, thread: null });
  await loadClock(own);
  setInterval(
    () => void loadClock(own).catch((error: unknown) => own.log.warn({ err: error }, 'the clock could not be read')),
    CLOCK_EVERY_MS,
  ).unref();
  const visits = new VisitCounter(own);
  const shop = shopWith(own, visits);
  const addressOf = ({ socket, headers }: IncomingMessage) =>
    callerAddress(socket.remoteAddress, headers['x-forwarded-for'], proxy);
  let isEnding = false;
  const ending = () => isEnding;
  const contexts = new SecureContexts(own);
  const secure = tlsPort === null ? {} : { secureOrigin: secureOriginBy(contexts, tlsPort) };
  const plain = shopServer(own, shop, { addressOf, isEnding: ending, ...secure });
  const tls = tlsPort === null ? null : shopTlsServer(own, shop, { isEnding: ending }, contexts);
  await new Promise<void>((ready) => plain.listen(port, listen, ready));
  if (tls && tlsPort !== null) await new Promise<void>((ready) => tls.listen(tlsPort, listen, ready));
  return {
    async stop() {
      isEnding = true;
      if (drainMs > 0) await wait(drainMs);
      const servers = tls ? [plain, tls] : [plain];
      await Promise.all(
        servers.map(
          (server) =>
            new Promise<void>((closed) => {
              server.close(() => closed());
              server.closeIdleConnections();
            }),
        ),
      );
      await visits.close();
    },
  };
}

const CONNECTIONS = 4;
