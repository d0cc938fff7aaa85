import { expect, test } from 'vitest';
import { httpMarketplace } from '@/connectors/marketplace/httpMarketplace';
import { eppLink } from '@/connectors/registrar/eppLink';
import { addDays, HOUR_MS } from '@/core/time';
import { selectThreads } from '@/database/offers';
import { openDatabase } from '@/database/pool';
import { selectSales } from '@/database/sales';
import type { Deps } from '@/usecases/deps';
import { followSelling } from '@/usecases/selling/follow';
import { answerOffer, enterOffer } from '@/usecases/selling/offers';
import { handOver, stepSale } from '@/usecases/selling/sales';
import { chanceFrom } from '../../practice/scenario/chance';
import { Cables } from './cables';
import { TODAY } from './ledger';
import { type SellingLedger, sellingLedger } from './marketplace';

/** A few here; `npm run soak` runs all 200. */
const SCHEDULES = process.env.SOAK ? 200 : 40;
const NAMES = Array.from({ length: SCHEDULES }, (_, i) => `brinebell${i}.com`);
const DAYS = 34;

/** A process on cables of its own, which are cut after so many pieces: what is left is what a kill at that moment leaves. */
async function killed(made: SellingLedger, pieces: number, work: (deps: Deps) => Promise<unknown>): Promise<boolean> {
  const { ledger, practice } = made;
  const cables = new Cables();
  const url = new URL(ledger.url);
  url.port = String(await cables.to(Number(url.port)));
  const marketplacePort = await cables.to(practice.marketplacePort);
  const registrarPort = await cables.to(practice.ports.quaymark ?? 0);
  const database = openDatabase(url.toString(), () => undefined, { max: 4 });
  const links: Deps['links'] = new Map();
  const process: Deps = {
    ...ledger,
    database,
    links,
    marketplace: ({ key, allowedHosts }) =>
      httpMarketplace({ url: `http://127.0.0.1:${marketplacePort}`, key, allowedHosts }),
    connect: (address) => eppLink({ ...address, port: registrarPort }, { timeoutMs: 400, sessions: 1 }),
  };
  cables.cutAfter(pieces);
  await work(process).catch(() => null);
  const { cut } = cables;
  await cables.close();
  for (const { link } of links.values()) await link.close();
  await database.end();
  return cut;
}

/** Never two sales of a name, and the entries of a name are those of its sale, once. */
async function checkBooks({ ledger }: SellingLedger): Promise<void> {
  const { rows: twice } = await ledger.database.query(
    "select name_id from sales where stage not in ('not paid', 'refused') group by name_id having count(*) > 1",
  );
  expect(twice).toEqual([]);
  const { rows: wrong } = await ledger.database.query(
    `select n.ascii from names n
     left join (select name_id, -sum(minor) as minor, count(*) filter (where kind = 'sale') as times from entries group by name_id) e on e.name_id = n.id
     left join sales s on s.name_id = n.id and s.stage = 'done'
     where coalesce(e.minor, 0) <> coalesce(s.price_minor - s.commission_minor - s.fees_minor, 0) or coalesce(e.times, 0) <> (s.id is not null)::int`,
  );
  expect(wrong).toEqual([]);
}

