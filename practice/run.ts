import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { PracticeAuthority } from './acme/server';
import { FAULTS, type FaultKind, Faults } from './epp/faults';
import { eppServer } from './epp/server';
import { mailboxServer } from './mail/mailbox';
import { officeMails } from './mail/officeMails';
import { mailServer, type PracticeMail } from './mail/server';
import { marketplaceServer } from './marketplace/server';
import { ratesServer } from './rates/server';
import { dnsServers } from './records/dns';
import { rdapServer } from './records/rdap';
import { whoisServer } from './records/whois';
import type { Store } from './store';
import { confirmMail, letDaysPass } from './world/days';
import { pushToOffice } from './world/orders';
import { askedBySomebody } from './world/transfers';
import type { World } from './world/types';

/** The practice world at work: an EPP server for each registrar, and a way to move its clock. */
export interface RunningPractice {
  readonly world: World;
  /** Port of each registrar's EPP server, on loopback. */
  readonly ports: Readonly<Record<string, number>>;
  readonly controlPort: number;
  /** Port of the mail server. */
  readonly mailPort: number;
  /** Port of the office's mailbox (IMAP). */
  readonly mailboxPort: number;
  /** Ports of the registration records: RDAP over HTTP, WHOIS, and DNS over UDP and TCP. */
  readonly records: { readonly rdap: number; readonly whois: number; readonly dns: number };
  /** Port of the marketplace. */
  readonly marketplacePort: number;
  /** Port of the central bank. */
  readonly ratesPort: number;
  /** Port of the certificate authority. */
  readonly acmePort: number;
  /** All of these, to listen there again after a restart. */
  readonly at: PracticePorts;
  readonly faults: Faults;
  /** The mails that came, newest first. */
  readonly mails: readonly PracticeMail[];
  /** Lets time pass up to an instant. */
  passTo(until: number): Promise<void>;
  stop(): Promise<void>;
}

/** Where a practice world listens, on loopback. */
export interface PracticePorts {
  /** By registrar. */
  readonly ports: Readonly<Record<string, number>>;
  readonly control: number;
  readonly mail: number;
  /** Not there where an earlier version kept it. */
  readonly mailbox?: number;
  readonly marketplace: number;
  readonly records: RunningPractice['records'];
  readonly registrarWhois: number;
  readonly rates: number;
  /** Not there where an earlier version kept it. */
  readonly acme?: number;
}

export interface PracticeOptions {
  readonly world: World;
  readonly store: Store | null;
  /** The ports it listened on before, so that who talks to it finds it again; any that is free for those not named. */
  readonly at?: PracticePorts;
  /** Questions a second that the RDAP server takes before it asks to wait. */
  readonly mostQuestionsASecond?: number;
  /** Where the shop of the office answers without TLS, for whoever looks whether a host is its own. */
  readonly shopPort?: number;
}

const listen = (server: Server | ReturnType<typeof eppServer>, port: number) =>
  new Promise<number>((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => resolve((server.address() as AddressInfo).port));
  });

