import { Key, until } from 'selenium-webdriver';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { startApp, type TestApp } from './app';

let app: TestApp;
beforeAll(async () => {
  app = await startApp({ demo: true, practice: true });
});
afterAll(() => app.close());

async function letDaysPass(button: '7 days' | '30 days', day: string): Promise<void> {
  const { visitor } = app;
  await visitor.go('/setup/practice');
  await visitor.press(button);
  await visitor.driver.wait(
    async () => (await visitor.text('main h2').catch(() => '')) === day,
    120_000,
    `it did not become ${day}`,
  );
}

const idOf = async (ascii: string) =>
  (await app.ledger.database.query<{ id: number }>('select id from names where ascii = $1', [ascii])).rows[0]?.id;

test('twenty names are chosen, priced by a rule, and listed by keyboard alone', async () => {
  const { visitor, ledger } = app;
  // An account that is kept by hand: what is listed there has still to be proved.
  const { rows: accounts } = await ledger.database.query<{ id: number }>(
    "select id from accounts where label = 'Larkhythe'",
  );
  await visitor.go(`/ledger?sort=name&account=${accounts[0]?.id}`);
  await visitor.driver.wait(until.elementLocated({ css: '[role=grid] [aria-selected]' }), 10_000);
  await visitor.driver.executeScript('document.querySelector("[role=grid]").focus()');
  await visitor.keys(Key.ARROW_DOWN, ' ');
  for (let i = 0; i < 19; i += 1) await visitor.keys(Key.chord(Key.SHIFT, Key.ARROW_DOWN));
  await visitor.see('20 names chosen');
  await visitor.pressByKey('More');
  await visitor.see('List for sale…');
  await visitor.keys(Key.ENTER);
  await visitor.see('price and list 20 names');
  expect(await visitor.axe()).toEqual([]);
  await visitor.pressByKey('Price the chosen');
  await visitor.see('asking set for 20 names.');
  // A minimum above the asking price is told while it is typed, and mended.
  const first = await visitor.driver.findElement({ css: 'input[data-place="0"][data-price="minimum"]' });
  await first.sendKeys('999999');
  await visitor.see('one name to mend first: they are kept as drafts.');
  await visitor.see('The minimum offer price has to be no more than the asking price.');
  await first.sendKeys(Key.chord(Key.CONTROL, 'a'), '50', Key.ARROW_DOWN, '60');
  await visitor.see('Nothing stands in the way.');
  await visitor.pressByKey('List 20 names at Cordage Hall…');
  // What happens is said before it does.
  await visitor.see('a sale binds');
  expect(await visitor.axe()).toEqual([]);
  await visitor.pressByKey('List them');
  await visitor.see('20 names listed.');
  await visitor.see('not proved');
  expect(await visitor.axe()).toEqual([]);
  const { rows } = await ledger.database.query(
    "select count(*) as n, count(*) filter (where minimum_minor is not null) as least from listings where made_at >= '2026-11-24'",
  );
  expect(rows).toEqual([{ n: 20, least: 2 }]);
});

test('a price is moved on the ladder by the arrow keys, and taken back', async () => {
  const { visitor } = app;
  await visitor.go(`/selling/price?names=${await idOf('copperbuoy.com')}`);
  const asking = await visitor.field('asking of copperbuoy.com');
  await asking.sendKeys(Key.chord(Key.CONTROL, 'a'), '1000');
  await visitor.driver.executeScript('document.querySelector("[role=slider][aria-label=asking]").focus()');
  await visitor.keys(Key.PAGE_UP);
  const moved = Number(await asking.getAttribute('value'));
  expect(moved).toBeGreaterThan(1000);
  await visitor.press('Undo');
  expect(await asking.getAttribute('value')).toBe('1000');
  await visitor.fill('Profit wanted', '850');
  await visitor.see('use it');
});

