import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { loadClock } from '@/usecases/clock';
import { type Deps, deps } from '@/usecases/deps';
import { VisitCounter } from '@/usecases/shop/visits';
import { Shop } from './answer';

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

/** A server of the windows, over whatever it listens by. */
export function shopServer(
  own: Deps,
  shop: Shop,
  addressOf = (request: IncomingMessage) => request.socket.remoteAddress ?? '',
): Server {
  const server = createServer((request, response) => {
    answerBuyer(shop, request, response, addressOf).catch((error: unknown) => {
      own.log.error({ err: error }, 'a window could not be shown');
      if (response.headersSent) return void response.destroy();
      response.writeHead(503, { 'content-type': 'text/plain; charset=utf-8', 'retry-after': '5' });
      response.end('Try again in a moment.\n');
    });
  });
  server.headersTimeout = 10_000;
  server.requestTimeout = 20_000;
  server.maxConnections = 5000;
  return server;
}

/** A shop that counts how often its windows are opened. */
export function shopWith(own: Deps, visits: VisitCounter): Shop {
  return new Shop(own, (nameId, { method, address = '', agent = '', purpose = '' }) => {
    if (method === 'GET') visits.opened({ nameId, address, agent, purpose });
  });
}

/** Serves the windows of names that are for sale, on a port of this machine: for anybody, without sign-in, by a pool of its own. */
export async function serveShop(port: number): Promise<Server> {
  const own = deps({ part: 'shop', connections: 4, thread: null });
  await loadClock(own);
  setInterval(
    () => void loadClock(own).catch((error: unknown) => own.log.warn({ err: error }, 'the clock could not be read')),
    CLOCK_EVERY_MS,
  ).unref();
  const visits = new VisitCounter(own);
  const server = shopServer(own, shopWith(own, visits));
  server.on('close', () => void visits.close());
  await new Promise<void>((ready) => server.listen(port, '127.0.0.1', ready));
  return server;
}
