import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { chanceOfSale } from '@/core/odds';
import { addDays, dayOf, formatInstant } from '@/core/time';
import { selectOfferFacts } from '@/database/offerFacts';
import { verdicts } from '@/usecases/names/decisions';
import { editNames } from '@/usecases/names/edit';
import { allAssumptions, dropAssumptions, saveAssumptions, takeAssumptions } from '@/usecases/prospects/assumptions';
import { dropForecast, forecastNow, keepForecast, keptForecasts, lookBack } from '@/usecases/prospects/forecasts';
import { backupText, restoreText } from './backups';
import { emptyLedger, type TestLedger, TODAY } from './ledger';
import { must } from './marketplace';
import { offeringOffice } from './offering';

let ledger: TestLedger;
let office: ReturnType<typeof offeringOffice>;
beforeEach(async () => {
  ledger = await emptyLedger();
  office = offeringOffice(ledger);
});
afterEach(() => ledger.close());

describe('how long names have been on offer', () => {
  beforeEach(() => office.begin());
  const years = async () => {
    const { since, gone } = await selectOfferFacts(ledger.database, TODAY);
    return { since: Object.fromEntries(Array.from(since.nameId, (id, i) => [id, since.years[i]])), gone };
  };

  test('from the day a name came with a price, until now, until it left, or until it was sold', async () => {
    const there = await office.write('here.com');
    await office.write('unasked.com', { asking: null });
    await office.write('left.com', { gone: addDays(TODAY, -365) });
    const sold = await office.write('sold.com', { gone: addDays(TODAY, -100) });
    await office.sell(sold, 60_000, addDays(TODAY, -365));
    const found = await years();
    expect(Object.keys(found.since)).toEqual([String(there)]);
    expect(found.since[there]).toBeCloseTo(730 / 365.25, 3);
    expect(found.gone.map(({ years: of }) => of.toFixed(2))).toEqual(['1.00', '1.00']);
  });

  test('a price that is taken away and set again leaves out the time between', async () => {
    const id = await office.write('gap.com', { added: addDays(TODAY, -400) });
    const priced = await office.write('later.com', { added: addDays(TODAY, -400), asking: null });
    ledger.setClock(addDays(TODAY, -300));
    must(await editNames(ledger, { nameIds: [id], edit: { clearAsking: true } }));
    ledger.setClock(addDays(TODAY, -100));
    must(await editNames(ledger, { nameIds: [id, priced], edit: { asking: { amount: '500', currency: 'USD' } } }));
    ledger.setClock(TODAY);
    const { since } = await years();
    expect(since[id]).toBeCloseTo(200 / 365.25, 3);
    expect(since[priced]).toBeCloseTo(100 / 365.25, 3);
  });

  test('who has offered or bid within a year counts, each once; who did before does not', async () => {
    const wished = await office.write('wished.com');
    await office.write('quiet.com');
    const day = (ago: number) => new Date(addDays(TODAY, -ago));
    for (const ago of [10, 300, 500])
      await office.query(
        "insert into offer_threads (name_id, buyer, currency, made_at, state) values ($1, 'Ann', 'USD', $2, 'declined')",
        [wished, day(ago)],
      );
    const { rows: listed } = await office.query(
      "insert into listings (name_id, kind, currency, status, made_at) values ($1, 'auction', 'USD', 'live', $2) returning id",
      [wished, day(20)],
    );
    const { rows: auction } = await office.query(
      "insert into auctions (listing_id, name_id, at_marketplace, currency, start_minor, increments, opens_at, closes_at) values ($1, $2, false, 'USD', 100, '[]', $3, $4) returning id",
      [listed[0].id, wished, day(20), day(-10)],
    );
    for (const [bidder, ago] of [
      ['Oda', 5],
      ['Oda', 4],
      ['Bert', 3],
    ] as const)
      await office.query(
        'insert into bids (auction_id, bidder, max_minor, price_minor, at) values ($1, $2, 500, 400, $3)',
        [auction[0].id, bidder, day(ago)],
      );
    const { offers } = await selectOfferFacts(ledger.database, TODAY);
    expect([[...offers.nameId], [...offers.count]]).toEqual([[wished], [4]]);
  });

  test('own sales stand with what was asked', async () => {
    const id = await office.write('sold.com', { gone: addDays(TODAY, -100) });
    await office.sell(id, 60_000, addDays(TODAY, -200));
    expect((await selectOfferFacts(ledger.database, TODAY)).sales).toEqual([
      {
        ascii: 'sold.com',
        ending: 'com',
        tags: [],
        price: { minor: 60_000, currency: 'USD' },
        askedMinor: 100_000,
        day: dayOf(addDays(TODAY, -200)),
      },
    ]);
  });
});