test('a name without a registrar link is proved by the TXT record that is shown', async () => {
  const { visitor, practice, ledger } = app;
  const name = 'samphiremill.me';
  await visitor.go(`/selling/price?names=${await idOf(name)}`);
  await visitor.fill(`asking of ${name}`, '4000');
  await visitor.press('List one name at Cordage Hall…');
  await visitor.press('List them');
  await visitor.see('Nobody sees it until Cordage Hall knows that the name is yours.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Look for the record now');
  await visitor.see('The record is not in the zone yet.');
  const { rows } = await ledger.database.query<{ text: string }>(
    'select proof_text as text from listings l join names n on n.id = l.name_id where n.ascii = $1',
    [name],
  );
  practice?.world.texts.set(name, [rows[0]?.text ?? '']);
  await visitor.press('Look for the record now');
  await visitor.see('in review');
});

test('one value is set for all chosen listings, what the marketplace asks included', async () => {
  const { visitor } = app;
  await visitor.go(`/selling/price?names=${await idOf('copperbuoy.com')},${await idOf('larchpilot.com')}`);
  await visitor.click('The same for all chosen');
  await visitor.fill('Amount for all', '1,450');
  await visitor.press('Set it for all');
  for (const name of ['copperbuoy.com', 'larchpilot.com'])
    expect(await (await visitor.field(`asking of ${name}`)).getAttribute('value')).toBe('1450');
  await visitor.choose('What to set for all', 'category');
  await visitor.see('Set this for all');
  expect(await visitor.axe()).toEqual([]);
});

test('a price far from what like names were sold for is asked about before it is listed', async () => {
  const { visitor, ledger } = app;
  await ledger.database.query(
    `insert into comparables (ascii, minor, currency, on_day, marketplace)
     select 'copper' || n || '.com', 50000 + n, 'USD', '2026-06-01', 'Cordage Hall' from generate_series(1, 9) n`,
  );
  await visitor.go(`/selling/price?names=${await idOf('copperbuoy.com')}`);
  await visitor.fill('asking of copperbuoy.com', '900,000');
  await visitor.press('List one name at Cordage Hall…');
  await visitor.see('far from what like names were sold for. Is that meant?');
  await visitor.see('List them all the same');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Not yet');
  await visitor.gone('Is that meant?');
});

test('rivals are named before an offer is accepted, and declining is asked', async () => {
  const { visitor, ledger } = app;
  const nameId = await idOf('shinglelantern.uk');
  const { rows } = await ledger.database.query<{ id: number }>(
    "select id from offer_threads where name_id = $1 and state = 'open' order by id limit 1",
    [nameId],
  );
  await visitor.go('/selling');
  await visitor.see('one rival');
  await visitor.go(`/selling/offers/${rows[0]?.id}`);
  await visitor.see('of what is asked');
  await visitor.press('Decline…');
  await visitor.see('this negotiation ends: it cannot be taken back');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Leave it open');
  const accept = await visitor.driver.findElement({ xpath: "//button[starts-with(normalize-space(.), 'Accept ')]" });
  await accept.click();
  await visitor.see('Somebody else stands for it');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Not yet');
});

test('an offer is countered, the counter accepted; one auction sells above its reserve, one does not', async () => {
  const { visitor, practice } = app;
  // Buyers of this test: they take what is countered, and do nothing else.
  if (practice) practice.world.buyers = { acts: () => [], reply: () => ({ do: 'accept' }), pays: () => true };
  await visitor.go('/selling');
  await visitor.see('Offers to answer: ');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('tideloft.com');
  await visitor.see('Your answer');
  expect(await visitor.axe()).toEqual([]);
  await visitor.fill('Counter with, in USD', '10');
  await visitor.see('That is below your floor of $67.');
  await visitor.press('Counter');
  await visitor.see('That is no more than was offered: accept the offer instead.');
  await visitor.fill('Counter with, in USD', '5,500');
  await visitor.press('Counter');
  await visitor.see('The buyer has your figure');

  await letDaysPass('7 days', '1 Dec 2026');
  await visitor.go('/selling/names/tideloft.com');
  await visitor.see('$5,500');
  await visitor.see('accepted');
  await visitor.go('/selling');
  await visitor.see('Auctions that did not sell: 1');
  await visitor.press('withywick.com');
  await visitor.see('Not sold: the reserve was not met. Oda Fennimore bid most.');
  expect(await visitor.axe()).toEqual([]);
  await visitor.go('/selling/names/larchchandler.nl');
  await visitor.press('sold');
  await visitor.see('Sold to Pilgrave & Sons for $3,635, reserve met.');
  expect(await visitor.axe()).toEqual([]);
});

