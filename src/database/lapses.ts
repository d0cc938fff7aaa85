import type { Instant, TermEnd } from '@/core/time';
import type { Queryable } from './pool';

/** A name as far as a look back at its lapse needs it. */
export interface LapsedName {
  readonly id: number;
  readonly ascii: string;
  readonly ending: string;
  readonly accountId: number;
  readonly registered: Instant | null;
  readonly termEnd: TermEnd | null;
  readonly observed: {
    readonly phase: 'redemption' | 'pending restore' | 'pending delete' | 'pending transfer';
    readonly at: Instant;
  } | null;
  readonly goneAt: Instant | null;
}

export async function selectLapsedName(db: Queryable, nameId: number): Promise<LapsedName | null> {
  const { rows } = await db.query<
    Omit<LapsedName, 'termEnd' | 'observed'> & {
      at: Instant | null;
      day: boolean;
      phase: NonNullable<LapsedName['observed']>['phase'] | null;
      observedAt: Instant | null;
    }
  >(
    `select id, ascii, ending, account_id as "accountId", registered, term_end as at, term_end_day as day, observed as phase,
       observed_at as "observedAt", gone_at as "goneAt" from names where id = $1`,
    [nameId],
  );
  const row = rows[0];
  if (!row) return null;
  const { at, day, phase, observedAt, ...rest } = row;
  return {
    ...rest,
    termEnd: at === null ? null : { at, precision: day ? 'day' : 'instant' },
    observed: phase === null || observedAt === null ? null : { phase, at: observedAt },
  };
}

/** A reminder that was sent, and whether somebody has seen it. */
export interface SentReminder {
  readonly stepAt: Instant;
  readonly kind: string;
  readonly times: number;
  readonly firstAt: Instant;
  readonly lastAt: Instant;
  readonly acknowledgedAt: Instant | null;
}

export async function selectSentReminders(db: Queryable, nameId: number): Promise<SentReminder[]> {
  const { rows } = await db.query<SentReminder>(
    `select step_at as "stepAt", kind, times, first_at as "firstAt", last_at as "lastAt", acknowledged_at as "acknowledgedAt"
     from reminders where name_id = $1 order by first_at`,
    [nameId],
  );
  return rows;
}

/** What registrars told of a name since an instant. */
export async function selectMessagesOf(
  db: Queryable,
  ascii: string,
  since: Instant,
): Promise<{ at: Instant; kind: string | null; text: string }[]> {
  const { rows } = await db.query<{ at: Instant; kind: string | null; text: string }>(
    `select coalesce(told_at, received_at) as at, kind, text from registrar_messages
     where name = $1 and coalesce(told_at, received_at) >= $2 order by 1`,
    [ascii, new Date(since)],
  );
  return rows;
}
