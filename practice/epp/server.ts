import { createServer, type Server, type Socket } from 'node:net';
import { setTimeout as wait } from 'node:timers/promises';
import { at, type Node, readDocument, textAt } from '@/formats/epp/document';
import { frame, frameReader } from '@/formats/epp/frames';
import type { Customer, Registrar, World } from '../world/types';
import { EXTENSIONS, greeting, response } from './answers';
import { type FaultKind, type Faults, SLOW_MS } from './faults';
import { carryOut } from './orders';

export interface EppServerOptions {
  readonly world: World;
  readonly registrar: Registrar;
  readonly faults: Faults;
  /** Runs one change of the world at a time and stores what it changed before it is answered. */
  readonly exclusively: <T>(act: () => T) => Promise<T>;
}

const MOST_SESSIONS = 8;
const IDLE_MS = 600_000;

/** One registrar's EPP server (RFC 5730 over RFC 5734), without TLS: it is only ever bound to loopback. */
export function eppServer(options: EppServerOptions): Server {
  const open = new Set<Socket>();
  const server = createServer((socket) => {
    if (options.faults.strike(options.registrar.id, ['refused'])) {
      socket.resetAndDestroy();
      return;
    }
    open.add(socket);
    socket.setNoDelay(true);
    socket.setTimeout(IDLE_MS, () => socket.destroy());
    socket.on('error', () => socket.destroy());
    socket.on('close', () => open.delete(socket));
    void serve(socket, open.size > MOST_SESSIONS, options);
  });
  server.on('close', () => {
    for (const socket of open) socket.destroy();
  });
  return server;
}

async function serve(socket: Socket, crowded: boolean, options: EppServerOptions): Promise<void> {
  const { world, registrar } = options;
  const read = frameReader();
  const session = { customer: null as Customer | null };
  let turn = Promise.resolve();
  socket.write(frame(greeting(registrar, world.now)));
  socket.on('data', (piece) => {
    let frames: string[];
    try {
      frames = read(piece);
    } catch {
      socket.destroy();
      return;
    }
    for (const xml of frames)
      turn = turn.then(() => answer(socket, session, xml, crowded, options)).catch(() => void socket.destroy());
  });
}

/** Commands that change something: only these meet faults, since a lost question harms nobody. */
const CHANGING = ['renew', 'update', 'transfer', 'create', 'delete'];

interface LogIn {
  readonly command: Node;
  readonly clTRID: string | null;
  readonly crowded: boolean;
}

/** Opens a session (RFC 5730 section 2.9.1.1): once, by the right password, for extensions that are served. */
function logIn(
  socket: Socket,
  session: { customer: Customer | null },
  { command, clTRID, crowded }: LogIn,
  { world, registrar }: EppServerOptions,
): void {
  const told = (result: Parameters<typeof response>[0]) =>
    frame(response(result, clTRID, `${registrar.id}-${world.nextId++}`));
  const customer = world.customers.get(registrar.id);
  const right =
    customer &&
    textAt(command, 'login', 'clID') === customer.login &&
    textAt(command, 'login', 'pw') === customer.password;
  const asked = at(command, 'login', 'svcs', 'svcExtension')?.children.extURI ?? [];
  const isServed = asked.every(({ text }) => (EXTENSIONS as readonly string[]).includes(text));
  if (session.customer) socket.write(told({ code: 2002, reason: 'logged in already' }));
  else if (crowded) socket.end(told({ code: 2502 }));
  else if (!right) socket.end(told({ code: 2501 }));
  else if (!isServed) socket.write(told({ code: 2103, reason: 'an extension that is not served here' }));
  else {
    session.customer = customer;
    socket.write(told({ code: 1000 }));
  }
}

/** The fault that strikes a command, if one waits for it. */
function faultOf(command: Node, { registrar, faults }: EppServerOptions): FaultKind | null {
  if (!CHANGING.some((verb) => at(command, verb)) || at(command, 'transfer')?.attributes.op === 'query') return null;
  return faults.strike(registrar.id, [
    'slow',
    'cut',
    'garbage',
    'duplicate',
    'busy',
    'result lost',
    ...(at(command, 'renew') || at(command, 'create') ? (['finished later'] as const) : []),
    ...(at(command, 'create') ? (['somebody faster', 'dearer'] as const) : []),
    ...transferFaults(at(command, 'transfer')?.attributes.op),
  ]);
}

/** What can befall a transfer that is asked for, and one that is approved. */
function transferFaults(op: string | undefined): readonly FaultKind[] {
  if (op === 'request') return ['code wrong', 'transfer rejected', 'zone not loaded'];
  return op === 'approve' ? ['approval lost'] : [];
}

async function answer(
  socket: Socket,
  session: { customer: Customer | null },
  xml: string,
  crowded: boolean,
  options: EppServerOptions,
): Promise<void> {
  const { world, registrar, faults } = options;
  const send = (text: string) => {
    if (!socket.destroyed) socket.write(frame(text));
  };
  const svTRID = () => `${registrar.id}-${world.nextId++}`;
  let document: Node;
  try {
    document = readDocument(xml);
  } catch {
    send(response({ code: 2001 }, null, svTRID()));
    return;
  }
  if (at(document, 'hello')) {
    send(greeting(registrar, world.now));
    return;
  }
  const command = at(document, 'command');
  const clTRID = textAt(command, 'clTRID');
  if (!command) {
    send(response({ code: 2000 }, clTRID, svTRID()));
    return;
  }
  if (clTRID !== null && (clTRID.length < 3 || clTRID.length > 64)) {
    send(response({ code: 2005, reason: 'clTRID' }, clTRID, svTRID()));
    return;
  }
  if (at(command, 'login')) return logIn(socket, session, { command, clTRID, crowded }, options);
  const { customer } = session;
  if (!customer) {
    send(response({ code: 2002, reason: 'log in first' }, clTRID, svTRID()));
    return;
  }
  if (at(command, 'logout')) {
    socket.end(frame(response({ code: 1500 }, clTRID, svTRID())));
    return;
  }
  const isReport = (at(command, 'extension')?.children.update ?? []).some(
    (node) => node.children.restore?.[0]?.attributes.op === 'report',
  );
  if (isReport && faults.strike(registrar.id, ['report refused'])) {
    send(response({ code: 2306, reason: 'the reason given says too little' }, clTRID, svTRID()));
    return;
  }
  const fault = faultOf(command, options);
  if (fault === 'busy') {
    send(response({ code: 2400, reason: 'busy, try again later' }, clTRID, svTRID()));
    return;
  }
  const text = await options.exclusively(() => {
    const done = carryOut({ world, registrar, customer, clTRID }, command, fault);
    return response(done, clTRID, svTRID());
  });
  if (fault === 'slow') await wait(SLOW_MS);
  if (fault === 'result lost') socket.destroy();
  else if (fault === 'cut') socket.end(frame(text).subarray(0, 60));
  else if (fault === 'garbage') send('<epp><nothing of the sort');
  else send(text);
  if (fault === 'duplicate') send(text);
}
