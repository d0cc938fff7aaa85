import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { copyIn } from '@/database/copyIn';
import { type BinaryRow, copyRows, textsOf } from '@/database/copyRows';
import { snapshot, transaction } from '@/database/pool';
import { emptyLedger, type TestLedger } from './ledger';
import { packed } from './packed';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

/** Everything that a query answers, each row as `take` reads it. */
async function read<T>(query: string, take: (row: BinaryRow) => T): Promise<T[]> {
  const rows: T[] = [];
  await snapshot(ledger.database, (client) => copyRows(client, query, (row) => void rows.push(take(row))));
  return rows;
}

const COLUMNS = { line: 'int4', minor: 'int8', said: 'text', tags: 'text[]', at: 'timestamptz' } as const;
const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null, freq: 4 });
const text = fc.string({ unit: 'grapheme' }).filter((one) => !one.includes('\0'));
const row = fc.record({
  line: maybe(fc.integer({ min: -(2 ** 31), max: 2 ** 31 - 1 })),
  minor: maybe(fc.maxSafeInteger()),
  said: maybe(text),
  tags: fc.array(text, { maxLength: 4 }),
  at: maybe(fc.date({ min: new Date('1985-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }).map(Number)),
});

test('rows are read as they were written, whatever they hold', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(row, { maxLength: 20 }), async (rows) => {
      await transaction(ledger.database, async (tx) => {
        await tx.query('drop table if exists kept');
        await tx.query(
          'create table kept (nth int generated always as identity, line int4, minor int8, said text, tags text[], at timestamptz)',
        );
        await copyIn(tx, 'kept', packed(COLUMNS, rows));
      });
      const known = (value: number) => (Number.isNaN(value) ? null : value);
      expect(
        await read('select line, minor, said, tags, at from kept order by nth', (one) => ({
          line: known(one.int32()),
          minor: known(one.int64()),
          said: one.text(),
          tags: textsOf(one.key() as string),
          at: known(one.instant()),
        })),
      ).toEqual(rows);
    }),
    { numRuns: 40 },
  );
});

test('no row is lost where a piece of what is sent ends within one', async () => {
  const rows = await read('select n, repeat(chr(97 + n % 26), n % 700) from generate_series(1, 5000) n', (one) => [
    one.int32(),
    one.text(),
  ]);
  expect(rows).toHaveLength(5000);
  for (const [i, [n, said]] of rows.entries()) {
    expect(n).toBe(i + 1);
    expect(said).toBe(String.fromCharCode(97 + ((i + 1) % 26)).repeat((i + 1) % 700));
  }
});

test('bytes are copied to where there is room for them, and what is null takes none', async () => {
  const into = Buffer.alloc(12, '.');
  let at = 0;
  await read("select said from (values (1, 'kelp'), (2, null), (3, 'quay')) v(n, said) order by n", (one) => {
    at += one.copy(into, at);
  });
  expect([at, into.toString()]).toEqual([8, 'kelpquay....']);
});

test('a list with a null in it is an error, and so is a query that fails; the connection is not kept after either', async () => {
  await expect(read("select array['a', null]::text[]", (one) => textsOf(one.key() as string))).rejects.toThrow(
    'a null in it',
  );
  await expect(read('select 1 / (n - 3) from generate_series(1, 5) n', (one) => one.int32())).rejects.toThrow(
    'division by zero',
  );
  expect(await read('select 7', (one) => one.int32())).toEqual([7]);
});

test('what is asked in one snapshot is answered from one moment', async () => {
  await ledger.database.query('create table tide (n int); insert into tide values (1)');
  const [before, after] = await snapshot(ledger.database, async (client) => {
    const counted: number[] = [];
    const count = () => copyRows(client, 'select count(*) from tide', (one) => void counted.push(one.int64()));
    await count();
    await ledger.database.query('insert into tide values (2)');
    await count();
    return counted;
  });
  expect([before, after]).toEqual([1, 1]);
});
