import { join } from 'node:path';
import { Key } from 'selenium-webdriver';
import { afterAll, beforeAll, test } from 'vitest';
import { takeInMails } from '@/usecases/mails/takeIn';
import { invite } from '@/usecases/people/invitations';
import { addProgram } from '@/usecases/people/members';
import { saveListings } from '@/usecases/selling/listings';
import { answerOffer, threadsOf } from '@/usecases/selling/offers';
import { LISTING, must } from '../database/marketplace';
import { letIn, timed } from '../database/people';
import { startApp, type TestApp } from './app';
import { openBrowser } from './browser';
import { openShop, pause } from './shopFront';

/** One picture for each main view, from the demo with the clock held still, so that they only change with the views. */
let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

const keep = async (name: string) => {
  await app.visitor.driver.executeScript('return document.fonts.ready.then(() => true)');
  await app.visitor.picture(join('docs/screenshots', `${name}.png`));
};

const MESSY = `Domain name;Where;Valid until;AutoRenew;Renewal price
seaholly.com;Quaymark;13/06/2027;yes;11,38
tarbarrel.org;Wrackgate;07/08/2027;manual;12,00
mail.kelpkiln.com;Quaymark;03/04/2027;on;
kelpkiln.com;Quaymark;06/11/2027;on;11,38
windroseyard.com;Fernhithe;03/01/2027;off;11,38
brackenquay.net;Wrackgate;30/02/2027;on;13,10`;

test('pictures of the main views', async () => {
  const { visitor } = app;
  await visitor.go('/today');
  await visitor.see('charge fails 3 Dec');
  await keep('today');

  await visitor.go('/ledger');
  await visitor.see('restore by 26 Nov');
  await visitor.see('charged in 30 days');
  await keep('ledger');

  await visitor.go('/renewals');
  await visitor.see('Fernhithe');
  await visitor.press('Fernhithe');
  await visitor.see('3 Dec: balance $20.80 short');
  await visitor.driver.sleep(600);
  await keep('renewals');

  await visitor.go('/ledger/kelpkiln.com');
  await visitor.see('20 Dec last day to renew late');
  await keep('name');

  await visitor.go('/rescue');
  await visitor.fill('Budget, USD', '160');
  await visitor.press('Choose the best set');
  await visitor.see('names chosen');
  await keep('rescue');

  await visitor.go('/record');
  await visitor.press('Check 412 names now');
  await visitor.see('Seven names differ besides.');
  await keep('record');

  await visitor.go('/ledger/add');
  await visitor.fill('Names', MESSY);
  await visitor.press('See what would be added');
  await visitor.see('Did you mean kelpkiln.com?');
  await visitor.see('6 Nov 2026 → 6 Nov 2027');
  await keep('bring-in');

  await takeInMails(
    app.ledger,
    Buffer.from(
      'From: Quaymark Names <service@quaymark.test>\r\nDate: Mon, 23 Nov 2026 16:20:00 +0000\r\nMessage-ID: <1@quaymark.test>\r\nAuthentication-Results: mx.harbour.example; dkim=pass\r\nSubject: Your names have been renewed\r\n\r\nDear Harbour Office,\r\n\r\nthese names have been renewed:\r\n\r\nlarchworks.com    until 2028-01-24    USD 11.38\r\nwithyworks.net    until 2027-12-30    USD 13.19\r\n',
    ),
    'dropped',
  );
  await visitor.go('/record/mails/1');
  await visitor.see('its term ends 24 Jan 2028');
  await keep('mail');

  await visitor.go('/selling');
  await visitor.see('Offers to answer: ');
  await visitor.driver.sleep(1500);
  await keep('selling');
  const { rows } = await app.ledger.database.query<{ ids: string }>(
    `select string_agg(distinct n.id::text, ',') as ids from names n join listings l on l.name_id = n.id
     where l.marketplace_id is not null and l.status = 'live' and n.ascii < 'o'`,
  );
  await visitor.go(`/selling/price?names=${rows[0]?.ids}`);
  const typed = 'return document.querySelectorAll("input[data-price=asking]").length > 3';
  await visitor.driver.wait(() => visitor.driver.executeScript<boolean>(typed), 10_000);
  await visitor.driver.executeScript('document.querySelectorAll("input[data-price=asking]")[3].focus()');
  await keep('pricing');
  await visitor.go('/selling/sold');
  await visitor.press('harbourvane.com');
  await visitor.see('Statement of sale');
  await keep('statement');

  await visitor.go('/prospects');
  await visitor.see('What these assumptions lead to, not a promise.');
  await visitor.fill('What stands in for an unknown price, USD', '14');
  await visitor.see('Over five years');
  await visitor.choose('Ahead', 'three years');
  await visitor.see('Over three years');
  await visitor.see('5,000 paths');
  await visitor.gone('Stop here');
  await visitor.driver.executeScript('document.querySelector("main").scrollTop = 0');
  await visitor.driver.sleep(400);
  await keep('prospects');

  await visitor.go('/prices');
  await visitor.press('.com');
  await visitor.see('The cheapest way');
  await visitor.driver.sleep(400);
  await keep('prices');

  await visitor.go('/acquire');
  await visitor.see('Answers are used again');
  await visitor.driver.executeScript('document.querySelector("[role=grid]").focus()');
  await visitor.keys(Key.ARROW_DOWN, Key.ARROW_DOWN, Key.ARROW_RIGHT);
  await visitor.see('Like sales');
  await visitor.driver.sleep(600);
  await keep('acquire');
  await visitor.press('Shortlist it');
  await visitor.see('is on the shortlist');

  await visitor.go('/transfers/plan');
  await visitor.fill('To spend on transfers, USD', '250');
  await visitor.see('the sum to spend does not reach so far');
  await visitor.press('Move all of these…');
  await visitor.see('never for more');
  await visitor.driver.executeScript(
    "[...document.querySelectorAll('[role=dialog] button')].find((one) => one.textContent.startsWith('Move')).click()",
  );
  await visitor.see('wait for you');
  await visitor.driver.sleep(5000);
  await visitor.go('/transfers');
  await visitor.see('Your turn');
  await visitor.driver.sleep(600);
  await keep('transfers');
});

