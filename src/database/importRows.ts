import type { Instant } from '@/core/time';
import { type ColumnType, copyIn, type RowOf } from './copyIn';
import { word } from './oneOf';
import { allowMemory, type Queryable, type Transaction } from './pool';

/** `conflict`: the ledger has the name in another account, so it is asked whether it has moved. */
export type RowOutcome = 'new' | 'changed' | 'conflict' | 'unchanged' | 'refused' | 'missing';

const outcome = word<RowOutcome>;

/** The columns of `names` that a list can speak of. */
export const LISTED = [
  'registered',
  'registered_day',
  'term_end',
  'term_end_day',
  'setting',
  'lock',
  'privacy',
  'name_servers',
  'tags',
  'purpose',
  'never_lost',
  'notes',
  'asking_minor',
  'asking_currency',
] as const;

const COLUMNS = {
  import_id: 'uuid',
  line: 'int4',
  input: 'text',
  ascii: 'text',
  outcome: 'text',
  code: 'text',
  message: 'text',
  unicode: 'text',
  ending: 'text',
  account: 'text',
  registered: 'timestamptz',
  registered_day: 'bool',
  term_end: 'timestamptz',
  term_end_day: 'bool',
  setting: 'text',
  lock: 'bool',
  privacy: 'bool',
  name_servers: 'text[]',
  tags: 'text[]',
  purpose: 'text',
  never_lost: 'bool',
  notes: 'text',
  asking_minor: 'int8',
  asking_currency: 'text',
  paid_minor: 'int8',
  paid_currency: 'text',
  paid_on: 'date',
  renewal_minor: 'int8',
  renewal_currency: 'text',
} as const satisfies Readonly<Record<(typeof LISTED)[number], ColumnType>> & Readonly<Record<string, ColumnType>>;

/** One row of a list as it was read: what it does not say is left out. A row that can be taken is new until it is compared. */
export type StagedRow = RowOf<typeof COLUMNS> & {
  readonly import_id: string;
  readonly line: number;
  readonly outcome: 'new' | 'refused';
};

/** Where names land whose list says no account. */
export const NO_ACCOUNT = 'No account yet';

/** Takes away what an earlier reading of an import put beside the ledger. */
export async function clearRows(db: Queryable, importId: string): Promise<void> {
  await db.query('delete from import_rows where import_id = $1', [importId]);
}

/** Puts read rows beside the ledger. */
export function stageRows(tx: Transaction, rows: readonly StagedRow[]): Promise<void> {
  return copyIn(tx, 'import_rows', COLUMNS, rows);
}

/** True where a list gives only the date of an instant that is known already. */
const repeats = (at: string) => `coalesce(r.${at}_day and not n.${at}_day
  and n.${at} >= r.${at} - interval '14 hours' and n.${at} < r.${at} + interval '36 hours', false)`;

/** Whether a list says something of a column that differs from what is known. */
function differs(column: (typeof LISTED)[number]): string {
  const told = `r.${column} is not null and r.${column} is distinct from n.${column}`;
  const date = column.replace(/_day$/, '');
  return date === 'registered' || date === 'term_end' ? `${told} and not ${repeats(date)}` : told;
}

/** The accounts there are of those that a list names, by how it writes them: each is looked up once. `importId`: the list, as a parameter. */
export const namedAccounts = (importId: string) => `(
  select s.account as said, a.id from (select distinct account from import_rows where import_id = ${importId}) s
  join accounts a on lower(a.label) = lower(s.account))`;

/** Rows that name what is in the ledger, with what else they are compared with. */
const COMPARED = `from import_rows r join names n on n.ascii = r.ascii join accounts h on h.id = n.account_id
  left join ${namedAccounts('$1')} a on a.said = r.account
  left join (select name_id, sum(minor) as minor, min(currency) as currency from entries where kind = 'bought' group by name_id) b on b.name_id = n.id
  where r.import_id = $1 and r.outcome = ${outcome('new')}`;
const OTHER_ACCOUNT = 'case when r.account is null then $2 <> n.account_id else a.id is distinct from n.account_id end';
const OTHER_PRICE =
  'r.paid_minor is not null and (r.paid_minor is distinct from b.minor or r.paid_currency is distinct from b.currency)';

/**
 * Compares staged rows with the ledger: each stays new, or becomes changed or unchanged, with what was before and would
 * be after. `accountId` stands in for rows that name no account. With `fullList`, what the account holds and the list
 * lacks is added as missing, not taken unless chosen.
 */
