import { afterAll, beforeAll, expect, test } from 'vitest';
import { isRefusal } from '@/core/refusal';
import { mendRow } from '@/usecases/imports/mendRow';
import { beginImport, readImport } from '@/usecases/imports/readImport';
import { emptyLedger, type TestLedger } from './ledger';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
});
afterAll(() => ledger.close());

const HEADINGS = 'name,account,registered,expires,auto-renew,tags,renewal price,currency,paid,date bought,notes';
/** More rows than are read, and than are staged, in one go. */
const ROWS = 10_700;

/** A row of a list: every 101st has no name, and every 97th names the first one again, with another end. */
const rowOf = (i: number) => {
  if (i % 101 === 7) return `,Quaymark,2020-01-01,2027-01-01,on,coast,11.38,USD,640,2019-11-06,nameless ${i}`;
  const isTwice = i % 97 === 13;
  return `${isTwice ? 'kelpkiln0.com' : `kelpkiln${i}.com`},${i % 2 ? 'Quaymark' : ''},2020-01-01,${isTwice ? '2028' : '2027'}-01-01,on,"coast, craft",11.38,USD,640,2019-11-06,note ${i}`;
};

async function staged(more: string) {
  const list = [HEADINGS, ...Array.from({ length: ROWS }, (_, i) => rowOf(i))].join('\n');
  const begun = await beginImport(ledger, { content: Buffer.from(list), source: more, accountLabel: 'Wrackgate' });
  if (isRefusal(begun)) throw new Error(begun.message);
  const ready = await readImport(ledger, begun.id, begun.options);
  if (isRefusal(ready)) throw new Error(ready.message);
  const { rows } = await ledger.database.query('select * from import_rows where import_id = $1 order by line', [
    begun.id,
  ]);
  return { id: begun.id, rows };
}

test('each row of a long list stands where it stood: taken with all it says, or refused with what it is refused for and nothing else', async () => {
  const { rows } = await staged('long');
  expect(rows.map(({ line }) => line)).toEqual(Array.from({ length: ROWS }, (_, i) => i + 2));
  const says = Object.keys(rows[0]).filter((column) => !['import_id', 'line', 'outcome', 'taken'].includes(column));
  for (const [i, row] of rows.entries()) {
    const isNameless = i % 101 === 7;
    const isTwice = !isNameless && i % 97 === 13;
    const kept = says.filter((column) => row[column] !== null);
    if (isNameless || isTwice) {
      expect([row.outcome, row.code, kept]).toEqual([
        'refused',
        isTwice ? 'name-twice' : 'name-empty',
        ['input', 'code', 'message'],
      ]);
      expect(JSON.parse(row.input)).toContain(isTwice ? `note ${i}` : `nameless ${i}`);
    } else {
      expect(row).toMatchObject({
        outcome: 'new',
        ascii: `kelpkiln${i}.com`,
        unicode: `kelpkiln${i}.com`,
        ending: 'com',
        account: i % 2 ? 'Quaymark' : 'Wrackgate',
        registered: Date.UTC(2020, 0, 1),
        registered_day: true,
        term_end: Date.UTC(2027, 0, 1),
        setting: 'on',
        tags: ['coast', 'craft'],
        renewal_minor: 1138,
        renewal_currency: 'USD',
        paid_minor: 64_000,
        paid_on: '2019-11-06',
        notes: `note ${i}`,
        message: null,
        input: null,
      });
    }
  }
  expect(rows[13 + 97].message).toBe(
    'This name stands on line 2 already, there with 1 Jan 2027, here with 1 Jan 2028. Line 2 counts, unless you take this one.',
  );
});

test('the row of a name that stands there twice may be taken in the place of the first', async () => {
  const { id, rows } = await staged('mended');
  const { line, input } = rows[13];
  const cells = JSON.parse(input);
  expect(await mendRow(ledger, id, { line, cells, isInstead: false })).toMatchObject({ code: 'name-twice' });
  expect(await mendRow(ledger, id, { line, cells, isInstead: true })).toMatchObject({ status: 'ready' });
  const { rows: now } = await ledger.database.query(
    "select line, term_end from import_rows where import_id = $1 and ascii = 'kelpkiln0.com' and outcome = 'new'",
    [id],
  );
  expect(now).toEqual([{ line, term_end: Date.UTC(2028, 0, 1) }]);
});
