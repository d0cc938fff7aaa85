import { setTimeout as wait } from 'node:timers/promises';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { whileAlone } from '@/database/locks';
import { selectPauses } from '@/database/parts';
import { openDatabase } from '@/database/pool';
import { eachPartner } from '@/usecases/partners';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

test('twice as many runs at once as there are connections: all of them end', async () => {
  const database = openDatabase(ledger.url, () => undefined, { max: 5, connectionTimeoutMillis: 5000 });
  const runs = Array.from({ length: 10 }, (_, i) =>
    whileAlone(database, `run ${i}`, async () => {
      // What a run does: it asks for a connection of the pool while it holds its lock.
      for (let step = 0; step < 3; step += 1) await database.query('select pg_sleep(0.02)');
      return i;
    }),
  );
  expect(await Promise.all(runs)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
  await database.end();
});

test('one at a time under one name; the lock ends with its work, and with its error', async () => {
  const other = openDatabase(ledger.url, () => undefined, { max: 2 });
  let release: () => void = () => undefined;
  let hasBegun = false;
  const first = whileAlone(ledger.database, 'harbour', () => {
    hasBegun = true;
    return new Promise<string>((go) => {
      release = () => go('first');
    });
  });
  await expect.poll(() => hasBegun).toBe(true);
  expect(await whileAlone(other, 'harbour', async () => 'second')).toBeNull();
  expect(await whileAlone(other, 'another name', async () => 'third')).toBe('third');
  release();
  expect(await first).toBe('first');
  expect(await whileAlone(other, 'harbour', async () => 'second')).toBe('second');
  await expect(whileAlone(other, 'harbour', () => Promise.reject(new Error('fell over')))).rejects.toThrow('fell over');
  expect(await whileAlone(ledger.database, 'harbour', async () => 'again')).toBe('again');
  await other.end();
});

test('a statement that never ends is ended, and the pool goes on', async () => {
  const database = openDatabase(ledger.url, () => undefined, { max: 1, statement_timeout: 200 });
  await expect(database.query('select pg_sleep(30)')).rejects.toThrow('statement timeout');
  expect((await database.query('select 1 as one')).rows).toEqual([{ one: 1 }]);
  await database.end();
});

test('a partner that hangs, fails or throws delays none of the others, and is left alone longer each time', async () => {
  const done: number[] = [];
  const work = async (id: number) => {
    if (id === 1) await wait(60_000, undefined, { ref: false });
    if (id === 2) return 'it does not answer';
    if (id === 3) throw new Error('an answer that nobody understands');
    done.push(id);
    return null;
  };
  const go = (patience: 'with pauses' | 'at once') =>
    eachPartner(ledger, 'marketplace', 'selling', [1, 2, 3, 4, 5], work, patience, 1500);
  const started = Date.now();
  await go('with pauses');
  expect(Date.now() - started).toBeLessThan(5000);
  expect(done.sort()).toEqual([4, 5]);
  const pauses = await selectPauses(ledger.database, 'marketplace');
  expect(pauses.map(({ partnerId, failures }) => [partnerId, failures])).toEqual(
    expect.arrayContaining([
      [1, 1],
      [2, 1],
      [3, 1],
    ]),
  );
  await go('with pauses');
  expect(done.sort()).toEqual([4, 4, 5, 5]);
  await go('at once');
  const later = await selectPauses(ledger.database, 'marketplace');
  expect(later.find(({ partnerId }) => partnerId === 2)).toMatchObject({ failures: 2, problem: 'it does not answer' });
  expect(later.find(({ partnerId }) => partnerId === 2)?.waitSeconds).toBeGreaterThan(60);
});

test('however many partners hang, the others are worked with at once, and nobody else is blamed', async () => {
  const hung = Array.from({ length: 20 }, (_, i) => 100 + i);
  const done: number[] = [];
  const work = async (id: number) => {
    if (hung.includes(id)) await wait(60_000, undefined, { ref: false });
    done.push(id);
    return null;
  };
  const before = Date.now();
  let doneAfter = Number.POSITIVE_INFINITY;
  const all = eachPartner(ledger, 'account', 'messages', [...hung, 1, 2], work, 'with pauses', 800);
  void expect
    .poll(() => done.length)
    .toBe(2)
    .then(() => {
      doneAfter = Date.now() - before;
    });
  await all;
  expect(done.sort()).toEqual([1, 2]);
  expect(doneAfter).toBeLessThan(800);
  expect((await selectPauses(ledger.database, 'account')).map(({ partnerId }) => partnerId).sort()).toEqual(hung);
  // A job of another kind is not held up by those that still hang.
  expect(await whileAlone(ledger.database, 'run after all that', async () => 'yes')).toBe('yes');
});
