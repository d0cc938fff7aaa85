import { chanceFrom } from '@practice/scenario/chance';
import { afterEach, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import {
  askedPrice,
  costIn,
  LISTING_KINDS,
  LISTING_STATES,
  type ListingLine,
  netProceedsOf,
  saleFees,
} from '@/core/selling';
import { addDays, dayOf } from '@/core/time';
import { selectListings, selectSaleNames } from '@/database/listings';
import { selectMarketplaces } from '@/database/marketplaces';
import { selectRates } from '@/database/rates';
import { selectVisits } from '@/database/visits';
import { saveMarketplace } from '@/usecases/marketplaces/marketplaces';
import { emptyLedger, type TestLedger, TODAY } from './ledger';
import { MARKETPLACE } from './marketplace';
import { listingLines, offeringOffice } from './offering';

let ledger: TestLedger;
afterEach(() => ledger.close());

/** The lines worked out row by row, each from its own objects: slow, and easy to be sure of. */
async function linesRowByRow(): Promise<ListingLine[]> {
  const { database } = ledger;
  const [listings, marketplaces, rates] = await Promise.all([
    selectListings(database, null),
    selectMarketplaces(database),
    selectRates(database),
  ]);
  const visits = await selectVisits(database, null, TODAY, 30);
  const names = await selectSaleNames(database, [...new Set(listings.map(({ nameId }) => nameId))]);
  return listings.map((listing): ListingLine => {
    const { id, nameId, ascii, unicode, kind, currency, status } = listing;
    const marketplace = marketplaces.find((one) => one.id === listing.marketplaceId) ?? null;
    const fees = saleFees(marketplace, listing, currency, rates, TODAY);
    const name = names.find((one) => one.nameId === nameId);
    const askedMinor = askedPrice(listing);
    const proceedsMinor = askedMinor === null || fees === null ? null : netProceedsOf(askedMinor, fees).proceedsMinor;
    const cost = name ? costIn(name.spent, currency, rates, TODAY) : null;
    return {
      id,
      nameId,
      ascii,
      unicode,
      marketplace: listing.marketplace ?? 'the office',
      kind,
      currency,
      askedMinor,
      proceedsMinor,
      profitMinor: proceedsMinor === null || cost === null ? null : proceedsMinor - cost.minor,
      status,
      bestMinor: name?.bestOfferCurrency === currency ? name.bestOfferMinor : null,
      visits: visits.get(nameId) ?? 0,
      termEnd: listing.termEnd?.at ?? null,
    };
  });
}

const ATTRIBUTES = [{ label: 'Shown', options: [{ label: 'first', minor: 700 }] }];

/** Two marketplaces that charge in other currencies, for one of which a rate may be missing. */
async function twoMarketplaces(): Promise<number[]> {
  const ids: number[] = [];
  for (const more of [
    { label: 'Capstan Row', feesCurrency: 'EUR', listingFeeMinor: 900, attributes: ATTRIBUTES },
    { label: 'Tidemark Hall', feesCurrency: 'CHF', categoryMinor: 250, saleFeeMinor: 400 },
  ]) {
    const made = await saveMarketplace(ledger, { ...MARKETPLACE, ...more });
    if (isRefusal(made)) throw new Error(made.message);
    ids.push(made);
  }
  return ids;
}

test('the columns say of every listing what is worked out from its own rows', async () => {
  ledger = await emptyLedger();
  const office = offeringOffice(ledger);
  await office.begin();
  const marketplaceIds = [null, ...(await twoMarketplaces())];
  await office.query("insert into rates values ('2026-11-20', 'EUR', 'USD', 1.25)");
  const chance = chanceFrom(17);
  const price = () => (chance.next() < 0.3 ? null : 100 * (1 + chance.whole(9000)));
  for (let i = 0; i < 40; i += 1) {
    const ascii = i % 9 === 0 ? `xn--mwe${i}-5qa.com` : `gull${chance.whole(900)}wharf${i}.com`;
    const nameId = await office.write(ascii, i % 13 === 5 ? { gone: TODAY } : {});
    if (i % 9 === 0) await office.query('update names set "unicode" = $2 where id = $1', [nameId, `möwe${i}.com`]);
    if (chance.next() < 0.6) await office.book(nameId, 'registration', 1138, dayOf(addDays(TODAY, -400)));
    if (chance.next() < 0.3)
      await office.book(nameId, 'renewal', 900, dayOf(addDays(TODAY, -40)), null, i % 2 === 0 ? 'EUR' : 'CHF');
    if (chance.next() < 0.4)
      await office.query("update names set best_offer_minor = $2, best_offer_currency = 'USD' where id = $1", [
        nameId,
        700 * i,
      ]);
    for (const days of [0, 29, 30, 31])
      if (chance.next() < 0.3)
        await office.query('insert into visits values ($1, $2, $3)', [nameId, dayOf(addDays(TODAY, -days)), 1 + days]);
    for (const marketplaceId of marketplaceIds) {
      if (chance.next() < 0.3) continue;
      const status = LISTING_STATES[chance.whole(LISTING_STATES.length)];
      await office.query(
        `insert into listings (name_id, marketplace_id, kind, currency, minimum_minor, start_minor, reserve_minor, asking_minor, buy_now_minor,
           attributes, categories, status, made_at, sent_at) values ($1, $2, $3, $4, 100, $5, $6, $7, $8, $9, $10, $11, now(), $12)`,
        [
          nameId,
          marketplaceId,
          LISTING_KINDS[chance.whole(LISTING_KINDS.length)],
          chance.next() < 0.7 ? 'USD' : 'EUR',
          price(),
          price(),
          price(),
          price(),
          chance.next() < 0.5 ? { Shown: 'first' } : {},
          chance.next() < 0.5 ? ['craft', 'coast'] : [],
          status,
          status === 'draft' ? null : new Date(),
        ],
      );
    }
  }
  const expected = await linesRowByRow();
  expect(expected.length).toBeGreaterThan(40);
  // Each way that a figure may be missing is among them, and each that it may be there.
  for (const figure of ['askedMinor', 'proceedsMinor', 'profitMinor', 'bestMinor'] as const) {
    expect(expected.some((line) => line[figure] === null)).toBe(true);
    expect(expected.some((line) => line[figure] !== null)).toBe(true);
  }
  expect(await listingLines(ledger)).toEqual(expected);
});

test('a name that has come after the ledger was read last is listed at once, and one that has gone is not', async () => {
  ledger = await emptyLedger();
  const office = offeringOffice(ledger);
  await office.begin();
  expect(await listingLines(ledger)).toEqual([]);
  const list = (nameId: number) =>
    office.query(
      "insert into listings (name_id, kind, currency, asking_minor, status, made_at) values ($1, 'fixed price', 'USD', 90000, 'draft', now())",
      [nameId],
    );
  const raise = () => office.query('update revision set n = n + 1');
  const first = await office.write('kelploft.com');
  await list(first);
  await raise();
  expect((await listingLines(ledger)).map(({ ascii }) => ascii)).toEqual(['kelploft.com']);
  await list(await office.write('aldernet.com'));
  await office.query('update names set gone_at = now() where id = $1', [first]);
  await raise();
  expect((await listingLines(ledger)).map(({ ascii }) => ascii)).toEqual(['aldernet.com']);
});
