import { afterEach, describe, expect, test } from 'vitest';
import { addDays, dayOf, HOUR_MS } from '@/core/time';
import { selectAuctions } from '@/database/auctions';
import { selectSales } from '@/database/sales';
import { makeBackup, restoreBackup } from '@/usecases/backup/backup';
import { removeLink } from '@/usecases/links/links';
import { undo } from '@/usecases/names/undo';
import { drainChecks } from '@/usecases/records/check';
import { changeReserve, closeDueAuctions, enterBid, offerToHighest } from '@/usecases/selling/auctions';
import { bringInSales, pastSales } from '@/usecases/selling/comparables';
import { followSelling } from '@/usecases/selling/follow';
import { markSeenLive, saveListings, sendListings, withdrawListingsById } from '@/usecases/selling/listings';
import { listingsCsv } from '@/usecases/selling/listingsCsv';
import {
  answerOffer,
  buyerAnswers,
  enterOffer,
  lapseOffers,
  saveAnswerRule,
  threadsOf,
} from '@/usecases/selling/offers';
import { pastedNames } from '@/usecases/selling/pricing';
import { proveAtVenue } from '@/usecases/selling/prove';
import { listingLines, sellingAgenda, sellingReport, sellingToday } from '@/usecases/selling/report';
import { handOver, stepSale } from '@/usecases/selling/sales';
import { soldList, statementOf } from '@/usecases/selling/statement';
import { saveRate, saveVenue, saveVenueLink, testVenue, venues } from '@/usecases/selling/venues';
import { emptyLedger, TODAY } from './ledger';
import { LISTING, listingOf, must, type SellingLedger, sellingLedger } from './venue';

const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const [COPPER, LARCH, TIDE] = NAMES;

let made: SellingLedger;
afterEach(() => made?.close());
const begin = async () => {
  made = await sellingLedger(NAMES);
  return made;
};
const id = (name: string) => made.ids.get(name) as number;
const at = (days: number, hours = 12) => addDays(TODAY, days) + hours * HOUR_MS - (TODAY % 86_400_000);
const sales = () => selectSales(made.ledger.database);
const agenda = async () => (await sellingAgenda(made.ledger)).map(({ kind, ascii }) => `${kind}: ${ascii}`);
const money = async () =>
  (
    await made.ledger.database.query<{ kind: string; minor: number }>(
      "select kind, minor from entries where kind in ('sale', 'commission', 'listing fee') order by id",
    )
  ).rows;

