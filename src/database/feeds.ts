import type { Instant } from '@/core/time';
import type { Queryable, Transaction } from './pool';

/** The address of a feed, without what stands in it. */
export interface FeedRow {
  readonly madeAt: Instant;
  readonly expiresAt: Instant;
  readonly readAt: Instant | null;
}

export async function selectFeed(db: Queryable, purpose: 'calendar'): Promise<FeedRow | null> {
  const { rows } = await db.query<FeedRow>(
    'select made_at as "madeAt", expires_at as "expiresAt", read_at as "readAt" from feed_tokens where purpose = $1 and withdrawn_at is null',
    [purpose],
  );
  return rows[0] ?? null;
}

/** Withdraws the address that is in use, if any. */
export async function withdrawFeed(db: Queryable, purpose: 'calendar', at: Instant): Promise<void> {
  await db.query('update feed_tokens set withdrawn_at = $2 where purpose = $1 and withdrawn_at is null', [
    purpose,
    new Date(at),
  ]);
}

export async function insertFeed(
  tx: Transaction,
  purpose: 'calendar',
  sha256: Buffer,
  at: Instant,
  expiresAt: Instant,
): Promise<void> {
  await tx.query('insert into feed_tokens (purpose, sha256, made_at, expires_at) values ($1, $2, $3, $4)', [
    purpose,
    sha256,
    new Date(at),
    new Date(expiresAt),
  ]);
}

/** Notes that a feed was read. False for a token that is unknown, withdrawn or over. */
export async function readFeedToken(db: Queryable, purpose: 'calendar', sha256: Buffer, at: Instant): Promise<boolean> {
  const { rowCount } = await db.query(
    'update feed_tokens set read_at = $3 where purpose = $1 and sha256 = $2 and withdrawn_at is null and expires_at > $3',
    [purpose, sha256, new Date(at)],
  );
  return rowCount === 1;
}
