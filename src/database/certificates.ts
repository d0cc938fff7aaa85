import type { Instant } from '@/core/time';
import { type Database, type Queryable, transaction } from './pool';

/** A certificate of a host, or what stands against one. */
export interface CertificateRow {
  readonly id: number;
  readonly host: string;
  readonly chain: string | null;
  readonly keySealed: Buffer | null;
  readonly notAfter: Instant | null;
  readonly triedAt: Instant | null;
  readonly problem: string | null;
}

const CERTIFICATE =
  'select id, host, chain, key_sealed as "keySealed", not_after as "notAfter", tried_at as "triedAt", problem from certificates';

export async function selectCertificate(db: Queryable, host: string): Promise<CertificateRow | null> {
  return (await db.query<CertificateRow>(`${CERTIFICATE} where host = $1`, [host])).rows[0] ?? null;
}

/** Hosts that want a certificate: names whose window shows, without one that lasts, and not tried since. The first to expire comes first. */
export async function selectHostsToCertify(
  db: Queryable,
  own: readonly string[],
  lastsUntil: Instant,
  triedBefore: Instant,
  most: number,
): Promise<string[]> {
  const { rows } = await db.query<{ host: string }>(
    `select h.host from (
       select unnest($1::text[]) as host union
       select n.ascii from names n join window_looks w on w.name_id = n.id and w.shows
       where n.gone_at is null and exists (select from listings l where l.name_id = n.id and l.status = 'live')) h
     left join certificates c on c.host = h.host
     where (c.not_after is null or c.not_after < $2) and (c.tried_at is null or c.tried_at < $3)
     order by c.not_after nulls last, h.host limit $4`,
    [own, new Date(lastsUntil), new Date(triedBefore), most],
  );
  return rows.map(({ host }) => host);
}

/** Takes down that a certificate is being asked for: false where another process asks already. */
export async function claimCertificate(
  db: Database,
  host: string,
  at: Instant,
  triedBefore: Instant,
): Promise<number | null> {
  const { rows } = await db.query<{ id: number }>(
    `insert into certificates (host, tried_at) values ($1, $2)
     on conflict (host) do update set tried_at = excluded.tried_at where certificates.tried_at is null or certificates.tried_at < $3 returning id`,
    [host, new Date(at), new Date(triedBefore)],
  );
  return rows[0]?.id ?? null;
}

export async function setCertificate(
  db: Database,
  id: number,
  { chain, keySealed, notAfter }: { chain: string; keySealed: Buffer; notAfter: Date },
): Promise<void> {
  await db.query('update certificates set chain = $2, key_sealed = $3, not_after = $4, problem = null where id = $1', [
    id,
    chain,
    keySealed,
    notAfter,
  ]);
}

export async function setCertificateProblem(db: Database, id: number, problem: string): Promise<void> {
  await db.query('update certificates set problem = $2 where id = $1', [id, problem]);
}

/** Certificates that could not be had, and those that are there. */
export async function countCertificates(
  db: Queryable,
): Promise<{ readonly held: number; readonly problems: readonly { host: string; problem: string }[] }> {
  const [held, problems] = await Promise.all([
    db.query<{ n: number }>('select count(*)::int as n from certificates where chain is not null'),
    db.query<{ host: string; problem: string }>(
      'select host, problem from certificates where problem is not null order by tried_at desc limit 20',
    ),
  ]);
  return { held: held.rows[0]?.n ?? 0, problems: problems.rows };
}

export async function selectCertificateAccount(
  db: Queryable,
  directory: string,
): Promise<{ readonly id: number; readonly keySealed: Buffer } | null> {
  const { rows } = await db.query<{ id: number; keySealed: Buffer }>(
    'select id, key_sealed as "keySealed" from certificate_accounts where directory = $1',
    [directory],
  );
  return rows[0] ?? null;
}

/** Keeps the key of an account, sealed for its own number; one that is there already stays. */
export async function insertCertificateAccount(
  db: Database,
  directory: string,
  seal: (id: number) => Promise<Buffer>,
): Promise<void> {
  await transaction(db, async (tx) => {
    const { rows } = await tx.query<{ id: number }>(
      "insert into certificate_accounts (directory, key_sealed) values ($1, '') on conflict do nothing returning id",
      [directory],
    );
    const id = rows[0]?.id;
    if (id !== undefined)
      await tx.query('update certificate_accounts set key_sealed = $2 where id = $1', [id, await seal(id)]);
  });
}

export async function insertChallenge(db: Queryable, token: string, answer: string, at: Instant): Promise<void> {
  await db.query(
    'insert into certificate_challenges (token, answer, at) values ($1, $2, $3) on conflict (token) do update set answer = excluded.answer',
    [token, answer, new Date(at)],
  );
}

export async function deleteChallenge(db: Queryable, token: string): Promise<void> {
  await db.query('delete from certificate_challenges where token = $1', [token]);
}

/** The answer to a challenge; `null` for one that nobody has asked for. */
export async function selectChallenge(db: Queryable, token: string): Promise<string | null> {
  const { rows } = await db.query<{ answer: string }>('select answer from certificate_challenges where token = $1', [
    token,
  ]);
  return rows[0]?.answer ?? null;
}