describe('listing at a venue', () => {
  test('the registrar’s link sets the proof; the venue asks DNS for it, reviews, and the name is live', async () => {
    await begin();
    await made.list([COPPER]);
    expect(await listingOf(made, COPPER)).toMatchObject({
      status: 'in review',
      proofBy: 'txt',
      proofHost: COPPER,
      proofSetAt: TODAY,
    });
    expect(made.world.texts.get(COPPER)).toEqual([(await listingOf(made, COPPER))?.proofText]);
    await made.pass(4);
    expect(await listingOf(made, COPPER)).toMatchObject({ status: 'live', reviewUntil: null });
    expect((await listingOf(made, COPPER))?.seenLiveAt).not.toBeNull();
    // What is asked stands in the ledger.
    const { rows } = await made.ledger.database.query('select purpose, asking_minor from names where id = $1', [
      id(COPPER),
    ]);
    expect(rows).toEqual([{ purpose: 'for sale', asking_minor: 50_000 }]);
  });

  test('without a link the record is told, and looked for when it was set by hand', async () => {
    await begin();
    await removeLink(made.ledger, made.accountId);
    await made.list([COPPER]);
    const listing = await listingOf(made, COPPER);
    expect(listing).toMatchObject({
      status: 'unproved',
      proofSetAt: null,
      proofText: expect.stringMatching(/^proof=/),
    });
    expect(await agenda()).toContain(`proof missing: ${COPPER}`);
    if (!listing?.proofText) throw new Error('no proof');
    expect(await proveAtVenue(made.ledger, listing, 'txt', null)).toBe('The record is not in the zone yet.');
    made.world.texts.set(COPPER, ['v=spf1 -all', listing.proofText]);
    expect(await proveAtVenue(made.ledger, listing, 'txt', null)).toBeNull();
    expect(await listingOf(made, COPPER)).toMatchObject({ status: 'in review', proofBy: 'txt' });
  });

  test('a record that was set by hand is found without being asked for, ten minutes later', async () => {
    await begin();
    await removeLink(made.ledger, made.accountId);
    await made.list([COPPER]);
    const listing = await listingOf(made, COPPER);
    made.world.texts.set(COPPER, [listing?.proofText ?? '']);
    await followSelling(made.ledger);
    expect((await listingOf(made, COPPER))?.status).toBe('unproved');
    made.ledger.setClock((TODAY + 10 * 60_000) as typeof TODAY);
    await followSelling(made.ledger);
    expect((await listingOf(made, COPPER))?.status).toBe('in review');
  });

  test('a fee for listing is booked once, when it is first sent; an account at the venue needs no proof', async () => {
    await begin();
    const [hall] = await venues(made.ledger);
    const venueId = must(
      await saveVenue(made.ledger, {
        ...hallForm(hall as NonNullable<typeof hall>),
        label: 'By Hand',
        listingFeeMinor: 500,
        categoryMinor: 200,
        categories: ['Sea', 'Trade'],
        placements: [{ label: 'first page', minor: 4000 }],
        accountId: made.accountId,
      }),
    );
    const list = () =>
      saveListings(made.ledger, {
        venueId,
        send: true,
        listings: [{ ...LISTING, nameId: id(TIDE), categories: ['Sea', 'Trade'], placement: 'first page' }],
      });
    must(await list());
    must(await list());
    expect(await money()).toEqual([{ kind: 'listing fee', minor: 4700 }]);
    expect(await listingOf(made, TIDE)).toMatchObject({ status: 'in review', proofBy: 'account' });
  });

  test('a pasted list finds the names of the ledger and says what it does not know', async () => {
    await begin();
    expect(await pastedNames(made.ledger, `${COPPER}, ${TIDE}\nstranger.com\nno name here`)).toMatchObject({
      nameIds: [id(COPPER), id(TIDE)],
      unknown: expect.arrayContaining(['stranger.com']),
    });
    expect(await pastedNames(made.ledger, '  ')).toMatchObject({ code: 'no-names' });
  });

  test('or by a code that the venue mails to the registrant', async () => {
    await begin();
    await removeLink(made.ledger, made.accountId);
    await made.list([LARCH]);
    const listing = await listingOf(made, LARCH);
    if (!listing) throw new Error('not listed');
    await proveAtVenue(made.ledger, listing, 'mail', null);
    const [mail] = made.practice.mails;
    expect(mail).toMatchObject({ to: 'names@harbour-office.test', subject: `The proof for ${LARCH}` });
    expect(await proveAtVenue(made.ledger, listing, 'mail', 'another')).toBe('The code is another.');
    expect(
      await proveAtVenue(made.ledger, listing, 'mail', /\n([0-9a-f]{8})\n/.exec(`${mail?.text}\n`)?.[1] ?? ''),
    ).toBeNull();
    expect(await listingOf(made, LARCH)).toMatchObject({ proofBy: 'mail', status: 'in review' });
  });

  test('what is wrong is kept as a draft and told; what is fine goes', async () => {
    await begin();
    const listed = must(
      await saveListings(made.ledger, {
        venueId: made.venueId,
        send: true,
        listings: [
          { ...LISTING, nameId: id(COPPER) },
          { ...LISTING, nameId: id(LARCH), prices: { minimum: '700', asking: '500' } },
        ],
      }),
    );
    expect(listed).toMatchObject({ sent: 1, stopped: [{ ascii: LARCH, findings: [{ code: 'order of prices' }] }] });
    expect((await listingOf(made, LARCH))?.status).toBe('draft');
    expect(
      await saveListings(made.ledger, { venueId: 99, send: true, listings: [{ ...LISTING, nameId: id(COPPER) }] }),
    ).toMatchObject({ code: 'venue-unknown' });
    expect(
      await saveListings(made.ledger, {
        send: true,
        listings: [{ ...LISTING, nameId: id(COPPER), prices: { asking: '-5' } }],
      }),
    ).toMatchObject({ code: 'price-invalid' });
    expect(await saveListings(made.ledger, { send: true, listings: [{ ...LISTING, nameId: 9999 }] })).toMatchObject({
      code: 'name-not-in-ledger',
    });
    expect(await saveListings(made.ledger, { send: true, listings: [] })).toMatchObject({ kind: 'refusal' });
  });

  test.each(['slow', 'cut', 'garbage', 'busy', 'result lost'] as const)(
    '%s: asked again, and listed once',
    async (fault) => {
      await begin();
      made.practice.faults.set('venue', fault, fault === 'slow' ? 0 : 1);
      await made.list([COPPER]);
      if (fault !== 'slow') expect((await venues(made.ledger))[0]?.linkProblem).toContain('did not answer');
      await followSelling(made.ledger);
      expect((await listingOf(made, COPPER))?.status).toBe('in review');
      expect((await venues(made.ledger))[0]?.linkProblem).toBeNull();
      expect(Object.keys(made.world.market.listings)).toEqual([COPPER]);
    },
  );

  test('what the review refuses is told with its reason, and can be mended and sent again', async () => {
    await begin();
    await made.list([COPPER], { adult: true });
    await made.pass(4);
    expect(await listingOf(made, COPPER)).toMatchObject({
      status: 'refused',
      problem: 'This venue shows nothing that is for adults only.',
    });
    expect(await agenda()).toContain(`listing refused: ${COPPER}`);
    await made.list([COPPER]);
    await made.pass(4);
    expect(await listingOf(made, COPPER)).toMatchObject({ status: 'live', problem: null });
  });

  test('withdrawn there and here; a key that is refused is told', async () => {
    await begin();
    const listingIds = await made.list([COPPER]);
    expect(await withdrawListingsById(made.ledger, { listingIds })).toBe(1);
    await followSelling(made.ledger);
    expect(await listingOf(made, COPPER)).toBeUndefined();
    expect(made.world.market.listings[COPPER]?.status).toBe('withdrawn');
    expect(await testVenue(made.ledger, made.venueId)).toBe('Cordage Hall');
    must(
      await saveVenueLink(made.ledger, {
        venueId: made.venueId,
        url: `http://127.0.0.1:${made.practice.venuePort}`,
        key: 'wrong',
      }),
    );
    expect(await testVenue(made.ledger, made.venueId)).toMatchObject({
      message: 'The venue refused: The key is not one of ours.',
    });
    expect(
      await saveVenueLink(made.ledger, { venueId: made.venueId, url: 'http://venue.example', key: 'k' }),
    ).toMatchObject({ code: 'venue-address' });
  });

  test('a venue without a link: its own columns as CSV, seen live by looking, asked again after the review', async () => {
    await begin();
    const [hall] = await venues(made.ledger);
    const venueId = must(
      await saveVenue(made.ledger, {
        ...hallForm(hall as NonNullable<typeof hall>),
        label: 'By Hand',
        csvColumns: [
          { heading: 'Item', field: 'name' },
          { heading: 'Price', field: 'asking' },
        ],
      }),
    );
    const { listingIds } = must(
      await saveListings(made.ledger, { venueId, send: true, listings: [{ ...LISTING, nameId: id(TIDE) }] }),
    );
    expect(await listingsCsv(made.ledger, venueId)).toBe('Item,Price\r\ntidewick.com,500\r\n');
    expect(await agenda()).not.toContain(`to be seen live: ${TIDE}`);
    made.ledger.setClock(addDays(TODAY, 3));
    expect(await agenda()).toContain(`to be seen live: ${TIDE}`);
    expect(await markSeenLive(made.ledger, { listingIds })).toBe(1);
    expect(await listingOf(made, TIDE)).toMatchObject({ status: 'live', proofBy: 'by hand' });
    expect(await agenda()).not.toContain(`to be seen live: ${TIDE}`);
  });
});

