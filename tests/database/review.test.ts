import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { type Day, instant } from '@/core/time';
import { reviewCsv, reviewEntries, reviewEntriesCsv, yearReview } from '@/usecases/prospects/review';
import { emptyLedger, type TestLedger } from './ledger';
import { must } from './marketplace';
import { offeringOffice } from './offering';

let ledger: TestLedger;
let office: ReturnType<typeof offeringOffice>;
beforeEach(async () => {
  ledger = await emptyLedger();
  office = offeringOffice(ledger);
});
afterEach(() => ledger.close());

describe('the review of a year', () => {
  const asked = (by: string, year: number | null = 2026) =>
    new URLSearchParams({ by, ...(year === null ? {} : { year: String(year) }) });
  beforeEach(async () => {
    await office.begin();
    const sold = await office.write('sold.com', { tags: ['sea', 'craft'], gone: instant('2026-07-01T00:00:00Z') });
    const kept = await office.write('kept.com', { tags: ['sea'] });
    await office.book(sold, 'bought', 20_000, '2024-06-30' as Day);
    await office.book(sold, 'renewal', 1200, '2025-06-30' as Day);
    await office.book(kept, 'renewal', 1200, '2026-02-01' as Day);
    await office.sell(sold, 60_000, instant('2026-06-30T00:00:00Z'));
  });

  test('cost, prices, fees and what is left over, and what the names sold brought over all that they cost', async () => {
    const { lines, whole } = await yearReview(ledger, { year: 2026, by: 'ending' });
    const usd = (minor: number) => ({ minor, currency: 'USD' });
    const expected = {
      names: 2,
      sales: 1,
      cost: usd(1200),
      price: usd(60_000),
      fees: usd(6000),
      proceeds: usd(54_000),
      surplus: usd(52_800),
      profit: usd(54_000 - 21_200),
    };
    expect(lines).toMatchObject([{ key: 'com', ...expected }]);
    expect(whole).toMatchObject(expected);
    // −200.00, a year later −12.00, two years later 540.00: source, the package xirr gives 60.9 percent; by hand: 200 x² + 12 x = 540.
    const x = (-12 + Math.sqrt(144 + 4 * 200 * 540)) / 400;
    expect(whole.yearlyReturn).toBeCloseTo(x - 1, 2);
  });

  test('a name stands under each of its tags, and once in the whole', async () => {
    const { lines, whole } = await yearReview(ledger, { year: 2026, by: 'tag' });
    expect(lines.map(({ key, names, sales }) => [key, names, sales])).toEqual([
      ['craft', 1, 1],
      ['sea', 2, 1],
    ]);
    expect(whole).toMatchObject({ names: 2, sales: 1 });
  });

  test('by year, all years: what a name cost counts in its year, its profit in the year of its sale', async () => {
    const { lines, years } = await yearReview(ledger, { year: null, by: 'year' });
    expect(years).toEqual([2026, 2025, 2024]);
    expect(lines.map(({ key, cost, profit }) => [key, cost?.minor, profit?.minor])).toEqual([
      ['2024', 20_000, 0],
      ['2025', 1200, 0],
      ['2026', 1200, 32_800],
    ]);
  });

  test('every figure opens to its entries, and they sum up to it', async () => {
    for (const [part, sum] of [
      ['cost', 1200],
      ['price', 60_000],
      ['fee', 6000],
    ] as const) {
      const found = must(
        await reviewEntries(ledger, new URLSearchParams({ year: '2026', by: 'ending', key: 'com', part })),
      );
      expect(found.sum).toEqual({ minor: sum, currency: 'USD' });
      expect(found.total).toBe(found.entries.length);
    }
    expect(await reviewEntries(ledger, new URLSearchParams({ year: '2026', part: 'moon' }))).toMatchObject({
      field: 'part',
    });
    expect(await reviewEntries(ledger, new URLSearchParams({ year: 'next' }))).toMatchObject({ field: 'year' });
  });

  test('without a rate a figure is not known; with one it is, by the rate of its day', async () => {
    const [id] = (await office.query("select id from names where ascii = 'kept.com'")).rows;
    await office.book(id.id, 'privacy', 1000, '2026-03-01' as Day, null, 'EUR');
    expect((await yearReview(ledger, { year: 2026, by: 'ending' })).lines[0]?.cost).toBeNull();
    await office.query(
      `insert into rates (from_day, currency, into_currency, factor) values ('2026-01-01', 'EUR', 'USD', 1.1), ('2026-05-01', 'EUR', 'USD', 2)`,
    );
    expect((await yearReview(ledger, { year: 2026, by: 'ending' })).lines[0]?.cost).toEqual({
      minor: 2300,
      currency: 'USD',
    });
  });

  test('an entry that was taken back counts for nothing', async () => {
    const { rows } = await office.query("select id, name_id, batch_id, on_day from entries where kind = 'sale'");
    await office.query(
      'insert into entries (name_id, batch_id, on_day, kind, minor, currency, corrects, sale_id) select name_id, batch_id, on_day, kind, -minor, currency, id, sale_id from entries where id = $1',
      [rows[0].id],
    );
    const { whole } = await yearReview(ledger, { year: 2026, by: 'ending' });
    expect(whole).toMatchObject({ sales: 0, price: { minor: 0 } });
  });

  test('as CSV, the lines and the entries', async () => {
    const lines = must(await reviewCsv(ledger, asked('ending')))
      .trim()
      .split('\r\n');
    expect(lines).toHaveLength(3);
    expect(lines[1]).toMatch(/^com,2,12\.00,1,600\.00,60\.00,540\.00,528\.00,328\.00,0\.\d+,USD$/);
    const entries = must(await reviewEntriesCsv(ledger, asked('ending')))
      .trim()
      .split('\r\n');
    expect(entries).toHaveLength(4);
    expect(entries[1]).toContain('2026-02-01,kept.com');
  });
});
