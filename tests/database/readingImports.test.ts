import { afterAll, beforeAll, expect, onTestFinished, test } from 'vitest';
import { isRefusal, type Refusal } from '@/core/refusal';
import type { Database } from '@/database/pool';
import { BeingAnswered } from '@/usecases/beingAnswered';
import { importSummary } from '@/usecases/imports/preview';
import { beginImport, readImport } from '@/usecases/imports/readImport';
import { writeImport } from '@/usecases/imports/writeImport';
import { emptyLedger, type TestLedger } from './ledger';

/** Rows are read and staged in pieces of ten thousand, the next while two are staged. */
const ROWS = 25_000;
const rowOf = (n: number, notes = '') =>
  `lantern-${n}.com,Quaymark,2027-03-${String(1 + (n % 28)).padStart(2, '0')},${notes}`;
const listOf = (rows: readonly string[]) => Buffer.from(['Domain,Account,Expires,Notes', ...rows].join('\n'));
const LIST = Array.from({ length: ROWS }, (_, n) => rowOf(n));

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

const must = <T>(answer: T | Refusal): T => {
  if (isRefusal(answer)) throw new Error(answer.message);
  return answer;
};
const begun = async (rows: readonly string[]) =>
  must(await beginImport(ledger, { content: listOf(rows), source: 'a long list' }));
async function outcomes(id: string) {
  const { counts } = must(await importSummary(ledger, id));
  return Object.fromEntries(Object.entries(counts).flatMap(([outcome, { rows }]) => (rows ? [[outcome, rows]] : [])));
}

test('a name that stands in two pieces of a list is refused where it stands again, and told where it stands first', async () => {
  const { id, options } = await begun([...LIST, rowOf(7), rowOf(12_000)]);
  must(await readImport(ledger, id, options));
  expect(await outcomes(id)).toEqual({ new: ROWS, refused: 2 });
  const { rows } = await ledger.database.query(
    "select line, message from import_rows where import_id = $1 and outcome = 'refused' order by line",
    [id],
  );
  expect(rows).toEqual([
    { line: ROWS + 2, message: expect.stringContaining('on line 9 already') },
    { line: ROWS + 3, message: expect.stringContaining('on line 12002 already') },
  ]);
});

test('what only one row of a piece says is compared too', async () => {
  const first = await begun(LIST);
  must(await readImport(ledger, first.id, first.options));
  must(await writeImport(ledger, first.id));
  const told = LIST.with(4, rowOf(4, 'a gift')).with(ROWS - 1, rowOf(ROWS - 1, 'asked twice'));
  const again = await begun(told);
  must(await readImport(ledger, again.id, again.options));
  expect(await outcomes(again.id)).toEqual({ unchanged: ROWS - 2, changed: 2 });
});

/** A database that refuses one connection, once so many have been asked for. */
function refusingFrom(database: Database, refused: number): Database {
  let asked = 0;
  return new Proxy(database, {
    get(target, key) {
      if (key !== 'connect') {
        const value = Reflect.get(target, key) as unknown;
        return typeof value === 'function' ? value.bind(target) : value;
      }
      return async () => {
        asked += 1;
        if (asked === refused) throw new Error('the database is gone');
        return target.connect();
      };
    },
  });
}

test.each([1, 2, 3])(
  'a list whose piece %i cannot be staged says so, can be read again, and stops nothing else',
  async (piece) => {
    const unheard: unknown[] = [];
    const hear = (why: unknown) => unheard.push(why);
    process.on('unhandledRejection', hear);
    onTestFinished(() => void process.off('unhandledRejection', hear));
    const { id, options } = await begun(LIST);
    const broken = { ...ledger, database: refusingFrom(ledger.database, piece) };
    await expect(readImport(broken, id, options)).rejects.toThrow('the database is gone');
    expect(must(await importSummary(ledger, id)).row).toMatchObject({
      status: 'failed',
      problem: 'The list could not be read. Try again.',
    });
    must(await readImport(ledger, id, options));
    expect(await outcomes(id)).toEqual({ unchanged: ROWS });
    const { rows } = await ledger.database.query(
      'select count(distinct line) as lines from import_rows where import_id = $1',
      [id],
    );
    expect(rows).toEqual([{ lines: ROWS }]);
    expect(unheard).toEqual([]);
  },
);

/** So many rows are read in about a millisecond. */
const BREATH = 250;

test('whoever reads a list looks every millisecond or so whether anybody is being answered', async () => {
  let looks = 0;
  class Watched extends BeingAnswered {
    override get some() {
      looks += 1;
      return super.some;
    }
  }
  const { id, options } = await begun(LIST);
  must(await readImport({ ...ledger, others: new Watched() }, id, options));
  expect(looks).toBe(ROWS / BREATH);
});

test('reading that breaks off waits for the piece that is on its way', async () => {
  let looks = 0;
  class Broken extends BeingAnswered {
    override get some(): boolean {
      looks += 1;
      // The first two pieces are being staged.
      if (looks > 20_000 / BREATH + 2) throw new Error('broken off');
      return false;
    }
  }
  const { id, options } = await begun(LIST);
  await expect(readImport({ ...ledger, others: new Broken() }, id, options)).rejects.toThrow('broken off');
  const { idleCount, totalCount } = ledger.database;
  expect(idleCount).toBe(totalCount);
});
