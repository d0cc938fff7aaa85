import { randomUUID } from 'node:crypto';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { createServer as createTlsServer } from 'node:https';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { setTimeout as wait } from 'node:timers/promises';
import next from 'next';
import pLimit from 'p-limit';
import type { Who } from '@/core/people';
import { isRefusal, type Refusal } from '@/core/refusal';
import { BeingAnswered } from '@/usecases/beingAnswered';
import { loadClock } from '@/usecases/clock';
import { deps } from '@/usecases/deps';
import { type AskedFrom, makeLog, withinRequest } from '@/usecases/log';
import { LONG_WORK } from '@/usecases/longWork';
import { shownState } from '@/usecases/names/ledger';
import type { Identified } from '@/usecases/people/identify';
import { openThread } from '@/usecases/thread';
import { type TurnedAway, trustForwarded, turnAway } from './guard';
import { answerHeaders } from './headers';
import { KeptAnswers } from './keptAnswers';
import { bodyLimit } from './limits';
import { addressOf, isByProxy, type Outside, outsideFrom } from './outside';
import { isForAnybody, refuseAsker, wantsSignIn, whoAsks, whoMeanwhile } from './whoAsks';

const log = makeLog('app');
const publicOrigin = process.env.NAME_LEDGER_ORIGIN ? new URL(process.env.NAME_LEDGER_ORIGIN) : null;
const outside = outsideFrom(process.env);
const kept = new KeptAnswers(() => shownState(deps()));
/**
 * So many requests are answered at once, the rest in their order: many begun and none finished would make all of them late.
 * What comes in as a stream takes no turn, since it waits for its sender.
 */
const reads = pLimit(6);
/** Changes wait for each other in the database anyway; a few at once keep it busy. */
const writes = pLimit(6);
const LONGEST_TURN_MS = 2000;
const LONGEST_DRAIN_MS = 10_000;
/** Whoever reads is not held up by long work. */
const answered = new BeingAnswered();
const START_MS = 5000;
const QUIET_MS = 15_000;

/** When something was asked last; `null` once its traces are cleared away. */
let lastAt: number | null = null;
/** Nothing may hold up the others for longer. */
const LONGEST_BLOCK_MS = 50;

/** The origin under which the program was asked. */
function originOf({ headers }: IncomingMessage): string {
  return publicOrigin !== null && headers.host === publicOrigin.host ? publicOrigin.origin : `http://${headers.host}`;
}

function send(response: ServerResponse, path: string, { status, code, message }: TurnedAway): void {
  const isApi = path.startsWith('/api/');
  const title = code.replaceAll('-', ' ');
  const problem = { type: `urn:name-ledger:problem:${code}`, title, status, detail: message, code };
  response.writeHead(status, {
    ...answerHeaders(path),
    'content-type': isApi ? 'application/problem+json' : 'text/plain; charset=utf-8',
  });
  response.end(isApi ? JSON.stringify(problem) : `${message}\n`);
}

/** What of a refused body is on its way is thrown away, so that the refusal is heard; who goes on and on is cut off. */
function drain(request: IncomingMessage): void {
  if (request.complete) return;
  request.resume();
  const last = setTimeout(() => request.destroy(), LONGEST_DRAIN_MS);
  request.once('close', () => clearTimeout(last));
}

/** Who asks, and from where; `null` where that was answered already: by a refusal, or by the way to sign in. */
async function ask(
  request: IncomingMessage,
  response: ServerResponse,
  path: string,
  address: string,
): Promise<{ who: Who; from: AskedFrom } | null> {
  const { method = 'GET', headers } = request;
  const origin = originOf(request);
  const asked = { method, path, isAction: headers['next-action'] !== undefined };
  const identified = () => whoAsks(deps(), headers, origin.startsWith('https:'));
  const known = isForAnybody(asked) ? await strangerUnless(path, identified) : await identified();
  const refused = isRefusal(known) ? known : refuseAsker(known.who, asked);
  if (isRefusal(known) || refused) {
    turnBack(request, response, path, refused as Refusal);
    drain(request);
    return null;
  }
  const from = { address, agent: headers['user-agent'] ?? '', origin, session: known.session };
  return { who: known.who, from };
}

const STRANGER = { who: { kind: 'stranger' }, session: null } as const satisfies Identified;
/** Whether the program is well is told at once, whoever asks. */
const LONGEST_ASKED_MS = 1000;

/** A stranger, who gets what is for anybody; but how each part is, is told only to whoever is known soon enough. */
async function strangerUnless(path: string, identified: () => Promise<Identified | Refusal>): Promise<Identified> {
  if (path !== '/api/v1/health') return STRANGER;
  const known = await Promise.race([identified(), wait(LONGEST_ASKED_MS, null, { ref: false })]);
  return known === null || isRefusal(known) ? whoMeanwhile() : known;
}

