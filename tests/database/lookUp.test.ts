import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { RENEWAL } from '@/core/ledger/sampleLedger';
import { readCondition } from '@/core/pricing';
import { addDays, type Day, instant } from '@/core/time';
import { upsertPrices } from '@/database/prices';
import { saveRate } from '@/usecases/rates/rates';
import { type ListedName, lookUpList } from '@/usecases/records/list';
import { pointRecordsAt } from '../../practice/scenario/links';
import { TODAY, usualAccount } from './ledger';
import { type LinkedLedger, linkedLedger } from './practice';

/** A list that is looked up: what is free, and what it costs where, first-year prices and currencies included. */

let made: LinkedLedger;
beforeEach(async () => {
  made = await linkedLedger(['copperbuoy.com'], addDays(TODAY, 300));
  await pointRecordsAt(made.ledger.database, made.practice.records);
});
afterEach(() => made.close());

const look = async (text: string): Promise<ListedName[]> => {
  const found = await lookUpList(made.ledger, text);
  if (!Array.isArray(found)) throw new Error('refused');
  return found;
};
const register = (accountId: number, more: object) => ({
  ...RENEWAL,
  accountId,
  action: 'register' as const,
  from: '2026-01-01' as Day,
  ...more,
});

describe('a list of names', () => {
  test('free ones first, then what is taken; what is no name is left out, twice is once', async () => {
    const found = await look('copperbuoy.com\nkelpfree.com, KELPFREE.com.\nnot a name');
    expect(found.map(({ ascii, record }) => [ascii, record?.found])).toEqual([
      ['kelpfree.com', false],
      ['copperbuoy.com', true],
    ]);
    expect(found[1]?.offers).toEqual([]);
  });

  test('refused: nothing to look up, and more than 500', async () => {
    expect(await lookUpList(made.ledger, '???')).toMatchObject({ code: 'no-names' });
    const many = Array.from({ length: 501 }, (_, i) => `kelp${i}.com`).join('\n');
    expect(await lookUpList(made.ledger, many)).toMatchObject({ code: 'too-many-names' });
  });

  test('a first year that is cheap counts as it is, with its condition; the order is by two years', async () => {
    const other = await usualAccount(made.ledger, 'Wrackgate Registry Services', {});
    await upsertPrices(made.ledger.database, [
      register(made.accountId, {
        yearMinor: 1118,
        firstYearMinor: 199,
        firstYearCondition: readCondition('new customers'),
      }),
      register(other, { yearMinor: 900 }),
      { ...RENEWAL, accountId: other, yearMinor: 900 },
    ]);
    const [free] = await look('kelpfree.com');
    expect(free?.offers.map(({ account }) => account)).toHaveLength(2);
    const [cheapest, second] = free?.offers ?? [];
    // 9.00 and 9.00 a year at one; the other's condition is not met by somebody who is a customer there.
    expect(cheapest).toMatchObject({ first: { minor: 900 }, later: { minor: 900 }, twoYears: { minor: 1800 } });
    expect(second?.condition).toBe('new customers');
  });

  test('another currency is compared by a dated rate, and without one comes last and is not compared', async () => {
    const pounds = await usualAccount(made.ledger, 'Larkhythe Ltd', { currency: 'GBP' });
    const price = { accountId: pounds, currency: 'GBP', yearMinor: 500 };
    await upsertPrices(made.ledger.database, [
      register(made.accountId, { yearMinor: 1118 }),
      register(pounds, { currency: 'GBP', yearMinor: 500 }),
      { ...RENEWAL, ...price },
    ]);
    const [before] = await look('kelpfree.com');
    expect(before?.offers.map(({ first, twoYears }) => [first.currency, twoYears === null])).toEqual([
      ['USD', false],
      ['GBP', true],
    ]);
    await saveRate(made.ledger, { from: '2026-01-01', currency: 'GBP', into: 'USD', factor: 1.25 });
    const [after] = await look('kelpfree.com');
    expect(after?.offers[0]).toMatchObject({
      first: { minor: 500, currency: 'GBP' },
      twoYears: { minor: 1250, currency: 'USD' },
    });
  });

  test('an ending that nobody sells is free without a price', async () => {
    const [name] = await look('kelpfree.org');
    expect(name).toMatchObject({ record: { found: false }, offers: [] });
    expect(instant('2026-11-24T00:00:00Z')).toBeLessThanOrEqual(made.ledger.clock());
  });
});