test(`${SCHEDULES} random schedules with kills in between: never two sales, never a lost payment, the books balance`, async () => {
  const made = await sellingLedger(NAMES);
  const { ledger, world } = made;
  const chance = chanceFrom(271_828);
  await made.list(NAMES.filter((_, i) => i % 3 !== 2));
  await made.list(
    NAMES.filter((_, i) => i % 3 === 2),
    { kind: 'auction', auctionDays: 10, prices: { start: 10_000, reserve: 30_000 } },
  );
  made.poor.add('Ivo');
  made.reply = { do: 'accept' };
  for (const name of NAMES)
    made.acts.set(
      name,
      Array.from({ length: chance.whole(4) + 1 }, () => {
        const at = addDays(TODAY, 3 + chance.whole(10)) + chance.whole(12) * HOUR_MS;
        const buyer = chance.pick(['Oda', 'Tessel', 'Ivo', 'Ketterby']);
        const minor = (200 + chance.whole(300)) * 100;
        return chance.pick([
          { at, buyer, do: 'offer', minor, days: 7 },
          { at, buyer, do: 'buy' },
          { at, buyer, do: 'bid', maxMinor: minor },
        ] as const);
      }),
    );
  let kills = 0;
  const life = async (work: (deps: Deps) => Promise<unknown>) => {
    if (await killed(made, 1 + chance.whole(90), work)) kills += 1;
  };
  for (let day = 1; day <= DAYS; day += 1) {
    // Offers come by telephone while the marketplace sells.
    for (let i = 0; i < 6; i += 1) {
      const nameId = made.ids.get(chance.pick(NAMES));
      await enterOffer(ledger, { nameId, buyer: 'Ann', amount: String(210 + chance.whole(200)), currency: 'USD' });
    }
    for (const thread of await selectThreads(ledger.database, null)) {
      const live = thread.figures.findLast(({ state }) => state === 'live');
      if (thread.state !== 'open' || live?.by !== 'buyer' || chance.next() < 0.5) continue;
      const answer = chance.pick(['accept', 'accept', 'counter', 'decline'] as const);
      const input = { threadId: thread.id, figureId: live.id, answer, amount: String(live.minor / 100 + 50) };
      if (answer !== 'counter') Reflect.deleteProperty(input, 'amount');
      if (chance.next() < 0.3) await life((deps) => answerOffer(deps, input));
      else await answerOffer(ledger, input);
    }
    for (const sale of await selectSales(ledger.database, 'open')) {
      if (sale.stage === 'buyer known') await life((deps) => handOver(deps, { saleId: sale.id, byHand: false }));
      if (sale.marketplaceId !== null) continue;
      const next = { agreed: 'money held', 'money held': 'buyer known', 'handed over': 'arrived', arrived: 'done' }[
        sale.stage as string
      ];
      if (next && chance.next() < 0.7)
        await life((deps) =>
          stepSale(deps, {
            saleId: sale.id,
            to: next,
            ...(next === 'buyer known' ? { handover: 'push', buyerAccount: 'ann' } : {}),
          }),
        );
    }
    for (let i = 0; i < 4; i += 1) await life(followSelling);
    await made.practice.passTo(addDays(TODAY, day));
    ledger.setClock(addDays(TODAY, day));
    await life(followSelling);
    // Some days go by without a kill in the way, else nobody would ever catch up.
    if (chance.next() < 0.5) await followSelling(ledger);
    await checkBooks(made);
  }
  await made.pass(20);
  await checkBooks(made);
  expect(kills).toBeGreaterThanOrEqual(SCHEDULES);
  const sales = await selectSales(ledger.database);
  const done = sales.filter(({ stage }) => stage === 'done');
  // Every payment that the marketplace made is booked, and nothing else.
  const atMarketplace = done.filter(({ marketplaceId }) => marketplaceId !== null);
  const released = Object.values(world.market.sales).filter(({ stage }) => stage === 'released');
  expect(atMarketplace.map(({ ref }) => ref).sort()).toEqual(released.map((sale) => String(sale.id)).sort());
  const sum = atMarketplace.reduce((all, sale) => all + sale.priceMinor - (sale.commissionMinor ?? 0), 0);
  expect(sum).toBe(world.market.paidOut.USD);
  // Nobody waits for an answer, and no name went to a buyer without a sale.
  expect(sales.filter(({ toTell, handingOver }) => toTell !== null || handingOver)).toEqual([]);
  const gone = [...world.domains.values()].filter(({ owner }) => owner === 'stranger').map(({ name }) => name);
  const sold = sales
    .filter(({ stage }) => ['handed over', 'arrived', 'done'].includes(stage))
    .map(({ ascii }) => ascii);
  expect(gone.sort()).toEqual(sold.sort());
  expect(done.length).toBeGreaterThan(SCHEDULES * 0.3);
  await made.close();
}, 240_000);