function hallForm(row: Awaited<ReturnType<typeof venues>>[number]) {
  const { id: _, linkUrl, linkCursor, linkReadAt, linkProblem, ...form } = row;
  return form;
}

describe('offers', () => {
  const live = async () => {
    await begin();
    await made.list([COPPER]);
    await made.pass(4);
  };
  const thread = async () => (await threadsOf(made.ledger, id(COPPER)))[0];
  const lastFigure = async () => (await thread())?.figures.at(-1);

  test('an offer is countered, the counter accepted, the money seen through, the books closed', async () => {
    await live();
    made.acts.set(COPPER, [{ at: at(5), buyer: 'Oda Fennimore', do: 'offer', minor: 30_000, days: 7 }]);
    made.reply = { do: 'accept' };
    await made.pass(2);
    expect(await agenda()).toContain(`offer to answer: ${COPPER}`);
    expect((await sellingToday(made.ledger)).items.map(({ kind }) => kind)).toContain('offer to answer');
    const figure = await lastFigure();
    must(
      await answerOffer(made.ledger, {
        threadId: (await thread())?.id,
        figureId: figure?.id,
        answer: 'counter',
        amount: '450',
      }),
    );
    await made.pass(3);
    const [sale] = await sales();
    expect(sale).toMatchObject({ how: 'offer', priceMinor: 45_000, buyer: 'Oda Fennimore', toTell: null });
    expect((await thread())?.state).toBe('accepted');
    await made.pass(4);
    expect((await sales())[0]).toMatchObject({ stage: 'buyer known' });
    expect(await agenda()).toContain(`handover: ${COPPER}`);
    const handed = must(await handOver(made.ledger, { saleId: sale?.id, byHand: false }));
    expect(handed.stage).toBe('handed over');
    await made.pass(9);
    expect((await sales())[0]).toMatchObject({ stage: 'done', commissionMinor: 6750 });
    expect(await money()).toEqual([
      { kind: 'sale', minor: -45_000 },
      { kind: 'commission', minor: 6750 },
    ]);
    expect(made.world.market.paidOut).toEqual({ USD: 38_250 });
    const { rows } = await made.ledger.database.query('select gone_at is not null as gone from names where id = $1', [
      id(COPPER),
    ]);
    expect(rows).toEqual([{ gone: true }]);
    // It has left the office for good, and the act cannot be undone.
    expect(made.world.domains.get(COPPER)).toMatchObject({ owner: 'stranger', holder: 'Oda Fennimore' });
    const { rows: batches } = await made.ledger.database.query<{ id: number }>(
      "select id from batches where kind = 'sale'",
    );
    expect(await undo(made.ledger, batches[0]?.id ?? 0)).toMatchObject({ code: 'undo-sale' });
    expect(
      await enterOffer(made.ledger, { nameId: id(COPPER), buyer: 'Late', amount: '900', currency: 'USD' }),
    ).toMatchObject({ code: 'name-not-in-ledger' });
  });

  test('declined: told at the venue, and the thread is closed', async () => {
    await live();
    made.acts.set(COPPER, [{ at: at(5), buyer: 'Oda Fennimore', do: 'offer', minor: 30_000, days: 7 }]);
    await made.pass(2);
    must(
      await answerOffer(made.ledger, {
        threadId: (await thread())?.id,
        figureId: (await lastFigure())?.id,
        answer: 'decline',
      }),
    );
    await followSelling(made.ledger);
    expect(Object.values(made.world.market.threads)[0]?.open).toBe(false);
    expect((await thread())?.state).toBe('declined');
  });

  test('what nobody answers lapses on its date', async () => {
    await live();
    made.acts.set(COPPER, [{ at: at(5), buyer: 'Oda Fennimore', do: 'offer', minor: 30_000, days: 3 }]);
    await made.pass(3);
    const figure = await lastFigure();
    expect(figure?.state).toBe('live');
    await made.pass(3);
    expect((await lastFigure())?.state).toBe('lapsed');
    expect(
      await answerOffer(made.ledger, { threadId: (await thread())?.id, figureId: figure?.id, answer: 'accept' }),
    ).toMatchObject({ kind: 'refusal' });
    expect(await sales()).toEqual([]);
  });

  test('by hand: below the minimum declined at once, at the minimum open, at the buy-now price a purchase', async () => {
    await begin();
    must(await saveListings(made.ledger, { send: true, listings: [{ ...LISTING, nameId: id(COPPER) }] }));
    const offer = (amount: string, buyer: string) =>
      enterOffer(made.ledger, { nameId: id(COPPER), buyer, amount, currency: 'USD', until: dayOf(addDays(TODAY, 5)) });
    must(await offer('199', 'Low'));
    expect((await thread())?.state).toBe('declined');
    must(await offer('200', 'Even'));
    expect((await thread())?.state).toBe('open');
    const { rows: best } = await made.ledger.database.query(
      'select best_offer_minor as minor from names where id = $1',
      [id(COPPER)],
    );
    expect(best).toEqual([{ minor: 20_000 }]);
    must(await offer('900', 'High'));
    expect((await thread())?.state).toBe('accepted');
    expect(await sales()).toMatchObject([{ priceMinor: 60_000, buyer: 'High', how: 'offer' }]);
    // The other thread waits until that is paid or fails.
    const even = (await threadsOf(made.ledger, id(COPPER))).find(({ buyer }) => buyer === 'Even');
    expect(even?.state).toBe('waiting');
    expect(
      await answerOffer(made.ledger, { threadId: even?.id, figureId: even?.figures[0]?.id, answer: 'accept' }),
    ).toMatchObject({ code: 'name-promised' });
    must(await stepSale(made.ledger, { saleId: (await sales())[0]?.id, to: 'not paid' }));
    expect((await threadsOf(made.ledger, id(COPPER))).find(({ buyer }) => buyer === 'Even')?.state).toBe('open');
    expect((await listingOf(made, COPPER))?.status).toBe('draft');
    expect(await sendListings(made.ledger, { listingIds: [(await listingOf(made, COPPER))?.id] })).toBe(1);
    must(await answerOffer(made.ledger, { threadId: even?.id, figureId: even?.figures[0]?.id, answer: 'accept' }));
    expect((await sales()).map(({ stage }) => stage)).toEqual(['agreed', 'not paid']);
  });

  test('a thread by hand: counter, the buyer says yes; only the other side answers a figure', async () => {
    await begin();
    const threadId = must(
      await enterOffer(made.ledger, { nameId: id(TIDE), buyer: 'Ivo', amount: '300', currency: 'USD' }),
    );
    const [first] = await threadsOf(made.ledger, id(TIDE));
    const figureId = first?.figures[0]?.id;
    expect(await answerOffer(made.ledger, { threadId, figureId, answer: 'counter', amount: '250' })).toMatchObject({
      code: 'counter-too-low',
    });
    expect(await buyerAnswers(made.ledger, threadId, 'accept')).toMatchObject({ code: 'own-figure' });
    const countered = must(
      await answerOffer(made.ledger, {
        threadId,
        figureId,
        answer: 'counter',
        amount: '420',
        until: dayOf(addDays(TODAY, 2)),
      }),
    );
    expect(
      await answerOffer(made.ledger, { threadId, figureId: countered.figures[1]?.id, answer: 'accept' }),
    ).toMatchObject({ code: 'own-figure' });
    expect(await answerOffer(made.ledger, { threadId, figureId, answer: 'accept' })).toMatchObject({
      code: 'figure-answered',
    });
    must(await buyerAnswers(made.ledger, threadId, 'accept'));
    expect(await sales()).toMatchObject([{ priceMinor: 42_000 }]);
    expect(await buyerAnswers(made.ledger, threadId, 'accept')).toMatchObject({ kind: 'refusal' });
    made.ledger.setClock(addDays(TODAY, 9));
    await lapseOffers(made.ledger);
    expect(await sales()).toHaveLength(1);
  });

  test('by rule: accepted from a share of the asking price, countered once below it', async () => {
    await begin();
    must(await saveAnswerRule(made.ledger, { isOn: true, acceptFrom: 90, counterWith: 80, counterDays: 5 }));
    expect(await saveAnswerRule(made.ledger, { isOn: true, counterDays: 5 })).toMatchObject({ code: 'rule-empty' });
    must(
      await saveListings(made.ledger, {
        send: true,
        listings: [COPPER, LARCH].map((name) => ({ ...LISTING, nameId: id(name) })),
      }),
    );
    const offer = (name: string, amount: string, threadId?: number) =>
      enterOffer(made.ledger, {
        nameId: id(name),
        ...(threadId ? { threadId } : {}),
        buyer: 'Ann',
        amount,
        currency: 'USD',
      });
    const threadId = must(await offer(COPPER, '300'));
    expect((await thread())?.figures.map(({ by, minor, byRule }) => [by, minor, byRule])).toEqual([
      ['buyer', 30_000, false],
      ['owner', 40_000, true],
    ]);
    must(await offer(COPPER, '350', threadId));
    expect(await lastFigure()).toMatchObject({ by: 'buyer', state: 'live' });
    must(await offer(LARCH, '450'));
    expect(await sales()).toMatchObject([{ ascii: LARCH, priceMinor: 45_000 }]);
  });
});

