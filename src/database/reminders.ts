import type { Instant } from '@/core/time';
import type { Queryable, Transaction } from './pool';

/** A reminder that was sent, as far as sending again and acknowledging need it. */
export interface ReminderRow {
  readonly nameId: number;
  readonly stepAt: Instant;
  readonly kind: string;
  readonly stage: number;
  readonly times: number;
  readonly acknowledged: boolean;
  readonly token: string;
}

const REMINDER = `select name_id as "nameId", step_at as "stepAt", kind, stage, times, acknowledged_at is not null as acknowledged, token
  from reminders`;

/** Reminders whose step lies ahead. */
export async function selectReminders(db: Queryable, asOf: Instant): Promise<ReminderRow[]> {
  return (await db.query<ReminderRow>(`${REMINDER} where step_at > $1`, [new Date(asOf)])).rows;
}

export interface ReminderDraft {
  readonly nameId: number;
  readonly stepAt: Instant;
  readonly kind: string;
  readonly stage: number;
  readonly token: string;
}

/** Notes what has been told. */
export async function upsertReminders(
  tx: Transaction,
  reminders: readonly ReminderDraft[],
  at: Instant,
  expiresAt: Instant,
): Promise<void> {
  await tx.query(
    `insert into reminders (name_id, step_at, kind, stage, first_at, last_at, token, expires_at)
     select r."nameId", to_timestamp(r."stepAt" / 1000.0), r.kind, r.stage, $2, $2, r.token, $3
     from jsonb_to_recordset($1::jsonb) as r("nameId" int, "stepAt" int8, kind text, stage int, token uuid)
     on conflict (name_id, step_at, kind) do update set stage = excluded.stage, times = reminders.times + 1, last_at = excluded.last_at,
       token = excluded.token, expires_at = excluded.expires_at`,
    [JSON.stringify(reminders), new Date(at), new Date(expiresAt)],
  );
}

/** The name that a reminder's link is about, and whether it was seen already; `null` for one that does not hold any more. */
export async function selectReminderOf(
  db: Queryable,
  token: string,
  at: Instant,
): Promise<{ readonly ascii: string; readonly unicode: string; readonly isSeen: boolean } | null> {
  const { rows } = await db.query<{ ascii: string; unicode: string; isSeen: boolean }>(
    `select n.ascii, n."unicode", r.acknowledged_at is not null as "isSeen" from reminders r join names n on n.id = r.name_id
     where r.token = $1 and r.expires_at > $2`,
    [token, new Date(at)],
  );
  return rows[0] ?? null;
}

/** Withdraws every link in mails that were sent: each reminder gets another token. Answers how many. */
export async function withdrawReminderLinks(db: Queryable): Promise<number> {
  const { rowCount } = await db.query('update reminders set token = gen_random_uuid() where acknowledged_at is null');
  return rowCount ?? 0;
}

/** Takes note that somebody has seen a reminder. Answers the name it was about, or `null` for a token that does not hold. */
export async function acknowledge(db: Queryable, token: string, at: Instant): Promise<string | null> {
  const { rows } = await db.query<{ ascii: string }>(
    `update reminders r set acknowledged_at = coalesce(acknowledged_at, $2) from names n
     where r.token = $1 and n.id = r.name_id and r.expires_at > $2 returning n.ascii`,
    [token, new Date(at)],
  );
  return rows[0]?.ascii ?? null;
}

/** Takes note that everything told of these names has been seen. */
export async function acknowledgeNames(db: Queryable, nameIds: readonly number[], at: Instant): Promise<void> {
  await db.query(
    'update reminders set acknowledged_at = $2 where name_id = any($1) and acknowledged_at is null and step_at > $2',
    [nameIds, new Date(at)],
  );
}
