import type { Instant, TermEnd } from '@/core/time';
import { CHANGEABLE, type NamePatch } from './changes';
import { oneOf } from './oneOf';
import type { Queryable, Transaction } from './pool';

/** A name that is not yet in the ledger. `fields` are columns of `names`. */
export interface NewName {
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly fields: NamePatch;
}

/** What a new name has where nothing is said. */
const UNSAID: Partial<Record<keyof NamePatch, string>> = {
  registered_day: 'false',
  term_end_day: 'false',
  setting: "'unknown'",
  standing: "'believed'",
  purpose: "'hold'",
  never_lost: 'false',
  name_servers: "'{}'",
  tags: "'{}'",
  notes: "''",
  transferred_day: 'false',
  holder_changed_day: 'false',
  holder_lock_waived: 'false',
};

/**
 * Adds the names that `source` yields, a select of `ascii`, `uni`, `ending`, `evidence` and `columns` with parameters from
 * $3 on ($1 is the batch, $2 the time), in one statement. Null is left to what is usual. A name that is there
 * already is left alone. Answers how many were added. Nothing is looked for row by row: writers of the ledger stand in line.
 */
export async function insertNamesFrom(
  tx: Transaction,
  batchId: number,
  at: Instant,
  columns: readonly (keyof NamePatch)[],
  source: string,
  values: readonly unknown[],
): Promise<number> {
  const said = columns.map((column) => (UNSAID[column] ? `coalesce(w.${column}, ${UNSAID[column]})` : `w.${column}`));
  const { rowCount } = await tx.query(
    `insert into names (added_batch, added_at, added_evidence, ascii, "unicode", ending, ${columns.join(', ')})
     select $1, $2::timestamptz, w.evidence, w.ascii, w.uni, w.ending, ${said.join(', ')} from (${source}) w
     where not exists (select from names n where n.ascii = w.ascii)`,
    [batchId, new Date(at), ...values],
  );
  return rowCount ?? 0;
}

/** Adds names held in memory. See `insertNamesFrom`. */
export function insertNames(tx: Transaction, batchId: number, names: readonly NewName[], at: Instant): Promise<number> {
  const source = `select w.ascii, w."unicode" as uni, w.ending, null::text as evidence, ${CHANGEABLE.map((column) => `r.${column}`).join(', ')}
    from jsonb_to_recordset($3::jsonb) as w(ascii text, "unicode" text, ending text, fields jsonb), jsonb_populate_record(null::names, w.fields) r`;
  return insertNamesFrom(tx, batchId, at, CHANGEABLE, source, [JSON.stringify(names)]);
}

/** Ids by A-label, for those that are in the ledger. */
export async function selectNameIds(db: Queryable, ascii: readonly string[]): Promise<Map<string, number>> {
  const { rows } = await db.query<{ id: number; ascii: string }>('select id, ascii from names where ascii = any($1)', [
    ascii,
  ]);
  return new Map(rows.map((row) => [row.ascii, row.id]));
}

/** The id of a name that the ledger has in an account; `null` for one it has elsewhere, or not. */
export async function selectNameAt(db: Queryable, accountId: number, ascii: string): Promise<number | null> {
  const { rows } = await db.query<{ id: number }>('select id from names where account_id = $1 and ascii = $2', [
    accountId,
    ascii,
  ]);
  return rows[0]?.id ?? null;
}

/** The ends of the terms of some names, whose rows stay locked until the transaction ends. */
export async function lockTermEnds(tx: Transaction, ids: readonly number[]): Promise<Map<number, Instant | null>> {
  const { rows } = await tx.query<{ id: number; end: Instant | null }>(
    'select id, term_end as "end" from names where id = any($1) order by id for update',
    [ids],
  );
  return new Map(rows.map((row) => [row.id, row.end]));
}

/** What the ledger shows of a name beyond its row. */
export interface NameExtras {
  readonly nameServers: readonly string[];
  readonly settingEvidence: string | null;
  readonly requestedAt: Instant | null;
  readonly addedAt: Instant;
  readonly goneAt: Instant | null;
  /** What is known of its last transfer and change of holder, and by what. */
  readonly transferredEvidence: string | null;
  readonly holderChangedEvidence: string | null;
}

export async function selectNameExtras(db: Queryable, id: number): Promise<NameExtras | null> {
  const { rows } = await db.query<NameExtras>(
    `select name_servers as "nameServers", setting_evidence as "settingEvidence", requested_at as "requestedAt", added_at as "addedAt",
       gone_at as "goneAt", transferred_evidence as "transferredEvidence", holder_changed_evidence as "holderChangedEvidence" from names where id = $1`,
    [id],
  );
  return rows[0] ?? null;
}

/** Notes when names were transferred last, by what is told elsewhere; an older transfer than the one that is known changes nothing. */
export async function noteTransferred(
  db: Queryable,
  told: readonly { readonly ascii: string; readonly at: Instant }[],
  evidence: string,
): Promise<void> {
  if (told.length === 0) return;
  await db.query(
    `update names n set transferred = to_timestamp(t."at" / 1000.0), transferred_day = false, transferred_evidence = $2
     from jsonb_to_recordset($1::jsonb) as t(ascii text, "at" float8)
     where n.ascii = t.ascii and (n.transferred is null or n.transferred < to_timestamp(t."at" / 1000.0))`,
    [JSON.stringify(told), evidence],
  );
}

/** Every tag in use, most used first. */
export async function selectTags(db: Queryable): Promise<string[]> {
  const { rows } = await db.query<{ tag: string }>(
    'select tag from names, unnest(tags) as tag where gone_at is null group by tag order by count(*) desc, tag',
  );
  return rows.map((row) => row.tag);
}

