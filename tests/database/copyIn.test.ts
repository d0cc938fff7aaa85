import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { addDays, type Day, dayOf, FIRST_DAY, startOfDay } from '@/core/time';
import { copyIn, packRows } from '@/database/copyIn';
import { transaction } from '@/database/pool';
import { emptyLedger, type TestLedger } from './ledger';
import { packed } from './packed';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

const COLUMNS = {
  line: 'int4',
  minor: 'int8',
  yes: 'bool',
  said: 'text',
  tags: 'text[]',
  at: 'timestamptz',
  day: 'date',
  key: 'uuid',
} as const;

const maybe = <T>(of: fc.Arbitrary<T>) => fc.option(of, { nil: null, freq: 4 });
/** Short and plain texts are written another way than the others: so both, and those at the border. */
const text = fc
  .oneof(
    fc.string({ unit: 'grapheme' }),
    fc.string({ unit: 'grapheme-ascii', minLength: 60, maxLength: 70 }),
    fc
      .tuple(fc.string({ unit: 'grapheme-ascii', minLength: 55, maxLength: 62 }), fc.string({ unit: 'binary' }))
      .map(([plain, end]) => plain + end),
  )
  .map((one) => one.toWellFormed())
  .filter((one) => !one.includes('\0'));
const day = fc.integer({ min: 0, max: 41_000 }).map((days): Day => dayOf(addDays(startOfDay(FIRST_DAY), days)));
const row = fc.record({
  line: maybe(fc.integer({ min: -(2 ** 31), max: 2 ** 31 - 1 })),
  minor: maybe(fc.maxSafeInteger()),
  yes: maybe(fc.boolean()),
  said: maybe(text),
  tags: maybe(fc.array(text, { maxLength: 4 })),
  at: maybe(fc.date({ min: new Date('1985-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }).map(Number)),
  day: maybe(day),
  key: maybe(fc.uuid()),
});

/** Against PostgreSQL itself: it reads what was written, and gives it out as text by its own rules. */
test('rows come back as they were written, whatever they hold', async () => {
  await fc.assert(
    fc.asyncProperty(fc.array(row, { maxLength: 30 }), async (rows) => {
      const back = await transaction(ledger.database, async (tx) => {
        await tx.query(
          `create temporary table copied (n int generated always as identity, line int, minor bigint, yes boolean, said text, tags text[],
             at timestamptz, day date, key uuid) on commit drop`,
        );
        await copyIn(tx, 'copied', packed(COLUMNS, rows));
        const { rows: found } = await tx.query(
          `select line, minor::text, yes, said, to_jsonb(tags) as tags, (extract(epoch from at) * 1000)::bigint::text as at, day::text, key::text
           from copied order by n`,
        );
        return found;
      });
      expect(back).toEqual(
        rows.map(({ minor, at, ...same }) => ({
          ...same,
          minor: minor === null ? null : String(minor),
          at: at === null ? null : String(at),
        })),
      );
    }),
    { numRuns: 60 },
  );
});

test('a NUL, which PostgreSQL keeps in no text, is left out; half of a letter is replaced', async () => {
  const said = await transaction(ledger.database, async (tx) => {
    await tx.query('create temporary table copied (said text) on commit drop');
    const rows = [{ said: 'kelp\0kiln' }, { said: 'half \ud800' }, {}];
    await copyIn(tx, 'copied', packed({ said: 'text' }, rows));
    return (await tx.query('select said from copied')).rows;
  });
  expect(said).toEqual([{ said: 'kelpkiln' }, { said: 'half \ufffd' }, { said: null }]);
});

test('more than fits into the memory that is begun with', async () => {
  const rows = Array.from({ length: 4000 }, (_, i) => ({
    line: i,
    said: i % 3 === 0 ? 'tide\u00e4'.repeat(i % 50) : `kelp${i}`,
  }));
  const [first, last, count] = await transaction(ledger.database, async (tx) => {
    await tx.query('create temporary table copied (line int, said text) on commit drop');
    await copyIn(tx, 'copied', packed({ line: 'int4', said: 'text' }, rows));
    const { rows: found } = await tx.query('select line, said from copied order by line');
    return [found[0], found.at(-1), found.filter(({ said }, i) => said === rows[i]?.said).length];
  });
  expect([first, last, count]).toEqual([rows[0], rows.at(-1), 4000]);
});

test('a column that says nothing is left out, and so the table keeps what is usual there', async () => {
  const rows = [{ line: 1, said: null }, { line: 2 }];
  const found = await transaction(ledger.database, async (tx) => {
    await tx.query("create temporary table copied (line int, said text default 'usual') on commit drop");
    const one = packed({ line: 'int4', said: 'text' }, rows);
    expect(one.said).toEqual(['line']);
    await copyIn(tx, 'copied', one);
    return (await tx.query('select line, said from copied order by line')).rows;
  });
  expect(found).toEqual([
    { line: 1, said: 'usual' },
    { line: 2, said: 'usual' },
  ]);
});

test('a column that has not a value for each row is refused, not filled up', () => {
  const torn = () => packRows({ line: 'int4', said: 'text' }, { line: [1, 2], said: ['kelp'] }, 2);
  expect(torn).toThrow('column said has 1 values for 2 rows');
});
