import type { Area, Member, Role } from '@/core/people';
import type { Instant } from '@/core/time';
import type { Queryable, Transaction } from './pool';

/** Somebody who is set up, with how he may come in. */
export interface MemberRow extends Member {
  readonly addedAt: Instant;
  readonly addedBy: string | null;
  readonly endedAt: Instant | null;
  readonly hasPassPhrase: boolean;
  readonly passkeys: number;
  readonly openSessions: number;
  readonly recoveryCodesLeft: number;
  /** Until when an invitation can be taken up; `null` without one. */
  readonly invitedUntil: Instant | null;
  readonly tokenEndsAt: Instant | null;
  readonly usedAt: Instant | null;
}

const MEMBER = `p.id, p.kind, p.name, p.role, p.scope, p.monthly_limit_minor as "monthlyLimitMinor"`;
const MEMBER_ROW = `${MEMBER}, p.added_at as "addedAt", p.added_by as "addedBy", p.ended_at as "endedAt",
  p.pass_phrase is not null as "hasPassPhrase",
  (select count(*)::int from passkeys k where k.person_id = p.id) as passkeys,
  (select count(*)::int from sessions s where s.person_id = p.id) as "openSessions",
  (select count(*)::int from recovery_codes c where c.person_id = p.id and c.used_at is null) as "recoveryCodesLeft",
  (select i.ends_at from invitations i where i.person_id = p.id) as "invitedUntil",
  p.token_ends_at as "tokenEndsAt",
  coalesce(p.token_used_at, (select max(s.seen_at) from sessions s where s.person_id = p.id)) as "usedAt"`;

/** Who has a way to sign in: as long as nobody has, the ledger is open to whoever sits at its machine. */
const CAN_SIGN_IN = `p.kind = 'person' and p.ended_at is null
  and (p.pass_phrase is not null or exists (select from passkeys k where k.person_id = p.id))`;

/** Whether anybody can sign in, so that everybody must. */
export async function selectIsGuarded(db: Queryable): Promise<boolean> {
  const { rows } = await db.query<{ guarded: boolean }>(
    `select exists (select from people p where ${CAN_SIGN_IN}) as guarded`,
  );
  return rows[0]?.guarded ?? false;
}

export async function selectMembers(db: Queryable): Promise<MemberRow[]> {
  const { rows } = await db.query<MemberRow>(
    `select ${MEMBER_ROW} from people p order by p.ended_at nulls first, p.kind, p.id`,
  );
  return rows;
}

export async function selectMember(db: Queryable, id: number): Promise<MemberRow | null> {
  const { rows } = await db.query<MemberRow>(`select ${MEMBER_ROW} from people p where p.id = $1`, [id]);
  return rows[0] ?? null;
}

/** How many owners can sign in, but for one. Waits for whoever changes an owner in this moment. */
export async function countOtherOwners(tx: Transaction, id: number): Promise<number> {
  await tx.query("select from people where role = 'owner' for update");
  const { rows } = await tx.query<{ owners: number }>(
    `select count(*)::int as owners from people p where p.role = 'owner' and p.id <> $1 and ${CAN_SIGN_IN}`,
    [id],
  );
  return rows[0]?.owners ?? 0;
}

/** What somebody is set up with. */
export interface MemberDraft {
  readonly kind: Member['kind'];
  readonly name: string;
  readonly role: Role;
  readonly monthlyLimitMinor: number | null;
  readonly scope: readonly Area[] | null;
  readonly addedAt: Instant;
  readonly addedBy: string | null;
}

/** Sets somebody up; `null` where the name is taken, by somebody of before too. */
export async function insertMember(tx: Transaction, draft: MemberDraft): Promise<number | null> {
  const { rows } = await tx.query<{ id: number }>(
    `insert into people (kind, name, role, monthly_limit_minor, scope, added_at, added_by)
     values ($1, $2, $3, $4, $5, $6, $7) on conflict do nothing returning id`,
    [draft.kind, draft.name, draft.role, draft.monthlyLimitMinor, draft.scope, new Date(draft.addedAt), draft.addedBy],
  );
  return rows[0]?.id ?? null;
}

