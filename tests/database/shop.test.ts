import { describe, expect, test, vi } from 'vitest';
import { Shop, type ShopAnswer } from '@/shop/answer';
import { enterBid } from '@/usecases/selling/auctions';
import { saveListings } from '@/usecases/selling/listings';
import { answerOffer, enterOffer, threadsOf } from '@/usecases/selling/offers';
import { withdrawListingsById } from '@/usecases/selling/withdraw';
import { windowOf } from '@/usecases/shop/window';
import { LISTING, must, sellingDesk } from './marketplace';

const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const [COPPER, LARCH, TIDE] = NAMES;

const desk = sellingDesk(NAMES);
const { begin, id } = desk;

const offer = async (name: string, more: object = {}) =>
  must(
    await saveListings(desk.made.ledger, {
      send: true,
      listings: [{ ...LISTING, nameId: id(name), pitch: 'A buoy of copper.', ...more }],
    }),
  ).listingIds;
const look = (name: string) => windowOf(desk.made.ledger, name);
const ask = (url: string, host = 'shop.example.test'): Promise<ShopAnswer> =>
  new Shop(desk.made.ledger).answer({ method: 'GET', url, host, acceptLanguage: undefined });

describe('the window of a name', () => {
  test('shows what the office lists itself, by the name in whatever letters', async () => {
    await begin();
    await offer(COPPER);
    expect(await look('CopperBuoy.COM')).toEqual({
      nameId: id(COPPER),
      auctionId: null,
      ascii: COPPER,
      unicode: COPPER,
      pitch: 'A buoy of copper.',
      description: '',
      withSite: false,
      currency: 'USD',
      priceMinor: 60_000,
      takesOffers: true,
      minimumMinor: 20_000,
      auction: null,
    });
    expect((await ask('/', `www.${COPPER}:8443`)).body).toContain('Its price is US$600.');
  });

  test('shows what stands live at a marketplace, and not what is only on its way there', async () => {
    await begin();
    await desk.made.list([LARCH]);
    expect(await look(LARCH)).toBeNull();
    await desk.made.pass(4);
    expect(await look(LARCH)).toMatchObject({ priceMinor: 60_000 });
  });

  test('an auction of the office: how it stands, by the rules of auctions, and never its hidden reserve', async () => {
    await begin();
    await offer(COPPER, { kind: 'auction', prices: { start: 10_000, reserve: 30_000 } });
    expect((await look(COPPER))?.auction).toMatchObject({ priceMinor: null, leastMinor: 10_000, reserve: 'not met' });
    const { rows } = await desk.made.ledger.database.query<{ id: number }>('select id from auctions');
    for (const [bidder, max] of [
      ['one', '150'],
      ['two', '200'],
    ])
      must(await enterBid(desk.made.ledger, { auctionId: rows[0]?.id, bidder, max }));
    const stands = (await look(COPPER))?.auction;
    expect(stands?.priceMinor).toBeGreaterThan(15_000 - 1);
    expect(stands?.reserveMinor).toBeNull();
    const page = (await ask(`/n/${COPPER}`)).body;
    expect(page).toContain('The reserve is not met yet.');
    for (const hidden of ['$300', '$200', '>two']) expect(page).not.toContain(hidden);
  });
});

describe('nothing tells whether a name is ours', () => {
  test('one that is not for sale, one withdrawn, one promised and one of nobody answer the same', async () => {
    await begin();
    const [listingId] = await offer(COPPER);
    await offer(TIDE);
    must(await withdrawListingsById(desk.made.ledger, { listingIds: [listingId] }));
    const threadId = must(
      await enterOffer(desk.made.ledger, { nameId: id(TIDE), buyer: 'B. Kelp', amount: '450', currency: 'USD' }),
    );
    const figureId = (await threadsOf(desk.made.ledger, id(TIDE)))[0]?.figures.at(-1)?.id;
    must(await answerOffer(desk.made.ledger, { threadId, figureId, answer: 'accept' }));
    const answers = await Promise.all(
      [LARCH, COPPER, TIDE, 'nobodys-name.com', 'not a name', '[::1]', '127.0.0.1'].map((host) => ask('/', host)),
    );
    expect(new Set(answers.map((answer) => JSON.stringify(answer))).size).toBe(1);
    expect(answers[0]?.status).toBe(404);
  });
});

test('a rush asks the ledger once; a price that is changed shows two seconds later', async () => {
  await begin();
  await offer(COPPER);
  let asked = 0;
  const { database } = desk.made.ledger;
  const counted = new Proxy(database, {
    get: (of, key) => {
      if (key === 'query') asked += 1;
      const value = Reflect.get(of, key) as unknown;
      return typeof value === 'function' ? value.bind(of) : value;
    },
  });
  const shop = new Shop({ ...desk.made.ledger, database: counted });
  const rush = () =>
    Promise.all(
      Array.from({ length: 300 }, () => shop.answer({ method: 'GET', url: '/', host: COPPER, acceptLanguage: 'de' })),
    );
  expect((await rush()).every(({ status }) => status === 200)).toBe(true);
  const once = asked;
  await rush();
  expect(asked).toBe(once);
  expect(once).toBeLessThan(10);
  await offer(COPPER, { kind: 'fixed price', prices: { asking: 70_000 } });
  await vi.waitFor(async () => expect((await rush())[0]?.body).toContain('700'), { timeout: 10_000, interval: 100 });
});

test.each(['POST', 'PUT', 'DELETE', 'OPTIONS'])('%s is not taken', async (method) => {
  await begin();
  const answer = await new Shop(desk.made.ledger).answer({ method, url: '/', host: COPPER, acceptLanguage: undefined });
  expect([answer.status, answer.headers.allow]).toEqual([405, 'GET, HEAD']);
});
