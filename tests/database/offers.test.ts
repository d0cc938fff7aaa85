import { describe, expect, test } from 'vitest';
import { addDays, dayOf } from '@/core/time';
import { undo } from '@/usecases/names/undo';
import { followSelling } from '@/usecases/selling/follow';
import { saveListings } from '@/usecases/selling/listings';
import {
  answerOffer,
  buyerAnswers,
  enterOffer,
  lapseOffers,
  saveAnswerRule,
  threadsOf,
} from '@/usecases/selling/offers';
import { sellingToday } from '@/usecases/selling/report';
import { handOver, stepSale } from '@/usecases/selling/sales';
import { sendListings } from '@/usecases/selling/sendListings';
import { TODAY } from './ledger';
import { awaiting, booked, LISTING, listingOf, must, sellingDesk } from './marketplace';

const NAMES = ['copperbuoy.com', 'larchpilot.com', 'tidewick.com'] as const;
const [COPPER, LARCH, TIDE] = NAMES;

const desk = sellingDesk(NAMES);
const { begin, id, at, sales } = desk;

describe('offers', () => {
  const live = async () => {
    await begin();
    await desk.made.list([COPPER]);
    await desk.made.pass(4);
  };
  const thread = async () => (await threadsOf(desk.made.ledger, id(COPPER)))[0];
  const lastFigure = async () => (await thread())?.figures.at(-1);

  test('an offer is countered, the counter accepted, the money seen through, the books closed', async () => {
    await live();
    desk.made.acts.set(COPPER, [{ at: at(5), buyer: 'Oda Fennimore', do: 'offer', minor: 30_000, days: 7 }]);
    desk.made.reply = { do: 'accept' };
    await desk.made.pass(2);
    expect(await awaiting(desk.made)).toContain(`offer to answer: ${COPPER}`);
    await desk.made.ledger.database.query(
      "update names set asking_minor = 49900, asking_currency = 'USD' where ascii = $1",
      [COPPER],
    );
    // With what is asked for the name: the share stands there from the first, and nothing moves under the pointer.
    const offers = (await sellingToday(desk.made.ledger)).find(({ kind }) => kind === 'offer to answer');
    expect(offers?.items.map(({ asking }) => asking)).toEqual([{ minor: 49_900, currency: 'USD' }]);
    const figure = await lastFigure();
    must(
      await answerOffer(desk.made.ledger, {
        threadId: (await thread())?.id,
        figureId: figure?.id,
        answer: 'counter',
        amount: '450',
      }),
    );
    await desk.made.pass(3);
    const [sale] = await sales();
    expect(sale).toMatchObject({ how: 'offer', priceMinor: 45_000, buyer: 'Oda Fennimore', toTell: null });
    expect((await thread())?.state).toBe('accepted');
    await desk.made.pass(4);
    expect((await sales())[0]).toMatchObject({ stage: 'buyer known' });
    expect(await awaiting(desk.made)).toContain(`handover: ${COPPER}`);
    const handed = must(await handOver(desk.made.ledger, { saleId: sale?.id, byHand: false }));
    expect(handed.stage).toBe('handed over');
    await desk.made.pass(9);
    expect((await sales())[0]).toMatchObject({ stage: 'done', commissionMinor: 6750 });
    expect(await booked(desk.made)).toEqual([
      { kind: 'sale', minor: -45_000 },
      { kind: 'commission', minor: 6750 },
    ]);
    expect(desk.made.world.market.paidOut).toEqual({ USD: 38_250 });
    const { rows } = await desk.made.ledger.database.query(
      'select gone_at is not null as gone from names where id = $1',
      [id(COPPER)],
    );
    expect(rows).toEqual([{ gone: true }]);
    // It has left the office for good, and the act cannot be undone.
    expect(desk.made.world.domains.get(COPPER)).toMatchObject({ owner: 'stranger', holder: 'Oda Fennimore' });
    const { rows: batches } = await desk.made.ledger.database.query<{ id: number }>(
      "select id from batches where kind = 'sale'",
    );
    expect(await undo(desk.made.ledger, batches[0]?.id ?? 0)).toMatchObject({ code: 'undo-sale' });
    expect(
      await enterOffer(desk.made.ledger, { nameId: id(COPPER), buyer: 'Late', amount: '900', currency: 'USD' }),
    ).toMatchObject({ code: 'name-not-in-ledger' });
  });

  test('declined: told at the marketplace, and the thread is closed', async () => {
    await live();
    desk.made.acts.set(COPPER, [{ at: at(5), buyer: 'Oda Fennimore', do: 'offer', minor: 30_000, days: 7 }]);
    await desk.made.pass(2);
    must(
      await answerOffer(desk.made.ledger, {
        threadId: (await thread())?.id,
        figureId: (await lastFigure())?.id,
        answer: 'decline',
      }),
    );
    await followSelling(desk.made.ledger);
    expect(Object.values(desk.made.world.market.threads)[0]?.open).toBe(false);
    expect((await thread())?.state).toBe('declined');
  });

  test('what nobody answers lapses on its date', async () => {
    await live();
    desk.made.acts.set(COPPER, [{ at: at(5), buyer: 'Oda Fennimore', do: 'offer', minor: 30_000, days: 3 }]);
    await desk.made.pass(3);
    const figure = await lastFigure();
    expect(figure?.state).toBe('live');
    await desk.made.pass(3);
    expect((await lastFigure())?.state).toBe('lapsed');
    expect(
      await answerOffer(desk.made.ledger, { threadId: (await thread())?.id, figureId: figure?.id, answer: 'accept' }),
    ).toMatchObject({ kind: 'refusal' });
    expect(await sales()).toEqual([]);
  });

  test('by hand: below the minimum declined at once, at the minimum open, at the buy-now price a purchase', async () => {
    await begin();
    must(await saveListings(desk.made.ledger, { send: true, listings: [{ ...LISTING, nameId: id(COPPER) }] }));
    const offer = (amount: string, buyer: string) =>
      enterOffer(desk.made.ledger, {
        nameId: id(COPPER),
        buyer,
        amount,
        currency: 'USD',
        until: dayOf(addDays(TODAY, 5)),
      });
    must(await offer('199', 'Low'));
    expect((await thread())?.state).toBe('declined');
    must(await offer('200', 'Even'));
    expect((await thread())?.state).toBe('open');
    const { rows: best } = await desk.made.ledger.database.query(
      'select best_offer_minor as minor from names where id = $1',
      [id(COPPER)],
    );
    expect(best).toEqual([{ minor: 20_000 }]);
    must(await offer('900', 'High'));
    expect((await thread())?.state).toBe('accepted');
    expect(await sales()).toMatchObject([{ priceMinor: 60_000, buyer: 'High', how: 'offer' }]);
    // The other thread waits until that is paid or fails.
    const even = (await threadsOf(desk.made.ledger, id(COPPER))).find(({ buyer }) => buyer === 'Even');
    expect(even?.state).toBe('waiting');
    expect(
      await answerOffer(desk.made.ledger, { threadId: even?.id, figureId: even?.figures[0]?.id, answer: 'accept' }),
    ).toMatchObject({ code: 'name-promised' });
    must(await stepSale(desk.made.ledger, { saleId: (await sales())[0]?.id, to: 'not paid' }));
    expect((await threadsOf(desk.made.ledger, id(COPPER))).find(({ buyer }) => buyer === 'Even')?.state).toBe('open');
    expect((await listingOf(desk.made, COPPER))?.status).toBe('draft');
    expect(
      await sendListings(desk.made.ledger, { listingIds: [(await listingOf(desk.made, COPPER))?.id] }),
    ).toMatchObject({
      sent: 1,
      stopped: [],
    });
    must(await answerOffer(desk.made.ledger, { threadId: even?.id, figureId: even?.figures[0]?.id, answer: 'accept' }));
    expect((await sales()).map(({ stage }) => stage)).toEqual(['agreed', 'not paid']);
  });

  test('a thread by hand: counter, the buyer says yes; only the other side answers a figure', async () => {
    await begin();
    const threadId = must(
      await enterOffer(desk.made.ledger, { nameId: id(TIDE), buyer: 'Ivo', amount: '300', currency: 'USD' }),
    );
    const [first] = await threadsOf(desk.made.ledger, id(TIDE));
    const figureId = first?.figures[0]?.id;
    expect(await answerOffer(desk.made.ledger, { threadId, figureId, answer: 'counter', amount: '250' })).toMatchObject(
      {
        code: 'counter-too-low',
      },
    );
    expect(await buyerAnswers(desk.made.ledger, threadId, 'accept')).toMatchObject({ code: 'own-figure' });
    const countered = must(
      await answerOffer(desk.made.ledger, {
        threadId,
        figureId,
        answer: 'counter',
        amount: '420',
        until: dayOf(addDays(TODAY, 2)),
      }),
    );
    expect(
      await answerOffer(desk.made.ledger, { threadId, figureId: countered.figures[1]?.id, answer: 'accept' }),
    ).toMatchObject({ code: 'own-figure' });
    expect(await answerOffer(desk.made.ledger, { threadId, figureId, answer: 'accept' })).toMatchObject({
      code: 'figure-answered',
    });
    must(await buyerAnswers(desk.made.ledger, threadId, 'accept'));
    expect(await sales()).toMatchObject([{ priceMinor: 42_000 }]);
    expect(await buyerAnswers(desk.made.ledger, threadId, 'accept')).toMatchObject({ kind: 'refusal' });
    desk.made.ledger.setClock(addDays(TODAY, 9));
    await lapseOffers(desk.made.ledger);
    expect(await sales()).toHaveLength(1);
  });

  test('by rule: accepted from a share of the asking price, countered once below it', async () => {
    await begin();
    must(await saveAnswerRule(desk.made.ledger, { isOn: true, acceptFrom: 90, counterWith: 80, counterDays: 5 }));
    expect(await saveAnswerRule(desk.made.ledger, { isOn: true, counterDays: 5 })).toMatchObject({
      code: 'rule-empty',
    });
    must(
      await saveListings(desk.made.ledger, {
        send: true,
        listings: [COPPER, LARCH].map((name) => ({ ...LISTING, nameId: id(name) })),
      }),
    );
    const offer = (name: string, amount: string, threadId?: number) =>
      enterOffer(desk.made.ledger, {
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
        must(await enterOffer(desk.made.ledger, { nameId: id(COPPER), buyer, amount: '300', currency: 'USD' })),
      ),
    );
    const all = await threadsOf(desk.made.ledger, id(COPPER));
    const answers = await Promise.all(
      threads.map((threadId) =>
        answerOffer(desk.made.ledger, {
          threadId,
          figureId: all.find((one) => one.id === threadId)?.figures[0]?.id,
          answer: 'accept',
        }),
      ),
    );
    expect(answers.filter((answer) => 'state' in answer && answer.state === 'accepted')).toHaveLength(1);
    expect(await sales()).toHaveLength(1);
    expect((await threadsOf(desk.made.ledger, id(COPPER))).map(({ state }) => state).sort()).toEqual([
      'accepted',
      'waiting',
      'waiting',
    ]);
  });

  test('bought at the marketplace while an offer is accepted by hand: refused there, and no money is lost', async () => {
    await begin();
    await desk.made.list([COPPER]);
    await desk.made.pass(4);
    const threadId = must(
      await enterOffer(desk.made.ledger, { nameId: id(COPPER), buyer: 'Ann', amount: '550', currency: 'USD' }),
    );
    const figureId = (await threadsOf(desk.made.ledger, id(COPPER)))[0]?.figures[0]?.id;
    desk.made.acts.set(COPPER, [{ at: at(5, 8), buyer: 'Ben', do: 'buy' }]);
    // The purchase happens outside before the ledger has heard of it.
    await desk.made.practice.passTo(addDays(TODAY, 5));
    must(await answerOffer(desk.made.ledger, { threadId, figureId, answer: 'accept' }));
    await desk.made.pass(5);
    expect((await sales()).map(({ buyer, stage }) => [buyer, stage]).sort()).toEqual([
      ['Ann', 'agreed'],
      ['Ben', 'refused'],
    ]);
    expect(Object.values(desk.made.world.market.sales).map(({ stage }) => stage)).toEqual(['refused']);
    expect(desk.made.world.market.listings[COPPER]?.status).toBe('withdrawn');
  });

  test('the database refuses a second sale, whoever writes it', async () => {
    await begin();
    const insert = (stage: string) =>
      desk.made.ledger.database.query(
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
