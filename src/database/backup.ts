import { Readable } from 'node:stream';
import { pipeline } from 'node:stream/promises';
import { from as copyFrom, to as copyTo } from 'pg-copy-streams';
import { forgetAllEvents } from './events';
import { analyzeLedger } from './ledger';
import type { Database, Queryable, Transaction } from './pool';

/**
 * Every table of the ledger's state, in an order in which rows only point backwards, by the version of the program that made
 * them: a file of an earlier version holds the first of these groups. Lists being brought in are left out, and so is what
 * concerns one running installation (parts, jobs, feeds).
 */
const GROUPS = [
  [
    'settings',
    'policies',
    'registry_fees',
    'accounts',
    'payment_methods',
    'names',
    'prices',
    'batches',
    'changes',
    'entries',
    'views',
    'renewals',
    'renewal_items',
    'import_mappings',
  ],
  ['registrar_messages'],
  ['reminders'],
  ['drops'],
  ['records', 'record_dismissals', 'watches'],
  [
    'marketplaces',
    'listings',
    'offer_threads',
    'figures',
    'auctions',
    'bids',
    'sales',
    'sale_steps',
    'marketplace_events',
    'comparables',
    'rates',
  ],
  ['price_rises'],
  ['transfer_runs', 'transfers'],
  [
    'idea_sets',
    'availability',
    'uses_seen',
    'coming_free',
    'wanted_names',
    'holder_addresses',
    'registrations',
    'release_orders',
    'release_tries',
    'approaches',
    'approach_lines',
  ],
  ['mails', 'mail_names'],
  ['assumption_sets', 'forecasts'],
  ['letters', 'blocked_senders', 'visits'],
] as const;

const TABLES: readonly string[] = GROUPS.flat();

/** What never leaves the database: codes by which a name can be taken, and what stands in the links of mails. */
const SECRET: Readonly<Record<string, readonly string[]>> = {
  sales: ['auth_code', 'auth_code_sealed'],
  reminders: ['token'],
  transfers: ['code_sealed'],
  letters: ['token_sealed'],
};

/** Octets that no JSON text holds: so rows are copied as they are, neither quoted nor escaped. */
const AS_IT_IS = `(format csv, delimiter e'\\x02', quote e'\\x01')`;

/** How many rows each table has, in the state that `rows` goes through. */
export interface BackupState {
  readonly counts: Readonly<Record<string, number>>;
  /** The rows of one table after the other: each a line of JSON, from the second one on behind a comma. */
  tables(): AsyncGenerator<{ readonly table: string; readonly lines: AsyncIterable<Buffer> }>;
}

/** Reads the whole ledger as of one moment, however long the reader takes. Nothing is held in memory but what is on its way. */
export async function* readLedger(database: Database): AsyncGenerator<BackupState> {
  const client = await database.connect();
  let isSound = false;
  try {
    await client.query('begin isolation level repeatable read read only');
    await client.query(
      "set local statement_timeout = '30min'; set local idle_in_transaction_session_timeout = '30min'",
    );
    const counts = await client.query<Record<string, number>>(
      `select ${TABLES.map((table) => `(select count(*) from ${table}) as ${table}`).join(', ')}`,
    );
    yield {
      counts: counts.rows[0] ?? {},
      async *tables() {
        for (const table of TABLES) {
          const columns = (await columnsOf(client, table)).filter((column) => !SECRET[table]?.includes(column));
          const list = columns.map((column) => `"${column}"`).join(', ');
          const rows = `select case when row_number() over () = 1 then '' else ',' end || row_to_json(t)::text
            from (select ${list} from ${table} order by 1, 2) t`;
          yield { table, lines: client.query(copyTo(`copy (${rows}) to stdout ${AS_IT_IS}`)) };
        }
      },
    };
    await client.query('commit');
    isSound = true;
  } finally {
    // A reader that left in the middle leaves a copy that is still running.
    client.release(!isSound);
  }
}

async function columnsOf(db: Queryable, table: string): Promise<string[]> {
  return (await describedColumns(db, table)).map(({ name }) => name);
}

/** The columns of a table; `holdsNull` where JSON's null is a value of its own, since the column is never without one. */
async function describedColumns(db: Queryable, table: string): Promise<{ name: string; holdsNull: boolean }[]> {
  const { rows } = await db.query<{ name: string; holdsNull: boolean }>(
    `select column_name as name, data_type = 'jsonb' and is_nullable = 'NO' as "holdsNull"
     from information_schema.columns where table_schema = 'public' and table_name = $1 order by ordinal_position`,
    [table],
  );
  return rows;
}