describe('a name is never sold twice', () => {
  test('two offers accepted at once: one sale, and the other thread waits', async () => {
    await begin();
    const threads = await Promise.all(
      ['Ann', 'Ben', 'Cleo'].map(async (buyer) =>
        must(await enterOffer(made.ledger, { nameId: id(COPPER), buyer, amount: '300', currency: 'USD' })),
      ),
    );
    const all = await threadsOf(made.ledger, id(COPPER));
    const answers = await Promise.all(
      threads.map((threadId) =>
        answerOffer(made.ledger, {
          threadId,
          figureId: all.find((one) => one.id === threadId)?.figures[0]?.id,
          answer: 'accept',
        }),
      ),
    );
    expect(answers.filter((answer) => 'state' in answer && answer.state === 'accepted')).toHaveLength(1);
    expect(await sales()).toHaveLength(1);
    expect((await threadsOf(made.ledger, id(COPPER))).map(({ state }) => state).sort()).toEqual([
      'accepted',
      'waiting',
      'waiting',
    ]);
  });

  test('bought at the venue while an offer is accepted by hand: refused there, and no money is lost', async () => {
    await begin();
    await made.list([COPPER]);
    await made.pass(4);
    const threadId = must(
      await enterOffer(made.ledger, { nameId: id(COPPER), buyer: 'Ann', amount: '550', currency: 'USD' }),
    );
    const figureId = (await threadsOf(made.ledger, id(COPPER)))[0]?.figures[0]?.id;
    made.acts.set(COPPER, [{ at: at(5, 8), buyer: 'Ben', do: 'buy' }]);
    // The purchase happens outside before the ledger has heard of it.
    await made.practice.passTo(addDays(TODAY, 5));
    must(await answerOffer(made.ledger, { threadId, figureId, answer: 'accept' }));
    await made.pass(5);
    expect((await sales()).map(({ buyer, stage }) => [buyer, stage]).sort()).toEqual([
      ['Ann', 'agreed'],
      ['Ben', 'refused'],
    ]);
    expect(Object.values(made.world.market.sales).map(({ stage }) => stage)).toEqual(['refused']);
    expect(made.world.market.listings[COPPER]?.status).toBe('withdrawn');
  });

  test('the database refuses a second sale, whoever writes it', async () => {
    await begin();
    const insert = (stage: string) =>
      made.ledger.database.query(
        `insert into sales (name_id, how, buyer, price_minor, currency, stage, agreed_at, stage_since) values ($1, 'offer', 'x', 1, 'USD', $2, now(), now())`,
        [id(COPPER), stage],
      );
    await insert('not paid');
    await insert('refused');
    await insert('agreed');
    await expect(insert('agreed')).rejects.toThrow('sales_one_of_a_name');
    await expect(insert('done')).rejects.toThrow('sales_one_of_a_name');
  });
});

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
    expect(await agenda()).toContain(`auction unsold: ${COPPER}`);
    const threadId = must(
      await offerToHighest(made.ledger, { auctionId, amount: '340', until: dayOf(addDays(TODAY, 9)) }),
    );
    expect(await agenda()).not.toContain(`auction unsold: ${COPPER}`);
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