export async function updateMember(
  tx: Transaction,
  id: number,
  { role, monthlyLimitMinor }: Pick<Member, 'role' | 'monthlyLimitMinor'>,
): Promise<void> {
  await tx.query('update people set role = $2, monthly_limit_minor = $3 where id = $1', [id, role, monthlyLimitMinor]);
}

/** Somebody comes in no more; what he did stays under his name. */
export async function endPerson(tx: Transaction, id: number, at: Instant): Promise<void> {
  await tx.query(
    `update people set ended_at = $2, pass_phrase = null, code_secret = null, token_hash = null where id = $1`,
    [id, new Date(at)],
  );
  for (const table of ['sessions', 'passkeys', 'recovery_codes', 'invitations', 'challenges'])
    await tx.query(`delete from ${table} where person_id = $1`, [id]);
}

/** Makes an invitation in place of the one before. */
export async function upsertInvitation(tx: Transaction, id: number, hash: Buffer, endsAt: Instant): Promise<void> {
  await tx.query(
    `insert into invitations (person_id, token_hash, ends_at) values ($1, $2, $3)
     on conflict (person_id) do update set token_hash = excluded.token_hash, ends_at = excluded.ends_at`,
    [id, hash, new Date(endsAt)],
  );
}

/** Who is invited by a token that still holds. */
export async function selectInvited(db: Queryable, hash: Buffer, at: Instant): Promise<MemberRow | null> {
  const { rows } = await db.query<MemberRow>(
    `select ${MEMBER_ROW} from people p join invitations i on i.person_id = p.id
     where i.token_hash = $1 and i.ends_at > $2 and p.ended_at is null`,
    [hash, new Date(at)],
  );
  return rows[0] ?? null;
}

/** Takes an invitation up, once. Answers whether it was there. */
export async function takeInvitation(tx: Transaction, hash: Buffer): Promise<boolean> {
  const { rowCount } = await tx.query('delete from invitations where token_hash = $1', [hash]);
  return rowCount === 1;
}

/** How somebody signs in by pass phrase and code. */
export interface PassPhraseRow extends Member {
  readonly passPhrase: string;
  readonly codeSecret: Buffer;
  readonly codeStep: number | null;
}

export async function selectPassPhrase(db: Queryable, name: string): Promise<PassPhraseRow | null> {
  const { rows } = await db.query<PassPhraseRow>(
    `select ${MEMBER}, p.pass_phrase as "passPhrase", p.code_secret as "codeSecret", p.code_step as "codeStep"
     from people p where lower(p.name) = lower($1) and p.kind = 'person' and p.ended_at is null and p.pass_phrase is not null`,
    [name],
  );
  return rows[0] ?? null;
}

export async function updatePassPhrase(tx: Transaction, id: number, hash: string, secret: Buffer): Promise<void> {
  await tx.query('update people set pass_phrase = $2, code_secret = $3, code_step = null where id = $1', [
    id,
    hash,
    secret,
  ]);
}

/** Uses up a step of somebody's codes: false where it, or a later one, has been used (RFC 6238 section 5.2). */
export async function spendCodeStep(db: Queryable, id: number, step: number): Promise<boolean> {
  const { rowCount } = await db.query(
    'update people set code_step = $2 where id = $1 and (code_step is null or code_step < $2)',
    [id, step],
  );
  return rowCount === 1;
}

export async function replaceRecoveryCodes(tx: Transaction, id: number, hashes: readonly Buffer[]): Promise<void> {
  await tx.query('delete from recovery_codes where person_id = $1', [id]);
  await tx.query('insert into recovery_codes (person_id, code_hash) select $1, unnest($2::bytea[])', [id, hashes]);
}

/** Uses a recovery code up. Answers whose it was. */
export async function spendRecoveryCode(
  db: Queryable,
  name: string,
  hash: Buffer,
  at: Instant,
): Promise<Member | null> {
  const { rows } = await db.query<Member>(
    `update recovery_codes c set used_at = $3 from people p
     where p.id = c.person_id and lower(p.name) = lower($1) and p.ended_at is null and c.code_hash = $2 and c.used_at is null
     returning ${MEMBER}`,
    [name, hash, new Date(at)],
  );
  return rows[0] ?? null;
}