/** Says why somebody may not ask: a page leads to the way in, a program is told. */
function turnBack(request: IncomingMessage, response: ServerResponse, path: string, refused: Refusal): void {
  const { headers, url = '/' } = request;
  const back = encodeURIComponent(url);
  if (wantsSignIn(refused) && headers['next-action'] !== undefined) {
    // The framework's own word for "go there": the page is left, whatever it was about to do.
    response.writeHead(303, { 'x-action-redirect': '/sign-in;replace', 'cache-control': 'no-store' });
    response.end();
    return;
  }
  const isPage = (request.method === 'GET' || request.method === 'HEAD') && !path.startsWith('/api/');
  if (wantsSignIn(refused) && isPage && (headers.rsc !== undefined || /text\/html/.test(headers.accept ?? ''))) {
    response.writeHead(303, { location: `/sign-in?back=${back}`, 'cache-control': 'no-store' });
    response.end();
    return;
  }
  if (refused.code === 'token-invalid') response.setHeader('www-authenticate', 'Bearer error="invalid_token"');
  else if (wantsSignIn(refused)) response.setHeader('www-authenticate', 'Bearer');
  const status = wantsSignIn(refused) ? 401 : refused.code === 'database-away' ? 503 : 403;
  send(response, path, { status, code: refused.code, message: refused.message });
}

const ENDING: TurnedAway = { status: 503, code: 'ending', message: 'This process is ending. Ask another.' };

