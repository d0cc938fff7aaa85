import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { priceRows } from '@/usecases/accounts/prices';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { correctEntry } from '@/usecases/names/entries';
import { nameOn } from '@/usecases/names/one';
import { undo } from '@/usecases/names/undo';
import { confirmRenewal } from '@/usecases/orders/confirm';
import { renewByName } from '@/usecases/orders/documents';
import { openRenewal, planRenewal } from '@/usecases/orders/plan';
import { quoteRenewal } from '@/usecases/orders/quote';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
const bringIn = (text: string) =>
  importAtOnce(ledger, {
    content: Buffer.from(text),
    account: 'Quaymark',
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
beforeEach(async () => {
  ledger = await emptyLedger();
  await bringIn(
    'name,expires,renewal price\ncopperbuoy.com,2026-12-09T00:00:00Z,11.38\nbrackenquay.com,2027-01-09,11.38',
  );
});
afterEach(() => ledger.close());

const one = async (ascii: string) => {
  const found = await nameOn(ledger, ascii, new URLSearchParams());
  if (isRefusal(found)) throw new Error(found.message);
  return found;
};
const id = async (ascii: string) =>
  (await ledger.database.query('select id from names where ascii = $1', [ascii])).rows[0].id as number;

describe('what was charged teaches a price where none is known', () => {
  /** A renewal by hand that is confirmed with an amount; answers what a year costs from then on. */
  const charged = async (years: number, chargedMinor: number, more: object = {}) => {
    await bringIn('tarbarrel.org 2026-12-20');
    const nameId = await id('tarbarrel.org');
    const plan = await planRenewal(ledger, { items: [{ nameId, years }], ...more });
    if (isRefusal(plan)) throw new Error(plan.message);
    const done = { id: plan.renewal.id, chargedOn: '2026-11-24', items: [{ nameId, done: true, chargedMinor }] };
    expect(await confirmRenewal(ledger, done)).toMatchObject({ changed: 1 });
    return (await one('tarbarrel.org')).costs.perYear;
  };
  const accountIs = (sql: string) => ledger.database.query(`update accounts set ${sql} where label = 'Quaymark'`);

  test('a plain year, marked as inferred with what taught it; taken back, it is forgotten', async () => {
    expect(await charged(1, 1225)).toEqual({ amount: '12.25', currency: 'USD' });
    const [accountId] = (await ledger.database.query("select id from accounts where label = 'Quaymark'")).rows;
    expect((await priceRows(ledger, accountId.id)).filter(({ ending }) => ending === 'org')).toMatchObject([
      { origin: 'inferred', yearMinor: 1225, taughtBy: 'what renewing tarbarrel.org cost' },
    ]);
    const [entry] = (await ledger.database.query("select id from entries where kind = 'renewal'")).rows;
    await correctEntry(ledger, entry.id);
    expect((await one('tarbarrel.org')).costs.perYear).toBeNull();
  });

  test('undo forgets it too', async () => {
    await charged(1, 1225);
    const [batch] = (await ledger.database.query("select max(id) as id from batches where kind = 'renewal'")).rows;
    await undo(ledger, batch.id);
    expect((await one('tarbarrel.org')).costs.perYear).toBeNull();
  });

  test('nothing is learnt that tax, a late fee, a promotion or a longer term may explain', async () => {
    await accountIs('tax_percent = 19, late_fee_minor = 500');
    // 16.90 is 10.00, 19 percent of tax, and a late fee of 5.00.
    expect(await charged(1, 1690)).toBeNull();
  });

  test.each([
    ['tax that was spoken of', 1, { taxPercent: 19 }],
    ['a promotion of half the price', 1, { promotion: { percent: 50 } }],
    ['a code whose worth nobody knows', 1, { promotion: { code: 'HARBOUR' } }],
    ['two years, which may be cheaper together', 2, {}],
  ])('not by %s', async (_what, years, more) => {
    expect(await charged(years, 1690, more)).toBeNull();
  });

  test('tax of nothing that was spoken of explains nothing away', async () => {
    expect(await charged(1, 1225, { taxPercent: 0 })).toEqual({ amount: '12.25', currency: 'USD' });
  });

  test('what a list taught goes with the list', async () => {
    await bringIn('name,expires,renewal price\ntarbarrel.org,2026-12-20,12.25');
    expect((await one('tarbarrel.org')).costs.perYear).toEqual({ amount: '12.25', currency: 'USD' });
    const [batch] = (await ledger.database.query("select max(id) as id from batches where kind = 'import'")).rows;
    expect(await undo(ledger, batch.id)).toMatchObject({ changed: 1 });
    expect((await ledger.database.query("select count(*) as n from prices where ending = 'org'")).rows).toEqual([
      { n: 0 },
    ]);
  });
});

describe('a currency is never dropped', () => {
  test('what was charged in another currency than the quote is booked in its own', async () => {
    const booked = async () =>
      (
        await ledger.database.query(
          "select minor, currency, quoted_minor from entries where kind = 'renewal' order by id",
        )
      ).rows;
    const body = (name: string, charged: object) => ({ items: [{ name, years: 1, charged }], chargedOn: '2026-11-24' });
    await renewByName(ledger, body('copperbuoy.com', { amount: '10.50', currency: 'EUR' }), 'in euro');
    await renewByName(ledger, body('brackenquay.com', { amount: '1700', currency: 'JPY' }), 'in yen');
    expect(await booked()).toEqual([
      { minor: 1050, currency: 'EUR', quoted_minor: null },
      { minor: 1700, currency: 'JPY', quoted_minor: null },
    ]);
  });

  test('an amount in a currency that is none is refused', async () => {
    const body = { items: [{ name: 'copperbuoy.com', years: 1, charged: { amount: '10', currency: 'XXQ' } }] };
    expect(await renewByName(ledger, body, 'in nothing')).toMatchObject({ code: 'request-invalid' });
  });
});

describe('tax of nothing is a value', () => {
  const total = async (more: object) => {
    const quote = await quoteRenewal(ledger, { items: [{ nameId: await id('copperbuoy.com'), years: 1 }], ...more });
    if (isRefusal(quote)) throw new Error(quote.message);
    return [quote.items[0]?.cost?.tax, quote.taxPercent];
  };
  test('the account’s own where nobody says anything, none where that is said', async () => {
    await ledger.database.query('update accounts set tax_percent = 19');
    expect(await total({})).toEqual([216, null]);
    expect(await total({ taxPercent: 0 })).toEqual([0, 0]);
    expect(await total({ taxPercent: 7 })).toEqual([80, 7]);
  });

  test('and stays so when the run is opened again', async () => {
    await ledger.database.query('update accounts set tax_percent = 19');
    const plan = await planRenewal(ledger, {
      items: [{ nameId: await id('copperbuoy.com'), years: 1 }],
      taxPercent: 0,
    });
    if (isRefusal(plan)) throw new Error(plan.message);
    const open = await openRenewal(ledger, plan.renewal.id);
    if (isRefusal(open)) throw new Error(open.message);
    expect(open.quote.items[0]?.cost?.tax).toBe(0);
  });
});

describe('a promotion', () => {
  test('takes effect in the quote, and is plain data that a page can be given', async () => {
    const plan = await planRenewal(ledger, {
      items: [{ nameId: await id('copperbuoy.com'), years: 1 }],
      promotion: { code: 'HARBOUR', percent: 50 },
    });
    if (isRefusal(plan)) throw new Error(plan.message);
    expect(plan.quote.items[0]?.cost).toMatchObject({ promotion: 569 });
    // React hands on nothing but plain objects.
    expect(Object.getPrototypeOf(plan.quote.promotion)).toBe(Object.prototype);
    const open = await openRenewal(ledger, plan.renewal.id);
    if (isRefusal(open)) throw new Error(open.message);
    expect(open.quote.promotion).toEqual({ code: 'HARBOUR', percent: 50 });
  });

  test('a code alone is kept, and takes nothing off that nobody knows', async () => {
    const quote = await quoteRenewal(ledger, {
      items: [{ nameId: await id('copperbuoy.com'), years: 1 }],
      promotion: { code: 'HARBOUR' },
    });
    if (isRefusal(quote)) throw new Error(quote.message);
    expect(quote.promotion).toEqual({ code: 'HARBOUR', percent: null });
    expect(quote.items[0]?.cost?.promotion).toBe(0);
  });
});