export interface PasskeyRow {
  readonly id: number;
  readonly personId: number;
  readonly credentialId: string;
  readonly publicKey: Buffer;
  readonly counter: number;
  readonly transports: readonly string[];
  readonly label: string;
  readonly addedAt: Instant;
  readonly usedAt: Instant | null;
}

const PASSKEY = `k.id, k.person_id as "personId", k.credential_id as "credentialId", k.public_key as "publicKey", k.counter,
  k.transports, k.label, k.added_at as "addedAt", k.used_at as "usedAt"`;

export async function selectPasskeys(db: Queryable, personId: number): Promise<PasskeyRow[]> {
  const { rows } = await db.query<PasskeyRow>(
    `select ${PASSKEY} from passkeys k where k.person_id = $1 order by k.id`,
    [personId],
  );
  return rows;
}

/** The passkey of a credential, with whose it is. */
export async function selectPasskey(
  db: Queryable,
  credentialId: string,
): Promise<(PasskeyRow & { member: Member }) | null> {
  const { rows } = await db.query<PasskeyRow & { member: Member }>(
    `select ${PASSKEY}, json_build_object('id', p.id, 'kind', p.kind, 'name', p.name, 'role', p.role, 'scope', p.scope,
       'monthlyLimitMinor', p.monthly_limit_minor) as member
     from passkeys k join people p on p.id = k.person_id where k.credential_id = $1 and p.ended_at is null`,
    [credentialId],
  );
  return rows[0] ?? null;
}

export async function insertPasskey(tx: Transaction, draft: Omit<PasskeyRow, 'id' | 'usedAt'>): Promise<boolean> {
  const { rowCount } = await tx.query(
    `insert into passkeys (person_id, credential_id, public_key, counter, transports, label, added_at)
     values ($1, $2, $3, $4, $5, $6, $7) on conflict do nothing`,
    [
      draft.personId,
      draft.credentialId,
      draft.publicKey,
      draft.counter,
      draft.transports,
      draft.label,
      new Date(draft.addedAt),
    ],
  );
  return rowCount === 1;
}

export async function updatePasskeyUsed(db: Queryable, id: number, counter: number, at: Instant): Promise<void> {
  await db.query('update passkeys set counter = $2, used_at = $3 where id = $1', [id, counter, new Date(at)]);
}

export async function deletePasskey(tx: Transaction, personId: number, id: number): Promise<boolean> {
  const { rowCount } = await tx.query('delete from passkeys where id = $1 and person_id = $2', [id, personId]);
  return rowCount === 1;
}

/** What a browser was given to sign, by a token of its own. */
export async function insertChallenge(
  db: Queryable,
  hash: Buffer,
  challenge: string,
  personId: number | null,
  endsAt: Instant,
): Promise<void> {
  await db.query('insert into challenges (token_hash, challenge, person_id, ends_at) values ($1, $2, $3, $4)', [
    hash,
    challenge,
    personId,
    new Date(endsAt),
  ]);
}

/** Takes a challenge, once; what has ended is cleared away with it. */
export async function takeChallenge(
  db: Queryable,
  hash: Buffer,
  at: Instant,
): Promise<{ challenge: string; personId: number | null } | null> {
  const { rows } = await db.query<{ challenge: string; personId: number | null; isOpen: boolean; isIt: boolean }>(
    `delete from challenges where token_hash = $1 or ends_at <= $2
     returning challenge, person_id as "personId", ends_at > $2 as "isOpen", token_hash = $1 as "isIt"`,
    [hash, new Date(at)],
  );
  return rows.find(({ isOpen, isIt }) => isOpen && isIt) ?? null;
}

/** Who shows a token that still holds; notes that it was used. */
export async function selectProgram(db: Queryable, hash: Buffer, at: Instant): Promise<Member | null> {
  const { rows } = await db.query<Member>(
    `update people p set token_used_at = $2 where p.token_hash = $1 and p.token_ends_at > $2 and p.ended_at is null
     returning ${MEMBER}`,
    [hash, new Date(at)],
  );
  return rows[0] ?? null;
}

export async function updateToken(tx: Transaction, id: number, hash: Buffer, endsAt: Instant): Promise<void> {
  await tx.query('update people set token_hash = $2, token_ends_at = $3 where id = $1', [id, hash, new Date(endsAt)]);
}
