import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import fc from 'fast-check';
import { afterEach, describe, expect, test } from 'vitest';
import { NO_PRICES } from '@/core/selling';
import { addDays, instant } from '@/core/time';
import { httpMarketplace, refuseMarketplaceUrl } from './httpMarketplace';
import { readAs, readEvents, readListingState } from './readAnswers';

const NOW = '2026-11-24T09:12:00Z';
const STATE = {
  name: 'kelpkiln.com',
  status: 'unproved',
  proof: { host: 'kelpkiln.com', text: 'proof=abc' },
  provedBy: null,
  reviewUntil: null,
  reason: null,
  auction: null,
};
const EVENTS = {
  events: [
    { id: 1, at: NOW, kind: 'listing', state: STATE },
    {
      id: 2,
      at: NOW,
      kind: 'offer',
      name: 'kelpkiln.com',
      thread: '7',
      figure: '8',
      buyer: 'Oda',
      minor: 30_000,
      currency: 'USD',
      lapsesAt: NOW,
    },
    { id: 3, at: NOW, kind: 'declined', thread: '7' },
    {
      id: 4,
      at: NOW,
      kind: 'bid',
      name: 'kelpkiln.com',
      bid: '1',
      bidder: 'Ivo',
      priceMinor: 100,
      leader: 'Ivo',
      reserveMet: false,
      closesAt: NOW,
    },
    {
      id: 5,
      at: NOW,
      kind: 'closed',
      name: 'kelpkiln.com',
      outcome: { kind: 'unsold', highest: 'Ivo', priceMinor: 100 },
    },
    {
      id: 6,
      at: NOW,
      kind: 'closed',
      name: 'kelpkiln.com',
      outcome: { kind: 'sold', to: 'Ivo', priceMinor: 100, how: 'bid' },
    },
    {
      id: 7,
      at: NOW,
      kind: 'purchase',
      name: 'kelpkiln.com',
      sale: '9',
      how: 'buy now',
      thread: null,
      buyer: 'Ivo',
      minor: 100,
      currency: 'USD',
    },
    { id: 8, at: NOW, kind: 'paid', sale: '9' },
    { id: 9, at: NOW, kind: 'buyer', sale: '9', handover: 'push', account: 'ivo-1' },
    { id: 10, at: NOW, kind: 'arrived', sale: '9' },
    { id: 11, at: NOW, kind: 'released', sale: '9', commissionMinor: 15, feesMinor: 0, proceedsMinor: 85 },
    { id: 12, at: NOW, kind: 'not paid', sale: '9' },
    { id: 13, at: NOW, kind: 'dispute', sale: '9', note: 'late' },
    { id: 14, at: NOW, kind: 'something new', of: 'later' },
  ],
};

/** The examples of docs/marketplace-link.md. */
describe('what a marketplace tells', () => {
  test('every kind of event is read; one that is not known keeps its number', () => {
    const events = readEvents(EVENTS);
    expect(events.map(({ id }) => id)).toEqual(EVENTS.events.map(({ id }) => id));
    expect(events.map(({ kind }) => kind)).toEqual([...EVENTS.events.slice(0, 13).map(({ kind }) => kind), 'unread']);
    expect(events[3]).toMatchObject({ closesAt: instant(NOW), leader: 'Ivo' });
  });

  test.each([
    ['an amount that is no whole number', 1, { minor: 300.5 }],
    ['an amount below nothing', 1, { minor: -1 }],
    ['no instant', 1, { lapsesAt: 'tomorrow' }],
    ['no thread', 1, { thread: 7 }],
    ['a handover that nobody knows', 8, { handover: 'post' }],
    ['an outcome that is none', 4, { outcome: { kind: 'sold', to: 'Ivo' } }],
    ['a state that is none', 0, { state: { ...STATE, status: 'lost' } }],
  ])('%s is not acted upon', (_, place, more) => {
    const events = readEvents({ events: [{ ...EVENTS.events[place], ...more }] });
    expect(events).toMatchObject([{ kind: 'unread' }]);
  });

  test('a state with an auction', () => {
    expect(readListingState({ ...STATE, auction: { opensAt: NOW, closesAt: '2026-12-01T09:12:00Z' } })).toMatchObject({
      auction: { closesAt: addDays(instant(NOW), 7) },
    });
    expect(readAs(readListingState, { ...STATE, name: undefined })).toBeNull();
    expect(readAs(readListingState, 'nothing')).toBeNull();
  });

  test('10,000 mutated answers: never a crash, never a figure that was not there', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: JSON.stringify(EVENTS).length - 1 }),
        fc.constantFrom('', '"', '{', '[', 'null', '-', '1e9', ':', '}', 'x'),
        (place, piece) => {
          const text = JSON.stringify(EVENTS);
          let json: unknown;
          try {
            json = JSON.parse(text.slice(0, place) + piece + text.slice(place + 1));
          } catch {
            return;
          }
          const said = (json as { events?: { minor?: number }[] } | null)?.events ?? [];
          for (const [place, event] of (readAs(readEvents, json) ?? []).entries())
            if ('minor' in event) expect(event.minor).toBe(said[place]?.minor);
        },
      ),
      { numRuns: 10_000 },
    );
  });
});

