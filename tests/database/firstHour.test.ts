import { afterAll, beforeAll, beforeEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { makeBackup, restoreBackup } from '@/usecases/backup/backup';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { holdsNames, emptyLedger as takeEverythingOut } from '@/usecases/ledgers/empty';
import { sayEnds, sayMeans, sayPrices } from '@/usecases/names/mendUnknown';
import { undo } from '@/usecases/names/undo';
import { saveReminders, sendTestMail } from '@/usecases/reminders/settings';
import { answerFirst, officeSettings } from '@/usecases/settings';
import { type RunningPractice, runPractice } from '../../practice/run';
import { makeWorld } from '../../practice/world/world';
import { emptyLedger, type TestLedger, TODAY } from './ledger';
import { unrefused } from './unrefused';

let ledger: TestLedger;
beforeEach(async () => {
  ledger = await emptyLedger();
  return () => ledger.close();
});

const bring = async (...names: string[]) => {
  await importAtOnce(ledger, {
    content: Buffer.from(names.join('\n')),
    account: 'Quaymark',
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
  const { rows } = await ledger.database.query<{ id: number; ascii: string }>(
    'select id, ascii from names order by ascii',
  );
  return rows;
};
const all = async <T extends object>(sql: string) => (await ledger.database.query<T>(sql)).rows;

describe('the first three answers', () => {
  const ANSWERS = { homeCurrency: 'EUR', numberStyle: '1.234,50', zone: 'Europe/Lisbon' };

  test('are kept, with nobody to remind until there is somebody', async () => {
    expect(await officeSettings(ledger)).toMatchObject({ hasBegun: false, remindTo: null });
    expect(await answerFirst(ledger, { ...ANSWERS, remindTo: 'office@harbour.test' })).toBe(true);
    expect(await officeSettings(ledger)).toMatchObject({ ...ANSWERS, hasBegun: true, remindTo: 'office@harbour.test' });
    expect(await answerFirst(ledger, { ...ANSWERS, remindTo: '' })).toBe(true);
    expect(await officeSettings(ledger)).toMatchObject({ remindTo: null, mail: null });
  });

  test.each([
    [{ homeCurrency: 'QQQ' }, 'homeCurrency'],
    [{ zone: 'Atlantis/Main' }, 'zone'],
    [{ remindTo: 'nobody' }, 'remindTo'],
    [{ numberStyle: '1;5' }, 'numberStyle'],
  ])('%j is refused where it stands, and nothing is kept', async (change, field) => {
    const refused = await answerFirst(ledger, { ...ANSWERS, ...change });
    expect(
      isRefusal(refused) && (refused.fields?.[field] ?? (refused.field === field && refused.message)),
    ).toBeTruthy();
    expect((await officeSettings(ledger)).hasBegun).toBe(false);
  });
});

describe('what is not known is said for many at once', () => {
  test('ends: each its own, in one change with its evidence, which can be taken back', async () => {
    const [first, second] = await bring('brackenquay.net', 'seaholly.com');
    const done = await sayEnds(ledger, {
      ends: [
        { nameId: first?.id, day: '2027-03-04' },
        { nameId: second?.id, day: '2026-12-31' },
      ],
      evidence: 'the registrar’s panel',
    });
    expect(done).toMatchObject({ changed: 2, summary: 'Said 2 ends of term' });
    expect(await all('select term_end, term_end_day from names order by ascii')).toEqual([
      { term_end: Date.parse('2027-03-04T00:00:00Z'), term_end_day: true },
      { term_end: Date.parse('2026-12-31T00:00:00Z'), term_end_day: true },
    ]);
    expect(await all('select distinct evidence from changes where evidence is not null')).toEqual([
      { evidence: 'the registrar’s panel' },
    ]);
    await undo(ledger, (done as { batchId: number }).batchId);
    expect(await all('select term_end from names')).toEqual([{ term_end: null }, { term_end: null }]);
  });

  test('a day out of reach or none at all refuses all of them', async () => {
    const [first, second] = await bring('brackenquay.net', 'seaholly.com');
    const ends = [{ nameId: first?.id, day: '2027-03-04' }];
    expect(
      await sayEnds(ledger, { ends: [...ends, { nameId: second?.id, day: '2199-01-01' }], evidence: 'x' }),
    ).toMatchObject({
      code: 'date-out-of-range',
    });
    expect(isRefusal(await sayEnds(ledger, { ends: [{ nameId: first?.id, day: '4 March' }], evidence: 'x' }))).toBe(
      true,
    );
    expect(isRefusal(await sayEnds(ledger, { ends: [], evidence: 'x' }))).toBe(true);
    expect(isRefusal(await sayEnds(ledger, { ends, evidence: '' }))).toBe(true);
    expect(await all('select 1 from names where term_end is not null')).toEqual([]);
  });

  test('prices: one for each ending at an account, from today on', async () => {
    await bring('brackenquay.net', 'seaholly.com');
    const [account] = await all<{ id: number }>('select id from accounts');
    const price = (ending: string, yearMinor: number) => ({
      accountId: account?.id,
      ending,
      yearMinor,
      currency: 'USD',
    });
    expect(await sayPrices(ledger, { prices: [price('com', 1138), price('net', 1310)], source: 'invoice 41' })).toBe(2);
    expect(await all('select ending, year_minor, action, origin, source from prices order by ending')).toEqual([
      { ending: 'com', year_minor: 1138, action: 'renew', origin: 'by hand', source: 'invoice 41' },
      { ending: 'net', year_minor: 1310, action: 'renew', origin: 'by hand', source: 'invoice 41' },
    ]);
    expect(isRefusal(await sayPrices(ledger, { prices: [price('com', -1)] }))).toBe(true);
    expect(isRefusal(await sayPrices(ledger, { prices: [{ ...price('com', 5), currency: 'QQQ' }] }))).toBe(true);
    expect(isRefusal(await sayPrices(ledger, { prices: [{ ...price('com', 5), accountId: 999_999 }] }))).toBe(true);
  });

  test('means: what several accounts pay from, their rules left as they are; one that is gone takes all back', async () => {
    await bring('brackenquay.net');
    const [account] = await all<{ id: number; lead_days: number }>('select id, lead_days from accounts');
    const card = { kind: 'card', label: 'office card', endsMonth: '2027-10' };
    expect(
      await sayMeans(ledger, { means: [{ accountId: account?.id, paymentMethods: [card], balanceMinor: 4120 }] }),
    ).toBe(1);
    expect(await all('select kind, label, ends_month from payment_methods')).toEqual([
      { kind: 'card', label: 'office card', ends_month: '2027-10' },
    ]);
    expect(await all('select lead_days, balance_minor from accounts')).toEqual([
      { lead_days: account?.lead_days, balance_minor: 4120 },
    ]);
    // Said again, it replaces what was said before, and a balance that is not said stays.
    const wallet = { kind: 'wallet', label: 'wallet' };
    const means = [{ accountId: account?.id, paymentMethods: [wallet] }];
    expect(await sayMeans(ledger, { means })).toBe(1);
    expect(
      await all('select kind, balance_minor from payment_methods join accounts on accounts.id = account_id'),
    ).toEqual([{ kind: 'wallet', balance_minor: 4120 }]);
    expect(await sayMeans(ledger, { means: [...means, { accountId: 999_999, paymentMethods: [card] }] })).toMatchObject(
      {
        code: 'account-unknown',
      },
    );
    expect(isRefusal(await sayMeans(ledger, { means: [{ accountId: account?.id, paymentMethods: [] }] }))).toBe(true);
  });
});

describe('emptying the ledger', () => {
  test('takes the number of names, keeps the office’s rules, and a backup goes into it again', async () => {
    await answerFirst(ledger, { homeCurrency: 'EUR', numberStyle: '1.234,50', zone: 'Europe/Lisbon' });
    await bring('brackenquay.net', 'seaholly.com');
    // Mails switched off: a setting whose value is null.
    await saveReminders(ledger, { reminderDays: [7], baseUrl: 'http://127.0.0.1:4180' });
    let saved = '';
    for await (const piece of unrefused(await makeBackup(ledger))) saved += piece;
    const policies = await all('select ending from policies order by ending');

    expect(await takeEverythingOut(ledger, { names: 3 })).toMatchObject({ code: 'names-not-said', field: 'names' });
    expect(isRefusal(await takeEverythingOut(ledger, { names: 'all' }))).toBe(true);
    expect(await holdsNames(ledger)).toBe(true);

    expect(await takeEverythingOut(ledger, { names: '2' })).toBe(2);
    expect(await holdsNames(ledger)).toBe(false);
    for (const table of ['accounts', 'batches', 'changes', 'entries', 'prices', 'views', 'imports'])
      expect(await all(`select 1 from ${table}`), table).toEqual([]);
    expect(await all('select ending from policies order by ending')).toEqual(policies);
    expect(await officeSettings(ledger)).toMatchObject({ homeCurrency: 'EUR', hasBegun: true });

    expect(await restoreBackup(ledger, [Buffer.from(saved)] as unknown as AsyncIterable<Uint8Array>)).toBe(2);
    expect(await officeSettings(ledger)).toMatchObject({ mail: null, remindTo: null, zone: 'Europe/Lisbon' });
    expect(await all('select ascii from names order by ascii')).toEqual([
      { ascii: 'brackenquay.net' },
      { ascii: 'seaholly.com' },
    ]);
  });
});

describe('a test mail', () => {
  let practice: RunningPractice;
  beforeAll(async () => {
    practice = await runPractice({ world: makeWorld(TODAY, [], [], []), store: null });
  });
  afterAll(() => practice.stop());

  const set = (port: number) =>
    saveReminders(ledger, {
      reminderDays: [7],
      to: 'office@harbour-office.test',
      host: '127.0.0.1',
      port,
      baseUrl: 'http://127.0.0.1:4180',
    });

  test('goes to whom reminders go, and says whom', async () => {
    expect(await sendTestMail(ledger)).toMatchObject({ code: 'mail-server-missing' });
    await set(practice.mailPort);
    expect(await sendTestMail(ledger)).toBe('office@harbour-office.test');
    expect(practice.mails.map(({ subject }) => subject)).toEqual(['Name Ledger: a test']);
  });

  test('that nobody takes is refused with what to look at', async () => {
    await set(9);
    expect(await sendTestMail(ledger)).toMatchObject({
      code: 'mail-failed',
      message: expect.stringContaining('Check server, port, user and password.'),
    });
  });
});
