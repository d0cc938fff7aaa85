import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { selectLedgerRules, selectRevision } from '@/database/ledger';
import { importPrices, previewPrices, priceRows, savePrice, saveRise } from '@/usecases/accounts/prices';
import { saveRate } from '@/usecases/rates/rates';
import { emptyLedger, type TestLedger, usualAccount } from './ledger';

let ledger: TestLedger;
let accountId: number;
beforeEach(async () => {
  ledger = await emptyLedger();
  accountId = await usualAccount(ledger, 'Quaymark');
});
afterEach(() => ledger.close());

const list = (...lines: string[]) => Buffer.from(lines.join('\n'));
const bring = (...lines: string[]) => importPrices(ledger, accountId, list(...lines), 'its page of prices');

describe('a price list is seen before it is written', () => {
  test('what is new, changed and the same, beside what is known; nothing is written by looking', async () => {
    expect(await bring('ending,renew,register', 'com,11.18,11.18', 'net,12.90,12.90')).toBe(4);
    const changes = await previewPrices(
      ledger,
      accountId,
      list(
        'ending,renew,register,first year,condition',
        'com,12.40,11.18,0.99,one year only',
        'net,12.90,,,',
        'org,9,,,',
      ),
    );
    if (isRefusal(changes)) throw new Error(changes.message);
    expect(changes.map(({ price, knownMinor, outcome }) => [price.ending, price.action, knownMinor, outcome])).toEqual([
      ['com', 'renew', 1118, 'changed'],
      ['com', 'register', 1118, 'changed'],
      ['net', 'renew', 1290, 'same'],
      ['org', 'renew', null, 'new'],
    ]);
    expect(await priceRows(ledger)).toHaveLength(4);
  });

  test('the first row that cannot be read refuses the whole; an account that is gone is said', async () => {
    expect(await previewPrices(ledger, accountId, list('ending,renew', 'com,eleven'))).toMatchObject({
      message: expect.stringContaining('Line 2'),
    });
    expect(await previewPrices(ledger, 999, list('ending,renew', 'com,1'))).toMatchObject({ code: 'account-unknown' });
  });

  test('conditions, extras, what is included and the source come back as they were written', async () => {
    await bring(
      'ending,register,register 3 years,first year,condition,extra mailbox,included',
      'com,16.40,33.90,1.10,at least 3 years; new customers; code TIDE; by telephone,24,mail forwarding',
    );
    const rows = await priceRows(ledger);
    expect(rows.find(({ action }) => action === 'register')).toMatchObject({
      termTotals: { 3: 3390 },
      firstYearMinor: 110,
      firstYearCondition: { leastYears: 3, newCustomers: true, code: 'TIDE', words: 'by telephone' },
      included: 'mail forwarding',
      source: 'its page of prices',
    });
    expect(rows.find(({ action }) => action === 'extra')).toMatchObject({ item: 'mailbox', yearMinor: 2400 });
  });

  test('two extras stand beside each other, the same one is replaced', async () => {
    const extra = { accountId, ending: 'com', action: 'extra', currency: 'USD', from: '2026-01-01' };
    expect(await savePrice(ledger, { ...extra, item: 'mailbox', yearMinor: 2400 })).toBe(true);
    expect(await savePrice(ledger, { ...extra, item: 'certificate', yearMinor: 900 })).toBe(true);
    expect(await savePrice(ledger, { ...extra, item: 'mailbox', yearMinor: 2600 })).toBe(true);
    expect(await savePrice(ledger, { ...extra, yearMinor: 1 })).toMatchObject({ field: 'item' });
    const rows = await priceRows(ledger);
    expect(rows.map(({ item, yearMinor }) => [item, yearMinor]).sort()).toEqual([
      ['certificate', 900],
      ['mailbox', 2600],
    ]);
  });
});

describe('what windows compare with changes at once', () => {
  const revision = () => selectRevision(ledger.database);

  test('a rate raises the ledger’s number: copies elsewhere are no longer true', async () => {
    const before = await revision();
    expect(await saveRate(ledger, { from: '2026-01-01', currency: 'EUR', into: 'USD', factor: 1.09 })).toBe(true);
    expect(await revision()).toBeGreaterThan(before);
  });

  test('a rise is kept, replaced, and left to the list again', async () => {
    const rises = async () => (await selectLedgerRules(ledger.database)).rises;
    const before = await revision();
    expect(await saveRise(ledger, { accountId, ending: 'com', percent: 4 })).toBe(true);
    expect(await saveRise(ledger, { accountId, ending: 'com', percent: 5 })).toBe(true);
    expect(await rises()).toEqual([{ accountId, ending: 'com', yearly: 0.05 }]);
    expect(await revision()).toBeGreaterThan(before);
    expect(await saveRise(ledger, { accountId, ending: 'com' })).toBe(true);
    expect(await rises()).toEqual([]);
  });

  test.each([
    [{ percent: -95 }, 'percent'],
    [{ percent: 2000 }, 'percent'],
    [{ accountId: 'x' }, 'accountId'],
  ])('%j is refused at %s', async (change, field) => {
    expect(await saveRise(ledger, { accountId, ending: 'com', percent: 4, ...change })).toMatchObject({ field });
  });

  test('of an account that is gone nothing is expected', async () => {
    expect(await saveRise(ledger, { accountId: 999, ending: 'com', percent: 4 })).toMatchObject({
      code: 'account-unknown',
    });
  });
});
