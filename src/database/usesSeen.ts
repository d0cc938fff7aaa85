import type { Instant } from '@/core/time';
import type { Queryable } from './pool';

/** Whether a name is in use, as of the instant it was looked at; `null` where that was not to be found out. */
export interface UseSeen {
  readonly ascii: string;
  readonly lookedAt: Instant;
  readonly hasNameServers: boolean | null;
  /** How its site answered, in words. */
  readonly site: string | null;
  readonly takesMail: boolean | null;
}

export async function selectUse(db: Queryable, ascii: string): Promise<UseSeen | null> {
  const { rows } = await db.query<UseSeen>(
    `select ascii, looked_at as "lookedAt", has_name_servers as "hasNameServers", site, takes_mail as "takesMail" from uses_seen where ascii = $1`,
    [ascii],
  );
  return rows[0] ?? null;
}

export async function upsertUse(
  db: Queryable,
  { ascii, lookedAt, hasNameServers, site, takesMail }: UseSeen,
): Promise<void> {
  await db.query(
    `insert into uses_seen (ascii, looked_at, has_name_servers, site, takes_mail) values ($1, $2, $3, $4, $5)
     on conflict (ascii) do update set looked_at = excluded.looked_at, has_name_servers = excluded.has_name_servers, site = excluded.site,
       takes_mail = excluded.takes_mail`,
    [ascii, new Date(lookedAt), hasNameServers, site, takesMail],
  );
}
