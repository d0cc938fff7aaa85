import type { Instant } from '@/core/time';
import { word } from './oneOf';
import type { Queryable, Transaction } from './pool';

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

/** Where names land whose list says no account. */
export const NO_ACCOUNT = 'No account yet';

/** The accounts there are of those that a list names, by how it writes them: each is looked up once. `rows`: where the list stands. */
export const namedAccounts = (rows: string) => `(
  select s.account as said, a.id from (select distinct account from ${rows}) s join accounts a on lower(a.label) = lower(s.account))`;

/** How many rows came out how, and how many of them will be written. */
export type OutcomeCounts = Readonly<Record<RowOutcome, { readonly rows: number; readonly taken: number }>>;

/** What is to be written of an import. */
export interface StagedSurvey {
  readonly counts: OutcomeCounts;
  /** The accounts that rows name, each as it is written there, in the order of the list. */
  readonly accounts: readonly string[];
  /** A new name that is taken comes without an account. */
  readonly isAccountNeeded: boolean;
  /** A row that is taken names no account. */
  readonly lacksAccount: boolean;
  /** A row that is taken says what was paid. */
  readonly isPaid: boolean;
  /** Something is said of a row that can be taken: see `selectNotes`. */
  readonly isNoted: boolean;
}

/** Looks through the rows of an import once, which may be many. */
export async function surveyRows(db: Queryable, importId: string): Promise<StagedSurvey> {
  const { rows } = await db.query<StagedSurvey & { counts: OutcomeCounts | null }>(
    `with alike as materialized (
       select outcome, account, count(*) as rows, count(*) filter (where taken) as taken, count(*) filter (where taken and paid_minor is not null) as paid,
         count(message) filter (where outcome not in (${outcome('refused')}, ${outcome('missing')})) as noted, min(line) as line
       from import_rows where import_id = $1 group by outcome, account)
     select (select jsonb_object_agg(outcome, jsonb_build_object('rows', rows, 'taken', taken))
         from (select outcome, sum(rows) as rows, sum(taken) as taken from alike group by outcome) o) as counts,
       array(select account from alike where account is not null and outcome <> ${outcome('refused')} group by account order by min(line)) as accounts,
       exists (select from alike where outcome = ${outcome('new')} and taken > 0 and account is null) as "isAccountNeeded",
       exists (select from alike where taken > 0 and account is null) as "lacksAccount", exists (select from alike where paid > 0) as "isPaid",
       exists (select from alike where noted > 0) as "isNoted"`,
    [importId],
  );
  const survey = rows[0] as (typeof rows)[number];
  return { ...survey, counts: { ...NONE, ...survey.counts } };
}

const NO_ROWS = { rows: 0, taken: 0 };
const NONE: OutcomeCounts = {
  new: NO_ROWS,
  changed: NO_ROWS,
  unchanged: NO_ROWS,
  conflict: NO_ROWS,
  refused: NO_ROWS,
  missing: NO_ROWS,
};

/** How many rows came out how. */
export async function countOutcomes(db: Queryable, importId: string): Promise<OutcomeCounts> {
  return (await surveyRows(db, importId)).counts;
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