test('a picture of the first hour', async () => {
  const empty = await startApp({ demo: false });
  const { visitor } = empty;
  try {
    await visitor.go('/ledger/add');
    await visitor.fill('Names', 'seaholly.com 2027-01-08\nbrackenquay.net\ntarbarrel.org 2026-12-20\nkelpkiln.com');
    await visitor.choose('Account, where the list names none', 'A new account…');
    await visitor.fill('Label of the new account', 'Quaymark');
    await visitor.press('See what would be added');
    await visitor.press('Write 4 names');
    await visitor.see('4 names added');
    await visitor.go('/unknown');
    await visitor.see('Four names of 4 cannot be foretold yet.');
    await visitor.driver.executeScript('return document.fonts.ready.then(() => true)');
    await visitor.picture(join('docs/screenshots', 'first-hour.png'));
  } finally {
    await empty.close();
  }
});

/** Last, since from then on everybody signs in. */
test('a picture of the people', async () => {
  const { visitor } = app;
  const ledger = timed(app.ledger);
  ledger.machine.now = Date.now();
  const owner = await letIn(ledger, 'Ilsa Tarn', 'owner');
  await letIn(ledger, 'Odo Quill', 'trader', owner.deps, 400_00);
  await letIn(ledger, 'Una Fell', 'bookkeeper', owner.deps);
  await invite(owner.deps, { name: 'Ben Marl', role: 'viewer' });
  await addProgram(owner.deps, { name: 'Bookkeeping', role: 'bookkeeper', scope: ['books'], days: 90 });
  // Sign-ins go by the machine's own clock: in the picture they are of the day that it shows.
  await ledger.database.query(`update people set token_used_at = '2026-11-24T08:50:00Z' where name <> 'Ben Marl'`);
  await ledger.database.query(`update people set token_ends_at = '2027-02-22T09:00:00Z' where kind = 'program'`);
  await ledger.database.query(`update invitations set ends_at = '2026-12-01T09:00:00Z'`);
  await visitor.go('/sign-in');
  await visitor.driver.manage().addCookie({ name: 'name-ledger', value: owner.token });
  await visitor.go('/setup/people');
  await visitor.see('Three people sign in; one is invited.');
  // What the page is about stands in the top line once the page has come to life.
  await visitor.driver.wait(async () => (await visitor.text('header h1')) !== '', 10_000);
  await keep('people');
});

test('pictures of what a buyer sees', async () => {
  const { ledger } = app;
  const { rows } = await ledger.database.query<{ id: number }>("select id from names where ascii = 'moorgauge.io'");
  must(
    await saveListings(ledger, {
      send: true,
      listings: [
        {
          ...LISTING,
          nameId: rows[0]?.id,
          prices: { minimum: 40_000, asking: 120_000, buyNow: 150_000 },
          pitch: 'For whatever measures the wind over wet ground.',
        },
      ],
    }),
  );
  const shop = await openShop(app);
  const buyer = await openBrowser(shop.url);
  await buyer.go('/n/moorgauge.io');
  await buyer.see('Make an offer');
  await buyer.picture(join('docs/screenshots', 'shop-window.png'));
  await buyer.fill('Your offer', '800');
  await buyer.fill('Your name', 'Britta Kelp');
  await buyer.fill('Your mail address', 'b.kelp@kelpworks.test');
  await pause();
  await buyer.press('Send the offer');
  await buyer.see('Look into your mail');
  const link = await shop.linkFor('b.kelp@kelpworks.test');
  await buyer.go(link);
  await buyer.press('Confirm');
  await buyer.see('is with us.');
  const [thread] = await threadsOf(ledger, rows[0]?.id as number);
  const figureId = thread?.figures.at(-1)?.id;
  must(await answerOffer(ledger, { threadId: thread?.id, figureId, answer: 'counter', amount: '1100' }));
  await buyer.go(link);
  await buyer.see('We ask US$1,');
  await buyer.picture(join('docs/screenshots', 'buyer.png'));
  await buyer.close();
  await shop.close();
});