describe('handing over', () => {
  const promised = async () => {
    await begin();
    const threadId = must(
      await enterOffer(made.ledger, { nameId: id(COPPER), buyer: 'Ann', amount: '550', currency: 'USD' }),
    );
    const figureId = (await threadsOf(made.ledger, id(COPPER)))[0]?.figures[0]?.id;
    must(await answerOffer(made.ledger, { threadId, figureId, answer: 'accept' }));
    const saleId = (await sales())[0]?.id as number;
    must(await stepSale(made.ledger, { saleId, to: 'money held' }));
    return saleId;
  };

  test('a push whose answer is lost is looked after, and is not made twice', async () => {
    const saleId = await promised();
    expect(await stepSale(made.ledger, { saleId, to: 'buyer known' })).toMatchObject({ code: 'buyer-account-missing' });
    must(await stepSale(made.ledger, { saleId, to: 'buyer known', handover: 'push', buyerAccount: 'ann-at-quaymark' }));
    made.practice.faults.set('quaymark', 'result lost', 1);
    expect(await handOver(made.ledger, { saleId, byHand: false })).toMatchObject({ code: 'link-failed' });
    expect(made.world.domains.get(COPPER)?.owner).toBe('stranger');
    await followSelling(made.ledger);
    expect((await sales())[0]?.stage).toBe('handed over');
    await followSelling(made.ledger);
    expect((await sales())[0]?.stage).toBe('arrived');
    must(await stepSale(made.ledger, { saleId, to: 'done' }));
    expect(await money()).toEqual([{ kind: 'sale', minor: -55_000 }]);
  });

  test('a transfer: the lock is off, the buyer has a code of its own', async () => {
    const saleId = await promised();
    const domain = made.world.domains.get(COPPER);
    if (domain) domain.lock = true;
    must(await stepSale(made.ledger, { saleId, to: 'buyer known', handover: 'transfer', buyerAccount: 'saltgate' }));
    const handed = must(await handOver(made.ledger, { saleId, byHand: false }));
    expect(handed.authCode).toMatch(/^[\w-]{16}$/);
    expect(made.world.domains.get(COPPER)).toMatchObject({ lock: false, authInfo: handed.authCode });
  });

  test('a transfer of an account without a link has arrived when the public record shows another registrar', async () => {
    const saleId = await promised();
    must(await stepSale(made.ledger, { saleId, to: 'buyer known', handover: 'transfer', buyerAccount: 'saltgate' }));
    await removeLink(made.ledger, made.accountId);
    expect(await handOver(made.ledger, { saleId, byHand: false })).toMatchObject({ code: 'no-link' });
    must(await handOver(made.ledger, { saleId, byHand: true }));
    await followSelling(made.ledger);
    await drainChecks(made.ledger);
    expect((await sales())[0]?.stage).toBe('handed over');
    const domain = made.world.domains.get(COPPER);
    if (domain) domain.registrar = 'saltgate';
    made.ledger.setClock(addDays(TODAY, 2));
    await followSelling(made.ledger);
    await drainChecks(made.ledger);
    await followSelling(made.ledger);
    expect((await sales())[0]?.stage).toBe('arrived');
    expect((await statementOf(made.ledger, saleId))?.steps.at(-1)).toMatchObject({
      stage: 'arrived',
      origin: 'record',
    });
  });

  test('a dispute comes back to its place, or ends it', async () => {
    const saleId = await promised();
    must(await stepSale(made.ledger, { saleId, to: 'dispute', note: 'the buyer has not seen it' }));
    expect(await stepSale(made.ledger, { saleId, to: 'done' })).toMatchObject({ code: 'stage-out-of-order' });
    must(await stepSale(made.ledger, { saleId, to: 'refused' }));
    expect(await money()).toEqual([]);
    const statement = await statementOf(made.ledger, saleId);
    expect(statement?.steps.map(({ stage }) => stage)).toEqual(['agreed', 'money held', 'dispute', 'refused']);
  });
});