/** Runs a practice world until it is stopped. */
export async function runPractice({
  world,
  store,
  at,
  mostQuestionsASecond,
  shopPort = 0,
}: PracticeOptions): Promise<RunningPractice> {
  const faults = new Faults();
  let turn: Promise<unknown> = Promise.resolve();
  const exclusively = <T>(act: () => T | Promise<T>): Promise<T> => {
    const done = turn.then(async () => {
      const result = await act();
      await store?.save(world);
      return result;
    });
    turn = done.catch(() => undefined);
    return done;
  };
  const passTo = (until: number) =>
    exclusively(async () => {
      await letDaysPass(world, until, async () => {
        await store?.save(world);
      });
    });
  const servers: { close(done: () => void): unknown }[] = [];
  const open: Record<string, number> = {};
  for (const registrar of world.registrars.values()) {
    const server = eppServer({ world, registrar, faults, exclusively });
    open[registrar.id] = await listen(server, at?.ports[registrar.id] ?? 0);
    servers.push(server);
  }
  const { mails, mailPort, mailboxPort } = await openMail(world, servers, at);
  const { registrarWhois, ...records } = await openRecords(world, faults, servers, at, mostQuestionsASecond);
  const { marketplacePort, ratesPort, acmePort } = await openTrade(
    { world, faults, exclusively, dnsPort: () => records.dns, mailPort: () => mailPort },
    servers,
    shopPort,
    at,
  );
  const control = controlServer({ world, faults, mails, passTo, exclusively });
  const port = await listen(control, at?.control ?? 0);
  servers.push(control);
  let stopped: Promise<void> | null = null;
  return {
    world,
    ports: open,
    controlPort: port,
    mailPort,
    mailboxPort,
    records,
    marketplacePort,
    ratesPort,
    acmePort,
    at: {
      ports: open,
      control: port,
      mail: mailPort,
      mailbox: mailboxPort,
      marketplace: marketplacePort,
      records,
      registrarWhois,
      rates: ratesPort,
      acme: acmePort,
    },
    faults,
    mails,
    passTo,
    stop() {
      stopped ??= (async () => {
        control.closeAllConnections();
        await Promise.all(servers.map((server) => new Promise<void>((done) => server.close(() => done()))));
        await turn;
      })();
      return stopped;
    },
  };
}

/** By what the practice world is moved and looked at. */
function controlServer(own: Parameters<typeof controlled>[1]): Server {
  return createServer((request, answer) => {
    void controlled(request, own)
      .then((body) => send(answer, 200, body))
      .catch((error: unknown) => send(answer, 400, { message: error instanceof Error ? error.message : 'failed' }));
  });
}

/** The mail server that takes every mail, and the mailbox of the office. */
async function openMail(world: World, servers: { close(done: () => void): unknown }[], at?: PracticePorts) {
  const mails: PracticeMail[] = [];
  const post = mailServer(mails, () => world.now);
  const mailPort = await listenForMail(post, at?.mail ?? 0);
  const box = mailboxServer(officeMails(world.now));
  const mailboxPort = await listen(box, at?.mailbox ?? 0);
  servers.push(post, box);
  return { mails, mailPort, mailboxPort };
}

/** Its listening is told otherwise than that of the others. */
const listenForMail = (post: ReturnType<typeof mailServer>, port: number) =>
  new Promise<number>((resolve, reject) => {
    post.on('error', reject);
    const inner = post.listen(port, '127.0.0.1', () => resolve((inner.address() as AddressInfo).port));
  });

/** Opens the marketplace, the central bank and the certificate authority, on loopback. */
async function openTrade(
  own: Parameters<typeof marketplaceServer>[0],
  servers: { close(done: () => void): unknown }[],
  shopPort: number,
  at?: PracticePorts,
): Promise<Pick<RunningPractice, 'marketplacePort' | 'ratesPort' | 'acmePort'>> {
  const marketplace = marketplaceServer(own);
  const marketplacePort = await listen(marketplace, at?.marketplace ?? 0);
  const bank = ratesServer(own.world);
  const ratesPort = await listen(bank, at?.rates ?? 0);
  const authority = new PracticeAuthority(
    () => shopPort,
    () => own.world.now,
  ).server();
  const acmePort = await listen(authority, at?.acme ?? 0);
  for (const server of [marketplace, bank, authority])
    servers.push({
      close(done) {
        server.closeAllConnections();
        server.close(done);
      },
    });
  return { marketplacePort, ratesPort, acmePort };
}

