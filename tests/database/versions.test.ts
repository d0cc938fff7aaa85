import { afterEach, expect, test } from 'vitest';
import { migrate } from '@/database/migrate';
import { openDatabase } from '@/database/pool';
import { backupText, restoreText } from './backups';
import { asOf, dropMade, EARLIER_ROWS } from './earlier';
import { emptyLedger } from './ledger';

afterEach(dropMade);

type Rows = Readonly<Record<string, readonly Readonly<Record<string, unknown>>[]>>;

/** The tables of a backup by what files of version 1 called them, in their order. */
const CALLED: Readonly<Record<string, string>> = {
  payment_methods: 'means',
  drops: 'letting_go',
  marketplaces: 'venues',
  marketplace_events: 'venue_events',
};

/** What is in a backup; the queries of views as what they ask for, however their commas are written. */
function tablesOf(text: string): Rows {
  const { tables } = JSON.parse(text) as { tables: Rows };
  const views = (tables.views ?? []).map((view) => ({ ...view, query: [...new URLSearchParams(String(view.query))] }));
  return { ...tables, views };
}

test('a file of version 1 and the database it was made of come to the same ledger of today, row for row', async () => {
  const url = await asOf('0010', EARLIER_ROWS);
  const early = openDatabase(url, () => undefined);
  const today = await emptyLedger();
  try {
    // What the program of those days saved: each table by its name then, each row as it stood.
    const tables: Record<string, unknown[]> = {};
    for (const table of Object.keys(tablesOf(await backupText(today)))) {
      const called = CALLED[table] ?? table;
      // What came later is in no file of those days.
      if ((await early.query('select to_regclass($1) as there', [called])).rows[0]?.there === null) continue;
      tables[called] = (await early.query(`select row_to_json(t) as row from ${called} t order by 1::text`)).rows.map(
        ({ row }: { row: unknown }) => row,
      );
    }
    const rows = Object.fromEntries(Object.entries(tables).map(([table, list]) => [table, list.length]));
    const saved = JSON.stringify({
      format: 'name-ledger backup',
      version: 1,
      madeAt: '2026-11-01T00:00:00Z',
      rows,
      tables,
    });

    await migrate(url);
    const migrated = tablesOf(await backupText({ ...today, database: early }));
    expect(await restoreText(today, saved)).toBe(2);
    const restored = tablesOf(await backupText(today));
    for (const [table, list] of Object.entries(migrated)) expect([table, restored[table]]).toEqual([table, list]);
    expect(migrated.names).toHaveLength(2);
  } finally {
    await early.end();
    await today.close();
  }
});
