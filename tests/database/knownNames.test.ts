import { afterEach, beforeEach, describe, expect, test } from 'vitest';
import { everyRow, indexRules, type LedgerColumns, NameTable, projectLedger } from '@/core/ledger';
import { unpacked } from '@/core/table';
import { addDays } from '@/core/time';
import { selectChangedNames, selectLedgerRules, selectRevision } from '@/database/ledger';
import { selectLedgerColumns } from '@/database/ledgerColumns';
import { openDatabase } from '@/database/pool';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { editNames } from '@/usecases/names/edit';
import { knownNames } from '@/usecases/names/knownNames';
import { type LedgerBody, ledgerBytes, ledgerVersion, projectedLedger } from '@/usecases/names/ledger';
import { undo } from '@/usecases/names/undo';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeEach(async () => {
  ledger = await emptyLedger();
  await bring(
    'name,account,expires,price paid,currency,tags\nb.com,Quaymark,2027-01-03,10.00,USD,sea\nd.com,Quaymark,2027-02-03,,,',
  );
});
afterEach(() => ledger.close());

const bring = (text: string) =>
  importAtOnce(ledger, {
    content: new TextEncoder().encode(text),
    account: null,
    dateOrder: null,
    fullList: false,
    allowPrivateEndings: false,
    dryRun: false,
  });
const edit = async (nameIds: readonly number[], change: object) => {
  expect(await editNames(ledger, { nameIds, edit: change })).toMatchObject({ changed: nameIds.length });
};
const idOf = async (ascii: string) => {
  const { rows } = await ledger.database.query<{ id: number }>('select id from names where ascii = $1', [ascii]);
  return rows[0]?.id as number;
};
/** The names as they are kept, and as the database tells them now. */
const both = async () => {
  const { names } = await knownNames(ledger);
  return [names.all(), new NameTable(await selectLedgerColumns(ledger.database)).all()] as const;
};