/** True while nothing has been put into the ledger yet. */
export async function isEmptyLedger(db: Queryable): Promise<boolean> {
  const { rows } = await db.query(
    'select 1 from names union all select 1 from accounts union all select 1 from batches limit 1',
  );
  return rows.length === 0;
}

/** The tables that a file lacks, which its version must have had; none when it is whole. */
export function lackingTables(there: ReadonlySet<string>): string[] {
  const last = GROUPS.findLastIndex((group) => group.some((table) => there.has(table)));
  return GROUPS.slice(0, Math.max(1, last + 1))
    .flat()
    .filter((table) => !there.has(table));
}

/** What belongs to the ledger as it was, and means nothing in another. */
const PASSING_TABLES: readonly string[] = ['keyed_requests'];

/** Empties every table, in place of whose rows those of a backup come. */
export async function clearLedger(tx: Transaction): Promise<void> {
  for (const table of [...TABLES, ...PASSING_TABLES].reverse()) await tx.query(`delete from ${table}`);
  // What is put back happened elsewhere, and long ago: nobody is told of it.
  await tx.query("select set_config('name_ledger.quiet', 'on', true)");
  await forgetAllEvents(tx);
  await tx.query('create temp table restored (row jsonb) on commit drop');
}

/** What is not of the names: it stays when the ledger is emptied. */
const KEPT_TABLES: readonly string[] = ['settings', 'policies', 'registry_fees', 'rates'];

/** Empties every table but those of the office's own rules, and with them whatever points there (lists being brought in). */
export async function emptyTables(tx: Transaction): Promise<void> {
  const emptied = [...TABLES, ...PASSING_TABLES].filter((table) => !KEPT_TABLES.includes(table));
  await tx.query(`truncate ${emptied.join(', ')} restart identity cascade`);
  await forgetAllEvents(tx);
}

/**
 * Puts rows of a backup into a table, each as JSON text. The first row says which columns the file knows: an older one knows
 * fewer, and the rest take their usual values. Tables that the ledger does not have are left out.
 */
export async function restoreRows(tx: Transaction, table: string, rows: readonly string[]): Promise<void> {
  const [first] = rows;
  if (first === undefined || !TABLES.includes(table)) return;
  const told = new Set(Object.keys(JSON.parse(first) as object));
  const columns = (await describedColumns(tx, table)).filter(
    ({ name }) => told.has(name) && !SECRET[table]?.includes(name),
  );
  const list = columns.map(({ name }) => `"${name}"`).join(', ');
  // A row as JSON says null for both: no value, and the value null of a setting that is switched off.
  const value = ({ name, holdsNull }: (typeof columns)[number]) =>
    holdsNull ? `coalesce(r."${name}", 'null'::jsonb)` : `r."${name}"`;
  const lines = Readable.from(rows.map((row) => `${row}\n`));
  await pipeline(lines, tx.query(copyFrom(`copy restored from stdin ${AS_IT_IS}`)));
  await tx.query(
    `insert into ${table} (${list}) overriding system value
     select ${columns.map(value).join(', ')}
     from restored cross join lateral jsonb_populate_record(null::${table}, restored.row) r`,
  );
  await tx.query('truncate restored');
}

/** Counts on from the numbers that were restored. Answers how many names there are; `null` without the generic policy. */
export async function settleRestored(tx: Transaction): Promise<number | null> {
  const { rows } = await tx.query<{ name: string }>(
    "select table_name as name from information_schema.columns where table_schema = 'public' and column_name = 'id' and is_identity = 'YES'",
  );
  for (const { name } of rows)
    await tx.query(`select setval(pg_get_serial_sequence($1, 'id'), greatest((select max(id) from ${name}), 1))`, [
      name,
    ]);
  // Older files say which entries belong to a sale, and what a sale ended, in words only.
  await tx.query('select know_sales_by_column()');
  await analyzeLedger(tx);
  const counted = await tx.query<{ names: number; whole: boolean }>(
    "select (select count(*) from names) as names, exists (select from policies where ending = '*') as whole",
  );
  return counted.rows[0]?.whole ? counted.rows[0].names : null;
}