test('the statement: every figure, profit over what the name has cost, and the yearly return', async () => {
  await begin();
  const { database } = made.ledger;
  await database.query("insert into batches (at, kind, summary) values (now(), 'entry', 'test')");
  await database.query(
    `insert into entries (name_id, batch_id, on_day, kind, minor, currency)
     select $1, max(id), d.day::date, 'renewal', d.minor, d.currency from batches, (values ('2024-11-24', 10000, 'USD'), ('2025-11-24', 5000, 'EUR')) d(day, minor, currency)
     group by d.day, d.minor, d.currency`,
    [id(COPPER)],
  );
  must(await saveRate(made.ledger, { from: '2025-01-01', currency: 'EUR', into: 'USD', factor: 1.2 }));
  const threadId = must(
    await enterOffer(made.ledger, { nameId: id(COPPER), buyer: 'Ann', amount: '400', currency: 'USD' }),
  );
  const figureId = (await threadsOf(made.ledger, id(COPPER)))[0]?.figures[0]?.id;
  must(await answerOffer(made.ledger, { threadId, figureId, answer: 'accept' }));
  const saleId = (await sales())[0]?.id as number;
  for (const to of ['money held', 'buyer known', 'handed over', 'arrived', 'done'])
    must(
      await stepSale(made.ledger, {
        saleId,
        to,
        ...(to === 'buyer known' ? { handover: 'push', buyerAccount: 'ann' } : {}),
      }),
    );
  const statement = await statementOf(made.ledger, saleId);
  // 100.00 two years ago and 50.00 EUR at 1.20 one year ago; 400.00 now: 100(1+r)² + 60(1+r) = 400.
  expect(statement).toMatchObject({ cost: { minor: 16_000 }, profit: { minor: 24_000 }, heldDays: 730 });
  expect(statement?.yearlyReturn).toBeCloseTo((-60 + Math.sqrt(3600 + 160_000)) / 200 - 1, 6);
  const sold = await soldList(made.ledger);
  expect(sold.lines).toMatchObject([{ ascii: COPPER, profit: { minor: 24_000 }, venue: 'the office' }]);
  expect(sold.totals.map(({ by, key }) => `${by} ${key}`)).toEqual([
    'year 2026',
    'ending .com',
    'venue the office',
    'currency USD',
  ]);
  expect((await pastSales(made.ledger)).filter((sale) => sale.own)).toHaveLength(1);
});