/** A patch that adds and takes away tags, worked out in the database for each name. */
export async function selectTagPatches(
  db: Queryable,
  nameIds: readonly number[],
  add: readonly string[],
  remove: readonly string[],
): Promise<{ nameId: number; patch: NamePatch }[]> {
  const { rows } = await db.query<{ nameId: number; patch: NamePatch }>(
    `select n.id as "nameId", jsonb_build_object('tags', coalesce((
       select jsonb_agg(distinct tag order by tag) from unnest(n.tags || $2::text[]) as tag where tag <> all($3::text[])), '[]')) as patch
     from names n where n.id = any($1)`,
    [nameIds, add, remove],
  );
  return rows;
}

/** How many names the ledger holds. */
export async function selectNameCount(db: Queryable): Promise<number> {
  const { rows } = await db.query<{ n: number }>('select count(*) as n from names where gone_at is null');
  return rows[0]?.n ?? 0;
}

/** True when the ledger holds any name, gone ones included. */
export async function hasNames(db: Queryable): Promise<boolean> {
  return (await db.query('select 1 from names limit 1')).rows.length > 0;
}

/** The name servers that were last seen for some names. */
export async function selectNameServers(db: Queryable, nameIds: readonly number[]): Promise<Map<number, string[]>> {
  const { rows } = await db.query<{ id: number; hosts: string[] }>(
    'select id, name_servers as hosts from names where id = any($1)',
    [nameIds],
  );
  return new Map(rows.map(({ id, hosts }) => [id, hosts]));
}

/** Locks a name whose term still ends as it was read. False when that has changed since. */
export async function lockNameEnding(tx: Transaction, nameId: number, end: TermEnd | null): Promise<boolean> {
  const { rowCount } = await tx.query(
    'select 1 from names where id = $1 and term_end is not distinct from $2::timestamptz for no key update',
    [nameId, end === null ? null : new Date(end.at)],
  );
  return rowCount === 1;
}

/** The endings of some names that are in the ledger. */
export async function selectEndings(db: Queryable, nameIds: readonly number[]): Promise<Map<number, string>> {
  const { rows } = await db.query<{ id: number; ending: string }>(
    'select id, ending from names where id = any($1) and gone_at is null',
    [nameIds],
  );
  return new Map(rows.map(({ id, ending }) => [id, ending]));
}

/** A name with the account that it is at. */
export interface NameAtAccount {
  readonly id: number;
  readonly ascii: string;
  readonly unicode: string;
  readonly accountId: number;
}

/** Names that are in the ledger, with their accounts. */
export async function selectNamesAt(db: Queryable, nameIds: readonly number[]): Promise<NameAtAccount[]> {
  const { rows } = await db.query<NameAtAccount>(
    'select id, ascii, "unicode", account_id as "accountId" from names where id = any($1) and gone_at is null order by ascii',
    [nameIds],
  );
  return rows;
}

/** Which names of the ledger use name servers that lie under some names: `ns1.kelpkiln.com` under kelpkiln.com. By the name's id. */
export async function selectDependents(db: Queryable, nameIds: readonly number[]): Promise<Map<number, string[]>> {
  if (nameIds.length === 0) return new Map();
  const { rows } = await db.query<{ id: number; users: string[] }>(
    `select n.id, array_agg(distinct u.ascii order by u.ascii) as users from names n
     join (select ascii, substring(lower(host) from position('.' in host) + 1) as parent from names, unnest(name_servers) as host
       where gone_at is null) u on u.parent = n.ascii and u.ascii <> n.ascii
     where n.id = any($1) group by n.id`,
    [nameIds],
  );
  return new Map(rows.map(({ id, users }) => [id, users]));
}

/** Both forms of every name that is in the ledger. */
export async function selectOwnLabels(db: Queryable): Promise<{ readonly ascii: string; readonly unicode: string }[]> {
  return (
    await db.query<{ ascii: string; unicode: string }>('select ascii, "unicode" from names where gone_at is null')
  ).rows;
}

/** How many names one has under each ending. */
export async function countEndings(db: Queryable): Promise<Map<string, number>> {
  const { rows } = await db.query<{ ending: string; count: number }>(
    'select ending, count(*) from names where gone_at is null group by ending',
  );
  return new Map(rows.map(({ ending, count }) => [ending, count]));
}

/** Which of these names are in the ledger and not gone. */
export async function selectHeld(db: Queryable, ascii: readonly string[]): Promise<ReadonlySet<string>> {
  const { rows } = await db.query<{ ascii: string }>(
    'select ascii from names where ascii = any($1) and gone_at is null',
    [ascii],
  );
  return new Set(rows.map((row) => row.ascii));
}

/** A name that is no longer held, and was not sold. */
export interface LostName {
  readonly ascii: string;
  readonly unicode: string;
  readonly goneAt: Instant;
}

/** Names that were lost, the last first. */
export async function selectLostNames(db: Queryable, limit: number): Promise<LostName[]> {
  const { rows } = await db.query<LostName>(
    `select ascii, "unicode", gone_at as "goneAt" from names n where gone_at is not null
       and not exists (select from sales s where s.name_id = n.id and s.stage ${oneOf(['done'])})
     order by gone_at desc limit $1`,
    [limit],
  );
  return rows;
}

/** The registrar at which each of some names is. */
export async function selectRegistrars(db: Queryable, nameIds: readonly number[]): Promise<Map<number, string>> {
  const { rows } = await db.query<{ id: number; registrar: string }>(
    'select n.id, a.registrar from names n join accounts a on a.id = n.account_id where n.id = any($1)',
    [nameIds],
  );
  return new Map(rows.map(({ id, registrar }) => [id, registrar]));
}
