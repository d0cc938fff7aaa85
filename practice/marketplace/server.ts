import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import nodemailer from 'nodemailer';
import type { MarketplaceListing } from '@/connectors/marketplace/port';
import { askDns } from '@/connectors/records/dnsClient';
import type { Faults } from '../epp/faults';
import { OFFICE } from '../world/domain';
import type { World } from '../world/types';
import * as market from './market';

/** The key of the office's account here. */
export const MARKETPLACE_KEY = 'tarred-hemp-and-oakum';
const MOST_BYTES = 200_000;
const MOST_EVENTS = 200;

export interface MarketplaceServerOptions {
  readonly world: World;
  readonly faults: Faults;
  readonly exclusively: <T>(act: () => T | Promise<T>) => Promise<T>;
  readonly dnsPort: () => number;
  readonly mailPort: () => number;
}

/** The practice marketplace over HTTP, by the protocol of docs/marketplace-link.md. With the faults of `marketplace`. */
export function marketplaceServer(options: MarketplaceServerOptions): Server {
  return createServer((request, answer) => {
    const fault = options.faults.strike('marketplace', ['slow', 'cut', 'garbage', 'busy', 'result lost']);
    if (fault === 'slow') return;
    if (fault === 'cut') return void request.socket.destroy();
    if (fault === 'busy') return send(answer, 503, { problem: 'Busy. Ask again later.' });
    void handle(options, request)
      .then(({ status, body }) => {
        // It was done, and nobody hears of it.
        if (fault === 'result lost') request.socket.destroy();
        else if (fault === 'garbage') answer.writeHead(200).end('<html>nothing of the sort');
        else send(answer, status, body);
      })
      .catch((error: unknown) => {
        const isOwn = error instanceof market.MarketRefusal;
        send(answer, isOwn ? 409 : 400, { problem: error instanceof Error ? error.message : 'failed' });
      });
  });
}

function send(answer: ServerResponse, status: number, body: unknown): void {
  answer.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(body));
}

async function read(request: IncomingMessage): Promise<Record<string, unknown>> {
  const pieces: Buffer[] = [];
  let size = 0;
  for await (const piece of request) {
    size += (piece as Buffer).length;
    if (size > MOST_BYTES) throw new Error('The request is too long.');
    pieces.push(piece as Buffer);
  }
  const text = Buffer.concat(pieces).toString('utf8');
  return text === '' ? {} : (JSON.parse(text) as Record<string, unknown>);
}

async function handle(
  options: MarketplaceServerOptions,
  request: IncomingMessage,
): Promise<{ status: number; body: unknown }> {
  if (request.headers.authorization !== `Bearer ${MARKETPLACE_KEY}`)
    return { status: 401, body: { problem: 'The key is not one of ours.' } };
  const body = await read(request);
  const url = new URL(request.url ?? '/', 'http://marketplace.test');
  const [, , place = '', id = '', what = ''] = url.pathname.split('/').map(decodeURIComponent);
  const { world, exclusively } = options;
  const done = (act: () => unknown) => exclusively(() => ({ status: 200, body: act() }));
  const route = `${request.method} ${place}${what ? `/${what}` : ''}`;
  switch (route) {
    case 'GET marketplace':
      return {
        status: 200,
        body: { title: market.MARKETPLACE_TITLE, currencies: market.MARKETPLACE_RULES.currencies },
      };
    case 'GET events': {
      const after = Number(url.searchParams.get('after') ?? 0);
      return { status: 200, body: { events: world.market.events.slice(after, after + MOST_EVENTS) } };
    }
    case 'PUT listings':
      return done(() => market.stateOf(market.list(world, { ...(body as unknown as MarketplaceListing), name: id })));
    case 'DELETE listings':
      return done(() => {
        market.withdraw(world, id);
        return {};
      });
    case 'POST listings/proof':
      return proof(options, id, body);
    case 'POST listings/reserve':
      return done(() => {
        market.lowerTheReserve(world, id, body.reserveMinor === null ? null : Number(body.reserveMinor));
        return {};
      });
    case 'POST listings/offer':
      return done(() => ({
        thread: String(
          market.offerToHighest(world, id, String(body.key), Number(body.minor), Date.parse(String(body.lapsesAt))).id,
        ),
      }));
    case 'POST threads/accept':
      return done(() => ({ sale: String(market.accept(world, id, String(body.figure)).id) }));
    case 'POST threads/counter':
      return done(() => {
        const lapses = body.lapsesAt ? Date.parse(String(body.lapsesAt)) : null;
        market.counter(world, id, String(body.key), Number(body.minor), lapses);
        return {};
      });
    case 'POST threads/decline':
      return done(() => {
        market.decline(world, id);
        return {};
      });
    case 'POST sales/answer':
      return done(() => {
        market.answerSale(world, id, body.answer === 'agreed' ? 'agreed' : 'refused');
        return {};
      });
    case 'POST sales/handed-over':
      return done(() => {
        market.handedOver(world, id, body.code === null ? null : String(body.code));
        return {};
      });
    default:
      return { status: 404, body: { problem: 'There is nothing here.' } };
  }
}

/** Looks for the proof: a TXT record in the zone, asked of the name server; or a code that was mailed to the registrant. */
async function proof(
  { world, exclusively, dnsPort, mailPort }: MarketplaceServerOptions,
  name: string,
  body: Record<string, unknown>,
): Promise<{ status: number; body: unknown }> {
  const listing = world.market.listings[name];
  if (!listing) throw new market.MarketRefusal('There is no such listing here.');
  const found =
    body.by === 'mail'
      ? typeof body.code === 'string' && body.code.trim() === mailCode(listing.code)
      : await hasText(dnsPort(), name, listing.code);
  if (body.by === 'mail' && !body.code) {
    await mailTheCode(mailPort(), name, mailCode(listing.code));
    return { status: 200, body: market.stateOf(listing) };
  }
  return exclusively(() => ({
    status: 200,
    body: market.stateOf(
      found
        ? market.prove(world, name, body.by === 'mail' ? 'mail' : 'txt')
        : market.notProved(
            world,
            name,
            body.by === 'mail' ? 'The code is another.' : 'The record is not in the zone yet.',
          ),
    ),
  }));
}

const mailCode = (code: string) => code.replace('proof=', '').slice(0, 8);

async function hasText(port: number, name: string, code: string): Promise<boolean> {
  const { answers = [] } = await askDns({ host: '127.0.0.1', port }, name, 'TXT');
  return answers.some(
    (answer) =>
      answer.type === 'TXT' &&
      (Array.isArray(answer.data) ? answer.data : [answer.data]).some((part) => part.toString() === code),
  );
}

async function mailTheCode(port: number, name: string, code: string): Promise<void> {
  const transport = nodemailer.createTransport({ host: '127.0.0.1', port, secure: false, ignoreTLS: true });
  await transport.sendMail({
    from: 'proof@cordage-hall.test',
    to: `names@${OFFICE.toLowerCase().replace(/\W+/g, '-')}.test`,
    subject: `The proof for ${name}`,
    text: `Somebody lists ${name} at ${market.MARKETPLACE_TITLE}. If that is you, the code is:\n\n${code}\n`,
  });
}