describe('the client', () => {
  let server: Server;
  afterEach(() => new Promise<void>((done) => server.close(() => done())));

  /** A marketplace that answers each request as told, and notes what it was asked. */
  async function marketplace(
    status: number,
    body: string,
  ): Promise<{ link: ReturnType<typeof httpMarketplace>; asked: string[] }> {
    const asked: string[] = [];
    server = createServer((request, answer) => {
      let text = '';
      request.on('data', (piece) => {
        text += piece;
      });
      request.on('end', () => {
        asked.push(`${request.method} ${request.url} ${request.headers.authorization} ${text}`);
        answer.writeHead(status, { 'content-type': 'application/json', connection: 'close' }).end(body);
      });
    });
    await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
    const { port } = server.address() as AddressInfo;
    return {
      link: httpMarketplace({ url: `http://127.0.0.1:${port}/`, key: 'k', allowedHosts: ['127.0.0.1'] }),
      asked,
    };
  }

  test('asks as the protocol has it', async () => {
    const { link, asked } = await marketplace(
      200,
      JSON.stringify({ ...STATE, sale: '9', thread: '7', title: 'Hall', events: [] }),
    );
    const listing = {
      name: 'kelpkiln.com',
      kind: 'fixed price, offers too',
      currency: 'USD',
      prices: { ...NO_PRICES, asking: 100 },
      auctionDays: 14,
      reserveShown: false,
      withSite: false,
      categories: [],
      pitch: '',
      description: '',
      attributes: {},
    } as const;
    expect(await link.test()).toEqual({ kind: 'done', value: 'Hall' });
    expect(await link.list(listing)).toMatchObject({ kind: 'done', value: { status: 'unproved' } });
    await link.withdraw('kelpkiln.com');
    await link.prove('kelpkiln.com', 'txt', null);
    await link.lowerReserve('kelpkiln.com', null);
    expect(await link.accept('7', '8')).toEqual({ kind: 'done', value: '9' });
    await link.counter('7', 'figure 3', 500, instant(NOW));
    await link.decline('7');
    expect(await link.offerTo('kelpkiln.com', 'auction 1', 500, instant(NOW))).toEqual({ kind: 'done', value: '7' });
    await link.answerSale('9', 'refused');
    await link.handedOver('9', 'code');
    expect(await link.events(12)).toEqual({ kind: 'done', value: [] });
    expect(asked.map((one) => one.split(' Bearer k ')[0])).toEqual([
      'GET /v1/marketplace',
      'PUT /v1/listings/kelpkiln.com',
      'DELETE /v1/listings/kelpkiln.com',
      'POST /v1/listings/kelpkiln.com/proof',
      'POST /v1/listings/kelpkiln.com/reserve',
      'POST /v1/threads/7/accept',
      'POST /v1/threads/7/counter',
      'POST /v1/threads/7/decline',
      'POST /v1/listings/kelpkiln.com/offer',
      'POST /v1/sales/9/answer',
      'POST /v1/sales/9/handed-over',
      'GET /v1/events?after=12',
    ]);
    expect(asked[6]).toContain(`{"key":"figure 3","minor":500,"lapsesAt":"${NOW}"}`);
  });

  test.each([
    [409, '{"problem":"Sold."}', { kind: 'refused', reason: 'Sold.' }],
    [404, '{}', { kind: 'refused', reason: 'status 404' }],
    [503, '', { kind: 'unknown', cause: 'the marketplace answered 503' }],
    [200, '<html>', { kind: 'unknown', cause: 'the answer is not JSON' }],
    [200, '{"title":5}', { kind: 'unknown', cause: 'the answer could not be understood' }],
    [302, '', { kind: 'unknown' }],
  ])('status %d with %s', async (status, body, expected) => {
    const { link } = await marketplace(status, body);
    expect(await link.test()).toMatchObject(expected);
  });

  test.each([
    ['https://marketplace.example', null],
    ['http://127.0.0.1:9', null],
    ['http://localhost:9', null],
    ['http://marketplace.example', 'https'],
    ['ftp://marketplace.example', 'https'],
    ['marketplace.example', 'address'],
  ])('an address like %s', async (url, problem) => {
    await marketplace(200, '{}');
    const refused = refuseMarketplaceUrl(url, ['127.0.0.1', '[::1]', 'localhost']);
    if (problem === null) expect(refused).toBeNull();
    else expect(refused).toContain(problem);
  });
});
