import type { Instant } from '@/core/time';
import type { Queryable, Transaction } from './pool';

/** The columns of a name that an act may change; everything else about it is fixed or derived. */
export const CHANGEABLE = [
  'account_id',
  'registered',
  'registered_day',
  'term_end',
  'term_end_day',
  'setting',
  'standing',
  'setting_since',
  'setting_evidence',
  'requested',
  'requested_at',
  'requested_lock',
  'requested_privacy',
  'observed',
  'observed_at',
  'purpose',
  'never_lost',
  'lock',
  'privacy',
  'name_servers',
  'tags',
  'notes',
  'asking_minor',
  'asking_currency',
  'checked_at',
  'confirm_mail_by',
  'rescue_verdict',
  'rescue_for',
  'sale_chance',
  'best_offer_minor',
  'best_offer_currency',
  'switch_pending_since',
  'holder',
  'transferred',
  'transferred_day',
  'transferred_evidence',
  'holder_changed',
  'holder_changed_day',
  'holder_changed_evidence',
  'holder_lock_waived',
  'grace_paid',
  'gone_at',
] as const;
export type NamePatch = Partial<Record<(typeof CHANGEABLE)[number], unknown>>;

/** What one act does to one name. */
export interface PatchedName {
  readonly nameId: number;
  readonly patch: NamePatch;
  readonly evidence?: string | null;
}

/** Who made a change: a person of the office, or the program by itself. */
export type MadeBy = 'office' | 'program';

/** One act, in the words of the history. */
export interface BatchDraft {
  readonly at: Instant;
  readonly by: MadeBy;
  readonly kind: string;
  readonly summary: string;
  readonly undoes: number | null;
}

/** Opens a batch. */
export async function insertBatch(tx: Transaction, { at, by, kind, summary, undoes }: BatchDraft): Promise<number> {
  const { rows } = await tx.query<{ id: number }>(
    'insert into batches (at, made_by, kind, summary, undoes) values ($1, $2, $3, $4, $5) returning id',
    [new Date(at), by, kind, summary, undoes],
  );
  return rows[0]?.id as number;
}

const ASSIGNED = CHANGEABLE.join(', ');
const FROM_NEXT = CHANGEABLE.map((column) => `r.${column}`).join(', ');

/**
 * Carries out the patches that `source` yields, a select of `name_id`, `patch` and `evidence` with parameters from $2 on,
 * and keeps what was before and after, in one statement. Only what differs is written; a patch that changes nothing leaves
 * no trace. Answers how many names changed.
 */
export async function patchNamesFrom(
  tx: Transaction,
  batchId: number,
  source: string,
  values: readonly unknown[],
): Promise<number> {
  const { rowCount } = await tx.query(
    `with patches as (${source}), differing as (
       select n.id, p.evidence, jsonb_populate_record(n, p.patch) as next, d.before, d.after
       from names n join patches p on p.name_id = n.id,
       lateral (select to_jsonb(n) as old, to_jsonb(jsonb_populate_record(n, p.patch)) as new offset 0) v,
       lateral (
         select jsonb_object_agg(key, v.old -> key) as before, jsonb_object_agg(key, v.new -> key) as after
         from jsonb_object_keys(p.patch) as key where v.old -> key is distinct from v.new -> key) d
       where d.before is not null
     ), written as (
       update names n set (${ASSIGNED}) = (select ${FROM_NEXT} from (select (differing.next).*) r)
       from differing where n.id = differing.id
     )
     insert into changes (batch_id, name_id, before, after, evidence) select $1, id, before, after, evidence from differing`,
    [batchId, ...values],
  );
  return rowCount ?? 0;
}

/** Carries out patches held in memory. See `patchNamesFrom`. */
export function patchNames(tx: Transaction, batchId: number, patches: readonly PatchedName[]): Promise<number> {
  const source =
    'select "nameId" as name_id, patch, evidence from jsonb_to_recordset($2::jsonb) as p("nameId" int, patch jsonb, evidence text)';
  return patchNamesFrom(tx, batchId, source, [JSON.stringify(patches)]);
}

/** A batch with what can be said about it before undoing it. */
export interface BatchRow {
  readonly id: number;
  readonly at: Instant;
  readonly kind: string;
  readonly summary: string;
  readonly undoneBy: number | null;
}

