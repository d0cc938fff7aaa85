import { describe, expect, test } from 'vitest';
import { addDays, type Instant, MINUTE_MS } from '@/core/time';
import { upsertSettings } from '@/database/settings';
import { closeDueAuctions, offerToHighest } from '@/usecases/selling/auctions';
import { deposits, takeDeposit } from '@/usecases/shop/settings';
import { buyersDesk, LARCH, USUAL_SHOP } from './buyers';
import { must } from './marketplace';

const buyers = buyersDesk();
const { desk, list, mails, mailed, linkIn, send, act, see, sendAndConfirm } = buyers;

describe('bids', () => {
  const AUCTION = { kind: 'auction', prices: { start: 10_000, reserve: 15_000 } };
  const bid = (amount: string, mail: string) => sendAndConfirm({ name: LARCH, kind: 'bid', amount, mail });
  const close = async () => {
    const { ledger } = desk.made;
    ledger.setClock(addDays(ledger.clock(), 5));
    await closeDueAuctions(ledger);
    await mailed();
  };

  test('by the proxy rule: the second maximum and a step, told to who is outbid and to who wins', async () => {
    await list(LARCH, AUCTION);
    const one = await bid('200', 'one@kelpworks.test');
    expect(await see(one)).toContain('You lead at US$150, with a most of US$200.');
    const two = await bid('300', 'two@kelpworks.test');
    await mailed();
    expect(mails().at(-1)).toMatchObject({ to: 'one@kelpworks.test', subject: `Your bid for ${LARCH}` });
    expect(await see(one)).toContain('You have been outbid. The price stands at US$205.');
    expect((await act(one, { act: 'raise', amount: '205' })).body).toContain('it begins at US$210');
    await act(one, { act: 'raise', amount: '250' });
    expect(await see(two)).toContain('You lead at US$255');
    await close();
    const pages = await Promise.all([one, two].map(see));
    expect(pages[0]).toContain('the name went to somebody else');
    expect(pages[1]).toContain('Agreed: larchpilot.com for US$255.');
    expect((await desk.sales())[0]).toMatchObject({
      priceMinor: 25_500,
      how: 'bid',
      buyer: 'Britta Kelp <two@kelpworks.test>',
    });
  });

  test('two who call themselves alike are two; one who writes twice is one', async () => {
    await list(LARCH, AUCTION);
    await bid('200', 'one@kelpworks.test');
    const again = await bid('250', 'ONE@kelpworks.test');
    expect(await see(again)).toContain('You lead at US$150, with a most of US$250.');
    const { rows } = await desk.made.ledger.database.query('select distinct bidder from bids');
    expect(rows).toEqual([{ bidder: 'Britta Kelp <one@kelpworks.test>' }]);
  });

  test('where a deposit is wanted a bid counts from the moment that the office has it', async () => {
    const { ledger } = desk.made;
    await upsertSettings(ledger.database, {
      shop: { ...USUAL_SHOP, deposit: { fromMinor: 30_000, currency: 'USD', percent: 10 } },
    });
    await list(LARCH, AUCTION);
    const page = (await buyers.shop.answer({ method: 'GET', url: '/', host: LARCH, acceptLanguage: 'en' })).body;
    expect(page).toContain('A bid of US$300 or more wants a deposit of 10 % first.');
    const small = await bid('200', 'small@kelpworks.test');
    const big = await bid('400', 'big@kelpworks.test');
    expect(await see(big)).toContain('wants a deposit of US$40 first');
    expect(await see(small)).toContain('You lead');
    const [wanted] = await deposits(ledger);
    expect(wanted).toMatchObject({ mail: 'big@kelpworks.test', depositMinor: 4_000 });
    must(await takeDeposit(ledger, { letterId: wanted?.id, amount: '15' }));
    expect(await see(big)).toContain('wants a deposit of US$25 first');
    must(await takeDeposit(ledger, { letterId: wanted?.id, amount: '25' }));
    await mailed();
    expect(await see(big)).toContain('You lead at US$205');
    await close();
    expect((await desk.sales())[0]?.priceMinor).toBe(20_500);
    expect(await deposits(ledger)).toMatchObject([{ heldMinor: 4_000 }]);
  });

  test('a name that did not sell is offered to the highest bidder, who answers at his own page', async () => {
    const { ledger } = desk.made;
    await list(LARCH, { kind: 'auction', prices: { start: 10_000, reserve: 90_000 } });
    await bid('200', 'one@kelpworks.test');
    const best = await bid('300', 'two@kelpworks.test');
    await close();
    expect(await see(best)).toContain('The auction has closed without a sale.');
    const { rows } = await ledger.database.query<{ id: number }>('select id from auctions');
    must(await offerToHighest(ledger, { auctionId: rows[0]?.id, amount: '700', until: '2026-12-20' }));
    await mailed();
    expect(mails().at(-1)).toMatchObject({ to: 'two@kelpworks.test', subject: `An answer about ${LARCH}` });
    expect(await see(best)).toContain('We ask US$700 for it.');
    await act(best, { act: 'accept' });
    expect(await see(best)).toContain('Agreed: larchpilot.com for US$700.');
    expect((await desk.sales())[0]).toMatchObject({ priceMinor: 70_000, how: 'offer' });
  });

  test('a bid that is confirmed after the close is not taken', async () => {
    await list(LARCH, AUCTION);
    await send({ name: LARCH, kind: 'bid', amount: '200' });
    await mailed();
    const link = linkIn(mails().at(-1)?.text);
    const { ledger } = desk.made;
    ledger.setClock((addDays(ledger.clock(), 4) + MINUTE_MS) as Instant);
    await act(link, { act: 'confirm' });
    expect((await ledger.database.query('select * from bids')).rows).toEqual([]);
    expect(await see(link)).toContain('Your bid was not taken');
  });
});
