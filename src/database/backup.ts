import type { Queryable, Transaction } from './pool';

/** Every table of the ledger's state, in an order in which rows only point backwards. Lists being brought in are left out. */
const TABLES = [
  'settings',
  'policies',
  'registry_fees',
  'accounts',
  'means',
  'names',
  'prices',
  'batches',
  'changes',
  'entries',
  'views',
  'renewals',
  'renewal_items',
  'registrar_messages',
  'reminders',
  'letting_go',
  'records',
  'record_dismissals',
  'watches',
  'venues',
  'listings',
  'offer_threads',
  'figures',
  'auctions',
  'bids',
  'sales',
  'sale_steps',
  'venue_events',
  'comparables',
  'rates',
  'import_mappings',
] as const;

export type BackupTables = Readonly<Record<string, readonly object[]>>;

/** All rows of the ledger as JSON text, one member for each table. */
export async function selectBackup(db: Queryable): Promise<string> {
  const members = TABLES.map(
    (table) => `'${table}', (select coalesce(json_agg(t), '[]') from (select * from ${table} order by 1, 2) t)`,
  );
  const { rows } = await db.query<{ tables: string }>(
    `select json_build_object(${members.join(', ')})::text as tables`,
  );
  return rows[0]?.tables ?? '{}';
}

/** True while nothing has been put into the ledger yet. */
export async function isEmptyLedger(db: Queryable): Promise<boolean> {
  const { rows } = await db.query(
    'select 1 from names union all select 1 from accounts union all select 1 from batches limit 1',
  );
  return rows.length === 0;
}

/** Puts the rows of a backup into an empty ledger, in place of the usual rules. Unknown tables are left out. */
export async function insertBackup(tx: Transaction, tables: BackupTables): Promise<void> {
  for (const table of [...TABLES].reverse()) await tx.query(`delete from ${table}`);
  for (const table of TABLES) {
    const columns = await columnsIn(tx, table, tables[table] ?? []);
    if (columns.length === 0) continue;
    const list = columns.map((column) => `"${column}"`).join(', ');
    await tx.query(
      `insert into ${table} (${list}) overriding system value select ${list} from jsonb_populate_recordset(null::${table}, $1::jsonb)`,
      [JSON.stringify(tables[table])],
    );
  }
  const { rows } = await tx.query<{ name: string }>(
    "select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'id' and is_identity = 'YES'",
  );
  for (const { name } of rows)
    await tx.query(`select setval(pg_get_serial_sequence($1, 'id'), greatest((select max(id) from ${name}), 1))`, [
      name,
    ]);
}

/** The columns of a table that a backup tells of: an older one knows fewer, and the rest take their usual values. */
async function columnsIn(tx: Transaction, table: string, records: readonly object[]): Promise<string[]> {
  const told = new Set(records.flatMap((record) => Object.keys(record)));
  const { rows } = await tx.query<{ name: string }>(
    "select column_name as name from information_schema.columns where table_schema = 'public' and table_name = $1 order by ordinal_position",
    [table],
  );
  return rows.map(({ name }) => name).filter((name) => told.has(name));
}
