import type { Instant } from '@/core/time';
import type { Database, Queryable, Transaction } from './pool';

/** A line of the audit, as it is chained. */
export interface AuditLine {
  readonly id: number;
  readonly at: Instant;
  readonly who: string;
  readonly action: string;
  readonly detail: unknown;
  readonly beforeHash: Buffer;
  readonly hash: Buffer;
}

const LINE = 'id, at, who, action, detail, before_hash as "beforeHash", hash';

/** The last line, with nobody else adding one until this transaction ends. */
export async function lastLine(tx: Transaction): Promise<Pick<AuditLine, 'id' | 'hash'> | null> {
  await tx.query("select pg_advisory_xact_lock(hashtext('audit'))");
  const { rows } = await tx.query<Pick<AuditLine, 'id' | 'hash'>>(
    'select id, hash from audit order by id desc limit 1',
  );
  return rows[0] ?? null;
}

export async function insertLine(tx: Transaction, line: AuditLine): Promise<void> {
  await tx.query(
    'insert into audit (id, at, who, action, detail, before_hash, hash) values ($1, $2, $3, $4, $5, $6, $7)',
    [line.id, new Date(line.at), line.who, line.action, JSON.stringify(line.detail), line.beforeHash, line.hash],
  );
}

/** The newest lines before a number. */
export async function selectLines(db: Queryable, before: number, limit: number): Promise<AuditLine[]> {
  const { rows } = await db.query<AuditLine>(`select ${LINE} from audit where id < $1 order by id desc limit $2`, [
    before,
    limit,
  ]);
  return rows;
}

/** Every line in order, some at a time. */
export async function* everyLine(database: Database, atOnce = 5000): AsyncGenerator<AuditLine[]> {
  for (let after = 0; ; ) {
    const { rows } = await database.query<AuditLine>(`select ${LINE} from audit where id > $1 order by id limit $2`, [
      after,
      atOnce,
    ]);
    if (rows.length === 0) return;
    yield rows;
    after = rows.at(-1)?.id as number;
  }
}
