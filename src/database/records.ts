import type { SeenOfName } from '@/core/moving';
import type { RecordSource, RegistrationRecord } from '@/core/records';
import type { Instant } from '@/core/time';
import { noteTransferred } from './names';
import type { Queryable, Transaction } from './pool';

/** A record as it was seen, from its first to its last sight. */
export interface StoredRecord {
  readonly id: number;
  readonly ascii: string;
  readonly source: RecordSource;
  readonly firstAt: Instant;
  readonly lastAt: Instant;
  readonly etag: string | null;
  readonly record: RegistrationRecord;
}

export interface RecordDraft {
  readonly ascii: string;
  readonly source: RecordSource;
  readonly hash: string;
  readonly etag: string | null;
  readonly record: RegistrationRecord;
  readonly raw: string;
}

const COLUMNS = `id, ascii, source, first_at as "firstAt", last_at as "lastAt", etag, record`;

/** Stores what was seen: a record like the newest one only moves its last sight. */
export async function storeRecords(db: Queryable, drafts: readonly RecordDraft[], at: Instant): Promise<void> {
  await db.query(
    `with seen as (
       select * from jsonb_to_recordset($1::jsonb) as d(ascii text, source text, hash text, etag text, record jsonb, raw text)
     ), newest as (
       select distinct on (r.ascii, r.source) r.id, r.ascii, r.source, r.hash
       from records r join seen s on s.ascii = r.ascii and s.source = r.source order by r.ascii, r.source, r.last_at desc, r.id desc
     ), again as (
       update records r set last_at = $2, etag = coalesce(s.etag, r.etag) from newest n join seen s on s.ascii = n.ascii and s.source = n.source
       where r.id = n.id and n.hash = s.hash
     )
     insert into records (ascii, source, protocol, first_at, last_at, hash, etag, record, raw)
     select s.ascii, s.source, s.record->>'protocol', $2, $2, s.hash, s.etag, s.record, s.raw from seen s
     left join newest n on n.ascii = s.ascii and n.source = s.source where n.hash is distinct from s.hash`,
    [JSON.stringify(drafts), new Date(at)],
  );
}

/** Notes that records are still as they were, by the server's own word. */
export async function touchRecords(db: Queryable, ids: readonly number[], at: Instant): Promise<void> {
  await db.query('update records set last_at = $2 where id = any($1)', [ids, new Date(at)]);
}

/** The newest record of each source, for some names or all that have any. */
export async function selectNewestRecords(db: Queryable, ascii: readonly string[] | null): Promise<StoredRecord[]> {
  const { rows } = await db.query<StoredRecord>(
    `select distinct on (ascii, source) ${COLUMNS} from records where $1::text[] is null or ascii = any($1)
     order by ascii, source, last_at desc, id desc`,
    [ascii],
  );
  return rows;
}

/** Every record of a name, newest first, with its raw text. */
export async function selectRecordHistory(db: Queryable, ascii: string): Promise<(StoredRecord & { raw: string })[]> {
  const { rows } = await db.query<StoredRecord & { raw: string }>(
    `select ${COLUMNS}, raw from records where ascii = $1 order by last_at desc, id desc limit 200`,
    [ascii],
  );
  return rows;
}

/** Every record of some names by their registries or pasted, newest first, without the raw texts. */
export async function selectSightings(db: Queryable, ascii: readonly string[]): Promise<StoredRecord[]> {
  const { rows } = await db.query<StoredRecord>(
    `select ${COLUMNS} from records where ascii = any($1) and source <> 'registrar' order by ascii, last_at desc, id desc`,
    [ascii],
  );
  return rows;
}

/** Puts names in line to be checked; one that waits already keeps its place. Answers how many were added. */
export async function enqueueChecks(db: Queryable, ascii: readonly string[], at: Instant): Promise<number> {
  const { rowCount } = await db.query(
    `insert into record_queue (ascii, asked_at, not_before) select unnest($1::text[]), $2, $2 on conflict (ascii) do nothing`,
    [ascii, new Date(at)],
  );
  return rowCount ?? 0;
}

export interface Waiting {
  readonly ascii: string;
  readonly tries: number;
}

/** The names whose turn it is. */
export async function selectWaiting(db: Queryable, at: Instant, limit: number): Promise<Waiting[]> {
  const { rows } = await db.query<Waiting>(
    'select ascii, tries from record_queue where not_before <= $1 order by not_before, ascii limit $2',
    [new Date(at), limit],
  );
  return rows;
}

