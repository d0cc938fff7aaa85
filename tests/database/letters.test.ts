import { describe, expect, test } from 'vitest';
import { addDays } from '@/core/time';
import { answerOffer, enterOffer } from '@/usecases/selling/offers';
import { stepSale } from '@/usecases/selling/sales';
import { withdrawListingsById } from '@/usecases/selling/withdraw';
import { forgetOldLetters } from '@/usecases/shop/tell';
import { buyersDesk, COPPER, LARCH } from './buyers';
import { booked, must } from './marketplace';

const { desk, id, list, mails, mailed, linkIn, send, act, see, sendAndConfirm, threads, counter } = buyersDesk();

describe('an offer', () => {
  test('reaches the office once its link was opened and confirmed, and not before', async () => {
    expect((await send()).headers.location).toBe('/sent');
    expect(await threads()).toEqual([]);
    expect(await mailed()).toBe(1);
    expect(await mailed()).toBe(0);
    const mail = mails().at(-1);
    expect([mail?.to, mail?.subject]).toEqual(['b.kelp@kelpworks.test', `Confirm what you have sent for ${COPPER}`]);
    const link = linkIn(mail?.text);
    // What fetches links to see whether they are harmful confirms nothing.
    expect(await see(link)).toContain('You offer US$400 for copperbuoy.com.');
    expect(await threads()).toEqual([]);
    await Promise.all([act(link, { act: 'confirm' }), act(link, { act: 'confirm' })]);
    expect(await threads()).toMatchObject([
      {
        buyer: 'Britta Kelp',
        contact: 'b.kelp@kelpworks.test',
        currency: 'USD',
        figures: [{ by: 'buyer', minor: 40_000 }],
      },
    ]);
    expect(await see(link)).toContain('Your offer of US$400 is with us.');
  });

  test('its whole way: countered, accepted, paid, moved, and in the books', async () => {
    const { ledger } = desk.made;
    const link = await sendAndConfirm();
    await counter('550');
    await mailed();
    expect(mails().at(-1)?.subject).toBe(`An answer about ${COPPER}`);
    expect(linkIn(mails().at(-1)?.text)).toBe(link);
    expect(await see(link)).toContain('Accept US$550');
    expect((await act(link, { act: 'counter', amount: '500' })).status).toBe(303);
    await counter('520');
    await act(link, { act: 'accept' });
    const [sale] = await desk.sales();
    expect(sale).toMatchObject({ priceMinor: 52_000, buyer: 'Britta Kelp', stage: 'agreed' });
    await mailed();
    expect(mails().at(-1)?.text).toContain('Pay US$520');
    must(await stepSale(ledger, { saleId: sale?.id, to: 'money held' }));
    await mailed();
    expect(mails().at(-1)?.text).toContain('Where is it to go?');
    expect((await act(link, { act: 'where', handover: 'push', account: '' })).status).toBe(422);
    await act(link, { act: 'where', handover: 'push', account: 'KELP-7' });
    expect((await desk.sales())[0]).toMatchObject({ stage: 'buyer known', handover: 'push', buyerAccount: 'KELP-7' });
    must(await stepSale(ledger, { saleId: sale?.id, to: 'handed over' }));
    await act(link, { act: 'arrived' });
    expect((await desk.sales())[0]?.stage).toBe('arrived');
    must(await stepSale(ledger, { saleId: sale?.id, to: 'done' }));
    await mailed();
    expect(await booked(desk.made)).toEqual([{ kind: 'sale', minor: -52_000 }]);
    expect(await see(link)).toContain('aria-current="step" class="done">Settled');
    expect((await send({ mail: 'late@kelpworks.test' })).status).toBe(404);
  });

  test('below the minimum it is said at once, in the buyer’s currency', async () => {
    const { database } = desk.made.ledger;
    await database.query("insert into rates values ('2026-11-20', 'EUR', 'USD', 1.25)");
    const low = await send({ amount: '159,99', currency: 'EUR' }, 'de');
    expect(low.status).toBe(422);
    expect(low.body).toContain('Das ist zu wenig: es beginnt bei 160 €.'.replace(' €', '\u00a0€'));
    expect(low.body).toContain('value="159,99"');
    expect((await send({ amount: '160', currency: 'EUR' }, 'de')).status).toBe(303);
  });

  test.each([
    ['amount', '12 oranges', 'Write the amount in figures'],
    ['amount', '-400', 'Write the amount in figures'],
    ['amount', '', 'Write the amount in figures'],
    ['buyer', ' ', 'Write your name.'],
    ['buyer', 'a\u202eb', 'Write your name.'],
    ['mail', 'nowhere', 'Write a mail address that reaches you.'],
    ['currency', 'XXX', 'Write the amount in figures'],
  ])('%s of “%s” is told where it is written', async (field, value, said) => {
    const answer = await send({ [field]: value });
    expect(answer.status).toBe(422);
    expect(answer.body).toContain(said);
    expect(answer.body).toContain('role="alert"');
  });

  test('a purchase sells at the price of the moment of confirming, once', async () => {
    await send({ kind: 'purchase', mail: 'one@kelpworks.test' });
    await send({ kind: 'purchase', mail: 'two@kelpworks.test' });
    await mailed();
    const links = mails()
      .slice(-2)
      .map(({ text }) => linkIn(text));
    await Promise.all(links.map((link) => act(link, { act: 'confirm' })));
    expect(await desk.sales()).toHaveLength(1);
    expect((await desk.sales())[0]).toMatchObject({ priceMinor: 60_000, how: 'offer' });
    const pages = await Promise.all(links.map(see));
    expect(pages.filter((page) => page.includes('Agreed: copperbuoy.com for US$600.'))).toHaveLength(1);
  });

  test('what became dearer meanwhile is not sold at the old price', async () => {
    await send({ kind: 'purchase' });
    await mailed();
    await list(COPPER, { prices: { minimum: 20_000, asking: 80_000, buyNow: 90_000 } });
    const answer = await act(linkIn(mails().at(-1)?.text), { act: 'confirm' });
    expect(answer.status).toBe(422);
    expect(answer.body).toContain('it begins at US$900');
    expect(await desk.sales()).toEqual([]);
  });

  test('what is asked in another currency meanwhile is not sold at the figure of the first', async () => {
    await send({ kind: 'purchase' });
    await mailed();
    await list(COPPER, { currency: 'JPY', prices: { minimum: 200, asking: 500, buyNow: 600 } });
    const answer = await act(linkIn(mails().at(-1)?.text), { act: 'confirm' });
    expect(answer.status).toBe(422);
    expect(await desk.sales()).toEqual([]);
  });

  test('withdrawn by the buyer, declined by the office, waiting for somebody else’s sale: each is told', async () => {
    const withdrawn = await sendAndConfirm({ mail: 'one@kelpworks.test' });
    await act(withdrawn, { act: 'withdraw' });
    expect(await see(withdrawn)).toContain('You have withdrawn.');
    const declined = await sendAndConfirm({ mail: 'two@kelpworks.test' });
    const [thread] = await threads();
    must(
      await answerOffer(desk.made.ledger, {
        threadId: thread?.id,
        figureId: thread?.figures.at(-1)?.id,
        answer: 'decline',
      }),
    );
    await mailed();
    expect(mails().at(-1)).toMatchObject({ to: 'two@kelpworks.test' });
    expect(mails().at(-1)?.text).toContain('Nothing came of it.');
    expect(await see(declined)).toContain('Another offer');
    const waiting = await sendAndConfirm({ mail: 'three@kelpworks.test' });
    const other = must(
      await enterOffer(desk.made.ledger, { nameId: id(COPPER), buyer: 'Odo', amount: '600', currency: 'USD' }),
    );
    expect(other).toBeGreaterThan(0);
    await mailed();
    expect(mails().at(-1)?.text).toContain('promised to somebody else');
    expect(await see(waiting)).not.toContain('value="counter"');
  });

  test('a link that nobody confirms is over after a week, and nothing of it is kept but that it was mailed', async () => {
    await send();
    await mailed();
    const link = linkIn(mails().at(-1)?.text);
    desk.made.ledger.setClock(addDays(desk.made.ledger.clock(), 8));
    expect(await see(link)).toContain('This link is over.');
    await act(link, { act: 'confirm' });
    expect(await threads()).toEqual([]);
    await forgetOldLetters(desk.made.ledger);
    const { rows } = await desk.made.ledger.database.query('select * from letters');
    expect(rows).toEqual([]);
    // Nor is that address written to again.
    expect((await send()).body).toContain('A link has been mailed to this address before.');
  });

  test('of a name that is taken off sale meanwhile nothing comes', async () => {
    const [listingId] = await list(LARCH);
    await send({ name: LARCH });
    await mailed();
    must(await withdrawListingsById(desk.made.ledger, { listingIds: [listingId] }));
    const answer = await act(linkIn(mails().at(-1)?.text), { act: 'confirm' });
    expect(answer.body).toContain('The name is not for sale any more.');
    expect(await threads(LARCH)).toEqual([]);
  });
});
