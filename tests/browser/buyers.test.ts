import { afterAll, beforeAll, expect, test } from 'vitest';
import { addDays } from '@/core/time';
import { closeDueAuctions } from '@/usecases/selling/auctions';
import { saveListings } from '@/usecases/selling/listings';
import { tellNow } from '@/usecases/shop/tell';
import { TODAY } from '../database/ledger';
import { LISTING, must } from '../database/marketplace';
import { startApp, type TestApp } from './app';
import { openBrowser, type Visitor } from './browser';
import { openShop, pause, type ShopFront } from './shopFront';

/** The office at its screens, and two buyers who know nothing but the windows and their mails. */
let app: TestApp;
let shop: ShopFront;
let buyer: Visitor;
let other: Visitor;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
  const { ledger } = app;
  const { rows } = await ledger.database.query<{ id: number; ascii: string }>(
    "select id, ascii from names where ascii in ('moorgauge.io', 'kelpkiln.com', 'larchpilot.com')",
  );
  const id = (name: string) => rows.find(({ ascii }) => ascii === name)?.id;
  must(
    await saveListings(ledger, {
      send: true,
      listings: [
        { ...LISTING, nameId: id('moorgauge.io'), prices: { minimum: 40_000, asking: 120_000, buyNow: 150_000 } },
        { ...LISTING, nameId: id('larchpilot.com') },
        { ...LISTING, nameId: id('kelpkiln.com'), kind: 'auction', prices: { start: 10_000, reserve: 15_000 } },
      ],
    }),
  );
  shop = await openShop(app);
  buyer = await openBrowser(shop.url);
  other = await openBrowser(shop.url, 390, 800);
}, 120_000);
afterAll(async () => {
  await buyer.close();
  await other.close();
  await shop.close();
  await app.close();
});

test('a buyer’s whole way: offer, confirmation by mail, counter, agreement, payment, push, and the statement of sale', async () => {
  const { visitor } = app;
  await buyer.go('/n/moorgauge.io');
  await buyer.see('Its price is US$1,500.');
  expect(await buyer.axe()).toEqual([]);
  await buyer.fill('Your offer', '399');
  await buyer.fill('Your name', 'Britta Kelp');
  await buyer.fill('Your mail address', 'b.kelp@kelpworks.test');
  await pause();
  await buyer.press('Send the offer');
  await buyer.see('That is too little: it begins at US$400.');
  expect(await buyer.axe()).toEqual([]);
  await buyer.fill('Your offer', '800');
  await buyer.fill('A message, if you like', 'For a kiln by the water.');
  await pause();
  await buyer.press('Send the offer');
  await buyer.see('Look into your mail');

  const link = await shop.linkFor('b.kelp@kelpworks.test');
  await buyer.go(link);
  await buyer.see('You offer US$800 for moorgauge.io.');
  expect(await buyer.axe()).toEqual([]);
  await visitor.go('/selling');
  await visitor.gone('Britta Kelp');
  await buyer.press('Confirm');
  await buyer.see('is with us.');

  await visitor.go('/selling');
  await visitor.press('moorgauge.io');
  await visitor.see('by your shop window');
  await visitor.see('For a kiln by the water.');
  await visitor.fill('Counter with, in USD', '1,000');
  await visitor.press('Counter');
  await visitor.see('The buyer has your figure');
  expect(await shop.linkFor('b.kelp@kelpworks.test')).toBe(link);
  await buyer.go(link);
  await buyer.see('We ask US$1,');
  expect(await buyer.axe()).toEqual([]);
  await buyer.press('Accept US$1,000');
  await buyer.see('Agreed: moorgauge.io for US$1,000.');

  const [sale] = (await app.ledger.database.query<{ id: number }>("select id from sales where buyer = 'Britta Kelp'"))
    .rows;
  await visitor.go(`/selling/sales/${sale?.id}`);
  await visitor.press('Note that the money is held');
  await visitor.see('How it goes to the buyer');
  await buyer.go(link);
  await buyer.see('Where is it to go?');
  await (await buyer.driver.findElement({ css: '#account' })).sendKeys('KELP-7');
  expect(await buyer.axe()).toEqual([]);
  await buyer.press('Send');
  await buyer.see('Where it goes is known');
  await visitor.go(`/selling/sales/${sale?.id}`);
  await visitor.see('Push it to the account KELP-7');
  const done = await visitor.driver.findElement({ xpath: "//button[contains(., 'I have done it at')]" });
  await done.click();
  await visitor.see('handed over: it has to arrive');
  await buyer.go(link);
  await buyer.press('I have the name');
  await buyer.see('Arrived');
  await visitor.go(`/selling/sales/${sale?.id}`);
  await visitor.see('arrived: the money is released');
  await visitor.see('Statement of sale');
  await visitor.see('$1,000');
});

