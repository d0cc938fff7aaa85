import { afterAll, beforeAll, expect, test, vi } from 'vitest';
import { transaction } from '@/database/pool';
import { emptyLedger, type TestLedger, usualAccount } from './ledger';

/** What `references` promises (PostgreSQL documentation, 5.4.5), kept for names by triggers of their own. */
const VIOLATION = { code: '23503' };

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

let made = 0;
const add = (accountId: number, db: Pick<TestLedger['database'], 'query'> = ledger.database) => {
  made += 1;
  return db.query(
    `insert into names (ascii, "unicode", ending, account_id, added_at, added_batch) values ($1, $1, 'com', $2, now(), 0)`,
    [`eelgrass${made}.com`, accountId],
  );
};
const deleteAccount = (id: number, db: Pick<TestLedger['database'], 'query'> = ledger.database) =>
  db.query('delete from accounts where id = $1', [id]);
const namesWithoutAccount = async () =>
  (
    await ledger.database.query(
      'select ascii from names n where not exists (select from accounts a where a.id = n.account_id)',
    )
  ).rows;

test('no name comes into an account that is not there: not by itself, not among others, not by moving', async () => {
  const account = await usualAccount(ledger, 'Quaymark');
  await expect(add(account + 1000)).rejects.toMatchObject(VIOLATION);
  await expect(
    ledger.database.query(
      `insert into names (ascii, "unicode", ending, account_id, added_at, added_batch)
       select name, name, 'com', case when name = 'k7.com' then $1::int + 1000 else $1 end, now(), 0 from (select 'k' || n || '.com' as name from generate_series(1, 9) n) made`,
      [account],
    ),
  ).rejects.toMatchObject({ ...VIOLATION, message: `there is no account ${account + 1000} to put a name into` });
  await add(account);
  await expect(ledger.database.query('update names set account_id = account_id + 1000')).rejects.toMatchObject(
    VIOLATION,
  );
  expect(await namesWithoutAccount()).toEqual([]);
});

test('an account that holds a name stays; an empty one goes', async () => {
  const [held, empty] = [await usualAccount(ledger, 'Wrackgate'), await usualAccount(ledger, 'Fernhithe')];
  await add(held);
  await expect(deleteAccount(held)).rejects.toMatchObject(VIOLATION);
  await expect(ledger.database.query('delete from accounts')).rejects.toMatchObject(VIOLATION);
  await expect(ledger.database.query('truncate accounts cascade')).rejects.toMatchObject(VIOLATION);
  expect((await deleteAccount(empty)).rowCount).toBe(1);
});

test('while a name is put into an account nobody takes the account away', async () => {
  const account = await usualAccount(ledger, 'Bollard');
  let deleting: Promise<unknown> = Promise.resolve();
  await transaction(ledger.database, async (tx) => {
    await add(account, tx);
    deleting = expect(deleteAccount(account)).rejects.toMatchObject(VIOLATION);
    await waiting(1);
  });
  await deleting;
  expect(await namesWithoutAccount()).toEqual([]);
});

test('while an account is taken away nobody puts a name into it, nor moves one there', async () => {
  const [going, other] = [await usualAccount(ledger, 'Larkhythe'), await usualAccount(ledger, 'Gannet')];
  await add(other);
  const later: Promise<unknown>[] = [];
  await transaction(ledger.database, async (tx) => {
    await deleteAccount(going, tx);
    later.push(expect(add(going)).rejects.toMatchObject(VIOLATION));
    later.push(
      expect(
        ledger.database.query('update names set account_id = $1 where account_id = $2', [going, other]),
      ).rejects.toMatchObject(VIOLATION),
    );
    await waiting(2);
  });
  await Promise.all(later);
  expect(await namesWithoutAccount()).toEqual([]);
});

/** Until so many statements wait for a lock. */
const waiting = (count: number) =>
  vi.waitFor(async () => {
    const { rows } = await ledger.database.query<{ n: number }>(
      "select count(*) as n from pg_stat_activity where datname = current_database() and wait_event_type = 'Lock'",
    );
    expect(rows).toEqual([{ n: count }]);
  }, 20_000);