describe('assumptions', () => {
  beforeEach(() => office.begin());

  test('are kept under a name, taken into use, and what was not said is usual', async () => {
    const { sets } = must(await saveAssumptions(ledger, { label: ' Hopeful ', assumptions: { chance: 0.05 } }));
    expect(sets).toMatchObject([
      { label: 'Hopeful', assumptions: { chance: 0.05, nameYears: 100, medianShare: null } },
    ]);
    const used = must(await takeAssumptions(ledger, { assumptions: { chance: 0.05, floorMinor: -5000 } }));
    expect(used.inUse).toMatchObject({ chance: 0.05, floorMinor: -5000, interest: 0.08 });
    must(await saveAssumptions(ledger, { label: 'Hopeful', assumptions: { chance: 0.06 } }));
    const [set] = (await allAssumptions(ledger)).sets;
    expect(set?.assumptions.chance).toBe(0.06);
    must(await dropAssumptions(ledger, set?.id ?? 0));
    expect(await dropAssumptions(ledger, set?.id ?? 0)).toMatchObject({ code: 'assumptions-unknown' });
  });

  test.each([
    [{ label: 'x', assumptions: { chance: 2 } }, 'assumptions.chance'],
    [{ label: 'x', assumptions: { grouping: 'moon' } }, 'assumptions.grouping'],
    [{ label: 'x', assumptions: { cashMinor: 1.5 } }, 'assumptions.cashMinor'],
    [{ label: '', assumptions: {} }, 'label'],
    [{ label: 'two\nlines', assumptions: {} }, 'label'],
  ])('%j is refused at %s', async (input, field) => {
    expect(await saveAssumptions(ledger, input)).toMatchObject({ kind: 'refusal', field });
  });

  test('own sales change what Rescue says of the same name', async () => {
    const id = await office.write('endangered.com', { asking: 60_000 });
    await office.query("update names set setting = 'off', term_end = $1 where id = $2", [
      formatInstant(addDays(TODAY, 20)),
      id,
    ]);
    const verdict = async () => must(await verdicts(ledger)).names.map((one) => one.verdict);
    expect(await verdict()).toEqual(['drop']);
    for (let i = 0; i < 20; i += 1)
      await office.sell(
        await office.write(`sold${i}.com`, { gone: addDays(TODAY, -10) }),
        50_000,
        addDays(TODAY, -50 - i),
      );
    await office.query('update revision set n = n + 1');
    expect(await verdict()).toEqual(['renew']);
  });
});

