import { createServer, type Server } from 'node:http';
import { loadClock } from '@/usecases/clock';
import { deps } from '@/usecases/deps';
import { Shop } from './answer';

const CLOCK_EVERY_MS = 5000;

/** Serves the windows of names that are for sale, on a port of this machine: for anybody, without sign-in, by a pool of its own. */
export async function serveShop(port: number): Promise<Server> {
  const own = deps({ part: 'shop', connections: 4, thread: null });
  await loadClock(own);
  setInterval(
    () => void loadClock(own).catch((error: unknown) => own.log.warn({ err: error }, 'the clock could not be read')),
    CLOCK_EVERY_MS,
  ).unref();
  const shop = new Shop(own);
  const server = createServer((request, response) => {
    // Nobody has anything to send here.
    request.resume();
    shop
      .answer({
        method: request.method ?? 'GET',
        url: request.url ?? '/',
        host: request.headers.host ?? '',
        acceptLanguage: request.headers['accept-language'],
      })
      .then(({ status, headers, body }) => {
        response.writeHead(status, { ...headers, 'content-length': Buffer.byteLength(body) });
        response.end(request.method === 'HEAD' ? undefined : body);
      })
      .catch((error: unknown) => {
        own.log.error({ err: error }, 'a window could not be shown');
        response.writeHead(503, { 'content-type': 'text/plain; charset=utf-8', 'retry-after': '5' });
        response.end('Try again in a moment.\n');
      });
  });
  server.headersTimeout = 10_000;
  server.requestTimeout = 20_000;
  server.maxConnections = 5000;
  await new Promise<void>((ready) => server.listen(port, '127.0.0.1', ready));
  return server;
}
