import { addDays, addYears, type Day, dayOf, formatInstant, type Instant } from '@/core/time';
import { selectAccounts } from '@/database/accounts';
import { insertBatch } from '@/database/changes';
import { insertEntries } from '@/database/entries';
import { stepListings, upsertListings } from '@/database/listings';
import { insertNames, selectNameIds } from '@/database/names';
import { transaction } from '@/database/pool';
import { insertComparables } from '@/database/sales';
import type { Deps } from '@/usecases/deps';
import { keepForecast } from '@/usecases/prospects/forecasts';
import { saveRate } from '@/usecases/rates/rates';
import { enterBid } from '@/usecases/selling/auctions';
import { followSelling } from '@/usecases/selling/follow';
import { saveListings } from '@/usecases/selling/listings';
import { enterOffer } from '@/usecases/selling/offers';
import { commitSale, stepSale } from '@/usecases/selling/sales';
import { MARKETPLACE_TITLE } from '../marketplace/market';
import { chanceFrom } from './chance';
import { demoListings } from './market';
import { must, ROOMS, seedMarketplaces } from './marketplaces';
import { FIRST_HALVES, SECOND_HALVES } from './words';

/** Puts the selling of the demo into its ledger: marketplaces, rates, what is on offer, offers and bids, and what was sold before. */
export async function seedSelling(deps: Deps, marketplacePort: number): Promise<void> {
  const { database } = deps;
  const now = deps.clock();
  for (const [from, currency, factor] of [
    ['2012-01-01', 'EUR', 1.2],
    ['2026-01-01', 'EUR', 1.09],
    ['2012-01-01', 'GBP', 1.45],
    ['2026-01-01', 'GBP', 1.28],
  ] as const)
    must(await saveRate(deps, { from, currency, into: 'USD', factor }));
  const { hall, rooms } = await seedMarketplaces(deps, marketplacePort);
  await listAtHall(deps, hall);
  await offerByHand(deps, rooms);
  await soldBefore(deps, hall, rooms);
  await transaction(database, (tx) => insertComparables(tx, pastSales(now)));
  await followSelling(deps);
}

async function listAtHall(deps: Deps, marketplaceId: number): Promise<void> {
  const now = deps.clock();
  const listings = demoListings(now);
  const ids = await selectNameIds(
    deps.database,
    listings.map(({ ascii }) => ascii),
  );
  await transaction(deps.database, async (tx) => {
    const written = await upsertListings(
      tx,
      listings.flatMap(({ ascii, kind, currency, prices, auctionDays, pitch }) => {
        const nameId = ids.get(ascii);
        return nameId === undefined
          ? []
          : [
              {
                nameId,
                marketplaceId,
                kind,
                currency,
                prices,
                reasons: {},
                auctionDays,
                reserveShown: false,
                withSite: false,
                categories: [],
                pitch,
                description: '',
                attributes: {},
              },
            ];
      }),
      addDays(now, -12),
    );
    await stepListings(
      tx,
      written.map(({ id }) => id),
      { status: 'unproved', sentAt: addDays(now, -12) },
    );
  });
}

/** Names that are sound, for sale, and not at the hall. */
async function spareNames(deps: Deps, count: number): Promise<number[]> {
  const { rows } = await deps.database.query<{ id: number }>(
    `select n.id from names n where n.asking_currency = 'USD' and n.gone_at is null and n.observed is null and n.term_end > $1
       and not exists (select from listings l where l.name_id = n.id) order by n.ascii desc limit $2`,
    [new Date(addDays(deps.clock(), 200)), count],
  );
  return rows.map(({ id }) => id);
}

