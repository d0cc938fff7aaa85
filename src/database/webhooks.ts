import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** A program that is told of each event. */
export interface WebhookRow {
  readonly id: number;
  readonly label: string;
  readonly url: string;
  /** Kinds of events that are told; none for all. */
  readonly kinds: readonly string[];
  readonly madeAt: Instant;
  /** The place of the last event that was taken. */
  readonly after: number;
  /** How often the event after it was sent in vain, and since when. */
  readonly attempts: number;
  readonly failingSince: Instant | null;
  readonly nextAt: Instant | null;
  readonly problem: string | null;
  readonly paused: boolean;
  readonly toldAt: Instant | null;
}

const COLUMNS = `id, label, url, kinds, made_at as "madeAt", after_place as after, attempts,
  failing_since as "failingSince", next_at as "nextAt", problem, paused, told_at as "toldAt"`;

export async function selectWebhooks(db: Queryable): Promise<WebhookRow[]> {
  const { rows } = await db.query<WebhookRow>(`select ${COLUMNS} from webhooks order by id`);
  return rows;
}

export async function selectWebhook(db: Queryable, id: number): Promise<WebhookRow | null> {
  const { rows } = await db.query<WebhookRow>(`select ${COLUMNS} from webhooks where id = $1`, [id]);
  return rows[0] ?? null;
}

export async function selectWebhookSecret(db: Queryable, id: number): Promise<Buffer | null> {
  const { rows } = await db.query<{ secret: Buffer }>('select secret from webhooks where id = $1', [id]);
  return rows[0]?.secret ?? null;
}

/** Adds one that is told of what happens after a place. Answers its number; its secret comes by `setWebhookSecret`. */
export async function insertWebhook(
  db: Queryable,
  webhook: Pick<WebhookRow, 'label' | 'url' | 'kinds' | 'after'>,
  at: Instant,
): Promise<number> {
  const { rows } = await db.query<{ id: number }>(
    `insert into webhooks (label, url, kinds, made_at, secret, after_place) values ($1, $2, $3, $4, '', $5) returning id`,
    [webhook.label, webhook.url, webhook.kinds, new Date(at), webhook.after],
  );
  return rows[0]?.id as number;
}

export async function setWebhookSecret(db: Queryable, id: number, secret: Buffer): Promise<void> {
  await db.query('update webhooks set secret = $2 where id = $1', [id, secret]);
}

export async function deleteWebhook(db: Queryable, id: number): Promise<boolean> {
  const { rowCount } = await db.query('delete from webhooks where id = $1', [id]);
  return rowCount === 1;
}

/** Pauses one, or lets it go on from where it stood, at once. */
export async function pauseWebhook(db: Queryable, id: number, paused: boolean): Promise<boolean> {
  const { rowCount } = await db.query(
    'update webhooks set paused = $2, next_at = null, failing_since = null where id = $1',
    [id, paused],
  );
  return rowCount === 1;
}

/** Notes that up to a place there was nothing that this one is told of. */
export async function passOver(db: Queryable, id: number, place: number): Promise<void> {
  await db.query('update webhooks set after_place = $2 where id = $1', [id, place]);
}

/** Notes that an event was taken. */
export async function noteTaken(db: Queryable, id: number, place: number, at: Instant): Promise<void> {
  await db.query(
    `update webhooks set after_place = $2, attempts = 0, failing_since = null, next_at = null, problem = null, told_at = $3
     where id = $1`,
    [id, place, new Date(at)],
  );
}

/** Notes that an event was sent and not taken, as far as is known. */
export async function noteNotTaken(
  db: Queryable,
  id: number,
  failure: { readonly problem: string; readonly at: Instant; readonly nextAt: Instant; readonly paused: boolean },
): Promise<void> {
  await db.query(
    `update webhooks set attempts = attempts + 1, failing_since = coalesce(failing_since, $2), next_at = $3, problem = $4, paused = $5
     where id = $1`,
    [id, new Date(failure.at), new Date(failure.nextAt), failure.problem, failure.paused],
  );
}