export async function compareRows(
  tx: Transaction,
  importId: string,
  accountId: number | null,
  fullList: boolean,
): Promise<void> {
  await allowMemory(tx);
  // What is planned next must know how many rows there are.
  await tx.query('analyze import_rows (import_id, outcome, ascii, taken)');
  // Found again by where they lie: that is quicker than joining a list with itself.
  await tx.query(
    `update import_rows set outcome = ${outcome('unchanged')}, after = '{}' where import_id = $1 and outcome = ${outcome('new')} and ctid = any(array(
       select r.ctid ${COMPARED} and n.gone_at is null and not (${[...LISTED.map(differs), OTHER_ACCOUNT, OTHER_PRICE].map((test) => `coalesce(${test}, false)`).join(' or ')})))`,
    [importId, accountId],
  );
  const { rowCount: changed } = await tx.query(
    `with compared as (
       select r.ascii, n.id as name_id, b.minor, b.currency, h.label, jsonb_strip_nulls(jsonb_build_object(
           ${LISTED.map((column) => `'${column}', case when ${differs(column)} then r.${column} end`).join(', ')},
           'account_id', case when ${OTHER_ACCOUNT} then coalesce(a.id, case when r.account is null then $2 end) end,
           'account', case when r.account is not null and a.id is null then r.account end,
           'paid', case when ${OTHER_PRICE} then jsonb_build_object('minor', r.paid_minor, 'currency', r.paid_currency) end))
         || case when n.gone_at is null then '{}' else '{"gone_at": null}'::jsonb end as after
       ${COMPARED}
     ), shown as (
       select c.ascii, c.after, (
         select jsonb_object_agg(key, case key when 'account' then to_jsonb(c.label)
           when 'paid' then case when c.minor is not null then jsonb_build_object('minor', c.minor, 'currency', c.currency) end
           else to_jsonb(n) -> key end)
         from names n, jsonb_object_keys(c.after) as key where n.id = c.name_id) as before
       from compared c
     )
     update import_rows r set outcome = ${outcome('changed')}, before = s.before, after = s.after
     from shown s where r.import_id = $1 and r.outcome = ${outcome('new')} and r.ascii = s.ascii`,
    [importId, accountId],
  );
  // A name that two lists put at two registrars is a question, not a change: it is left as it is unless somebody says that it moved.
  if (changed)
    await tx.query(
      `update import_rows r set outcome = ${outcome('conflict')}, taken = false from names n join accounts h on h.id = n.account_id
     where r.import_id = $1 and r.outcome = ${outcome('changed')} and n.ascii = r.ascii and n.gone_at is null and h.label <> $2
       and (r.after ? 'account_id' or r.after ? 'account')`,
      [importId, NO_ACCOUNT],
    );
  if (fullList && accountId !== null) {
    await tx.query(
      `insert into import_rows (import_id, line, ascii, "unicode", outcome, message, taken)
       select $1, 0, n.ascii, n."unicode", 'missing', 'Not in this list any more.', false from names n
       where n.account_id = $2 and n.gone_at is null and not exists (select from import_rows r where r.import_id = $1 and r.ascii = n.ascii and r.outcome <> ${outcome('refused')})`,
      [importId, accountId],
    );
  }
}

/** The accounts that staged rows name, as they were written first. */
export async function selectStagedAccounts(tx: Queryable, importId: string): Promise<string[]> {
  const { rows } = await tx.query<{ label: string }>(
    `select distinct on (lower(account)) account as label from (
       select account, min(line) as line from import_rows
       where import_id = $1 and account is not null and outcome <> ${outcome('refused')} group by account) a
     order by lower(account), line`,
    [importId],
  );
  return rows.map((row) => row.label);
}

/** True while what was read of an import is there: a crash of the database leaves none of it. */
export async function hasStagedRows(db: Queryable, importId: string): Promise<boolean> {
  return (await db.query('select from import_rows where import_id = $1 limit 1', [importId])).rowCount === 1;
}

/** True when a new name of the list comes without an account. */
export async function hasNewRowsWithoutAccount(tx: Queryable, importId: string): Promise<boolean> {
  const { rows } = await tx.query(
    `select 1 from import_rows where import_id = $1 and outcome = ${outcome('new')} and taken and account is null limit 1`,
    [importId],
  );
  return rows.length > 0;
}

/** How many rows came out how, and how many of them will be written. */
export type OutcomeCounts = Readonly<Record<RowOutcome, { readonly rows: number; readonly taken: number }>>;

