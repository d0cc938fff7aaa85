import type { AskedBy, OutcomeKind } from '@/core/acquiring';
import type { Instant } from '@/core/time';
import type { Queryable, Transaction } from './pool';

/** What was answered last of a name. Amounts are minor units of `currency`, for `years`. */
export interface AvailabilityRow {
  readonly ascii: string;
  readonly ending: string;
  readonly kind: OutcomeKind;
  readonly askedBy: AskedBy | null;
  readonly why: string;
  /** The server's own words where a link does not sell it. */
  readonly said: string | null;
  readonly accountId: number | null;
  readonly years: number | null;
  readonly registerMinor: number | null;
  readonly renewMinor: number | null;
  readonly currency: string | null;
  /** Of a taken name, by its record: the end of its term as far as it is known, and when it may come free. */
  readonly termEnd: Instant | null;
  readonly earliest: Instant | null;
  readonly latest: Instant | null;
  readonly askedAt: Instant;
  readonly before: OutcomeKind | null;
  readonly changedAt: Instant | null;
}

export type AnswerDraft = Omit<AvailabilityRow, 'askedAt' | 'before' | 'changedAt'>;

const COLUMNS = `ascii, ending, kind, asked_by as "askedBy", why, said, account_id as "accountId", years, register_minor as "registerMinor",
  renew_minor as "renewMinor", currency, term_end as "termEnd", earliest, latest, asked_at as "askedAt", before_kind as before, changed_at as "changedAt"`;

export async function selectAvailability(db: Queryable, ascii: readonly string[]): Promise<AvailabilityRow[]> {
  return (await db.query<AvailabilityRow>(`select ${COLUMNS} from availability where ascii = any($1)`, [ascii])).rows;
}

/** Writes answers over those before. What differs from the last one is kept beside it with the instant. */
export async function writeAnswers(tx: Transaction, answers: readonly AnswerDraft[], at: Instant): Promise<void> {
  await tx.query(
    `insert into availability as old (ascii, ending, kind, asked_by, why, said, account_id, years, register_minor, renew_minor, currency, term_end,
       earliest, latest, asked_at)
     select d.ascii, d.ending, d.kind, d."askedBy", d.why, d.said, d."accountId", d.years, d."registerMinor", d."renewMinor", d.currency,
       to_timestamp(d."termEnd" / 1000.0), to_timestamp(d.earliest / 1000.0), to_timestamp(d.latest / 1000.0), $2
     from jsonb_to_recordset($1::jsonb) as d(ascii text, ending text, kind text, "askedBy" text, why text, said text, "accountId" int, years int,
       "registerMinor" int8, "renewMinor" int8, currency text, "termEnd" float8, earliest float8, latest float8)
     on conflict (ascii) do update set kind = excluded.kind, asked_by = excluded.asked_by, why = excluded.why, said = excluded.said, account_id = excluded.account_id,
       years = excluded.years, register_minor = excluded.register_minor, renew_minor = excluded.renew_minor, currency = excluded.currency,
       term_end = excluded.term_end, earliest = excluded.earliest, latest = excluded.latest, asked_at = excluded.asked_at,
       before_kind = case when old.kind = excluded.kind then old.before_kind else old.kind end,
       changed_at = case when old.kind = excluded.kind then old.changed_at else excluded.asked_at end`,
    [JSON.stringify(answers), new Date(at)],
  );
}

/** A name that waits to be asked for. */
export interface QueuedName {
  readonly setId: number;
  readonly ascii: string;
  readonly ending: string;
  readonly wantsRecord: boolean;
  readonly tries: number;
}

/** Puts names of a set in line, but for those that were answered since `since`; one that waits keeps its place. Answers how many wait. */
export async function enqueueNames(
  tx: Transaction,
  setId: number,
  names: readonly { readonly ascii: string; readonly ending: string }[],
  since: Instant,
  at: Instant,
): Promise<number> {
  const { rowCount } = await tx.query(
    `insert into availability_queue (set_id, ascii, ending, place, not_before)
     select $1, n.ascii, n.ending, n.place, $5
     from unnest($2::text[], $3::text[]) with ordinality as n(ascii, ending, place)
     where not exists (select from availability a where a.ascii = n.ascii and a.asked_at >= $4 and a.kind <> 'unknown')
       and not exists (select from names own where own.ascii = n.ascii and own.gone_at is null)
     on conflict (set_id, ascii) do nothing`,
    [setId, names.map(({ ascii }) => ascii), names.map(({ ending }) => ending), new Date(since), new Date(at)],
  );
  return rowCount ?? 0;
}

/** The names whose turn it is, of sets that are not paused. */
export async function selectQueuedNames(
  db: Queryable,
  at: Instant,
  wantsRecord: boolean,
  limit: number,
): Promise<QueuedName[]> {
  const { rows } = await db.query<QueuedName>(
    `select q.set_id as "setId", q.ascii, q.ending, q.wants_record as "wantsRecord", q.tries
     from availability_queue q join idea_sets s on s.id = q.set_id
     where not s.paused and q.not_before <= $1 and q.wants_record = $2 order by q.not_before, q.place limit $3`,
    [new Date(at), wantsRecord, limit],
  );
  return rows;
}

/** Takes names out of every line; those in `records` stay to have their record read; those in `later` are asked again then. */
export async function settleQueued(
  tx: Transaction,
  done: readonly string[],
  records: readonly string[],
  later: readonly { readonly ascii: string; readonly notBefore: number }[],
): Promise<void> {
  if (done.length > 0) await tx.query('delete from availability_queue where ascii = any($1)', [done]);
  if (records.length > 0)
    await tx.query('update availability_queue set wants_record = true, tries = 0 where ascii = any($1)', [records]);
  if (later.length > 0)
    await tx.query(
      `update availability_queue q set tries = tries + 1, not_before = to_timestamp(l."notBefore" / 1000.0)
       from jsonb_to_recordset($1::jsonb) as l(ascii text, "notBefore" float8) where q.ascii = l.ascii`,
      [JSON.stringify(later)],
    );
}

/** How far the asking for a set's names has come. */
export interface AskingProgress {
  /** Names that nobody has been asked for yet, and taken ones whose record is still to be read. */
  readonly waiting: number;
  readonly records: number;
  /** The next instant at which one of them is asked for; `null` where none waits. */
  readonly next: Instant | null;
}

export async function selectAskingProgress(db: Queryable, setId: number): Promise<AskingProgress> {
  const { rows } = await db.query<AskingProgress>(
    `select count(*) filter (where not wants_record) as waiting, count(*) filter (where wants_record) as records, min(not_before) as next
     from availability_queue where set_id = $1`,
    [setId],
  );
  return rows[0] ?? { waiting: 0, records: 0, next: null };
}

/** What is known of names with one label, under any ending. `label` in A-label form. */
export async function selectKnownUnder(db: Queryable, label: string): Promise<AvailabilityRow[]> {
  const { rows } = await db.query<AvailabilityRow>(
    `select ${COLUMNS} from availability where ascii like $1 || '.%' and split_part(ascii, '.', 1) = $1 order by ascii limit 60`,
    [label],
  );
  return rows;
}