test('selling comes along in a backup, and a name that is promised stays promised', async () => {
  await begin();
  await made.list([COPPER, LARCH]);
  const threadId = must(
    await enterOffer(made.ledger, { nameId: id(COPPER), buyer: 'Ann', amount: '550', currency: 'USD' }),
  );
  const figureId = (await threadsOf(made.ledger, id(COPPER)))[0]?.figures[0]?.id;
  must(await answerOffer(made.ledger, { threadId, figureId, answer: 'accept' }));
  must(await saveRate(made.ledger, { from: '2025-01-01', currency: 'EUR', into: 'USD', factor: 1.2 }));
  const backup = await makeBackup(made.ledger);
  const other = await emptyLedger();
  try {
    must(await restoreBackup(other, backup));
    expect(await makeBackup(other)).toBe(backup);
    expect(await selectSales(other.database)).toMatchObject([{ ascii: COPPER, buyer: 'Ann', stage: 'agreed' }]);
    const late = must(await enterOffer(other, { nameId: id(COPPER), buyer: 'Ben', amount: '700', currency: 'USD' }));
    const [thread] = await threadsOf(other, id(COPPER));
    expect(
      await answerOffer(other, { threadId: late, figureId: thread?.figures[0]?.id, answer: 'accept' }),
    ).toMatchObject({ code: 'name-promised' });
  } finally {
    await other.close();
  }
});

