import { afterAll, beforeAll, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { accounts, heldAccount, heldAccounts, removeAccount, saveAccount } from '@/usecases/accounts/accounts';
import { importPrices, priceRows, removePrice, savePrice } from '@/usecases/accounts/prices';
import { deadlineCalendar } from '@/usecases/calendar/calendar';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { ledgerRevision } from '@/usecases/names/ledger';
import { nameOn } from '@/usecases/names/one';
import { dropView, savedViews, saveView } from '@/usecases/names/views';
import { policies, removePolicy, savePolicy, saveRegistryFee } from '@/usecases/policies/policies';
import { officeSettings, saveOffice } from '@/usecases/settings';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

const FORM = {
  label: 'Quaymark',
  registrar: 'Quaymark Names BV',
  currency: 'USD',
  leadDays: 5,
  lateDays: 30,
  lateFeeMinor: 350,
  yearsPerCharge: 1,
  retryDays: [3, 1],
  balanceMinor: 2000,
  paymentMethods: [
    { kind: 'balance', label: 'balance' },
    { kind: 'card', label: 'blue card', endsMonth: '2027-03' },
  ],
};
const saved = async (form: object, id: number | null = null) => {
  const answer = await saveAccount(ledger, id, form);
  if (isRefusal(answer)) throw new Error(answer.message);
  return answer;
};
const one = async (name: string) => {
  const found = await nameOn(ledger, name, new URLSearchParams());
  if (isRefusal(found)) throw new Error(found.message);
  return found;
};

describe('accounts', () => {
  let id = 0;
  test('an account keeps its rules and its means in their order', async () => {
    id = await saved(FORM);
    expect(await heldAccount(ledger, id)).toMatchObject({
      label: 'Quaymark',
      lateDays: 30,
      lateFeeMinor: 350,
      retryDays: [3, 1],
      balanceMinor: 2000,
      balanceAt: ledger.clock(),
      rulesKnown: true,
      paymentMethods: [
        { kind: 'balance', endsMonth: null },
        { kind: 'card', endsMonth: '2027-03' },
      ],
    });
  });

  test('a balance keeps the day it was told on while it stays the same', async () => {
    const told = (await heldAccount(ledger, id))?.balanceAt;
    ledger.setClock((ledger.clock() + 86_400_000) as never);
    await saved({ ...FORM, notes: 'kept' }, id);
    expect((await heldAccount(ledger, id))?.balanceAt).toBe(told);
    await saved({ ...FORM, balanceMinor: 2500 }, id);
    expect((await heldAccount(ledger, id))?.balanceAt).toBe(ledger.clock());
    ledger.setClock((ledger.clock() - 86_400_000) as never);
  });

  test.each([
    [{ label: ' ' }, 'label'],
    [{ label: 'QUAYMARK' }, 'label'],
    [{ label: 'B', currency: 'XXQ' }, 'currency'],
    [{ label: 'B', currency: 'dollars' }, 'currency'],
    [{ label: 'B', leadDays: 91 }, 'leadDays'],
    [{ label: 'B', lateDays: -1 }, 'lateDays'],
    [{ label: 'B', lateFeeMinor: -5 }, 'lateFeeMinor'],
    [{ label: 'B', yearsPerCharge: 0 }, 'yearsPerCharge'],
    [{ label: 'B', balanceMinor: 1e18 }, 'balanceMinor'],
    [{ label: 'B', retryDays: ['soon'] }, 'retryDays'],
    [{ label: 'B', paymentMethods: [{ kind: 'cheque', label: 'x' }] }, 'paymentMethods.0.kind'],
    [
      { label: 'B', paymentMethods: [{ kind: 'card', label: 'x', endsMonth: '2027-13' }] },
      'paymentMethods.0.endsMonth',
    ],
  ])('%j is refused at %s', async (change, field) => {
    expect(await saveAccount(ledger, null, { ...FORM, ...change })).toMatchObject({ kind: 'refusal', field });
    expect(await accounts(ledger)).toHaveLength(1);
  });

  test('an account that holds names stays, an empty one may go', async () => {
    await importAtOnce(ledger, {
      content: Buffer.from('kelpkiln.com 2026-11-20'),
      account: 'Quaymark',
      dateOrder: null,
      fullList: false,
      allowPrivateEndings: false,
      dryRun: false,
    });
    expect(await removeAccount(ledger, id)).toMatchObject({ code: 'account-holds-names' });
    const other = await saved({ ...FORM, label: 'Wrackgate' });
    expect(await removeAccount(ledger, other)).toBe(true);
    expect((await heldAccounts(ledger)).map((row) => [row.label, row.names])).toEqual([['Quaymark', 1]]);
  });
});

describe('prices', () => {
  const accountId = async () => (await accounts(ledger))[0]?.id as number;
  const price = async (more: object) =>
    savePrice(ledger, {
      accountId: await accountId(),
      action: 'renew',
      currency: 'USD',
      yearMinor: 1118,
      from: '2026-01-01',
      ending: '.com',
      ...more,
    });

  test('a price set for an ending serves its names at once, with fee and late fee', async () => {
    expect((await one('kelpkiln.com')).deadline).toMatchObject({ now: null });
    const before = await ledgerRevision(ledger);
    expect(await price({})).toBe(true);
    expect(await ledgerRevision(ledger)).toBeGreaterThan(before);
    expect((await one('kelpkiln.com')).deadline).toMatchObject({
      kind: 'restore',
      now: { amount: '14.88' },
      then: { amount: '125.18' },
    });
  });

  test('the same day replaces, another day is a row of its own, and the newest in force counts', async () => {
    await price({ yearMinor: 1200 });
    await price({ yearMinor: 1300, from: '2026-06-01' });
    await price({ yearMinor: 9900, from: '2027-06-01' });
    expect((await priceRows(ledger, await accountId())).map((row) => [row.from, row.yearMinor])).toEqual([
      ['2027-06-01', 9900],
      ['2026-06-01', 1300],
      ['2026-01-01', 1200],
    ]);
    expect((await one('kelpkiln.com')).costs.renewal).toEqual({ amount: '13.20', currency: 'USD' });
  });

  test('a name’s own price outranks the ending’s, and goes when it is removed', async () => {
    await price({ ending: undefined, name: 'kelpkiln.com', yearMinor: 5000, feeIncluded: true });
    expect((await one('kelpkiln.com')).costs.renewal).toEqual({ amount: '50.00', currency: 'USD' });
    const own = (await priceRows(ledger)).find((row) => row.ascii === 'kelpkiln.com');
    await removePrice(ledger, own?.id ?? 0);
    expect((await one('kelpkiln.com')).costs.renewal).toEqual({ amount: '13.20', currency: 'USD' });
  });

  test.each([
    [{ ending: 'nosuchending' }, 'ending'],
    [{ ending: undefined, name: 'nosuchname.com' }, 'name'],
    [{ yearMinor: -1 }, 'yearMinor'],
    [{ yearMinor: 1e18 }, 'yearMinor'],
    [{ from: '2026-02-30' }, 'from'],
    [{ currency: 'QQQ' }, 'currency'],
    [{ action: 'steal' }, 'action'],
    [{ termTotals: 'two for one' }, 'termTotals'],
  ])('%j is refused at %s', async (change, field) => {
    expect(await price(change)).toMatchObject({ kind: 'refusal', field });
  });

  test('a price list comes in whole or not at all', async () => {
    const before = (await priceRows(ledger)).length;
    expect(await importPrices(ledger, await accountId(), Buffer.from('ending,renew\nnet,12.90\norg,-1'))).toMatchObject(
      { code: 'money-negative', message: expect.stringContaining('Line 3') },
    );
    expect(await priceRows(ledger)).toHaveLength(before);
    expect(
      await importPrices(ledger, await accountId(), Buffer.from('ending,renew,restore\nnet,12.90,131\norg,12,')),
    ).toBe(3);
    expect(await importPrices(ledger, 999, Buffer.from('ending,renew\nnet,1'))).toMatchObject({
      code: 'account-unknown',
    });
  });
});

describe('policies', () => {
  const FORM_UK = {
    ending: '.org',
    lateDays: 10,
    redemptionDays: 20,
    pendingRestoreDays: 7,
    pendingDeleteDays: 3,
    refundableDays: 0,
    leastYears: 1,
    greatestYears: 10,
    stepYears: 1,
    transferYears: 1,
    transferLockDays: 60,
    holderLockDays: 60,
    ceilingYears: 10,
    yearlyFee: true,
    source: 'contract',
    sourceDate: '2026-11-01',
    verified: true,
  };

  test('an ending’s own policy changes its names’ marks, and the generic one serves again when it goes', async () => {
    await importAtOnce(ledger, {
      content: Buffer.from('tarbarrel.org 2026-12-20T00:00:00Z'),
      account: 'Quaymark',
      dateOrder: null,
      fullList: false,
      allowPrivateEndings: false,
      dryRun: false,
    });
    expect((await one('tarbarrel.org')).marks).toMatchObject({ deletion: '2027-01-19T00:00:00Z' });
    expect(await savePolicy(ledger, FORM_UK)).toBe(true);
    expect((await one('tarbarrel.org')).marks).toMatchObject({
      deletion: '2026-12-30T00:00:00Z',
      redemptionEnds: '2027-01-19T00:00:00Z',
      release: '2027-01-22T00:00:00Z',
    });
    await removePolicy(ledger, 'org');
    expect((await one('tarbarrel.org')).marks).toMatchObject({ deletion: '2027-01-19T00:00:00Z' });
    await removePolicy(ledger, '*');
    expect((await policies(ledger)).policies.some((policy) => policy.ending === '*')).toBe(true);
  });

  test('at least ten country endings ship, each from memory and unverified', async () => {
    const country = (await policies(ledger)).policies.filter((policy) => policy.ending !== '*');
    expect(country.length).toBeGreaterThanOrEqual(10);
    expect(country.every((policy) => policy.source === 'memory' && !policy.verified && !policy.yearlyFee)).toBe(true);
  });

  test.each([
    [{ ending: 'seaholly.com' }, 'ending'],
    [{ lateDays: 401 }, 'lateDays'],
    [{ greatestYears: 1, leastYears: 2 }, 'greatestYears'],
    [{ stepYears: 0 }, 'stepYears'],
    [{ source: 'hearsay' }, 'source'],
    [{ sourceDate: 'today' }, 'sourceDate'],
    [{ verified: 'perhaps' }, 'verified'],
  ])('%j is refused at %s', async (change, field) => {
    expect(await savePolicy(ledger, { ...FORM_UK, ...change })).toMatchObject({ kind: 'refusal', field });
  });

  test('the registry fee is dated', async () => {
    expect(await saveRegistryFee(ledger, '2026-10-01', 25, 'USD')).toBe(true);
    expect((await one('kelpkiln.com')).costs.renewal).toEqual({ amount: '13.25', currency: 'USD' });
    expect(await saveRegistryFee(ledger, '2026-13-01', 25, 'USD')).toMatchObject({ field: 'from' });
    expect(await saveRegistryFee(ledger, '2026-10-01', Number.NaN, 'USD')).toMatchObject({ field: 'minor' });
  });
});

describe('the office', () => {
  test('home currency, zone and alarms', async () => {
    expect(await saveOffice(ledger, { homeCurrency: 'EUR', zone: 'Europe/Lisbon', alarmDays: [14, 2] })).toBe(true);
    expect(await officeSettings(ledger)).toMatchObject({
      homeCurrency: 'EUR',
      zone: 'Europe/Lisbon',
      alarmDays: [14, 2],
    });
    for (const [change, field] of [
      [{ homeCurrency: 'QQQ' }, 'homeCurrency'],
      [{ zone: 'Atlantis/Main' }, 'zone'],
      [{ alarmDays: [-1] }, 'alarmDays'],
    ] as const) {
      expect(await saveOffice(ledger, { homeCurrency: 'EUR', zone: 'UTC', alarmDays: [], ...change })).toMatchObject({
        field,
      });
    }
  });

  test('the calendar carries the alarms chosen, and keeps its UIDs from one day to the next', async () => {
    const uids = (text: string) => [...text.matchAll(/^UID:(.*)\r$/gm)].map((match) => match[1]);
    const today = await deadlineCalendar(ledger);
    expect(today).toContain('TRIGGER:-P14D');
    ledger.setClock((ledger.clock() + 86_400_000) as never);
    expect(uids(await deadlineCalendar(ledger))).toEqual(uids(today));
    expect(uids(today).length).toBe(2);
  });

  test('views are kept by name, and replaced by the same name', async () => {
    await saveView(ledger, 'Late', 'phase=late&nonsense=1', ['name']);
    await saveView(ledger, 'Late', 'phase=late,redemption', ['name', 'phase']);
    expect(await savedViews(ledger)).toMatchObject([
      { label: 'Late', query: 'phase=late%2Credemption', columns: ['name', 'phase'] },
    ]);
    expect(await saveView(ledger, '  ', '', [])).toMatchObject({ code: 'view-label' });
    expect(await dropView(ledger, (await savedViews(ledger))[0]?.id ?? 0)).toEqual([]);
  });
});