test('an auction by two buyers, one of them on a telephone: the second maximum and a step', async () => {
  const bid = async (who: Visitor, most: string, name: string, mail: string): Promise<string> => {
    await who.go('/n/kelpkiln.com');
    await who.fill('The most that you would pay', most);
    await who.fill('Your name', name);
    await who.fill('Your mail address', mail);
    await pause();
    await who.press('Send the bid');
    await who.see('Look into your mail');
    const link = await shop.linkFor(mail);
    await who.go(link);
    await who.press('Confirm');
    return link;
  };
  const first = await bid(buyer, '200', 'Britta Kelp', 'britta@kelpworks.test');
  await buyer.see('You lead at US$150, with a most of US$200.');
  const second = await bid(other, '300', 'Odo Wrack', 'odo@wrackline.test');
  await other.see('You lead at US$205, with a most of US$300.');
  expect(await other.axe()).toEqual([]);
  expect(await other.driver.executeScript('return document.documentElement.scrollWidth <= innerWidth')).toBe(true);
  await tellNow(app.ledger);
  expect(app.practice?.mails[0]).toMatchObject({ to: 'britta@kelpworks.test', subject: 'Your bid for kelpkiln.com' });
  await buyer.go(first);
  await buyer.see('You have been outbid. The price stands at US$205.');
  await buyer.fill('The most that you would pay', '280');
  await buyer.press('Raise it');
  await buyer.see('You have been outbid. The price stands at US$285.');
  app.ledger.setClock(addDays(TODAY, 5));
  await closeDueAuctions(app.ledger);
  await other.go(second);
  await other.see('Agreed: kelpkiln.com for US$285.');
  await buyer.go(first);
  await buyer.see('the name went to somebody else');
  app.ledger.setClock(TODAY);
});

test('who looks is counted and shown, robots and pages fetched ahead left out', async () => {
  const { visitor } = app;
  const look = (agent: string, more: Record<string, string> = {}) =>
    fetch(`${shop.url}/n/larchpilot.com`, { headers: { 'user-agent': agent, ...more } });
  const firefox = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0';
  const telephone =
    'Mozilla/5.0 (Linux; Android 15) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0 Mobile Safari/537.36';
  for (const agent of [firefox, firefox, telephone, 'ExampleBot/1.0 (+http://bot.test)', '']) await look(agent);
  await look(`${telephone} Other`, { 'sec-purpose': 'prefetch' });
  await shop.visits.write();
  await visitor.go('/selling/names/larchpilot.com');
  await visitor.see('Its window was opened 2 times in the last 30 days, robots left out.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.go('/ledger/larchpilot.com');
  await visitor.see('2 times in 30 days');
  await visitor.go('/selling/listings');
  await visitor.see('Visits, 30 d');
});

test('a sender is blocked from his offer, and heard again under Setup', async () => {
  const { visitor } = app;
  const [thread] = (
    await app.ledger.database.query<{ id: number }>(
      "select id from offer_threads where contact = 'b.kelp@kelpworks.test'",
    )
  ).rows;
  await visitor.go(`/selling/offers/${thread?.id}`);
  await visitor.press('Block this sender');
  await visitor.see('Nothing more is heard of b.kelp@kelpworks.test.');
  await visitor.go('/setup/shop');
  await visitor.see('Buyers may make offers and bids in your windows.');
  await visitor.see('b.kelp@kelpworks.test');
  await visitor.press('Hear again b.kelp@kelpworks.test');
  await visitor.see('Nobody is blocked.');
});

test('the office writes its own words, and buyers read them', async () => {
  const { visitor } = app;
  await visitor.go('/setup/shop');
  await visitor.click('What buyers read, in five languages');
  await visitor.fill('Its price is {amount}.', 'For {amounts} it is yours.');
  await visitor.press('Save the texts');
  await visitor.see('{amounts} is put in nowhere: here stand {amount}.');
  await visitor.fill('Its price is {amount}.', 'For {amount} it is yours.');
  await visitor.press('Save the texts');
  await visitor.see('Saved. Buyers read it within seconds.');
  expect(await visitor.axe()).toEqual([]);
  await expect
    .poll(async () => (await fetch(`${shop.url}/n/larchpilot.com`)).text(), { timeout: 10_000, interval: 300 })
    .toContain('For US$600 it is yours.');
});
