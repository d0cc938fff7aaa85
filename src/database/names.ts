import type { Instant } from '@/core/time';
import type { NamePatch } from './changes';
import type { Queryable, Transaction } from './pool';

/** A name that is not yet in the ledger. `fields` are columns of `names`. */
export interface NewName {
  readonly ascii: string;
  readonly unicode: string;
  readonly ending: string;
  readonly fields: NamePatch;
}

/**
 * Adds the names that `source` yields, a select of `ascii`, `uni`, `ending`, `fields` and `evidence` with parameters from $3
 * on, in one statement, with a line of history each. A name that is there already is left alone. Answers how many were added.
 */
export async function insertNamesFrom(
  tx: Transaction,
  batchId: number,
  at: Instant,
  source: string,
  values: readonly unknown[],
): Promise<number> {
  const { rowCount } = await tx.query(
    `with wanted as (${source}), added as (
       insert into names (ascii, "unicode", ending, account_id, registered, registered_day, term_end, term_end_day, setting, standing,
         setting_since, setting_evidence, purpose, never_lost, lock, privacy, name_servers, tags, notes, asking_minor, asking_currency,
         observed, observed_at, checked_at, asked, asked_at, added_at)
       select w.ascii, w.uni, w.ending, r.account_id, r.registered, coalesce(r.registered_day, false), r.term_end,
         coalesce(r.term_end_day, false), coalesce(r.setting, 'unknown'), coalesce(r.standing, 'believed'), r.setting_since,
         r.setting_evidence, coalesce(r.purpose, 'hold'), coalesce(r.never_lost, false), r.lock, r.privacy,
         coalesce(r.name_servers, '{}'), coalesce(r.tags, '{}'), coalesce(r.notes, ''), r.asking_minor, r.asking_currency,
         r.observed, r.observed_at, r.checked_at, r.asked, r.asked_at, $2
       from wanted w, jsonb_populate_record(null::names, w.fields) r
       on conflict (ascii) do nothing
       returning id, ascii
     )
     insert into changes (batch_id, name_id, after, evidence) select $1, added.id, w.fields, w.evidence from added join wanted w using (ascii)`,
    [batchId, new Date(at), ...values],
  );
  return rowCount ?? 0;
}

/** Adds names held in memory. See `insertNamesFrom`. */
export function insertNames(tx: Transaction, batchId: number, names: readonly NewName[], at: Instant): Promise<number> {
  const source = `select ascii, "unicode" as uni, ending, fields, null::text as evidence
    from jsonb_to_recordset($3::jsonb) as w(ascii text, "unicode" text, ending text, fields jsonb)`;
  return insertNamesFrom(tx, batchId, at, source, [JSON.stringify(names)]);
}

/** Ids by A-label, for those that are in the ledger. */
export async function selectNameIds(db: Queryable, ascii: readonly string[]): Promise<Map<string, number>> {
  const { rows } = await db.query<{ id: number; ascii: string }>('select id, ascii from names where ascii = any($1)', [
    ascii,
  ]);
  return new Map(rows.map((row) => [row.ascii, row.id]));
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
  readonly askedAt: Instant | null;
  readonly addedAt: Instant;
  readonly goneAt: Instant | null;
}

export async function selectNameExtras(db: Queryable, id: number): Promise<NameExtras | null> {
  const { rows } = await db.query<NameExtras>(
    `select name_servers as "nameServers", setting_evidence as "settingEvidence", asked_at as "askedAt", added_at as "addedAt",
       gone_at as "goneAt" from names where id = $1`,
    [id],
  );
  return rows[0] ?? null;
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

/** True when the ledger holds any name, gone ones included. */
export async function hasNames(db: Queryable): Promise<boolean> {
  return (await db.query('select 1 from names limit 1')).rows.length > 0;
}
