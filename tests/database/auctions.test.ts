import { describe, expect, test } from 'vitest';
import { addDays, dayOf } from '@/core/time';
import { selectAuctions } from '@/database/auctions';
import { auctionView, changeReserve, closeDueAuctions, enterBid, offerToHighest } from '@/usecases/selling/auctions';
import { saveListings } from '@/usecases/selling/listings';
import { answerOffer, buyerAnswers, enterOffer, saveAnswerRule, threadsOf } from '@/usecases/selling/offers';
import { stepSale } from '@/usecases/selling/sales';
import { withdrawListingsById } from '@/usecases/selling/withdraw';
import { TODAY } from './ledger';
import { awaiting, LISTING, listingOf, must, sellingDesk } from './marketplace';

const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const [COPPER, LARCH, _TIDE] = NAMES;

const desk = sellingDesk(NAMES);
const { begin, id, at, sales } = desk;

describe('auctions', () => {
  const own = async (prices: object, name: string = COPPER) => {
    must(
      await saveListings(desk.made.ledger, {
        send: true,
        listings: [{ ...LISTING, nameId: id(name), kind: 'auction', prices }],
      }),
    );
    const all = await selectAuctions(desk.made.ledger.database, [id(name)]);
    return all.find(({ outcome }) => outcome === null)?.id as number;
  };

  test('of the office: bids at once come one after the other; closed on time though nobody looked', async () => {
    await begin();
    const auctionId = await own({ start: 10_000, reserve: 30_000 });
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        enterBid(desk.made.ledger, { auctionId, bidder: `bidder ${i}`, max: String(200 + i * 10) }),
      ),
    );
    expect(answers.some((answer) => !('code' in answer))).toBe(true);
    const [running] = await selectAuctions(desk.made.ledger.database, [id(COPPER)]);
    expect(running?.leader).toBe('bidder 19');
    expect(running?.bids.map(({ priceMinor }) => priceMinor)).toEqual(
      [...(running?.bids ?? [])].map(({ priceMinor }) => priceMinor).sort((a, b) => a - b),
    );
    // The program was down for a month.
    desk.made.ledger.setClock(addDays(TODAY, 40));
    expect(await closeDueAuctions(desk.made.ledger)).toBe(1);
    const [closed] = await selectAuctions(desk.made.ledger.database, [id(COPPER)]);
    expect(closed).toMatchObject({ outcome: { kind: 'sold', to: 'bidder 19' }, closedAt: running?.closesAt });
    expect(await closeDueAuctions(desk.made.ledger)).toBe(0);
    expect(await sales()).toMatchObject([{ how: 'bid', buyer: 'bidder 19', auctionId }]);
    expect(await enterBid(desk.made.ledger, { auctionId, bidder: 'late', max: '9000' })).toMatchObject({
      code: 'auction-closed',
    });
  });

  test('bought at once it is over: the bid after it is refused', async () => {
    await begin();
    const auctionId = await own({ start: 10_000, reserve: 30_000, buyNow: 80_000 });
    // Nothing written is neither a bid nor a purchase, and no reserve written does not take the reserve away.
    for (const max of [undefined, '', ' '])
      expect(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max })).toMatchObject({
        code: 'price-missing',
        field: 'max',
      });
    expect(await changeReserve(desk.made.ledger, { auctionId, reserve: '' })).toMatchObject({
      code: 'price-missing',
      field: 'reserve',
    });
    must(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '150' }));
    must(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ben', buyNow: true }));
    expect(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '700' })).toMatchObject({
      code: 'auction-closed',
    });
    expect(await sales()).toMatchObject([{ how: 'buy now', buyer: 'Ben', priceMinor: 80_000 }]);
  });

  test('not sold: the reserve may fall while it runs, and the name may be offered to the highest bidder', async () => {
    await begin();
    const auctionId = await own({ start: 10_000, reserve: 60_000 });
    must(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '350' }));
    expect(await changeReserve(desk.made.ledger, { auctionId, reserve: '700' })).toMatchObject({
      code: 'reserve-rises',
    });
    must(await changeReserve(desk.made.ledger, { auctionId, reserve: '500' }));
    expect(
      await withdrawListingsById(desk.made.ledger, { listingIds: [(await listingOf(desk.made, COPPER))?.id] }),
    ).toBe(0);
    desk.made.ledger.setClock(addDays(TODAY, 4.5));
    await closeDueAuctions(desk.made.ledger);
    expect(await awaiting(desk.made)).toContain(`auction unsold: ${COPPER}`);
    const threadId = must(
      await offerToHighest(desk.made.ledger, { auctionId, amount: '340', until: dayOf(addDays(TODAY, 9)) }),
    );
    expect(await awaiting(desk.made)).not.toContain(`auction unsold: ${COPPER}`);
    must(await buyerAnswers(desk.made.ledger, threadId, 'accept'));
    expect(await sales()).toMatchObject([{ buyer: 'Ann', priceMinor: 34_000 }]);
  });

  test('at the marketplace: bids are followed, one sells above its reserve and one does not', async () => {
    await begin();
    await desk.made.list([COPPER, LARCH], {
      kind: 'auction',
      auctionDays: 10,
      prices: { start: 10_000, reserve: 30_000 },
    });
    const bids = (name: string, max: number) =>
      desk.made.acts.set(name, [
        { at: at(5), buyer: 'Ann', do: 'bid', maxMinor: 15_000 },
        { at: at(5, 13), buyer: 'Ben', do: 'bid', maxMinor: max },
      ]);
    bids(COPPER, 40_000);
    bids(LARCH, 20_000);
    await desk.made.pass(6);
    const auctions = await selectAuctions(desk.made.ledger.database, null);
    expect(
      auctions.map(({ ascii, priceMinor, leader, reserveMet }) => [ascii, priceMinor, leader, reserveMet]).sort(),
    ).toEqual([
      [COPPER, 30_000, 'Ben', true],
      [LARCH, 15_500, 'Ben', false],
    ]);
    expect(auctions[0]?.bids.every(({ maxMinor }) => maxMinor === null)).toBe(true);
    await desk.made.pass(9);
    expect(await sales()).toMatchObject([{ ascii: COPPER, how: 'bid', buyer: 'Ben', priceMinor: 30_000 }]);
    const unsold = (await selectAuctions(desk.made.ledger.database, [id(LARCH)]))[0];
    expect(unsold?.outcome).toEqual({ kind: 'unsold', highest: 'Ben', priceMinor: 15_500 });
    desk.made.reply = { do: 'accept' };
    must(
      await offerToHighest(desk.made.ledger, {
        auctionId: unsold?.id,
        amount: '250',
        until: dayOf(addDays(TODAY, 30)),
      }),
    );
    await desk.made.pass(3);
    expect((await sales()).find(({ ascii }) => ascii === LARCH)).toMatchObject({
      how: 'offer',
      priceMinor: 25_000,
      buyer: 'Ben',
    });
  });

  test('its listing is not changed while it runs; a sale that falls through ends it', async () => {
    await begin();
    const auctionId = await own({ start: 10_000, buyNow: 80_000 });
    expect(
      await saveListings(desk.made.ledger, { send: true, listings: [{ ...LISTING, nameId: id(COPPER) }] }),
    ).toMatchObject({ code: 'auction-runs' });
    must(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ben', buyNow: true }));
    must(await stepSale(desk.made.ledger, { saleId: (await sales())[0]?.id, to: 'not paid' }));
    expect(await listingOf(desk.made, COPPER)).toBeUndefined();
    const again = await own({ start: 10_000 });
    expect(again).not.toBe(auctionId);
    must(await enterBid(desk.made.ledger, { auctionId: again, bidder: 'Cleo', max: '200' }));
  });

  test('a name is in one auction at a time', async () => {
    await begin();
    await desk.made.list([COPPER], { kind: 'auction', prices: { start: 10_000 } });
    await expect(own({ start: 10_000 })).rejects.toThrow('listings_one_auction');
  });
});

