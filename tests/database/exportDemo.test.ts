import { seedDemo } from '@practice/scenario/seed';
import Papa from 'papaparse';
import { afterAll, beforeAll, expect, test } from 'vitest';
import { writeTable } from '@/formats/csv/writeTable';
import { exportCsv } from '@/usecases/names/export';
import { emptyLedger, type TestLedger, TODAY } from './ledger';
import { must } from './marketplace';

let ledger: TestLedger;
beforeAll(async () => {
  ledger = await emptyLedger();
  await seedDemo(ledger.database, TODAY);
  await ledger.database.query(
    "update names set notes = '=1+1, \"quoted\"', tags = array['-a', 'b,c'] where id % 3 = 0",
  );
});
afterAll(() => ledger.close());

test.each(['', 'asOf=2027-02-01T00:00:00Z', 'asOf=2028-05-01T00:00:00Z'])(
  'every column of every name is quoted and defused as a table is that looks at each cell, on the day of “%s”',
  async (query) => {
    const text = must(await exportCsv(ledger, new URLSearchParams(query)));
    const [headings = [], ...rows] = Papa.parse<string[]>(String(text), { skipEmptyLines: true }).data;
    expect(rows.length).toBeGreaterThan(300);
    expect(rows.every((row) => row.length === headings.length)).toBe(true);
    expect(writeTable(headings, rows)).toBe(text);
  },
);