test('past sales of others come in from a table, once; what cannot be read is told by line', async () => {
  await begin();
  const table =
    'Name,Price,Date,Venue\nkelpkiln.com,"$1,200",2026-03-09,Hall\nbad name,5,2026-01-01,\nfoghorn.net,80 EUR,2026-02-30,\nquayrope.org,95,2026-02-02,\n';
  expect(await bringInSales(made.ledger, table, 'USD')).toMatchObject({
    added: 2,
    known: 0,
    refused: [{ line: 3 }, { line: 4 }],
  });
  expect(await bringInSales(made.ledger, table, 'USD')).toMatchObject({ added: 0, known: 2 });
  expect(await bringInSales(made.ledger, 'a,b\n1,2', 'USD')).toMatchObject({ code: 'column-missing' });
});

test('the list of all: what each price leaves over what the name has cost', async () => {
  await begin();
  await made.list([COPPER]);
  const lines = await listingLines(made.ledger);
  expect(lines).toMatchObject([
    { ascii: COPPER, askedMinor: 50_000, proceedsMinor: 42_500, profitMinor: 42_500, status: 'in review' },
  ]);
  expect(await sellingReport(made.ledger)).toMatchObject({
    listed: 1,
    threads: [],
    // Names that have cost nothing press nobody.
    agenda: [],
  });
});