/** Opens the servers of registration records, on loopback. */
async function openRecords(
  world: World,
  faults: Faults,
  servers: { close(done: () => void): unknown }[],
  at?: PracticePorts,
  most?: number,
): Promise<RunningPractice['records'] & { readonly registrarWhois: number }> {
  let rdapPort = 0;
  const rdap = rdapServer(world, faults, () => `http://127.0.0.1:${rdapPort}`, most);
  rdapPort = await listen(rdap, at?.records.rdap ?? 0);
  let registrarsPort = 0;
  const registrars = () => `127.0.0.1:${registrarsPort}`;
  const registrarWhois = whoisServer(world, faults, 'registrar', registrars);
  registrarsPort = await listen(registrarWhois, at?.registrarWhois ?? 0);
  const whois = whoisServer(world, faults, 'registry', registrars);
  const whoisPort = await listen(whois, at?.records.whois ?? 0);
  const { udp, tcp } = dnsServers(world);
  const dnsPort = await listen(tcp, at?.records.dns ?? 0);
  await new Promise<void>((resolve) => udp.bind(dnsPort, '127.0.0.1', resolve));
  const closeAll = (done: () => void) => {
    rdap.closeAllConnections();
    rdap.close(done);
  };
  servers.push({ close: closeAll }, whois, registrarWhois, tcp, { close: (done) => udp.close(done) });
  return { rdap: rdapPort, whois: whoisPort, dns: dnsPort, registrarWhois: registrarsPort };
}

function send(answer: ServerResponse, status: number, body: unknown): void {
  answer.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
}

/** `GET /` tells the clock and the faults; `POST /clock {"to"}` moves the clock; `POST /fault {"registrar","kind","times"}`; `POST /mail-confirmed {"name"}`; `POST /transfer-requested {"name"}`: somebody asks for a name of the office's; `POST /pushed {"name"}`: somebody hands it one. */
async function controlled(
  request: IncomingMessage,
  {
    world,
    faults,
    mails,
    passTo,
    exclusively,
  }: {
    world: World;
    faults: Faults;
    mails: readonly PracticeMail[];
    passTo: (until: number) => Promise<void>;
    exclusively: <T>(act: () => T) => Promise<T>;
  },
): Promise<unknown> {
  const body = await read(request);
  if (request.method === 'POST' && request.url === '/clock') {
    const to = Date.parse(String(body.to));
    if (!Number.isFinite(to) || to <= world.now) throw new Error('The practice world’s clock only goes forward.');
    await passTo(to);
  } else if (request.method === 'POST' && request.url === '/fault') {
    const kind = FAULTS.find((one) => one === body.kind) ?? null;
    const whose = String(body.registrar);
    if (!world.registrars.has(whose) && whose !== 'records' && whose !== 'marketplace')
      throw new Error('There is no such registrar here.');
    faults.set(String(body.registrar), kind as FaultKind | null, Number(body.times ?? 1));
  } else if (request.method === 'POST' && request.url === '/mail-confirmed') {
    await exclusively(() => confirmMail(world, String(body.name)));
  } else if (request.method === 'POST' && request.url === '/pushed') {
    await exclusively(() => pushToOffice(world, String(body.name)));
  } else if (request.method === 'POST' && request.url === '/transfer-requested') {
    await exclusively(() => askedBySomebody(world, String(body.name)));
  } else if (request.url !== '/') {
    throw new Error('There is nothing here.');
  }
  const toConfirm = [...world.domains.values()]
    .filter(({ confirmMailBy, hold }) => confirmMailBy !== null || hold)
    .map(({ name, confirmMailBy }) => ({ name, by: confirmMailBy }));
  const toHolders = world.holderMails.map((mail) => ({ ...mail, at: new Date(mail.at).toISOString() }));
  const all = [...mails, ...toHolders].sort((a, b) => (a.at < b.at ? 1 : a.at > b.at ? -1 : 0));
  return { now: new Date(world.now).toISOString(), faults: faults.all(), mails: all, toConfirm };
}

async function read(request: IncomingMessage): Promise<Record<string, unknown>> {
  const pieces: Buffer[] = [];
  for await (const piece of request) pieces.push(piece as Buffer);
  const text = Buffer.concat(pieces).toString('utf8');
  return text === '' ? {} : (JSON.parse(text) as Record<string, unknown>);
}