export async function selectBatch(db: Queryable, id: number): Promise<BatchRow | null> {
  const { rows } = await db.query<BatchRow>(
    'select id, at, kind, summary, undone_by as "undoneBy" from batches where id = $1 for update',
    [id],
  );
  return rows[0] ?? null;
}

/** What was done in one go, and of how many names. */
export interface HistoryLine extends BatchRow {
  readonly by: MadeBy;
  /** Who of the office it was, by the name he had then; `null` where nobody had signed in. */
  readonly person: string | null;
  readonly names: number;
  readonly undoes: number | null;
}

/** The newest batches before a number. */
export async function selectBatches(db: Queryable, before: number, limit: number): Promise<HistoryLine[]> {
  const { rows } = await db.query<HistoryLine>(
    `with page as (select * from batches where id < $1 order by id desc limit $2),
       changed as (select batch_id, count(*)::int as names from changes where batch_id in (select id from page) group by 1),
       added as (select added_batch as batch_id, count(*)::int as names from names where added_batch in (select id from page) group by 1)
     select p.id, p.at, p.made_by as by, p.person, p.kind, p.summary, p.undoes, p.undone_by as "undoneBy",
       coalesce(c.names, 0) + coalesce(a.names, 0) as names
     from page p left join changed c on c.batch_id = p.id left join added a on a.batch_id = p.id order by p.id desc`,
    [before, limit],
  );
  return rows;
}

/** The last batch that a person made and nobody has taken back; `null` without one. */
export async function selectLastAct(db: Queryable): Promise<number | null> {
  const { rows } = await db.query<{ id: number }>(
    "select id from batches where made_by = 'office' and undone_by is null and undoes is null order by id desc limit 1",
  );
  return rows[0]?.id ?? null;
}

/** Names of a batch that something else has changed since, so that undoing it would lose that. */
export async function selectChangedSince(tx: Transaction, batchId: number): Promise<string[]> {
  const { rows } = await tx.query<{ ascii: string }>(
    `select n.ascii from changes c join names n on n.id = c.name_id
     where c.batch_id = $1 and exists (
       select from jsonb_each(c.after) as a(key, value) where (to_jsonb(n) -> a.key) is distinct from a.value)
     order by n.ascii`,
    [batchId],
  );
  return rows.map((row) => row.ascii);
}

/**
 * Puts every name of a batch back to what it was before, as a batch of its own. A name that the batch added leaves the
 * working views and stays in the books.
 */
export async function revertBatch(tx: Transaction, batchId: number, undoId: number, at: Instant): Promise<number> {
  const source = `select name_id, before as patch, null::text as evidence from changes where batch_id = $2
    union all select id, jsonb_build_object('gone_at', $3::timestamptz), null from names where added_batch = $2 and gone_at is null`;
  const changed = await patchNamesFrom(tx, undoId, source, [batchId, new Date(at)]);
  await tx.query('update batches set undone_by = $2 where id = $1', [batchId, undoId]);
  return changed;
}

/** One line of a name's history. */
export interface HistoryRow {
  readonly at: Instant;
  readonly by: MadeBy;
  readonly person: string | null;
  readonly kind: string;
  readonly summary: string;
  readonly before: Readonly<Record<string, unknown>> | null;
  readonly after: Readonly<Record<string, unknown>>;
  readonly evidence: string | null;
  readonly batchId: number;
  readonly undone: boolean;
}

/** Everything that happened to a name, newest first; the first line is how it came in, with what it was then. */
export async function selectHistory(db: Queryable, nameId: number): Promise<HistoryRow[]> {
  const { rows } = await db.query<HistoryRow>(
    `with first_known as (
       select distinct on (key) key, value from changes c, jsonb_each(c.before) where c.name_id = $1 order by key, c.id
     ), lines as (
       select c.id, c.batch_id, c.before, c.after, c.evidence from changes c where c.name_id = $1
       union all
       select 0, n.added_batch, null, jsonb_strip_nulls(to_jsonb(n) || coalesce((select jsonb_object_agg(key, value) from first_known), '{}')), n.added_evidence
       from names n where n.id = $1
     )
     select b.at, b.made_by as by, b.person, b.kind, b.summary, l.before, l.after, l.evidence, b.id as "batchId", b.undone_by is not null as undone
     from lines l join batches b on b.id = l.batch_id order by b.at desc, l.id desc`,
    [nameId],
  );
  return rows;
}
