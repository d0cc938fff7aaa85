import { afterEach, describe, expect, test } from 'vitest';
import { addDays, dayOf, HOUR_MS } from '@/core/time';
import { selectAuctions } from '@/database/auctions';
import { selectSales } from '@/database/sales';
import { changeReserve, closeDueAuctions, enterBid, offerToHighest } from '@/usecases/selling/auctions';
import { saveListings, withdrawListingsById } from '@/usecases/selling/listings';
import { buyerAnswers } from '@/usecases/selling/offers';
import { stepSale } from '@/usecases/selling/sales';
import { TODAY } from './ledger';
import { awaiting, LISTING, listingOf, must, type SellingLedger, sellingLedger } from './venue';

const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const [COPPER, LARCH, _TIDE] = NAMES;

let made: SellingLedger;
afterEach(() => made?.close());
const begin = async () => {
  made = await sellingLedger(NAMES);
  return made;
};
const id = (name: string) => made.ids.get(name) as number;
const at = (days: number, hours = 12) => addDays(TODAY, days) + hours * HOUR_MS - (TODAY % 86_400_000);
const sales = () => selectSales(made.ledger.database);

describe('auctions', () => {
  const own = async (prices: object, name: string = COPPER) => {
    must(
      await saveListings(made.ledger, {
        send: true,
        listings: [{ ...LISTING, nameId: id(name), kind: 'auction', prices }],
      }),
    );
    const all = await selectAuctions(made.ledger.database, [id(name)]);
    return all.find(({ outcome }) => outcome === null)?.id as number;
  };

  test('of the office: bids at once come one after the other; closed on time though nobody looked', async () => {
    await begin();
    const auctionId = await own({ start: '100', reserve: '300' });
    const answers = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        enterBid(made.ledger, { auctionId, bidder: `bidder ${i}`, max: String(200 + i * 10) }),
      ),
    );
    expect(answers.some((answer) => !('code' in answer))).toBe(true);
    const [running] = await selectAuctions(made.ledger.database, [id(COPPER)]);
    expect(running?.leader).toBe('bidder 19');
    expect(running?.bids.map(({ priceMinor }) => priceMinor)).toEqual(
      [...(running?.bids ?? [])].map(({ priceMinor }) => priceMinor).sort((a, b) => a - b),
    );
    // The program was down for a month.
    made.ledger.setClock(addDays(TODAY, 40));
    expect(await closeDueAuctions(made.ledger)).toBe(1);
    const [closed] = await selectAuctions(made.ledger.database, [id(COPPER)]);
    expect(closed).toMatchObject({ outcome: { kind: 'sold', to: 'bidder 19' }, closedAt: running?.closesAt });
    expect(await closeDueAuctions(made.ledger)).toBe(0);
    expect(await sales()).toMatchObject([{ how: 'bid', buyer: 'bidder 19', auctionId }]);
    expect(await enterBid(made.ledger, { auctionId, bidder: 'late', max: '9000' })).toMatchObject({
      code: 'auction-closed',
    });
  });

  test('bought at once it is over: the bid after it is refused', async () => {
    await begin();
    const auctionId = await own({ start: '100', reserve: '300', buyNow: '800' });
    must(await enterBid(made.ledger, { auctionId, bidder: 'Ann', max: '150' }));
    must(await enterBid(made.ledger, { auctionId, bidder: 'Ben' }));
    expect(await enterBid(made.ledger, { auctionId, bidder: 'Ann', max: '700' })).toMatchObject({
      code: 'auction-closed',
    });
    expect(await sales()).toMatchObject([{ how: 'buy now', buyer: 'Ben', priceMinor: 80_000 }]);
  });

  test('not sold: the reserve may fall while it runs, and the name may be offered to the highest bidder', async () => {
    await begin();
    const auctionId = await own({ start: '100', reserve: '600' });
    must(await enterBid(made.ledger, { auctionId, bidder: 'Ann', max: '350' }));
    expect(await changeReserve(made.ledger, { auctionId, reserve: '700' })).toMatchObject({ code: 'reserve-rises' });
    must(await changeReserve(made.ledger, { auctionId, reserve: '500' }));
    expect(await withdrawListingsById(made.ledger, { listingIds: [(await listingOf(made, COPPER))?.id] })).toBe(0);
    made.ledger.setClock(addDays(TODAY, 3.5));
    await closeDueAuctions(made.ledger);
    expect(await awaiting(made)).toContain(`auction unsold: ${COPPER}`);
    const threadId = must(
      await offerToHighest(made.ledger, { auctionId, amount: '340', until: dayOf(addDays(TODAY, 9)) }),
    );
    expect(await awaiting(made)).not.toContain(`auction unsold: ${COPPER}`);
    must(await buyerAnswers(made.ledger, threadId, 'accept'));
    expect(await sales()).toMatchObject([{ buyer: 'Ann', priceMinor: 34_000 }]);
  });

  test('at the venue: bids are followed, one sells above its reserve and one does not', async () => {
    await begin();
    await made.list([COPPER, LARCH], { kind: 'auction', auctionDays: 7, prices: { start: '100', reserve: '300' } });
    const bids = (name: string, max: number) =>
      made.acts.set(name, [
        { at: at(5), buyer: 'Ann', do: 'bid', maxMinor: 15_000 },
        { at: at(5, 13), buyer: 'Ben', do: 'bid', maxMinor: max },
      ]);
    bids(COPPER, 40_000);
    bids(LARCH, 20_000);
    await made.pass(6);
    const auctions = await selectAuctions(made.ledger.database, null);
    expect(
      auctions.map(({ ascii, priceMinor, leader, reserveMet }) => [ascii, priceMinor, leader, reserveMet]).sort(),
    ).toEqual([
      [COPPER, 30_000, 'Ben', true],
      [LARCH, 15_500, 'Ben', false],
    ]);
    expect(auctions[0]?.bids.every(({ maxMinor }) => maxMinor === null)).toBe(true);
    await made.pass(6);
    expect(await sales()).toMatchObject([{ ascii: COPPER, how: 'bid', buyer: 'Ben', priceMinor: 30_000 }]);
    const unsold = (await selectAuctions(made.ledger.database, [id(LARCH)]))[0];
    expect(unsold?.outcome).toEqual({ kind: 'unsold', highest: 'Ben', priceMinor: 15_500 });
    made.reply = { do: 'accept' };
    must(await offerToHighest(made.ledger, { auctionId: unsold?.id, amount: '250', until: dayOf(addDays(TODAY, 30)) }));
    await made.pass(3);
    expect((await sales()).find(({ ascii }) => ascii === LARCH)).toMatchObject({
      how: 'offer',
      priceMinor: 25_000,
      buyer: 'Ben',
    });
  });

  test('its listing is not changed while it runs; a sale that falls through ends it', async () => {
    await begin();
    const auctionId = await own({ start: '100', buyNow: '800' });
    expect(
      await saveListings(made.ledger, { send: true, listings: [{ ...LISTING, nameId: id(COPPER) }] }),
    ).toMatchObject({ code: 'auction-runs' });
    must(await enterBid(made.ledger, { auctionId, bidder: 'Ben' }));
    must(await stepSale(made.ledger, { saleId: (await sales())[0]?.id, to: 'not paid' }));
    expect(await listingOf(made, COPPER)).toBeUndefined();
    const again = await own({ start: '100' });
    expect(again).not.toBe(auctionId);
    must(await enterBid(made.ledger, { auctionId: again, bidder: 'Cleo', max: '200' }));
  });

  test('a name is in one auction at a time', async () => {
    await begin();
    await made.list([COPPER], { kind: 'auction', prices: { start: '100' } });
    await expect(own({ start: '100' })).rejects.toThrow('listings_one_auction');
  });
});