/** Takes names out of the line, or puts them back to be asked later. */
export async function settleChecks(
  tx: Transaction,
  done: readonly string[],
  later: readonly { readonly ascii: string; readonly notBefore: string; readonly problem: string }[],
): Promise<void> {
  if (done.length > 0) await tx.query('delete from record_queue where ascii = any($1)', [done]);
  if (later.length > 0)
    await tx.query(
      `update record_queue q set tries = q.tries + 1, not_before = l."notBefore", problem = l.problem
       from jsonb_to_recordset($1::jsonb) as l(ascii text, "notBefore" timestamptz, problem text) where q.ascii = l.ascii`,
      [JSON.stringify(later)],
    );
}

/** How many names wait, what went wrong with those that were tried, and of how many the record has been read, the longest ago when. */
export async function selectQueue(db: Queryable): Promise<{
  waiting: number;
  problems: { ascii: string; problem: string }[];
  names: number;
  asked: number;
  oldestAt: Instant | null;
  recent: string[];
}> {
  const { rows } = await db.query<{ waiting: number; names: number; asked: number; oldestAt: Instant | null }>(
    `select (select count(*) from record_queue) as waiting, count(*) as names, count(checked_at) as asked, min(checked_at) as "oldestAt"
     from names where gone_at is null`,
  );
  const { rows: problems } = await db.query<{ ascii: string; problem: string }>(
    'select ascii, problem from record_queue where problem is not null order by ascii limit 20',
  );
  const { rows: last } = await db.query<{ unicode: string }>(
    'select "unicode" from names where gone_at is null and checked_at is not null order by checked_at desc, id desc limit 3',
  );
  const { waiting = 0, names = 0, asked = 0, oldestAt = null } = rows[0] ?? {};
  return { waiting, problems, names, asked, oldestAt, recent: last.map(({ unicode }) => unicode) };
}

/**
 * Notes when names were last checked and the statuses they were seen with, the last transfer, and of those that had none yet the holder and
 * the registration: facts beside the ledger's own.
 */
export async function noteChecked(tx: Transaction, seen: readonly SeenOfName[], at: Instant): Promise<void> {
  await tx.query(
    `update names n set checked_at = $2, holder = coalesce(n.holder, c.holder), statuses = c.statuses,
       registered = coalesce(n.registered, to_timestamp(c."registeredAt" / 1000.0))
     from jsonb_to_recordset($1::jsonb) as c(ascii text, holder text, statuses text[], "registeredAt" float8) where n.ascii = c.ascii`,
    [JSON.stringify(seen), new Date(at)],
  );
  const moved = seen.flatMap(({ ascii, transferredAt }) =>
    transferredAt === null ? [] : [{ ascii, at: transferredAt }],
  );
  await noteTransferred(tx, moved, 'the registration record');
}

/** What the comparison needs of names beyond the ledger's row. */
export interface ComparedExtras {
  readonly id: number;
  readonly nameServers: readonly string[];
  readonly holder: string | null;
  /** The end that the account's own answer gave of this name, and when; `null` while it gave none. An empty answer says nothing. */
  readonly toldEnd: Instant | null;
  readonly toldAt: Instant | null;
  /** When the ledger last booked a renewal or a restore of it. */
  readonly actedAt: Instant | null;
  /** There is a renewal booked with a receipt since the term ended. */
  readonly receipt: boolean;
  readonly dismissed: readonly string[];
}

export async function selectComparedExtras(
  db: Queryable,
  nameIds: readonly number[] | null,
): Promise<ComparedExtras[]> {
  const { rows } = await db.query<ComparedExtras>(
    `select n.id, n.name_servers as "nameServers", n.holder, n.told_end as "toldEnd", n.told_at as "toldAt",
       (select max(b.at) from entries e join batches b on b.id = e.batch_id where e.name_id = n.id and e.kind in ('renewal', 'restore')) as "actedAt",
       exists (select from renewal_items i where i.name_id = n.id and i.done and i.receipt is not null and i.old_end >= n.term_end) as receipt,
       coalesce((select array_agg(fingerprint) from record_dismissals d where d.name_id = n.id), '{}') as dismissed
     from names n where n.gone_at is null and ($1::int[] is null or n.id = any($1))`,
    [nameIds],
  );
  return rows;
}

export async function insertDismissals(
  tx: Transaction,
  dismissals: readonly { readonly nameId: number; readonly fingerprint: string }[],
  at: Instant,
): Promise<void> {
  await tx.query(
    `insert into record_dismissals (name_id, fingerprint, at) select "nameId", fingerprint, $2
     from jsonb_to_recordset($1::jsonb) as d("nameId" int, fingerprint text) on conflict do nothing`,
    [JSON.stringify(dismissals), new Date(at)],
  );
}