describe('names that are kept', () => {
  test('after any change they are what the database holds', async () => {
    const steps: (() => Promise<unknown>)[] = [
      () =>
        bring(
          'name,account,expires,notes\na.com,Quaymark,2027-05-03,first\nc.io,Wrackgate,,\nxn--mwen-5qa.de,Wrackgate,2027-01-01,',
        ),
      async () => edit([await idOf('b.com')], { addTags: ['craft'], asking: { amount: '900', currency: 'EUR' } }),
      async () => edit([await idOf('a.com')], { clearNotes: true, purpose: 'drop' }),
      // A price paid is an entry of the books; taken away again it was never spent.
      () => bring('name,account,price paid,currency\nd.com,Quaymark,12.50,GBP'),
      async () => {
        const { rows } = await ledger.database.query<{ id: number }>('select max(id) as id from batches');
        return undo(ledger, rows[0]?.id as number);
      },
      () =>
        ledger.database.query("update names set gone_at = now() where ascii = 'c.io'; update revision set n = n + 1"),
      () =>
        ledger.database.query("update names set gone_at = null where ascii = 'c.io'; update revision set n = n + 1"),
    ];
    await both();
    for (const step of steps) {
      const before = (await knownNames(ledger)).names;
      await step();
      const [kept, told] = await both();
      expect(kept).toEqual(told);
      expect((await knownNames(ledger)).names).not.toBe(before);
    }
  });

  test('what is played on from them after each change is what would be played as a whole', async () => {
    const ids = await Promise.all(['b.com', 'd.com'].map(idOf));
    const steps: (() => Promise<unknown>)[] = [
      () => switchTo(ids, 'on'),
      () => edit([ids[0] as number], { addTags: ['craft'], expiresAt: '2027-01-05' }),
      () =>
        ledger.database.query(
          'update accounts set balance_minor = 1200, lead_days = 20; update revision set n = n + 1',
        ),
      () => switchTo(ids.slice(1), 'off'),
      () => bring('name,account,expires,auto-renew\ne.com,Wrackgate,2027-01-09,on'),
    ];
    const switchTo = async (some: readonly number[], setting: string) => {
      await ledger.database.query('update names set setting = $2 where id = any($1)', [some, setting]);
      await ledger.database.query('update revision set n = n + 1');
    };
    let playedOn = 0;
    await projectedLedger(ledger);
    for (const step of steps) {
      await step();
      const projection = await projectedLedger(ledger);
      if (projection.since) playedOn += 1;
      const rules = await selectLedgerRules(ledger.database);
      const whole = projectLedger(indexRules(rules), projection.names, projection.asOf);
      for (const ahead of [0, 30, 80]) {
        const day = addDays(projection.asOf, ahead);
        expect(everyRow(projection, day)).toEqual(everyRow(whole, day));
      }
    }
    expect(playedOn).toBeGreaterThan(3);
  });

  test('two processes on one database each keep their own, right by the ledger’s number', async () => {
    const other = openDatabase(ledger.url, () => undefined);
    try {
      await knownNames({ database: other });
      await edit([await idOf('b.com')], { addTags: ['craft'] });
      const [here, there] = await Promise.all([knownNames(ledger), knownNames({ database: other })]);
      expect(there.revision).toBe(here.revision);
      expect(there.names.all()).toEqual(here.names.all());
      expect(there.names.at(0).tags).toEqual(['craft', 'sea']);
    } finally {
      await other.end();
    }
  });

  test('those who ask together share one reading, and a failure is not kept', async () => {
    const [first, second] = await Promise.all([knownNames(ledger), knownNames(ledger)]);
    expect(second.names).toBe(first.names);
    const broken = openDatabase(ledger.url.replace(/:\d+\//, ':1/'), () => undefined);
    await expect(knownNames({ database: broken })).rejects.toThrow();
    await expect(knownNames({ database: broken })).rejects.toThrow();
    await broken.end();
  });
});

describe('what changes touched', () => {
  const changedBy = async (act: () => Promise<unknown>) => {
    const since = await selectRevision(ledger.database);
    await ledger.database.query('delete from changed_names');
    await act();
    return selectChangedNames(ledger.database, since);
  };

  test('one name, the names of its entries, none where only rules changed', async () => {
    const b = await idOf('b.com');
    expect(await changedBy(() => edit([b], { addTags: ['x'] }))).toEqual([b]);
    expect(
      await changedBy(() => ledger.database.query('update entries set note = note where name_id = $1', [b])),
    ).toEqual([b]);
    expect(await changedBy(() => ledger.database.query("update accounts set label = 'Quay'"))).toEqual([]);
  });

  test('a name that is deleted, and more names than are told apart: all of them', async () => {
    expect(
      await changedBy(() => ledger.database.query("delete from entries; delete from names where ascii = 'd.com'")),
    ).toBeNull();
    const many = Array.from({ length: 5001 }, (_, i) => `n${i}.com,Quaymark`).join('\n');
    expect(await changedBy(() => bring(`name,account\n${many}`))).toBeNull();
    expect(await changedBy(() => ledger.database.query('truncate names cascade'))).toBeNull();
  });

  test('what lies too far back, or ahead, is not known', async () => {
    const now = await selectRevision(ledger.database);
    expect(await selectChangedNames(ledger.database, now - 1001)).toBeNull();
    expect(await selectChangedNames(ledger.database, now + 1)).toBeNull();
    await ledger.database.query('update revision set n = n + 1000');
    expect(await selectChangedNames(ledger.database, now)).toEqual(expect.any(Array));
    await ledger.database.query('update revision set n = n + 1');
    expect(await selectChangedNames(ledger.database, now)).toBeNull();
  });
});

describe('what a window is told', () => {
  const told = async (since: string | null) => {
    const body = unpacked<LedgerBody>((await ledgerBytes(ledger, since)).buffer as ArrayBuffer);
    return { ...body, ascii: asciiOf(body.names) };
  };
  const asciiOf = ({ ascii }: LedgerColumns) => ascii.split('\n').slice(0, -1);

  test('the first time all names, then those that have changed, and which of them have gone', async () => {
    const version = await ledgerVersion(ledger);
    expect(await told(null)).toMatchObject({ changed: null, ascii: ['b.com', 'd.com'] });
    await ledger.database.query('delete from changed_names');
    expect(await told(version)).toMatchObject({ changed: [], ascii: [] });
    const [b, d] = [await idOf('b.com'), await idOf('d.com')];
    await edit([b], { addTags: ['x'] });
    await ledger.database.query('update names set gone_at = now() where id = $1', [d]);
    const body = await told(version);
    expect(body.ascii).toEqual(['b.com']);
    expect([...(body.changed ?? [])].sort()).toEqual([b, d].sort());
  });

  test('a version of another ledger, or one that is none, is told everything', async () => {
    const version = await ledgerVersion(ledger);
    const [own, number, hour] = version.split('.');
    // Another ledger that has come as far: the demo made anew, or the office's own beside it.
    const other = await emptyLedger();
    const [strange] = (await ledgerVersion(other)).split('.');
    await other.close();
    expect(strange).not.toBe(own);
    for (const since of [
      `${strange}.${number}.${hour}`,
      own,
      `${own}.x.1`,
      '',
      `${own}.99999999.1`,
      `${own}.1'; drop table names`,
    ])
      expect((await told(since ?? '')).changed, since).toBeNull();
    expect((await told(version)).changed).not.toBeNull();
  });
});