async function offerByHand(deps: Deps, rooms: number): Promise<void> {
  const now = deps.clock();
  const spare = await spareNames(deps, 6);
  const [first, second, ...others] = spare;
  const base = {
    currency: 'USD',
    auctionDays: 10,
    reserveShown: true,
    withSite: false,
    categories: [],
    attributes: {},
  };
  const early: Deps = { ...deps, clock: () => addDays(now, -8) };
  must(
    await saveListings(early, {
      marketplaceId: rooms,
      send: true,
      listings: others.map((nameId) => ({
        ...base,
        nameId,
        kind: 'fixed price, offers too',
        prices: { minimum: 60_000, asking: 145_000 },
        reasons: { asking: 'half of what a like name brought last year' },
      })),
    }),
  );
  const own = must(
    await saveListings(early, {
      send: true,
      listings: [
        { ...base, nameId: first, kind: 'auction', prices: { start: 10_000, reserve: 45_000, buyNow: 120_000 } },
        { ...base, nameId: second, kind: 'fixed price, offers too', prices: { minimum: 40_000, asking: 190_000 } },
      ],
    }),
  );
  const { rows } = await deps.database.query<{ id: number }>('select id from auctions where listing_id = any($1)', [
    own.listingIds,
  ]);
  const bids = [
    ['Oda Fennimore', '150', -7],
    ['Ketterby Boatyard', '260', -5],
    ['Oda Fennimore', '380', -2],
  ] as const;
  for (const [bidder, max, days] of bids)
    must(await enterBid({ ...deps, clock: () => addDays(now, days) }, { auctionId: rows[0]?.id, bidder, max }));
  must(
    await enterOffer(
      { ...deps, clock: () => addDays(now, -1) },
      {
        nameId: second,
        buyer: 'Pilgrave & Sons',
        contact: 'by telephone, 24 Nov',
        amount: '900',
        currency: 'USD',
        until: dayOf(addDays(now, 4)),
      },
    ),
  );
}

/** A name that was sold: years it was held, days since it was sold, what was asked and paid, where and by whom. */
interface Sold {
  readonly ascii: string;
  readonly years: number;
  readonly ago: number;
  readonly askedMinor: number;
  readonly priceMinor: number;
  readonly marketplaceId: number | null;
  readonly buyer: string;
}

/** How long ago the office kept a forecast, in days. */
const FORECAST_AGO = 365;

/** Sales of earlier years: the names are in the books and no longer in the ledger. Between them the office kept a forecast. */
async function soldBefore(deps: Deps, hall: number, rooms: number): Promise<void> {
  const now = deps.clock();
  const account = (await selectAccounts(deps.database)).find(({ label }) => label === 'Quaymark');
  if (!account) return;
  const sold: readonly Sold[] = [
    {
      ascii: 'saltmarshloom.com',
      years: 6,
      ago: 400,
      askedMinor: 260_000,
      priceMinor: 210_000,
      marketplaceId: hall,
      buyer: 'Pilgrave & Sons',
    },
    {
      ascii: 'harbourvane.com',
      years: 4,
      ago: 190,
      askedMinor: 140_000,
      priceMinor: 84_000,
      marketplaceId: rooms,
      buyer: 'Tessel Weatherglass',
    },
    {
      ascii: 'corkandtar.net',
      years: 3,
      ago: 75,
      askedMinor: 90_000,
      priceMinor: 39_000,
      marketplaceId: null,
      buyer: 'Oda Fennimore',
    },
  ];
  const ids = new Map<string, number>();
  for (const one of sold) ids.set(one.ascii, await heldBefore(deps, account.id, one));
  const sell = async (one: Sold) => sellNow(deps, ids.get(one.ascii) as number, one);
  for (const one of sold.filter(({ ago }) => ago > FORECAST_AGO)) await sell(one);
  const then: Deps = { ...deps, clock: () => addDays(now, -FORECAST_AGO) };
  await keepThen(then);
  for (const one of sold.filter(({ ago }) => ago <= FORECAST_AGO)) await sell(one);
}