describe('a forecast', () => {
  test('says what it lacks, and goes on with what stands in for it', async () => {
    await office.begin(null);
    await office.write('one.com');
    await office.write('two.net');
    const lacking = must(await forecastNow(ledger, {}));
    expect(lacking.fans).toEqual([]);
    expect(lacking.lacking).toMatchObject({ unpricedCount: 1, balances: [1] });
    const told = must(
      await forecastNow(ledger, { assumptions: { unknownPriceMinor: 1500, unknownBalanceMinor: 50_000 }, paths: 200 }),
    );
    expect(told.fans).toHaveLength(1);
    expect(told.openingMinor).toBe(50_000);
  });

  test('is the same for the same seed, and another for another', async () => {
    await office.begin();
    for (let i = 0; i < 30; i += 1) await office.write(`name${i}.com`);
    const asked = {
      paths: 300,
      years: 10,
      seed: 7,
      strategies: [{ kind: 'as it stands' }, { kind: 'lower prices', share: 0.2 }],
    };
    const [one, again, other] = [
      must(await forecastNow(ledger, asked)),
      must(await forecastNow(ledger, asked)),
      must(await forecastNow(ledger, { ...asked, seed: 8 })),
    ];
    expect(again).toEqual(one);
    expect(other.fans[0]?.profit.mean).not.toBe(one.fans[0]?.profit.mean);
    expect(one.compared).toHaveLength(1);
  });

  test.each([
    [{ strategies: [{ kind: 'budget' }] }, 'strategy-incomplete'],
    [{ strategies: [] }, 'request-invalid'],
    [{ years: 11 }, 'request-invalid'],
    [{ paths: 1e9 }, 'request-invalid'],
    [{ seed: -1 }, 'request-invalid'],
    [{ seed: 2_147_483_648 }, 'request-invalid'],
    [{ assumptions: { offerFactor: 101 } }, 'request-invalid'],
  ])('%j is refused: %s', async (input, code) => {
    await office.begin();
    expect(await forecastNow(ledger, input)).toMatchObject({ code });
  });

  test('without assumptions goes by those of the office; those that are told are whole', async () => {
    await office.begin();
    for (let i = 0; i < 20; i += 1) await office.write(`name${i}.com`);
    must(await takeAssumptions(ledger, { assumptions: { medianShare: 0.9, chance: 0.3 } }));
    const asked = { paths: 200, years: 1 };
    const [plain, whole, usual] = [
      must(await forecastNow(ledger, asked)),
      must(await forecastNow(ledger, { ...asked, assumptions: { medianShare: 0.9, chance: 0.3 } })),
      must(await forecastNow(ledger, { ...asked, assumptions: { chance: 0.3 } })),
    ];
    expect(plain).toEqual(whole);
    expect(usual.fans[0]?.profit.mean).toBeLessThan(plain.fans[0]?.profit.mean as number);
    must(await keepForecast(ledger, { ...asked, label: 'By own sales', assumptions: { chance: 0.3 } }));
    const [kept] = await keptForecasts(ledger);
    expect(kept?.assumptions).toMatchObject({ chance: 0.3, medianShare: null });
  });

  test('is kept, restored from a backup, and held against what happened', async () => {
    await office.begin();
    const ids: number[] = [];
    for (let i = 0; i < 40; i += 1) ids.push(await office.write(`name${String(i).padStart(2, '0')}.com`));
    const id = must(
      await keepForecast(ledger, { label: 'This year', assumptions: { chance: 0.3 }, paths: 200, years: 3 }),
    );
    const later = addDays(TODAY, 365);
    for (const sold of ids.slice(0, 9)) await office.sell(sold, 90_000, addDays(TODAY, 100));
    await office.book(ids[20] as number, 'renewal', 1200, dayOf(addDays(TODAY, 200)));
    ledger.setClock(later);
    const back = must(await lookBack(ledger, id));
    const said = chanceOfSale({ sales: 30, nameYears: 100 + 40 * (730 / 365.25) }, 1, 0, 365 / 365.25);
    expect(back.inAll.seen).toBe(9);
    expect(back.inAll.said).toBeCloseTo(40 * said, 1);
    expect(back.hitRates).toMatchObject([{ count: 40, seen: 9 / 40 }]);
    expect(back.actual).toHaveLength(12);
    // Nine sales of 900.00 less a tenth, and one renewal.
    expect(back.actual.at(-1)).toBe(100_000 + 9 * 81_000 - 1200);
    const text = await backupText(ledger);
    const other = await emptyLedger();
    try {
      await restoreText(other, text);
      other.setClock(later);
      expect((await keptForecasts(other)).map(({ label }) => label)).toEqual(['This year']);
      expect(must(await lookBack(other, id)).inAll).toEqual(back.inAll);
    } finally {
      await other.close();
    }
    must(await dropForecast(ledger, id));
    expect(await lookBack(ledger, id)).toMatchObject({ code: 'forecast-unknown' });
  });
});