test('the name is handed over by link, the money released, and the statement read', async () => {
  const { visitor, ledger, practice } = app;
  const { rows } = await ledger.database.query<{ id: number; ascii: string }>(
    "select s.id, n.ascii from sales s join names n on n.id = s.name_id where s.stage = 'buyer known' and s.handover = 'push' order by s.id limit 1",
  );
  const [sale] = rows;
  if (!sale) throw new Error('no sale is at the owner’s turn');
  await visitor.go('/selling');
  await visitor.see('Sales at your turn');
  await visitor.press(sale.ascii);
  await visitor.see('Hand the name over');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Push by link…');
  await visitor.see('This cannot be taken back.');
  await visitor.press('Hand it over');
  await visitor.see('arrived: the money is released');
  expect(practice?.world.domains.get(sale.ascii)?.owner).toBe('stranger');
  await letDaysPass('7 days', '8 Dec 2026');
  await visitor.go('/selling/sold');
  await visitor.press(sale.ascii);
  await visitor.see('Statement of sale');
  await visitor.see('as the marketplace told');
  await visitor.see('internal rate over the dated entries above');
  expect(await visitor.axe()).toEqual([]);
  const { rows: books } = await ledger.database.query<{ booked: number; proceeds: number }>(
    `select -sum(e.minor) as booked, s.price_minor - s.commission_minor - s.fees_minor as proceeds
     from sales s join entries e on e.name_id = s.name_id and e.reference = 'sale ' || s.id where s.id = $1 group by s.id`,
    [sale.id],
  );
  expect(books[0]?.booked).toBe(books[0]?.proceeds);
  // It has left the ledger, and stays in the books.
  await visitor.go(`/ledger/${sale.ascii}`);
  await visitor.see('No longer at its account. It stays in the books.');
});

test('a marketplace is described under Setup, with its own columns; a rule and a rate are set', async () => {
  const { visitor } = app;
  await visitor.go('/setup/marketplaces');
  await visitor.see('Brackwater Rooms');
  expect(await visitor.axe()).toEqual([]);
  await visitor.press('Answer offers by this rule');
  await visitor.fill('Accept from, percent of asking', '95');
  await visitor.press('Save the rule');
  await visitor.see('Saved.');
  await visitor.fill('From day', '2026-11-01');
  await visitor.fill('One unit of', 'NOK');
  await visitor.fill('is so many', '0.09');
  await visitor.press('Save the rate');
  await visitor.see('1 NOK = 0.09 USD');
  await visitor.press('New marketplace');
  await visitor.fill('Marketplace', 'Oakum Row');
  await visitor.fill('Commission, percent', '12.5');
  await visitor.press('Add a column');
  await visitor.press('Save the marketplace');
  // What is refused stands at the cell that it is about, in plain words.
  await visitor.see('Write something here.');
  await visitor.fill('Column 1: heading', 'Item');
  await visitor.press('Save the marketplace');
  await visitor.see('Over a link listings are sent and proved');
  expect(await visitor.axe()).toEqual([]);
});