/** Answers one request: turned away by the guard, or handed to the framework. */
async function answer(
  request: IncomingMessage,
  response: ServerResponse,
  handle: (request: IncomingMessage, response: ServerResponse) => Promise<void>,
  isFromOutside: boolean,
): Promise<void> {
  const { method = 'GET', url = '/', headers } = request;
  const path = url.split(/[?#]/, 1)[0] ?? '/';
  const refused = turnAway({ method, url, headers, isFromOutside }, publicOrigin);
  if (refused) {
    log.warn({ method, status: refused.status, code: refused.code }, 'a request was turned away');
    send(response, path, refused);
    drain(request);
    return;
  }
  // What was forwarded is believed of the proxy alone, and read before it is taken away.
  const address = addressOf(request, isFromOutside ? outside : null);
  trustForwarded(headers, publicOrigin);
  // The framework would take this for leave to skip its own proxy.
  delete headers['x-middleware-subrequest'];
  for (const [name, value] of Object.entries(answerHeaders(path))) response.setHeader(name, value);
  const requestId = randomUUID();
  response.setHeader('x-request-id', requestId);
  if (isEnding) {
    // What comes next over this connection would come too late.
    response.setHeader('connection', 'close');
    if (path === '/api/v1/health') return send(response, path, ENDING);
  }
  // Looks at its health keep nobody's memory.
  if (path !== '/api/v1/health') lastAt = Date.now();
  if (method === 'GET' || method === 'HEAD') response.once('close', answered.begin());
  const asked = await ask(request, response, path, address);
  if (asked === null) return;
  if (KeptAnswers.mayKeep(method, path) && (await kept.answer(request, response))) return;
  let onHandedOn = () => {};
  const isHandedOn = new Promise<void>((resolve) => {
    onHandedOn = resolve;
  });
  const work = () => withinRequest({ requestId, ...asked, onHandedOn }, () => handle(request, response));
  if (bodyLimit(path).streamed) return work();
  const turn = method === 'GET' || method === 'HEAD' ? reads : writes;
  let handled: Promise<void> | undefined;
  await turn(() => {
    handled = work();
    // Neither a reader that takes its time nor what the thread works out keeps others from being answered.
    return Promise.race([handled, isHandedOn, wait(LONGEST_TURN_MS, undefined, { ref: false })]);
  });
  await handled;
}

/** Says in the log when something held up every other request of this process. */
function watchDelay(): void {
  const delay = monitorEventLoopDelay({ resolution: 10 });
  delay.enable();
  setInterval(() => {
    const blockedMs = Math.round(delay.max / 1e6);
    if (blockedMs > LONGEST_BLOCK_MS + 10) log.warn({ blockedMs }, `requests were held up for ${blockedMs} ms`);
    delay.reset();
  }, 1000).unref();
}

/** After a rush what it left in memory is given back: by itself that happens only with the next requests. */
function tidyWhenQuiet(): void {
  setInterval(() => {
    if (lastAt === null || Date.now() - lastAt < QUIET_MS) return;
    lastAt = null;
    globalThis.gc?.();
  }, QUIET_MS).unref();
}

/**
 * So long a process that is told to end goes on answering, while `/api/v1/health` says that it is ending: whoever shares requests out
 * among several sends it none any more, and none is lost.
 */
const DRAIN_MS = Number(process.env.NAME_LEDGER_DRAIN_SECONDS ?? 0) * 1000;
let isEnding = false;

/** Ends in order when it is told to: what is being answered gets a moment to end. */
function endWhenTold(servers: readonly Server[]): void {
  for (const signal of ['SIGINT', 'SIGTERM'] as const) {
    process.on(signal, () => {
      if (isEnding) return;
      isEnding = true;
      if (DRAIN_MS > 0) log.info({ drainMs: DRAIN_MS }, 'the application ends');
      setTimeout(close, DRAIN_MS);
    });
  }
  const close = () => {
    void Promise.all(servers.map((server) => new Promise((closed) => server.close(closed)))).then(() =>
      process.exit(0),
    );
    for (const server of servers) server.closeIdleConnections();
    setTimeout(() => servers.forEach((server) => void server.closeAllConnections()), 3000).unref();
    setTimeout(() => process.exit(0), 6000).unref();
  };
  process.on('uncaughtException', (error) => {
    log.fatal({ err: error }, 'the application ends');
    process.exit(1);
  });
}

/** What listens beyond this machine: over TLS of our own, or behind a proxy that speaks it. */
function serverFor({ tls }: Outside, take: (request: IncomingMessage, response: ServerResponse) => void): Server {
  return tls ? createTlsServer({ ...tls, minVersion: 'TLSv1.2' }, take) : createServer(take);
}

/** Headers come at once, and a body keeps coming: what trickles in ties up nothing. */
function bound(server: Server): void {
  server.headersTimeout = 15_000;
  server.requestTimeout = 600_000;
  server.maxConnections = 2000;
}

/** Makes what every request needs, with the threads that compute beside it: before the first of them is taken. */
async function makeReady(): Promise<void> {
  const path = process.env.NAME_LEDGER_THREAD;
  const own = deps({
    part: 'app',
    connections: 16,
    thread: path ? openThread(path, new Set(LONG_WORK), answered) : null,
  });
  // A database that is away at this moment is asked again with the first request.
  await loadClock(own).catch((error: unknown) => own.log.warn({ err: error }, 'the clock could not be read'));
}

/**
 * Serves the application on a port of loopback, and beyond this machine where the start command says so. Every request passes the guard here, before the framework sees it. Behind a proxy
 * of the office `NAME_LEDGER_ORIGIN` is the address under which that proxy shows it.
 */
export async function serve(port: number): Promise<void> {
  const dev = process.env.NODE_ENV === 'development';
  await makeReady();
  const app = next({ dev, dir: process.cwd(), hostname: '127.0.0.1', port });
  await app.prepare();
  const handle = app.getRequestHandler();
  const take = (isFromOutside: boolean) => (request: IncomingMessage, response: ServerResponse) => {
    // Whoever goes round the proxy goes round its TLS.
    if (isFromOutside && outside?.proxy && !isByProxy(request, outside)) return void request.destroy();
    if (isFromOutside) response.setHeader('strict-transport-security', 'max-age=31536000');
    answer(request, response, handle, isFromOutside).catch((error: unknown) => {
      log.error({ err: error, method: request.method }, 'a request failed');
      if (response.headersSent) response.destroy();
      else send(response, '/', { status: 400, code: 'request-failed', message: 'This request could not be answered.' });
    });
  };
  const server = createServer(take(false));
  const servers = [server, ...(outside ? [serverFor(outside, take(true))] : [])];
  for (const one of servers) bound(one);
  // Nothing here is spoken over a socket, but for the framework's word that a source has changed.
  const upgrade = dev ? app.getUpgradeHandler() : null;
  server.on('upgrade', (request, socket, head) => {
    if (upgrade && turnAway({ method: 'GET', url: request.url ?? '', headers: request.headers }) === null)
      void upgrade(request, socket, head);
    else socket.destroy();
  });
  // Starting is work too: what counts is how it goes afterwards.
  setTimeout(watchDelay, START_MS).unref();
  tidyWhenQuiet();
  endWhenTold(servers);
  server.listen(port, '127.0.0.1', () => log.info({ port }, 'the application is served'));
  if (outside)
    servers[1]?.listen(outside.port, outside.listen, () =>
      log.info({ port: outside.port, listen: outside.listen }, 'the application is served beyond this machine'),
    );
}