export async function countOutcomes(db: Queryable, importId: string): Promise<OutcomeCounts> {
  const { rows } = await db.query<{ outcome: RowOutcome; rows: number; taken: number }>(
    'select outcome, count(*) as rows, count(*) filter (where taken) as taken from import_rows where import_id = $1 group by outcome',
    [importId],
  );
  const none = { rows: 0, taken: 0 };
  return {
    new: none,
    changed: none,
    unchanged: none,
    conflict: none,
    refused: none,
    missing: none,
    ...Object.fromEntries(rows.map((row) => [row.outcome, row])),
  };
}

/** How many rows of an import were refused for which reason, the most frequent first. */
export async function countRefusals(db: Queryable, importId: string): Promise<Record<string, number>> {
  const { rows } = await db.query<{ code: string; rows: number }>(
    `select coalesce(code, '') as code, count(*) as rows from import_rows where import_id = $1 and outcome = ${outcome('refused')} group by 1 order by 2 desc, 1`,
    [importId],
  );
  return Object.fromEntries(rows.map((row) => [row.code, row.rows]));
}

/** What is said of rows that can be taken: cells that were left out, letters that look alike. */
export async function selectNotes(
  db: Queryable,
  importId: string,
  limit: number,
): Promise<{ line: number; name: string; message: string }[]> {
  const { rows } = await db.query<{ line: number; name: string; message: string }>(
    `select line, ascii as name, message from import_rows
     where import_id = $1 and outcome not in (${outcome('refused')}, ${outcome('missing')}) and message is not null order by line limit $2`,
    [importId, limit],
  );
  return rows;
}

/** A compared row as the preview shows it. */
export interface PreviewRow {
  readonly line: number;
  /** The cells as JSON, for a refused row. */
  readonly input: string | null;
  readonly ascii: string | null;
  readonly unicode: string | null;
  readonly outcome: RowOutcome;
  readonly code: string | null;
  readonly message: string | null;
  /** What is known now, for a changed row. */
  readonly before: Readonly<Record<string, unknown>> | null;
  /** What the row says, in columns of `names`, and `account` and `paid`; of a changed row only what differs. */
  readonly after: Readonly<Record<string, unknown>>;
  readonly taken: boolean;
}

export async function selectPreviewRows(
  db: Queryable,
  importId: string,
  outcome: RowOutcome,
  limit: number | null,
  offset: number,
): Promise<PreviewRow[]> {
  const { rows } = await db.query<PreviewRow>(
    `select line, input, ascii, "unicode", outcome, code, message, before, taken, coalesce(after, jsonb_strip_nulls(jsonb_build_object(
         ${LISTED.map((column) => `'${column}', ${column}`).join(', ')}, 'account', account,
         'paid', case when paid_minor is not null then jsonb_build_object('minor', paid_minor, 'currency', paid_currency) end))) as after
     from import_rows where import_id = $1 and outcome = $2 order by line, ascii limit $3 offset $4`,
    [importId, outcome, limit, offset],
  );
  return rows;
}

/** A staged row of a name, with what a doubled name is compared by. */
export async function selectStaged(
  db: Queryable,
  importId: string,
  ascii: string,
): Promise<{ readonly line: number; readonly termEnd: Instant | null } | null> {
  const { rows } = await db.query<{ line: number; termEnd: Instant | null }>(
    `select line, term_end as "termEnd" from import_rows where import_id = $1 and ascii = $2 and outcome <> ${outcome('refused')}`,
    [importId, ascii],
  );
  return rows[0] ?? null;
}

/** Takes one refused row away, to be put in anew, and the one of the same name that it stands instead of. */
export async function takeOutRows(
  tx: Transaction,
  importId: string,
  line: number,
  insteadOf: string | null,
): Promise<void> {
  await tx.query(
    `delete from import_rows where import_id = $1 and ((line = $2 and outcome = ${outcome('refused')}) or (ascii = $3 and outcome <> ${outcome('refused')}))`,
    [importId, line, insteadOf],
  );
}

/** Chooses which rows of one outcome will be written; all of them when `names` is `null`. */
export async function takeRows(
  db: Queryable,
  importId: string,
  outcome: RowOutcome,
  names: readonly string[] | null,
  taken: boolean,
): Promise<void> {
  await db.query(
    'update import_rows set taken = $4 where import_id = $1 and outcome = $2 and ($3::text[] is null or ascii = any($3))',
    [importId, outcome, names, taken],
  );
}