/** The forecast as it was made then: what has been renewed since had a year less to run. */
async function keepThen(then: Deps): Promise<void> {
  const { database } = then;
  const renewed = "registered < $1::timestamptz - interval '1 day' and term_end > $1";
  const at = new Date(then.clock());
  const { rows } = await database.query<{ ids: number[]; ends: Date[] }>(
    `select array_agg(id) as ids, array_agg(to_char(term_end at time zone 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"')) as ends from names where ${renewed}`,
    [at],
  );
  await database.query(`update names set term_end = term_end - interval '1 year' where ${renewed}`, [at]);
  const kept = await keepForecast(then, {
    label: 'A year ago',
    assumptions: { unknownPriceMinor: 1400, unknownBalanceMinor: 5000, cashMinor: 400_000 },
    years: 3,
    seed: 7,
    paths: 1000,
  });
  await database.query(
    'update names set term_end = e.term_end from unnest($1::int[], $2::timestamptz[]) as e(id, term_end) where names.id = e.id',
    [rows[0]?.ids ?? [], rows[0]?.ends ?? []],
  );
  must(kept);
}

/** A name as it was before it was sold, with what it had cost. Answers its id. */
function heldBefore(deps: Deps, accountId: number, { ascii, years, ago, askedMinor }: Sold): Promise<number> {
  const at = addDays(deps.clock(), -ago);
  const bought = addYears(at, -years);
  return transaction(deps.database, async (tx) => {
    const batchId = await insertBatch(tx, {
      at: bought,
      by: 'office',
      kind: 'entry',
      summary: `Registered ${ascii}`,
      undoes: null,
    });
    const ending = ascii.slice(ascii.indexOf('.') + 1);
    const fields = {
      account_id: accountId,
      registered: formatInstant(bought),
      term_end: formatInstant(addYears(at, 1)),
      setting: 'off',
      purpose: 'for sale',
      asking_minor: askedMinor,
      asking_currency: 'USD',
    };
    await insertNames(tx, batchId, [{ ascii, unicode: ascii, ending, fields }], bought);
    const id = (await selectNameIds(tx, [ascii])).get(ascii) as number;
    await insertEntries(
      tx,
      batchId,
      Array.from({ length: years }, (_, i) => ({
        nameId: id,
        onDay: dayOf(addYears(bought, i)),
        kind: i === 0 ? ('registration' as const) : ('renewal' as const),
        minor: 1050 + i * 20,
        currency: 'USD',
        note: '1 year',
      })),
    );
    return id;
  });
}

/** The sale of a name on its day, step by step to its end. */
async function sellNow(deps: Deps, nameId: number, { ago, priceMinor, marketplaceId, buyer }: Sold): Promise<void> {
  const at = addDays(deps.clock(), -ago);
  const sale = await transaction(deps.database, (tx) =>
    commitSale(
      tx,
      at,
      {
        nameId,
        marketplaceId,
        listingId: null,
        figureId: null,
        auctionId: null,
        ref: null,
        how: 'offer',
        buyer,
        priceMinor,
        currency: 'USD',
        toTell: null,
      },
      'by hand',
    ),
  );
  const saleId = must(sale);
  const steps = ['money held', 'buyer known', 'handed over', 'arrived', 'done'] as const;
  for (const [i, to] of steps.entries())
    must(
      await stepSale(
        { ...deps, clock: () => addDays(at, i + 1) },
        { saleId, to, ...(to === 'buyer known' ? { handover: 'push', buyerAccount: 'their account there' } : {}) },
      ),
    );
}

const TOLD = 60;

/** Sales of others that were told: made up of the demo's own words. */
function pastSales(now: Instant): { ascii: string; minor: number; currency: string; day: Day; marketplace: string }[] {
  const chance = chanceFrom(70_711);
  return Array.from({ length: TOLD }, (_, i) => {
    const ending = ['com', 'com', 'com', 'net', 'org', 'io'][i % 6];
    const label = `${chance.pick(FIRST_HALVES)}${chance.pick(SECOND_HALVES)}`;
    return {
      ascii: `${label}.${ending}`,
      minor: Math.round(120 * 4 ** (chance.next() * 2.4)) * 100,
      currency: 'USD',
      day: dayOf(addDays(now, -chance.whole(900) - 3)),
      marketplace: chance.pick([MARKETPLACE_TITLE, ROOMS, 'told by the buyer']),
    };
  });
}
