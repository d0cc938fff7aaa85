import { afterAll, beforeAll, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { addDays, HOUR_MS, type Instant } from '@/core/time';
import { selectAuctions } from '@/database/auctions';
import { selectSales } from '@/database/sales';
import { closeDueAuctions, enterBid } from '@/usecases/selling/auctions';
import { saveListings } from '@/usecases/selling/listings';
import { answerOffer, enterOffer, saveAnswerRule, threadsOf } from '@/usecases/selling/offers';
import { chanceFrom } from '../../practice/scenario/chance';
import { TODAY } from './ledger';
import { LISTING, must, type SellingLedger, sellingLedger } from './marketplace';

/** A few here; `npm run soak` runs all 400. */
const SCHEDULES = process.env.SOAK ? 400 : 40;
const NAMES = Array.from({ length: SCHEDULES }, (_, i) => `brinegavel${i}.com`);
const DAYS = 3;
const START = 100;

let made: SellingLedger;
beforeAll(async () => {
  made = await sellingLedger(NAMES);
  must(await saveAnswerRule(made.ledger, { isOn: true, acceptFrom: 90, counterWith: 95, counterDays: 2 }));
}, 60_000);
afterAll(() => made?.close());

/** What somebody who only writes down what is said aloud in the room would know of an auction. */
interface Room {
  readonly reserve: number | null;
  readonly buyNow: number | null;
  /** Maxima in the order in which they were taken. */
  readonly bids: { readonly who: string; readonly max: number }[];
  sold: { readonly to: string; readonly for: number } | null;
}

/** The step at a price, written out by hand. */
function step(price: number): number {
  if (price >= 10_000) return 250;
  if (price >= 5000) return 100;
  if (price >= 2500) return 50;
  if (price >= 1000) return 25;
  if (price >= 500) return 10;
  return price >= 100 ? 5 : 1;
}

/** Who would lead, and for how much, if each answered the other's call until one falls silent. */
function called({ bids, reserve }: Room): { who: string; price: number; met: boolean } | null {
  const best = new Map<string, { max: number; turn: number }>();
  for (const [turn, { who, max }] of bids.entries()) best.set(who, { max, turn });
  const [first, second] = [...best].sort((a, b) => b[1].max - a[1].max || a[1].turn - b[1].turn);
  if (!first) return null;
  let price = second ? Math.min(first[1].max, second[1].max + step(second[1].max)) : START;
  const met = reserve === null || first[1].max >= reserve;
  if (met && reserve !== null) price = Math.max(price, reserve);
  return { who: first[0], price, met };
}

test(`${SCHEDULES} auctions with bids, offers and a rule beside them: one buyer, one price, never two sales`, async () => {
  const { ledger } = made;
  const rooms = new Map<string, Room>();
  for (const [seed, name] of NAMES.entries()) {
    const { next: chance } = chanceFrom(seed + 1);
    const whole = (from: number, to: number) => from + Math.floor(chance() * (to - from));
    const nameId = made.ids.get(name) as number;
    const reserve = chance() < 0.6 ? whole(150, 600) : null;
    const buyNow = chance() < 0.6 ? whole(700, 1200) : null;
    ledger.setClock(TODAY);
    must(
      await saveListings(ledger, {
        send: true,
        listings: [
          {
            ...LISTING,
            nameId,
            kind: 'auction',
            auctionDays: DAYS,
            prices: {
              start: START * 100,
              ...(reserve === null ? {} : { reserve: reserve * 100 }),
              ...(buyNow === null ? {} : { buyNow: buyNow * 100 }),
            },
          },
        ],
      }),
    );
    const auctionId = (await selectAuctions(ledger.database, [nameId]))[0]?.id as number;
    const room: Room = { reserve, buyNow, bids: [], sold: null };
    rooms.set(name, room);
    const open = () => (reserve !== null ? !(called(room)?.met ?? false) : room.bids.length === 0);
    let hours = 1;
    for (let i = 0; i < 9; i += 1) {
      hours += 1 + whole(0, 6);
      ledger.setClock((addDays(TODAY, 0) + hours * HOUR_MS) as Instant);
      const who = `buyer ${whole(0, 3)}`;
      const amount = whole(80, 1300);
      if (chance() < 0.55) {
        const taken = await enterBid(ledger, { auctionId, bidder: who, max: String(amount) });
        if (isRefusal(taken)) continue;
        // A bid that is taken means that the name was not sold, and could not have been bought for it.
        expect(room.sold).toBeNull();
        expect(buyNow !== null && open() && amount >= buyNow).toBe(false);
        room.bids.push({ who, max: amount });
        continue;
      }
      const hadBids = room.bids.length > 0;
      const canBuy = buyNow !== null && amount >= buyNow && open() && room.sold === null;
      const threadId = must(await enterOffer(ledger, { nameId, buyer: who, amount: String(amount), currency: 'USD' }));
      if (canBuy) room.sold = { to: who, for: buyNow };
      const thread = (await threadsOf(ledger, nameId)).find(({ id }) => id === threadId);
      expect([name, i, thread?.state === 'accepted']).toEqual([name, i, canBuy]);
      // No rule counters or accepts at an auction; the owner says yes to every third offer.
      expect(thread?.figures.some(({ byRule }) => byRule)).toBe(false);
      if (thread?.state !== 'open' || chance() > 0.34) continue;
      const answer = await answerOffer(ledger, { threadId, figureId: thread.figures[0]?.id, answer: 'accept' });
      if (hadBids || room.sold) expect(answer).toMatchObject({ kind: 'refusal' });
      else {
        must(answer);
        room.sold = { to: who, for: amount };
      }
    }
  }
  ledger.setClock(addDays(TODAY, DAYS + 2));
  await closeDueAuctions(ledger);
  const sales = await selectSales(ledger.database);
  for (const [name, room] of rooms) {
    const own = sales.filter(({ ascii }) => ascii === name);
    const hammer = called(room);
    const expected = room.sold ?? (hammer?.met ? { to: hammer.who, for: hammer.price } : null);
    expect([name, own.map(({ buyer, priceMinor }) => ({ to: buyer, for: priceMinor / 100 }))]).toEqual([
      name,
      expected === null ? [] : [expected],
    ]);
  }
  expect(sales.length).toBeGreaterThan(SCHEDULES / 4);
}, 120_000);