describe('selling beside an auction', () => {
  const database = () => desk.made.ledger.database;
  const auctionOf = async (name: string) => (await selectAuctions(database(), [id(name)])).at(-1);
  /** An auction of the office, and the same name open to offers at the marketplace. */
  const both = async (prices: object) => {
    await begin();
    const one = (more: object) => [{ ...LISTING, nameId: id(COPPER), ...more }];
    must(await saveListings(desk.made.ledger, { send: true, listings: one({ kind: 'auction', prices }) }));
    return (await auctionOf(COPPER))?.id as number;
  };
  const offer = async (amount: string, buyer = 'Cas') =>
    must(await enterOffer(desk.made.ledger, { nameId: id(COPPER), buyer, amount, currency: 'USD' }));
  const thread = async (threadId: number) =>
    (await threadsOf(desk.made.ledger, id(COPPER))).find((one) => one.id === threadId);

  test('while it has bids no rule answers an offer, and the owner is told to wait for the close', async () => {
    const auctionId = await both({ start: 10_000, reserve: 30_000, buyNow: 80_000 });
    must(await saveAnswerRule(desk.made.ledger, { isOn: true, acceptFrom: 5, counterDays: 7 }));
    must(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '455' }));
    const threadId = await offer('95');
    const waiting = await thread(threadId);
    expect(waiting?.state).toBe('open');
    expect(await sales()).toEqual([]);
    const accepted = await answerOffer(desk.made.ledger, {
      threadId,
      figureId: waiting?.figures[0]?.id,
      answer: 'accept',
    });
    expect(accepted).toMatchObject({ code: 'auction-has-bids' });
    expect((await thread(threadId))?.state).toBe('open');
    desk.made.ledger.setClock(addDays(TODAY, 4));
    await closeDueAuctions(desk.made.ledger);
    expect(await sales()).toMatchObject([{ buyer: 'Ann', how: 'bid', auctionId }]);
    expect((await thread(threadId))?.state).toBe('waiting');
  });

  test('an offer that reaches the buy-now price buys in the auction: one buyer, one sale, one outcome', async () => {
    const auctionId = await both({ start: 10_000, reserve: 30_000, buyNow: 80_000 });
    must(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '150' }));
    const threadId = await offer('900');
    expect(await sales()).toMatchObject([{ buyer: 'Cas', how: 'buy now', priceMinor: 80_000, auctionId }]);
    expect((await auctionOf(COPPER))?.outcome).toEqual({ kind: 'sold', to: 'Cas', priceMinor: 80_000, how: 'buy now' });
    expect((await thread(threadId))?.state).toBe('accepted');
    expect(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '700' })).toMatchObject({
      code: 'auction-closed',
    });
  });

  test('with the reserve met the buy-now price is over for offers too', async () => {
    const auctionId = await both({ start: 10_000, reserve: 30_000, buyNow: 80_000 });
    must(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '350' }));
    const threadId = await offer('900');
    expect((await thread(threadId))?.state).toBe('open');
    expect(await sales()).toEqual([]);
    expect((await auctionOf(COPPER))?.outcome).toBeNull();
  });

  test('an auction without bids ends when the name is promised elsewhere: no bid is taken any more', async () => {
    const auctionId = await both({ start: 10_000, reserve: 30_000 });
    const threadId = await offer('250');
    const figureId = (await thread(threadId))?.figures[0]?.id;
    must(await answerOffer(desk.made.ledger, { threadId, figureId, answer: 'accept' }));
    expect((await auctionOf(COPPER))?.outcome).toEqual({ kind: 'cancelled' });
    expect(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '500' })).toMatchObject({
      code: 'auction-closed',
    });
  });

  test('bids and acceptance at the same moment: either there is a bid and no sale, or a sale and no bid', async () => {
    const auctionId = await both({ start: 10_000, reserve: 30_000 });
    const threadId = await offer('250');
    const figureId = (await thread(threadId))?.figures[0]?.id;
    const answers = await Promise.all([
      ...Array.from({ length: 8 }, (_, i) =>
        enterBid(desk.made.ledger, { auctionId, bidder: `bidder ${i}`, max: String(200 + i * 10) }),
      ),
      answerOffer(desk.made.ledger, { threadId, figureId, answer: 'accept' }),
    ]);
    expect(answers).toHaveLength(9);
    const after = await auctionOf(COPPER);
    expect((await sales()).length).toBe(after?.bids.length === 0 ? 1 : 0);
  });

  test('a reserve is not lowered after the close: what was not sold is not sold afterwards', async () => {
    const auctionId = await both({ start: 10_000, reserve: 60_000 });
    must(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '350' }));
    desk.made.ledger.setClock(addDays(TODAY, 4.1));
    expect(await changeReserve(desk.made.ledger, { auctionId, reserve: '300' })).toMatchObject({
      code: 'auction-closed',
    });
    await closeDueAuctions(desk.made.ledger);
    expect((await auctionOf(COPPER))?.outcome).toMatchObject({ kind: 'unsold' });
  });

  test('bids are in whole units', async () => {
    const auctionId = await both({ start: 10_000, reserve: 60_000 });
    expect(await enterBid(desk.made.ledger, { auctionId, bidder: 'Ann', max: '350.50' })).toMatchObject({
      code: 'bid-not-whole',
      field: 'max',
    });
  });

  test('a followed auction names the next bid by the price that its marketplace shows', async () => {
    await begin();
    await desk.made.list([COPPER], { kind: 'auction', auctionDays: 10, prices: { start: 10_000, reserve: 30_000 } });
    desk.made.acts.set(COPPER, [
      { at: at(5), buyer: 'Ann', do: 'bid', maxMinor: 363_500 },
      { at: at(5, 13), buyer: 'Ben', do: 'bid', maxMinor: 276_000 },
      { at: at(5, 14), buyer: 'Ben', do: 'bid', maxMinor: 363_500 },
    ]);
    await desk.made.pass(6);
    const view = await auctionView(desk.made.ledger, (await auctionOf(COPPER))?.id as number);
    expect(view?.standing).toMatchObject({ priceMinor: 363_500, leastMinor: 368_500 });
    // A marketplace that names no next bid: a usual step above what it shows.
    await database().query('update auctions set next_minor = null');
    const silent = await auctionView(desk.made.ledger, (await auctionOf(COPPER))?.id as number);
    expect(silent?.standing.leastMinor).toBe(368_500);
  });
});
