import { seedDemo } from '@practice/scenario/seed';
import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { migrate } from '@/database/migrate';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { confirmSwitch, editNames, requestSwitch } from '@/usecases/names/edit';
import { addEntry, correctEntry } from '@/usecases/names/entries';
import { exportJson } from '@/usecases/names/export';
import { nameOn } from '@/usecases/names/one';
import { undo } from '@/usecases/names/undo';
import { confirmRenewal } from '@/usecases/orders/confirm';
import { changeRenewal, moveRenewal, planRenewal } from '@/usecases/orders/plan';
import { pasteRecord } from '@/usecases/records/records';
import { watches, watchNames } from '@/usecases/records/watch';
import { dropNames, dropping } from '@/usecases/rescue/drop';
import { backupText, restoreText } from './backups';
import { emptyLedger, type TestLedger, TODAY } from './ledger';

let ledger: TestLedger;
const made: TestLedger[] = [];
beforeEach(async () => {
  ledger = await emptyLedger();
  made.push(ledger);
  const text =
    'name,account,expires,auto-renew,renewal price,asking\nkelpkiln.com,Quaymark,2026-11-06T10:15:00Z,stalled,11.38,3800\ncopperbuoy.com,Quaymark,2026-12-09T00:00:00Z,off,11.38,\nbrinelantern.com,Quaymark,2026-09-14T00:00:00Z,off,11.38,';
  await importAtOnce(ledger, {
    content: Buffer.from(text),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
});
afterEach(() => Promise.all(made.splice(0).map((one) => one.close())));

const one = async (ascii: string) => {
  const found = await nameOn(ledger, ascii, new URLSearchParams());
  if (isRefusal(found)) throw new Error(found.message);
  return found;
};
const id = async (ascii: string) =>
  (await ledger.database.query('select id from names where ascii = $1', [ascii])).rows[0].id as number;
const entries = async () =>
  (await ledger.database.query('select minor, quoted_minor, corrects is not null as counter from entries order by id'))
    .rows;
const planned = async (...items: [string, number][]) => {
  const plan = await planRenewal(ledger, {
    items: await Promise.all(items.map(async ([ascii, years]) => ({ nameId: await id(ascii), years }))),
  });
  if (isRefusal(plan)) throw new Error(plan.message);
  return plan.renewal;
};

describe('a renewal by hand: planned, asked, confirmed with what really happened', () => {
  test('entries, new ends and history are written together, with the quote beside the charge', async () => {
    const renewal = await planned(['kelpkiln.com', 2], ['copperbuoy.com', 1]);
    await moveRenewal(ledger, { id: renewal.id, to: 'requested' });
    const done = await confirmRenewal(ledger, {
      id: renewal.id,
      chargedOn: '2026-11-23',
      reference: 'Q-4471',
      paymentMethod: 'card',
      items: [
        { nameId: await id('kelpkiln.com'), done: true, chargedMinor: 2300 },
        { nameId: await id('copperbuoy.com'), done: false },
      ],
    });
    expect(done).toMatchObject({ changed: 1, summary: 'Renewed one name by hand' });
    expect(await entries()).toEqual([{ minor: 2300, quoted_minor: 2276, counter: false }]);
    expect(await one('kelpkiln.com')).toMatchObject({
      expiresAt: '2028-11-06T10:15:00Z',
      phase: 'term',
      autoRenew: { setting: 'on', standing: 'believed' },
    });
    expect(await one('copperbuoy.com')).toMatchObject({ expiresAt: '2026-12-09T00:00:00Z' });
  });

  test('confirmed ten times at once, it is done once', async () => {
    const renewal = await planned(['copperbuoy.com', 1]);
    const request = {
      id: renewal.id,
      chargedOn: '2026-11-24',
      items: [{ nameId: await id('copperbuoy.com'), done: true }],
    };
    const answers = await Promise.all(Array.from({ length: 10 }, () => confirmRenewal(ledger, request)));
    expect(answers.every((answer) => !isRefusal(answer) && answer.changed === 1)).toBe(true);
    expect(await entries()).toHaveLength(1);
    expect(await one('copperbuoy.com')).toMatchObject({ expiresAt: '2027-12-09T00:00:00Z' });
  });

  test('undo takes back the books: the term as it was, and a counter-entry', async () => {
    const renewal = await planned(['kelpkiln.com', 1]);
    const done = await confirmRenewal(ledger, {
      id: renewal.id,
      chargedOn: '2026-11-24',
      items: [{ nameId: await id('kelpkiln.com'), done: true }],
    });
    if (isRefusal(done) || done.batchId === null) throw new Error('not done');
    expect(await undo(ledger, done.batchId)).toMatchObject({ changed: 1 });
    expect(await one('kelpkiln.com')).toMatchObject({
      expiresAt: '2026-11-06T10:15:00Z',
      autoRenew: { setting: 'stalled' },
    });
    expect(await entries()).toEqual([
      { minor: 1138, quoted_minor: 1138, counter: false },
      { minor: -1138, quoted_minor: null, counter: true },
    ]);
    expect(await undo(ledger, done.batchId)).toMatchObject({ code: 'undo-done' });
  });

  test('a name whose term has changed since it was planned is not renewed twice', async () => {
    const [first, second] = [await planned(['copperbuoy.com', 1]), await planned(['copperbuoy.com', 1])];
    const items = [{ nameId: await id('copperbuoy.com'), done: true }];
    await confirmRenewal(ledger, { id: first.id, chargedOn: '2026-11-24', items });
    expect(await confirmRenewal(ledger, { id: second.id, chargedOn: '2026-11-24', items })).toMatchObject({
      code: 'renewal-changed',
    });
    expect(await entries()).toHaveLength(1);
  });

  test('names past renewal say why, and a settled renewal cannot be changed', async () => {
    const plan = await planRenewal(ledger, { items: [{ nameId: await id('brinelantern.com'), years: 1 }] });
    expect(isRefusal(plan) ? plan : plan.quote.items[0]?.refusal).toMatchObject({ code: 'in-redemption' });
    const renewal = await planned(['copperbuoy.com', 1]);
    expect(
      await changeRenewal(ledger, renewal.id, {
        items: [{ nameId: await id('copperbuoy.com'), years: 3 }],
        taxPercent: 23,
      }),
    ).toMatchObject({ quote: { totals: [{ minor: 4199 }] } });
    await moveRenewal(ledger, { id: renewal.id, to: 'dropped' });
    expect(await moveRenewal(ledger, { id: renewal.id, to: 'requested' })).toMatchObject({ code: 'renewal-settled' });
  });

  test.each([
    ['2027-01-01', 'date-out-of-range'],
    ['2026-02-30', 'date-out-of-range'],
    ['yesterday', 'request-invalid'],
  ])('a charge on %s is refused', async (chargedOn, code) => {
    const renewal = await planned(['copperbuoy.com', 1]);
    expect(
      await confirmRenewal(ledger, {
        id: renewal.id,
        chargedOn,
        items: [{ nameId: await id('copperbuoy.com'), done: true }],
      }),
    ).toMatchObject({ code });
  });
});

describe('auto-renew by hand', () => {
  test('what was only asked is never shown as done; confirming ends the ask', async () => {
    const nameIds = [await id('copperbuoy.com')];
    await requestSwitch(ledger, { nameIds, what: 'auto-renew', to: 'on' });
    expect(await one('copperbuoy.com')).toMatchObject({
      autoRenew: { setting: 'off', standing: 'requested', requested: 'on' },
    });
    await confirmSwitch(ledger, { what: 'auto-renew', nameIds, setting: 'on', evidence: 'list at the registrar' });
    expect(await one('copperbuoy.com')).toMatchObject({
      autoRenew: { setting: 'on', standing: 'confirmed', requested: null },
      deadline: { kind: 'charge' },
    });
  });
});

describe('editing many names', () => {
  test('tags, purpose and asking, with undo', async () => {
    const nameIds = [await id('kelpkiln.com'), await id('copperbuoy.com')];
    const done = await editNames(ledger, {
      nameIds,
      edit: { addTags: ['craft'], purpose: 'for sale', asking: { amount: '500', currency: 'USD' } },
    });
    if (isRefusal(done) || done.batchId === null) throw new Error('not done');
    expect(done.changed).toBe(2);
    expect(await one('copperbuoy.com')).toMatchObject({
      tags: ['craft'],
      purpose: 'sale',
      asking: { amount: '500.00' },
    });
    await undo(ledger, done.batchId);
    expect(await one('kelpkiln.com')).toMatchObject({ tags: [], purpose: 'hold', asking: { amount: '3800.00' } });
    expect(await one('copperbuoy.com')).toMatchObject({ asking: null });
  });

  test('what changed again since is not taken back over it', async () => {
    const nameIds = [await id('kelpkiln.com')];
    const first = await editNames(ledger, { nameIds, edit: { notes: 'one' } });
    await editNames(ledger, { nameIds, edit: { notes: 'two' } });
    if (isRefusal(first) || first.batchId === null) throw new Error('not done');
    expect(await undo(ledger, first.batchId)).toMatchObject({
      code: 'undo-changed-since',
      message: expect.stringContaining('kelpkiln.com'),
    });
  });

  test('an edit that changes nothing leaves no trace', async () => {
    expect(
      await editNames(ledger, {
        nameIds: [await id('kelpkiln.com')],
        edit: { asking: { amount: '3800.00', currency: 'USD' } },
      }),
    ).toMatchObject({ batchId: null, changed: 0 });
  });

  test.each([
    [{ nameIds: [], edit: {} }],
    [{ nameIds: [1], edit: { purpose: 'burn' } }],
    [{ nameIds: [1], edit: { asking: { amount: '-1', currency: 'USD' } } }],
    [{ nameIds: [1], edit: { asking: { amount: '999999999999999999', currency: 'USD' } } }],
    [{ nameIds: ['1; drop table names'], edit: {} }],
    [null],
    ['x'],
  ])('%j is refused', async (bad) => {
    expect(isRefusal(await editNames(ledger, bad))).toBe(true);
  });
});

test('an entry is corrected by a counter-entry, once', async () => {
  const nameId = await id('kelpkiln.com');
  await addEntry(ledger, { nameId, onDay: '2026-11-01', kind: 'listing fee', minor: 1000, currency: 'USD' });
  const entryId = (await ledger.database.query('select id from entries')).rows[0].id;
  expect(await correctEntry(ledger, entryId)).toMatchObject({ changed: 1 });
  expect(await correctEntry(ledger, entryId)).toMatchObject({ code: 'entry-corrected' });
  expect((await one('kelpkiln.com')).spent).toEqual([{ amount: '0.00', currency: 'USD' }]);
  expect(
    await addEntry(ledger, { nameId, onDay: '2030-01-01', kind: 'other', minor: 5, currency: 'USD' }),
  ).toMatchObject({ code: 'date-out-of-range' });
  expect(
    await addEntry(ledger, { nameId, onDay: '2026-01-01', kind: 'other', minor: -5, currency: 'USD' }),
  ).toMatchObject({ code: 'request-invalid' });
});

describe('back up and restore', () => {
  test('an empty ledger comes to the same state, byte for byte', async () => {
    const demo = await emptyLedger();
    made.push(demo);
    await seedDemo(demo.database, TODAY);
    const renewed = await editNames(demo, { nameIds: [1, 2, 3], edit: { notes: 'kept' } });
    if (isRefusal(renewed) || renewed.batchId === null) throw new Error('not done');
    const backup = await backupText(demo);
    const other = await emptyLedger();
    made.push(other);
    expect(await restoreText(other, backup)).toBe(412);
    expect(await backupText(other)).toBe(backup);
    expect(await exportJson(other, new URLSearchParams())).toBe(await exportJson(demo, new URLSearchParams()));
    // The restored ledger goes on: numbers continue, and what was done can still be taken back.
    expect(await undo(other, renewed.batchId)).toMatchObject({ changed: 3 });
    expect(await restoreText(other, backup)).toMatchObject({ code: 'ledger-not-empty' });
  });

  test('what is known of names beyond the ledger comes along: records, watches, names dropped', async () => {
    const nameIds = (await ledger.database.query('select id from names order by id limit 1')).rows.map((row) => row.id);
    await dropNames(ledger, { nameIds, reason: 'The idea is given up', zone: '@ 300 IN A 192.0.2.1' });
    await watchNames(ledger, { names: ['ketterby.com'] });
    await pasteRecord(ledger, {
      name: 'ketterby.com',
      text: 'Domain Name: KETTERBY.COM\nRegistry Expiry Date: 2028-03-09T10:15:00Z',
    });
    const other = await emptyLedger();
    made.push(other);
    const backup = await backupText(ledger);
    await restoreText(other, backup);
    expect(await backupText(other)).toBe(backup);
    expect(await watches(other)).toMatchObject([{ ascii: 'ketterby.com' }]);
    expect(await dropping(other)).toMatchObject([{ reason: 'The idea is given up', hasZone: true }]);
  });

  test('one that says more rows than it has, or that is cut off, restores nothing', async () => {
    const demo = await emptyLedger();
    made.push(demo);
    await seedDemo(demo.database, TODAY);
    const whole = await backupText(demo);
    const backup = JSON.parse(whole) as { tables: Record<string, unknown[]> };
    backup.tables.entries?.pop();
    const other = await emptyLedger();
    made.push(other);
    expect(await restoreText(other, JSON.stringify(backup))).toMatchObject({
      message: expect.stringContaining('entries should have'),
    });
    expect(await restoreText(other, whole.slice(0, -10))).toMatchObject({
      message: expect.stringContaining('ends too early'),
    });
    expect((await other.database.query('select count(*) as n from names')).rows).toEqual([{ n: 0 }]);
  });

  test('a backup of an earlier version, without what came later, is restored with the usual values', async () => {
    const demo = await emptyLedger();
    made.push(demo);
    await seedDemo(demo.database, TODAY);
    const backup = JSON.parse(await backupText(demo)) as { tables: Record<string, Record<string, unknown>[]> };
    for (const account of backup.tables.accounts ?? []) delete account.tax_percent;
    // Made before records were checked and names were sold, and without telling its rows.
    delete (backup as { rows?: unknown }).rows;
    const later = Object.keys(backup.tables).slice(Object.keys(backup.tables).indexOf('drops'));
    for (const table of later) delete backup.tables[table];
    const other = await emptyLedger();
    made.push(other);
    expect(await restoreText(other, JSON.stringify(backup))).toBe(412);
    const { rows } = await other.database.query('select distinct tax_percent::float8 as tax from accounts');
    expect(rows).toEqual([{ tax: 0 }]);
  });

  test.each([
    ['not JSON', 'x', 'backup-not-read'],
    ['null', 'null', 'backup-not-read'],
    ['another file', '{"names":[]}', 'backup-not-read'],
    ['a later version', '{"format":"name-ledger backup","version":3,"tables":{}}', 'backup-version'],
    [
      'a damaged one',
      '{"format":"name-ledger backup","version":1,"tables":{"policies":[{"ending":"*"}]}}',
      'backup-not-restored',
    ],
    ['one that lacks tables', '{"format":"name-ledger backup","version":1,"tables":{}}', 'backup-not-restored'],
    [
      'one with a NUL in it',
      '{"format":"name-ledger backup","version":1,"tables":{"settings":[{"key":"a","value":"\\u0000"}]}}',
      'backup-not-restored',
    ],
    [
      'one with deep brackets',
      `{"format":"name-ledger backup","version":1,"tables":{"settings":[{"key":"a","value":${'['.repeat(20_000)}${']'.repeat(20_000)}}]}}`,
      'backup-not-restored',
    ],
  ])('%s is refused and nothing is written', async (_what, text, code) => {
    const other = await emptyLedger();
    made.push(other);
    expect(await restoreText(other, text)).toMatchObject({ code });
    expect((await other.database.query('select count(*) as n from policies')).rows[0].n).toBeGreaterThan(10);
  });
});

test('migrations may be run again at any time, by two processes at once', async () => {
  expect(await Promise.all([migrate(ledger.url), migrate(ledger.url)])).toEqual([[], []]);
});
