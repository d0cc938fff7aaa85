import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest';
import { everyRow, indexRules, type LedgerColumns, NameTable, projectLedger } from '@/core/ledger';
import { unpacked } from '@/core/table';
import { addDays } from '@/core/time';
import { selectChangedNames, selectLedgerRules, selectRevision, selectState, tellState } from '@/database/ledger';
import { selectLedgerColumns } from '@/database/ledgerColumns';
import { openDatabase } from '@/database/pool';
import type { Deps } from '@/usecases/deps';
import { importAtOnce } from '@/usecases/imports/importAtOnce';
import { editNames } from '@/usecases/names/edit';
import { knownNames } from '@/usecases/names/knownNames';
import {
  type LedgerBody,
  ledgerBytes,
  ledgerVersion,
  projectedLedger,
  readAnew,
  shownState,
} from '@/usecases/names/ledger';
import { undo } from '@/usecases/names/undo';
import { tellChange } from '@/usecases/telling';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeEach(async () => {
  ledger = await emptyLedger();
  await bring(
    'name,account,expires,price paid,currency,tags\nb.com,Quaymark,2027-01-03,10.00,USD,sea\nd.com,Quaymark,2027-02-03,,,',
  );
});
afterEach(() => ledger.close());

const bring = (text: string, deps: Deps = ledger) =>
  importAtOnce(deps, {
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
  /** A change as commands make them: the number rises first. */
  const whole = (sql: string) => ledger.database.query(`begin; update revision set n = n + 1; ${sql}; commit`);
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
    expect(await changedBy(() => whole("delete from entries; delete from names where ascii = 'd.com'"))).toBeNull();
    const many = Array.from({ length: 5001 }, (_, i) => `n${i}.com,Quaymark`).join('\n');
    expect(await changedBy(() => bring(`name,account\n${many}`))).toBeNull();
    expect(await changedBy(() => whole('truncate names cascade'))).toBeNull();
  });

  test('whoever knows the state that very many names have made asks only for what changes after it', async () => {
    const many = Array.from({ length: 5001 }, (_, i) => `n${i}.com,Quaymark`).join('\n');
    await bring(`name,account\n${many}`);
    const since = await selectRevision(ledger.database);
    expect(await selectChangedNames(ledger.database, since - 1)).toBeNull();
    expect(await selectChangedNames(ledger.database, since)).toEqual([]);
    const b = await idOf('b.com');
    await edit([b], { addTags: ['x'] });
    expect(await selectChangedNames(ledger.database, since)).toEqual([b]);
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

describe('a change of very many names', () => {
  const MANY = 5001;
  const list = `name,account,notes\n${Array.from({ length: MANY }, (_, i) => `n${i}.com,Quaymark,first`).join('\n')}`;
  /** As a thread makes it, which leaves the telling to whoever asked for it. */
  const inThread = () => ({ ...ledger, isThread: true });
  const state = () => selectState(ledger.database);
  const shown = async () => (await projectedLedger(ledger)).names.length;

  test('is shown once it has been read: until then the state before it, at once', async () => {
    expect(await shown()).toBe(2);
    await bring(list, inThread());
    const { revision, told } = await state();
    expect(told).toBe(revision - 1);
    // Whoever asks first has begun the reading: those who ask in the same moment see what he sees.
    const [first, names, version] = await Promise.all([shownState(ledger), shown(), versionAt(told)]);
    expect(first).toEqual({ version, isBehind: true });
    expect(names).toBe(2);
    await vi.waitFor(async () => expect(await shown()).toBe(MANY + 2));
    expect(await shownState(ledger)).toEqual({ version: await ledgerVersion(ledger), isBehind: false });
  });

  test('a window is told the names of the state that it is shown, and later the others', async () => {
    await shown();
    const version = await ledgerVersion(ledger);
    await bring(list, inThread());
    const told = async (since: string | null) =>
      unpacked<LedgerBody>((await ledgerBytes(ledger, since)).buffer as ArrayBuffer);
    expect(await told(version)).toMatchObject({ changed: [], revision: Number(version.split('.')[1]) });
    await readAnew(ledger);
    const all = await told(version);
    expect(all).toMatchObject({ changed: null, revision: (await state()).revision });
    expect(all.names.ascii.split('\n')).toHaveLength(MANY + 3);
  });

  test('whoever made it waits until it is told: nobody is answered of an earlier state after that', async () => {
    await shown();
    const asked: string[] = [];
    const thread = {
      run: async (name: string) => {
        asked.push(name);
        expect((await state()).told).toBeLessThan((await state()).revision);
        return readAnew(ledger);
      },
    };
    await tagEverything({ ...ledger, thread }, 'one');
    expect(asked).toEqual([]);
    await bring(list, inThread());
    await tellChange({ ...ledger, thread });
    await tagEverything({ ...ledger, thread }, 'two');
    expect(asked).toEqual(['readAnew', 'readAnew']);
    const { revision, told } = await state();
    expect(told).toBe(revision);
    expect((await projectedLedger(ledger)).names.at(0).tags).toContain('two');
  });

  test('it is told although it could not be read, and where nobody keeps the ledger', async () => {
    const broken = { run: () => Promise.reject(new Error('the thread has ended')) };
    for (const thread of [broken, null]) {
      await shown();
      await tagEverything({ ...ledger, isThread: true }, thread ? 'one' : 'two');
      await bring(thread ? list : list.replaceAll('first', 'second'), inThread());
      await tellChange({ ...ledger, thread });
      const { revision, told } = await state();
      expect(told).toBe(revision);
      expect(await shown()).toBe(MANY + 2);
    }
  });

  test('a change that is made has not failed, although the database went away before it could be told', async () => {
    const gone = openDatabase(ledger.url.replace(/:\d+\//, ':1/'), () => undefined);
    const error = vi.spyOn(ledger.log, 'error');
    await tellChange({ ...ledger, database: gone });
    expect(error.mock.calls.map(([, said]) => said)).toEqual(['a change of many names could not be told']);
    error.mockRestore();
    await gone.end();
  });

  test('another change after it is seen by who asks next, and with it what was held back', async () => {
    expect(await shown()).toBe(2);
    await bring(list, inThread());
    await edit([await idOf('b.com')], { addTags: ['craft'] });
    const { names } = await projectedLedger(ledger);
    expect(names.length).toBe(MANY + 2);
    expect(names.at(names.placeOfAscii('b.com')).tags).toEqual(['craft', 'sea']);
    expect(await shownState(ledger)).toEqual({ version: await ledgerVersion(ledger), isBehind: false });
  });

  test('a state is never told back, nor one that is not there', async () => {
    const { revision } = await state();
    await tellState(ledger.database, revision - 1);
    await tellState(ledger.database, revision + 9);
    expect((await state()).told).toBe(revision);
  });

  const versionAt = async (revision: number) => {
    const [own, , hour] = (await ledgerVersion(ledger)).split('.');
    return [own, revision, hour].join('.');
  };
  const tagEverything = async (deps: Deps, tag: string) => {
    const { rows } = await ledger.database.query<{ id: number }>('select id from names order by id');
    const nameIds = rows.map(({ id }) => id);
    expect(await editNames(deps, { nameIds, edit: { addTags: [tag] } })).toMatchObject({ changed: nameIds.length });
  };
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
