import { randomUUID } from 'node:crypto';
import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { fileURLToPath } from 'node:url';
import next from 'next';
import { makeLog, withinRequest } from '@/usecases/log';
import { type TurnedAway, trustForwarded, turnAway } from './guard';
import { answerHeaders } from './headers';

/**
 * Serves the application on loopback. Every request passes the guard here, before the framework sees it. Told by `PORT`; behind a
 * proxy of the office by `NAME_LEDGER_ORIGIN`, the address under which that proxy shows it.
 */
const log = makeLog('app');
process.env.NAME_LEDGER_THREAD ??= fileURLToPath(new URL('./thread.mjs', import.meta.url));
const port = Number(process.env.PORT);
const publicOrigin = process.env.NAME_LEDGER_ORIGIN ? new URL(process.env.NAME_LEDGER_ORIGIN) : null;
const app = next({ dev: process.env.NODE_ENV === 'development', dir: process.cwd(), hostname: '127.0.0.1', port });
await app.prepare();
const handle = app.getRequestHandler();

function send(response: ServerResponse, path: string, { status, code, message }: TurnedAway): void {
  const isApi = path.startsWith('/api/');
  const title = code.replaceAll('-', ' ');
  const problem = { type: `urn:name-ledger:problem:${code}`, title, status, detail: message, code };
  response.writeHead(status, {
    ...answerHeaders(path),
    'content-type': isApi ? 'application/problem+json' : 'text/plain; charset=utf-8',
    // What is still on its way is not read.
    connection: 'close',
  });
  response.end(isApi ? JSON.stringify(problem) : `${message}\n`);
}

async function answer(request: IncomingMessage, response: ServerResponse): Promise<void> {
  const { method = 'GET', url = '/', headers } = request;
  const path = url.split(/[?#]/, 1)[0] ?? '/';
  const refused = turnAway({ method, url, headers }, publicOrigin);
  if (refused) {
    log.warn({ method, status: refused.status, code: refused.code }, 'a request was turned away');
    send(response, path, refused);
    return;
  }
  trustForwarded(headers, publicOrigin);
  // The framework would take this for leave to skip its own proxy.
  delete headers['x-middleware-subrequest'];
  for (const [name, value] of Object.entries(answerHeaders(path))) response.setHeader(name, value);
  const requestId = randomUUID();
  response.setHeader('x-request-id', requestId);
  await withinRequest(requestId, () => handle(request, response));
}

const server = createServer((request, response) => {
  answer(request, response).catch((error: unknown) => {
    log.error({ err: error, method: request.method }, 'a request failed');
    if (response.headersSent) response.destroy();
    else send(response, '/', { status: 400, code: 'request-failed', message: 'This request could not be answered.' });
  });
});
// Headers come at once, and a body keeps coming: what trickles in ties up nothing.
server.headersTimeout = 15_000;
server.requestTimeout = 600_000;
server.maxConnections = 2000;
server.on('upgrade', (_request, socket) => socket.destroy());

const delay = monitorEventLoopDelay({ resolution: 10 });
delay.enable();
/** Nothing may hold up the others for longer. */
const LONGEST_BLOCK_MS = 50;
setInterval(() => {
  const blockedMs = Math.round(delay.max / 1e6);
  if (blockedMs > LONGEST_BLOCK_MS + 10) log.warn({ blockedMs }, 'the event loop was blocked');
  delay.reset();
}, 1000).unref();

server.listen(port, '127.0.0.1', () => log.info({ port }, 'the application is served'));

let stopping = false;
for (const signal of ['SIGINT', 'SIGTERM'] as const) {
  process.on(signal, () => {
    if (stopping) return;
    stopping = true;
    server.close(() => process.exit(0));
    server.closeIdleConnections();
    // What is being answered gets a moment to end.
    setTimeout(() => server.closeAllConnections(), 3000).unref();
    setTimeout(() => process.exit(0), 6000).unref();
  });
}
process.on('uncaughtException', (error) => {
  log.fatal({ err: error }, 'the application ends');
  process.exit(1);
});
