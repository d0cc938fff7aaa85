import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { pricesOverYears } from '@/usecases/accounts/overYears';
import { emptyLedger, type TestLedger, usualAccount } from './ledger';
import { must } from './marketplace';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
  await usualAccount(ledger, 'Quaymark');
  await usualAccount(ledger, 'Wrackgate');
  // Source: worked examples of the trade, invented figures: a cheap first year that is bound to three, and a flat price.
  await ledger.database.query(
    `insert into prices (account_id, ending, action, currency, year_minor, first_year_minor, first_year_condition, fee_included, from_day, origin)
     select 1, 'com', action, 'USD', 1640, case when action = 'register' then 110 end, case when action = 'register' then 'at least 3 years' end, true, '2024-01-01'::date, 'list'
     from unnest(array['register', 'renew']) action
     union all select 2, 'com', action, 'USD', 1130, null, null, true, '2024-01-01', 'list' from unnest(array['register', 'renew']) action`,
  );
});
afterAll(() => ledger.close());

const over = (years: number, more: Record<string, string> = {}) =>
  pricesOverYears(ledger, new URLSearchParams({ ending: 'com', years: String(years), ...more })).then(must);

describe('what an ending costs over years, asked by a program', () => {
  test.each([
    [1, 1130],
    [2, 2260],
    [3, 3390],
    [4, 4520],
  ])('over %i years the flat account comes to %i', async (years, minor) => {
    const { accounts, best } = await over(years);
    expect(accounts.find(({ account }) => account === 'Wrackgate')?.total).toEqual({ minor, currency: 'USD' });
    expect(best?.total.minor).toBe(minor);
  });

  test('the bound one is as dear over three years, all to pay now, and dearer from four on', async () => {
    const bound = async (years: number) => (await over(years)).accounts.find(({ account }) => account === 'Quaymark');
    expect((await bound(3))?.total?.minor).toBe(3390);
    expect((await bound(4))?.total?.minor).toBe(5030);
    expect((await bound(3))?.condition).toMatch(/three|3/);
  });

  test('each way says its payments, and what is not sold there is said', async () => {
    const { best } = await over(2);
    expect(best?.payments.map(({ account, action }) => [account, action])).toEqual(
      best?.payments.map((_, i) => ['Wrackgate', i === 0 ? 'register' : 'renew']),
    );
    const { accounts } = await over(2, { privacy: 'true' });
    expect(accounts.map(({ notCompared }) => notCompared)).toEqual(['privacy not known', 'privacy not known']);
  });

  test.each([
    [{ ending: '' }, 'ending'],
    [{ years: '11' }, 'years'],
    [{ heldAt: '99' }, 'heldAt'],
    [{ newAt: '1,moon' }, 'newAt'],
    [{ monthsLeft: '-3' }, 'monthsLeft'],
  ])('%j is refused at %s', async (wrong, field) => {
    const query = new URLSearchParams({ ending: 'com', years: '2', ...wrong });
    expect(await pricesOverYears(ledger, query)).toMatchObject({ kind: 'refusal', field });
  });
});