test('what was sold is looked at before it is read: profit as bars, prices on one line', async () => {
  const { visitor } = app;
  await visitor.go('/selling/sold');
  await visitor.see('Profit by year');
  await visitor.see('What names were sold for');
  const told = await visitor.driver.executeScript<string>(
    "return document.querySelector('section[aria-label=\"What names were sold for\"] svg').getAttribute('aria-label')",
  );
  expect(told).toMatch(/^\d+ prices from \$/);
  await visitor.go('/selling/comparables');
  await visitor.fill('Like this name', 'copperbuoy.com');
  await visitor.see('Like names went for');
  expect(await visitor.axe()).toEqual([]);
});

test('the list of listings is filtered, sorted and chosen as a whole; what is withdrawn has gone from it', async () => {
  const { visitor, ledger } = app;
  const { driver } = visitor;
  /** What the database says of those that are listed at a marketplace without a link, the dearest first. */
  const listed = async () =>
    (
      await ledger.database.query<{ ascii: string; asked: number | null }>(
        `select n.ascii, case when l.kind = 'auction' then coalesce(l.buy_now_minor, l.reserve_minor, l.start_minor) else l.asking_minor end as asked
         from listings l join names n on n.id = l.name_id join marketplaces m on m.id = l.marketplace_id
         where m.label = 'Brackwater Rooms' and l.status not in ('withdrawn', 'sold', 'ended') and n.gone_at is null order by asked desc nulls last, n.ascii collate "C"`,
      )
    ).rows;
  const before = await listed();
  expect(before.length).toBeGreaterThan(3);
  const first = () => visitor.text('[role=row][aria-rowindex="2"] [role=gridcell]:nth-child(2)').catch(() => '');
  await visitor.go('/selling/listings');
  await visitor.see('proceeds');
  await visitor.choose('Marketplace', 'Brackwater Rooms');
  await visitor.see(`${before.length} listings`);
  await visitor.click('Asking price');
  await visitor.click('Asking price');
  await driver.wait(async () => (await first()) === before[0]?.ascii, 10_000, 'the dearest does not stand first');
  await visitor.fill('Find', String(before.at(-1)?.ascii));
  await driver.wait(async () => (await first()) === before.at(-1)?.ascii, 10_000, 'what was looked for is not there');
  await driver.findElement({ css: '[aria-label="Choose all"]' }).click();
  await visitor.see('1 chosen');
  // What is chosen stays chosen while something else is looked for.
  await visitor.fill('Find', '');
  await driver.wait(async () => (await first()) === before[0]?.ascii, 10_000, 'the dearest does not stand first again');
  await visitor.press('Withdraw');
  await visitor.see('1 withdrawn.');
  await visitor.see(`${before.length - 1} listings`);
  expect(await listed()).toEqual(before.slice(0, -1));
  expect(await visitor.axe()).toEqual([]);
});

test('the screens of selling read by night too', async () => {
  const { visitor } = app;
  await visitor.go('/selling');
  await visitor.press('Night chart');
  await visitor.see('Day chart');
  const price = `/selling/price?names=${await idOf('copperbuoy.com')},${await idOf('larchpilot.com')}`;
  for (const path of ['/selling', '/selling/listings', '/selling/sold', '/selling/sales/1', price]) {
    await visitor.go(path);
    await visitor.see('Day chart');
    expect(await visitor.axe(), path).toEqual([]);
  }
  await visitor.press('Day chart');
});

test('past sales are brought in and set beside a name', async () => {
  const { visitor } = app;
  await visitor.go('/selling/comparables');
  await visitor.click('Bring in past sales');
  await visitor.fill('Table', 'name,price,date\nkelpquoin.com,1200,2026-03-09\nno name,5,2026-01-01');
  await visitor.press('Bring them in');
  await visitor.see('1 added, 0 known already, 1 not read.');
  await visitor.fill('Like this name', 'kelpanvil.com');
  await visitor.see('Like names went for');
  await visitor.see('kelpquoin.com');
  expect(await visitor.axe()).toEqual([]);
});
