import { type ColumnsOf, type ColumnType, copyIn, type PackedRows, packRows } from './copyIn';
import { LISTED, NO_ACCOUNT, namedAccounts, type RowOutcome } from './importRows';
import { word } from './oneOf';
import { allowMemory, type Queryable, type Transaction } from './pool';

const outcome = word<RowOutcome>;

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

/**
 * Rows of a list as they were read, column by column: what none of them says is left out. Whether a name that can be taken is new is
 * found by comparing: until then it is.
 */
export type StagedColumns = ColumnsOf<typeof COLUMNS>;

/** Packs rows of a list, as they are handed to `stageRows`. */
export const packStaged = (columns: StagedColumns, rows: number): PackedRows<Said> => packRows(COLUMNS, columns, rows);

/** Takes away what an earlier reading of an import put beside the ledger. */
export async function clearRows(db: Queryable, importId: string): Promise<void> {
  await db.query('delete from import_rows where import_id = $1', [importId]);
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

const OTHER_ACCOUNT = 'case when r.account is null then $1 <> n.account_id else a.id is distinct from n.account_id end';
const OTHER_PRICE =
  'r.paid_minor is not null and (r.paid_minor is distinct from b.minor or r.paid_currency is distinct from b.currency)';
const PAID = `select sum(minor) as minor, min(currency) as currency from entries
  where kind = 'bought' and name_id = n.id and r.paid_minor is not null`;

/**
 * Rows on their way, each compared with what the ledger knows of its name: only by what they say, the columns of `said`. A name that two lists
 * put at two registrars is a question, not a change: it is left as it is unless somebody says that it moved.
 */
function compared(said: readonly Said[]): string {
  const listed = LISTED.filter((column) => said.includes(column));
  // What was paid is added up name by name.
  const isPaid = said.includes('paid_minor');
  const isSame = [...listed.map(differs), OTHER_ACCOUNT, ...(isPaid ? [OTHER_PRICE] : [])].map(
    (test) => `coalesce(${test}, false)`,
  );
  return `
  select ${said.map((column) => `r."${column}"`).join(', ')},
    case when n.id is null then r.outcome when c.after = '{}' then ${outcome('unchanged')}
      when d.is_elsewhere then ${outcome('conflict')} else ${outcome('changed')} end,
    not coalesce(d.is_elsewhere, false),
    -- What the ledger says in its place.
    case when c.after <> '{}' then (
      select jsonb_object_agg(key, case key when 'account' then to_jsonb(h.label)
        ${isPaid ? "when 'paid' then case when b.minor is not null then jsonb_build_object('minor', b.minor, 'currency', b.currency) end" : ''}
        else to_jsonb(n) -> key end) from jsonb_object_keys(c.after) as key) end,
    c.after
  from brought r
    left join names n on n.ascii = r.ascii
    left join accounts h on h.id = n.account_id
    left join ${namedAccounts('brought')} a on a.said = r.account
    ${isPaid ? `left join lateral (${PAID}) b on true` : ''}
    -- Worked out once for all that asks for it.
    left join lateral (
      select case when n.id is null then null when n.gone_at is null and not (${isSame.join(' or ')}) then '{}'
        else jsonb_strip_nulls(jsonb_build_object(
          ${listed.map((column) => `'${column}', case when ${differs(column)} then r.${column} end,`).join(' ')}
          'account_id', case when ${OTHER_ACCOUNT} then coalesce(a.id, case when r.account is null then $1 end) end,
          ${isPaid ? `'paid', case when ${OTHER_PRICE} then jsonb_build_object('minor', r.paid_minor, 'currency', r.paid_currency) end,` : ''}
          'account', case when r.account is not null and a.id is null then r.account end))
          || case when n.gone_at is null then '{}' else '{"gone_at": null}'::jsonb end end as after
      offset 0) c on true
    left join lateral (
      select n.gone_at is null and h.label <> $2 and (c.after ? 'account_id' or c.after ? 'account') as is_elsewhere) d on true`;
}

type Said = keyof typeof COLUMNS;

/**
 * Puts read rows beside the ledger, compared with it: each is new, changed, unchanged or a conflict, with what was before and would be after.
 * `accountId` stands in for rows that name no account.
 */
export async function stageRows(tx: Transaction, packed: PackedRows<Said>, accountId: number | null): Promise<void> {
  await tx.query('create temporary table brought (like import_rows including defaults) on commit drop');
  await copyIn(tx, 'brought', packed);
  const kept = packed.said.filter((column) => column !== 'outcome');
  await tx.query(
    `insert into import_rows (${kept.map((column) => `"${column}"`).join(', ')}, outcome, taken, before, after) ${compared(kept)}`,
    [accountId, NO_ACCOUNT],
  );
}

/** Adds what an account holds and its full list lacks, not taken unless chosen. */
export async function stageMissing(tx: Transaction, importId: string, accountId: number): Promise<void> {
  await allowMemory(tx);
  await tx.query(
    `insert into import_rows (import_id, line, ascii, "unicode", outcome, message, taken)
     select $1, 0, n.ascii, n."unicode", ${outcome('missing')}, 'Not in this list any more.', false from names n
     where n.account_id = $2 and n.gone_at is null and not exists (select from import_rows r where r.import_id = $1 and r.ascii = n.ascii and r.outcome <> ${outcome('refused')})`,
    [importId, accountId],
  );
}

/** What is planned about staged rows next must know how many there are. */
export async function analyzeStaged(tx: Transaction): Promise<void> {
  await tx.query('analyze import_rows (import_id, outcome, ascii, taken, renewal_minor, renewal_currency)');
}
